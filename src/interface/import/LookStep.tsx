"use client";

import { useVirtualizer } from "@tanstack/react-virtual";
import { useEffect, useMemo, useRef, useState } from "react";
import styled from "styled-components";
import { MOST_ENTRIES } from "@/core/formats/rows";
import { Button, ChoiceField, Select, Stack } from "../shared/controls";
import { Form } from "../shared/Form";
import type { Line } from "./import.worker";
import { lookStep as t } from "./strings";
import type { Alike, Choice, Step } from "./useImport";

const Rows = styled.div`
  max-height: 420px;
  overflow: auto;
  border-top: 3px solid var(--ink);
  background: var(--sheet);
  [role="row"] { position: absolute; inset-inline: 0; display: grid; grid-template-columns: 70px minmax(0, 1.4fr) minmax(0, 1fr) 220px; gap: 12px; align-items: center; height: 48px; padding: 0 10px; border-bottom: 1px solid var(--rule); font-size: 14px; }
  [role="row"] > span { overflow: hidden; text-overflow: ellipsis; white-space: nowrap; }
  [data-wrong] > :last-child { color: var(--crimson); white-space: normal; font-size: 13px; line-height: 17px; }
  [data-remark] > :last-child { color: var(--amber); white-space: normal; font-size: 13px; line-height: 17px; }
  small { display: block; overflow: hidden; text-overflow: ellipsis; color: var(--soft); font: 12.5px/16px var(--mono); }
  select { min-height: 30px; padding: 2px 8px; font-size: 13.5px; }
  @media (max-width: 719px) { [role="row"] { grid-template-columns: 44px minmax(0, 1fr) 140px; } [role="row"] > :nth-child(3) { display: none; } }
`;

interface LookStepProps {
  step: Extract<Step, { step: "look" }>;
  lines: (from: number, count: number) => Promise<Line[]>;
  onGo: (leave: number[], updates: [number, string][]) => Promise<void>;
  onAgain: () => void;
  /** Where the file has columns whose meaning can be chosen. */
  onColumns: (() => void) | null;
}

/** What will happen, row by row, before it does. */
export function LookStep({ step: { looked, alike }, lines, onGo, onAgain, onColumns }: LookStepProps) {
  const [same, setSame] = useState<Choice>("skip");
  const [other, setOther] = useState<Choice>(() => (alike.some((one) => one.entryId) ? "update" : "both"));
  const [each, setEach] = useState<ReadonlyMap<number, Choice>>(new Map());
  const [sent, setSent] = useState(false);
  const [listed, setListed] = useState(false);
  const likeness = useMemo(() => new Map(alike.map((one) => [one.at, one])), [alike]);
  const choiceOf = (one: Alike): Choice => {
    const wanted = each.get(one.at) ?? (one.same ? same : other);
    return wanted === "update" && !one.entryId ? "both" : wanted;
  };
  const leave = alike.filter((one) => choiceOf(one) === "skip").map((one) => one.at);
  const updates = alike
    .filter((one) => choiceOf(one) === "update")
    .map((one): [number, string] => [one.at, one.entryId!]);
  const count = looked.good - leave.length;
  const fresh = count - updates.length;
  const sames = alike.filter((one) => one.same).length;
  const others = alike.length - sames;
  const verb = [
    fresh > 0 && t.importEntries(fresh),
    updates.length > 0 && t.updateEntries(updates.length, fresh === 0),
  ];
  return (
    <Form
      verb={verb.filter(Boolean).join(", ") || t.importNothing}
      onSend={async () => {
        setSent(true);
        await onGo(leave, updates);
        setSent(false);
      }}
      running={sent}
      unready={count === 0 || count > MOST_ENTRIES}
      wrong={count > MOST_ENTRIES ? t.atMostEntriesCanBeImportedAt(MOST_ENTRIES.toLocaleString("en-GB")) : null}
      acts={
        <>
          {onColumns && <Button onPress={onColumns}>{t.backToTheColumns}</Button>}
          <Button onPress={onAgain}>{t.chooseAnotherFile}</Button>
        </>
      }
    >
      <p>{t.canBeImported(looked.good, looked.folders, looked.wrongs)}</p>
      {looked.twice > 0 && <p>{t.repeatedInTheFile(looked.twice)}</p>}
      {sames > 0 && (
        <ChoiceField
          label={t.alreadyInGaltry(sames)}
          hint={t.sameSiteUserNameAndPassword}
          value={same}
          onText={(text) => setSame(text as Choice)}
        >
          <option value="skip">{t.skip}</option>
          <option value="both">{t.importAgainAsNewEntries}</option>
        </ChoiceField>
      )}
      {others > 0 && (
        <ChoiceField
          label={t.inGaltryWithAnotherPassword(others)}
          hint={t.updatedWhereYouHaveEditTheOld}
          value={other}
          onText={(text) => setOther(text as Choice)}
        >
          <option value="update">{t.updateTheSavedPassword}</option>
          <option value="both">{t.importAsNewEntries}</option>
          <option value="skip">{t.skip}</option>
        </ChoiceField>
      )}
      {looked.remarks > 0 && <p>{t.checkRows(looked.remarks)}</p>}
      {looked.wrongs > 0 || looked.remarks > 0 || listed || alike.length > 0 ? (
        <RowList
          total={looked.good + looked.wrongs + looked.twice}
          lines={lines}
          likeness={likeness}
          choiceOf={choiceOf}
          onChoice={(at, choice) => setEach(new Map([...each, [at, choice]]))}
        />
      ) : (
        <div>
          <Button onPress={() => setListed(true)}>{t.seeEveryRow}</Button>
        </div>
      )}
      <p className="small soft">{t.eitherEverythingIsImportedOr}</p>
    </Form>
  );
}

