"use client";

import Link from "next/link";
import { useState } from "react";
import { LEVELS, type Level, levelWord, rank } from "@/core/access/level";
import { sayTime } from "@/core/time";
import type { requestList } from "@/server/access/requests/requests";
import { useCommand } from "../shared/ask";
import { Act, Button, Row, Select, TextArea } from "../shared/controls";
import { MomentField } from "../shared/DateFields";
import { Dialog } from "../shared/Dialog";
import { useDone } from "../shared/Done";
import { Form } from "../shared/Form";
import { fromLocal, toLocal } from "../shared/localTime";
import { waitingForYou as t } from "./strings";

type ToAnswer = Awaited<ReturnType<(typeof requestList)["execute"]>>["toAnswer"][number];

export function Refusal({ message }: { message: string | undefined }) {
  return message ? (
    <p role="alert" style={{ color: "var(--crimson)", fontWeight: 600 }}>
      {message}
    </p>
  ) : null;
}

/** A request with its answers: yes, lower or shorter, no, or another steward. */
export function Request({ ask, zone, now }: { ask: ToAnswer; zone: string; now: number }) {
  const answer = useCommand("access.answerRequest");
  const done = useDone();
  const [sheet, setSheet] = useState<"less" | "no" | "on" | null>(null);
  const until = ask.until === null ? "" : t.until2(sayTime(ask.until, now, zone));
  const yes = async () => {
    const result = await answer.run({ askId: ask.id, yes: true });
    if (result.ok) done(t.hasOn(ask.person, levelWord(ask.level), ask.node, until));
  };
  return (
    <li>
      {t.requestsOn(
        <b>{ask.person}</b>,
        <b>{levelWord(ask.level)}</b>,
        <Link href={ask.link} prefetch={false}>
          {ask.node}
        </Link>,
        until,
        <span className="soft">{t.has(levelWord(ask.has))}</span>,
      )}
      {ask.site !== "" && (
        <span className="small soft" style={{ display: "block" }}>
          {t.theyAskedForAnyLoginForAnd(ask.site)}
        </span>
      )}
      <br />“{ask.why}” <span className="soft small">{sayTime(ask.askedAt, now, zone)}</span>
      <Refusal message={sheet !== null ? undefined : answer.refused?.message} />
      <Row style={{ marginTop: 4, gap: "4px 14px", flexWrap: "wrap" }}>
        <Button onPress={yes} isDisabled={answer.running} aria-label={t.approveSRequest(ask.person)}>
          {t.approve}
        </Button>
        <Act onPress={() => setSheet("less")}>{t.giveLess}</Act>
        <Act onPress={() => setSheet("no")}>{t.decline}</Act>
        {ask.others.length > 0 && <Act onPress={() => setSheet("on")}>{t.passOn}</Act>}
      </Row>
      {sheet === "less" && <LowerDialog ask={ask} zone={zone} now={now} onClose={() => setSheet(null)} />}
      {sheet === "no" && (
        <SayNo
          title={t.declineSRequest(ask.person)}
          reader={ask.person}
          running={answer.running}
          wrong={answer.wrong}
          send={async (word) => (await answer.run({ askId: ask.id, yes: false, word })).ok}
          onClose={() => setSheet(null)}
        />
      )}
      {sheet === "on" && <PassOn ask={ask} onClose={() => setSheet(null)} />}
    </li>
  );
}

interface SheetProps {
  ask: ToAnswer;
  onClose: () => void;
}

/** Yes, but lower or shorter. */
function LowerDialog({ ask, zone, onClose }: SheetProps & { zone: string; now: number }) {
  const answer = useCommand("access.answerRequest");
  const [level, setLevel] = useState<Level>(ask.level);
  const [until, setUntil] = useState(toLocal(ask.until, zone));
  return (
    <Dialog title={t.giveLessThanRequested(ask.person)} open onClose={onClose}>
      <Form
        verb={t.giveAccess}
        running={answer.running}
        onCancel={onClose}
        wrong={answer.wrong()}
        onSend={async () => {
          const input = { askId: ask.id, yes: true as const, level, until: fromLocal(until, zone) };
          if ((await answer.run(input)).ok) onClose();
        }}
      >
        <div>
          <label htmlFor="less-level">{t.levelOn(ask.node)}</label>
          <Select id="less-level" value={level} onChange={(event) => setLevel(event.target.value as Level)}>
            {LEVELS.filter((one) => rank(one) <= rank(ask.level) && rank(one) > 0).map((one) => (
              <option key={one} value={one}>
                {levelWord(one)}
              </option>
            ))}
          </Select>
          {answer.wrong("level") && <p role="alert">{answer.wrong("level")}</p>}
        </div>
        <MomentField
          label={t.until3}
          value={until}
          onText={setUntil}
          wrong={answer.wrong("until")}
          hint={ask.until === null ? t.leaveEmptyForNoEndDate : t.noLaterThanRequested}
        />
      </Form>
    </Dialog>
  );
}

interface SayNoProps {
  title: string;
  /** Who reads the word. */
  reader: string;
  running: boolean;
  wrong: (field?: string) => string | null;
  /** Whether it was taken. */
  send: (word: string) => Promise<boolean>;
  onClose: () => void;
}

/** A no, always with a word. */
export function SayNo({ title, reader, running, wrong, send, onClose }: SayNoProps) {
  const [word, setWord] = useState("");
  return (
    <Dialog title={title} open onClose={onClose}>
      <Form
        verb={t.decline2}
        running={running}
        onCancel={onClose}
        wrong={wrong()}
        onSend={async () => {
          if (await send(word)) onClose();
        }}
      >
        <TextArea
          label={t.reason}
          value={word}
          maxLength={500}
          onText={setWord}
          wrong={wrong("word")}
          hint={t.willReadIt(reader)}
        />
      </Form>
    </Dialog>
  );
}

function PassOn({ ask, onClose }: SheetProps) {
  const pass = useCommand("access.passRequestOn");
  const [to, setTo] = useState(ask.others[0]!.id);
  return (
    <Dialog title={t.passOnToAnotherSteward} open onClose={onClose}>
      <Form
        verb={t.passOn2}
        running={pass.running}
        onCancel={onClose}
        wrong={pass.wrong()}
        onSend={async () => {
          if ((await pass.run({ askId: ask.id, personId: to })).ok) onClose();
        }}
      >
        <div>
          <label htmlFor="pass-to">{t.to}</label>
          <Select id="pass-to" value={to} onChange={(event) => setTo(event.target.value)}>
            {ask.others.map((one) => (
              <option key={one.id} value={one.id}>
                {one.name}
              </option>
            ))}
          </Select>
        </div>
      </Form>
    </Dialog>
  );
}
