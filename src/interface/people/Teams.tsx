"use client";

import Link from "next/link";
import { useRouter } from "next/navigation";
import { useEffect, useState } from "react";
import styled from "styled-components";
import type { Change } from "@/core/access";
import { LEVELS, levelWord } from "@/core/access/level";
import { sayTime } from "@/core/time";
import type { ResultOf } from "@/server/registry";
import { Foreseen } from "../access/Foreseen";
import { Page } from "../frame/Frame";
import { runQuery, useCommand } from "../shared/ask";
import { CheckField, labelLook } from "../shared/controls";
import { MomentField } from "../shared/DateFields";
import { type Step, useDone } from "../shared/Done";
import { Form } from "../shared/Form";
import { fromLocal } from "../shared/localTime";
import { PickSeveral } from "../shared/PickSeveral";
import { Head } from "../vaults/VaultList";
import { findGroups } from "./findGroups";
import { teams as t } from "./strings";

type View = ResultOf<"people.teamsPage">;
type Vaults = ResultOf<"people.teamsPreview">;

const Table = styled.table`
  width: 100%;
  border-collapse: collapse;
  border-top: 3px solid var(--ink);
  background: var(--sheet);
  --ground: var(--sheet);
  th, td { padding: 8px 10px; border-bottom: 1px solid var(--rule); text-align: left; vertical-align: top; line-height: 20px; overflow-wrap: anywhere; }
  th { font: 600 13.5px/20px var(--text); color: var(--soft); }
  td:first-child { font-weight: 650; }
  [data-same] { color: var(--soft); }
  [data-gone] { color: var(--crimson); font-weight: 650; }
`;

const Legend = styled.legend`${labelLook}`;

interface TeamsProps {
  view: View;
  me: string;
  zone: string;
  now: number;
}

/** Somebody changes teams: what they leave and join, at a moment, and beside it what they have before and after. */
export function Teams({ view, me, zone, now }: TeamsProps) {
  const change = useCommand("people.changeMembers");
  const done = useDone();
  const router = useRouter();
  const [leaves, setLeaves] = useState<ReadonlySet<string>>(new Set());
  const [joins, setJoins] = useState<{ id: string; name: string }[]>([]);
  const [when, setWhen] = useState("");
  const at = fromLocal(when, zone);
  const left = view.groups.filter(({ id }) => leaves.has(id));
  const changes = [
    ...joins.map(({ id }) => ({ groupId: id, held: { from: at, until: null, keeper: false } })),
    ...left.map((group) => ({
      groupId: group.id,
      held: at === null ? null : { from: group.from, until: at, keeper: group.keeper },
    })),
  ].map((one) => ({ ...one, personId: view.id }));
  const send = async () => {
    const answer = await change.run({ changes });
    if (!answer.ok) return;
    const back = changes.map(({ groupId, personId }) => {
      const before = view.groups.find(({ id }) => id === groupId);
      return {
        groupId,
        personId,
        held: before ? { from: before.from, until: before.until, keeper: before.keeper } : null,
      };
    });
    const undo: Step[] = [{ command: "people.changeMembers", input: { changes: back } }];
    done(at === null ? t.hasChanged(view.name) : t.willChange(view.name, sayTime(at, now, zone)), undo);
    router.push(`/people/${view.id}`);
  };
  const wrongAt = change.refused?.field?.match(/\.(from|until)$/) ? change.refused.message : null;
  return (
    <Page where={t.where(<Link href="/people">{t.people}</Link>, <Link href={`/people/${view.id}`}>{view.name}</Link>)}>
      <Head>
        <h1>{t.changesTeams(view.name)}</h1>
      </Head>
      <Form
        wide
        verb={t.changeTeams}
        onSend={send}
        running={change.running}
        unready={changes.length === 0}
        wrong={wrongAt ? null : (change.refused?.message ?? null)}
        onCancel={() => router.push(`/people/${view.id}`)}
      >
        <div>
          <fieldset>
            <Legend>{t.leaves}</Legend>
            {view.groups.length === 0 && <p className="soft">{t.inNoGroup}</p>}
            {view.groups.map((group) => (
              <CheckField
                key={group.id}
                checked={leaves.has(group.id)}
                disabled={group.byProvider}
                hint={
                  group.byProvider
                    ? t.providerDecides
                    : group.until !== null && group.until > now
                      ? t.until(sayTime(group.until, now, zone))
                      : undefined
                }
                onTick={(ticked) =>
                  setLeaves(new Set(ticked ? [...leaves, group.id] : [...leaves].filter((id) => id !== group.id)))
                }
                label={group.name}
              />
            ))}
          </fieldset>
          <div style={{ margin: "20px 0" }}>
            <PickSeveral
              label={t.joins}
              seen
              placeholder={t.partOfTheName}
              list={t.groups}
              nothing={t.noMatch}
              load={async (typed) =>
                (await findGroups(typed))?.filter(({ id }) => !view.groups.some((group) => group.id === id)) ?? null
              }
              searches
              chosen={joins}
              onChange={setJoins}
              remove={t.notThis}
            />
          </div>
          <MomentField
            label={t.when}
            value={when}
            onText={setWhen}
            time="09:00"
            wrong={wrongAt}
            hint={t.leaveEmptyForAtOnce}
          />
        </div>
        <div>
          <BeforeAndAfter
            personId={view.id}
            leave={left.map(({ id }) => id)}
            join={joins.map(({ id }) => id)}
            when={at}
          />
          <div style={{ marginTop: 20 }}>
            <Foreseen
              title={t.whereYouAreSteward}
              changes={changes.map(({ held, ...of }): Change => {
                if (held === null) return { type: "member", ...of, held };
                const { keeper, ...times } = held;
                return { type: "member", ...of, held: times, keeper };
              })}
              {...{ zone, now, me }}
            />
          </div>
        </div>
      </Form>
    </Page>
  );
}

