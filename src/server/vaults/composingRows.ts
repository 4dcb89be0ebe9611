/** Rows that are brought in, composed and sealed: each table's rows as the one text that SQLite takes apart. */
import type { Bytes } from "../../core/crypto";
import type { Kind } from "../../core/kinds/kind";
import { READY_KINDS } from "../../core/kinds/ready";
import { NO_STEPS } from "../../core/signin/steps";
import { type BulkRows, bulkRows } from "../database/bulk";
import { entries, entryVersions, fingerprints, firstSeen, importRows, nodes, sightings } from "../database/schema";
import { uuidv7 } from "../ids";
import { Refused } from "../refused";
import { composeVersion, valuesIn } from "./composing";
import type { VaultKey } from "./sealing";
import { composingRows as t } from "./strings";

export interface RowsToCompose {
  importId: string;
  vaultId: string;
  personId: string;
  at: number;
  key: VaultKey;
  fingerprints: Bytes;
  /** The organisation's own kinds; the ready ones are known. */
  own: Kind[];
  rows: { kind: string; values: Record<string, unknown>; folder: string[] }[];
}

/** In the order in which they are written. */
export const TABLES_OF_ROWS = { nodes, entryVersions, fingerprints, sightings, entries, firstSeen, importRows };

/** Plain data: it may come from another thread. */
export type ComposedRows =
  | { entryIds: string[]; tables: Record<keyof typeof TABLES_OF_ROWS, BulkRows> }
  | { refused: { message: string; field: string | undefined } };

export async function composeRows(ask: RowsToCompose): Promise<ComposedRows> {
  try {
    return await composed(ask);
  } catch (error) {
    if (error instanceof Refused) return { refused: { message: error.message, field: error.field } };
    throw error;
  }
}

async function composed({ importId, vaultId, personId, at, key, own, rows, ...keys }: RowsToCompose) {
  const kinds = new Map([...READY_KINDS, ...own].map((kind) => [kind.id, kind]));
  const made = await Promise.all(
    rows.map(async (row) => {
      const kind = kinds.get(row.kind);
      if (!kind || kind.closed) throw new Refused("bad-input", t.thisKindDoesNotExist, "rows");
      const entryId = uuidv7();
      const version = await composeVersion(key, keys, {
        kind,
        entryId,
        vaultId,
        number: 1,
        personId,
        at,
        values: valuesIn(kind, row.values),
        before: { fields: {}, code: null },
        how: "brought in",
      });
      return { ...version, entryId, kind: kind.id, folder: row.folder };
    }),
  );
  const by = { createdAt: at, createdBy: personId };
  return {
    entryIds: made.map((row) => row.entryId),
    tables: {
      nodes: bulkRows(
        nodes,
        made.map((row) => ({ id: row.entryId, type: "entry" as const, ...by })),
      ),
      entryVersions: bulkRows(
        entryVersions,
        made.map((row) => row.version),
      ),
      fingerprints: bulkRows(
        fingerprints,
        made.flatMap((row) => row.fingerprints),
      ),
      sightings: bulkRows(
        sightings,
        made.flatMap((row) => row.sightings),
      ),
      entries: bulkRows(
        entries,
        made.map((row) => ({
          ...row.row,
          ...by,
          nodeId: row.entryId,
          kind: row.kind,
          steps: NO_STEPS,
          guardedFill: false,
          plainHttp: false,
        })),
      ),
      firstSeen: bulkRows(
        firstSeen,
        made.map((row) => ({ personId, entryId: row.entryId, at })),
      ),
      importRows: bulkRows(
        importRows,
        made.map((row) => ({
          entryId: row.entryId,
          importId,
          versionId: row.version.id,
          placeId: uuidv7(),
          folder: row.folder,
        })),
      ),
    },
  };
}
