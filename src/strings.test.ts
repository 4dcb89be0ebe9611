/** The words that people read: those that were retired do not come back, and numbers agree with their nouns. */

import { readdirSync, readFileSync } from "node:fs";
import { join } from "node:path";
import ts from "typescript";
import { describe, expect, test } from "vitest";

const FILES = ["src", "lanyard", "scripts"]
  .flatMap((folder) => readdirSync(folder, { recursive: true, encoding: "utf8" }).map((file) => join(folder, file)))
  .filter(
    (file) =>
      /\.tsx?$/.test(file) &&
      !/\.test\.|\.d\.ts$/.test(file) &&
      // Foreign pages in many languages, and what is looked for in them.
      !/signin\/pages\/|core\/signin\/words|core\/formats\/columns|scripts\/screenshots|scripts\/reader\//.test(file),
  );

interface Visible {
  text: string;
  where: string;
}

/** Every literal that could be read by somebody: sentences, labels, the texts of pages. Expressions become “…”. */
function visibleIn(file: string): Visible[] {
  const source = ts.createSourceFile(file, readFileSync(file, "utf8"), ts.ScriptTarget.Latest, true);
  const found: Visible[] = [];
  const visit = (node: ts.Node): void => {
    const text = textOf(node);
    if (text !== null && isRead(node, text))
      found.push({
        text: text.replace(/\s+/g, " "),
        where: `${file}:${source.getLineAndCharacterOfPosition(node.getStart()).line + 1}`,
      });
    ts.forEachChild(node, visit);
  };
  visit(source);
  return found;
}

function textOf(node: ts.Node): string | null {
  if (ts.isStringLiteral(node) || ts.isNoSubstitutionTemplateLiteral(node) || ts.isJsxText(node)) return node.text;
  if (!ts.isTemplateExpression(node)) return null;
  return node.head.text + node.templateSpans.map(({ literal }) => `…${literal.text}`).join("");
}

function isRead(node: ts.Node, text: string): boolean {
  const { parent } = node;
  if (ts.isImportDeclaration(parent) || ts.isTaggedTemplateExpression(parent)) return false;
  if (/^(sql|select|insert|update|delete|with) /i.test(text) && /\b(from|into|set|where)\b/i.test(text)) return false;
  // A key, an id, a class, an address: no word of a sentence.
  return /^[“A-Z]|\s/.test(text.trim()) && /\p{L}{2}/u.test(text);
}

const ALL = FILES.flatMap(visibleIn);

/** What is not said any more, and what is said in its place. */
const RETIRED: [RegExp, string, RegExp?][] = [
  [
    /\b(somebody|anybody|everybody|whoever|whom|oneself|one’s|one's)\b/i,
    "someone, anyone, nobody, the person who",
    /to whom and for how long/,
  ],
  [/\beveryone\b/, "all staff; Everyone is only the subject"],
  [/\bmeanwhile\b/i, "someone else has changed"],
  [/\bmail address\b|\bE-mail\b/i, "email address"],
  [/\b(brought|bring|brings|bringing) in\b/i, "import", /^brought in$/],
  [/\b(took|take|takes|taken|taking) (\S+ )?out\b/i, "export, or remove", /^taken out$/],
  [/\b(hang|hangs|hung)\b/i, "create"],
  [/\b(drop|drops|dropped) (it )?in(to)?\b/i, "send, received"],
  [/\blook(s|ed|ing)? after\b/i, "steward"],
  [/\bsecond look\b/i, "second opinion"],
  [/\b(looked|look|looking) (it |them )?(over|through)\b|\bneeds? a look\b/i, "check, review"],
  [/\basks? (\S+ )?first\b/i, "requires approval"],
  [/\b(say|says|said|saying) (yes|no)\b|\b(a|the|’s) yes\b/i, "approve, decline"],
  [/\bin the clear\b/i, "unencrypted"],
  [/\b(put|puts) away\b/i, "dismiss"],
  [/\bbinned\b/i, "put in the bin"],
  [/\b(takes?|took|taken|taking) (it |them |\S+ )?(away|back)\b/i, "remove, delete, end; withdraw, undo"],
  [/\bchoose none\b/i, "clear selection"],
  [/\brun out\b/i, "expired"],
  [/\bis kept\b|\bare kept\b|\bkept (already|in|with|for|since)\b/i, "saved, stored, already in Galtry"],
  [/\bwhat for\b/i, "reason"],
  [/\b(make|makes|made) (a|an|the) (new )?(vault|folder|group|kind|link|letterbox|password|key|handover)\b/i, "create"],
  [/\bwithdr(aw|ew) (the )?access\b/i, "end"],
  [/\bone signs in\b/i, "the sign-in page"],
  [/\bonce more\b/i, "again"],
  [/\b(lies|lay) in\b/i, "is in"],
  [/\bset here\b/i, "set directly", /already set here/],
  [/\bthere is no such\b/i, "does not exist"],
  [/\bfrom above\b/i, "inherited"],
  [/\b(you|they|who|she|he|people|stewards?|guests?|keepers?|staff|it|may) may\b/i, "can", /it may be\b/],
  [/\bnothing is kept\b|\bnobody is asked\b|\bis asked for\b/i, "required"],
  [/\bsmall letters\b|\bsigns of\b/i, "lower-case letters, symbols"],
  [/\bclosed to new\b/i, "no longer offered"],
  [/\b(don't|doesn't|can't|isn't|won't|you're|it's|that's)\b/i, "no contractions"],
];

describe("visible words", () => {
  test("are found at all", () => {
    expect(ALL.length).toBeGreaterThan(2500);
    expect(ALL.some(({ text }) => text === "Create a vault")).toBe(true);
    expect(ALL.some(({ text }) => text.includes("requests …"))).toBe(true);
  });

  test.each(RETIRED)("none says %s", (retired, _instead, except) => {
    const wrong = ALL.filter(({ text }) => retired.test(text) && !except?.test(text));
    expect(wrong.map(({ text, where }) => `${where}: ${text}`)).toEqual([]);
  });

  test("an apostrophe in a sentence is ’", () => {
    const wrong = ALL.filter(({ text }) => /\p{L}'(s|t|re)?\b/u.test(text) && / /.test(text));
    expect(wrong.filter(({ text }) => !/[{}<>=;]|'none'|'self'/.test(text)).map((one) => one.where)).toEqual([]);
  });

  test("a number agrees with its noun", () => {
    const nouns =
      "entries|people|persons|vaults|groups|folders|sites|changes|codes|rows|lines|attachments|versions|logins|letterboxes|grants|guests|stewards|days|hours|minutes|months|attempts|notices|places|columns|files|documents|times";
    const wrong = ALL.filter(
      ({ text }) =>
        new RegExp(`… (more )?(${nouns})\\b|\\b1 (${nouns})\\b`).test(text) &&
        // A limit, or a number that is said of several only.
        !/\b[Aa]t most …|more than …|From … to …|in …|of … |The first …|^… of them|… columns; at most|^… grants give|after …|needs? |… (entries )?and folders|every … months|All … (versions|groups)|It has … rows|the same password …|opened … times|can be created|… changes teams|^… (vaults|groups)\.$/.test(
          text,
        ),
    );
    expect(wrong.map(({ text, where }) => `${where}: ${text}`)).toEqual([]);
  });
});
