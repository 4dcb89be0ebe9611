"use client";

import Link from "next/link";
import { useState } from "react";
import { sayTime } from "@/core/time";
import type { RunView } from "@/server/signin/runs";
import { Act, Button, Row } from "../shared/controls";
import { AskToChange, Runs } from "../upkeep/RunPanel";
import { type RunItem, useBeginRun } from "../upkeep/useRun";
import type { LeavingView } from "./leavingView";
import { leaving as t } from "./strings";

const itemOf = ({ entryId, name }: RunItem): RunItem => ({ entryId, name });

const LINE = {
  ...{ display: "flex", justifyContent: "space-between", gap: 16, alignItems: "baseline" },
  ...{ padding: "8px 0", borderBottom: "1px solid var(--rule)" },
} as const;

interface SeenStillProps {
  view: LeavingView;
  runs: readonly RunView[];
  zone: string;
  now: number;
}

/** Passwords that they have seen and that still work: named to their stewards, counted for everybody else. */
export function SeenStill({ view, runs, zone, now }: SeenStillProps) {
  const { begin, beginning, refused } = useBeginRun(view.id);
  const [asking, setAsking] = useState<RunItem[] | null>(null);
  const underWay = new Set(runs.flatMap(({ over, lines }) => (over ? [] : lines.map(({ entryId }) => entryId))));
  const changeable = view.seen.filter((one) => one.changeable && !underWay.has(one.entryId));
  return (
    <section>
      <h2>{t.seen}</h2>
      <Runs {...{ runs, refused }} />
      {view.seen.length === 0 && view.elsewhere.length === 0 ? (
        <p style={{ marginTop: 8 }}>{t.nothingSeen(view.name)}</p>
      ) : (
        <>
          <p className="soft small" style={{ marginTop: 8 }}>
            {t.seenSays}
          </p>
          {changeable.length > 1 && (
            <Row style={{ marginTop: 10 }}>
              <Button look="go" isDisabled={beginning} onPress={() => setAsking(changeable.map(itemOf))}>
                {t.changeAll(changeable.length)}
              </Button>
            </Row>
          )}
          <ul>
            {view.seen.map((one) => (
              <li key={one.entryId} style={LINE}>
                <span>
                  <Link href={`/entry/${one.entryId}`} prefetch={false}>
                    {one.name}
                  </Link>{" "}
                  <span className="soft small">
                    {t.seenIn(one.vault, sayTime(one.at, now, zone), one.stewards.join(", "))}
                    {one.hasCode && ` ${t.withACode}`}
                  </span>
                </span>
                {one.changeable ? (
                  <Act
                    isDisabled={beginning || underWay.has(one.entryId)}
                    onPress={() => setAsking([itemOf(one)])}
                    aria-label={t.changeNowOf(one.name)}
                  >
                    {t.changeNow}
                  </Act>
                ) : (
                  <Link
                    style={{ whiteSpace: "nowrap" }}
                    href={`/entry/${one.entryId}?edit`}
                    prefetch={false}
                    aria-label={t.changeByHandOf(one.name)}
                  >
                    {t.changeByHand}
                  </Link>
                )}
              </li>
            ))}
            {view.elsewhere.map((one) => (
              <li key={one.vault} style={{ padding: "8px 0", borderBottom: "1px solid var(--rule)" }}>
                {t.seenElsewhere(one.count, one.vault, one.stewards.join(", "))}
              </li>
            ))}
          </ul>
        </>
      )}
      <p style={{ marginTop: 12 }}>
        <Link href={`/reports/known?person=${view.id}`} prefetch={false}>
          {t.recordToPrint}
        </Link>
      </p>
      {asking && (
        <AskToChange items={asking} onClose={() => setAsking(null)} onStart={() => void begin("change", asking)} />
      )}
    </section>
  );
}
