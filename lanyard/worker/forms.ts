/** An entry's values for the form of the page in front: taken from Galtry on a press in Lanyard's window. */
import { kindsFor } from "../../src/core/forms/autofill";
import type { FormEntry } from "../../src/server/lanyard/forms";
import type { FormPlace } from "../shared/messages";
import { ask, Refusal } from "./api";
import { forms as t } from "./strings";

type InPage = typeof globalThis & {
  lanyardFormPlace?: () => FormPlace;
  lanyardFillForm?: (values: Record<string, string>) => number;
};

/** The top document alone: frames may be anybody's. */
async function documentOf(tabId: number): Promise<{ url: string; documentId: string }> {
  const frame = await chrome.webNavigation.getFrame({ tabId, frameId: 0 });
  if (!frame || !/^https?:/.test(frame.url)) throw new Refusal("conflict", t.thePageIsClosed);
  return { url: frame.url, documentId: frame.documentId };
}

async function placeIn(tabId: number, documentId: string): Promise<FormPlace> {
  const [result] = await chrome.scripting.executeScript({
    target: { tabId, documentIds: [documentId] },
    func: () => (globalThis as InPage).lanyardFormPlace?.() ?? null,
  });
  return (result?.result as FormPlace | null | undefined) ?? { tokens: [] };
}

/** What could go into the form of a page; nothing where it has none. */
export async function entriesForForm(tabId: number): Promise<FormEntry[]> {
  try {
    const { documentId } = await documentOf(tabId);
    const kinds = kindsFor((await placeIn(tabId, documentId)).tokens);
    return kinds.length === 0 ? [] : await ask<FormEntry[]>("lanyard.formEntries", { kinds });
  } catch {
    return [];
  }
}

/** @returns how many fields were filled in, or what is wrong */
export async function putIntoForm(entryId: string, tabId: number): Promise<{ fields: number } | { wrong: string }> {
  try {
    const before = await documentOf(tabId);
    const { tokens } = await placeIn(tabId, before.documentId);
    if (tokens.length === 0) throw new Refusal("conflict", t.theFormIsGone);
    const { values } = await ask<{ values: Record<string, string> }>("lanyard.fillForm", {
      ...{ entryId, page: before.url, tokens },
    });
    const now = await documentOf(tabId);
    if (now.documentId !== before.documentId || new URL(now.url).origin !== new URL(before.url).origin)
      throw new Refusal("conflict", t.thePageHasChanged);
    const [result] = await chrome.scripting.executeScript({
      target: { tabId, documentIds: [before.documentId] },
      func: (given: Record<string, string>) => (globalThis as InPage).lanyardFillForm?.(given) ?? 0,
      args: [values],
    });
    return { fields: (result?.result as number | undefined) ?? 0 };
  } catch (error) {
    return { wrong: error instanceof Refusal ? error.message : t.couldNotBeFilledIn };
  }
}
