"use client";

import { useState } from "react";
import styled from "styled-components";
import { FAILURES, PROGRESS, type Progress } from "@/core/signin/outcome";
import { Button, Notice, Row } from "./controls";
import { type SignInReport, signInWithLanyard } from "./lanyard";
import { useSignIn as t } from "./strings";

export interface SigningIn {
  entry: { id: string; name: string; site: string };
  steps: Progress[];
  report: SignInReport | null;
}

/** One sign-in at a time from this page. */
export function useSignIn() {
  const [signing, setSigning] = useState<SigningIn | null>(null);
  const start = async (entry: SigningIn["entry"]) => {
    if (signing && !signing.report) return;
    setSigning({ entry, steps: [], report: null });
    const onProgress = (step: Progress) =>
      setSigning((now) => (now ? { ...now, steps: now.steps.includes(step) ? now.steps : [...now.steps, step] } : now));
    const report = (await signInWithLanyard(entry.id, onProgress)) ?? {
      outcome: "refused" as const,
      message: t.lanyardIsNotRespondingInThis,
    };
    setSigning((now) => (now ? { ...now, report } : now));
  };
  return { signing, start, clear: () => setSigning(null) };
}

const Steps = styled.ol`
  margin: 6px 0 0;
  li { padding: 2px 0; color: var(--soft); }
  li:last-child { color: var(--ink); font-weight: 600; }
`;

/** What a sign-in is doing, or how it ended and what to do next. */
export function SignInNotice({
  signing,
  stewards,
  onClose,
  onAgain,
}: {
  signing: SigningIn;
  stewards: string[];
  onClose: () => void;
  onAgain: () => void;
}) {
  const { entry, steps, report } = signing;
  if (!report)
    return (
      <Notice role="status" data-tone="good">
        <b>{t.signingInTo(entry.name)}</b>
        <Steps>
          {steps.length === 0 ? (
            <li>{t.opening(entry.site)}</li>
          ) : (
            steps.map((step) => <li key={step}>{PROGRESS[step]}</li>)
          )}
        </Steps>
      </Notice>
    );
  if (report.outcome === "signed-in")
    return (
      <Notice role="status" data-tone="good">
        {t.itIsOpenInItsOwnTab(<b>{t.signedInTo(entry.name)}</b>)}
      </Notice>
    );
  if (report.outcome === "asked-first")
    return (
      <Notice role="status">{t.lanyardAsksWhetherToReplace(<b>{t.youAreAlreadySignedInAt(entry.site)}</b>)}</Notice>
    );
  const failure = report.outcome === "refused" ? null : FAILURES[report.outcome];
  return (
    <Notice role="alert" data-tone="bad">
      <b>{failure ? `${entry.name} ${failure.title}` : t.notSignedInTo(entry.name)}</b>
      <p>{failure?.says ?? report.message}</p>
      {report.detail && <p className="small soft">{t.details(report.detail)}</p>}
      {failure?.next === "guarded-fill" && !report.guardedFill && <p className="small">{t.guardedFillMayWorkHere}</p>}
      {failure?.next === "tell-steward" && stewards.length > 0 && (
        <p className="small">{t.tellItsSteward(stewards.join(" or "))}</p>
      )}
      <Row style={{ marginTop: 8 }}>
        {failure?.next === "open-page" || failure?.next === "later" ? (
          <Button onPress={onAgain}>{t.tryAgain}</Button>
        ) : null}
        <Button onPress={onClose}>{t.close}</Button>
      </Row>
    </Notice>
  );
}
