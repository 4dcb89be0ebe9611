"use client";

import { useState } from "react";
import { CHANGE_EVERY, type HouseRules as Rules, sayRules } from "@/core/access/houseRules";
import { LEVELS, type Level, levelWord } from "@/core/access/level";
import type { ResultOf } from "@/server/registry";
import { Page } from "../frame/Frame";
import { useCommand } from "../shared/ask";
import { Button, ButtonLink, Notice } from "../shared/controls";
import { useDone } from "../shared/Done";
import { Head } from "../vaults/VaultList";
import { LanyardRules } from "./LanyardRules";
import { NotThereYet } from "./NotThereYet";
import { Pick, Rule, Sentences, type SetRules } from "./ruleParts";
import { SigningInRules } from "./SigningInRules";
import { houseRules as t } from "./strings";

interface Props {
  rules: Rules;
  /** Names of the groups that they speak of. */
  groups: Record<string, string>;
  /** For administrators: who does not have yet what a rule requires. */
  missing: ResultOf<"people.waysMissing">;
  /** Owners change them; everybody else reads. */
  changes: boolean;
  mails: boolean;
  now: number;
}

/** House rules as sentences; an owner changes the words in them that can be otherwise. */
export function HouseRules({ rules, groups, missing, changes, mails, now }: Props) {
  const save = useCommand("rules.changeRules");
  const done = useDone();
  const [draft, setDraft] = useState(rules);
  const set = (part: Partial<Rules>) => setDraft({ ...draft, ...part });
  const changed = JSON.stringify(draft) !== JSON.stringify(rules);
  const send = async () => {
    if ((await save.run(draft)).ok)
      done(t.theHouseRulesHaveBeenChanged, [{ command: "rules.changeRules", input: rules }]);
  };
  return (
    <Page where={t.theHouseRulesSayWhatAccess}>
      <Head>
        <h1>{t.houseRules}</h1>
        {changes && !changed && <ButtonLink href="/rules/keys">{t.keysOfTheHouse}</ButtonLink>}
        {changes && changed && <Button onPress={() => setDraft(rules)}>{t.cancel}</Button>}
        {changes && (
          <Button look="go" isDisabled={!changed || save.running} onPress={send}>
            {t.changeTheRules}
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
          <p className="soft">{t.onlyOwnersCanChangeThem}</p>
          <Sentences>
            {sayRules(rules, (id) => groups[id] ?? "").map((sentence) => (
              <li key={sentence} className="read">
                {sentence}
              </li>
            ))}
          </Sentences>
        </>
      )}
      {changes && <Changing rules={draft} set={set} />}
      {changes && <LanyardRules rules={draft} set={set} groups={groups} />}
      {changes && <SigningInRules rules={draft} set={set} groups={groups} mails={mails} now={now} />}
      {missing.length > 0 && <NotThereYet missing={missing} />}
    </Page>
  );
}

