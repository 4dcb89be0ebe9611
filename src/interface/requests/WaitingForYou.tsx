"use client";

import Link from "next/link";
import { useState } from "react";
import styled from "styled-components";
import { levelWord } from "@/core/access/level";
import { sayTime } from "@/core/time";
import type { Ending } from "@/server/access/endingSoon";
import type { ApprovalToGive } from "@/server/access/requests/approvals";
import type { requestList } from "@/server/access/requests/requests";
import type { ShownSlip } from "@/server/access/slip/secondOpinions";
import type { waitingSlips } from "@/server/access/slip/slip";
import { Beyond, SaidLines } from "../access/SaidLine";
import { sayMinutes } from "../entry/Before";
import { useCommand } from "../shared/ask";
import { Act, Button, Chip, Row, TextField } from "../shared/controls";
import { useDone } from "../shared/Done";
import { Form } from "../shared/Form";
import { Refusal, Request, SayNo } from "./Request";
import { waitingForYou as t } from "./strings";

export type Asks = Awaited<ReturnType<(typeof requestList)["execute"]>>;
export type Slips = Awaited<ReturnType<(typeof waitingSlips)["execute"]>>;
type Own = Asks["own"][number];

const Section = styled.section`
  padding: 12px 0 16px;
  border-top: 1px solid var(--edge);
  h2 { font-size: 15px; line-height: 20px; margin-bottom: 6px; }
  li { padding: 8px 0; border-top: 1px solid var(--rule); font-size: 14px; line-height: 20px; overflow-wrap: anywhere; }
  li:first-child { border-top: 0; padding-top: 0; }
`;

/** All that waits for the reader, or that they wait for. */
export interface Waiting {
  asks: Asks;
  slips: Slips;
  approvals: ApprovalToGive[];
  rounds: { id: string; name: string; askedAt: number }[];
  shown: ShownSlip[];
  ending: Ending[];
}

interface SideProps {
  waiting: Waiting;
  zone: string;
  now: number;
  me: string;
}

/** A slip of another steward, as far as it touches what one is steward of oneself. */
function WaitingSlip({ slip, zone, now, me }: { slip: Slips[number] } & Pick<SideProps, "zone" | "now" | "me">) {
  const answer = useCommand("access.answerSlip");
  const [saying, setSaying] = useState(false);
  const say = (yes: boolean, word = "") => answer.run({ slipId: slip.id, yes, ground: slip.said.ground, word });
  return (
    <>
      <p>
        <b>{slip.by}</b>, {sayTime(slip.at, now, zone)}
        {slip.why && `: “${slip.why}”`}
      </p>
      <Lines>
        <SaidLines lines={slip.said.lines} {...{ zone, now, me }} />
      </Lines>
      <Refusal message={saying ? undefined : answer.refused?.message} />
      <Row style={{ marginTop: 6 }}>
        <Button onPress={() => say(true)} isDisabled={answer.running} aria-label={t.approveTheChangeSlipOf(slip.by)}>
          {t.approve}
        </Button>
        <Act onPress={() => setSaying(true)}>{t.decline}</Act>
      </Row>
      {saying && (
        <SayNo
          title={t.declineTheChangeSlipOf(slip.by)}
          reader={slip.by}
          running={answer.running}
          wrong={answer.wrong}
          send={async (word) => (await say(false, word)).ok}
          onClose={() => setSaying(false)}
        />
      )}
    </>
  );
}

const Lines = styled.ul`
  && li { display: grid; grid-template-columns: 16px minmax(0, 1fr) auto; gap: 8px; padding: 5px 0; border-top: 1px solid var(--rule); }
  svg { margin-top: 2px; }
  .warning { color: var(--amber); font-weight: 650; }
`;

