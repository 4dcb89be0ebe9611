"use client";

import Link from "next/link";
import { levelWord } from "@/core/access/level";
import { strengthOf } from "@/core/generator/strengthWords";
import type { LedgerColumn } from "@/core/ledgerView";
import { siteName } from "@/core/signin/address";
import { exactTime, sayDay } from "@/core/time";
import { FINDINGS, type FindingKind } from "@/core/upkeep/findings";
import { FINDING_NAMES } from "@/core/upkeep/names";
import type { LedgerRow } from "@/server/vaults/vaults";
import { useCommand } from "../shared/ask";
import { CutKey } from "../shared/CutKey";
import { Act } from "../shared/controls";
import { ledgerTable as t } from "./strings";

interface CellProps {
  column: LedgerColumn;
  row: LedgerRow;
  bin: boolean;
  zone: string;
  now: number;
}

export function Cell({ column, row, bin, zone, now }: CellProps) {
  switch (column) {
    case "kind":
      return <>{row.kind}</>;
    case "address":
      return (
        <span className="mono" title={row.signInPage}>
          {siteName(row.signInPage)}
        </span>
      );
    case "tags":
      return <span title={row.tags.join(", ")}>{row.tags.join(", ")}</span>;
    case "who":
      return <>{row.people === null ? "" : t.people(row.people)}</>;
    case "strength":
      return <StrengthWord row={row} />;
    case "upkeep":
      return row.finding === null ? null : <Finding kind={row.finding} findings={row.findings} />;
    case "used":
      return row.usedAt === null ? null : (
        <span title={exactTime(row.usedAt, zone)}>{sayDay(row.usedAt, now, zone)}</span>
      );
    case "changed": {
      const at = bin ? row.binnedAt! : row.changedAt;
      return bin || row.type === "entry" ? <span title={exactTime(at, zone)}>{sayDay(at, now, zone)}</span> : null;
    }
    case "you":
      if (bin) return row.binnedWith === null || row.binnedWith === row.id ? <Restore row={row} /> : null;
      return row.level === "none" ? null : (
        <>
          <CutKey level={row.level} inherited={!row.setHere} silent /> {levelWord(row.level)}
        </>
      );
  }
}

function StrengthWord({ row }: { row: LedgerRow }) {
  if (row.guesses === null) return null;
  const { word } = strengthOf(row.guesses);
  const weak = word === "weak" || word === "very weak";
  return (
    <span style={weak ? { color: "var(--crimson)", fontWeight: 600 } : undefined}>
      {word}
      {row.same !== null && row.same > 1 && `, ${row.same}×`}
    </span>
  );
}

/** The one that does most harm, and how many there are besides. */
function Finding({ kind, findings }: { kind: FindingKind; findings: number }) {
  const words = findings > 1 ? t.andMore(FINDING_NAMES[kind], findings - 1) : FINDING_NAMES[kind];
  return (
    <span title={words} style={FINDINGS[kind].today ? { color: "var(--crimson)", fontWeight: 600 } : undefined}>
      {words}
    </span>
  );
}

function Restore({ row }: { row: LedgerRow }) {
  const restore = useCommand(row.type === "folder" ? "vaults.restoreFolder" : "vaults.restoreEntry");
  return (
    <>
      <Act
        onPress={() => restore.run(row.type === "folder" ? { folderId: row.id } : { entryIds: [row.id] })}
        isDisabled={restore.running}
        aria-label={t.restore(row.name)}
      >
        {t.restore2}
      </Act>
      {restore.refused && <span role="alert">{restore.refused.message} </span>}
      {restore.refused?.data?.placeGone === true && row.type === "entry" && (
        <Link href={`/entry/${row.id}`}>{t.chooseAPlace}</Link>
      )}
    </>
  );
}
