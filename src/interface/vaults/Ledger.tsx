"use client";

import { useWindowVirtualizer } from "@tanstack/react-virtual";
import Link from "next/link";
import { useRouter } from "next/navigation";
import { useMemo, useRef, useState } from "react";
import styled from "styled-components";
import { atLeast, levelWord } from "@/core/access/level";
import { siteName } from "@/core/signin/address";
import { exactTime, sayDay } from "@/core/time";
import type { vaultLedger } from "@/server/vaults/vaults";
import { WhoCanDoWhat, type WhoView } from "../entry/WhoCanDoWhat";
import { Page } from "../frame/Frame";
import { useCommand } from "../shared/ask";
import { CutKey } from "../shared/CutKey";
import { Act, Button, TextField } from "../shared/controls";
import { type Packed, useUnpacked } from "../shared/packed";
import { Stamp } from "../shared/Stamp";
import { Head } from "./VaultList";

type LedgerView = Awaited<ReturnType<(typeof vaultLedger)["execute"]>>;
type LedgerRow = LedgerView["rows"][number];

const COLUMNS = "minmax(0, 1fr) 132px 190px 96px 104px 120px";
const ROW = 44;

const Rows = styled.div`
  border-top: 3px solid var(--ink);
  background: var(--sheet);
  --ground: var(--sheet);
  [role="row"] { display: grid; grid-template-columns: ${COLUMNS}; gap: 12px; align-items: center; height: ${ROW}px; padding: 0 12px; border-bottom: 1px solid var(--rule); }
  [role="row"].head { height: 38px; border-bottom-color: var(--edge); color: var(--soft); font-size: 13.5px; font-weight: 650; }
  [role="row"]:not(.head):hover { background: var(--lit); --ground: var(--lit); }
  [role="cell"] { min-width: 0; overflow: hidden; text-overflow: ellipsis; white-space: nowrap; font-size: 13.5px; }
  .what { display: flex; align-items: center; gap: 10px; font-size: 15px; }
  .what > span:last-child { display: flex; gap: 10px; min-width: 0; align-items: baseline; }
  .what a { overflow: hidden; text-overflow: ellipsis; font-weight: 600; text-decoration: none; }
  .what .soft { min-width: 0; flex-shrink: 4; overflow: hidden; text-overflow: ellipsis; }
  .what a:hover { text-decoration: underline 1px; }
  .you { display: flex; align-items: center; gap: 8px; }
  @media (max-width: 1023px) { [role="row"] { grid-template-columns: minmax(0, 1fr) 120px 120px; } .addr, .when, .kind { display: none; } }
  @media (max-width: 719px) { [role="row"] { grid-template-columns: minmax(0, 1fr) 110px; } .who { display: none; } .what > span:last-child { display: grid; grid-template-columns: minmax(0, 1fr); gap: 0; line-height: 19px; } }
`;

const Two = styled.div`
  display: grid;
  grid-template-columns: minmax(0, 1fr);
  gap: 40px;
`;

