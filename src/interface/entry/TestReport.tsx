"use client";

import { useRouter } from "next/navigation";
import { useState } from "react";
import styled from "styled-components";
import { listOf } from "@/core/counted";
import { FAILURES, type Failure, type Mend } from "@/core/signin/outcome";
import type { TestedPage } from "@/core/signin/testReport";
import { sayTime } from "@/core/time";
import type { Tested } from "@/server/signin/testing";
import { post } from "../shared/ask";
import { Button, ButtonLink, Notice } from "../shared/controls";
import type { StepsView } from "./StepsPage";
import { stepsPage as t } from "./strings";

export interface Testing {
  running: boolean;
  refused: string | null;
  run: () => Promise<void>;
}

/** One test from this page at a time; its report is read anew with the page. */
export function useTest(entryId: string): Testing {
  const router = useRouter();
  const [running, setRunning] = useState(false);
  const [refused, setRefused] = useState<string | null>(null);
  const run = async () => {
    if (running) return;
    setRunning(true);
    setRefused(null);
    const answer = await post<Tested>(`/api/test/${entryId}`, {});
    if (!answer.ok) setRefused(answer.refused.message);
    router.refresh();
    setRunning(false);
  };
  return { running, refused, run };
}

const Mends = styled.ul`
  margin-top: 8px;
  li { display: flex; flex-wrap: wrap; align-items: center; justify-content: space-between; gap: 6px 20px; padding: 6px 0; border-top: 1px solid var(--rule); }
`;

/** What happened last, and what those who look after the entry can do about it. */
export function HowItStands({
  view,
  now,
  testing,
  onLearn,
  onChange,
  onTryAgain,
}: {
  view: StepsView;
  now: number;
  testing: Testing;
  onLearn: () => void;
  onChange: () => void;
  onTryAgain: () => void;
}) {
  if (testing.running) return <Notice role="status">{view.codesReach === "" ? t.testing : t.testingWithCode}</Notice>;
  if (testing.refused)
    return (
      <Notice role="alert" data-tone="bad">
        {testing.refused}
      </Notice>
    );
  const { test, last } = view;
  // A colleague's sign-in after the test says more than the test.
  const later = last && last.outcome !== "signed-in" && last.at > (test?.at ?? 0) ? last : null;
  if (!test && !later) return <p className="soft">{t.notTestedYet}</p>;
  const when = (at: number) => sayTime(at, now, view.zone);
  const outcome = later?.outcome ?? test!.outcome;
  const detail = later ? later.detail : test!.detail;
  // A sign-in that worked after a test that did not says that it was mended, or passed.
  if (last?.outcome === "signed-in" && last.at > (test?.at ?? 0) && outcome !== "signed-in")
    return (
      <Notice role="status" data-tone="good">
        <b>{t.workedSince(when(last.at))}</b>
      </Notice>
    );
  if (outcome === "signed-in")
    return (
      <Notice role="status" data-tone="good">
        <b>{t.works(when(test!.at), t.by(test!.by))}</b>
        {test!.older && <p className="small">{t.older}</p>}
      </Notice>
    );
  const failure = FAILURES[outcome as Failure] as (typeof FAILURES)[Failure] | undefined;
  const mends = (failure?.mends ?? []).filter((mend) => isOpen(mend, view));
  const acts: Partial<Record<Mend, React.ReactNode>> = {
    "edit-entry": <ButtonLink href={`/entry/${view.id}?edit`}>{t.edit}</ButtonLink>,
    "add-code": <ButtonLink href={`/entry/${view.id}?edit`}>{t.edit}</ButtonLink>,
    "try-again": <Button onPress={onTryAgain}>{t.tryAgain}</Button>,
    "code-receiver": <Button onPress={onChange}>{t.change}</Button>,
    learn: <Button onPress={onLearn}>{t.learnWithLanyard}</Button>,
    "change-steps": <Button onPress={onChange}>{t.changeSteps}</Button>,
    "guarded-fill": <Button onPress={onChange}>{t.change}</Button>,
    "plain-http": <Button onPress={onChange}>{t.change}</Button>,
    "open-page": (
      <ButtonLink href={view.signInPage} target="_blank" rel="noreferrer">
        {t.openThePage}
      </ButtonLink>
    ),
    test: <Button onPress={testing.run}>{t.testAgain}</Button>,
  };
  const steward = view.level === "steward";
  return (
    <Notice role="status" data-tone="bad">
      <b>
        {later
          ? t.lastFailed(failure?.title ?? "", when(later.at))
          : t.failed(failure?.title ?? "", when(test!.at), t.by(test!.by))}
      </b>
      <p>{failure?.says}</p>
      {detail && <p className="small soft">{t.details(detail)}</p>}
      {!later && test!.older && <p className="small">{t.older}</p>}
      {mends.length > 0 && (
        <>
          <h2 style={{ marginTop: 12 }}>{t.whatYouCanDo}</h2>
          <Mends>
            {mends.map((mend) => {
              const stewards = mend === "guarded-fill" || mend === "plain-http" || mend === "code-receiver";
              return (
                <li key={mend}>
                  <span>
                    {t.mends[mend]}
                    {stewards && !steward && t.onlyAStewardCan}
                  </span>
                  {(steward || !stewards) && acts[mend]}
                </li>
              );
            })}
          </Mends>
        </>
      )}
    </Notice>
  );
}

