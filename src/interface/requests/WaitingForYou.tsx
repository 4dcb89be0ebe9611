"use client";

import Link from "next/link";
import styled from "styled-components";
import { sayTime } from "@/core/time";
import { OwnRequest } from "./OwnRequest";
import { Request } from "./Request";
import { waitingForYou as t } from "./strings";
import type { SideProps } from "./types";
import { Ends, ToSay } from "./WaitingLines";
import { Shown, WaitingSlip } from "./WaitingSlips";

const Section = styled.section`
  padding: 12px 0 16px;
  border-top: 1px solid var(--edge);
  h2 { font-size: 15px; line-height: 20px; margin-bottom: 6px; }
  li { padding: 8px 0; border-top: 1px solid var(--rule); font-size: 14px; line-height: 20px; overflow-wrap: anywhere; }
  li:first-child { border-top: 0; padding-top: 0; }
`;

/** Requests that wait for one's answer, and one's own. */
export function WaitingForYou({ waiting, zone, now, me }: SideProps) {
  const { asks, slips, shown, approvals, rounds, ending, upkeep } = waiting;
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
      {(upkeep.today > 0 || upkeep.later > 0) && (
        <Section aria-label={t.upkeep}>
          <h2>
            <Link href="/upkeep" prefetch={false}>
              {t.upkeep}
            </Link>
          </h2>
          <p className="small">
            {upkeep.today > 0 ? t.needAnAnswerToday(upkeep.names, upkeep.today) : t.canWait(upkeep.later, upkeep.more)}
          </p>
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
