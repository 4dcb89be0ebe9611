import { make, WISHES } from "./purpose";

/**
 * A new password for a page.
 * @param rules in the `passwordrules` syntax; empty where the page says nothing
 * @returns what keeps the rules, or where they cannot be kept what Galtry creates for any website
 */
export function createdPassword(rules: string): string {
  try {
    return make({ ...WISHES, website: { ...WISHES.website, siteRules: rules } }, []).text;
  } catch {
    return make(WISHES, []).text;
  }
}
