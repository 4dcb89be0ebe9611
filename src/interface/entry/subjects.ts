import { runQuery } from "../shared/ask";

/** Whom access can be given to. */
export interface SubjectChoice {
  kind: "person" | "group" | "everyone";
  id: string;
  name: string;
  note: string;
}

export const loadSubjects = async () => {
  const answer = await runQuery<SubjectChoice[]>("people.subjects", {});
  return answer.ok ? answer.result : null;
};
