/** What is changed on several entries at once: tags, one field. Each gets a version of its own. */
import { z } from "zod";
import { CODE, fieldOf, type Kind, SIGN_IN_PAGE } from "../../core/kinds/kind";
import { type EntryValues, readField } from "../../core/kinds/values";
import { plainName } from "../../core/plainName";
import { command, idSchema } from "../command";
import { fieldsChanged } from "../journal/says";
import { badInput, Refused } from "../refused";
import { requireEntries } from "./entries";
import { kindOf } from "./kinds";
import { several as t } from "./strings";
import { rewrite } from "./writing";

/** Each is opened and sealed anew within one transaction: more would keep other people waiting. */
export const MOST_REWRITTEN = 100;
const rewrittenIds = z.array(idSchema).min(1).max(MOST_REWRITTEN, t.atMostEntriesAtOnce(MOST_REWRITTEN));

export interface Rewritten {
  entryId: string;
  before: string;
  versionId: string;
}

const toAnswer = (rows: Awaited<ReturnType<typeof rewrite>>[]): { rows: Rewritten[] } => ({
  rows: rows.map(({ entryId, before, versionId }) => ({ entryId, before, versionId })),
});

const tag = z
  .string()
  .max(500, t.aTagHasAtMost50Characters)
  .transform(plainName)
  .pipe(z.string().min(1, t.aTagHasAName).max(50, t.aTagHasAtMost50Characters));

export const tagEntries = command({
  name: "vaults.tagEntries",
  input: z.strictObject({ entryIds: rewrittenIds, add: z.array(tag).max(20), remove: z.array(tag).max(100) }),
  by: ["person"],
  allow: (context) => requireEntries(context, context.input.entryIds, "edit"),
  run: async (context) => {
    const { input, allowed } = context;
    const rows = [];
    for (const { entry, ...held } of allowed.found) {
      const tags = [...new Set([...entry.tags.filter((one) => !input.remove.includes(one)), ...input.add])];
      if (tags.length > 20) throw new Refused("bad-input", t.wouldHaveMoreThan20Tags(entry.name), "add");
      if (tags.join("\n") === entry.tags.join("\n")) continue;
      rows.push(await rewrite(context, { entry, held, how: null, change: (values) => ({ ...values, tags }) }));
    }
    return toAnswer(rows);
  },
  journal: ({ result, allowed }) =>
    allowed.lines({ changed: "tags" }).filter(({ node }) => result.rows.some(({ entryId }) => entryId === node)),
  says: ({ details, place }) => `edited ${fieldsChanged(details.changed)}${place("of")}`,
  tell: ({ allowed }) => allowed.topics,
});

/** Put into a field that all of them have; a secret as well, and then its setter has seen it. */
export const setField = command({
  name: "vaults.setField",
  input: z.strictObject({
    entryIds: rewrittenIds,
    /** "description", "notes", or a field of their kinds. */
    field: z.string().min(1).max(80),
    value: z.string().max(100_000),
  }),
  by: ["person"],
  allow: async (context) => {
    const allowed = await requireEntries(context, context.input.entryIds, "edit");
    for (const { entry } of allowed.found) {
      const kind = await kindOf(context.tx, entry.kind);
      if (!isSettable(kind, context.input.field))
        throw new Refused("bad-input", t.doesNotHaveThisFieldItIs(entry.name, kind.name), "field");
    }
    return allowed;
  },
  run: async (context) => {
    const { input, allowed } = context;
    const rows = [];
    for (const { entry, ...held } of allowed.found)
      rows.push(
        await rewrite(context, {
          entry,
          held,
          how: "written",
          change: (values, kind) => withField(values, kind, input.field, input.value),
        }),
      );
    return { ...toAnswer(rows), word: rows[0]!.changed };
  },
  journal: ({ result, allowed }) => allowed.lines({ changed: result.word }),
  says: ({ details, place }) => `edited ${fieldsChanged(details.changed)}${place("of")}`,
  tell: ({ allowed }) => allowed.topics,
});

const COMMON = ["description", "notes"];

/** Not names, which tell entries apart, nor codes, which are one account's. */
export const isSettable = (kind: Kind, field: string): boolean =>
  COMMON.includes(field) || (fieldOf(kind, field) !== undefined && field !== CODE && field !== kind.title);

/** @throws Refused at "value" where the field's form does not take it */
function withField(values: EntryValues, kind: Kind, field: string, value: string): EntryValues {
  const read = valueIn(kind, field, value);
  if (field === "description" || field === "notes") return { ...values, [field]: read };
  if (field === SIGN_IN_PAGE) return { ...values, signInPage: read };
  return { ...values, fields: { ...values.fields, [field]: read } };
}

function valueIn(kind: Kind, field: string, value: string): string {
  try {
    return readField(kind, field, value);
  } catch (error) {
    throw error instanceof z.ZodError ? badInput(error, ["value"]) : error;
  }
}
