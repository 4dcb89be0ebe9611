import type { Transaction } from "../database/client";
import { personStates, persons } from "../database/schema";
import { uuidv7 } from "../ids";
import type { AccountRow } from "./accounts";

/** Makes somebody whom the provider knows and Galtry does not: a member without anything but their groups. */
export async function addPersonOf(
  tx: Transaction,
  account: AccountRow,
  at: number,
  commandId: string,
): Promise<string> {
  const personId = uuidv7();
  const name = account.name || account.mail.slice(0, account.mail.indexOf("@"));
  await tx.insert(persons).values({ id: personId, mail: account.mail, name, createdAt: at });
  await tx
    .insert(personStates)
    .values({ id: uuidv7(), personId, role: "member", standing: "invited", validFrom: at, commandId });
  return personId;
}
