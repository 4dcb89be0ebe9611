/** The code that a site asks for: worked out, and one that nobody has sent yet; or entered by whoever received it. */
import { type CodeSettings, codeAt } from "../../core/signin/code";
import type { Login, SignInTask } from "./engine";
import { SignInFailure } from "./guardedClient";

/** A code that is about to end would arrive too late. */
const CODE_MARGIN_MS = 2_000;

type Codes = Pick<SignInTask, "claimCode" | "askCode" | "onProgress" | "signal">;

/** Whether a step that asks for a code can be done. */
export const canGiveCode = ({ code }: Login, { askCode }: Pick<Codes, "askCode">): boolean =>
  code !== null || askCode !== undefined;

/** @throws SignInFailure code-missing, code-not-given or too-slow */
export async function codeFor({ code }: Login, task: Codes): Promise<string> {
  if (code) return freshCode(code, task);
  if (task.askCode) return task.askCode();
  throw new SignInFailure("code-missing", "the site asks for a code and the entry has none");
}

/**
 * The current code, or the next when this one is about to end or was used.
 * @throws SignInFailure too-slow
 */
async function freshCode(settings: CodeSettings, { claimCode, onProgress, signal }: Codes): Promise<string> {
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
