"use client";

import Link from "next/link";
import { useRouter } from "next/navigation";
import { type ReactNode, useMemo, useState } from "react";
import styled from "styled-components";
import { sayDay, sayTime } from "@/core/time";
import { UPKEEP_ACTS, type UpkeepAct } from "@/core/upkeep/findings";
import type { ResultOf } from "@/server/registry";
import type { RunView } from "@/server/signin/runs";
import type { FindingRow } from "@/server/upkeep/findingsPage";
import type { HouseFinding } from "@/server/upkeep/house";
import { Page } from "../frame/Frame";
import { useCommand } from "../shared/ask";
import { Act, Button, ButtonLink, Notice, Row, TextField } from "../shared/controls";
import { Dialog } from "../shared/Dialog";
import { useDone } from "../shared/Done";
import { FilterSentence } from "../shared/FilterSentence";
import { Form } from "../shared/Form";
import { SelectionBar } from "../shared/SelectionBar";
import { useSettled } from "../shared/useSettled";
import { Head } from "../vaults/VaultList";
import { FindingsTable } from "./FindingsTable";
import { addressOf, FIRST_SHOWN, type UpkeepFilter } from "./filter";
import { PutOff } from "./PutOff";
import { AskToChange, Runs } from "./RunPanel";
import { SaveFindings } from "./SaveFindings";
import { upkeep as t } from "./strings";
import { type RunItem, useBeginRun } from "./useBeginRun";
import { sayFinding, sayHouseFinding } from "./words";
import { Years } from "./Years";

export type UpkeepView = ResultOf<"upkeep.upkeepPage">;

const Tools = styled.div`
  display: flex;
  flex-wrap: wrap;
  align-items: end;
  gap: 8px 16px;
  margin: 18px 0 12px;
  > div { width: 240px; }
`;

const Lines = styled.ul`
  max-width: 860px;
  margin-top: 8px;
  border-top: 1px solid var(--edge);
  li { display: flex; flex-wrap: wrap; justify-content: space-between; gap: 4px 16px; padding: 9px 0; border-bottom: 1px solid var(--rule); overflow-wrap: anywhere; }
  li > span { flex: 1 1 300px; }
`;

interface UpkeepProps {
  view: UpkeepView;
  /** For administrators. */
  house: readonly HouseFinding[];
  runs: readonly RunView[];
  /** What people have seen and is the reader's to change. */
  lists: ResultOf<"people.ownChangeLists">;
  filter: UpkeepFilter;
  now: number;
  owner: boolean;
}

