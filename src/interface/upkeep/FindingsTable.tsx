"use client";

import Link from "next/link";
import { Fragment } from "react";
import styled from "styled-components";
import { exactTime, sayTime } from "@/core/time";
import { UPKEEP_ACTS, type UpkeepAct } from "@/core/upkeep/findings";
import type { FindingRow } from "@/server/upkeep/findingsPage";
import { Act, ActLink, Chip, Tick } from "../shared/controls";
import { Stamp } from "../shared/Stamp";
import { upkeep as t } from "./strings";
import { changedByHandAt, sayFinding } from "./words";

const Table = styled.table`
  width: 100%;
  table-layout: fixed;
  border-collapse: collapse;
  background: var(--sheet);
  --ground: var(--sheet);
  border-top: 3px solid var(--ink);
  th { padding: 8px 12px 8px 0; text-align: left; font-size: 13.5px; font-weight: 600; color: var(--soft); border-bottom: 1px solid var(--edge); }
  td { padding: 10px 12px 10px 0; vertical-align: top; border-bottom: 1px solid var(--rule); line-height: 22px; overflow-wrap: anywhere; }
  .tick { width: 42px; padding-left: 12px; }
  .name { width: 25%; }
  .since { width: 15%; }
  .for { width: 15%; }
  .do { width: 132px; text-align: right; }
  .do button { min-height: 22px; }
  .what { display: grid; grid-template-columns: 36px minmax(0, 1fr); gap: 10px; align-items: start; }
  .what small { display: block; }
  tr.act td { padding: 18px 12px 8px 0; background: var(--paper); }
  tr[data-picked] td { background: var(--pick); --ground: var(--pick); }
  tr[data-today] .says { color: var(--crimson); font-weight: 600; }
  @media (max-width: 899px) {
    thead { display: none; }
    &, tbody, tr, td { display: block; width: auto !important; }
    tr { position: relative; padding: 10px 12px 12px 44px; border-bottom: 1px solid var(--rule); }
    tr.act { padding: 14px 0 6px; background: var(--paper); }
    td { padding: 0 0 4px; border: 0; text-align: left !important; }
    td.tick { position: absolute; left: 12px; top: 12px; padding: 0; }
    tr.act td { padding: 0 12px; }
    td.tick:empty { display: none; }
  }
`;

export interface TableActs {
  onChange: (row: FindingRow) => void;
  onTest: (row: FindingRow) => void;
  onEndAccess: (row: FindingRow) => void;
  beginning: boolean;
  /** Entries that are in a run now. */
  underWay: ReadonlySet<string>;
}

interface TableProps extends TableActs {
  rows: readonly FindingRow[];
  counts: Record<UpkeepAct, number>;
  /** They are of several vaults: each row names its own. */
  several: boolean;
  picked: ReadonlySet<string>;
  onPick: (ids: readonly string[], on: boolean) => void;
  now: number;
  zone: string;
}

/** Findings by the act that resolves them, the group that does most harm first. */
export function FindingsTable({ rows, counts, several, picked, onPick, now, zone, ...acts }: TableProps) {
  const all = rows.length > 0 && rows.every(({ id }) => picked.has(id));
  return (
    <Table>
      <thead>
        <tr>
          <th className="tick" scope="col">
            <Tick
              type="checkbox"
              aria-label={t.selectAll(rows.length)}
              checked={all}
              onChange={() =>
                onPick(
                  rows.map(({ id }) => id),
                  !all,
                )
              }
            />
          </th>
          <th className="name" scope="col">
            {t.what}
          </th>
          <th scope="col">{t.why}</th>
          <th className="since" scope="col">
            {t.since}
          </th>
          <th className="for" scope="col">
            {t.who}
          </th>
          <th className="do" scope="col">
            <span className="unseen">{t.whatYouCanDo}</span>
          </th>
        </tr>
      </thead>
      <tbody>
        {UPKEEP_ACTS.map((act) => {
          const own = rows.filter((row) => row.act === act);
          if (own.length === 0) return null;
          return (
            <Fragment key={act}>
              <tr className="act">
                <td className="tick" />
                <td colSpan={5}>
                  <b>{t.groups[act]}</b>{" "}
                  <span className="soft small">
                    {t.groupCount(counts[act])} {t.groupSays[act]}
                  </span>
                </td>
              </tr>
              {own.map((row) => (
                <OneFinding
                  key={row.id}
                  {...{ row, several, now, zone, ...acts }}
                  picked={picked.has(row.id)}
                  onPick={(on) => onPick([row.id], on)}
                />
              ))}
            </Fragment>
          );
        })}
      </tbody>
    </Table>
  );
}

