"use client";

import { useCallback, useEffect, useState } from "react";
import styled from "styled-components";
import { CODE, SIGN_IN_PAGE } from "@/core/kinds/kind";
import { exactTime, sayTime } from "@/core/time";
import type { createHandover, handoverList } from "@/server/access/handover/handover";
import { runCommand, runQuery } from "../shared/ask";
import { Act, Button, CheckField, Chip, Notice, Row, Stack, TextField } from "../shared/controls";
import { MomentField } from "../shared/DateFields";
import { Dialog } from "../shared/Dialog";
import { Form } from "../shared/Form";
import { fromLocal, soonEnds, thisEvening, toLocal } from "../shared/localTime";
import { useCopy } from "../shared/useCopy";
import { handOver as t } from "./strings";
import type { EntryView } from "./types";

type Answer = Awaited<ReturnType<(typeof handoverList)["execute"]>>;
type Made = Awaited<ReturnType<(typeof createHandover)["execute"]>>;

const List = styled.ul`
  margin-top: 8px;
  li { padding: 9px 0; border-top: 1px solid var(--rule); font-size: 14px; line-height: 20px; overflow-wrap: anywhere; }
`;

const Address = styled.p`
  padding: 10px 12px;
  border: 1px solid var(--edge);
  background: var(--paper);
  font: 13.5px/20px var(--mono);
  overflow-wrap: anywhere;
`;

const ENDS: Record<string, string> = {
  withdrawn: "withdrawn",
  closed: t.closedAfterFiveWrong,
  expired: t.expired,
  opened: t.openedAndErased,
  gone: t.endedTheEntryNoLongerExists,
};

/** A copy of chosen values for somebody outside, by a link; and the links that were made. */
export function HandOver({ entry, now, onClose }: { entry: EntryView; now: number; onClose: () => void }) {
  const [answer, setAnswer] = useState<Answer | null>(null);
  const [made, setMade] = useState<Made | null>(null);
  const { copy, copied } = useCopy();
  const read = useCallback(async () => {
    const read = await runQuery("access.handoverList", { entryId: entry.id });
    if (read.ok) setAnswer(read.result);
  }, [entry.id]);
  useEffect(() => void read(), [read]);
  const links = answer?.links ?? [];
  return (
    <Dialog title={t.createAHandoverLinkFor(entry.name)} open onClose={onClose} wide>
      {made ? (
        <Stack>
          <p>
            {t.copyTheLinkNowGaltryDoesNot(
              links[0]?.mailTo ? "" : t.anyoneWhoHasItCanOpenIt,
              links[0]?.word ? t.andTellThemThePassphrase : "",
              links[0]?.mailTo && t.itOpensWithACodeSentTo(links[0].mailTo),
            )}
          </p>
          <Address data-testid="handover-address">{made.address}</Address>
          <Row>
            <Button look="go" onPress={() => copy(made.address, true, "link")}>
              {copied === "link" ? t.copied : t.copyLink}
            </Button>
            <Button onPress={() => setMade(null)}>{t.close}</Button>
          </Row>
        </Stack>
      ) : (
        <MakeLink
          entry={entry}
          now={now}
          mails={answer?.mails ?? false}
          onClose={onClose}
          onMade={(fresh) => {
            setMade(fresh);
            void read();
          }}
        />
      )}
      {links.length > 0 && (
        <section style={{ marginTop: 20 }}>
          <h3>{t.linksOfThisEntry}</h3>
          <List>
            {links.map((link) => (
              <li key={link.id}>
                {t.by(
                  <b>{link.labels.join(", ")}</b>,
                  link.by,
                  <span title={exactTime(link.madeAt, entry.zone)}>{sayTime(link.madeAt, now, entry.zone)}</span>,
                  link.word && t.withAPassphrase,
                  link.mailTo && t.forWord(link.mailTo),
                )}
                <br />
                {link.end ? (
                  <Chip data-tone="plain">{ENDS[link.end]}</Chip>
                ) : (
                  <>
                    <Chip>{t.until(sayTime(link.expiresAt, now, entry.zone))}</Chip>{" "}
                    <span className="soft">
                      {link.openings === 1 ? t.canBeOpenedOnce : t.canBeOpenedTimes(link.openings)}
                    </span>
                  </>
                )}{" "}
                {[
                  link.openedAt.length > 0 &&
                    t.opened(link.openedAt.map((at) => sayTime(at, now, entry.zone)).join("; ")),
                  link.wrongWords > 0 && t.wrongPassphrasesOrCodes(link.wrongWords),
                ]
                  .filter(Boolean)
                  .join(". ")}{" "}
                {!link.end && (
                  <Act
                    aria-label={t.withdrawTheLinkWith(link.labels.join(", "))}
                    onPress={async () => {
                      await runCommand("access.withdrawHandover", { handoverId: link.id });
                      await read();
                    }}
                  >
                    {t.withdraw}
                  </Act>
                )}
              </li>
            ))}
          </List>
        </section>
      )}
    </Dialog>
  );
}

