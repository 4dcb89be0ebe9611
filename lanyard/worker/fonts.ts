/** Galtry's letters for what Lanyard hangs over pages. */
import { toBase64 } from "../../src/core/crypto";

const FILES = {
  "Lanyard Text": "atkinson-hyperlegible-next-latin-wght-normal.woff2",
  "Lanyard Mono": "atkinson-hyperlegible-mono-latin-wght-normal.woff2",
};

/** @returns base64 by name */
export async function fonts(): Promise<Record<string, string>> {
  const read = async ([name, file]: [string, string]) => {
    const response = await fetch(chrome.runtime.getURL(`fonts/${file}`));
    return [name, toBase64(new Uint8Array(await response.arrayBuffer()))] as const;
  };
  return Object.fromEntries(await Promise.all(Object.entries(FILES).map(read)));
}
