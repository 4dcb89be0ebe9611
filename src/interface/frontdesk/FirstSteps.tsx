"use client";

import { ArrowRight, Check, Circle } from "lucide-react";
import type { ReactNode } from "react";
import styled from "styled-components";
import type { StepName } from "@/server/frontdesk/firstSteps";
import type { ResultOf } from "@/server/registry";
import { useCommand } from "../shared/ask";
import { Act, Button, ButtonLink, Notice } from "../shared/controls";
import type { LanyardState } from "../shared/lanyard";
import { firstSteps as t } from "./strings";

const Section = styled.section`
  padding: 12px 0 20px;
  border-top: 1px solid var(--edge);
  h2 { font-size: 15px; line-height: 20px; margin-bottom: 6px; }
  li { display: grid; grid-template-columns: 24px minmax(0, 1fr); padding: 6px 0; align-items: start; line-height: 20px; }
  li > svg { margin-top: 2px; }
  li b { font-weight: 650; }
  .why { display: block; font-size: 13.5px; color: var(--soft); }
  [data-done] { color: var(--soft); }
  [data-done] > svg { color: var(--moss); }
  li a[data-look], li button[data-look] { margin-top: 8px; }
`;

interface StepsProps {
  list: NonNullable<ResultOf<"frontdesk.firstSteps">>;
  lanyard: LanyardState | null;
  /** The first login that one can sign in with. */
  first: { id: string; name: string } | null;
  /** Somewhere a login can be added. */
  canAdd: boolean;
}

interface Said {
  what: string;
  why: string;
  act: { word: string; href: string } | null;
}

/** For newcomers, until each of them is truly done or the list is put away: a short ledger, never over the work. */
export function FirstSteps({ list, lanyard, first, canAdd }: StepsProps) {
  const dismiss = useCommand("frontdesk.dismissSteps");
  const test = useCommand("mail.sendTestMail");
  const says = saysOf({ lanyard, first, canAdd, mails: list.mails });
  const steps = list.steps.flatMap(({ step, done }): (Said & { step: StepName; done: boolean })[] => {
    if (done) return [{ step, done, what: t.doneAlready[step], why: "", act: null }];
    const said = says[step];
    return said ? [{ step, done, ...said }] : [];
  });
  const next = steps.find(({ done }) => !done);
  if (!next) return null;
  return (
    <Section aria-label={t.firstSteps}>
      <h2>{t.firstSteps}</h2>
      <ol>
        {steps.map(({ step, done, what, why, act }) => (
          <li key={step} data-done={done ? "" : undefined} aria-current={step === next.step ? "step" : undefined}>
            {done ? (
              <Check size={16} aria-label={t.done} />
            ) : step === next.step ? (
              <ArrowRight size={16} aria-hidden />
            ) : (
              <Circle size={14} aria-hidden />
            )}
            <span>
              {done ? what : step === next.step ? <b>{what}</b> : <Quiet href={act?.href}>{what}</Quiet>}
              {!done && <span className="why">{why}</span>}
              {step === next.step && act && <ButtonLink href={act.href}>{act.word}</ButtonLink>}
              {step === "mail" && !done && list.mails && (
                <Button isDisabled={test.running} onPress={() => test.run({})}>
                  {t.sendIt}
                </Button>
              )}
              {step === "mail" && test.refused && (
                <Notice data-tone="bad" role="alert">
                  {test.refused.message}
                </Notice>
              )}
            </span>
          </li>
        ))}
      </ol>
      <Act onPress={() => dismiss.run({})}>{t.dismissList}</Act>
    </Section>
  );
}

const Quiet = ({ href, children }: { href: string | undefined; children: ReactNode }) =>
  href ? <a href={href}>{children}</a> : children;

function saysOf({
  lanyard,
  first,
  canAdd,
  mails,
}: Pick<StepsProps, "lanyard" | "first" | "canAdd"> & { mails: boolean }): Record<StepName, Said | null> {
  const here = lanyard !== null && lanyard.state !== "absent";
  return {
    vault: { ...t.vault, act: { word: t.createAVault, href: "/vaults" } },
    entries: { ...t.entries, act: { word: t.toTheVaults, href: "/vaults" } },
    people: { ...t.people, act: { word: t.addPeople, href: "/people/add" } },
    group: { ...t.group, act: { word: t.toPeople, href: "/people" } },
    grant: { ...t.grant, act: { word: t.toAccess, href: "/access" } },
    mail: mails ? { ...t.mail, act: null } : { ...t.noMail, act: null },
    backup: { ...t.backup, act: null },
    lanyard: here
      ? { ...t.connect, act: { word: t.connectLanyard, href: "/lanyard/connect" } }
      : { ...t.install, act: { word: t.installLanyard, href: "/lanyard" } },
    "sign-in": first && {
      what: t.signInTo(first.name),
      why: t.signInWhy,
      act: { word: t.openIt(first.name), href: `/entry/${first.id}` },
    },
    "second-way": { ...t.secondWay, act: { word: t.addAWay, href: "/account" } },
    "own-login": canAdd ? { ...t.ownLogin, act: { word: t.toTheVaults, href: "/vaults" } } : null,
  };
}
