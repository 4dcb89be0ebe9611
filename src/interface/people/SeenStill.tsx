"use client";

import Link from "next/link";
import { type CSSProperties, useState } from "react";
import { exactTime, sayDay, sayTime } from "@/core/time";
import type { Known, KnownRow } from "@/server/people/changeLists";
import type { RunView } from "@/server/signin/runs";
import { useCommand } from "../shared/ask";
import { Act, ActLink, Button, Row, TextField } from "../shared/controls";
import { Dialog } from "../shared/Dialog";
import { useDone } from "../shared/Done";
import { Form } from "../shared/Form";
import { AskToChange, Runs } from "../upkeep/RunPanel";
import { type RunItem, useBeginRun } from "../upkeep/useBeginRun";
import { changedByHandAt } from "../upkeep/words";
import { AskForChanges, ChangeDate } from "./AskForChanges";
import { seenStill as t } from "./strings";

const itemOf = ({ entryId, name }: RunItem): RunItem => ({ entryId, name });

const LINE: CSSProperties = {
  ...{ display: "flex", flexWrap: "wrap", justifyContent: "space-between", gap: "4px 16px", alignItems: "baseline" },
  ...{ padding: "8px 0", borderBottom: "1px solid var(--rule)", overflowWrap: "anywhere" },
};

export interface Knower {
  id: string;
  name: string;
  standing: "active" | "invited" | "suspended" | "leaver";
}

interface SeenStillProps {
  person: Knower;
  known: Known;
  /** The reader's own, about this person. */
  runs: readonly RunView[];
  /** The reader opens lists, and sets their dates. */
  asks: boolean;
  /** What opens a list stands elsewhere on the page. */
  elsewhere?: boolean;
  zone: string;
  now: number;
}

/** Passwords that somebody has seen and that still work: named to their stewards, counted for everybody else. */
export function SeenStill({ person, known, runs, asks, elsewhere, zone, now }: SeenStillProps) {
  const { begin, beginning, refused } = useBeginRun(person.id);
  const [asking, setAsking] = useState<RunItem[] | null>(null);
  const underWay = new Set(runs.flatMap(({ over, lines }) => (over ? [] : lines.map(({ entryId }) => entryId))));
  const changeable = known.seen.filter(
    (one) => one.changedBy === "galtry" && one.left === null && !underWay.has(one.entryId),
  );
  const listId = known.list !== null && known.list.endedAt === null ? known.list.id : null;
  return (
    <section>
      <h2>{t.seen}</h2>
      <HowFar {...{ person, known, asks, elsewhere, zone, now }} />
      <Runs {...{ runs, refused }} />
      {known.seen.length === 0 && known.elsewhere.length === 0 ? (
        <p style={{ marginTop: 8 }}>
          {listId && known.list!.open > 0 ? t.nothingLeftOfYours : t.nothingSeen(person.name)}
        </p>
      ) : (
        <>
          {known.seen.length > 0 && (
            <p className="soft small" style={{ marginTop: 8 }}>
              {t.seenSays}
            </p>
          )}
          {changeable.length > 1 && (
            <Row style={{ marginTop: 10 }}>
              <Button look="go" isDisabled={beginning} onPress={() => setAsking(changeable.map(itemOf))}>
                {t.changeAll(changeable.length)}
              </Button>
            </Row>
          )}
          <ul>
            {known.seen.map((one) => (
              <li key={one.entryId} style={LINE}>
                <span style={{ flex: "1 1 260px" }}>
                  <Link href={`/entry/${one.entryId}`} prefetch={false}>
                    {one.name}
                  </Link>{" "}
                  <span className="soft small" style={{ display: "block" }}>
                    {t.seenIn(one.vault, sayTime(one.at, now, zone), one.stewards)} {t.usedBy(one.usedBy)}
                    {one.hasCode && ` ${t.withACode}`}
                  </span>
                  {one.left && (
                    <span className="small" style={{ display: "block" }}>
                      {t.leftBy(one.left.by, sayTime(one.left.at, now, zone), one.left.why)}
                    </span>
                  )}
                </span>
                <Acts
                  {...{ one, listId }}
                  busy={beginning || underWay.has(one.entryId)}
                  onChange={() => setAsking([itemOf(one)])}
                />
              </li>
            ))}
            {known.elsewhere.map((one) => (
              <li key={one.vault} style={LINE}>
                {t.seenElsewhere(one.count, one.vault, one.stewards)}
              </li>
            ))}
          </ul>
        </>
      )}
      {asks && (
        <p style={{ marginTop: 12 }}>
          <Link href={`/reports/known?person=${person.id}`} prefetch={false}>
            {t.recordToPrint}
          </Link>
        </p>
      )}
      {asking && (
        <AskToChange items={asking} onClose={() => setAsking(null)} onStart={() => void begin("change", asking)} />
      )}
    </section>
  );
}

