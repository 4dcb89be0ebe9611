"use client";

import { useRouter } from "next/navigation";
import { useState } from "react";
import styled from "styled-components";
import { sayTime } from "@/core/time";
import { useCommand } from "../shared/ask";
import { inOwnWindow } from "../shared/atProvider";
import { Button, Notice } from "../shared/controls";
import { ownWindow } from "../shared/strings";
import { testSheet as t } from "./strings";
import type { Provider } from "./types";

const Steps = styled.ol`
  margin: 12px 0;
  li { display: grid; grid-template-columns: 28px minmax(0, 1fr) auto; gap: 2px 10px; padding: 8px 0; border-bottom: 1px solid var(--rule); }
  .number { color: var(--soft); font-variant-numeric: tabular-nums; }
  .said { grid-column: 2 / -1; color: var(--soft); font-size: 14px; line-height: 20px; overflow-wrap: anywhere; }
  [data-failed] b, [data-failed] .said { color: var(--crimson); }
  [data-untested] { color: var(--soft); }
  [data-untested] b { font-weight: 400; }
`;

const Claims = styled.dl`
  display: grid;
  grid-template-columns: minmax(0, 160px) minmax(0, 1fr);
  gap: 4px 14px;
  margin-top: 6px;
  font-size: 14px;
  line-height: 20px;
  dt { color: var(--soft); overflow-wrap: anywhere; }
  dd { margin: 0; overflow-wrap: anywhere; font-family: var(--mono); }
`;

const ORDER = ["discovery", "keys", "sign-in", "exchange", "token", "person"] as const;

/** Each step of the last test, stopped where it failed, in the provider's own words. */
export function TestSheet({ provider, zone, now }: { provider: Provider; zone: string; now: number }) {
  const router = useRouter();
  const test = useCommand("provider.testProvider");
  const [waiting, setWaiting] = useState(false);
  const [wrong, setWrong] = useState<string | null>(null);
  const { lastTest } = provider;
  const words = provider.protocol === "oidc" ? t.steps : t.samlSteps;
  const run = async () => {
    setWrong(null);
    const read = await test.run({ providerId: provider.id });
    if (!read.ok || !read.result.ok) return;
    setWaiting(true);
    setWrong(await inOwnWindow(provider.id, "test", ownWindow));
    setWaiting(false);
    router.refresh();
  };
  return (
    <section>
      <h3>{t.test}</h3>
      <p className="soft small">
        {lastTest ? t.lastTest(sayTime(lastTest.at, now, zone), provider.testedBy) : t.notTestedYet}
      </p>
      <Steps>
        {ORDER.map((step, i) => {
          const found = lastTest?.steps.find((one) => one.step === step);
          return (
            <li key={step} data-failed={found && !found.ok ? true : undefined} data-untested={found ? undefined : true}>
              <span className="number">{i + 1}</span>
              <b>{words[step]}</b>
              <span className="small soft">
                {!found ? t.notTested : found.ok ? (found.ms > 0 ? t.milliseconds(found.ms) : t.worked) : t.failed}
              </span>
              {found?.said && (
                <span className="said">{found.ok ? t.itSaid(found.said) : t.theProviderSaid(found.said)}</span>
              )}
            </li>
          );
        })}
      </Steps>
      {(wrong ?? test.refused?.message) && (
        <Notice data-tone="bad" role="alert" style={{ marginBottom: 10 }}>
          {wrong ?? test.refused?.message}
        </Notice>
      )}
      <Button look={provider.passed ? "plain" : "go"} onPress={run} isDisabled={test.running}>
        {lastTest ? t.testAgain : t.testIt}
      </Button>
      {waiting && (
        <p role="status" className="small" style={{ marginTop: 8 }}>
          {t.continueThere}
        </p>
      )}
      {lastTest && Object.keys(lastTest.claims).length > 0 && (
        <details style={{ marginTop: 12 }}>
          <summary>{t.whatCameBack}</summary>
          <Claims>
            {Object.entries(lastTest.claims).map(([name, value]) => (
              <div key={name} style={{ display: "contents" }}>
                <dt>{name}</dt>
                <dd>{value}</dd>
              </div>
            ))}
          </Claims>
        </details>
      )}
    </section>
  );
}
