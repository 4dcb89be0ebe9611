"use client";

import { useRouter } from "next/navigation";
import { useState } from "react";
import { atLeast } from "@/core/access/level";
import type { LedgerRow } from "@/server/vaults/vaults";
import { TagField, toTags } from "../entry/TagField";
import { ExportSheet } from "../export/ExportSheet";
import { Button, CheckField } from "../shared/controls";
import { Dialog } from "../shared/Dialog";
import { type Step, useDone } from "../shared/Done";
import { Form } from "../shared/Form";
import { SelectionBar } from "../shared/SelectionBar";
import { CarrySheet } from "./CarrySheet";
import { GiveSeveral } from "./GiveSeveral";
import { SetField } from "./SetField";
import { foot as t } from "./strings";
import { undoRewrites } from "./undoRewrites";
import { useInPieces } from "./useInPieces";

interface FootProps {
  vaultId: string;
  /** May take out what they may reveal. */
  taker: boolean;
  rows: LedgerRow[];
  onNone: () => void;
}

type Sheet = "move" | "copy" | "tag" | "field" | "give" | "out" | "bin";

/** What can be done with what is chosen; each act says how many, and can be taken back where that is possible. */
export function BulkActions({ vaultId, taker, rows, onNone }: FootProps) {
  const router = useRouter();
  const done = useDone();
  const [sheet, setSheet] = useState<Sheet | null>(null);
  const { running, refused, inPieces, stop } = useInPieces();
  const entries = rows.filter((row) => row.type === "entry");
  const ids = entries.map((row) => row.id);
  const edit = rows.every((row) => atLeast(row.level, "edit"));
  const steward = rows.every((row) => row.level === "steward");
  const onlyEntries = entries.length === rows.length;
  const aside = entries.length > 0 && entries.every((row) => row.asideAt !== null);
  const what = rows.length === 1 ? rows[0]!.name : t.entriesAndFolders(rows.length.toLocaleString("en-GB"));
  const finish = (says: string, undo: Step[]) => {
    setSheet(null);
    onNone();
    done(says, undo);
    router.refresh();
  };
  const setAside = async (wanted: boolean) => {
    // Those that are so already stay so when this is taken back.
    const others = entries.filter((row) => (row.asideAt !== null) !== wanted).map((row) => row.id);
    const undo = await inPieces(
      others,
      500,
      "vaults.setAside",
      (entryIds) => ({ entryIds, aside: wanted }),
      (entryIds) => ({
        command: "vaults.setAside",
        input: { entryIds, aside: !wanted },
      }),
    );
    if (undo) finish(wanted ? t.setAside(what) : t.broughtBack(what), undo);
  };
  const bin = async () => {
    const folders = rows.filter((row) => row.type === "folder").map((row) => row.id);
    const a = await inPieces(
      folders,
      1,
      "vaults.binFolder",
      ([folderId = ""]) => ({ folderId }),
      ([folderId = ""]) => ({
        command: "vaults.restoreFolder",
        input: { folderId },
      }),
    );
    // What lies in a folder that went is in the bin with it.
    const left = a && ids.filter((id) => !folders.some((folder) => liesIn(rows, id, folder)));
    const b =
      left &&
      (await inPieces(
        left,
        500,
        "vaults.binEntry",
        (entryIds) => ({ entryIds }),
        (entryIds) => ({
          command: "vaults.restoreEntry",
          input: { entryIds },
        }),
      ));
    if (a && b) finish(t.putInTheBin(what), [...a, ...b]);
  };
  return (
    <>
      <SelectionBar role="toolbar" aria-label={t.selection}>
        <span role="status">
          {running
            ? t.ofWord(running.done.toLocaleString("en-GB"), running.of.toLocaleString("en-GB"))
            : t.selected(rows.length.toLocaleString("en-GB"))}
        </span>
        {running ? (
          <Button onPress={stop}>{t.stop}</Button>
        ) : (
          <>
            <Button isDisabled={!edit} onPress={() => setSheet("move")}>
              {t.move}
            </Button>
            <Button isDisabled={!edit} onPress={() => setSheet("copy")}>
              {t.duplicate}
            </Button>
            <Button isDisabled={!edit || !onlyEntries} onPress={() => setSheet("tag")}>
              {t.tag}
            </Button>
            <Button isDisabled={!edit || !onlyEntries} onPress={() => setSheet("field")}>
              {t.setAField}
            </Button>
            <Button isDisabled={!steward} onPress={() => setSheet("give")}>
              {t.giveAccess}
            </Button>
            <Button
              isDisabled={!steward && !(taker && rows.every((row) => atLeast(row.level, "reveal")))}
              onPress={() => setSheet("out")}
            >
              {t.exportWord}
            </Button>
            <Button isDisabled={!edit || !onlyEntries} onPress={() => setAside(!aside)}>
              {aside ? t.reinstate : t.setAside2}
            </Button>
            <Button isDisabled={!steward} onPress={() => setSheet("bin")}>
              {t.putInTheBin2}
            </Button>
            <Button onPress={onNone}>{t.clearSelection}</Button>
          </>
        )}
        {refused && (
          <span role="alert" style={{ flexBasis: "100%", fontWeight: 400 }}>
            {refused}
          </span>
        )}
      </SelectionBar>
      {(sheet === "move" || sheet === "copy") && (
        <CarrySheet
          how={sheet}
          nodes={topmost(rows)}
          vaultId={vaultId}
          onClose={() => setSheet(null)}
          onDone={onNone}
        />
      )}
      {sheet === "tag" && <TagSheet vaultId={vaultId} rows={entries} onClose={() => setSheet(null)} onDone={finish} />}
      {sheet === "field" && <SetField rows={entries} onClose={() => setSheet(null)} onDone={finish} />}
      {sheet === "give" && <GiveSeveral rows={rows} onClose={() => setSheet(null)} onDone={finish} />}
      {sheet === "out" && <ExportSheet nodes={topmost(rows)} onClose={() => setSheet(null)} />}
      <Dialog title={t.putInTheBin3(what)} open={sheet === "bin"} onClose={() => setSheet(null)}>
        <Form
          verb={t.putInTheBin2}
          look="harm"
          onSend={bin}
          running={running !== null}
          onCancel={() => setSheet(null)}
          wrong={refused}
        >
          <p>{t.nobodyCanUse(rows.length)}</p>
        </Form>
      </Dialog>
    </>
  );
}

