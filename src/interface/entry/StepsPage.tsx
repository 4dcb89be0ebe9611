"use client";

import Link from "next/link";
import { useRouter } from "next/navigation";
import { useState } from "react";
import styled from "styled-components";
import { listOf } from "@/core/counted";
import { canBeSent } from "@/core/signin/sending";
import type { PageStep, Sign } from "@/core/signin/steps";
import { sayTime } from "@/core/time";
import type { stepsPage } from "@/server/vaults/steps";
import { Page } from "../frame/Frame";
import { useCommand } from "../shared/ask";
import { Act, Button, ButtonLink, Row } from "../shared/controls";
import { useDone } from "../shared/Done";
import { askLanyard, useLanyard } from "../shared/lanyard";
import { Card, capital, Fact } from "./Card";
import { PasswordAtSite } from "./PasswordAtSite";
import { StepsForm } from "./StepsForm";
import { stepsPage as t } from "./strings";
import { HowItStands, TestReport, useTest } from "./TestReport";

export type StepsView = Awaited<ReturnType<(typeof stepsPage)["execute"]>>;

const Split = styled.div`
  display: grid;
  grid-template-columns: minmax(0, 1fr) 360px;
  gap: 0 64px;
  align-items: start;
  margin-top: 28px;
  @media (max-width: 1023px) { grid-template-columns: minmax(0, 1fr); gap: 28px; }
  h2 { margin: 28px 0 6px; }
  > div > h2:first-child { margin-top: 0; }
`;

const Numbered = styled.ol`
  border-top: 3px solid var(--ink);
  counter-reset: step;
  > li { display: grid; grid-template-columns: 32px minmax(0, 1fr); padding: 10px 0; border-bottom: 1px solid var(--rule); counter-increment: step; }
  > li::before { content: counter(step); color: var(--soft); font: 400 15px/24px var(--mono); }
  .mono { overflow-wrap: anywhere; }
`;

const Versions = styled.ol`
  border-top: 1px solid var(--edge);
  li { display: flex; flex-wrap: wrap; gap: 2px 16px; justify-content: space-between; padding: 8px 0; border-bottom: 1px solid var(--rule); font-size: 14px; }
`;

