/** Changes of access that have not been made yet. */
import { type Grant, type Subject, subjectKey, type Window } from "./grant";
import type { Given } from "./level";
import type { Organised } from "./organisation";

/** What a grant would be. */
export interface Terms extends Window {
  level: Given;
}

export type Change =
  /** At a node, a subject has these grants and no others; none takes away what is set there. */
  | { type: "set"; nodeId: string; subject: Subject; grants: readonly Terms[] }
  /** A person is in a group, for a time perhaps; null takes them out. */
  | {
      type: "member";
      groupId: string;
      personId: string;
      held: Window | null;
      /** May change who is in the group; as it is, where nothing is said. Access is the same. */
      keeper?: boolean | undefined;
    }
  /** A node goes into another folder of its vault, with the grants that are set on it. */
  | { type: "move"; nodeId: string; parentId: string }
  /**
   * Grants above a folder are looked at no more, or again. `keeper` gets Steward there, instead of what they have there
   * of their own: whoever marks it and would lose it otherwise.
   */
  | { type: "separate"; nodeId: string; separate: boolean; keeper: string | null };

/** What a change is about: a later one of the same place takes the place of an earlier one. */
export function placeOf(change: Change): string {
  if (change.type === "set") return `set ${change.nodeId} ${subjectKey(change.subject)}`;
  if (change.type === "member") return `member ${change.groupId} ${change.personId}`;
  return `${change.type} ${change.nodeId}`;
}

/** The organisation as it would be. Grants that would be new have ids that begin with "new". */
export function withChanges(before: Organised, changes: readonly Change[]): Organised {
  let { nodes, grants, people } = before;
  for (const [i, change] of changes.entries()) {
    if (change.type === "set") grants = withSet(grants, change.nodeId, change.subject, change.grants, `new ${i}`);
    else if (change.type === "move")
      nodes = nodes.map((node) => (node.id === change.nodeId ? { ...node, parent: change.parentId } : node));
    else if (change.type === "member")
      people = people.map((person) =>
        person.id !== change.personId
          ? person
          : {
              ...person,
              held: [
                ...person.held.filter((one) => one.groupId !== change.groupId),
                ...(change.held ? [{ ...change.held, groupId: change.groupId }] : []),
              ],
            },
      );
    else {
      nodes = nodes.map((node) => (node.id === change.nodeId ? { ...node, separate: change.separate } : node));
      if (change.keeper !== null)
        grants = withSet(grants, change.nodeId, { kind: "person", id: change.keeper }, [STEWARD], `new ${i}`);
    }
  }
  return { nodes, grants, people };
}

const STEWARD: Terms = { level: "steward", from: null, until: null };

function withSet(
  grants: readonly Grant[],
  node: string,
  subject: Subject,
  terms: readonly Terms[],
  id: string,
): Grant[] {
  const key = subjectKey(subject);
  return [
    ...grants.filter((grant) => grant.node !== node || subjectKey(grant.subject) !== key),
    ...terms.map((one, i): Grant => ({ ...one, id: `${id} ${i}`, node, subject })),
  ];
}