/** What needs attention where one is steward, by the act that resolves it. */
export function Upkeep({ view, house, runs, lists, filter, now, owner }: UpkeepProps) {
  const { rows, zone } = view;
  const end = useCommand("access.endAccess");
  const done = useDone();
  const { begin, beginning, refused } = useBeginRun(null);
  const [picked, setPicked] = useState<ReadonlySet<string>>(new Set());
  const [asking, setAsking] = useState<Asking | null>(null);
  const underWay = new Set(runs.flatMap(({ over, lines }) => (over ? [] : lines.map(({ entryId }) => entryId))));
  const chosen = useMemo(() => rows.filter(({ id }) => picked.has(id)), [rows, picked]);
  const pick = (ids: readonly string[], on: boolean) =>
    setPicked((before) => new Set(on ? [...before, ...ids] : [...before].filter((id) => !ids.includes(id))));
  const free = chosen.filter(({ nodeId }) => !underWay.has(nodeId));
  const changeable = items(free.filter((row) => row.act === "change" && row.changedBy === "galtry"));
  const testable = items(free.filter((row) => row.act === "sign-in" && row.type === "entry"));
  const grants = chosen.filter((row) => row.grant && row.act === "access");
  const endAll = async (list: readonly FindingRow[]) => {
    let ended = 0;
    for (const row of list) {
      if (!(await end.run({ grantId: row.grant!.id })).ok) break;
      ended += 1;
    }
    if (ended > 0) done(t.ended(ended));
    setPicked(new Set());
  };
  return (
    <Page where={view.vaults.length === 0 ? t.whereNothing : <Where view={view} now={now} />}>
      <Head>
        <h1>{t.upkeep}</h1>
        {view.open > 0 && <SaveFindings filter={filter} now={now} />}
      </Head>
      <Runs {...{ runs, refused }} />
      {lists.length > 0 && (
        <Notice data-tone="plain" style={{ marginBottom: 16 }}>
          <ul aria-label={t.toChange}>
            {lists.map((list) => (
              <li key={list.personId}>
                <Link href={`/people/${list.personId}/known`} prefetch={false}>
                  {t.hasSeen[list.sort](list.name, list.open)}
                </Link>{" "}
                <span className="soft">{t.changeBy(sayDay(list.dueAt, now, zone))}</span>
              </li>
            ))}
          </ul>
        </Notice>
      )}
      {end.refused && (
        <Notice data-tone="bad" role="alert" style={{ marginBottom: 16 }}>
          {end.refused.message}
        </Notice>
      )}
      {view.open === 0 ? (
        <Nothing />
      ) : (
        <>
          <Lead view={view} />
          <Filters view={view} filter={filter} />
          {rows.length === 0 ? (
            <p>
              {t.nothingFits} <Link href="/upkeep">{t.showAll}</Link>
            </p>
          ) : (
            <FindingsTable
              {...{ rows, picked, now, zone, beginning, underWay }}
              counts={view.acts}
              several={view.vaults.length > 1}
              onPick={pick}
              onChange={(row) => setAsking({ what: "change", items: items([row]) })}
              onTest={(row) => void begin("test", items([row]))}
              onEndAccess={(row) => setAsking({ what: "end", rows: [row] })}
            />
          )}
          {view.found > rows.length && (
            <Row style={{ marginTop: 12 }}>
              <ButtonLink href={addressOf({ ...filter, most: Math.min(2_000, filter.most + 400) })}>
                {t.showMore(view.found - rows.length)}
              </ButtonLink>
            </Row>
          )}
        </>
      )}
      {chosen.length > 0 && (
        <SelectionBar className="on-baize">
          <span>{t.selected(chosen.length)}</span>
          {changeable.length > 0 && (
            <Button isDisabled={beginning} onPress={() => setAsking({ what: "change", items: changeable })}>
              {t.changePasswords(changeable.length)}
            </Button>
          )}
          {testable.length > 0 && (
            <Button isDisabled={beginning} onPress={() => void begin("test", testable)}>
              {t.testLogins(testable.length)}
            </Button>
          )}
          {grants.length > 0 && (
            <Button isDisabled={beginning} onPress={() => setAsking({ what: "end", rows: grants })}>
              {t.endGrants(grants.length)}
            </Button>
          )}
          <Button onPress={() => setAsking({ what: "put off", ids: chosen.map(({ id }) => id) })}>{t.putOff}</Button>
          <Button onPress={() => setPicked(new Set())}>{t.clear}</Button>
        </SelectionBar>
      )}
      {view.putOff.length > 0 && <PutOffList view={view} now={now} />}
      {house.length > 0 && <TheHouse rows={house} now={now} zone={zone} />}
      {view.elsewhere.length > 0 && <Elsewhere view={view} owner={owner} />}
      {view.years.length > 0 && <Years years={view.years} />}
      {asking?.what === "change" && (
        <AskToChange
          items={asking.items}
          onClose={() => setAsking(null)}
          onStart={() => {
            setPicked(new Set());
            void begin("change", asking.items);
          }}
        />
      )}
      {asking?.what === "end" && (
        <AskToEnd
          rows={asking.rows}
          {...{ now, zone }}
          onClose={() => setAsking(null)}
          onEnd={() => void endAll(asking.rows)}
        />
      )}
      {asking?.what === "put off" && (
        <PutOff
          ids={asking.ids}
          zone={zone}
          onClose={() => setAsking(null)}
          onDone={() => {
            setAsking(null);
            setPicked(new Set());
          }}
        />
      )}
    </Page>
  );
}