interface OneProps extends TableActs {
  row: FindingRow;
  several: boolean;
  picked: boolean;
  onPick: (on: boolean) => void;
  now: number;
  zone: string;
}

function OneFinding({ row, several, picked, onPick, now, zone, ...acts }: OneProps) {
  const why = sayFinding(row, now, zone);
  return (
    <tr data-picked={picked || undefined} data-today={row.today || undefined}>
      <td className="tick">
        <Tick
          type="checkbox"
          aria-label={t.select(row.name, why)}
          checked={picked}
          onChange={(event) => onPick(event.target.checked)}
        />
      </td>
      <td className="name">
        <span className="what">
          <Stamp name={row.name} picture={row.picture} />
          <span>
            <Link href={row.link} prefetch={false}>
              {row.name}
            </Link>
            {row.type !== "vault" && several && <small className="soft">{row.vault}</small>}
          </span>
        </span>
      </td>
      <td>
        {row.today && (
          <>
            <Chip data-tone="plain">{t.today}</Chip>{" "}
          </>
        )}
        <span className="says">{why}</span>
      </td>
      <td className="since soft" title={exactTime(row.since, zone)}>
        {sayTime(row.since, now, zone)}
      </td>
      <td className="for soft">{forWhom(row)}</td>
      <td className="do">
        <TheAct row={row} {...acts} />
      </td>
    </tr>
  );
}

function forWhom(row: FindingRow): string {
  if (row.kind === "rejected" || row.kind === "fails") return t.cannotSignIn(row.usedBy);
  return row.grant ? t.givenBy(row.grant.by) : t.people(row.usedBy);
}

/** The one act that resolves it: done here, or the page where it is done. */
function TheAct({ row, onChange, onTest, onEndAccess, beginning, underWay }: TableActs & { row: FindingRow }) {
  const link = (href: string, label: string) => (
    <ActLink href={href} prefetch={false} aria-label={`${label}: ${row.name}`}>
      {label}
    </ActLink>
  );
  const press = (act: (row: FindingRow) => void, label: string) => (
    <Act
      onPress={() => act(row)}
      isDisabled={beginning || underWay.has(row.nodeId)}
      aria-label={`${label}: ${row.name}`}
    >
      {label}
    </Act>
  );
  switch (row.act) {
    case "change":
      if (row.changedBy === "galtry") return press(onChange, t.changeNow);
      return link(changedByHandAt(row.nodeId, row.changedBy), t.changeByHand);
    case "steward":
      return link(`/access/${row.vaultId}`, t.addSteward);
    case "sign-in":
      if (row.kind === "untested") return press(onTest, t.test);
      if (row.kind === "no-code") return link(`/entry/${row.nodeId}?edit`, t.addCodes);
      return row.kind === "fails" || row.kind === "asks-a-person"
        ? link(`/entry/${row.nodeId}/steps`, t.correctSteps)
        : link(`/entry/${row.nodeId}?edit`, t.correctLogin);
    case "access":
      return row.kind === "passed" || row.kind === "unused-access"
        ? press(onEndAccess, t.endAccess)
        : link(`/access/${row.vaultId}`, t.reviewAccess);
    case "date":
      return row.kind === "unused" ? link(row.link, t.openEntry) : link(`/entry/${row.nodeId}?edit`, t.enterNewDate);
  }
}