/** How an entry is signed in to, for those who look after it: its steps, what the last test found, what to do about it. */
export function StepsPage({ view, now }: { view: StepsView; now: number }) {
  const router = useRouter();
  const done = useDone();
  const { lanyard } = useLanyard();
  const [changing, setChanging] = useState(false);
  const [said, setSaid] = useState<string | null>(null);
  const testing = useTest(view.id);
  const again = useCommand("vaults.tryPasswordAgain");
  const restore = useCommand("vaults.restoreSteps");
  const { steps } = view;
  const learn = async () => {
    const answer = await askLanyard<{ message?: string }>("learn", { entryId: view.id }, 5_000);
    setSaid(answer ? (answer.message ?? t.lanyardOpensThePage) : t.lanyardIsNotConnected);
  };
  const tryAgain = async () => {
    if ((await again.run({ entryId: view.id })).ok) router.refresh();
  };
  return (
    <Page where={t.howGaltrySignsInTo(<Link href={`/entry/${view.id}`}>{view.name}</Link>)}>
      <Row style={{ marginBottom: 20 }}>
        <h1 style={{ marginRight: "auto" }}>{t.signInSteps}</h1>
        <Button look="go" onPress={testing.run} isDisabled={testing.running || !view.inUse}>
          {view.test ? t.testAgain : t.test}
        </Button>
        <Button onPress={() => setChanging(true)}>{t.changeSteps}</Button>
        <Button onPress={learn} isDisabled={lanyard?.state !== "connected"}>
          {t.learnWithLanyard}
        </Button>
        <ButtonLink href={`/entry/${view.id}`}>{t.backToTheEntry}</ButtonLink>
      </Row>
      {said && (
        <p role="status" style={{ marginBottom: 16 }}>
          {said}
        </p>
      )}
      <HowItStands
        view={view}
        now={now}
        testing={testing}
        onLearn={learn}
        onChange={() => setChanging(true)}
        onTryAgain={tryAgain}
      />
      <Split>
        <div>
          <h2>{t.theSteps}</h2>
          <Numbered>
            <li>
              <p>{t.open(<Address address={view.signInPage} />)}</p>
            </li>
            {steps.pages.length === 0 && (
              <li>
                <p>{t.galtryGoesByThePages}</p>
              </li>
            )}
            {steps.pages.map((step, at) => (
              <li key={at}>
                <StepInWords step={step} />
              </li>
            ))}
            {steps.lands && (
              <li>
                <p>{t.landsOn(<Address address={steps.lands} />)}</p>
              </li>
            )}
          </Numbered>
          {view.test && <TestReport entryId={view.id} test={view.test} />}
        </div>
        <aside>
          <Card>
            <Fact label={t.withWhat}>{view.engine ? t.engines[view.engine] : t.notYet}</Fact>
            <Fact label={t.otherHosts}>
              {steps.hosts.length > 0 ? <span className="mono">{steps.hosts.join(", ")}</span> : t.none}
            </Fact>
            <Fact label={t.fixedChoices}>
              {Object.keys(steps.choices).length === 0
                ? t.none
                : Object.entries(steps.choices).map(([name, value]) => (
                    <span key={name} className="mono" style={{ display: "block" }}>
                      {name}={value}
                    </span>
                  ))}
            </Fact>
            <Fact label={t.signOutPage}>
              {steps.signOutPage ? <span className="mono">{steps.signOutPage}</span> : t.none}
            </Fact>
            <Fact label={t.codesFromTheSite}>{whoEntersCodes(view)}</Fact>
            <Fact label={t.guardedFill}>{view.guardedFill ? t.on : t.off}</Fact>
          </Card>
          <PasswordAtSite view={view} now={now} />
          <h2>{t.earlierSteps}</h2>
          {view.versions.length === 0 ? (
            <p className="small soft">{t.noEarlierSteps}</p>
          ) : (
            <Versions>
              {view.versions.map((version, at) => {
                const when = capital(sayTime(version.at, now, view.zone));
                return (
                  <li key={version.id}>
                    <span>
                      {t.versionLine(when, t.how[version.how], version.by)}
                      <span className="soft" style={{ display: "block" }}>
                        {t.pages(version.steps.pages.length)}
                      </span>
                    </span>
                    {at === 0 ? (
                      <span className="soft">{t.inForce}</span>
                    ) : (
                      <Act
                        aria-label={t.restoreFrom(when)}
                        onPress={async () => {
                          const answer = await restore.run({ entryId: view.id, versionId: version.id });
                          if (!answer.ok) return;
                          done(t.restored);
                          router.refresh();
                        }}
                      >
                        {t.restore}
                      </Act>
                    )}
                  </li>
                );
              })}
            </Versions>
          )}
          {restore.refused && <p role="alert">{restore.refused.message}</p>}
        </aside>
      </Split>
      {changing && <StepsForm view={view} onClose={() => setChanging(false)} />}
    </Page>
  );
}

function whoEntersCodes({ codesReach, stewards, hasCode }: StepsView): string {
  if (hasCode) return t.codesByGaltry;
  if (codesReach === "") return t.codesReachNobody;
  const named = stewards.find(({ id }) => id === codesReach);
  return named ? t.codesReachOne(named.name) : t.codesReachAny;
}

const Address = ({ address }: { address: string }) => (
  <span className="mono" style={{ fontSize: 14 }}>
    {address}
  </span>
);

const wordFor = ({ label, name, id }: Sign): string => label || name || id;

function StepInWords({ step: { page, enters, presses, sends } }: { step: PageStep }) {
  const entered =
    enters.length > 0
      ? t.enter(
          listOf(
            enters.map(({ what }) => t.entered[what]),
            "and",
          ),
        )
      : "";
  const button = presses
    ? entered
      ? t.thenPress(wordFor(presses))
      : t.press(wordFor(presses))
    : entered
      ? t.thenSend
      : t.goOn;
  return (
    <div>
      <p>{t.onPage(<Address address={page} />, entered, button)}</p>
      {sends?.byScript && (
        <p className="small soft">
          {t.sentByScript(
            <Address address={sends.to} />,
            sends.encoding === "json" ? t.asJson : t.asForm,
            [...sends.parts, ...sends.headers].some(({ holds }) => holds === "token") ? t.withAToken : "",
          )}
          {!canBeSent(sends) && ` ${t.onlyItsScriptKnows}`}
        </p>
      )}
    </div>
  );
}
