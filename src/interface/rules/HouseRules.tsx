"use client";

import { type ReactNode, useState } from "react";
import styled from "styled-components";
import { type HouseRules as Rules, sayRules } from "@/core/access/houseRules";
import { LEVELS, type Level, levelWord } from "@/core/access/level";
import { Page } from "../frame/Frame";
import { useCommand } from "../shared/ask";
import { Button, Notice, Select } from "../shared/controls";
import { useDone } from "../shared/Done";
import { Head } from "../vaults/VaultList";

const Sentences = styled.ul`
  max-width: 860px;
  margin: 8px 0 28px;
  border-top: 3px solid var(--ink);
  background: var(--sheet);
  --ground: var(--sheet);
  li { padding: 11px 12px; border-bottom: 1px solid var(--rule); line-height: 32px; }
  li.read { line-height: 22px; }
  select { display: inline-block; width: auto; max-width: calc(100% - 18px); min-height: 30px; padding: 2px 6px; margin: 0 2px; vertical-align: baseline; }
`;

interface Props {
  rules: Rules;
  /** Owners change them; everybody else reads. */
  changes: boolean;
}

/** House rules as sentences; an owner changes the words in them that can be otherwise. */
export function HouseRules({ rules, changes }: Props) {
  const save = useCommand("rules.change");
  const done = useDone();
  const [draft, setDraft] = useState(rules);
  const set = (part: Partial<Rules>) => setDraft({ ...draft, ...part });
  const changed = JSON.stringify(draft) !== JSON.stringify(rules);
  const send = async () => {
    if ((await save.run(draft)).ok)
      done("The house rules are changed. What was given before stays as it is.", [
        { command: "rules.change", input: rules },
      ]);
  };
  return (
    <Page where="The house rules say what stewards may give, to whom and for how long, and who makes what.">
      <Head>
        <h1>House rules</h1>
        {changes && changed && <Button onPress={() => setDraft(rules)}>Leave them as they are</Button>}
        {changes && (
          <Button look="go" isDisabled={!changed || save.running} onPress={send}>
            Change the rules
          </Button>
        )}
      </Head>
      {save.refused && (
        <Notice data-tone="bad" role="alert">
          {save.refused.message}
        </Notice>
      )}
      {!changes && (
        <>
          <p className="soft">Owners change them.</p>
          <Sentences>
            {sayRules(rules).map((sentence) => (
              <li key={sentence} className="read">
                {sentence}
              </li>
            ))}
          </Sentences>
        </>
      )}
      {changes && <Changing rules={draft} set={set} />}
    </Page>
  );
}

type Set = (part: Partial<Rules>) => void;

