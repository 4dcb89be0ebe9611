/**
 * How a particular site is signed in to, beyond what its pages say by themselves: learned by Lanyard from what a page
 * did while a person signed in, and editable. No secret is ever part of it.
 */
import { z } from "zod";
import { plainPage } from "./address";
import { isOwnHeader } from "./sending";

const hostSchema = z
  .string()
  .trim()
  .toLowerCase()
  .regex(/^[a-z0-9.-]+(:\d{1,5})?$/, "A host is a name such as login.pellam.example.")
  .max(260);

/** What is entered into a page: the three that an entry holds. */
export const ENTERED = ["user-name", "password", "code"] as const;
export type Entered = (typeof ENTERED)[number];

const shortText = z.string().max(200);

/** What a field or a button is found again by: the first of these that fits one element of the page. */
const signSchema = z.strictObject({
  name: shortText.default(""),
  id: shortText.default(""),
  label: z.string().max(120).default(""),
});
export type Sign = z.output<typeof signSchema>;

/** An address as steps have it: origin and path. What changes from one visit to the next is left out. */
const addressSchema = z
  .string()
  .max(500)
  .transform((text, context) => {
    const plain = plainPage(text);
    if (plain === null) {
      context.addIssue({ code: "custom", message: "A page has an address that begins with https:// or http://." });
      return z.NEVER;
    }
    return plain;
  });

/** Where a value stands that the page gives along: a hidden field, a `<meta>` of the page, a cookie. */
const placeSchema = z.strictObject({ in: z.enum(["field", "meta", "cookie"]), name: shortText.min(1) });
export type TokenPlace = z.output<typeof placeSchema>;

const partSchema = z.strictObject({
  /** Name of a form's field; in JSON a pointer (RFC 6901), such as `/user/password`. */
  name: shortText.min(1),
  holds: z.enum([...ENTERED, "token", "fixed", "unknown"]),
  /** Of `token`: where it comes from. */
  from: placeSchema.nullable().default(null),
  /** Of `fixed`: what it always is; in JSON as JSON has it. */
  value: z.string().max(2000).default(""),
});
export type SentPart = z.output<typeof partSchema>;

const sendingSchema = z.strictObject({
  /** Address that it goes to. */
  to: addressSchema,
  encoding: z.enum(["form", "multipart", "json", "text"]),
  /** A script of the page sent it, and not the form by itself. */
  byScript: z.boolean().default(false),
  parts: z.array(partSchema).max(40),
  /** Request headers of the page's own making, by lower-case name. */
  headers: z
    .array(partSchema)
    .max(10)
    .refine(
      (headers) => headers.every(({ name }) => isOwnHeader(name)),
      "A header of the page’s own begins with x-, or names a token.",
    )
    .default([]),
});
export type Sending = z.output<typeof sendingSchema>;

const pageStepSchema = z.strictObject({
  /** The page on which it is done. */
  page: addressSchema,
  enters: z.array(z.strictObject({ what: z.enum(ENTERED), field: signSchema })).max(3),
  /** The button that goes on; null where Enter does. */
  presses: signSchema.nullable(),
  /** What left the page then, as far as it could be told. */
  sends: sendingSchema.nullable().default(null),
});
export type PageStep = z.output<typeof pageStepSchema>;

export const stepsSchema = z.strictObject({
  /** Other hosts the sign-in passes through, besides the entry's own. */
  hosts: z.array(hostSchema).max(10, "At most ten hosts.").default([]),
  /** What to choose where a page asks: a field's name and the value it is sent with. */
  choices: z.record(z.string().max(200), z.string().max(500)).default({}),
  /** Address that signs out, where the site has one. */
  signOutPage: z.string().max(2000).nullable().default(null),
  /** Page by page, in order; empty where Galtry goes by what the pages say. */
  pages: z.array(pageStepSchema).max(8, "At most eight steps.").default([]),
  /** Where one stands once one is signed in. */
  lands: addressSchema.nullable().default(null),
});

export type SignInSteps = z.output<typeof stepsSchema>;

export const NO_STEPS: SignInSteps = { hosts: [], choices: {}, signOutPage: null, pages: [], lands: null };
