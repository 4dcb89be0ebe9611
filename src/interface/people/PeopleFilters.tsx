"use client";

import { useRouter } from "next/navigation";
import { useEffect, useState } from "react";
import { addressOf, EVERYBODY, type PeopleFilter } from "@/core/people/peopleFilter";
import { Act, Row, TextField } from "../shared/controls";
import { Dialog } from "../shared/Dialog";
import { FilterSentence } from "../shared/FilterSentence";
import { Picker } from "../shared/Picker";
import { amongGroups } from "./findGroups";
import { peopleFilters as t } from "./strings";

interface FiltersProps {
  filter: PeopleFilter;
  /** The name of the group in it. */
  group: string | null;
}

/** What the list shows, as one sentence whose dotted parts can be changed. */
export function PeopleFilters({ filter, group }: FiltersProps) {
  const router = useRouter();
  const [finding, setFinding] = useState(false);
  const go = (change: Partial<PeopleFilter>) =>
    router.replace(`/people${addressOf({ ...filter, ...change })}`, { scroll: false });
  const part = <Key extends "role" | "state" | "way" | "seen">(
    key: Key,
    label: string,
    says: Record<PeopleFilter[Key], string>,
  ) => (
    <select
      aria-label={label}
      value={filter[key]}
      data-said={filter[key] === EVERYBODY[key] ? undefined : ""}
      onChange={(event) => go({ [key]: event.target.value })}
    >
      {(Object.entries(says) as [string, string][]).map(([value, text]) => (
        <option key={value} value={value}>
          {text}
        </option>
      ))}
    </select>
  );
  return (
    <Row style={{ marginBottom: 12, alignItems: "flex-end", gap: "8px 24px" }}>
      <FindPeople filter={filter} />
      <FilterSentence>
        {t.showing} {part("role", t.roles, t.role)} {part("state", t.states, t.state)}
        {t.in}{" "}
        {group === null ? (
          <Act onPress={() => setFinding(true)}>{t.anyGroup}</Act>
        ) : (
          <Act data-said="" onPress={() => go({ group: null })} aria-label={t.notOnly(group)}>
            {group} ×
          </Act>
        )}
        {t.whoSignIn} {part("way", t.ways, t.way)}
        {t.lastSeen} {part("seen", t.seens, t.seen)}.
      </FilterSentence>
      {finding && (
        <Dialog title={t.onlyAGroup} open onClose={() => setFinding(false)}>
          <Picker
            label={t.group}
            {...amongGroups}
            all
            onPick={({ id }) => {
              setFinding(false);
              go({ group: id });
            }}
          />
        </Dialog>
      )}
    </Row>
  );
}

/** Looked for on the server, as soon as typing pauses. */
function FindPeople({ filter }: { filter: PeopleFilter }) {
  const router = useRouter();
  const [typed, setTyped] = useState(filter.text);
  useEffect(() => {
    const text = typed.trim();
    if (text === filter.text) return;
    const pause = setTimeout(() => router.replace(`/people${addressOf({ ...filter, text })}`, { scroll: false }), 250);
    return () => clearTimeout(pause);
  }, [typed, filter, router]);
  return (
    <div style={{ flex: "0 1 300px" }}>
      <TextField
        label={t.findAPerson}
        type="search"
        placeholder={t.partOfANameOrEmailAddress}
        value={typed}
        onText={setTyped}
      />
    </div>
  );
}
