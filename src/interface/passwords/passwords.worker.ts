/** Makes passwords and rates what is typed, beside the page: the word lists are large and counting takes its time. */
import { make, type Wishes } from "@/core/generator";
import { rate } from "@/core/generator/strength";
import { WORDS } from "@/core/generator/wordList";
import { passwordsWorker as t } from "./strings";

export type PasswordAsk =
  | { id: number; ask: "make"; wishes: Wishes }
  | { id: number; ask: "rate"; text: string; hints: string[] };

addEventListener("message", ({ data }: MessageEvent<PasswordAsk>) => {
  try {
    const answer = data.ask === "make" ? make(data.wishes, WORDS) : rate(data.text, data.hints);
    postMessage({ id: data.id, answer });
  } catch (error) {
    postMessage({ id: data.id, wrong: error instanceof RangeError ? error.message : t.noPasswordCanBeCreatedWith });
  }
});
