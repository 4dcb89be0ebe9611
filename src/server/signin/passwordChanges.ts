/** Passwords under change, as they are kept: sealed, sealed anew, and closed where their process is gone. */
import { and, desc, eq, inArray, isNotNull, isNull, lt, or, sql } from "drizzle-orm";
import { fromUtf8, open, seal, utf8 } from "../../core/crypto";
import type { Reader, Transaction } from "../database/client";
import { passwordChanges } from "../database/schema";
import type { Galtry } from "../galtry";
import { tellStewards } from "../people/telling";
import { orSealError } from "../vaults/sealing";
import { vaultKey } from "../vaults/vaultKeys";
import { changePassword as t } from "./strings";

/** Longer than any change takes, its proofs and a second try included. */
const LONGEST_MS = 12 * 60_000;

export type PasswordChange = typeof passwordChanges.$inferSelect;

const binding = (vaultId: string, changeId: string) => ["password change", vaultId, changeId] as const;

export async function sealChange(tx: Reader, app: Galtry, vaultId: string, changeId: string, password: string) {
  const { key, version } = await vaultKey(tx, app.keys, vaultId);
  return { sealed: Buffer.from(await seal(key, utf8(password), binding(vaultId, changeId))), keyVersion: version };
}

export async function openChange(
  tx: Reader,
  app: Galtry,
  vaultId: string,
  row: Pick<PasswordChange, "id" | "sealed" | "keyVersion">,
): Promise<string> {
  const { key } = await vaultKey(tx, app.keys, vaultId, row.keyVersion!);
  return fromUtf8(await open(key, row.sealed!, binding(vaultId, row.id)));
}

/** The change of an entry that left it open which password works. */
export async function openQuestion(tx: Reader, entryId: string): Promise<PasswordChange | undefined> {
  const [row] = await tx
    .select()
    .from(passwordChanges)
    .where(and(eq(passwordChanges.entryId, entryId), isNotNull(passwordChanges.sealed)))
    .orderBy(desc(passwordChanges.begunAt))
    .limit(1);
  return row;
}

/** Whether one is under way at this moment. */
export async function isChanging(tx: Reader, entryId: string): Promise<boolean> {
  const running = and(eq(passwordChanges.entryId, entryId), isNull(passwordChanges.endedAt));
  return (await tx.select({ id: passwordChanges.id }).from(passwordChanges).where(running).limit(1)).length > 0;
}

/** How the last change ended, for those who may edit the entry. */
export async function lastChange(tx: Reader, entryId: string) {
  const [row] = await tx
    .select({
      outcome: passwordChanges.outcome,
      detail: passwordChanges.detail,
      page: passwordChanges.at,
      at: sql<number>`coalesce(${passwordChanges.endedAt}, ${passwordChanges.begunAt})`,
      personId: passwordChanges.personId,
      open: sql<number>`${passwordChanges.sealed} is not null and ${passwordChanges.endedAt} is not null`,
      running: sql<number>`${passwordChanges.endedAt} is null`,
    })
    .from(passwordChanges)
    .where(eq(passwordChanges.entryId, entryId))
    .orderBy(desc(passwordChanges.begunAt))
    .limit(1);
  return row ?? null;
}

/** What was under way when its process ended: nothing was sent, or both stay and it is asked which works. */
export async function closeBrokenChanges(tx: Transaction, dead: readonly string[], at: number): Promise<void> {
  const gone = and(
    isNull(passwordChanges.endedAt),
    or(inArray(passwordChanges.process, [...dead]), lt(passwordChanges.begunAt, at - LONGEST_MS)),
  );
  const unsent: Partial<PasswordChange> = { outcome: "stopped", detail: t.wasStopped, endedAt: at };
  await tx
    .update(passwordChanges)
    .set({ ...unsent, sealed: null, keyVersion: null })
    .where(and(gone, isNull(passwordChanges.sentAt)));
  const open = await tx
    .update(passwordChanges)
    .set({ outcome: "in-doubt", detail: t.wasStopped, endedAt: at })
    .where(gone)
    .returning({ entryId: passwordChanges.entryId });
  for (const { entryId } of open) await tellStewards(tx, [entryId], (name) => t.whichOneWorks(name), at, null);
}

/** With the newest key of the vault they lie in now. One that does not open is forgotten: it lets nobody in. */
export async function resealChanges(
  tx: Transaction,
  app: Galtry,
  where: { entryIds: readonly string[] } | { vaultId: string; before: number },
  from: string,
  to: string,
): Promise<void> {
  const rows = await tx
    .select()
    .from(passwordChanges)
    .where(
      and(
        isNotNull(passwordChanges.sealed),
        "entryIds" in where
          ? inArray(passwordChanges.entryId, [...where.entryIds])
          : and(
              lt(passwordChanges.keyVersion, where.before),
              sql`${passwordChanges.entryId} in (select node_id from places where vault_id = ${where.vaultId} and valid_until is null)`,
            ),
      ),
    );
  for (const row of rows) {
    const password = await openChange(tx, app, from, row).catch(orSealError);
    const sealed =
      password === null ? { sealed: null, keyVersion: null } : await sealChange(tx, app, to, row.id, password);
    await tx.update(passwordChanges).set(sealed).where(eq(passwordChanges.id, row.id));
  }
}