interface MakeProps {
  entry: EntryView;
  now: number;
  /** Mail goes out from here. */
  mails: boolean;
  onClose: () => void;
  onMade: (made: Made) => void;
}

function MakeLink({ entry, now, mails, onClose, onMade }: MakeProps) {
  const choices = [
    ...(entry.signInPage ? [{ id: SIGN_IN_PAGE, label: t.signInPage, secret: false }] : []),
    ...entry.fields
      .filter((field) => field.filled && field.id !== CODE)
      .map((field) => ({ id: field.id, label: field.label, secret: field.class === "secret" })),
  ];
  const [chosen, setChosen] = useState<readonly string[]>([]);
  const [until, setUntil] = useState(toLocal(thisEvening(entry.zone, now), entry.zone));
  const [openings, setOpenings] = useState("1");
  const [word, setWord] = useState("");
  const [mailTo, setMailTo] = useState("");
  const [running, setRunning] = useState(false);
  const [refused, setRefused] = useState<{ message: string; field?: string } | null>(null);
  const wrong = (field?: string) =>
    refused && (field ? refused.field === field : !refused.field) ? refused.message : null;
  const send = async () => {
    const end = fromLocal(until, entry.zone);
    if (end === null) return setRefused({ field: "until", message: t.chooseAnEndDateALinkAlways });
    setRunning(true);
    const input = { entryId: entry.id, fields: chosen, until: end, openings: Number(openings) || 1, word, mailTo };
    const answer = await runCommand("access.createHandover", input);
    setRunning(false);
    if (answer.ok) onMade(answer.result);
    else setRefused(answer.refused);
  };
  return (
    <Form verb={t.createLink} onSend={send} running={running} onCancel={onClose} wrong={wrong()}>
      <Notice>{t.thePersonWhoOpensItSeesThe}</Notice>
      <fieldset>
        <legend className="small soft" style={{ marginBottom: 6 }}>
          {t.whatToHandOver}
        </legend>
        <Stack style={{ gap: 6 }}>
          {choices.map((one) => (
            <CheckField
              key={one.id}
              type="checkbox"
              label={one.label}
              hint={one.secret ? "secret" : undefined}
              checked={chosen.includes(one.id)}
              onChange={(event) =>
                setChosen(event.target.checked ? [...chosen, one.id] : chosen.filter((id) => id !== one.id))
              }
            />
          ))}
        </Stack>
        {wrong("fields") && (
          <p role="alert" style={{ color: "var(--crimson)", fontWeight: 600 }}>
            {wrong("fields")}
          </p>
        )}
      </fieldset>
      <MomentField label={t.until2} value={until} onText={setUntil} wrong={wrong("until")} />
      <Row>
        <Act onPress={() => setUntil(toLocal(thisEvening(entry.zone, now), entry.zone))}>{t.thisEvening}</Act>
        {soonEnds(entry.zone).map((preset) => (
          <Act key={preset.says} onPress={() => setUntil(toLocal(preset.at, entry.zone))}>
            {preset.says}
          </Act>
        ))}
      </Row>
      <TextField
        type="number"
        min={1}
        max={20}
        label={t.howOftenItCanBeOpened}
        value={openings}
        onText={setOpenings}
        wrong={wrong("openings")}
      />
      <TextField
        label={t.passphraseOptional}
        value={word}
        maxLength={100}
        onText={setWord}
        wrong={wrong("word")}
        hint={t.requiredToOpenTheLinkTellThem}
        autoComplete="off"
      />
      {mails && (
        <TextField
          type="email"
          label={t.onlyForThisEmailAddress}
          value={mailTo}
          maxLength={254}
          onText={setMailTo}
          wrong={wrong("mailTo")}
          hint={t.itOpensWithACodeSentThere}
          autoComplete="off"
        />
      )}
    </Form>
  );
}
