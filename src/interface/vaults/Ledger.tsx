"use client";

import Link from "next/link";
import { useRouter } from "next/navigation";
import { useMemo, useState } from "react";
import { atLeast, levelWord } from "@/core/access/level";
import { matcherOf } from "@/core/finder";
import type { Packed } from "@/core/packed";
import { sayTime } from "@/core/time";
import type { LedgerRow } from "@/server/vaults/vaults";
import { WhoCanDoWhat, type WhoView } from "../entry/WhoCanDoWhat";
import { ExportSheet } from "../export/ExportSheet";
import { Page } from "../frame/Frame";
import { useCommand } from "../shared/ask";
import { Button, Notice, Row, TextField } from "../shared/controls";
import { Stamp } from "../shared/Stamp";
import { useUnpacked } from "../shared/useUnpacked";
import { Arrange } from "./Arrange";
import { arrange, isHeading, sortRows, withMoved } from "./arrange";
import { BulkActions } from "./BulkActions";
import { CarrySheet } from "./CarrySheet";
import { type Chosen, choose, chooseAll, NOTHING_CHOSEN } from "./chosen";
import { DropToTop } from "./LedgerRow";
import { LedgerTable } from "./LedgerTable";
import type { LedgerOf } from "./ledgerOf";
import { MakeFolder } from "./MakeFolder";
import { ledger as t } from "./strings";
import { TagList } from "./TagList";
import { useMoveInto, useOpenFolders, useView } from "./useLedger";
import { Head } from "./VaultList";
import { VaultSheet } from "./VaultSheet";
import { VaultSwitch } from "./VaultSwitch";

interface LedgerProps {
  vault: LedgerOf;
  packed: Packed<LedgerRow>;
  who: WhoView | null;
  zone: string;
  now: number;
  /** Folder to open, with those around it. */
  inside: string | null;
}

type Sheet = "folder" | "arrange" | "vault" | "tags" | "out";

/** One vault's ledger: a line an entry, arranged as one likes it. Ten thousand rows scroll as one. */
export function Ledger({ vault, packed, who, zone, now, inside }: LedgerProps) {
  const router = useRouter();
  const here = useUnpacked(packed);
  const [view, keepView] = useView(vault.id, vault.view);
  const [open, turn] = useOpenFolders(here, inside, vault.view.open, keepView);
  const [sheet, setSheet] = useState<Sheet | null>(null);
  const [filter, setFilter] = useState("");
  const [bin, setBin] = useState(false);
  const [whoOpen, setWhoOpen] = useState(false);
  const [chosen, setChosen] = useState<Chosen>(NOTHING_CHOSEN);
  const rows = bin ? vault.bin : here;
  const placed = useMemo(() => (bin ? rows.map(inTheBin) : rows), [rows, bin]);
  const lines = useMemo(
    () => arrange(placed, { view: bin ? { ...view, group: "folder" } : view, open, matches: matcher(filter) }).lines,
    [placed, view, open, filter, bin],
  );
  const order = useMemo(() => lines.flatMap((line) => (isHeading(line) ? [] : [line.row.id])), [lines]);
  const chosenRows = useMemo(() => rows.filter((row) => chosen.ids.has(row.id)), [rows, chosen]);
  const { moveInto, asking, close } = useMoveInto(vault.id, here, () => setChosen(NOTHING_CHOSEN));
  const mayAdd = atLeast(vault.level, "edit") && vault.asideAt === null;
  const shift = (id: string, by: -1 | 1) =>
    keepView({
      own: withMoved(
        sortRows(here, view).map((row) => row.id),
        id,
        by,
      ),
    });
  const mayMove = !bin && here.some((row) => atLeast(row.level, "edit"));
  return (
    <Page where={<Whereabouts vault={vault} rows={here} />}>
      <Head>
        {vault.picture && <Stamp name={vault.name} picture={vault.picture} large />}
        <h1>{vault.name}</h1>
        {(bin || vault.bin.length > 0) && (
          <Button
            onPress={() => {
              setBin(!bin);
              setChosen(NOTHING_CHOSEN);
            }}
          >
            {bin ? t.backToTheEntries : t.bin(vault.bin.length)}
          </Button>
        )}
        {who && (
          <Button onPress={() => setWhoOpen(!whoOpen)} aria-expanded={whoOpen}>
            {t.whoCanDoWhat}
          </Button>
        )}
        {vault.level === "steward" && <Button onPress={() => setSheet("vault")}>{t.vaultSettings}</Button>}
        {vault.level !== "steward" && vault.taker && atLeast(vault.level, "reveal") && (
          <Button onPress={() => setSheet("out")}>{t.exportTheVault}</Button>
        )}
        {mayAdd && <Button onPress={() => setSheet("folder")}>{t.createAFolder}</Button>}
        {mayAdd && <Button onPress={() => router.push(`/vaults/${vault.id}/import`)}>{t.importAFile}</Button>}
        {mayAdd && (
          <Button look="go" onPress={() => router.push(`/vaults/${vault.id}/new`)}>
            {t.addAnEntry}
          </Button>
        )}
      </Head>
      {vault.description && (
        <p className="soft" style={{ margin: "-8px 0 16px" }}>
          {vault.description}
        </p>
      )}
      {vault.asideAt !== null && <Aside vault={vault} zone={zone} now={now} />}
      {who && whoOpen && (
        <div style={{ maxWidth: 560, marginBottom: 40 }}>
          <p style={{ marginBottom: 12 }}>
            <Link href={`/access/${vault.id}`}>{t.showEverything}</Link>
          </p>
          <WhoCanDoWhat nodeId={vault.id} nodeWord={t.theWholeVault} who={who} zone={zone} now={now} />
        </div>
      )}
      {!bin &&
        vault.imports.map((one) => (
          <p key={one.id} className="small" style={{ marginBottom: 12 }}>
            {t.imported(sayTime(one.at, now, zone), one.rows)}
            <Link href={`/vaults/${vault.id}/imports/${one.id}`} prefetch={false}>
              {t.checkOrUndoIt}
            </Link>
          </p>
        ))}
      {rows.length > 0 && (
        <Row style={{ marginBottom: 12, alignItems: "end" }}>
          {rows.length > 8 && (
            <div style={{ width: 300, maxWidth: "100%" }}>
              <TextField
                label={<span className="unseen">{t.filter}</span>}
                placeholder={t.filter}
                value={filter}
                onText={setFilter}
              />
            </div>
          )}
          <Button onPress={() => setSheet("arrange")}>{t.arrange}</Button>
          {here.some((row) => row.tags.length > 0) && <Button onPress={() => setSheet("tags")}>{t.tags}</Button>}
          <VaultSwitch here={vault.id} />
        </Row>
      )}
      {rows.length === 0 ? (
        <p style={{ maxWidth: "60ch" }}>
          {bin ? t.theBinIsEmpty : mayAdd ? t.noEntriesYetAddOneOrSign : t.noEntriesYet}
        </p>
      ) : (
        <>
          {mayMove && <DropToTop name={vault.name} onNodes={(ids) => moveInto(ids, null)} />}
          <LedgerTable
            lines={lines}
            columns={view.columns}
            view={view}
            onSort={(sort) => keepView({ sort, reverse: view.sort === sort && !view.reverse })}
            open={open}
            turn={turn}
            vaultId={vault.id}
            bin={bin}
            zone={zone}
            now={now}
            chosen={chosen}
            onChoose={(id, how) => setChosen((before) => choose(before, order, id, how))}
            onChooseAll={(all) => setChosen(all ? chooseAll(order) : NOTHING_CHOSEN)}
            onOpen={(row) =>
              row.type === "folder" ? turn(row.id, !open.has(row.id)) : router.push(`/entry/${row.id}`)
            }
            onMove={mayMove ? moveInto : null}
            onShift={view.sort === "own" && !view.reverse && !bin ? shift : null}
          />
        </>
      )}
      {rows.length > 0 && lines.length === 0 && <p style={{ marginTop: 12 }}>{t.nothingHereMatches(filter)}</p>}
      {chosenRows.length > 0 && !bin && (
        <BulkActions
          vaultId={vault.id}
          taker={vault.taker}
          rows={chosenRows}
          onNone={() => setChosen(NOTHING_CHOSEN)}
        />
      )}
      {sheet === "folder" && (
        <MakeFolder parent={vault} onClose={() => setSheet(null)} onMade={(folderId) => turn(folderId, true)} />
      )}
      {sheet === "arrange" && <Arrange view={view} onChange={keepView} onClose={() => setSheet(null)} />}
      {sheet === "vault" && <VaultSheet vault={vault} rows={here} onClose={() => setSheet(null)} />}
      {sheet === "out" && <ExportSheet nodes={[vault]} onClose={() => setSheet(null)} />}
      {sheet === "tags" && <TagList vaultId={vault.id} onClose={() => setSheet(null)} onShow={setFilter} />}
      {asking && <CarrySheet how="move" nodes={asking.nodes} vaultId={vault.id} to={asking.to} onClose={close} />}
    </Page>
  );
}

