/** Formats of one thing a line or a card: otpauth addresses, and vCard (RFC 6350). */
import { ZodError } from "zod";
import { readyKind } from "../kinds/ready";
import { readValues } from "../kinds/values";
import type { ReadRow } from "./rows";

const oneLine = (text: string) => text.replace(/[\u0000-\u001f\u007f]+/g, " ").trim();

function checked(row: number, kind: string, values: Record<string, unknown>): ReadRow {
  try {
    readValues(readyKind(kind), values);
    return { row, incoming: { kind, values, folder: [] }, wrong: null };
  } catch (error) {
    const issue = error instanceof ZodError ? error.issues[0] : null;
    return { row, incoming: null, wrong: issue?.message ?? "It cannot be understood." };
  }
}

/** Whether a text is a list of otpauth addresses, one a line. */
export const isOtpauth = (text: string): boolean => {
  const lines = text.split(/\r?\n/).filter((line) => line.trim() !== "");
  return lines.length > 0 && lines.every((line) => /^otpauth:\/\//i.test(line.trim()));
};

/** One entry an address, named by its issuer and account as the key URI format has them. */
export function fromOtpauth(text: string): ReadRow[] {
  return text
    .split(/\r?\n/)
    .map((line, at) => ({ line: line.trim(), row: at + 1 }))
    .filter(({ line }) => line !== "")
    .map(({ line, row }): ReadRow => {
      let address: URL;
      let label: string;
      try {
        address = new URL(line);
        label = oneLine(decodeURIComponent(address.pathname.replace(/^\/+/, "")));
      } catch {
        return { row, incoming: null, wrong: "This is not an otpauth address." };
      }
      const [before, ...after] = label.split(":");
      const issuer = oneLine(address.searchParams.get("issuer") ?? (after.length > 0 ? before! : ""));
      const account = after.length > 0 ? after.join(":").trim() : label;
      return checked(row, "password", {
        name: (issuer || account || "One-time code").slice(0, 200),
        userName: account.slice(0, 1000),
        code: line,
      });
    });
}

export const isVcard = (text: string): boolean => /^\s*BEGIN:VCARD\s*$/im.test(text.slice(0, 2000));

interface Property {
  name: string;
  kinds: string[];
  value: string;
}

/** Lines that are folded (section 3.2) are one; values are unescaped (section 3.4). */
function propertiesOf(card: string): Property[] {
  return card
    .replace(/\r?\n[ \t]/g, "")
    .split(/\r?\n/)
    .flatMap((line): Property[] => {
      const colon = colonOf(line);
      if (colon === -1) return [];
      const [name, ...parameters] = line.slice(0, colon).split(";");
      return [
        {
          name: name!.split(".").at(-1)!.toUpperCase(),
          kinds: parameters.flatMap((one) =>
            one
              .replace(/^type=/i, "")
              .toLowerCase()
              .split(","),
          ),
          value: line.slice(colon + 1),
        },
      ];
    });
}

/** The first colon that is not within quotation marks. */
function colonOf(line: string): number {
  let quoted = false;
  for (let at = 0; at < line.length; at++)
    if (line[at] === '"') quoted = !quoted;
    else if (line[at] === ":" && !quoted) return at;
  return -1;
}

const unescaped = (text: string) => text.replace(/\\([\\,;nN])/g, (_, one: string) => (/n/i.test(one) ? "\n" : one));
const parts = (text: string) => text.split(/(?<!\\);/).map((part) => unescaped(part).trim());

/** Contacts; what a contact has no place for stands in its notes. */
export function fromVcard(text: string): ReadRow[] {
  const cards = text
    .replace(/\r\n?/g, "\n")
    .split(/^\s*BEGIN:VCARD\s*$/im)
    .slice(1);
  return cards.map((card, at): ReadRow => {
    const all = propertiesOf(card.split(/^\s*END:VCARD\s*$/im)[0]!);
    const first = (name: string) => all.find((one) => one.name === name)?.value ?? "";
    const phones = all.filter((one) => one.name === "TEL").map((one) => unescaped(one.value).replace(/^tel:/i, ""));
    const mails = all.filter((one) => one.name === "EMAIL").map((one) => unescaped(one.value));
    const address = parts(first("ADR")).filter(Boolean).join(", ");
    const given = parts(first("N"));
    const name = oneLine(unescaped(first("FN"))) || oneLine([given[1], given[0]].filter(Boolean).join(" "));
    const organisation = parts(first("ORG")).filter(Boolean).join(", ");
    const notes = [
      unescaped(first("NOTE")),
      address && `Address: ${address}`,
      first("URL") && `Web: ${unescaped(first("URL"))}`,
      ...mails.slice(1).map((mail) => `Also: ${mail}`),
      ...phones.slice(2).map((phone) => `Also: ${phone}`),
    ];
    return checked(at + 1, "contact", {
      name: (name || organisation).slice(0, 200),
      organisation: oneLine(organisation).slice(0, 1000),
      role: oneLine(unescaped(first("TITLE") || first("ROLE"))).slice(0, 1000),
      mail: mails[0] ?? "",
      phone: phones[0] ?? "",
      direct: phones[1] ?? "",
      notes: notes.filter(Boolean).join("\n"),
    });
  });
}
