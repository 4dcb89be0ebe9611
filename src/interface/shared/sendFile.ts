import { PIECE_BYTES } from "@/core/pieces";
import { runCommand } from "./ask";

/**
 * Attaches a file to an entry, piece by piece.
 * @param onPart is told which piece goes, from 1, and of how many
 * @returns what was refused, in words, or null; stopped, what was sent is taken away again
 */
export async function sendFile(
  entryId: string,
  file: File,
  onPart: (part: number, of: number) => void,
  stopped: () => boolean,
): Promise<string | null> {
  const begun = await runCommand<{ attachmentId: string; pieces: number }>("vaults.beginAttachment", {
    entryId,
    name: file.name,
    size: file.size,
  });
  if (!begun.ok) return `${file.name}: ${begun.refused.message}`;
  const { attachmentId, pieces } = begun.result;
  for (let number = 0; number < pieces; number++) {
    onPart(number + 1, pieces);
    const part = await file.slice(number * PIECE_BYTES, (number + 1) * PIECE_BYTES).arrayBuffer();
    const answer = await runCommand("vaults.addPiece", {
      attachmentId,
      number,
      piece: base64Of(new Uint8Array(part)),
    });
    if (stopped()) {
      await runCommand("vaults.removeAttachment", { attachmentId });
      return "Stopped.";
    }
    if (!answer.ok) return `${file.name}: ${answer.refused.message}`;
  }
  const done = await runCommand("vaults.finishAttachment", { attachmentId });
  return done.ok ? null : `${file.name}: ${done.refused.message}`;
}

function base64Of(bytes: Uint8Array): string {
  let text = "";
  for (let at = 0; at < bytes.length; at += 32_768) text += String.fromCharCode(...bytes.subarray(at, at + 32_768));
  return btoa(text);
}
