/** How a particular site is signed in to, beyond what its pages say by themselves. Learned at capture, editable. */
import { z } from "zod";

const hostSchema = z
  .string()
  .trim()
  .toLowerCase()
  .regex(/^[a-z0-9.-]+(:\d{1,5})?$/, "A host is a name such as login.pellam.example.")
  .max(260);

export const stepsSchema = z.strictObject({
  /** Other hosts the sign-in passes through, besides the entry's own. */
  hosts: z.array(hostSchema).max(10, "At most ten hosts.").default([]),
  /** What to choose where a page asks: a field's name and the value it is sent with. */
  choices: z.record(z.string().max(200), z.string().max(500)).default({}),
  /** Address that signs out, where the site has one. */
  signOutPage: z.string().max(2000).nullable().default(null),
});

export type SignInSteps = z.output<typeof stepsSchema>;

export const NO_STEPS: SignInSteps = { hosts: [], choices: {}, signOutPage: null };
