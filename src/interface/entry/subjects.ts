import { runQuery } from "../shared/ask";

/** Whom access can be given to. */
export interface SubjectChoice {
  kind: "person" | "group" | "everyone";
  id: string;
  name: string;
  note: string;
}

type Only = "people" | "staff" | "people and groups" | "all";

/** Looks for people, groups and Everyone by a part of their name or address. */
export const findSubjects =
  (only: Only = "all") =>
  async (text: string): Promise<SubjectChoice[] | null> => {
    const answer = await runQuery("people.subjectList", { text, only });
    return answer.ok ? answer.result : null;
  };

export const loadSubjects = findSubjects();