function Changing({ rules, set }: { rules: Rules; set: SetRules }) {
  const highest = (to: keyof Rules["highest"], label: string, levels: readonly Level[] = LEVELS) => (
    <Pick
      label={label}
      value={rules.highest[to]}
      choices={[["none", "nothing"], ...levels.map((level): [string, string] => [level, t.upTo(levelWord(level))])]}
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
    ["staff", t.allStaff],
  ];
  return (
    <>
      <h2>{t.accessThatCanBeGiven}</h2>
      <Sentences>
        <Rule>{t.aStewardCanGiveAMemberOf(highest("staff", t.aMemberOfStaff))}</Rule>
        <Rule>
          {t.aGroupCanBeGivenBy(highest("groups", t.aGroup))}
          <Pick
            label={t.whichStewardsCanGiveAccessToA}
            value={rules.ownGroups ? "own" : "any"}
            choices={[
              ["any", t.anySteward],
              ["own", t.stewardsWhoAreInIt],
            ]}
            onPick={(which) => set({ ownGroups: which === "own" })}
          />
          .
        </Rule>
        <Rule>{t.everyoneCanBeGiven(highest("everyone", "Everyone"))}</Rule>
        <Rule>{t.aGuestCanBeGiven(highest("guests", t.aGuest, ["use", "reveal", "edit"]))}</Rule>
        <Rule>{t.staffHaveAccess(longest("staff", t.howLongStaffHaveAccess))}</Rule>
        <Rule>{t.guestsHaveAccess(longest("guests", t.howLongGuestsHaveAccess))}</Rule>
        <Rule>
          {t.aReasonIsRequired}
          <Pick
            label={t.whenAReasonIsRequired}
            value={rules.reasonFrom ?? ""}
            choices={[
              ["", "never"],
              ...LEVELS.map((level): [string, string] => [
                level,
                level === "steward" ? t.whenGivingSteward : t.whenGivingOrMore(levelWord(level)),
              ]),
            ]}
            onPick={(level) => set({ reasonFrom: level === "" ? null : (level as Level) })}
          />
          .
        </Rule>
      </Sentences>
      <h2>{t.whoCanCreateWhat}</h2>
      <Sentences>
        <Rule>{t.vaultsCanBeCreatedBy(makes("vaults", t.whoCanCreateVaults, makers))}</Rule>
        <Rule>{t.groupsCanBeCreatedBy(makes("groups", t.whoCanCreateGroups, makers))}</Rule>
        <Rule>
          {t.guestsCanBeInvitedBy(
            makes("guests", t.whoCanInviteGuests, [
              ["stewards", t.stewardsAndAdministrators],
              ["administrators", "administrators"],
            ]),
          )}
        </Rule>
        <Rule>
          {t.handoverLinksCanBeCreatedBy(
            makes("handovers", t.whoCanCreateHandoverLinks, [
              ["nobody", "nobody"],
              ["stewards", "stewards"],
              ["reveal", t.anyoneWithRevealOnIt],
            ]),
          )}
        </Rule>
      </Sentences>
      <h2>{t.approvalAndAcceptance}</h2>
      <Sentences>
        <Rule>
          {t.whereAnEntryRequiresApproval}
          <Pick
            label={t.whetherEmergencyUseIsPossible}
            value={rules.emergency ? "yes" : "no"}
            choices={[
              ["no", t.nobodyCanUseItWithoutApproval],
              ["yes", t.peopleCanUseItWithoutApproval],
            ]}
            onPick={(may) => set({ emergency: may === "yes" })}
          />
          .
        </Rule>
        <Rule>
          {t.accessToAVaultWorks}
          <Pick
            label={t.whenAccessStartsToWork}
            value={rules.accept ? "accepted" : "once"}
            choices={[
              ["once", t.atOnce],
              ["accepted", t.onceThePersonAcceptsItAndThe],
            ]}
            onPick={(when) => set({ accept: when === "accepted" })}
          />
          .
        </Rule>
      </Sentences>
      <h2>{t.testsOfLogins}</h2>
      <Sentences>
        <Rule>
          {t.galtryTestsLogins}
          <Pick
            label={t.whenGaltryTestsLogins}
            value={rules.nightTests ? "night" : "asked"}
            choices={[
              ["asked", t.onlyWhenAsked],
              ["night", t.eachNight],
            ]}
            onPick={(when) => set({ nightTests: when === "night" })}
          />
          .
        </Rule>
        <Rule>
          {t.galtryChangesPasswords(
            <Pick
              label={t.whenGaltryChangesPasswords}
              value={String(rules.changeEvery ?? "")}
              choices={[
                ["", t.onlyWhenAsked],
                ...CHANGE_EVERY.map((months): [string, string] => [String(months), t.everyMonths(months)]),
              ]}
              onPick={(months) => set({ changeEvery: CHANGE_EVERY.find((one) => String(one) === months) ?? null })}
            />,
          )}
        </Rule>
      </Sentences>
    </>
  );
}

const DAYS = [1, 7, 14, 30, 60, 90, 180, 365];

/** Those that are offered, and the one that stands, should it be another. */
const daysWith = (now: number | null): [string, string][] => [
  ["", t.forAsLongAsTheStewardSets],
  ...[...new Set(now === null ? DAYS : [...DAYS, now])]
    .sort((a, b) => a - b)
    .map((days): [string, string] => [String(days), t.forUpTo(days)]),
];
