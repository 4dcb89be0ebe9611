/** A month of a year, as cards carry it. Kept as "2027-08" (ISO 8601), written as "08/2027". */

/** "08/27", "8/2027", "08-27", "0827" or "2027-08" → "2027-08"; null for anything else. Two digits are of this century. */
export function readMonth(text: string): string | null {
  const typed = text.trim();
  const iso = /^(\d{4})-(\d{2})$/.exec(typed);
  const [, month = "", year = ""] = iso
    ? [null, iso[2], iso[1]]
    : (/^(\d{1,2})\s*[/.\-\s]\s*(\d{4}|\d{2})$/.exec(typed) ?? /^(\d{2})(\d{2})$/.exec(typed) ?? []);
  if (month === "" || Number(month) < 1 || Number(month) > 12) return null;
  return `${year.length === 2 ? `20${year}` : year}-${month.padStart(2, "0")}`;
}

/** "2027-08" → "08/2027"; other text as it is. */
export const sayMonth = (month: string): string => month.replace(/^(\d{4})-(\d{2})$/, "$2/$1");
