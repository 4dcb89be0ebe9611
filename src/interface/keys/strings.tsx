/** Every sentence and label of this area, in one place to be read. */
import type { ReactNode } from "react";
import { agree, counted } from "@/core/counted";

export const houseKeys = {
  keysOfTheHouse: "Keys of the house",
  keys: "Keys",
  what: "Each vault has a key of its own. When it is rotated, everything in the vault is encrypted again in the background and stays usable; then the old key is deleted.",
  vault: "Vault",
  key: "Key",
  since: "Since",
  state: "State",
  number: (version: number) => `number ${version}`,
  rotating: "being rotated",
  stopped: "stopped",
  select: (vault: string) => `Select ${vault}`,
  selectAll: "Select all",
  rotate: (count: number) => `Rotate ${counted(count, "key")}`,
  rotateSelected: "Rotate keys",
  stop: "Stop the rotation",
  resume: "Resume the rotation",
  underWay: (count: number) => `${counted(count, "key")} ${agree(count, "is", "are")} being rotated.`,
  rotated: (count: number) => `${counted(count, "vault")} ${agree(count, "has a new key", "have new keys")}.`,
  otherKeys: "Other keys",
  rootKey: "Root key",
  rootKeyIs: (number: number, since: string) => `Number ${number}, since ${since}. It encrypts all other keys.`,
  rootKeyHow: (code: ReactNode) => (
    <>Rotated on the server, while Galtry runs, by {code}. From the next start on Galtry needs the new file.</>
  ),
  clientSecret: (provider: string) => `Client secret of ${provider}`,
  scimToken: (provider: string) => `SCIM token of ${provider}`,
  enteredOn: (since: string) => `Entered on ${since}.`,
  createdOn: (since: string) => `Created on ${since}. The one before it counts for a day more.`,
  change: "Change",
};
