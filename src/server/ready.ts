/** Whether the database answers, asked at most once a second however often somebody wants to know. */
import { sql } from "drizzle-orm";
import { galtry, upToDate } from "./galtry";
import { failed } from "./log";

const PATIENCE_MS = 2_000;
const HOLDS_MS = 1_000;
let last: { at: number; answer: Promise<boolean> } | null = null;

export function ready(at = Date.now()): Promise<boolean> {
  if (!last || at - last.at >= HOLDS_MS) last = { at, answer: ask() };
  return last.answer;
}

async function ask(): Promise<boolean> {
  const tooLong = new Promise<never>((_, no) => {
    setTimeout(() => no(new Error("the database takes too long")), PATIENCE_MS).unref();
  });
  try {
    const app = await galtry();
    const asked = upToDate(app).then(() => app.db.get(sql`select 1 as one`));
    await Promise.race([asked, tooLong]);
    return true;
  } catch (error) {
    failed("ready", error);
    return false;
  }
}
