"use client";

import { useRouter } from "next/navigation";
import { Page } from "../frame/Frame";
import { SlipFoot } from "./SlipFoot";
import { onlySlip as t } from "./strings";
import { type OwnSlip, useSlip } from "./useSlip";

interface Props {
  slip: OwnSlip;
  me: string;
  zone: string;
  now: number;
}

/** Access, for those who are steward of nothing: the slip, with who joins and leaves groups. */
export function OnlySlip({ slip: start, me, zone, now }: Props) {
  const slip = useSlip(start);
  const router = useRouter();
  return (
    <>
      <Page where={t.whoCanDoWhatForTheStewards}>
        <h1>{t.access}</h1>
        <p className="soft">{t.youAreNotAStewardOfAnything}</p>
      </Page>
      {(slip.changes.length > 0 || slip.slip.waiting.length > 0 || slip.slip.applied.length > 0) && (
        <SlipFoot state={slip} zone={zone} now={now} me={me} why={null} onApplied={() => router.refresh()} />
      )}
    </>
  );
}
