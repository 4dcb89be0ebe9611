import { isAdministrator } from "../caller";
import type { Role } from "../database/schema";
import { Refused } from "../refused";
import { administrators as t } from "./strings";

/** @throws Refused not-allowed for everybody else, in words that may name the act */
export function requireAdministrator({ role }: { role: Role | null }, message = t.onlyAnAdministratorCanDoThis): void {
  if (!role || !isAdministrator(role)) throw new Refused("not-allowed", message);
}
