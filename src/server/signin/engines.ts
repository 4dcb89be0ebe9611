/** The engines there are, in turn: plain HTTP first where it works, a browser of the server's own where it does not. */
import type { Failure } from "../../core/signin/outcome";
import {
  type ChangeEngine,
  ChangeFailure,
  type ChangeSent,
  type ChangeTask,
  type EngineName,
  type SignedIn,
  type SignInEngine,
  type SignInTask,
} from "./engine";
import { SignInFailure } from "./guardedClient";

/** Named so, another engine may get in where this one did not, though what was typed was sent. */
const WORTH_ANOTHER_TRY: ReadonlySet<Failure> = new Set<Failure>([
  "drawn-by-scripts",
  "came-back",
  "session-elsewhere",
]);
/** And these where nothing secret has been sent yet. */
const BEFORE_ANYTHING_WAS_SENT: ReadonlySet<Failure> = new Set<Failure>(["not-understood", "form-unsafe", "too-much"]);

type Engine = SignInEngine & Partial<ChangeEngine>;

export class Engines implements SignInEngine, ChangeEngine {
  /** @param browser null where the installation has none */
  constructor(
    private readonly http: Engine,
    private readonly browser: Engine | null,
  ) {}

  /** @param task its `worked` is the engine that let somebody in last time: it comes first */
  async signIn(task: SignInTask): Promise<SignedIn> {
    const inTurn = this.#inTurn(task);
    const [[first, engine], second] = inTurn as [(typeof inTurn)[number], (typeof inTurn)[number]?];
    try {
      return await this.#shown(task, { ...(await engine.signIn(task)), by: first });
    } catch (error) {
      if (!second || !isWorthAnotherTry(error)) {
        await this.#showPage(task, error);
        throw withoutBrowser(error, this.browser === null);
      }
      try {
        return await this.#shown(task, { ...(await second[1].signIn(task)), by: second[0] });
      } catch (again) {
        // What the first one saw is nearer to what a person would see than that the second could not start.
        throw again instanceof SignInFailure && again.failure === "browser-missing" ? error : again;
      }
    }
  }

  #inTurn({ worked }: Pick<SignInTask, "worked">): [EngineName, Engine][] {
    const inTurn: [EngineName, Engine][] = [["http", this.http]];
    if (this.browser) inTurn.push(["browser", this.browser]);
    return worked === "browser" ? inTurn.reverse() : inTurn;
  }

  /** Another engine takes over only as long as nothing new was sent. */
  async change(task: ChangeTask): Promise<ChangeSent> {
    let sent = false;
    const onSend = () => {
      sent = true;
      return task.onSend();
    };
    const able = this.#inTurn(task).filter(([, engine]) => engine.change);
    for (const [at, [, engine]] of able.entries())
      try {
        return await engine.change!({ ...task, onSend });
      } catch (error) {
        const last = at === able.length - 1;
        if (last || sent || !(error instanceof ChangeFailure || isWorthAnotherTry(error))) throw error;
      }
    throw new ChangeFailure("only-by-hand", "no engine changes passwords");
  }

  /** In a test that came to nothing before the password was sent: the sign-in page, for its report. */
  async #showPage(task: SignInTask, error: unknown): Promise<void> {
    if (task.onPicture && !task.signal.aborted && error instanceof SignInFailure && !error.afterPassword)
      await this.browser?.show?.(task, null).catch(() => undefined);
  }

  /** In a test, what plain HTTP brought is opened in the browser: there it shows whether the session holds. */
  async #shown(task: SignInTask, session: SignedIn): Promise<SignedIn> {
    if (task.onPicture && session.by === "http")
      await this.browser?.show?.(task, session).catch((error) => {
        if (error instanceof SignInFailure && error.failure === "session-elsewhere") throw error;
      });
    return session;
  }
}

/** Says to those who may read it that a browser would help, where there is none. */
function withoutBrowser(error: unknown, none: boolean): unknown {
  if (!none || !(error instanceof SignInFailure) || error.failure !== "drawn-by-scripts") return error;
  return new SignInFailure(error.failure, `${error.detail}; this Galtry has no browser of its own`);
}

function isWorthAnotherTry(error: unknown): boolean {
  if (!(error instanceof SignInFailure)) return false;
  if (error.failure === "browser-missing") return true;
  return WORTH_ANOTHER_TRY.has(error.failure) || (!error.afterPassword && BEFORE_ANYTHING_WAS_SENT.has(error.failure));
}
