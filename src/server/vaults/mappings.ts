/** What the columns of a file become, kept under a name for the next file like it. One's own. */
import { and, eq } from "drizzle-orm";
import { z } from "zod";
import { MEANINGS, type Meaning } from "../../core/formats/columns";
import { sortByName } from "../byName";
import { personIdOf } from "../caller";
import { command, idSchema, nameSchema, none, query } from "../command";
import { mappings } from "../database/schema";
import { uuidv7 } from "../ids";
import { notFound, Refused } from "../refused";
import { mappings as t } from "./strings";

const MOST = 50;

const mappingSchema = z.strictObject({
  header: z.array(z.string().max(1000)).min(1).max(100),
  meanings: z.array(z.enum(MEANINGS.map((one) => one.meaning) as [Meaning])).max(100),
  keepFolders: z.boolean(),
});

export const mappingList = query({
  name: "vaults.mappingList",
  input: none,
  by: ["person"],
  allow: () => undefined,
  run: async ({ tx, me }) => {
    const rows = await tx.select().from(mappings).where(eq(mappings.personId, me.id));
    return sortByName(
      rows.flatMap(({ id, name, mapping }) => {
        const read = mappingSchema.safeParse(mapping);
        return read.success ? [{ id, name, ...read.data }] : [];
      }),
    );
  },
});

export const saveMapping = command({
  name: "vaults.saveMapping",
  input: z.strictObject({ name: nameSchema, mapping: mappingSchema }),
  by: ["person"],
  allow: async ({ tx, me }) => {
    const rows = await tx.select({ id: mappings.id }).from(mappings).where(eq(mappings.personId, me.id));
    if (rows.length >= MOST) throw new Refused("bad-input", t.atMostCanBeSavedDeleteOne(MOST), "name");
  },
  run: async ({ tx, input, caller, at }) => {
    const personId = personIdOf(caller);
    // The same name again takes the place of the one before.
    await tx.delete(mappings).where(and(eq(mappings.personId, personId), eq(mappings.name, input.name)));
    await tx.insert(mappings).values({ id: uuidv7(), personId, changedAt: at, ...input });
  },
  journal: null,
  tell: () => [],
});

export const deleteMapping = command({
  name: "vaults.deleteMapping",
  input: z.strictObject({ mappingId: idSchema }),
  by: ["person"],
  allow: async ({ tx, me, input }) => {
    const [row] = await tx.select().from(mappings).where(eq(mappings.id, input.mappingId));
    if (row?.personId !== me.id) throw notFound();
  },
  run: async ({ tx, input }) => {
    await tx.delete(mappings).where(eq(mappings.id, input.mappingId));
  },
  journal: null,
  tell: () => [],
});