interface BesideProps {
  personId: string;
  leave: string[];
  join: string[];
  when: number | null;
}

/** What they have in each vault, before and after, side by side. */
function BeforeAndAfter(asked: BesideProps) {
  const [vaults, setVaults] = useState<Vaults | null>(null);
  const [wrong, setWrong] = useState<string | null>(null);
  const key = JSON.stringify(asked);
  useEffect(() => {
    let current = true;
    void runQuery("people.teamsPreview", JSON.parse(key)).then((answer) => {
      if (!current) return;
      if (answer.ok) setVaults(answer.result);
      setWrong(answer.ok ? null : answer.refused.message);
    });
    return () => {
      current = false;
    };
  }, [key]);
  if (wrong) return <p role="alert">{wrong}</p>;
  if (!vaults) return <p className="soft">{t.checking}</p>;
  if (vaults.length === 0) return <p className="soft">{t.nothingEither}</p>;
  return (
    <Table aria-live="polite">
      <thead>
        <tr>
          <th scope="col">{t.vault}</th>
          <th scope="col">{t.before}</th>
          <th scope="col">{t.after}</th>
        </tr>
      </thead>
      <tbody>
        {vaults.map(({ id, name, before, after }) => {
          const [was, is] = [sayLevels(before), sayLevels(after)];
          return (
            <tr key={id}>
              <td>{name}</td>
              <td className="soft">{was}</td>
              <td data-same={was === is ? "" : undefined} data-gone={is === t.nothing ? "" : undefined}>
                {was === is ? t.same : is}
              </td>
            </tr>
          );
        })}
      </tbody>
    </Table>
  );
}

/** "Use on 4 entries, Reveal on 2". */
const sayLevels = (counted: Vaults[number]["before"]): string =>
  LEVELS.filter((level) => counted[level] > 0)
    .map((level, i) => t.levelOn(levelWord(level), counted[level], i === 0))
    .join(", ") || t.nothing;
