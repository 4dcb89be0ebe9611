/**
 * A version of an entry composed: what is open as JSON, the rest in one sealed blob, with all that is written beside
 * it. Nothing here reads or writes the database, so that a thread beside the server's can compose too.
 */
import { z } from "zod";
import { CODE, fieldOf, type Kind, PASSWORD, SIGN_IN_PAGE, USER_NAME } from "../../core/kinds/kind";
import { type EntryValues, readValues } from "../../core/kinds/values";
import { type Classes, shownToMore } from "../../core/kinds/visibility";
import { hostOf } from "../../core/signin/address";
import { siteOf } from "../../core/signin/site";
import type { ExtraField, entryVersions, SightingHow } from "../database/schema";
import { uuidv7 } from "../ids";
import type { KeyRing } from "../keys/keyFile";
import { badInput, Refused } from "../refused";
import { fingerprint, type SealedValues, sealValues, type VaultKey } from "./sealing";
import { composing as t } from "./strings";

export type VersionRow = typeof entryVersions.$inferSelect;

/** Read by the entry's kind, once that is known. */
export function valuesIn(kind: Kind, flat: Record<string, unknown>): EntryValues {
  try {
    return readValues(kind, flat);
  } catch (error) {
    throw error instanceof z.ZodError ? badInput(error, ["values"]) : error;
  }
}

export interface WriteVersion {
  kind: Kind;
  entryId: string;
  vaultId: string;
  number: number;
  personId: string;
  at: number;
  values: EntryValues;
  before: SealedValues;
  /** How its writer came to see the secrets that are new; null where they did not see them. */
  how: SightingHow | null;
  earlier?: Earlier;
}

/** The version that is current until then, and the kind it is of. */
export interface Earlier {
  version: VersionRow;
  kind: Kind;
}

const extrasOf = ({ open }: Pick<VersionRow, "open">) => open.extras as ExtraField[];

/** Who sees what of a version. */
export const classesOf = ({ version, kind }: Earlier): Classes => ({ kind, extras: extrasOf(version) });

/**
 * A value that is kept is shown to nobody who did not see it, whatever class its field is given: whoever may reveal it
 * reveals it, which is written down, and enters it again.
 * @throws Refused at the field
 */
function refuseShowingMore({ kind, values, before, earlier }: WriteVersion): void {
  if (!earlier) return;
  const was = classesOf(earlier);
  const kept = Object.keys(fieldsOf(before));
  const after: Classes = { kind, extras: values.extras };
  for (const id of shownToMore(kept, was, after)) {
    const at = values.extras.findIndex((extra) => `extra:${extra.id}` === id);
    const given = at === -1 ? values.fields[id] : values.extras[at]!.value;
    if (given !== undefined) continue;
    const label = values.extras[at]?.label ?? fieldOf(kind, id)?.label ?? id;
    throw new Refused(
      "bad-input",
      t.morePeopleWouldSeeRevealItAnd(label),
      at === -1 ? `values.${id}` : `values.extras.${at}.value`,
    );
  }
}

