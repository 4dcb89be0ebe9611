/** What a trial sign-in went through, page by page. It holds no value, and of an address neither query nor fragment. */
import { z } from "zod";
import { PAGE_KINDS } from "./page";
import { ENTERED } from "./steps";

export const testedPageSchema = z.object({
  by: z.enum(["http", "browser"]),
  /** Origin and path of the page. */
  at: z.string(),
  /** HTTP status. */
  status: z.number(),
  /** What it was read as. */
  kind: z.enum(PAGE_KINDS),
  /** The entry's own steps said so, and not the page by itself. */
  bySteps: z.boolean(),
  entered: z.array(z.enum(ENTERED)),
  /** What stands on the button that was pressed. */
  pressed: z.string().nullable(),
  /** Milliseconds until it had come to rest. */
  ms: z.number(),
});

export type TestedPage = z.output<typeof testedPageSchema>;
