/** A password that was created in Lanyard's window, for the page beside it: what the page asks of it, and putting it there. */
import { createdPassword } from "../../src/core/generator/createdPassword";
import type { CreatedHere, NewPasswordPlace } from "../shared/messages";

const NO_PLACE: NewPasswordPlace = { on: null, rules: "", fields: 0 };

type InPage = typeof globalThis & {
  lanyardNewPasswordPlace?: () => NewPasswordPlace;
  lanyardFillNewPassword?: (password: string) => number;
};

export async function newPasswordPlace(tabId: number): Promise<NewPasswordPlace> {
  const [result] = await chrome.scripting
    .executeScript({
      target: { tabId },
      func: () => (globalThis as InPage).lanyardNewPasswordPlace?.() ?? null,
    })
    .catch(() => []);
  return (result?.result as NewPasswordPlace | null | undefined) ?? NO_PLACE;
}

/** @returns how many fields it went into */
export async function fillNewPassword(tabId: number, password: string): Promise<number> {
  const [result] = await chrome.scripting
    .executeScript({
      target: { tabId },
      func: (text: string) => (globalThis as InPage).lanyardFillNewPassword?.(text) ?? 0,
      args: [password],
    })
    .catch(() => []);
  return (result?.result as number | undefined) ?? 0;
}

/** Creates one to the page's own rules and puts it there. @returns how many fields it went into, and how long it is */
export async function createHere(tabId: number): Promise<CreatedHere> {
  const place = await newPasswordPlace(tabId);
  if (place.on === null) return { fields: 0, characters: 0 };
  const password = createdPassword(place.rules);
  return { fields: await fillNewPassword(tabId, password), characters: [...password].length };
}
