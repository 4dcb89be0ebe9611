"use client";

import { useEffect, useState } from "react";
import { counted } from "@/core/counted";
import type { GrowthProof, LineProof as Proof, ProofFault } from "@/core/journal/proof";
import { exactTime } from "@/core/time";
import { type Refusal, runCommand, runQuery } from "../shared/ask";
import { Button, ButtonLink, Notice, Row, Stack } from "../shared/controls";
import { Dialog } from "../shared/Dialog";
import { save } from "../shared/save";
import { useCopy } from "../shared/useCopy";
import { lineProof as t } from "./strings";

/** The newest checkpoint that this browser has checked, and the key that checks it. */
const SEEN = "galtry-checkpoint";

interface Checked {
  proof: Proof;
  /** Lines of its checkpoint, and when that was made. */
  size: number;
  at: number;
  fault: ProofFault | null;
  /** Since the checkpoint that this browser saw before; null where it saw none. */
  since: { size: number; at: number; holds: boolean } | "another key" | null;
}

/** The newest checkpoint is older than the line: one more is made. */
async function proofOf(seq: number): Promise<Proof | Refusal> {
  const first = await runQuery("journal.lineProof", { seq });
  if (!first.ok) return first.refused;
  if (first.result) return first.result;
  const made = await runCommand("journal.makeCheckpoint", {});
  if (!made.ok) return made.refused;
  const second = await runQuery("journal.lineProof", { seq });
  return second.ok ? second.result! : second.refused;
}

const remember = ({ checkpoint: earlier, verifier }: Proof): void =>
  localStorage.setItem(SEEN, JSON.stringify({ earlier, verifier }));

function lastSeen(): Pick<GrowthProof, "earlier" | "verifier"> | null {
  try {
    return JSON.parse(localStorage.getItem(SEEN) ?? "null");
  } catch {
    return null;
  }
}

async function sinceSeen(verifier: string): Promise<Checked["since"]> {
  const { checkGrowth } = await import("@/core/journal/proof");
  const { openCheckpoint } = await import("@/core/journal/checkpoint");
  const seen = lastSeen();
  if (!seen) return null;
  if (seen.verifier !== verifier) return "another key";
  const earlier = openCheckpoint(seen.earlier, verifier);
  if ("fault" in earlier) return null;
  const growth = await runQuery("journal.growthSince", { size: earlier.size });
  if (!growth.ok) return null;
  const { note: later, path } = growth.result;
  return { ...earlier, holds: !("fault" in checkGrowth({ earlier: seen.earlier, later, path, verifier })) };
}

async function check(proof: Proof): Promise<Checked> {
  const { checkLineProof } = await import("@/core/journal/proof");
  const found = checkLineProof(proof);
  const since = await sinceSeen(proof.verifier);
  if ("fault" in found) return { proof, size: 0, at: 0, fault: found.fault, since };
  // What did not follow stays what it is compared with, until its reader says otherwise.
  if (since === null || (since !== "another key" && since.holds)) remember(proof);
  return { proof, size: found.size, at: found.at, fault: null, since };
}

/** That a line is as it was written, worked out in the reader's own browser. */
export function LineProof({
  line,
  zone,
  onClose,
}: {
  line: { seq: number; who: string; says: string };
  zone: string;
  onClose: () => void;
}) {
  const [checked, setChecked] = useState<Checked | null>(null);
  const [refused, setRefused] = useState<string | null>(null);
  const { copy, copied } = useCopy();
  useEffect(() => {
    let over = false;
    void (async () => {
      const proof = await proofOf(line.seq);
      const found = "format" in proof ? await check(proof) : null;
      if (over) return;
      setChecked(found);
      setRefused("format" in proof ? null : proof.message);
    })();
    return () => {
      over = true;
    };
  }, [line.seq]);
  const lines = (count: number) => counted(count, "line");
  const moment = (at: number) => exactTime(at, zone);
  const since = checked?.since;
  return (
    <Dialog title={t.proofOfLine(line.seq.toLocaleString("en"))} open onClose={onClose}>
      <Stack>
        <p>
          <b>{line.who}</b> {line.says}
        </p>
        {!checked && !refused && <p role="status">{t.checking}</p>}
        {refused && (
          <Notice data-tone="bad" role="alert">
            {refused}
          </Notice>
        )}
        {checked?.fault && (
          <Notice data-tone="bad" role="alert">
            {t.faults[checked.fault]}
          </Notice>
        )}
        {checked && !checked.fault && (
          <Notice data-tone="good" role="status">
            {(checked.proof.line ? t.itIsAsItWasWritten : t.itIsThere)(lines(checked.size), moment(checked.at))}{" "}
            {since && since !== "another key" && since.holds && since.size < checked.size
              ? t.nothingChangedSince(lines(since.size), moment(since.at))
              : null}{" "}
            {t.checkedHere}
          </Notice>
        )}
        {since === "another key" && (
          <Notice data-tone="bad" role="alert">
            {t.anotherKey}
          </Notice>
        )}
        {since && since !== "another key" && !since.holds && (
          <Notice data-tone="bad" role="alert">
            {t.changedSince(lines(since.size), moment(since.at))}
          </Notice>
        )}
        {checked && !checked.fault && since && (since === "another key" || !since.holds) && (
          <Row>
            <Button
              onPress={() => {
                remember(checked.proof);
                setChecked({ ...checked, since: null });
              }}
            >
              {t.compareFromNowOn}
            </Button>
          </Row>
        )}
        {checked && (
          <>
            <Row>
              <Button
                look="go"
                onPress={() =>
                  save(new Blob([JSON.stringify(checked.proof, null, 2)]), `journal-line-${line.seq}-proof.json`)
                }
              >
                {t.saveProof}
              </Button>
              <ButtonLink href="/check-proof.mjs" download>
                {t.theScript}
              </ButtonLink>
              <Button onPress={onClose}>{t.close}</Button>
            </Row>
            <p className="soft small">{t.withoutGaltry}</p>
            <div>
              <p className="small">
                <b>{t.key}</b>
              </p>
              <p className="mono small" style={{ overflowWrap: "anywhere" }}>
                {checked.proof.verifier}
              </p>
              <Row style={{ marginTop: 8 }}>
                <Button onPress={() => copy(checked.proof.verifier)}>{copied ? t.copied : t.copyKey}</Button>
                <span className="soft small">{t.noteTheKey}</span>
              </Row>
            </div>
          </>
        )}
      </Stack>
    </Dialog>
  );
}