const AT_ONCE = 100;

interface RowListProps {
  total: number;
  lines: LookStepProps["lines"];
  likeness: ReadonlyMap<number, Alike>;
  choiceOf: (one: Alike) => Choice;
  onChoice: (at: number, choice: Choice) => void;
}

/** One line a row; only what is seen is asked for. */
function RowList({ total, lines, likeness, choiceOf, onChoice }: RowListProps) {
  const box = useRef<HTMLDivElement>(null);
  const [known, setKnown] = useState<ReadonlyMap<number, Line>>(new Map());
  const asked = useRef(new Set<number>());
  const virtual = useVirtualizer({
    count: total,
    getScrollElement: () => box.current,
    estimateSize: () => 48,
    overscan: 10,
    initialRect: { width: 800, height: 420 },
  });
  const items = virtual.getVirtualItems();
  const [first, last] = [items[0]?.index ?? 0, items.at(-1)?.index ?? 0];
  useEffect(() => {
    for (let block = Math.floor(first / AT_ONCE); block <= Math.floor(last / AT_ONCE); block++) {
      if (asked.current.has(block)) continue;
      asked.current.add(block);
      void lines(block * AT_ONCE, AT_ONCE).then((some) =>
        setKnown(
          (before) => new Map([...before, ...some.map((line, i): [number, Line] => [block * AT_ONCE + i, line])]),
        ),
      );
    }
  }, [first, last, lines]);
  return (
    <Stack style={{ gap: 4 }}>
      <Rows
        ref={box}
        style={{ height: total * 48 + 4 }}
        role="table"
        aria-label={t.rowsOfTheFile}
        aria-rowcount={total}
        tabIndex={0}
      >
        <div role="rowgroup" style={{ height: virtual.getTotalSize(), position: "relative" }}>
          {items.map((item) => {
            const line = known.get(item.index);
            const alike = line?.at == null ? undefined : likeness.get(line.at);
            return (
              <div
                key={item.index}
                role="row"
                aria-rowindex={item.index + 1}
                data-wrong={line?.wrong || undefined}
                data-remark={line?.remark || undefined}
                style={{ top: item.start }}
              >
                <span role="cell" className="soft">
                  {line?.row.toLocaleString("en-GB")}
                </span>
                <span role="cell" title={[line?.name, line?.login].filter(Boolean).join("\n")}>
                  {line?.name}
                  {line?.login && <small>{line.login}</small>}
                </span>
                <span role="cell" className="soft" title={line?.folder}>
                  {line?.folder}
                </span>
                {alike ? (
                  <span role="cell">
                    <Select
                      aria-label={t.whatToDoWith(line!.name)}
                      value={choiceOf(alike)}
                      onChange={(event) => onChoice(alike.at, event.target.value as Choice)}
                    >
                      <option value="skip">{t.alreadyInGaltrySkip}</option>
                      {alike.entryId && <option value="update">{t.updateTheSavedPassword}</option>}
                      <option value="both">{t.importAsANewEntry}</option>
                    </Select>
                  </span>
                ) : (
                  <span role="cell" title={line?.wrong ?? line?.remark ?? undefined}>
                    {line && (line.wrong ?? line.remark ?? t.newWord)}
                  </span>
                )}
              </div>
            );
          })}
        </div>
      </Rows>
    </Stack>
  );
}
