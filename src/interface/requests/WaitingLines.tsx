"use client";

import Link from "next/link";
import { useState } from "react";
import { levelWord } from "@/core/access/level";
import { sayTime } from "@/core/time";
import type { Ending } from "@/server/access/endingSoon";
import type { ApprovalToGive } from "@/server/access/requests/approvals";
import { sayMinutes } from "../entry/Before";
import { useCommand } from "../shared/ask";
import { Act, Button, Chip, Row } from "../shared/controls";
import { useDone } from "../shared/Done";
import { Refusal, SayNo } from "./Request";
import { waitingForYou as t } from "./strings";

const TWO_WEEKS = 14 * 86_400_000;

/** Lets it end, or extends it in one act. */
export function Ends({ one, zone, now }: { one: Ending; zone: string; now: number }) {
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
export function ToSay({ one, zone, now }: { one: ApprovalToGive; zone: string; now: number }) {
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
