/** Entries as one page to be printed: HTML with nothing in it that runs or loads. */
import { PASSWORD, SIGN_IN_PAGE, USER_NAME } from "../kinds/kind";
import { codeAddress } from "../signin/code";
import type { TakenEntry, TakenWriter } from "./taken";

const escaped = (text: string) =>
  text.replace(/[&<>"']/g, (one) => ({ "&": "&amp;", "<": "&lt;", ">": "&gt;", '"': "&quot;", "'": "&#39;" })[one]!);

const STYLE = `
body { max-width: 800px; margin: 24px auto; font: 14px/20px system-ui, sans-serif; color: #1e2420; }
h1 { font-size: 22px; line-height: 28px; } h2 { margin: 0 0 4px; font-size: 16px; }
article { break-inside: avoid; padding: 12px 0; border-top: 1px solid #7b857e; }
dl { display: grid; grid-template-columns: 180px 1fr; gap: 2px 16px; margin: 0; } dt { color: #566059; } dd { margin: 0; white-space: pre-wrap; overflow-wrap: anywhere; }
.mono { font-family: ui-monospace, monospace; }`;

/** @param about what stands over it: whose, when, by whom */
export function pageWriter(about: string): TakenWriter {
  const head = `<!doctype html><html lang="en"><head><meta charset="utf-8"><meta http-equiv="Content-Security-Policy" content="default-src 'none'; style-src 'unsafe-inline'"><title>${escaped(about)}</title><style>${STYLE}</style></head><body><h1>${escaped(about)}</h1>`;
  let begun = false;
  const beginning = () => {
    if (begun) return "";
    begun = true;
    return head;
  };
  return {
    add: (entries) => `${beginning()}${entries.map(article).join("\n")}\n`,
    end: () => `${beginning()}</body></html>`,
  };
}

function article(entry: TakenEntry): string {
  const line = (label: string, value: string, mono = false) =>
    value === "" ? "" : `<dt>${escaped(label)}</dt><dd${mono ? ' class="mono"' : ""}>${escaped(value)}</dd>`;
  const others = entry.kind.fields
    .filter(({ id }) => ![SIGN_IN_PAGE, USER_NAME, PASSWORD].includes(id))
    .map((field) => line(field.label, entry.fields[field.id] ?? "", field.class !== "open"));
  const label = (id: string) => entry.kind.fields.find((field) => field.id === id)?.label ?? "";
  return `<article><h2>${escaped(entry.name)}</h2><dl>${[
    line("Kind", entry.kind.name),
    line("Folder", entry.folder.join(" › ")),
    line("Description", entry.description),
    line(label(SIGN_IN_PAGE), entry.signInPage, true),
    line(label(USER_NAME), entry.fields[USER_NAME] ?? "", true),
    line(label(PASSWORD), entry.fields[PASSWORD] ?? "", true),
    line("One-time code", entry.code ? codeAddress(entry.code, entry.name) : "", true),
    ...others,
    ...entry.extras.map((extra) => line(extra.label, extra.value ?? "", extra.class !== "open")),
    line("Tags", entry.tags.join(", ")),
    line("Notes", entry.notes),
  ].join("")}</dl></article>`;
}
