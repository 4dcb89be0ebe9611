/** Forms for cards, addresses and contacts: which fields a page shows, and putting an entry's values into them. */
import { monthFor, optionFor, tokenOf } from "../../src/core/forms/autofill";
import type { FormPlace } from "../shared/messages";
import { describePage, type LivePage } from "./describe";

interface Asked {
  token: string;
  element: HTMLInputElement | HTMLSelectElement | HTMLTextAreaElement;
}

/** The fields of the form that asks for most; what is not shown, switched off or only to be read is never filled in. */
function askedIn(page: LivePage): Asked[] {
  const groups = new Map<number | null, Asked[]>();
  for (const { selector, autocomplete, visible, disabled, readOnly, form } of page.description.fields) {
    const token = visible && !disabled && !readOnly ? tokenOf(autocomplete) : null;
    const element = token === null ? null : page.elementOf(selector);
    const isField =
      element instanceof HTMLInputElement ||
      element instanceof HTMLSelectElement ||
      element instanceof HTMLTextAreaElement;
    if (token === null || !isField) continue;
    groups.set(form, [...(groups.get(form) ?? []), { token, element }]);
  }
  return [...groups.values()].sort((a, b) => b.length - a.length)[0] ?? [];
}

export function formPlace(): FormPlace {
  return { tokens: [...new Set(askedIn(describePage()).map(({ token }) => token))] };
}

/** @returns how many fields it went into */
export function fillForm(
  values: Record<string, string>,
  type: (element: Asked["element"], value: string) => void,
): number {
  let filled = 0;
  for (const { token, element } of askedIn(describePage())) {
    const value = Object.hasOwn(values, token) ? values[token]! : null;
    const text = value === null ? null : asWanted(token, value, element);
    if (text === null) continue;
    type(element, text);
    filled++;
  }
  return filled;
}

function asWanted(token: string, value: string, element: Asked["element"]): string | null {
  if (element instanceof HTMLSelectElement)
    return optionFor(
      token,
      value,
      [...element.options].map((option) => ({ value: option.value, text: option.text })),
    );
  if (token === "cc-exp" && element instanceof HTMLInputElement) {
    const { type, maxLength, placeholder } = element;
    return monthFor(value, { type, maxLength: maxLength > 0 ? maxLength : null, placeholder });
  }
  if (token === "cc-exp-year" && element instanceof HTMLInputElement && element.maxLength === 2) return value.slice(2);
  // A single line takes no line breaks.
  return element instanceof HTMLInputElement ? value.replace(/\s*\n\s*/g, ", ") : value;
}
