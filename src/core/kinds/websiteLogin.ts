/** The kind *website login*: its fields, their classes, and how they are read. */
import { z } from "zod";
import { readCodeSettings } from "../signin/code";
import { wholeAddress } from "../signin/site";

/** Refuses what a transform cannot read, with the sentence it gives. */
const read = <T>(reader: (text: string) => T) =>
  z.string().transform((text, context): T => {
    try {
      return reader(text);
    } catch (error) {
      context.addIssue({
        code: "custom",
        message: error instanceof RangeError ? error.message : "This cannot be read.",
      });
      return z.NEVER;
    }
  });

const LONGEST_NOTE = 100_000;

export const extraFieldSchema = z.strictObject({
  id: z.string().min(1).max(64),
  label: z.string().trim().min(1, "Give the field a name.").max(100, "A field's name has at most 100 characters."),
  class: z.enum(["open", "identifier", "secret"]),
  /** Left out: keep what is there. */
  value: z.string().max(10_000, "A field holds at most 10,000 characters.").optional(),
});

/** What a person fills in. A secret that is left out stays as it is; an empty one is emptied. */
export const websiteLoginSchema = z.strictObject({
  name: z
    .string()
    .trim()
    .min(1, "Give it a name.")
    .max(200, "A name has at most 200 characters.")
    .refine((text) => !/[\u0000-\u001f\u007f]/.test(text), "A name is one line of text."),
  description: z.string().trim().max(300, "A description has at most 300 characters.").default(""),
  signInPage: z
    .string()
    .trim()
    .min(1, "Say where one signs in.")
    .max(2000, "This address is too long.")
    .pipe(read(wholeAddress)),
  reach: z.enum(["site", "host"]).default("site"),
  userName: z.string().max(500, "A user name has at most 500 characters.").optional(),
  password: z.string().max(1000, "A password has at most 1,000 characters.").optional(),
  /** An otpauth address or a base32 secret; empty takes the code away. */
  code: z
    .string()
    .max(2000)
    .optional()
    .pipe(z.union([z.undefined(), z.literal("").transform(() => null), read(readCodeSettings)])),
  notes: z.string().max(LONGEST_NOTE, "Notes hold at most 100,000 characters.").default(""),
  tags: z.array(z.string().trim().min(1).max(50)).max(20, "At most 20 tags.").default([]),
  extras: z.array(extraFieldSchema).max(50, "At most 50 extra fields.").default([]),
  useSeesUserName: z.boolean().default(false),
});

export type WebsiteLogin = z.output<typeof websiteLoginSchema>;
