"use client";

import { useState } from "react";
import { houseRulesSchema, type HouseRules as Rules } from "@/core/access/houseRules";
import { amongGroups } from "../people/findGroups";
import { Button } from "../shared/controls";
import { Dialog } from "../shared/Dialog";
import { Picker } from "../shared/Picker";
import { AddName, Removable } from "./ruleLists";
import { Pick, Sentences, type SetRules } from "./ruleParts";
import { lanyardRules as t } from "./strings";

type Lanyard = Rules["lanyard"];

/** Who may use Lanyard and add with it, by group, and the sites at which it offers nobody anything. */
export function LanyardRules({
  rules: { lanyard },
  set,
  groups,
}: {
  rules: Rules;
  set: SetRules;
  groups: Record<string, string>;
}) {
  const [names, setNames] = useState(groups);
  const [choosing, setChoosing] = useState<"use" | "add" | null>(null);
  const put = (part: Partial<Lanyard>) => set({ lanyard: { ...lanyard, ...part } });
  const rule = (which: "use" | "add", sentence: string, label: string) => {
    const chosen = lanyard[which];
    return (
      <li>
        {sentence}
        <Pick
          label={label}
          value={chosen === null ? "all" : "groups"}
          choices={[
            ["all", t.allPeople],
            ["groups", t.thePeopleInTheseGroups],
          ]}
          onPick={(who) => (who === "all" ? put({ [which]: null }) : setChoosing(which))}
        />
        {chosen === null && "."}
        {chosen !== null && (
          <>
            <Removable
              items={chosen.map((id) => ({ id, name: names[id] ?? t.aGroup }))}
              removing={t.removeGroup}
              onRemove={(id) => {
                const left = chosen.filter((one) => one !== id);
                put({ [which]: left.length > 0 ? left : null });
              }}
            />
            <Button onPress={() => setChoosing(which)} isDisabled={chosen.length >= 20}>
              {t.addAGroup}
            </Button>
          </>
        )}
      </li>
    );
  };
  const addSite = (typed: string) => {
    const read = houseRulesSchema.shape.lanyard.safeParse({ neverOn: [...lanyard.neverOn, typed] });
    if (!read.success) return read.error.issues[0]?.message ?? "";
    put({ neverOn: [...new Set(read.data.neverOn)] });
    return null;
  };
  return (
    <>
      <h2>{t.lanyard}</h2>
      <Sentences>
        {rule("use", t.lanyardCanBeUsedBy, t.whoCanUseLanyard)}
        {rule("add", t.loginsCanBeAddedBy, t.whoCanAddLogins)}
        <li>
          {lanyard.neverOn.length === 0 ? t.offersEverywhere : t.neverOffersAt}
          <Removable
            items={lanyard.neverOn.map((site) => ({ id: site, name: site }))}
            removing={t.removeSite}
            onRemove={(site) => put({ neverOn: lanyard.neverOn.filter((one) => one !== site) })}
          />
          <AddName label={t.site} placeholder={t.example} adding={t.addSite} onAdd={addSite} />
        </li>
        <li>
          {t.guardedFillFillsIn}
          <Pick
            label={t.whenGuardedFillFillsIn}
            value={lanyard.fillsOnOpening ? "opening" : "asked"}
            choices={[
              ["asked", t.onlyWhenAsked],
              ["opening", t.asItsPageOpens],
            ]}
            onPick={(when) => put({ fillsOnOpening: when === "opening" })}
          />
          .
        </li>
      </Sentences>
      {choosing && (
        <Dialog title={t.addAGroup} open onClose={() => setChoosing(null)}>
          <Picker
            {...amongGroups}
            label={t.group}
            onPick={({ id, name }) => {
              setNames({ ...names, [id]: name });
              put({ [choosing]: [...new Set([...(lanyard[choosing] ?? []), id])] });
              setChoosing(null);
            }}
          />
        </Dialog>
      )}
    </>
  );
}