type Asking =
  | { what: "change"; items: RunItem[] }
  | { what: "end"; rows: readonly FindingRow[] }
  | { what: "put off"; ids: string[] };

/** Each entry once, however many findings it has. */
const items = (rows: readonly FindingRow[]): RunItem[] => [
  ...new Map(rows.map(({ nodeId, name }) => [nodeId, { entryId: nodeId, name }])).values(),
];

function Where({ view, now }: { view: UpkeepView; now: number }) {
  const { vaults, leaks } = view;
  const named =
    vaults.length > 3
      ? t.yourVaults(vaults.length)
      : joined(
          vaults.map(({ id, name }) => (
            <Link key={id} href={`/vaults/${id}`}>
              {name}
            </Link>
          )),
        );
  return (
    <>
      {t.where(named, view.open, view.entries)}{" "}
      {!leaks.set
        ? t.leaksOff
        : leaks.readAt === null
          ? t.leaksNotYet
          : t.leaksRead(sayTime(leaks.readAt, now, view.zone))}
    </>
  );
}

/** “A, B and C”, of what is no text. */
function joined(parts: readonly ReactNode[]): ReactNode {
  return parts.map((part, i) => (
    <span key={i}>
      {i > 0 && (i === parts.length - 1 ? " and " : ", ")}
      {part}
    </span>
  ));
}

function Nothing() {
  return (
    <div style={{ maxWidth: 620, marginTop: 12 }}>
      <p>
        <b>{t.nothingAtAll}</b>
      </p>
      <p className="soft">{t.nothingAtAllSays}</p>
    </div>
  );
}

const MOST_NAMED = 3;

function Lead({ view }: { view: UpkeepView }) {
  if (view.today === 0) return <p>{t.noneForToday(view.open)}</p>;
  const named = [...new Map(view.rows.filter(({ today }) => today).map((row) => [row.nodeId, row])).values()];
  const first = joined(
    named.slice(0, MOST_NAMED).map((row) => (
      <Link key={row.nodeId} href={row.link} prefetch={false}>
        {row.name}
      </Link>
    )),
  );
  const more = named.length - MOST_NAMED;
  return <p>{t.resolveToday(more > 0 ? t.andMore(first, more) : first, named.length, view.open - view.today)}</p>;
}

function Filters({ view, filter }: { view: UpkeepView; filter: UpkeepFilter }) {
  const router = useRouter();
  const [typed, setTyped] = useState(filter.find);
  const go = (change: Partial<UpkeepFilter>) =>
    router.replace(addressOf({ ...filter, ...change, most: FIRST_SHOWN }), { scroll: false });
  const find = useSettled((text: string) => go({ find: text.trim() }));
  return (
    <Tools>
      <div>
        <TextField
          type="search"
          label={<span className="unseen">{t.filterBy}</span>}
          placeholder={t.filter}
          value={typed}
          onText={(text) => {
            setTyped(text);
            find(text);
          }}
          maxLength={80}
        />
      </div>
      <FilterSentence>
        {t.showing(
          <select
            aria-label={t.which}
            value={filter.act ?? ""}
            data-said={filter.act ? "" : undefined}
            onChange={(event) => go({ act: (event.target.value || null) as UpkeepAct | null })}
          >
            <option value="">{t.allFindings}</option>
            {UPKEEP_ACTS.map((act) => (
              <option key={act} value={act}>
                {t.acts[act]}
              </option>
            ))}
          </select>,
          <select
            aria-label={t.inWhich}
            value={filter.vaultId ?? ""}
            data-said={filter.vaultId ? "" : undefined}
            onChange={(event) => go({ vaultId: event.target.value || null })}
          >
            <option value="">{t.allMyVaults(view.vaults.length)}</option>
            {view.vaults.map(({ id, name }) => (
              <option key={id} value={id}>
                {name}
              </option>
            ))}
          </select>,
        )}
      </FilterSentence>
    </Tools>
  );
}