/** One vault's ledger: a line an entry. Ten thousand rows scroll as one. */
export function Ledger({
  vault,
  packed,
  who,
  zone,
  now,
}: {
  vault: Omit<LedgerView, "rows">;
  packed: Packed<LedgerRow>;
  who: WhoView | null;
  zone: string;
  now: number;
}) {
  const router = useRouter();
  const entries = useUnpacked(packed);
  const [filter, setFilter] = useState("");
  const [bin, setBin] = useState(false);
  const [whoOpen, setWhoOpen] = useState(false);
  const rows = bin ? vault.bin : entries;
  const shown = useMemo(() => {
    const wanted = filter.trim().toLowerCase();
    return wanted === ""
      ? rows
      : rows.filter((row) =>
          `${row.name} ${row.description} ${row.kind} ${row.signInPage}`.toLowerCase().includes(wanted),
        );
  }, [filter, rows]);
  return (
    <Page
      where={
        <>
          <Link href="/vaults">Vaults</Link> · <b>{vault.name}</b>. {entries.length.toLocaleString("en-GB")}{" "}
          {entries.length === 1 ? "entry" : "entries"}
          {vault.people !== null && (
            <>
              ; {vault.people} {vault.people === 1 ? "person reaches" : "people reach"} the whole vault
            </>
          )}
          .{" "}
          {atLeast(vault.level, "steward") ? (
            <b>You are a steward here.</b>
          ) : vault.level === "none" ? (
            "You reach single entries here."
          ) : (
            <>You have {levelWord(vault.level)} here.</>
          )}
        </>
      }
    >
      <Head>
        <h1>{vault.name}</h1>
        {vault.bin.length > 0 && (
          <Button onPress={() => setBin(!bin)}>{bin ? "Back to the entries" : `Bin (${vault.bin.length})`}</Button>
        )}
        {who && (
          <Button onPress={() => setWhoOpen(!whoOpen)} aria-expanded={whoOpen}>
            Who can do what
          </Button>
        )}
        {atLeast(vault.level, "edit") && (
          <Button look="go" onPress={() => router.push(`/vaults/${vault.id}/new`)}>
            Add an entry
          </Button>
        )}
      </Head>
      {vault.description && (
        <p className="soft" style={{ margin: "-8px 0 16px" }}>
          {vault.description}
        </p>
      )}
      <Two>
        {who && whoOpen && (
          <div style={{ maxWidth: 560 }}>
            <WhoCanDoWhat nodeId={vault.id} nodeWord="the whole vault" who={who} zone={zone} now={now} />
          </div>
        )}
        <div>
          {rows.length > 8 && (
            <div style={{ maxWidth: 300, marginBottom: 12 }}>
              <TextField
                label={<span className="unseen">Filter</span>}
                placeholder="Filter"
                value={filter}
                onText={setFilter}
              />
            </div>
          )}
          {rows.length === 0 ? (
            <p style={{ maxWidth: "60ch" }}>
              {bin
                ? "The bin is empty."
                : atLeast(vault.level, "edit")
                  ? "Nothing is kept here yet. Add an entry, or sign in to a site as usual and let Lanyard keep the login."
                  : "Nothing is kept here yet."}
            </p>
          ) : (
            <Table rows={shown} bin={bin} zone={zone} now={now} />
          )}
          {rows.length > 0 && shown.length === 0 && <p style={{ marginTop: 12 }}>No entry here matches “{filter}”.</p>}
        </div>
      </Two>
    </Page>
  );
}

function Table({ rows, bin, zone, now }: { rows: LedgerRow[]; bin: boolean; zone: string; now: number }) {
  const parent = useRef<HTMLDivElement>(null);
  const virtual = useWindowVirtualizer({
    count: rows.length,
    estimateSize: () => ROW,
    overscan: 12,
    scrollMargin: parent.current?.offsetTop ?? 0,
    initialRect: { width: 1200, height: 900 },
  });
  return (
    <Rows role="table" aria-rowcount={rows.length + 1} aria-label={bin ? "Bin" : "Entries"}>
      <div role="rowgroup">
        <div role="row" className="head" aria-rowindex={1}>
          <span role="columnheader">Name</span>
          <span role="columnheader" className="kind">
            Kind
          </span>
          <span role="columnheader" className="addr">
            Address
          </span>
          <span role="columnheader" className="who">
            Who
          </span>
          <span role="columnheader" className="when">
            {bin ? "Binned" : "Changed"}
          </span>
          <span role="columnheader">You</span>
        </div>
      </div>
      <div ref={parent} role="rowgroup" style={{ height: virtual.getTotalSize(), position: "relative" }}>
        {virtual.getVirtualItems().map((item) => {
          const row = rows[item.index]!;
          return (
            <div
              key={row.id}
              role="row"
              aria-rowindex={item.index + 2}
              style={{ position: "absolute", insetInline: 0, top: item.start - virtual.options.scrollMargin }}
            >
              <span role="cell" className="what" title={row.name}>
                <Stamp name={row.name} />
                <span>
                  <Link href={`/entry/${row.id}`} prefetch={false}>
                    {row.name}
                  </Link>
                  {row.description && <span className="soft small">{row.description}</span>}
                </span>
              </span>
              <span role="cell" className="kind soft">
                {row.kind}
              </span>
              <span role="cell" className="addr mono" title={row.signInPage}>
                {siteName(row.signInPage)}
              </span>
              <span role="cell" className="who soft">
                {row.people === null ? "" : `${row.people} ${row.people === 1 ? "person" : "people"}`}
              </span>
              <span role="cell" className="when soft" title={exactTime(row.binnedAt ?? row.changedAt, zone)}>
                {bin ? <Restore id={row.id} name={row.name} /> : sayDay(row.changedAt, now, zone)}
              </span>
              <span role="cell" className="you">
                {row.level !== "none" && (
                  <>
                    <CutKey level={row.level} inherited={!row.setHere} silent /> {levelWord(row.level)}
                  </>
                )}
              </span>
            </div>
          );
        })}
      </div>
    </Rows>
  );
}

function Restore({ id, name }: { id: string; name: string }) {
  const restore = useCommand("vaults.restore");
  return (
    <Act onPress={() => restore.run({ entryId: id })} isDisabled={restore.running} aria-label={`Restore ${name}`}>
      Restore
    </Act>
  );
}
