"use client";

import { useState } from "react";
import { counted } from "@/core/counted";
import { GROWTH_FORMAT, type GrowthFault, type GrowthProof } from "@/core/journal/proof";
import { exactTime } from "@/core/time";
import type { JournalCheck } from "@/server/journal/check";
import { type Refusal, runCommand, runQuery } from "../shared/ask";
import { Button, Notice, Row, Stack, TextArea } from "../shared/controls";
import { Dialog } from "../shared/Dialog";
import { Form } from "../shared/Form";
import { save } from "../shared/save";
import { checkJournal as t } from "./strings";

/** What the reader's own browser made of the checkpoint that they kept. */
interface Since {
  size: number;
  at: number;
  fault: GrowthFault | null;
  proof: GrowthProof;
}

interface Found {
  journal: JournalCheck;
  head: boolean;
  since: Since | null;
  /** The newest; null where none could be made now. */
  checkpoint: { note: string; size: number } | null;
}

/** The server answers for its own database; that the Journal begins with what somebody kept, the browser sees for itself. */
async function lookSince(kept: string): Promise<Since | Refusal> {
  const { checkGrowth } = await import("@/core/journal/proof");
  const { openCheckpoint } = await import("@/core/journal/checkpoint");
  const newest = await runQuery("journal.newestCheckpoint", {});
  if (!newest.ok) return newest.refused;
  const { verifier } = newest.result;
  const earlier = openCheckpoint(kept, verifier);
  // The server has opened it before.
  if ("fault" in earlier) return { code: "bad-input", message: "" };
  const growth = await runQuery("journal.growthSince", { size: earlier.size });
  if (!growth.ok) return growth.refused;
  const { note: later, path } = growth.result;
  const proof = { format: GROWTH_FORMAT, earlier: kept, later, path, verifier } as const;
  const checked = checkGrowth(proof);
  return { size: earlier.size, at: earlier.at, fault: "fault" in checked ? checked.fault : null, proof };
}

async function look(kept: string): Promise<Found | Refusal> {
  const { isLineHash } = await import("@/core/journal/checkpoint");
  const head = isLineHash(kept);
  const answer = await runQuery("journal.checkJournal", head ? { head: kept.trim() } : { checkpoint: kept });
  if (!answer.ok) return answer.refused;
  const found = { journal: answer.result, head };
  const made = answer.result.broken ? null : await runCommand("journal.makeCheckpoint", {});
  // What the check has found is said in any case.
  const checkpoint = made?.ok ? made.result : null;
  const since = kept.trim() === "" || head ? null : await lookSince(kept);
  if (since && "code" in since) return since;
  return { ...found, checkpoint, since };
}

/** Whether any line was changed, added or removed by somebody who got at the database. */
export function CheckJournal({ zone, onClose }: { zone: string; onClose: () => void }) {
  const [kept, setKept] = useState("");
  const [running, setRunning] = useState(false);
  const [refused, setRefused] = useState<Refusal | null>(null);
  const [found, setFound] = useState<Found | null>(null);
  const check = async () => {
    setRunning(true);
    const answer = await look(kept);
    setRunning(false);
    setRefused("code" in answer ? answer : null);
    setFound("code" in answer ? null : answer);
  };
  return (
    <Dialog title={t.checkTheJournal} open onClose={onClose}>
      <Form
        verb={t.check}
        onSend={check}
        running={running}
        onCancel={onClose}
        wrong={refused && !refused.field ? refused.message : null}
      >
        <p>{t.eachLineIsChained}</p>
        <TextArea
          className="mono"
          label={t.checkpointKeptEarlier}
          value={kept}
          onText={(text) => {
            setKept(text);
            setFound(null);
          }}
          wrong={refused?.field ? refused.message : null}
          hint={t.pasteTheWholeEmail}
          spellCheck={false}
          rows={5}
          autoFocus
        />
        {found && <Result found={found} zone={zone} />}
      </Form>
    </Dialog>
  );
}

const asFile = (content: string, name: string) => save(new Blob([content]), name);

function Result({ found, zone }: { found: Found; zone: string }) {
  const { journal, since, checkpoint } = found;
  const lines = since && counted(since.size, "line");
  const made = since && exactTime(since.at, zone);
  const saveProof = since && (
    <Button onPress={() => asFile(JSON.stringify(since.proof, null, 2), `journal-since-${since.size}-proof.json`)}>
      {t.saveProof}
    </Button>
  );
  if (since?.fault)
    return (
      <Notice data-tone="bad" role="alert">
        {since.fault === "shorter" ? t.shorter(lines!, made!) : t.notSince(lines!, made!)}
      </Notice>
    );
  if (journal.broken || journal.altered)
    return (
      <Notice data-tone="bad" role="alert">
        {journal.broken
          ? t.brokenAtLine(journal.broken.line, journal.broken.why)
          : t.aNameWasAltered(journal.altered ?? "")}
      </Notice>
    );
  return (
    <Stack>
      <Notice data-tone="good" role="status">
        {since
          ? t.completeSince(journal.lines, lines!, made!)
          : found.head
            ? t.completeSinceTheHead(journal.lines)
            : t.complete(journal.lines)}
        {journal.erased > 0 && ` ${t.erased(journal.erased)}`}
      </Notice>
      <Row>
        {checkpoint && (
          <Button onPress={() => asFile(checkpoint.note, `checkpoint-${checkpoint.size}.txt`)}>
            {t.saveCheckpoint}
          </Button>
        )}
        {saveProof}
        {checkpoint && <span className="soft small">{t.keepItElsewhere}</span>}
      </Row>
    </Stack>
  );
}
