/** Small regular work: sign-ins whose process is gone, and failures counted by the minute. */
import { hostname } from "node:os";
import { and, inArray, isNull, lt } from "drizzle-orm";
import { z } from "zod";
import { tellOfExpiry } from "./access/expiry";
import { command } from "./command";
import { failedSignIns, persons, signIns } from "./database/schema";
import type { Galtry } from "./galtry";
import { closeBrokenOff } from "./signin/sealed";
import { signOutEnded } from "./signin/signingOut";

const EVERY_MS = 5_000;

/** One line a person and minute, once the minute is over. */
export const journalFailures = command({
  name: "people.failedSignIns",
  input: z.strictObject({}),
  by: ["server"],
  allow: () => undefined,
  run: async ({ tx, at }) => {
    const rows = await tx
      .delete(failedSignIns)
      .where(lt(failedSignIns.minute, Math.floor(at / 60_000)))
      .returning();
    const names =
      rows.length === 0
        ? []
        : await tx
            .select({ id: persons.id, name: persons.name })
            .from(persons)
            .where(
              inArray(
                persons.id,
                rows.map((row) => row.personId),
              ),
            );
    return rows.map((row) => ({ ...row, name: names.find((one) => one.id === row.personId)?.name ?? "" }));
  },
  journal: ({ result }) =>
    result.map((row) => ({
      subject: row.personId,
      person: row.personId,
      details: { count: row.count, minute: row.minute * 60_000 },
      names: { [row.personId]: row.name },
    })),
  tell: () => [],
});

/** Sign-ins of processes on this machine that are no more: closed as broken off. */
export async function closeDeadSignIns(house: Galtry): Promise<void> {
  const open = await house.db
    .selectDistinct({ process: signIns.process })
    .from(signIns)
    .where(and(isNull(signIns.endedAt)));
  const dead = open.map((row) => row.process).filter((name) => name !== house.process && isDead(name));
  await closeBrokenOff.execute(house, { deadProcesses: dead }, { kind: "server" });
}

function isDead(name: string): boolean {
  const at = name.lastIndexOf(":");
  if (name.slice(0, at) !== hostname()) return false;
  try {
    process.kill(Number(name.slice(at + 1)), 0);
    return false;
  } catch (error) {
    return (error as NodeJS.ErrnoException).code === "ESRCH";
  }
}

const EXPIRY_EVERY_MS = 60_000;

export function startHousekeeping(house: Galtry): void {
  let expiryAt = 0;
  const timer = setInterval(() => {
    if (Date.now() >= expiryAt) {
      expiryAt = Date.now() + EXPIRY_EVERY_MS;
      void tellOfExpiry.execute(house, {}, { kind: "server" }).catch(() => undefined);
    }
    void signOutEnded(house).catch(() => undefined);
    void closeDeadSignIns(house).catch(() => undefined);
    void journalFailures.execute(house, {}, { kind: "server" }).catch(() => undefined);
  }, EVERY_MS);
  timer.unref();
}
