"use client";

import { useRouter } from "next/navigation";
import { useCallback, useEffect, useRef, useState } from "react";
import type { LedgerView } from "@/core/ledgerView";
import type { LedgerRow } from "@/server/vaults/vaults";
import { runCommand, runQuery } from "../shared/ask";
import { useDone } from "../shared/Done";
import { ledger as t } from "./strings";
import { folderAndAbove } from "./tree";

/** More are moved in pieces. */
const MOST_AT_ONCE = 500;

const KEEP_AFTER_MS = 400;

type Keep = (change: Partial<LedgerView>) => void;

/** The person's own view, kept a moment after it was changed last, at the latest when the page is left. */
export function useView(vaultId: string, kept: LedgerView): readonly [LedgerView, Keep] {
  const [view, setView] = useState(kept);
  const waiting = useRef<{ view: LedgerView; timer: ReturnType<typeof setTimeout> } | null>(null);
  const latest = useRef(kept);
  const send = useCallback(() => {
    if (!waiting.current) return;
    clearTimeout(waiting.current.timer);
    void runCommand("vaults.saveLedgerView", { vaultId, view: waiting.current.view });
    waiting.current = null;
  }, [vaultId]);
  useEffect(() => send, [send]);
  const keep: Keep = (change) => {
    latest.current = { ...latest.current, ...change };
    setView(latest.current);
    if (waiting.current) clearTimeout(waiting.current.timer);
    waiting.current = { view: latest.current, timer: setTimeout(send, KEEP_AFTER_MS) };
  };
  return [view, keep];
}

/** Dropped into a folder: at once where nobody's access changes, otherwise what it would do is shown first. */
export function useMoveInto(vaultId: string, rows: LedgerRow[], onMoved: () => void) {
  const router = useRouter();
  const done = useDone();
  const [asking, setAsking] = useState<{ nodes: LedgerRow[]; to: string } | null>(null);
  const moveInto = async (ids: string[], folderId: string | null) => {
    const parentId = folderId ?? vaultId;
    const nodes = rows.filter((row) => ids.includes(row.id) && (row.parentId ?? vaultId) !== parentId);
    if (nodes.length === 0) return;
    // With a count and a stop.
    if (nodes.length > MOST_AT_ONCE) return setAsking({ nodes, to: parentId });
    const input = { nodeIds: nodes.map((row) => row.id), parentId };
    const preview = await runQuery("vaults.movePreview", input);
    if (preview.ok && preview.result.changes) return setAsking({ nodes, to: parentId });
    const answer = await runCommand("vaults.moveNodes", input);
    const what = nodes.length === 1 ? nodes[0]!.name : t.entriesAndFolders(nodes.length);
    if (!answer.ok) return done(answer.refused.message);
    onMoved();
    done(
      t.moved(what),
      answer.result.back.map((one) => ({ command: "vaults.moveNodes", input: one })),
    );
    router.refresh();
  };
  return { moveInto, asking, close: () => setAsking(null) };
}

/** As they stood open when the person was here last; a folder that is asked for is open with all around it. */
export function useOpenFolders(rows: LedgerRow[], inside: string | null, kept: readonly string[], keep: Keep) {
  const [open, setOpen] = useState<ReadonlySet<string>>(
    () => new Set([...kept, ...(inside ? folderAndAbove(rows, inside) : [])]),
  );
  useEffect(() => {
    if (inside) document.getElementById(`row-${inside}`)?.scrollIntoView({ block: "center" });
  }, [inside]);
  const turn = (id: string, wanted: boolean) => {
    const after = new Set(open);
    if (wanted) after.add(id);
    else after.delete(id);
    setOpen(after);
    const there = new Set(rows.map((row) => row.id));
    keep({ open: [...after].filter((one) => one === id || there.has(one)).slice(-2_000) });
  };
  return [open, turn] as const;
}
