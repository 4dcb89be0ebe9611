"use client";

import { useState } from "react";
import { writeCsv } from "@/core/formats/csv";
import { exactTime } from "@/core/time";
import { runQuery } from "../shared/ask";
import { Button } from "../shared/controls";
import { useDone } from "../shared/Done";
import { save } from "../shared/save";
import type { UpkeepFilter } from "./filter";
import { upkeep as t } from "./strings";
import { sayFinding } from "./words";

/** As many as one answer holds. */
const MOST = 2_000;

/** What is listed, as a file; it says no more than the page. */
export function SaveFindings({ filter, now }: { filter: UpkeepFilter; now: number }) {
  const [running, setRunning] = useState(false);
  const done = useDone();
  const saveAll = async () => {
    setRunning(true);
    const answer = await runQuery("upkeep.upkeepPage", { ...filter, most: MOST });
    setRunning(false);
    if (!answer.ok) return done(answer.refused.message);
    const { rows, zone } = answer.result;
    const lines = rows.map((row) => [
      t.groups[row.act],
      row.name,
      row.vault,
      sayFinding(row, now, zone),
      exactTime(row.since, zone),
      row.today ? t.csvYes : t.csvNo,
      String(row.usedBy),
    ]);
    save(new Blob(["\uFEFF", writeCsv(t.csvHead, lines)]), `upkeep-${new Date(now).toISOString().slice(0, 10)}.csv`);
  };
  return (
    <Button onPress={() => void saveAll()} isDisabled={running}>
      {t.saveAsCsv}
    </Button>
  );
}
