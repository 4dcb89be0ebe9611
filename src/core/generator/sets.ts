/** Sets of characters that passwords are made of. */

export const LOWER = "abcdefghijklmnopqrstuvwxyz";
export const UPPER = "ABCDEFGHIJKLMNOPQRSTUVWXYZ";
export const DIGITS = "0123456789";
/** As HTML's `passwordrules` means by "special". */
export const SPECIAL = "-~!@#$%^&*_+=`|(){}[:;\"'<>,.?] ";
/** Of these every site takes, and every keyboard has them. */
export const SIGNS = "-!@#$%&*_+=?.";
export const PRINTABLE = Array.from({ length: 95 }, (_, i) => String.fromCharCode(32 + i)).join("");

/** Read or heard for one another, in some typeface or on the telephone. */
export const LOOK_ALIKES = "0Oo1lI|5S2Z8B'`\",.;:-_~";

/** Typed without Shift on most keyboards, none mistaken for another. */
export const EASY = "abcdefghjkmnpqrtuvwxyz346789";

export const without = (set: string, these: string): string => [...set].filter((one) => !these.includes(one)).join("");
