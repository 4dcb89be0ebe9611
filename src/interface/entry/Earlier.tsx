"use client";

import Link from "next/link";
import { useRouter } from "next/navigation";
import { useState } from "react";
import styled from "styled-components";
import { CODE } from "@/core/kinds/kind";
import { exactTime, sayTime } from "@/core/time";
import type { EarlierValue, earlierVersions } from "@/server/vaults/earlier";
import { Page } from "../frame/Frame";
import { runCommand, runQuery, useCommand } from "../shared/ask";
import { Act, Button, ButtonLink, Chip, Notice, Row } from "../shared/controls";
import { useDone } from "../shared/Done";
import { capital } from "./Card";
import { earlier as t } from "./strings";

type View = Awaited<ReturnType<(typeof earlierVersions)["execute"]>>;
type Version = View["versions"][number];

const Split = styled.div`
  display: grid;
  grid-template-columns: 300px minmax(0, 1fr);
  gap: 0 48px;
  align-items: start;
  @media (max-width: 1023px) { grid-template-columns: minmax(0, 1fr); gap: 28px; }
`;

const Times = styled.ol`
  border-top: 3px solid var(--ink);
  li { border-bottom: 1px solid var(--rule); }
  button { display: block; width: 100%; padding: 8px 12px; border: 0; background: none; color: inherit; font: inherit; text-align: left; cursor: pointer; }
  button:hover { background: var(--lit); }
  button[aria-current] { background: var(--pick); box-shadow: inset 4px 0 var(--ink); }
  b { display: block; }
  @media (max-width: 1023px) { max-height: 260px; overflow: auto; }
`;

const Two = styled.table`
  width: 100%;
  border-top: 4px double var(--ink);
  border-collapse: collapse;
  table-layout: fixed;
  th, td { padding: 9px 16px 9px 0; border-bottom: 1px solid var(--rule); text-align: left; vertical-align: top; overflow-wrap: anywhere; }
  thead th { color: var(--soft); font-size: 14px; }
  th[scope="row"] { width: 132px; color: var(--soft); font-weight: 400; font-size: 14px; }
  tr[data-differs] { background: var(--lit); }
  .mono { font-size: 14px; }
  .acts { display: flex; flex-wrap: wrap; gap: 4px 16px; }
  @media (max-width: 719px) {
    thead { display: none; }
    tr { display: block; padding: 8px 0; border-bottom: 1px solid var(--rule); }
    th[scope="row"], td { display: block; width: auto; padding: 2px 8px; border: 0; }
    td[data-side]::before { content: attr(data-side) ": "; color: var(--soft); font-size: 13.5px; }
  }
`;

/** What stood there, and what stands there now, side by side; secrets hidden on both sides until revealed. */
export function Earlier({ entryId, first, zone, now }: { entryId: string; first: View; zone: string; now: number }) {
  const [older, setOlder] = useState<Version[]>([]);
  const [more, setMore] = useState(first.more);
  const versions = [...first.versions, ...older];
  const [chosen, setChosen] = useState(versions[1]?.id ?? versions[0]!.id);
  const version = versions.find((one) => one.id === chosen) ?? versions[0]!;
  const current = versions[0]!;
  const loadMore = async () => {
    const answer = await runQuery("vaults.earlierVersions", { entryId, before: versions.at(-1)!.number });
    if (!answer.ok) return;
    setOlder([...older, ...answer.result.versions]);
    setMore(answer.result.more);
  };
  return (
    <Page where={t.versionsOf(<Link href={`/entry/${entryId}`}>{first.name}</Link>, current.number)}>
      <Row style={{ marginBottom: 20 }}>
        <h1 style={{ marginRight: "auto" }}>{t.earlierVersions}</h1>
        <ButtonLink href={`/entry/${entryId}`}>{t.backToTheEntry}</ButtonLink>
      </Row>
      <Split>
        <nav aria-label={t.versions2}>
          <Times>
            {versions.map((one) => (
              <li key={one.id}>
                <button
                  type="button"
                  aria-current={one.id === version.id ? "true" : undefined}
                  onClick={() => setChosen(one.id)}
                >
                  <b title={exactTime(one.at, zone)}>{capital(sayTime(one.at, now, zone))}</b>
                  <span className="small">
                    {one.id === current.id && <Chip data-tone="plain">{t.now}</Chip>} {whatChanged(one)}
                  </span>
                  <span className="soft small" style={{ display: "block" }}>
                    {one.by}
                    {one.refused && t.rejectedByTheSite}
                  </span>
                </button>
              </li>
            ))}
          </Times>
          {more && (
            <div style={{ marginTop: 12 }}>
              <Button onPress={loadMore}>{t.showOlderOnes}</Button>
            </div>
          )}
        </nav>
        <Compare key={version.id} entryId={entryId} version={version} current={current} base={first.baseVersionId} />
      </Split>
    </Page>
  );
}

