/** A one-time code that nobody has sent yet. */
import { type CodeSettings, codeAt } from "../../core/signin/code";
import type { SignInTask } from "./engine";
import { SignInFailure } from "./guardedClient";

/** A code that is about to end would arrive too late. */
const CODE_MARGIN_MS = 2_000;

/**
 * The current code, or the next when this one is about to end or was used.
 * @throws SignInFailure too-slow
 */
export async function freshCode(
  settings: CodeSettings,
  { claimCode, onProgress, signal }: Pick<SignInTask, "claimCode" | "onProgress" | "signal">,
): Promise<string> {
  for (let tries = 0; tries < 4; tries++) {
    const { code, step, leftMs } = codeAt(settings, Date.now());
    if (leftMs > CODE_MARGIN_MS && (await claimCode(step))) return code;
    onProgress("code-wait");
    await pause(leftMs + 20, signal);
  }
  throw new SignInFailure("too-slow", "no unused code came up in time");
}

function pause(ms: number, signal: AbortSignal): Promise<void> {
  return new Promise((resolve, reject) => {
    const timer = setTimeout(resolve, ms);
    signal.addEventListener(
      "abort",
      () => {
        clearTimeout(timer);
        reject(new SignInFailure("too-slow", "it was stopped"));
      },
      { once: true },
    );
  });
}
