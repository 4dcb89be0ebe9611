/** Checks of written numbers: advice where they are typed, for a digit is easily wrong. */
import type { FieldCheck } from "./kind";

/** ISO/IEC 7812-1, Annex B: the last digit proves the ones before it. */
export function isCardNumber(text: string): boolean {
  const digits = text.replace(/[\s-]/g, "");
  if (!/^\d{8,19}$/.test(digits)) return false;
  let sum = 0;
  for (let i = 0; i < digits.length; i++) {
    const digit = Number(digits[digits.length - 1 - i]);
    const counted = i % 2 === 1 ? digit * 2 : digit;
    sum += counted > 9 ? counted - 9 : counted;
  }
  return sum % 10 === 0;
}

/** ISO 13616-1: country and check digits moved behind, letters as numbers, the whole modulo 97 is 1. */
export function isIban(text: string): boolean {
  const packed = text.replace(/\s/g, "").toUpperCase();
  if (!/^[A-Z]{2}\d{2}[A-Z0-9]{10,30}$/.test(packed)) return false;
  let rest = 0;
  for (const character of packed.slice(4) + packed.slice(0, 4)) {
    const value = Number.parseInt(character, 36);
    rest = (rest * (value > 9 ? 100 : 10) + value) % 97;
  }
  return rest === 1;
}

const CHECKS: Record<FieldCheck, { holds: (text: string) => boolean; advice: string }> = {
  "card number": { holds: isCardNumber, advice: "This is not a valid card number. Check the digits." },
  IBAN: { holds: isIban, advice: "This is not a valid IBAN. Check the characters." },
};

/** Null when there is nothing to say. */
export function adviceOn(check: FieldCheck | undefined, text: string): string | null {
  if (!check || text.trim() === "" || CHECKS[check].holds(text)) return null;
  return CHECKS[check].advice;
}
