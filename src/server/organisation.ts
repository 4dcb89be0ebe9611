/** The organisation itself: what it is called, where its days begin and end, what it has ruled. */
import { type HouseRules, houseRulesSchema } from "../core/access/houseRules";
import { onceIn, type Reader } from "./database/client";
import { organisation } from "./database/schema";

export interface Home {
  name: string;
  zone: string;
  rules: HouseRules;
}

/** Null before the organisation is set up. */
export const findHome = (tx: Reader): Promise<Home | null> =>
  onceIn(tx, "organisation", async () => {
    const [row] = await tx
      .select({ name: organisation.name, zone: organisation.timeZone, rules: organisation.rules })
      .from(organisation);
    return row ? { ...row, rules: houseRulesSchema.parse(row.rules) } : null;
  });

/** @throws Error before the organisation is set up */
export async function loadHome(tx: Reader): Promise<Home> {
  const home = await findHome(tx);
  if (!home) throw new Error("There is no organisation yet.");
  return home;
}

/** The organisation's own zone. */
export const timeZone = async (tx: Reader): Promise<string> => (await findHome(tx))?.zone ?? "UTC";

export const loadRules = async (tx: Reader): Promise<HouseRules> =>
  (await findHome(tx))?.rules ?? houseRulesSchema.parse({});