function whatChanged(version: Version): string {
  if (version.number === 1) return t.firstVersion;
  const changed = version.values.filter((value) => value.changed).map((value) => value.label.toLowerCase());
  return changed.length === 0 ? t.noVisibleChange : changed.join(", ");
}

interface CompareProps {
  entryId: string;
  version: Version;
  current: Version;
  base: string;
}

function Compare({ entryId, version, current, base }: CompareProps) {
  const router = useRouter();
  const done = useDone();
  const bring = useCommand("vaults.restoreVersion");
  const isNow = version.id === current.id;
  const ids = [...new Set([...version.values, ...current.values].map((value) => value.id))];
  const at = (side: Version, id: string) => side.values.find((value) => value.id === id);
  const shown = ids.filter((id) => at(version, id)?.filled || at(current, id)?.filled);
  const reinstate = async (fields: string[] | null) => {
    const items = [{ entryId, baseVersionId: base, versionId: version.id }];
    const answer = await bring.run({ items, fields });
    if (!answer.ok) return;
    const [row] = answer.result.rows;
    done(t.restoredFromVersion(version.number), [
      {
        command: "vaults.restoreVersion",
        input: { items: [{ entryId, baseVersionId: row!.versionId, versionId: row!.before }], fields: null },
      },
    ]);
    router.refresh();
  };
  return (
    <div>
      {bring.refused && (
        <Notice data-tone="bad" role="alert" style={{ marginBottom: 12 }}>
          {bring.refused.message}
        </Notice>
      )}
      <Two>
        <thead>
          <tr>
            <th style={{ width: 132 }}>
              <span className="unseen">{t.field}</span>
            </th>
            <th>{isNow ? t.versionNow(version.number) : t.version2(version.number)}</th>
            {!isNow && <th>{t.now2}</th>}
          </tr>
        </thead>
        <tbody>
          {shown.map((id) => {
            const [then, today] = [at(version, id), at(current, id)];
            const { label } = (then ?? today)!;
            const differs = !isNow && (then ? then.differs : true);
            return (
              <tr key={id} data-differs={differs || undefined}>
                <th scope="row">{label}</th>
                <td data-side={isNow ? undefined : "then"}>
                  <Value entryId={entryId} version={version} value={then} />
                  {differs && then && (
                    <Act onPress={() => reinstate([id])} isDisabled={bring.running} aria-label={t.restore(label)}>
                      {t.restore2}
                    </Act>
                  )}
                </td>
                {!isNow && (
                  <td data-side="now">
                    {differs ? (
                      <Value entryId={entryId} version={current} value={today} />
                    ) : (
                      <span className="soft">{t.theSame}</span>
                    )}
                  </td>
                )}
              </tr>
            );
          })}
        </tbody>
      </Two>
      {!isNow && (
        <Row style={{ marginTop: 16 }}>
          <Button onPress={() => reinstate(null)} isDisabled={bring.running}>
            {t.restoreAllOfVersion(version.number)}
          </Button>
          <span className="soft small">{t.theCurrentValuesStayAmongThe}</span>
        </Row>
      )}
    </div>
  );
}

const SHOWN_MS = 30_000;

function Value({ entryId, version, value }: { entryId: string; version: Version; value: EarlierValue | undefined }) {
  const [shown, setShown] = useState<string | null>(null);
  const [refused, setRefused] = useState("");
  if (!value?.filled) return <span className="soft">{t.noValue}</span>;
  if (value.class !== "secret")
    return (
      <span className={value.class === "identifier" ? "mono" : undefined} style={{ whiteSpace: "pre-wrap" }}>
        {value.value}{" "}
      </span>
    );
  const reveal = async () => {
    const input = { entryId, versionId: version.id, field: value.id, how: "revealed" as const };
    const answer = await runCommand("vaults.revealEarlier", input);
    if (!answer.ok) return setRefused(answer.refused.message);
    setRefused("");
    setShown(answer.result.value);
    setTimeout(() => setShown(null), SHOWN_MS);
  };
  return (
    <span className="acts">
      {shown === null ? (
        <span role="img" aria-label="hidden" style={{ letterSpacing: ".14em" }}>
          ••••••••••••
        </span>
      ) : (
        <span className="mono" data-secret style={{ whiteSpace: "pre-wrap" }}>
          {shown}
        </span>
      )}
      <Act
        onPress={() => (shown === null ? reveal() : setShown(null))}
        aria-label={t.ofVersion(
          shown !== null ? "Hide" : value.id === CODE ? t.showCode : "Reveal",
          value.label,
          version.number,
        )}
      >
        {shown === null ? (value.id === CODE ? t.showCode : t.reveal) : t.hide}
      </Act>
      {refused && (
        <span className="small" style={{ color: "var(--crimson)" }} role="alert">
          {refused}
        </span>
      )}
    </span>
  );
}
