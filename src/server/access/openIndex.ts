/** What the access index of this process holds. */
import type { AccessIndex, Grant, Member, Standing } from "../../core/access";
import type { Role } from "../database/schema";
import type { GrantRow } from "./rows";

/** A grant as it is looked at and as it is written. */
export type HeldGrant = GrantRow & Grant;

export interface IndexPerson extends Member {
  name: string;
  role: Role;
  standing: Standing;
  until: number | null;
}

export type OpenIndex = AccessIndex<HeldGrant, IndexPerson>;