/** What went into the bin with a folder is shown in it; the rest stands at the top. */
const inTheBin = (row: LedgerRow): LedgerRow => ({
  ...row,
  parentId: row.binnedWith === row.id ? null : row.binnedWith,
});

/** As in the finder: words in any order, without accents. */
function matcher(filter: string) {
  const matches = matcherOf(filter);
  return (
    matches &&
    ((row: LedgerRow, way: string) =>
      matches(row.name, `${row.description} ${row.kind} ${row.signInPage} ${row.tags.join(" ")} ${way}`))
  );
}

function Whereabouts({ vault, rows }: { vault: LedgerOf; rows: LedgerRow[] }) {
  const entries = rows.filter((row) => row.type === "entry").length;
  const folders = rows.length - entries;
  return (
    <>
      <Link href="/vaults">{t.vaults}</Link> · <b>{vault.name}</b>. {t.entries(entries)}
      {folders > 0 && t.inFolders(folders)}
      {vault.people !== null && t.peopleHaveTheWhole(vault.people)}.{" "}
      {atLeast(vault.level, "steward") ? (
        <b>{t.youAreAStewardOfIt}</b>
      ) : vault.level === "none" ? (
        t.youHaveAccessToSingleEntries
      ) : (
        t.youHave(levelWord(vault.level))
      )}
    </>
  );
}

function Aside({ vault, zone, now }: { vault: LedgerOf; zone: string; now: number }) {
  const back = useCommand("vaults.setVaultAside");
  return (
    <Notice style={{ marginBottom: 16 }}>
      {t.sinceItStaysHereButNothingIn(<b>{t.thisVaultIsSetAside}</b>, sayTime(vault.asideAt!, now, zone))}
      {vault.level === "steward" && (
        <Row style={{ marginTop: 8 }}>
          <Button onPress={() => back.run({ vaultId: vault.id, aside: false })} isDisabled={back.running}>
            {t.reinstate}
          </Button>
        </Row>
      )}
    </Notice>
  );
}