/** A new version, sealed, with all that is written beside it; nothing is written here. What was left out stays. */
export async function composeVersion(key: VaultKey, keys: Pick<KeyRing, "fingerprints">, write: WriteVersion) {
  const { kind, values, before, entryId, vaultId, personId, at, how } = write;
  refuseShowingMore(write);
  const versionId = uuidv7();
  const after = hiddenValues(kind, values, before);
  const extras: ExtraField[] = values.extras.map(({ id, label, class: fieldClass, value }) =>
    fieldClass === "open" ? { id, label, class: fieldClass, value: value ?? "" } : { id, label, class: fieldClass },
  );
  const open = {
    kind: kind.id,
    name: values.name,
    description: values.description,
    signInPage: values.signInPage,
    reach: values.reach,
    fields: openFields(kind, values),
    notes: values.notes,
    tags: values.tags,
    extras,
    useSeesUserName: values.useSeesUserName,
  };
  const sealed = await sealValues(key, { vaultId, entryId, versionId }, after);
  const old = fieldsOf(before);
  const marks = Object.entries(fieldsOf(after)).map(([field, value]) => ({
    field,
    fingerprint: fingerprint(keys, field, value),
    // Whoever writes a secret has seen it.
    seen: isSecret(kind, field) && value !== old[field],
  }));
  const host = hostOf(values.signInPage) ?? "";
  return {
    changed: changedFields(write.earlier?.version.open ?? {}, open, before, after),
    version: {
      id: versionId,
      entryId,
      number: write.number,
      vaultId,
      ...sealed,
      open,
      createdAt: at,
      createdBy: personId,
      // A version that the site refused stays refused while what is sent to it stays the same.
      refusedAt: write.earlier?.version.refusedAt && sameLogin(before, after) ? write.earlier.version.refusedAt : null,
    },
    fingerprints: marks.map((mark) => ({ versionId, field: mark.field, fingerprint: mark.fingerprint })),
    sightings: marks
      .filter((mark) => mark.seen)
      .flatMap(({ field, fingerprint: mark }) =>
        how === null ? [] : [{ id: uuidv7(), entryId, field, fingerprint: mark, personId, at, how }],
      ),
    row: {
      ...open,
      host,
      site: siteOf(host),
      hasCode: after.code !== null,
      versionId,
      changedAt: at,
      changedBy: personId,
    },
  };
}

/** Values of the classes identifier and secret as they are from now on; empty ones are not kept. */
function hiddenValues(kind: Kind, values: EntryValues, before: SealedValues): SealedValues {
  const given: [string, string | undefined][] = [
    ...kind.fields
      .filter((field) => field.class !== "open" && field.id !== CODE)
      .map(({ id }): [string, string | undefined] => [id, values.fields[id]]),
    ...values.extras
      .filter((extra) => extra.class !== "open")
      .map(({ id, value }): [string, string | undefined] => [`extra:${id}`, value]),
  ];
  return {
    fields: Object.fromEntries(
      given.map(([id, value]) => [id, value ?? before.fields[id] ?? ""]).filter(([, value]) => value !== ""),
    ),
    code: values.code === undefined ? before.code : values.code,
  };
}

const openFields = (kind: Kind, values: EntryValues): Record<string, string> =>
  Object.fromEntries(
    kind.fields
      .filter((field) => field.class === "open" && field.id !== SIGN_IN_PAGE)
      .map(({ id }) => [id, values.fields[id] ?? ""]),
  );

const sameLogin = (a: SealedValues, b: SealedValues) =>
  a.fields[USER_NAME] === b.fields[USER_NAME] &&
  a.fields[PASSWORD] === b.fields[PASSWORD] &&
  a.code?.secret === b.code?.secret;

/** Secrets and identifiers by field name, for fingerprints and comparison. */
export const fieldsOf = ({ fields, code }: SealedValues): Record<string, string> =>
  code ? { ...fields, [CODE]: code.secret } : fields;

/** Extra fields that are not open count as secrets, whichever they are. */
export const isSecret = (kind: Kind, field: string) => (fieldOf(kind, field)?.class ?? "secret") === "secret";

export function changedFields(
  openBefore: Record<string, unknown>,
  openAfter: Record<string, unknown>,
  before: SealedValues,
  after: SealedValues,
): string[] {
  const flat = ({ fields, ...rest }: Record<string, unknown>): Record<string, unknown> => ({
    ...rest,
    ...(fields as object),
  });
  const [was, is] = [flat(openBefore), flat(openAfter)];
  // Versions did not always say their kind.
  if (was.kind === undefined) was.kind = is.kind;
  const open = Object.keys(is).filter((key) => JSON.stringify(was[key]) !== JSON.stringify(is[key]));
  const [old, now] = [fieldsOf(before), fieldsOf(after)];
  const sealed = [...new Set([...Object.keys(old), ...Object.keys(now)])].filter(
    (key) => (old[key] ?? "") !== (now[key] ?? ""),
  );
  return [...open, ...sealed];
}