interface AskToEndProps {
  rows: readonly FindingRow[];
  now: number;
  zone: string;
  onEnd: () => void;
  onClose: () => void;
}

function AskToEnd({ rows, now, zone, onEnd, onClose }: AskToEndProps) {
  return (
    <Dialog open title={t.endGrants(rows.length)} onClose={onClose}>
      <Form
        verb={t.endAccess}
        look="harm"
        onSend={() => {
          onClose();
          onEnd();
        }}
        onCancel={onClose}
      >
        <ul className="small" style={{ maxHeight: 240, overflow: "auto" }}>
          {rows.map((row) => (
            <li key={row.id}>
              {row.name}: {sayFinding(row, now, zone)}
            </li>
          ))}
        </ul>
      </Form>
    </Dialog>
  );
}

/** What is found of the house itself. */
function TheHouse({ rows, now, zone }: { rows: readonly HouseFinding[]; now: number; zone: string }) {
  return (
    <section style={{ marginTop: 36 }} aria-label={t.theHouse}>
      <h2>{t.theHouse}</h2>
      <Lines>
        {rows.map((row, i) => (
          <li key={i}>
            <span>{sayHouseFinding(row, now, zone)}</span>
            {HOUSE_LINKS[row.kind] && (
              <Link href={HOUSE_LINKS[row.kind]!.href} prefetch={false}>
                {HOUSE_LINKS[row.kind]!.says}
              </Link>
            )}
          </li>
        ))}
      </Lines>
    </section>
  );
}

const HOUSE_LINKS: Partial<Record<HouseFinding["kind"], { href: string; says: string }>> = {
  journal: { href: "/journal", says: t.journal },
  checkpoint: { href: "/journal", says: t.journal },
  lanyards: { href: "/people", says: t.peoplePage },
  ways: { href: "/rules", says: t.houseRules },
  mail: { href: "/rules", says: t.houseRules },
  certificate: { href: "/people/sign-on", says: t.singleSignOn },
};

function PutOffList({ view, now }: { view: UpkeepView; now: number }) {
  const undo = useCommand("upkeep.undoPutOff");
  const done = useDone();
  return (
    <section style={{ marginTop: 36 }} aria-label={t.putOffList}>
      <h2>{t.putOffList}</h2>
      {undo.refused && <p role="alert">{undo.refused.message}</p>}
      <Lines>
        {view.putOff.map((row) => (
          <li key={row.id}>
            <span>
              {t.putOffUntil(
                <Link href={row.link} prefetch={false}>
                  {row.name}
                </Link>,
                sayFinding(row, now, view.zone),
                sayTime(row.putOff!.until, now, view.zone),
                row.putOff!.by,
                row.putOff!.why,
              )}
            </span>
            <Act
              isDisabled={undo.running}
              onPress={async () => {
                if ((await undo.run({ ids: [row.id] })).ok) done(t.undone);
              }}
            >
              {t.undo}
            </Act>
          </li>
        ))}
      </Lines>
    </section>
  );
}

function Elsewhere({ view, owner }: { view: UpkeepView; owner: boolean }) {
  return (
    <section style={{ marginTop: 36 }} aria-label={t.elsewhere}>
      <h2>{t.elsewhere}</h2>
      <p className="small soft">{t.elsewhereSays}</p>
      <Lines>
        {view.elsewhere.map((vault) => (
          <li key={vault.vaultId}>
            <span>
              <b>{vault.name}</b>
              {vault.noSteward && <span style={{ color: "var(--crimson)", fontWeight: 600 }}> {t.noSteward}</span>}
            </span>
            {vault.noSteward && owner && <Link href="/vaults">{t.takeStewardship}</Link>}
            <span className="soft" style={{ flex: "none" }}>
              {t.elsewhereLine(vault.open, vault.today)}
            </span>
          </li>
        ))}
      </Lines>
    </section>
  );
}
