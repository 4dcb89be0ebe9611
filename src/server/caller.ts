/** Who is asking. Established from a session cookie, a Lanyard's token, or by a script on the server itself. */
import type { Role } from "./database/schema";

export type Caller =
  | { kind: "nobody"; address: string; browser: string; knownBrowser: string | null }
  | {
      kind: "person";
      personId: string;
      sessionId: string | null;
      provedAt: number;
      address: string;
      browser: string;
      /** A way in that the house rules require is missing: until it is added, nothing else can be done. */
      limited?: boolean;
    }
  | { kind: "lanyard"; personId: string; lanyardId: string; address: string; browser: string; language: string }
  | { kind: "server" };

export type CallerKind = Caller["kind"];

export const personIdOf = <C extends Caller>(caller: C) =>
  ("personId" in caller ? caller.personId : null) as C extends { personId: string } ? string : null;

/** How long after giving the sign-in password grave acts need no second proof. */
export const PROVED_FOR_MS = 5 * 60_000;

/** Reads who has what, over the whole organisation: administrators as far as names of vaults, auditors all of it. */
export const readsAll = (role: Role) => isAdministrator(role) || role === "auditor";

export const isAdministrator = (role: Role) => role === "owner" || role === "administrator";