/** Whether a row lies in a folder, as far as the rows say. */
function liesIn(rows: readonly LedgerRow[], id: string, folder: string): boolean {
  const byId = new Map(rows.map((row) => [row.id, row]));
  for (let up = byId.get(id)?.parentId ?? null; up !== null; up = byId.get(up)?.parentId ?? null)
    if (up === folder) return true;
  return false;
}

/** A folder carries what lies in it: that is not carried a second time. */
const topmost = (rows: LedgerRow[]): LedgerRow[] =>
  rows.filter((row) => !rows.some((other) => other.type === "folder" && liesIn(rows, row.id, other.id)));

interface SheetProps {
  rows: LedgerRow[];
  onClose: () => void;
  onDone: (says: string, undo: Step[]) => void;
}

function TagSheet({ vaultId, rows, onClose, onDone }: SheetProps & { vaultId: string }) {
  const [add, setAdd] = useState("");
  const [remove, setRemove] = useState<string[]>([]);
  const { running, refused, inPieces, stop } = useInPieces();
  const there = [...new Set(rows.flatMap((row) => row.tags))].sort();
  const send = async () => {
    const tags = { add: toTags(add), remove };
    const undo = await inPieces(
      rows.map((row) => row.id),
      100,
      "vaults.tagEntries",
      (entryIds) => ({ entryIds, ...tags }),
      (_ids, result: { rows: { entryId: string; before: string; versionId: string }[] }) =>
        result.rows.length > 0 ? undoRewrites(result.rows) : null,
    );
    if (undo) onDone(t.tagsOfChanged(rows.length === 1 ? rows[0]!.name : t.entries(rows.length)), undo);
  };
  return (
    <Dialog title={t.tag2(rows.length === 1 ? rows[0]!.name : t.entries(rows.length))} open onClose={onClose}>
      <Form
        verb={t.tag}
        onSend={send}
        running={running !== null}
        unready={toTags(add).length === 0 && remove.length === 0}
        onCancel={running ? stop : onClose}
        wrong={refused}
      >
        <TagField vaultId={vaultId} label={t.add} value={add} onText={setAdd} />
        {there.length > 0 && (
          <fieldset>
            <legend style={{ fontSize: 14 }}>{t.remove}</legend>
            {there.map((tag) => (
              <CheckField
                key={tag}
                label={tag}
                checked={remove.includes(tag)}
                onTick={(ticked) => setRemove(ticked ? [...remove, tag] : remove.filter((one) => one !== tag))}
              />
            ))}
          </fieldset>
        )}
        {running && <p role="status">{t.ofWord2(running.done, running.of)}</p>}
      </Form>
    </Dialog>
  );
}
