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
export async function holdLease(house: Galtry, work: string, at = Date.now()): Promise<boolean> {
  return house.writer.write(async (tx) => {
    const taken = await tx
      .insert(leases)
      .values({ work, process: house.process, until: at + LEASE_MS })
      .onConflictDoUpdate({
        target: leases.work,
        set: { process: house.process, until: at + LEASE_MS },
        setWhere: sql`${leases.process} = ${house.process} or ${leases.until} < ${at}`,
      })
      .returning({ work: leases.work });
    return taken.length > 0;
  }, true);
}

/** Gives it back, for whoever comes next. */
export async function endLease(house: Galtry, work: string): Promise<void> {
  await house.writer.write(
    (tx) => tx.run(sql`delete from ${leases} where work = ${work} and process = ${house.process}`),
    true,
  );
}
