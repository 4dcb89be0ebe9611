/** What a person is in the organisation. Levels come from grants, not from roles. */
export const ROLES = ["owner", "administrator", "member", "auditor", "guest"] as const;
export type Role = (typeof ROLES)[number];

/** An auditor reads what everything is called, and who has it: more than an administrator. */
export const NAMED_BY_OWNERS: ReadonlySet<Role> = new Set(["owner", "auditor"]);

const WORDS: Record<Role, string> = {
  owner: "Owner",
  administrator: "Administrator",
  member: "Member",
  auditor: "Auditor",
  guest: "Guest",
};

export const roleWord = (role: Role): string => WORDS[role];
