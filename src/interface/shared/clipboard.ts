/**
 * Secrets in the clipboard. Held above the pages: the one that copied may be gone when the time is up, and a window that
 * is not in front may not write, so it is cleared as soon as it is in front again.
 */

const CLEAR_MS = 30_000;

let pending: { timer: ReturnType<typeof setTimeout> | null; clear: () => void; onOver: () => void } | null = null;

/** @param onOver told when the clipboard was cleared, or holds something newer */
export async function copySecret(text: string, onOver: () => void): Promise<void> {
  await navigator.clipboard.writeText(text);
  copiedSomethingElse();
  const clear = () => {
    if (!document.hasFocus()) return;
    copiedSomethingElse();
    void navigator.clipboard.writeText("").catch(() => undefined);
  };
  pending = { clear, onOver, timer: setTimeout(() => due(clear), CLEAR_MS) };
}

function due(clear: () => void): void {
  if (pending) pending.timer = null;
  if (document.hasFocus()) clear();
  else window.addEventListener("focus", clear);
}

/** The secret that was copied before is not in the clipboard any more: nothing is left to clear. */
export function copiedSomethingElse(): void {
  if (!pending) return;
  const { timer, clear, onOver } = pending;
  pending = null;
  if (timer) clearTimeout(timer);
  window.removeEventListener("focus", clear);
  onOver();
}
