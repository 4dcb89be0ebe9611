/** What a browser would send for a form (HTML Living Standard, 4.10.22 "Form submission"). */
import { randomBytes } from "node:crypto";
import iconv from "iconv-lite";
import type { PageDescription, PageField, PageForm, PageReading } from "../../core/signin/page";
import { asksToRemember } from "../../core/signin/remember";
import { SignInFailure } from "./guardedClient";

export interface Submission {
  method: "GET" | "POST";
  address: string;
  headers: Record<string, string>;
  body: Buffer;
}

/** Values to put in, by the selector of the field. */
export type Filled = Map<string, string>;

/**
 * @param charset the page's own; the form's accept-charset is not looked at beyond it
 * @throws SignInFailure form-unsafe for a form that would put what is filled in into an address
 */
export function submissionOf(
  page: PageDescription,
  reading: PageReading,
  filled: Filled,
  choices: Record<string, string>,
  charset: string,
  secret: boolean,
): Submission {
  const form = requireForm(page, reading, secret);
  const index = page.forms.indexOf(form);
  const base = page.base ? new URL(page.base, page.url) : new URL(page.url);
  const address = form.action.trim() === "" ? page.url : new URL(form.action.trim(), base).href;
  const pairs = page.fields
    .filter((field) => field.form === index)
    .flatMap((field) => pairOf(field, reading, filled, choices));
  const fit = address.replace(/#.*$/, "");
  if (form.method !== "post") {
    const url = new URL(fit);
    url.search = new URLSearchParams(pairs).toString();
    return { method: "GET", address: url.href, headers: {}, body: Buffer.alloc(0) };
  }
  return { method: "POST", address: fit, ...encode(pairs, form.enctype, charset) };
}

/**
 * The form that would be sent: looked at before anything is used up for it, such as a one-time code.
 * @throws SignInFailure where there is none that can be sent without a script, or that may be
 */
export function requireForm(page: PageDescription, reading: PageReading, secret: boolean): PageForm {
  const form = page.forms.find(({ selector }) => selector === reading.form);
  if (!form) throw new SignInFailure("drawn-by-scripts", "the fields belong to no form");
  if (form.method !== "post" && secret) throw new SignInFailure("form-unsafe", "the form is sent by GET");
  // What a script does with it nobody knows without running it.
  if (/^\s*javascript:/i.test(form.action)) throw new SignInFailure("drawn-by-scripts", "the form is sent by a script");
  return form;
}

function pairOf(
  field: PageField,
  reading: PageReading,
  filled: Filled,
  choices: Record<string, string>,
): [string, string][] {
  const given = filled.get(field.selector);
  if (given !== undefined) return field.name ? [[field.name, given]] : [];
  if (!field.name || field.disabled) return [];
  if (field.control === "button" || ["submit", "image", "button", "reset", "file"].includes(field.type)) {
    if (field.selector !== reading.submit) return [];
    return field.type === "image"
      ? [
          [`${field.name}.x`, "1"],
          [`${field.name}.y`, "1"],
        ]
      : [[field.name, field.value]];
  }
  if (field.type === "checkbox" || field.type === "radio") {
    const chosen = choices[field.name];
    // To be remembered beyond this visit is nobody's wish, unless the entry's steps say so.
    const ticked = field.checked && !(field.type === "checkbox" && !field.required && asksToRemember(field));
    const on = chosen === undefined ? ticked || (field.type === "checkbox" && field.required) : chosen === field.value;
    return on ? [[field.name, field.value || "on"]] : [];
  }
  if (field.control === "select") return selected(field, choices[field.name]);
  return [[field.name, choices[field.name] ?? field.value]];
}

function selected(field: PageField, chosen: string | undefined): [string, string][] {
  const option =
    field.options.find((one) => one.value === chosen) ?? field.options.find((one) => one.selected) ?? field.options[0];
  if (!option) return [];
  if (field.required && option.value === "")
    throw new SignInFailure(
      "not-understood",
      `the page asks to choose "${field.label || field.name}", and no choice is saved`,
    );
  return [[field.name, option.value]];
}

/** @param enctype of a form; anything but the two others counts as the usual one */
export function encode(
  pairs: [string, string][],
  enctype: string,
  charset: string,
): Pick<Submission, "headers" | "body"> {
  if (enctype === "multipart/form-data") {
    const boundary = `----form${randomBytes(12).toString("hex")}`;
    const parts = pairs.map(
      ([name, value]) =>
        `--${boundary}\r\nContent-Disposition: form-data; name="${escapeName(name)}"\r\n\r\n${value}\r\n`,
    );
    return {
      headers: { "content-type": `multipart/form-data; boundary=${boundary}` },
      body: encodeText(`${parts.join("")}--${boundary}--\r\n`, charset),
    };
  }
  if (enctype === "text/plain")
    return {
      headers: { "content-type": "text/plain" },
      body: encodeText(pairs.map(([name, value]) => `${name}=${value}\r\n`).join(""), charset),
    };
  const text = pairs.map(([name, value]) => `${urlencode(name, charset)}=${urlencode(value, charset)}`).join("&");
  return { headers: { "content-type": "application/x-www-form-urlencoded" }, body: Buffer.from(text, "latin1") };
}

const escapeName = (name: string) => name.replaceAll('"', "%22").replaceAll("\r", "%0D").replaceAll("\n", "%0A");

/** Characters that the charset lacks become numeric references, as browsers do. */
function encodeText(text: string, charset: string): Buffer {
  if (/^utf-?8$/i.test(charset) || !iconv.encodingExists(charset)) return Buffer.from(text, "utf8");
  return Buffer.concat(
    Array.from(text, (character) => {
      const bytes = iconv.encode(character, charset);
      return iconv.decode(bytes, charset) === character
        ? bytes
        : Buffer.from(`&#${character.codePointAt(0)};`, "latin1");
    }),
  );
}

function urlencode(text: string, charset: string): string {
  return Array.from(encodeText(text.replace(/\r?\n/g, "\r\n"), charset), (byte) => {
    if (byte === 0x20) return "+";
    const character = String.fromCharCode(byte);
    return /[A-Za-z0-9*\-._]/.test(character) ? character : `%${byte.toString(16).toUpperCase().padStart(2, "0")}`;
  }).join("");
}
