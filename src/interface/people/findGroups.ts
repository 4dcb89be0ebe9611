import { findSubjects, type SubjectChoice } from "../entry/subjects";

const find = findSubjects("people and groups");

/** Groups by a part of their name; null when Galtry does not answer. */
export const findGroups = async (typed: string): Promise<SubjectChoice[] | null> =>
  (await find(typed))?.filter(({ kind }) => kind === "group") ?? null;