function Changing({ rules, set }: { rules: Rules; set: Set }) {
  const highest = (to: keyof Rules["highest"], label: string, levels: readonly Level[] = LEVELS) => (
    <Pick
      label={label}
      value={rules.highest[to]}
      choices={[
        ["none", "nothing"],
        ...levels.map((level): [string, string] => [level, `${levelWord(level)} at most`]),
      ]}
      onPick={(level) => set({ highest: { ...rules.highest, [to]: level as Level | "none" } })}
    />
  );
  const longest = (of: keyof Rules["longest"], label: string) => (
    <Pick
      label={label}
      value={String(rules.longest[of] ?? "")}
      choices={daysWith(rules.longest[of])}
      onPick={(days) => set({ longest: { ...rules.longest, [of]: days === "" ? null : Number(days) } })}
    />
  );
  const makes = <K extends keyof Rules["makes"]>(what: K, label: string, choices: [Rules["makes"][K], string][]) => (
    <Pick
      label={label}
      value={rules.makes[what]}
      choices={choices}
      onPick={(who) => set({ makes: { ...rules.makes, [what]: who } })}
    />
  );
  const makers: ["owners" | "administrators" | "staff", string][] = [
    ["owners", "owners"],
    ["administrators", "administrators"],
    ["staff", "all staff"],
  ];
  return (
    <>
      <h2>What may be given</h2>
      <Sentences>
        <Rule>A steward may give a member of staff {highest("staff", "a member of staff")}.</Rule>
        <Rule>
          A group may be given {highest("groups", "a group")}, and by{" "}
          <Pick
            label="which stewards give to a group"
            value={rules.ownGroups ? "own" : "any"}
            choices={[
              ["any", "any steward"],
              ["own", "stewards who are in it"],
            ]}
            onPick={(which) => set({ ownGroups: which === "own" })}
          />
          .
        </Rule>
        <Rule>Everyone may be given {highest("everyone", "Everyone")}.</Rule>
        <Rule>A guest may be given {highest("guests", "a guest", ["use", "reveal", "edit"])}.</Rule>
        <Rule>Access of staff lasts {longest("staff", "how long access of staff lasts")}.</Rule>
        <Rule>Access of guests lasts {longest("guests", "how long access of guests lasts")}.</Rule>
        <Rule>
          A reason is asked for{" "}
          <Pick
            label="when a reason is asked for"
            value={rules.reasonFrom ?? ""}
            choices={[
              ["", "never"],
              ...LEVELS.map((level): [string, string] => [
                level,
                level === "steward" ? "whenever Steward is given" : `whenever ${levelWord(level)} or more is given`,
              ]),
            ]}
            onPick={(level) => set({ reasonFrom: level === "" ? null : (level as Level) })}
          />
          .
        </Rule>
      </Sentences>
      <h2>Who makes what</h2>
      <Sentences>
        <Rule>Vaults are made by {makes("vaults", "who makes vaults", makers)}.</Rule>
        <Rule>Groups are made by {makes("groups", "who makes groups", makers)}.</Rule>
        <Rule>
          Guests are asked in by{" "}
          {makes("guests", "who asks guests in", [
            ["stewards", "stewards and administrators"],
            ["administrators", "administrators"],
          ])}
          .
        </Rule>
        <Rule>
          Handover links are made by{" "}
          {makes("handovers", "who makes handover links", [
            ["nobody", "nobody"],
            ["stewards", "stewards"],
            ["reveal", "whoever may reveal it"],
          ])}
          .
        </Rule>
      </Sentences>
      <h2>Before something works</h2>
      <Sentences>
        <Rule>
          Where something asks a steward first,{" "}
          <Pick
            label="whether somebody gets past a steward’s yes"
            value={rules.emergency ? "yes" : "no"}
            choices={[
              ["no", "nobody gets past the yes"],
              ["yes", "somebody gets past it in an emergency, and says why to all its stewards"],
            ]}
            onPick={(may) => set({ emergency: may === "yes" })}
          />
          .
        </Rule>
        <Rule>
          What somebody is given in a vault works{" "}
          <Pick
            label="when what somebody is given works"
            value={rules.accept ? "accepted" : "once"}
            choices={[
              ["once", "at once"],
              ["accepted", "once they accept it, with the vault’s house note"],
            ]}
            onPick={(when) => set({ accept: when === "accepted" })}
          />
          .
        </Rule>
      </Sentences>
    </>
  );
}

const Rule = ({ children }: { children: ReactNode }) => <li>{children}</li>;

const DAYS = [1, 7, 14, 30, 60, 90, 180, 365];

/** Those that are offered, and the one that stands, should it be another. */
const daysWith = (now: number | null): [string, string][] => [
  ["", "as long as its steward says, also without an end"],
  ...[...new Set(now === null ? DAYS : [...DAYS, now])]
    .sort((a, b) => a - b)
    .map((days): [string, string] => [
      String(days),
      `${days === 1 ? "one day" : `${days} days`} at most without a second steward’s yes`,
    ]),
];

interface PickProps<V extends string> {
  label: string;
  value: V;
  choices: readonly (readonly [V, string])[];
  onPick: (value: V) => void;
}

function Pick<V extends string>({ label, value, choices, onPick }: PickProps<V>) {
  return (
    <Select aria-label={label} value={value} onChange={(event) => onPick(event.target.value as V)}>
      {choices.map(([id, says]) => (
        <option key={id} value={id}>
          {says}
        </option>
      ))}
    </Select>
  );
}
