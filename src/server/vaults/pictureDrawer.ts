/**
 * Strangers' pictures are drawn in a process of their own, one at a time: two kilobytes of SVG can ask for hours of
 * work within one call of a library, which nothing stops but the end of its process.
 */

import { type ChildProcess, fork } from "node:child_process";
import { fileURLToPath } from "node:url";
import { besideThis, howToRun } from "../besideThis";
import type { Drawn } from "./drawPicture";

/** A photograph of forty million pixels takes about a second. */
const LONGEST_MS = 6_000;
/** A process needs so long to begin, at most; it does not count against the picture. */
const LONGEST_START_MS = 20_000;
const IDLE_MS = 60_000;

const TOO_LONG = "This picture takes too long to draw. Save it as PNG first.";

export class PictureDrawer {
  #child: ChildProcess | null = null;
  #idle: ReturnType<typeof setTimeout> | undefined;
  /** Settles when the last picture that was asked for is done. */
  #last: Promise<unknown> = Promise.resolve();

  /** @param longestMs for one picture, once the process has begun */
  constructor(private readonly longestMs = LONGEST_MS) {}

  /** Never rejects for what a picture does: it says why it was not drawn. */
  draw(bytes: Uint8Array): Promise<Drawn> {
    const mine = this.#last.then(() => this.#draw(bytes));
    this.#last = mine.catch(() => undefined);
    return mine;
  }

  close(): void {
    clearTimeout(this.#idle);
    this.#child?.kill("SIGKILL");
    this.#child = null;
  }

  async #draw(bytes: Uint8Array): Promise<Drawn> {
    clearTimeout(this.#idle);
    // The first answer says that the process has begun; what it was asked is no picture.
    if (!this.#child) await this.#answer(this.#start(), new Uint8Array(), LONGEST_START_MS);
    const answer = this.#child && (await this.#answer(this.#child, bytes, this.longestMs));
    this.#idle = setTimeout(() => this.close(), IDLE_MS);
    this.#idle.unref();
    return answer ?? { refused: TOO_LONG };
  }

  #start(): ChildProcess {
    const file = besideThis("draw.process.ts", import.meta.url);
    const started = fork(fileURLToPath(file), [], {
      execArgv: howToRun(file),
      serialization: "advanced",
      // Nothing of Galtry's own: no keys, no addresses.
      env: { PATH: process.env.PATH, NODE_ENV: process.env.NODE_ENV },
      stdio: ["ignore", "ignore", "inherit", "ipc"],
    });
    started.unref();
    started.channel?.unref();
    started.once("exit", () => {
      if (this.#child === started) this.#child = null;
    });
    this.#child = started;
    return started;
  }

  /** Null where it took longer, or the process ended. */
  #answer(of: ChildProcess, bytes: Uint8Array, longestMs: number): Promise<Drawn | null> {
    return new Promise((done) => {
      const end = (answer: Drawn | null) => {
        clearTimeout(late);
        of.off("message", heard).off("exit", ended);
        of.channel?.unref();
        if (answer === null) this.close();
        done(answer);
      };
      const heard = (answer: unknown) => end(answer as Drawn);
      const ended = () => end(null);
      const late = setTimeout(ended, longestMs);
      of.on("message", heard).on("exit", ended);
      of.send(bytes, (error) => {
        if (error) end(null);
      });
    });
  }
}
