/** What the list of people can be narrowed to and sorted by; the same words stand in its address. */
export const PEOPLE_ROLES = ["any", "staff", "owner", "administrator", "auditor", "member", "guest"] as const;
export const PEOPLE_IN = ["here", "active", "invited", "suspended", "leaver", "any"] as const;
export const PEOPLE_WAYS = ["any", "password-only", "passkey", "code", "provider", "none"] as const;
export const PEOPLE_SEEN = ["any", "week", "not-month", "not-quarter", "never"] as const;
export const PEOPLE_SORTS = ["name", "role", "seen", "unseen"] as const;

export interface PeopleFilter {
  /** Part of a name or an address. */
  text: string;
  role: (typeof PEOPLE_ROLES)[number];
  /** "here" is everybody but leavers. */
  state: (typeof PEOPLE_IN)[number];
  /** The id of a group. */
  group: string | null;
  way: (typeof PEOPLE_WAYS)[number];
  seen: (typeof PEOPLE_SEEN)[number];
  /** "seen" has the latest first, "unseen" those who were not here for longest. */
  sort: (typeof PEOPLE_SORTS)[number];
}

export const EVERYBODY: PeopleFilter = {
  ...{ text: "", role: "any", state: "here", group: null, way: "any", seen: "any", sort: "name" },
};

type Asked = Record<string, string | string[] | undefined>;
const NAMES = {
  text: "find",
  role: "role",
  state: "state",
  group: "group",
  way: "way",
  seen: "seen",
  sort: "sort",
} as const;

/** A filter from an address; what it does not know counts as not said. */
export function filterFrom(asked: Asked): PeopleFilter {
  const said = (name: string): string => {
    const value = asked[name];
    return typeof value === "string" ? value.trim().slice(0, 200) : "";
  };
  const one = <T extends string>(list: readonly T[], name: string, usual: T): T =>
    list.find((word) => word === said(name)) ?? usual;
  return {
    text: said(NAMES.text),
    role: one(PEOPLE_ROLES, NAMES.role, EVERYBODY.role),
    state: one(PEOPLE_IN, NAMES.state, EVERYBODY.state),
    group: /^[0-9a-f]{8}(-[0-9a-f]{4}){3}-[0-9a-f]{12}$/.test(said(NAMES.group)) ? said(NAMES.group) : null,
    way: one(PEOPLE_WAYS, NAMES.way, EVERYBODY.way),
    seen: one(PEOPLE_SEEN, NAMES.seen, EVERYBODY.seen),
    sort: one(PEOPLE_SORTS, NAMES.sort, EVERYBODY.sort),
  };
}

/** The same filter as the end of an address, without what is usual: "?role=guest&sort=seen", or nothing. */
export function addressOf(filter: PeopleFilter, from = 0): string {
  const said = new URLSearchParams();
  for (const key of Object.keys(NAMES) as (keyof PeopleFilter)[]) {
    const value = filter[key];
    if (value !== null && value !== EVERYBODY[key]) said.set(NAMES[key], value);
  }
  if (from > 0) said.set("from", String(from));
  const text = said.toString();
  return text === "" ? "" : `?${text}`;
}
