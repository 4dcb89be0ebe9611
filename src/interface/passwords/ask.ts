import type { Made, Wishes } from "@/core/generator";
import type { Strength } from "@/core/generator/strength";
import type { PasswordAsk } from "./passwords.worker";

type Answer<R> = { made: R; wrong: null } | { made: null; wrong: string };
type Waiting = (answer: Answer<unknown>) => void;

let worker: Worker | null = null;
const waiting = new Map<number, Waiting>();
let asked = 0;

/** One worker for the page, begun when it is first needed. */
function ask<R>(
  what: Omit<Extract<PasswordAsk, { ask: "make" }>, "id"> | Omit<Extract<PasswordAsk, { ask: "rate" }>, "id">,
) {
  if (!worker) {
    worker = new Worker(new URL("./passwords.worker.ts", import.meta.url), { type: "module" });
    worker.addEventListener("message", ({ data }: MessageEvent<{ id: number; answer?: unknown; wrong?: string }>) => {
      waiting.get(data.id)?.(
        data.wrong === undefined ? { made: data.answer, wrong: null } : { made: null, wrong: data.wrong },
      );
      waiting.delete(data.id);
    });
  }
  asked++;
  const id = asked;
  const answer = new Promise<Answer<R>>((resolve) => waiting.set(id, resolve as Waiting));
  worker.postMessage({ id, ...what });
  return answer;
}

export const makePassword = (wishes: Wishes) => ask<Made>({ ask: "make", wishes });
export const ratePassword = (text: string, hints: string[]) => ask<Strength>({ ask: "rate", text, hints });
