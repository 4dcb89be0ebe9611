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
  const begun = await runCommand("vaults.beginAttachment", {
    entryId,
    name: file.name,
    size: file.size,
  });
  if (!begun.ok) return `${file.name}: ${begun.refused.message}`;
  const { attachmentId, pieces } = begun.result;
  for (let number = 0; number < pieces; number++) {
    onPart(number + 1, pieces);
    const part = file.slice(number * PIECE_BYTES, (number + 1) * PIECE_BYTES);
    const answer = await runCommand("vaults.addPiece", {
      attachmentId,
      number,
      piece: await base64Of(part),
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

/** By the browser's own reader, which does not hold the page up as turning it here would. */
function base64Of(part: Blob): Promise<string> {
  return new Promise((done, failed) => {
    const reader = new FileReader();
    // "data:…;base64," stands before it; nothing does where there is nothing.
    reader.onload = () => done(part.size === 0 ? "" : (reader.result as string).replace(/^[^,]*,/, ""));
    reader.onerror = () => failed(reader.error);
    reader.readAsDataURL(part);
  });
}
