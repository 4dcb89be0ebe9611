/**
 * The one logger, as lines of JSON, and where every failure that nobody expected goes: said once, with what was being done
 * and where, never with what was sent.
 */
import pino from "pino";
import { countUnexpected } from "./metrics";

export const log = pino({
  level: process.env.GALTRY_LOG_LEVEL ?? "info",
  base: null,
  redact: { paths: ["*.password", "*.token", "*.value", "*.input", "*.cookie", "*.authorization"], remove: true },
});

/**
 * @param act what was being done: the name of an act, or of a regular piece of work
 * @returns what the screen tells people to quote, and the line has as its `reference`
 */
export function unexpected(act: string, error: unknown, reference = newReference()): string {
  log.error({ reference, act, error: describe(error) }, "unexpected");
  countUnexpected(act);
  return reference;
}

const lately = new Map<string, { at: number; times: number }>();
const SAID_AGAIN_MS = 60_000;

/**
 * For regular work, which goes on after it has failed: the same failure of the same work is a line a minute at most, that
 * says how often.
 */
export function failed(act: string, error: unknown, at = Date.now()): undefined {
  const { name, ...where } = describe(error);
  const known = lately.get(`${act} ${name}`);
  if (known && at - known.at < SAID_AGAIN_MS) {
    known.times += 1;
    countUnexpected(act);
    return;
  }
  lately.set(`${act} ${name}`, { at, times: 1 });
  log.error({ act, error: { name, ...where }, times: known ? known.times : 1 }, "failed, and goes on");
  countUnexpected(act);
}

/** The same, as what a promise is caught by. */
export const goesOn = (act: string) => (error: unknown) => failed(act, error);

export const newReference = (): string => crypto.randomUUID().slice(0, 8);

/** An error's kind and place, without its message: that could quote what was sent. */
export function describe(error: unknown): { name: string; at: string } {
  if (!(error instanceof Error)) return { name: typeof error, at: "" };
  const at = (error.stack ?? "")
    .split("\n")
    .filter((line) => line.trim().startsWith("at "))
    .slice(0, 6)
    .map((line) => line.trim())
    .join(" ");
  const codes: string[] = [];
  for (let one: unknown = error; one instanceof Error; one = one.cause)
    codes.push([one.name, (one as { code?: unknown }).code].filter((part) => typeof part === "string").join(" "));
  return { name: codes.join(" < "), at };
}