/** What has been done already helps no more. */
function isOpen(mend: Mend, { browser, guardedFill, plainHttp, refused, hasCode, codesReach }: StepsView): boolean {
  if (mend === "browser") return !browser;
  if (mend === "guarded-fill") return !guardedFill;
  if (mend === "plain-http") return !plainHttp;
  if (mend === "try-again") return refused;
  if (mend === "add-code") return !hasCode;
  if (mend === "code-receiver") return codesReach === "" && !hasCode;
  return true;
}

const Pages = styled.table`
  width: 100%;
  border-top: 3px solid var(--ink);
  border-collapse: collapse;
  th, td { padding: 8px 16px 8px 0; border-bottom: 1px solid var(--rule); text-align: left; vertical-align: top; overflow-wrap: anywhere; font-size: 14px; }
  thead th { color: var(--soft); font-weight: 400; }
  td:last-child, th:last-child { padding-right: 0; text-align: right; white-space: nowrap; }
  @media (max-width: 719px) {
    thead { display: none; }
    tr { display: block; padding: 6px 0; border-bottom: 1px solid var(--rule); }
    td { display: block; padding: 1px 0; border: 0; }
    td:last-child { text-align: left; color: var(--soft); }
  }
`;

const Picture = styled.img`
  display: block;
  width: 100%;
  margin-top: 8px;
  border: 1px solid var(--edge);
  background: var(--sheet);
`;

/** Page by page, and how the last one looked. */
export function TestReport({ entryId, test }: { entryId: string; test: NonNullable<StepsView["test"]> }) {
  return (
    <>
      <h2>{t.lastTest}</h2>
      {test.pages.length > 0 && (
        <Pages>
          <thead>
            <tr>
              <th scope="col">{t.page}</th>
              <th scope="col">{t.readAs}</th>
              <th scope="col">{t.whatWasDone}</th>
              <th scope="col">{t.time}</th>
            </tr>
          </thead>
          <tbody>
            {test.pages.map((page, at) => (
              <tr key={at}>
                <td>
                  <span className="mono">{page.at.replace(/^https?:\/\//, "")}</span>
                  <span className="soft" style={{ display: "block" }}>
                    {t.engines[page.by]}
                  </span>
                </td>
                <td>{page.bySteps ? t.bySteps(t.kinds[page.kind]) : t.kinds[page.kind]}</td>
                <td>{whatWasDone(page)}</td>
                <td>{page.ms < 1_000 ? t.milliseconds(page.ms) : t.seconds(page.ms)}</td>
              </tr>
            ))}
          </tbody>
        </Pages>
      )}
      {test.picture ? (
        <>
          <p className="small soft" style={{ marginTop: 16 }}>
            {t.lastPage}
          </p>
          <Picture src={`/api/test/${entryId}/picture?${test.at}`} alt={t.lastPage} />
        </>
      ) : (
        <p className="small soft" style={{ marginTop: 8 }}>
          {test.pages.some(({ by }) => by === "browser") ? t.noSafePicture : t.noPicture}
        </p>
      )}
    </>
  );
}

function whatWasDone({ entered, pressed, status }: TestedPage): string {
  const acts = [
    ...(entered.length > 0
      ? [
          t.enteredWhat(
            listOf(
              entered.map((what) => t.entered[what]),
              "and",
            ),
          ),
        ]
      : []),
    ...(pressed ? [t.pressed(pressed)] : []),
    ...(status >= 400 ? [t.answered(status)] : []),
  ];
  return acts.length > 0 ? acts.join(", ") : t.nothingWasDone;
}
