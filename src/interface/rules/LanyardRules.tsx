"use client";

import { useState } from "react";
import styled from "styled-components";
import { houseRulesSchema, type HouseRules as Rules } from "@/core/access/houseRules";
import { findGroups } from "../people/findGroups";
import { Act, Button, TextField } from "../shared/controls";
import { Dialog } from "../shared/Dialog";
import { Picker } from "../shared/Picker";
import { Pick, Sentences, type SetRules } from "./ruleParts";
import { lanyardRules as t } from "./strings";

type Lanyard = Rules["lanyard"];

const List = styled.ul`
  line-height: 28px;
  li { display: flex; gap: 14px; padding: 0; border: 0; line-height: inherit; }
`;

const Adding = styled.form`
  display: flex;
  flex-wrap: wrap;
  gap: 8px;
  align-items: end;
  max-width: 420px;
  line-height: 22px;
  > :first-child { flex: 1; }
`;

/** Who may use Lanyard and add with it, by group, and the sites at which it offers nobody anything. */
export function LanyardRules({ rules, set, groups }: { rules: Rules; set: SetRules; groups: Record<string, string> }) {
  const [names, setNames] = useState(groups);
  const [choosing, setChoosing] = useState<"use" | "add" | null>(null);
  const { lanyard } = rules;
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
            <List>
              {chosen.map((id) => (
                <li key={id}>
                  <b>{names[id] ?? t.aGroup}</b>
                  <Act
                    aria-label={t.removeGroup(names[id] ?? t.aGroup)}
                    onPress={() => {
                      const left = chosen.filter((one) => one !== id);
                      put({ [which]: left.length > 0 ? left : null });
                    }}
                  >
                    {t.remove}
                  </Act>
                </li>
              ))}
            </List>
            <Button onPress={() => setChoosing(which)} isDisabled={chosen.length >= 20}>
              {t.addAGroup}
            </Button>
          </>
        )}
      </li>
    );
  };
  return (
    <>
      <h2>{t.lanyard}</h2>
      <Sentences>
        {rule("use", t.lanyardCanBeUsedBy, t.whoCanUseLanyard)}
        {rule("add", t.loginsCanBeAddedBy, t.whoCanAddLogins)}
        <NeverOn sites={lanyard.neverOn} onChange={(neverOn) => put({ neverOn })} />
      </Sentences>
      {choosing && (
        <Dialog title={t.addAGroup} open onClose={() => setChoosing(null)}>
          <Picker
            label={t.group}
            seen
            placeholder={t.partOfTheName}
            list={t.groups}
            nothing={t.noMatch}
            load={findGroups}
            searches
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

function NeverOn({ sites, onChange }: { sites: readonly string[]; onChange: (sites: string[]) => void }) {
  const [typed, setTyped] = useState("");
  const [wrong, setWrong] = useState<string | null>(null);
  const add = () => {
    const read = houseRulesSchema.shape.lanyard.safeParse({ neverOn: [...sites, typed] });
    setWrong(read.success ? null : (read.error.issues[0]?.message ?? null));
    if (!read.success) return;
    onChange([...new Set(read.data.neverOn)]);
    setTyped("");
  };
  return (
    <li>
      {sites.length === 0 ? t.offersEverywhere : t.neverOffersAt}
      {sites.length > 0 && (
        <List>
          {sites.map((site) => (
            <li key={site}>
              <b>{site}</b>
              <Act aria-label={t.removeSite(site)} onPress={() => onChange(sites.filter((one) => one !== site))}>
                {t.remove}
              </Act>
            </li>
          ))}
        </List>
      )}
      <Adding
        onSubmit={(event) => {
          event.preventDefault();
          add();
        }}
      >
        <TextField label={t.site} placeholder={t.example} value={typed} onText={setTyped} wrong={wrong} />
        <Button type="submit" isDisabled={typed.trim() === ""}>
          {t.add}
        </Button>
      </Adding>
    </li>
  );
}
