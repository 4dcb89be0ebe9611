"use client";

import { useWindowVirtualizer } from "@tanstack/react-virtual";
import { FolderClosed, FolderOpen } from "lucide-react";
import Link from "next/link";
import { useRouter } from "next/navigation";
import { useEffect, useMemo, useRef, useState } from "react";
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
import { MakeFolder } from "./MakeFolder";
import { folderAndAbove, growTree, matchingRows, type Shown, shownRows } from "./tree";
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
  .folder { display: flex; align-items: center; gap: 10px; min-width: 0; height: 100%; padding: 0 8px 0 8px; border: 0; background: none; color: inherit; font: inherit; cursor: pointer; }
  .folder svg { flex: none; }
  .what a.change { flex: none; font-weight: 400; text-decoration: underline 1px var(--edge); text-underline-offset: 3px; }
  .folder b { overflow: hidden; text-overflow: ellipsis; font-weight: 600; }
  .you { display: flex; align-items: center; gap: 8px; }
  @media (max-width: 1023px) { [role="row"] { grid-template-columns: minmax(0, 1fr) 120px 120px; } .addr, .when, .kind { display: none; } }
  @media (max-width: 719px) { [role="row"] { grid-template-columns: minmax(0, 1fr) 110px; } .who, .folder .soft { display: none; } .what > span:last-child { display: grid; grid-template-columns: minmax(0, 1fr); gap: 0; line-height: 19px; } }
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
  inside,
}: {
  vault: Omit<LedgerView, "rows">;
  packed: Packed<LedgerRow>;
  who: WhoView | null;
  zone: string;
  now: number;
  /** Folder to open, with those around it. */
  inside: string | null;
}) {
  const router = useRouter();
  const here = useUnpacked(packed);
  const entries = useMemo(() => here.filter((row) => row.type === "entry"), [here]);
  const [open, setOpen] = useOpenFolders(vault.id, here, inside);
  const [making, setMaking] = useState(false);
  const [filter, setFilter] = useState("");
  const [bin, setBin] = useState(false);
  const [whoOpen, setWhoOpen] = useState(false);
  const rows = bin ? vault.bin : here;
  const tree = useMemo(
    () =>
      growTree(
        bin
          ? rows.map((row) => ({ ...row, parentId: row.binnedWith === row.id ? null : (row.binnedWith ?? null) }))
          : rows,
      ),
    [rows, bin],
  );
  const shown = useMemo(() => {
    const wanted = filter.trim().toLowerCase();
    if (wanted === "") return shownRows(tree, open);
    return matchingRows(tree, rows, (row, way) =>
      `${row.name} ${row.description} ${row.kind} ${row.signInPage} ${way}`.toLowerCase().includes(wanted),
    );
  }, [filter, rows, tree, open]);
  return (
    <Page
      where={
        <>
          <Link href="/vaults">Vaults</Link> · <b>{vault.name}</b>. {entries.length.toLocaleString("en-GB")}{" "}
          {entries.length === 1 ? "entry" : "entries"}
          {here.length > entries.length && (
            <>
              {" "}
              in {here.length - entries.length} {here.length - entries.length === 1 ? "folder" : "folders"}
            </>
          )}
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
        {atLeast(vault.level, "edit") && <Button onPress={() => setMaking(true)}>Make a folder</Button>}
        {atLeast(vault.level, "edit") && (
          <Button onPress={() => router.push(`/vaults/${vault.id}/bring-in`)}>Bring in a file</Button>
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
            <Table rows={shown} open={open} setOpen={setOpen} vaultId={vault.id} bin={bin} zone={zone} now={now} />
          )}
          {rows.length > 0 && shown.length === 0 && <p style={{ marginTop: 12 }}>Nothing here matches “{filter}”.</p>}
        </div>
      </Two>
      {making && (
        <MakeFolder
          parent={vault}
          onClose={() => setMaking(false)}
          onMade={(folderId) => setOpen((now) => new Set([...now, folderId]))}
        />
      )}
    </Page>
  );
}

/** Kept for this browser; a folder that is asked for is open with all around it. */
function useOpenFolders(vaultId: string, rows: LedgerRow[], inside: string | null) {
  const [open, setOpen] = useState<ReadonlySet<string>>(() => new Set(inside ? folderAndAbove(rows, inside) : []));
  const key = `galtry.open.${vaultId}`;
  const [read, setRead] = useState(false);
  useEffect(() => {
    const kept = JSON.parse(localStorage.getItem(key) ?? "[]") as string[];
    setOpen((now) => new Set([...kept, ...now]));
    setRead(true);
  }, [key]);
  useEffect(() => {
    if (read) localStorage.setItem(key, JSON.stringify([...open]));
  }, [key, open, read]);
  useEffect(() => {
    if (inside) document.getElementById(`row-${inside}`)?.scrollIntoView({ block: "center" });
  }, [inside]);
  return [open, setOpen] as const;
}

interface TableProps {
  rows: Shown<LedgerRow>[];
  open: ReadonlySet<string>;
  setOpen: (change: (now: ReadonlySet<string>) => ReadonlySet<string>) => void;
  vaultId: string;
  bin: boolean;
  zone: string;
  now: number;
}

function Table({ rows, open, setOpen, vaultId, bin, zone, now }: TableProps) {
  const turn = (id: string, wanted: boolean) =>
    setOpen((before) => {
      const after = new Set(before);
      if (wanted) after.add(id);
      else after.delete(id);
      return after;
    });
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
          const { row, depth, inside, way } = rows[item.index]!;
          return (
            <div
              key={row.id}
              id={`row-${row.id}`}
              role="row"
              data-type={row.type}
              aria-rowindex={item.index + 2}
              style={{ position: "absolute", insetInline: 0, top: item.start - virtual.options.scrollMargin }}
            >
              <span role="cell" className="what" title={row.name} style={{ paddingLeft: depth * 24 }}>
                {row.type === "folder" ? (
                  <>
                    <FolderName row={row} inside={inside} open={open.has(row.id)} turn={turn} />
                    {row.level !== "none" && (
                      <Link
                        className="small change"
                        href={`/vaults/${vaultId}/folder/${row.id}`}
                        prefetch={false}
                        aria-label={`Change ${row.name}`}
                      >
                        Change
                      </Link>
                    )}
                  </>
                ) : (
                  <>
                    <Stamp name={row.name} />
                    <span>
                      <Link href={`/entry/${row.id}`} prefetch={false}>
                        {row.name}
                      </Link>
                      {(row.description || way) && (
                        <span className="soft small">{[way, row.description].filter(Boolean).join(" · ")}</span>
                      )}
                    </span>
                  </>
                )}
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
                {bin
                  ? sayDay(row.binnedAt ?? row.changedAt, now, zone)
                  : row.type === "entry" && sayDay(row.changedAt, now, zone)}
              </span>
              <span role="cell" className="you">
                {bin && (row.binnedWith === null || row.binnedWith === row.id) && <Restore row={row} />}
                {!bin && row.level !== "none" && (
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

interface FolderNameProps {
  row: LedgerRow;
  inside: number;
  open: boolean;
  turn: (id: string, open: boolean) => void;
}

/** Opens and closes in place; the arrow keys do too. */
function FolderName({ row, inside, open, turn }: FolderNameProps) {
  const Sign = open ? FolderOpen : FolderClosed;
  return (
    <button
      type="button"
      className="folder"
      aria-expanded={open}
      onClick={() => turn(row.id, !open)}
      onKeyDown={(event) => {
        if (event.key === "ArrowRight") turn(row.id, true);
        else if (event.key === "ArrowLeft") turn(row.id, false);
      }}
    >
      <Sign size={20} strokeWidth={1.6} aria-hidden />
      <b>{row.name}</b>
      <span className="soft small">{inside === 0 ? "empty" : inside === 1 ? "1 entry" : `${inside} entries`}</span>
    </button>
  );
}

function Restore({ row }: { row: LedgerRow }) {
  const restore = useCommand(row.type === "folder" ? "vaults.restoreFolder" : "vaults.restore");
  return (
    <>
      <Act
        onPress={() => restore.run(row.type === "folder" ? { folderId: row.id } : { entryId: row.id })}
        isDisabled={restore.running}
        aria-label={`Restore ${row.name}`}
      >
        Restore
      </Act>
      {restore.refused && <span role="alert">{restore.refused.message}</span>}
    </>
  );
}
