"use client";

import { useState } from "react";
import styled from "styled-components";
import { type HouseRules as Rules, WAY_NEEDS } from "@/core/access/houseRules";
import { amongGroups } from "../people/findGroups";
import { Act, Button } from "../shared/controls";
import { DayField } from "../shared/DateFields";
import { Dialog } from "../shared/Dialog";
import { Picker } from "../shared/Picker";
import { ConfirmRule } from "./ConfirmRule";
import { JoinRule } from "./JoinRule";
import { Pick, Rule, Sentences, type SetRules } from "./ruleParts";
import { signingInRules as t } from "./strings";

const One = styled.div`
  display: flex;
  flex-wrap: wrap;
  gap: 4px 14px;
  align-items: end;
  > :last-child { margin-left: auto; }
`;

interface SigningProps {
  rules: Rules;
  set: SetRules;
  groups: Record<string, string>;
  mails: boolean;
  now: number;
}

/** Two weeks are offered: time to tell people, and time for them to do it. */
const SOON_MS = 14 * 86_400_000;

/** How people sign in: what is required, of whom, from which day on; and what becomes of a forgotten password. */
export function SigningInRules({ rules, set, groups, mails, now }: SigningProps) {
  const [adding, setAdding] = useState(false);
  const [names, setNames] = useState(groups);
  const change = (at: number, part: Partial<Rules["waysIn"][number]>) =>
    set({ waysIn: rules.waysIn.map((one, i) => (i === at ? { ...one, ...part } : one)) });
  const add = (groupId: string | null) => {
    const from = new Date(now + SOON_MS).toISOString().slice(0, 10);
    set({ waysIn: [...rules.waysIn, { groupId, needs: "second-step", from }] });
    setAdding(false);
  };
  return (
    <>
      <h2>{t.signingIn}</h2>
      <Sentences>
        <Rule>
          {t.aForgottenPasswordIsReset}
          <Pick
            label={t.howAForgottenPasswordIsReset}
            value={rules.forgottenByMail ? "mail" : "administrator"}
            choices={[
              ["administrator", t.byAnAdministrator],
              ["mail", mails ? t.byEmail : t.byEmailOnceSetUp],
            ]}
            onPick={(by) => set({ forgottenByMail: by === "mail" })}
          />
          .
        </Rule>
        <JoinRule domains={rules.joinDomains} set={set} mails={mails} />
        <ConfirmRule confirm={rules.confirm} set={set} />
        {rules.waysIn.map((rule, i) => (
          <li key={`${rule.groupId} ${rule.needs} ${i}`}>
            <One>
              <span>
                {rule.groupId === null ? t.allPeople : t.peopleIn(names[rule.groupId] ?? t.aGroup)} {t.need}
                <Pick
                  label={t.whatTheyNeed}
                  value={rule.needs}
                  choices={WAY_NEEDS.map((need) => [need, t.needs[need]] as const)}
                  onPick={(needs) => change(i, { needs })}
                />
              </span>
              <DayField
                label={t.from}
                value={rule.from}
                onText={(from) => from !== "" && change(i, { from })}
                required
              />
              <Act onPress={() => set({ waysIn: rules.waysIn.filter((_, at) => at !== i) })}>{t.remove}</Act>
            </One>
          </li>
        ))}
        <li>
          <Button onPress={() => setAdding(true)} isDisabled={rules.waysIn.length >= 20}>
            {t.requireAWay}
          </Button>
        </li>
      </Sentences>
      {adding && (
        <Dialog title={t.requireAWay} open onClose={() => setAdding(false)}>
          <p>{t.ofWhom}</p>
          <Button onPress={() => add(null)}>{t.ofAllPeople}</Button>
          <Picker
            {...amongGroups}
            label={t.orOfAGroup}
            onPick={({ id, name }) => {
              setNames({ ...names, [id]: name });
              add(id);
            }}
          />
        </Dialog>
      )}
    </>
  );
}
