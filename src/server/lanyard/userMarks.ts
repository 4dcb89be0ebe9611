/** Marks of user names for one Lanyard: it tells by them whether a login is kept, without asking and without reading. */
import { hmac, utf8 } from "../../core/crypto";
import { USER_NAME } from "../../core/kinds/kind";
import { userMarkOf } from "../../core/signin/keptAlready";
import type { Reader } from "../database/client";
import type { entryVersions } from "../database/schema";
import type { Galtry } from "../galtry";
import { orSealError } from "../vaults/sealing";
import { openValues } from "../vaults/vaultKeys";

type Version = Pick<typeof entryVersions.$inferSelect, "id" | "entryId" | "vaultId" | "keyVersion" | "sealed">;

/** Its own for each Lanyard, so that the marks of two cannot be laid side by side. */
export const markKeyFor = ({ keys }: Pick<Galtry, "keys">, lanyardId: string): Uint8Array =>
  hmac(keys.fingerprints, utf8(`user names for ${lanyardId}`));

/** By version id. */
export async function userMarks(
  tx: Reader,
  app: Galtry,
  lanyardId: string,
  versions: readonly Version[],
): Promise<ReadonlyMap<string, string>> {
  const key = markKeyFor(app, lanyardId);
  const marks = new Map<string, string>();
  for (const version of versions) {
    // One that does not open has no mark; the others are there all the same.
    const values = await openValues(tx, app.keys, version).catch(orSealError);
    if (values) marks.set(version.id, userMarkOf(key, values.fields[USER_NAME] ?? ""));
  }
  return marks;
}
