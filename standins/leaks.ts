/** Lists of leaked passwords and of addresses in leaked accounts, asked as such lists are: by the first five digits of a SHA-1, answered with the others. */
import { createHash, randomBytes } from "node:crypto";
import type { Request, Response } from "express";

export const LEAKS_HOST = "leaks.localhost";

/** Phrases that many people thought of alone. */
const LEAKED = [
  "password password password",
  "let me in let me in",
  "iloveyouiloveyou",
  "123456789012345",
  "qwertyuiopasdfgh",
  "museum museum museum",
  "welcome to the museum",
  "changeme changeme changeme",
  // Of a supplier whose list of accounts was stolen.
  "rose-Drawer-70-ledger",
];

/** Whose accounts elsewhere were stolen. */
const LEAKED_ADDRESSES = ["theodora.vassallo@tarrowick.example", "nobody@tarrowick.example"];

const PADDING = 20;

const sha1 = (text: string) => createHash("sha1").update(text, "utf8").digest("hex").toUpperCase();
const padding = () => `${randomBytes(18).toString("hex").slice(0, 35).toUpperCase()}:0`;

export function answerLeaks(request: Request, response: Response): void {
  const [, which, digits] = /^\/(range|addresses)\/([0-9A-F]{5})$/i.exec(request.path) ?? [];
  const wanted = digits?.toUpperCase();
  if (!wanted) return void response.status(400).type("text/plain").send("Five digits are asked for.");
  const found = (which === "addresses" ? LEAKED_ADDRESSES : LEAKED).map(sha1).filter((hash) => hash.startsWith(wanted));
  const lines = [
    ...found.map((hash, i) => `${hash.slice(5)}:${(i + 1) * 37}`),
    ...Array.from({ length: PADDING }, padding),
  ];
  response.type("text/plain").send(lines.sort().join("\r\n"));
}
