/**
 * What a site says of its passwords, in the syntax of HTML's proposed `passwordrules` attribute: properties `required`
 * and `allowed` with sets of characters, `minlength`, `maxlength`, `max-consecutive`.
 */
import type { CharacterRules } from "./characters";
import { DIGITS, LOWER, PRINTABLE, SPECIAL, UPPER } from "./sets";

export interface SiteRules {
  required: string[];
  allowed: string;
  shortest: number | null;
  longest: number | null;
  mostAlike: number;
}

const SETS: Record<string, string> = {
  lower: LOWER,
  upper: UPPER,
  digit: DIGITS,
  special: SPECIAL,
  "ascii-printable": PRINTABLE,
  // Beyond ASCII sites and keyboards disagree: what is made keeps within it.
  unicode: PRINTABLE,
};

/** Apart at `;` and `,`, but not within `[…]`, in which `]` may stand last and `-` first. */
function cut(text: string, at: string): string[] {
  const parts: string[] = [];
  let [part, inside] = ["", false];
  for (let i = 0; i < text.length; i++) {
    const character = text[i]!;
    if (inside) inside = character !== "]" || text[i + 1] === "]";
    else if (character === "[") inside = true;
    if (character === at && !inside) {
      parts.push(part);
      part = "";
    } else part += character;
  }
  return [...parts, part].map((one) => one.trim()).filter(Boolean);
}

function setOf(text: string): string {
  const custom = /^\[(.*)\]$/s.exec(text);
  if (custom) return [...new Set(custom[1])].filter((one) => PRINTABLE.includes(one)).join("");
  const known = SETS[text.toLowerCase()];
  if (known === undefined)
    throw new RangeError(`“${text}” is not a set of characters: lower, upper, digit, special, or […].`);
  return known;
}

const union = (values: string): string => [...new Set(cut(values, ",").map(setOf).join(""))].join("");

function whole(value: string, name: string): number {
  if (!/^\d{1,4}$/.test(value)) throw new RangeError(`${name} must be a whole number.`);
  return Number(value);
}

/**
 * Reads what a site says.
 * @throws RangeError with a sentence that names what cannot be read
 */
export function readPasswordRules(text: string): SiteRules {
  const rules: SiteRules = { required: [], allowed: "", shortest: null, longest: null, mostAlike: 0 };
  for (const part of cut(text, ";")) {
    const [, name, value] = /^([\w-]+)\s*:\s*(.*)$/s.exec(part) ?? [];
    if (name === undefined || value === undefined)
      throw new RangeError(`“${part}” is not a rule: it needs a name, “:”, a value.`);
    switch (name.toLowerCase()) {
      case "required":
        rules.required.push(union(value));
        break;
      case "allowed":
        rules.allowed = [...new Set(rules.allowed + union(value))].join("");
        break;
      case "minlength":
        rules.shortest = Math.max(rules.shortest ?? 0, whole(value, "minlength"));
        break;
      case "maxlength":
        rules.longest = Math.min(rules.longest ?? Number.MAX_SAFE_INTEGER, whole(value, "maxlength"));
        break;
      case "max-consecutive":
        rules.mostAlike = whole(value, "max-consecutive");
        break;
      default:
        throw new RangeError(`There is no rule “${name}”.`);
    }
  }
  if (rules.shortest !== null && rules.longest !== null && rules.shortest > rules.longest)
    throw new RangeError("The minimum length is larger than the maximum.");
  return rules;
}

/** Rules to make one by: as long as wanted, as far as the site lets it. */
export function within(site: SiteRules, wanted: number): CharacterRules {
  const length = Math.min(site.longest ?? wanted, Math.max(site.shortest ?? wanted, wanted));
  const nothingSaid = site.required.length === 0 && site.allowed === "";
  return {
    length,
    allowed: nothingSaid ? PRINTABLE.replace(" ", "") : site.allowed,
    required: site.required.map((set) => ({ set, least: 1 })),
    mostAlike: site.mostAlike,
  };
}
