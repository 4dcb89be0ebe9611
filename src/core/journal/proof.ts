/** What shows that a line of the Journal is as it was written: everything to check it with, as one JSON text. */
import { fromBase64 } from "../crypto";
import { type JournalLine, lineHash } from "./chain";
import { type Checkpoint, type CheckpointFault, openCheckpoint } from "./checkpoint";
import { nameHash } from "./names";
import { hasGrownFrom, isIncluded, leafOf } from "./tree";

export const PROOF_FORMAT = "galtry-journal-proof-1";

export interface LineProof {
  format: typeof PROOF_FORMAT;
  /** The line's number, counted from 1. */
  seq: number;
  /** Hexadecimal. */
  hash: string;
  /** What the line says, with the hash of the line before it; null where its reader may not know all of that. */
  line: (JournalLine & { previous: string }) | null;
  /** Names that the line refers to, as they were: each with the salt that its hash was made with. */
  names: { ref: string; name: string; salt: string }[];
  /** From the line up to the root, base64. */
  path: string[];
  checkpoint: string;
  /** The key that checks the checkpoint. */
  verifier: string;
}

export type ProofFault =
  | CheckpointFault
  /** The line does not say what was written. */
  | "line"
  /** A name is not the one that was written with the line. */
  | "name"
  /** The line is not one of those that the checkpoint stands for. */
  | "path";

/** Checks all of it. Whether the key is the right one is for its reader to know. */
export function checkLineProof(proof: LineProof): Checkpoint | { fault: ProofFault } {
  const checkpoint = openCheckpoint(proof.checkpoint, proof.verifier);
  if ("fault" in checkpoint) return checkpoint;
  const { line, hash, seq } = proof;
  if (line && (line.seq !== seq || lineHash(line, line.previous) !== hash)) return { fault: "line" };
  const kept = line ? (JSON.parse(line.names) as Record<string, string>) : {};
  if (proof.names.some((name) => kept[name.ref] !== nameHash(name))) return { fault: "name" };
  const path = proof.path.map(fromBase64);
  if (!isIncluded(leafOf(hash), seq - 1, checkpoint.size, path, checkpoint.root)) return { fault: "path" };
  return checkpoint;
}

export const GROWTH_FORMAT = "galtry-journal-growth-1";

/** That one checkpoint begins with another, as one JSON text. */
export interface GrowthProof {
  format: typeof GROWTH_FORMAT;
  earlier: string;
  later: string;
  /** Base64, as `growthPath` gives it for their sizes. */
  path: string[];
  verifier: string;
}

export type GrowthFault =
  | CheckpointFault
  /** The Journal has fewer lines than it had. */
  | "shorter"
  /** Something before the older checkpoint was changed. */
  | "changed";

/** Whether nothing was changed from one checkpoint to a later one. */
export function checkGrowth({
  earlier,
  later,
  path,
  verifier,
}: Omit<GrowthProof, "format">): { earlier: Checkpoint; later: Checkpoint } | { fault: GrowthFault } {
  const opened = { earlier: openCheckpoint(earlier, verifier), later: openCheckpoint(later, verifier) };
  if ("fault" in opened.earlier) return opened.earlier;
  if ("fault" in opened.later) return opened.later;
  if (opened.later.size < opened.earlier.size) return { fault: "shorter" };
  const grown = hasGrownFrom(opened.earlier, opened.later, path.map(fromBase64));
  return grown ? { earlier: opened.earlier, later: opened.later } : { fault: "changed" };
}