/** Requests that wait for one's answer, and one's own. */
export function WaitingForYou({ waiting, zone, now, me }: SideProps) {
  const { asks, slips, shown, approvals, rounds, ending } = waiting;
  return (
    <>
      {shown.length > 0 && (
        <Section aria-label={t.secondOpinions}>
          <h2>{t.secondOpinions}</h2>
          {shown.map((slip) => (
            <Shown key={slip.id} {...{ slip, zone, now, me }} />
          ))}
        </Section>
      )}
      {rounds.length > 0 && (
        <Section aria-label={t.roundsToReview}>
          <h2>{t.roundsToReview}</h2>
          <ul>
            {rounds.map((round) => (
              <li key={round.id}>
                <Link href={`/access/${round.id}/rounds`} prefetch={false}>
                  {round.name}
                </Link>{" "}
                <span className="soft small">{sayTime(round.askedAt, now, zone)}</span>
              </li>
            ))}
          </ul>
        </Section>
      )}
      {approvals.length > 0 && (
        <Section aria-label={t.waitingForYourApproval}>
          <h2>{t.waitingForYourApproval}</h2>
          <ul>
            {approvals.map((one) => (
              <ToSay key={one.id} one={one} zone={zone} now={now} />
            ))}
          </ul>
        </Section>
      )}
      {slips.length > 0 && (
        <Section aria-label={t.changeSlipsToApprove}>
          <h2>{t.changeSlipsToApprove}</h2>
          {slips.map((slip) => (
            <WaitingSlip key={slip.id} {...{ slip, zone, now, me }} />
          ))}
        </Section>
      )}
      {asks.toAnswer.length > 0 && (
        <Section aria-label={t.accessRequests}>
          <h2>{t.accessRequests}</h2>
          <ul>
            {asks.toAnswer.map((ask) => (
              <Request key={ask.id} ask={ask} zone={zone} now={now} />
            ))}
          </ul>
        </Section>
      )}
      {ending.length > 0 && (
        <Section aria-label={t.accessThatEndsWithinAWeek}>
          <h2>{t.accessYouGaveThatEndsSoon}</h2>
          <ul>
            {ending.map((one) => (
              <Ends key={one.grantId} one={one} zone={zone} now={now} />
            ))}
          </ul>
        </Section>
      )}
      {asks.own.length > 0 && (
        <Section aria-label={t.yourRequests}>
          <h2>{t.yourRequests}</h2>
          <ul>
            {asks.own.slice(0, 5).map((ask) => (
              <OwnRequest key={ask.id} ask={ask} zone={zone} now={now} />
            ))}
          </ul>
        </Section>
      )}
    </>
  );
}

/** What somebody drafted and shows before it is applied, as far as one is steward oneself. */
function Shown({ slip, zone, now, me }: { slip: ShownSlip } & Pick<SideProps, "zone" | "now" | "me">) {
  const say = useCommand("access.giveSecondOpinion");
  const [word, setWord] = useState("");
  return (
    <>
      <p>{t.hasDrafted(<b>{slip.by}</b>)}</p>
      <Lines>
        <SaidLines lines={slip.said.lines} {...{ zone, now, me }} />
        <Beyond said={slip.said} />
      </Lines>
      <Form
        verb={t.send}
        running={say.running}
        unready={word.trim() === ""}
        wrong={say.wrong()}
        onSend={() => say.run({ slipId: slip.id, word })}
      >
        <TextField
          label={t.commentFor(slip.by)}
          value={word}
          maxLength={500}
          onText={setWord}
          wrong={say.wrong("word")}
        />
      </Form>
    </>
  );
}

const TWO_WEEKS = 14 * 86_400_000;

