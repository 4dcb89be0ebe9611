"use client";

import { useState } from "react";
import styled from "styled-components";
import {
  FAILURES,
  type OnProgress,
  PROGRESS,
  type Progress,
  sayWaitingFor,
  type WaitsFor,
} from "@/core/signin/outcome";
import { useCommand } from "./ask";
import { Button, ButtonLink, Notice, Row } from "./controls";
import { type SignInReport, signInWithLanyard } from "./lanyard";
import { useSignIn as t } from "./strings";
import { useLeft } from "./useLeft";

export interface SigningIn {
  entry: { id: string; name: string; site: string; signInPage?: string };
  steps: Progress[];
  /** Whom it waits for now, for a code; `until` by this browser's clock. */
  waitsFor: { names: string[]; until: number } | null;
  report: SignInReport | null;
}

/** One sign-in at a time from this page. */
export function useSignIn() {
  const [signing, setSigning] = useState<SigningIn | null>(null);
  const start = async (entry: SigningIn["entry"]) => {
    if (signing && !signing.report) return;
    setSigning({ entry, steps: [], waitsFor: null, report: null });
    const onProgress: OnProgress = (step, waits) =>
      setSigning((now) => now && { ...now, ...withStep(now, step, waits) });
    const report = (await signInWithLanyard(entry.id, onProgress)) ?? {
      outcome: "refused" as const,
      message: t.lanyardIsNotRespondingInThis,
    };
    setSigning((now) => (now ? { ...now, report } : now));
  };
  return { signing, start, clear: () => setSigning(null) };
}

function withStep({ steps }: Pick<SigningIn, "steps">, step: Progress, waits?: WaitsFor) {
  return {
    steps: steps.includes(step) ? steps : [...steps, step],
    waitsFor: waits ? { names: waits.names, until: Date.now() + waits.leftMs } : null,
  };
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
  mends = false,
  onClose,
  onAgain,
}: {
  signing: SigningIn;
  stewards: string[];
  /** The reader may change how it is signed in to. */
  mends?: boolean;
  onClose: () => void;
  onAgain: () => void;
}) {
  const { entry, steps, waitsFor, report } = signing;
  if (!report)
    return (
      <Notice role="status" data-tone="good">
        <b>{t.signingInTo(entry.name)}</b>
        <Steps>
          {steps.length === 0 ? (
            <li>{t.opening(entry.site)}</li>
          ) : (
            steps.map((step) => (
              <li key={step}>
                {step === "code-asked" && waitsFor ? <WaitingForCode {...waitsFor} /> : PROGRESS[step]}
              </li>
            ))
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
  return <NotSignedIn signing={signing} report={report} stewards={stewards} mends={mends} {...{ onClose, onAgain }} />;
}

function WaitingForCode({ names, until }: NonNullable<SigningIn["waitsFor"]>) {
  const left = useLeft(until);
  return (
    <>
      {sayWaitingFor({ names })}
      {/* Counted down for the eye alone: read out each second it would drown the rest. */}
      {left && <span aria-hidden> {t.left(left)}</span>}
    </>
  );
}

const IS_WAITING: ReadonlySet<Progress> = new Set<Progress>(["waiting", "code-wait", "code-asked"]);

/** What happened, at which step, and what the colleague can do now; for those who look after it, the way to mend it. */
function NotSignedIn({
  signing: { entry, steps },
  report,
  stewards,
  mends,
  onClose,
  onAgain,
}: Omit<Parameters<typeof SignInNotice>[0], "signing"> & { signing: SigningIn; report: SignInReport }) {
  const tell = useCommand("signIn.didNotWork");
  const [told, setTold] = useState(false);
  const failure =
    report.outcome === "refused" || report.outcome === "signed-in" || report.outcome === "asked-first"
      ? null
      : FAILURES[report.outcome];
  const next = failure?.next;
  const names = stewards.length > 0 ? stewards.join(" and ") : t.itsStewards;
  const last = steps.filter((step) => !IS_WAITING.has(step)).at(-1);
  const fills = next === "guarded-fill" && report.guardedFill;
  return (
    <Notice role="alert" data-tone="bad">
      <b>{failure ? `${entry.name} ${failure.title}` : t.notSignedInTo(entry.name)}</b>
      <p>{failure?.says ?? report.message}</p>
      {failure && last && <p className="small soft">{t.stoppedAfter(PROGRESS[last])}</p>}
      {report.detail && <p className="small soft">{t.details(report.detail)}</p>}
      {fills && <p className="small">{t.openLanyardFromTheToolbar}</p>}
      {next === "guarded-fill" && !fills && <p className="small">{t.guardedFillMayWorkHere}</p>}
      {tell.refused && <p className="small">{tell.refused.message}</p>}
      {told && (
        <p className="small" role="status">
          {t.told(names, Math.max(1, stewards.length))}
        </p>
      )}
      <Row style={{ marginTop: 8 }}>
        {(next === "open-page" || fills) && entry.signInPage && (
          <ButtonLink href={entry.signInPage} target="_blank" rel="noreferrer">
            {t.openThePage}
          </ButtonLink>
        )}
        {(next === "open-page" || next === "later") && <Button onPress={onAgain}>{t.tryAgain}</Button>}
        {mends && failure && <ButtonLink href={`/entry/${entry.id}/steps`}>{t.seeItsSteps}</ButtonLink>}
        {!mends && failure && next !== "none" && next !== "later" && !told && (
          <Button
            isDisabled={tell.running}
            onPress={async () => {
              setTold((await tell.run({ entryId: entry.id, what: "galtry-could-not" })).ok);
            }}
          >
            {t.tell(names)}
          </Button>
        )}
        <Button onPress={onClose}>{t.close}</Button>
      </Row>
    </Notice>
  );
}
