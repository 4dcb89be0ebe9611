/**
 * A mail in two parts that say the same: plain text (RFC 2046), and HTML in Galtry's own looks. Whatever comes from
 * people is text in both. No picture and no address but that of the act: opening a mail tells nobody.
 */

export interface Letter {
  /** The organisation: whom the mail comes from. */
  organisation: string;
  paragraphs: string[];
  /** What is pressed, and where it leads. */
  act: { word: string; address: string } | null;
  /** After the act: small print. */
  after: string[];
}

export interface MailBody {
  text: string;
  html: string;
}

export function letterOf({ organisation, paragraphs, act, after }: Letter): MailBody {
  const text = [...paragraphs, ...(act ? [`${act.word}:\n${act.address}`] : []), ...after, `Galtry, ${organisation}`];
  return { text: `${text.join("\n\n")}\n`, html: page(organisation, [...body(paragraphs, act), ...after.map(small)]) };
}

const escaped = (text: string): string =>
  text.replace(/[&<>"']/g, (character) => `&#${character.charCodeAt(0)};`).replace(/\n/g, "<br>");

const paragraph = (text: string): string => `<p style="margin:0 0 16px">${escaped(text)}</p>`;
const small = (text: string): string =>
  `<p style="margin:0 0 10px;font-size:13px;line-height:19px;color:#5a6460">${escaped(text)}</p>`;

const body = (paragraphs: string[], act: Letter["act"]): string[] => [
  ...paragraphs.map(paragraph),
  ...(act
    ? [
        `<p style="margin:24px 0"><a href="${escaped(act.address)}" style="display:inline-block;padding:10px 18px;border-radius:5px;background:#8f4a1f;color:#ffffff;font-weight:bold;text-decoration:none">${escaped(act.word)}</a></p>`,
        small(`Or open this address: ${act.address}`),
      ]
    : []),
];

const page = (organisation: string, parts: string[]): string =>
  [
    "<!doctype html>",
    '<html lang="en"><head><meta charset="utf-8"><meta name="viewport" content="width=device-width"></head>',
    '<body style="margin:0;padding:24px 12px;background:#f3f4ee;color:#1e2420;font:15px/23px Verdana,sans-serif">',
    '<div style="max-width:560px;margin:0 auto;background:#fdfdf8;border-top:4px double #1e2420">',
    `<p style="margin:0;padding:14px 28px;background:#22382e;color:#f3f4ee;font-size:14px"><b>Galtry</b> &nbsp;${escaped(organisation)}</p>`,
    `<div style="padding:26px 28px 18px;overflow-wrap:anywhere">${parts.join("\n")}</div>`,
    "</div></body></html>",
  ].join("\n");