/** Lets it end, or extends it in one act. */
function Ends({ one, zone, now }: { one: Ending; zone: string; now: number }) {
  const extend = useCommand("access.changeAccess");
  const { grantId, level, from, until, why } = one;
  return (
    <li>
      {t.on(<b>{one.who}</b>, levelWord(level))}
      {one.entry ? (
        <Link href={`/entry/${one.nodeId}`} prefetch={false}>
          {one.what}
        </Link>
      ) : (
        one.what
      )}{" "}
      <Chip>{t.until(sayTime(until, now, zone))}</Chip>
      <br />
      <Act
        isDisabled={extend.running}
        onPress={() => extend.run({ grantId, level, from, until: until + TWO_WEEKS, why })}
        aria-label={t.extendByTwoWeeksOn(one.who, one.what)}
      >
        {t.extendByTwoWeeks}
      </Act>
      {extend.refused && (
        <span role="alert" style={{ color: "var(--crimson)", display: "block" }}>
          {extend.refused.message}
        </span>
      )}
    </li>
  );
}

/** Why an answer was refused, whatever field it is about: there is no form here that would show it. */

/** Somebody wants to use something now that asks a steward first. */
function ToSay({ one, zone, now }: { one: ApprovalToGive; zone: string; now: number }) {
  const answer = useCommand("access.answerApproval");
  const done = useDone();
  const [saying, setSaying] = useState(false);
  const yes = async () => {
    const result = await answer.run({ yesId: one.id, yes: true });
    if (result.ok) done(t.youApprovedSUseOf(one.person, one.entry));
  };
  return (
    <li>
      {t.requestsToUseFor(
        <b>{one.person}</b>,
        <Link href={`/entry/${one.entryId}`} prefetch={false}>
          {one.entry}
        </Link>,
        sayMinutes(one.minutes),
      )}
      <br />“{one.why}”{" "}
      <span className="soft small">
        {t.from(sayTime(one.askedAt, now, zone), [one.browser, one.address].filter(Boolean).join(", "))}
      </span>
      {one.needed > 1 && (
        <p className="small soft">
          {t.ofStewardsHaveApproved(one.said, one.needed, one.saidByMe && t.youAreOneOfThem)}
        </p>
      )}
      <Refusal message={saying ? undefined : answer.refused?.message} />
      <Row style={{ marginTop: 4, gap: "4px 14px" }}>
        {!one.saidByMe && (
          <Button onPress={yes} isDisabled={answer.running} aria-label={t.approveSUseOf(one.person, one.entry)}>
            {t.approve}
          </Button>
        )}
        <Act onPress={() => setSaying(true)}>{t.decline}</Act>
      </Row>
      {saying && (
        <SayNo
          title={t.declineSRequest(one.person)}
          reader={one.person}
          running={answer.running}
          wrong={answer.wrong}
          send={async (word) => (await answer.run({ yesId: one.id, yes: false, word })).ok}
          onClose={() => setSaying(false)}
        />
      )}
    </li>
  );
}

function OwnRequest({ ask, zone, now }: { ask: Own; zone: string; now: number }) {
  const withdraw = useCommand("access.withdrawRequest");
  const until = ask.until === null ? "" : t.until2(sayTime(ask.until, now, zone));
  const less = ask.given
    ? t.except(
        levelWord(ask.given.level),
        ask.given.until === null ? "" : t.until2(sayTime(ask.given.until, now, zone)),
      )
    : "";
  return (
    <li>
      {t.on2(<b>{levelWord(ask.level)}</b>)}
      {ask.link ? (
        <Link href={ask.link} prefetch={false}>
          {ask.node}
        </Link>
      ) : (
        ask.node
      )}
      {until}
      <br />
      {ask.state === "open" && (
        <>
          <Chip>{t.notAnsweredYet}</Chip>{" "}
          <Act
            onPress={() => withdraw.run({ askId: ask.id })}
            isDisabled={withdraw.running}
            aria-label={t.withdrawTheRequestFor(ask.node)}
          >
            {t.withdraw}
          </Act>
        </>
      )}
      {ask.state === "yes" && (
        <>
          <Chip data-tone="good">{t.approved}</Chip> {ask.by && t.by(ask.by)}
          {less}
        </>
      )}
      {ask.state === "no" && (
        <>
          <Chip data-tone="plain">{t.declined}</Chip> {ask.by && t.by2(ask.by)}“{ask.word}”
        </>
      )}
    </li>
  );
}
