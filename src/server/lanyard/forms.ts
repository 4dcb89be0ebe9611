/** Cards, addresses, contacts and papers for the form of a page: which there are, and one of them on a person's press. */
import { and, asc, isNull } from "drizzle-orm";
import { z } from "zod";
import { atLeast } from "../../core/access";
import { listOf } from "../../core/counted";
import { FORM_KINDS, type FormKind, fieldsFor, isGuarded, OWN_NAME, valuesFor } from "../../core/forms/autofill";
import { fieldOf, fieldWord } from "../../core/kinds/kind";
import { hostOf } from "../../core/signin/address";
import { reachOf } from "../access/load";
import { personIdOf } from "../caller";
import { command, idSchema, query } from "../command";
import { inJson } from "../database/bulk";
import { entries } from "../database/schema";
import { Refused } from "../refused";
import { fieldsOf } from "../vaults/composing";
import { requireEntry, requireInUse } from "../vaults/entries";
import { kindOf } from "../vaults/kinds";
import { vaultNames } from "../vaults/places";
import { requireRevealGates } from "../vaults/revealGates";
import { fingerprint } from "../vaults/sealing";
import { openValues } from "../vaults/vaultKeys";
import { currentVersion, noteSighting } from "../vaults/writing";
import { forms as t } from "./strings";

const kindSchema = z.enum(FORM_KINDS);
const MOST_ENTRIES = 100;

export interface FormEntry {
  id: string;
  name: string;
  kind: FormKind;
  vault: string;
}

/** Entries that could go into a form. Of cards and papers there is nothing to fill in below Reveal. */
export const formEntries = query({
  name: "lanyard.formEntries",
  input: z.strictObject({ kinds: z.array(kindSchema).min(1).max(FORM_KINDS.length) }),
  by: ["lanyard"],
  allow: () => undefined,
  run: async ({ tx, me, at, input }): Promise<FormEntry[]> => {
    const { levels, node } = reachOf(tx, me, at);
    const reached = [...levels.keys()].filter((id) => node(id)!.type === "entry");
    const found = await tx
      .select({ id: entries.nodeId, name: entries.name, kind: entries.kind })
      .from(entries)
      .where(
        and(
          inJson(entries.nodeId, reached),
          inJson(entries.kind, input.kinds),
          isNull(entries.binnedAt),
          isNull(entries.asideAt),
        ),
      )
      .orderBy(asc(entries.name));
    const may = found
      .filter(({ id, kind }) => !isGuarded(kind as FormKind) || atLeast(levels.get(id)!, "reveal"))
      .slice(0, MOST_ENTRIES);
    const vaultName = await vaultNames(
      tx,
      me,
      may.map(({ id }) => node(id)!.vaultId),
      at,
    );
    return may.map((row) => ({ ...row, kind: row.kind as FormKind, vault: vaultName(node(row.id)!.vaultId) }));
  },
});

/**
 * What a form asks for, of one entry, sent to this browser at this moment: only the fields that the form has. Each secret
 * among them is a sighting.
 */
export const fillForm = command({
  name: "lanyard.fillForm",
  input: z.strictObject({
    entryId: idSchema,
    page: z.url().max(2000),
    tokens: z.array(z.string().max(40)).min(1).max(60),
  }),
  by: ["lanyard"],
  allow: async (context) => {
    const { input, tx, app } = context;
    const allowed = await requireEntry(context, input.entryId, "use");
    requireInUse(allowed.entry);
    const kind = kindSchema.safeParse(allowed.entry.kind);
    if (!kind.success) throw new Refused("not-allowed", t.thisEntryGoesIntoNoForm);
    const page = new URL(input.page);
    if (isGuarded(kind.data) && page.protocol !== "https:" && !app.configuration.allowedTargets.has(page.host))
      throw new Refused("not-allowed", t.thisPageIsNotEncrypted);
    const described = await kindOf(tx, kind.data);
    const classOf = (field: string) => (field === OWN_NAME ? "open" : (fieldOf(described, field)?.class ?? "secret"));
    const reveals = atLeast(allowed.level, "reveal");
    const fields = fieldsFor(kind.data, input.tokens).filter((field) => reveals || classOf(field) === "open");
    if (fields.length === 0) throw new Refused("not-allowed", t.nothingOfItCanBeFilledIn);
    const secrets = fields.filter((field) => classOf(field) === "secret");
    if (secrets.length > 0) await requireRevealGates(context, allowed);
    return { ...allowed, kind: kind.data, described, fields, secrets };
  },
  run: async ({ tx, input, caller, at, app, allowed: { entry, kind, fields, secrets } }) => {
    const kept = fieldsOf(await openValues(tx, app.keys, await currentVersion(tx, entry)));
    const all: Record<string, string> = { ...kept, ...entry.fields, [OWN_NAME]: entry.name };
    const given = Object.fromEntries(
      fields.flatMap((field) => (Object.hasOwn(all, field) && all[field] ? [[field, all[field]]] : [])),
    );
    for (const field of secrets.filter((one) => given[one] !== undefined))
      await noteSighting(tx, {
        ...{ entryId: input.entryId, field, mark: fingerprint(app.keys, field, given[field]!) },
        ...{ personId: personIdOf(caller), at, how: "filled in" as const },
      });
    return { values: valuesFor(kind, input.tokens, given) };
  },
  journal: ({ input, allowed: { entry, vaultId, described, fields } }) => ({
    node: input.entryId,
    vault: vaultId,
    details: {
      fields: listOf(
        fields.map((field) => (field === OWN_NAME ? "name" : fieldWord(described, field))),
        "and",
      ),
      host: hostOf(input.page) ?? "",
    },
    names: { [input.entryId]: entry.name },
  }),
  says: ({ details, place }) => `filled in the ${details.fields}${place("of")} at ${details.host}, with Lanyard`,
  tell: ({ allowed }) => [`vault:${allowed.vaultId}`],
});
