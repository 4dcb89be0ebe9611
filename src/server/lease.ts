/** Regular work that one process does at a time, however many Galtrys share a database. */
import { sql } from "drizzle-orm";
import { leases } from "./database/schema";
import type { Galtry } from "./galtry";

/** So long a process that has ended in the middle of it keeps the others from it. */
export const LEASE_MS = 30_000;

/**
 * Takes the lease of some work, or holds on to it for longer.
 * @returns whether this process has it now
 */
export async function holdLease(app: Galtry, work: string, at = Date.now()): Promise<boolean> {
  return app.writer.write(async (tx) => {
    const taken = await tx
      .insert(leases)
      .values({ work, process: app.process, until: at + LEASE_MS })
      .onConflictDoUpdate({
        target: leases.work,
        set: { process: app.process, until: at + LEASE_MS },
        setWhere: sql`${leases.process} = ${app.process} or ${leases.until} < ${at}`,
      })
      .returning({ work: leases.work });
    return taken.length > 0;
  }, true);
}

/** Gives it back, for whoever comes next. */
export async function endLease(app: Galtry, work: string): Promise<void> {
  await app.writer.write(
    (tx) => tx.run(sql`delete from ${leases} where work = ${work} and process = ${app.process}`),
    true,
  );
}
