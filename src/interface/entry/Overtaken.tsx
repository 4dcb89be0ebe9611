"use client";

import styled from "styled-components";
import { fieldWord, type Kind } from "@/core/kinds/kind";
import type { Refusal } from "../shared/ask";
import { Act, Button, Notice, Row } from "../shared/controls";
import type { Draft } from "./entryDraft";
import { entryForm as t } from "./strings";

const Versus = styled.table`
  width: 100%;
  margin: 12px 0;
  border-collapse: collapse;
  table-layout: fixed;
  th, td { padding: 8px 12px 8px 0; border-bottom: 1px solid var(--rule); text-align: left; vertical-align: top; overflow-wrap: anywhere; }
  th[scope="row"] { width: 120px; color: var(--soft); font-weight: 400; font-size: 14px; }
`;

/** Somebody saved in between: both stand side by side, and neither is lost. */
export function Overtaken({
  refused,
  kind,
  draft,
  running,
  onKeepMine,
  onTake,
}: {
  refused: Refusal;
  kind: Kind;
  draft: Draft;
  running: boolean;
  onKeepMine: () => void;
  onTake: (key: string, value: string) => void;
}) {
  const theirs = refused.data!.theirs as Record<string, unknown>;
  const mine: Record<string, string> = {
    ...draft.values,
    name: draft.name,
    description: draft.description,
    notes: draft.notes,
  };
  const shown = [
    { id: "name", label: t.name },
    { id: "description", label: t.description },
    ...kind.fields.filter((field) => field.class !== "secret"),
    { id: "notes", label: t.notes },
  ];
  const differing = shown.filter(({ id }) => String(theirs[id] ?? "") !== mine[id]);
  const secrets = kind.fields.filter(({ id }) => (refused.data!.secretsChanged as string[]).includes(id));
  return (
    <Notice role="alert">
      <b>{refused.message}</b>
      <p>{t.yourChangesAreStillHereTake}</p>
      {differing.length > 0 && (
        <Versus>
          <thead>
            <tr>
              <th>
                <span className="unseen">{t.field}</span>
              </th>
              <th>{t.theirs}</th>
              <th>{t.yours}</th>
            </tr>
          </thead>
          <tbody>
            {differing.map(({ id, label }) => (
              <tr key={id}>
                <th scope="row">{label}</th>
                <td>
                  {String(theirs[id] ?? "")}
                  <br />
                  <Act onPress={() => onTake(id, String(theirs[id] ?? ""))} aria-label={t.takeTheirs(label)}>
                    {t.takeTheirs2}
                  </Act>
                </td>
                <td>{mine[id]}</td>
              </tr>
            ))}
          </tbody>
        </Versus>
      )}
      {secrets.map(({ id }) => (
        <p key={id}>
          {t.theyAlsoChangedThe(
            fieldWord(kind, id),
            draft.values[id] === "" ? t.youDidNotChangeItTheirsStays : t.savingReplacesItWithYours,
          )}
        </p>
      ))}
      <Row style={{ marginTop: 8 }}>
        <Button isDisabled={running} onPress={onKeepMine}>
          {t.saveYourChanges}
        </Button>
      </Row>
    </Notice>
  );
}
