import { findSubjects, type SubjectChoice } from "../entry/subjects";
import { amongGroups as t } from "./strings";

const find = findSubjects("people and groups");

/** Groups by a part of their name; null when Galtry does not answer. */
export const findGroups = async (typed: string): Promise<SubjectChoice[] | null> =>
  (await find(typed))?.filter(({ kind }) => kind === "group") ?? null;

/** How a group is chosen wherever one is: by a part of its name, in a list that is always seen. */
export const amongGroups = {
  seen: true,
  searches: true,
  load: findGroups,
  placeholder: t.partOfTheName,
  list: t.groups,
  nothing: t.noMatch,
} as const;