interface ActsProps {
  one: KnownRow;
  listId: string | null;
  busy: boolean;
  onChange: () => void;
}

function Acts({ one, listId, busy, onChange }: ActsProps) {
  const [leaving, setLeaving] = useState(false);
  const undo = useCommand("people.undoLeaveUnchanged");
  if (one.left && listId)
    return (
      <Act
        isDisabled={undo.running}
        onPress={() => void undo.run({ listId, entryId: one.entryId })}
        aria-label={t.changeAfterAllOf(one.name)}
      >
        {t.changeAfterAll}
      </Act>
    );
  return (
    <span style={{ display: "flex", flexWrap: "wrap", gap: "4px 16px" }}>
      {one.changedBy === "galtry" ? (
        <Act isDisabled={busy} onPress={onChange} aria-label={t.changeNowOf(one.name)}>
          {t.changeNow}
        </Act>
      ) : (
        <ActLink
          href={changedByHandAt(one.entryId, one.changedBy)}
          prefetch={false}
          aria-label={t.changeByHandOf(one.name)}
        >
          {t.changeByHand}
        </ActLink>
      )}
      {listId && (
        <Act isDisabled={busy} onPress={() => setLeaving(true)} aria-label={t.leaveUnchangedOf(one.name)}>
          {t.leaveUnchanged}
        </Act>
      )}
      {leaving && listId && <LeaveUnchanged {...{ one, listId }} onClose={() => setLeaving(false)} />}
    </span>
  );
}

function LeaveUnchanged({ one, listId, onClose }: { one: KnownRow; listId: string; onClose: () => void }) {
  const leave = useCommand("people.leaveUnchanged");
  const done = useDone();
  const [why, setWhy] = useState("");
  const ofItem = { listId, entryId: one.entryId };
  const send = async () => {
    if (!(await leave.run({ ...ofItem, why })).ok) return;
    onClose();
    done(t.isLeft(one.name), [{ command: "people.undoLeaveUnchanged", input: ofItem }]);
  };
  return (
    <Dialog open title={t.leaveTitle(one.name)} onClose={onClose}>
      <Form
        verb={t.leaveUnchanged}
        onSend={send}
        onCancel={onClose}
        running={leave.running}
        unready={why.trim() === ""}
        wrong={leave.wrong()}
      >
        <p>{t.leaveSays}</p>
        <TextField
          label={t.reason}
          hint={t.othersReadIt}
          value={why}
          onText={setWhy}
          maxLength={300}
          wrong={leave.wrong("why")}
          autoFocus
        />
      </Form>
    </Dialog>
  );
}

/** What was asked of whom, by when, and how far everybody is. */
function HowFar({ person, known, asks, elsewhere, zone, now }: Omit<SeenStillProps, "runs">) {
  const [open, setOpen] = useState<"ask" | "date" | null>(null);
  const { list } = known;
  const any = known.seen.length > 0 || known.elsewhere.length > 0;
  return (
    <>
      {list && list.endedAt === null && (
        <div style={{ marginTop: 8 }}>
          <p>
            <b>{t.changeBy(sayDay(list.dueAt, now, zone), list.dueAt <= now)}</b>{" "}
            {t.howFar(list.of - list.open - list.left, list.of, list.left)}
          </p>
          <p className="small soft" title={exactTime(list.openedAt, zone)}>
            {t.askedFor[list.sort](person.name, list.openedBy, sayDay(list.openedAt, now, zone), list.why)}
          </p>
          {list.progress.length > 1 && (
            <p className="small" style={{ marginTop: 6 }}>
              {t.progress(list.progress.map((one) => t.progressOf(one.name, one.of - one.open, one.of)))}
            </p>
          )}
          {asks && (
            <Row style={{ margin: "6px 0 12px" }}>
              <Act onPress={() => setOpen("date")}>{t.changeDate}</Act>
            </Row>
          )}
        </div>
      )}
      {list && list.endedAt !== null && (
        <p style={{ marginTop: 8 }}>{t.isDone(sayDay(list.endedAt, now, zone), list.of, list.left)}</p>
      )}
      {asks && !elsewhere && any && (list === null || list.endedAt !== null) && (
        <Row style={{ marginTop: 10 }}>
          <Button onPress={() => setOpen("ask")}>{t.askTheStewards}</Button>
        </Row>
      )}
      {open === "ask" && <AskForChanges {...{ person, zone }} onClose={() => setOpen(null)} />}
      {open === "date" && list && <ChangeDate {...{ zone }} listId={list.id} onClose={() => setOpen(null)} />}
    </>
  );
}
