/** What a page says of a sign-in, whichever engine sees it: it is done, asks for one more thing, or failed by a name. */
import type { Failure } from "../../core/signin/outcome";
import type { OnCourse } from "./course";
import { SignInFailure } from "./guardedClient";
import type { StudiedPage } from "./studiedPage";

/** A page as it stands after whatever was sent last. */
export interface SeenPage extends Pick<StudiedPage, "reading" | "challenge" | "drawnByScripts" | "says" | "mark"> {
  url: string;
  status: number;
  /** `WWW-Authenticate` names HTTP Basic or Digest. */
  asksBasic: boolean;
}

export interface Sent {
  userName: boolean;
  password: boolean;
  code: boolean;
}

/**
 * Signed in: a password was sent and the page asks for nothing more.
 * @throws SignInFailure when it says otherwise
 */
export function isDone(page: SeenPage, sent: Sent): boolean {
  return sent.password && !ASKS_FOR_MORE.has(page.reading.kind) && requireAccepted(page);
}

/**
 * Before what comes next is done on a page.
 * @param typedInto mark of the page that the password was typed into
 * @throws SignInFailure by its name where nothing can be done, or what was done before came to nothing
 */
export function requireStep(page: SeenPage & OnCourse, sent: Sent, hasCode: boolean, typedInto: string): void {
  if (page.followed?.enters.length === 0) requireGoesOn(page, sent);
  else requireAsks(page, sent, hasCode, typedInto);
}

/** A step that enters nothing only goes on. */
function requireGoesOn(page: SeenPage, sent: Sent): void {
  if (sent.password) requireAccepted(page);
  else if (page.challenge) throw new SignInFailure("challenge", "the page shows a challenge");
  else if (page.status >= 400) throw new SignInFailure("site-down", `the site answered ${page.status}`);
}

const ASKS_FOR_MORE = new Set(["sign-in", "password-only-step", "one-time-code-step", "identifier-first"]);

function requireAccepted(page: SeenPage): true {
  if (page.reading.kind === "change-password")
    throw new SignInFailure("change-wanted", "after the password the site asks for a new one");
  if (page.challenge) throw new SignInFailure("challenge", "after the password the site shows a challenge");
  // What it reports then is about something else, and a page that is not for this person is no wrong password.
  if (page.says.signOut && page.status !== 401 && page.status < 500) return true;
  if (page.says.locked) throw new SignInFailure("wrong-password", "the site says that the account is locked");
  if (page.status === 401 || page.status === 403)
    throw new SignInFailure("wrong-password", `the site answered ${page.status}`);
  if (page.status >= 400)
    throw new SignInFailure(
      page.status >= 500 ? "site-down" : "not-understood",
      `after the password the site answered ${page.status}`,
    );
  if (page.says.wrong) throw new SignInFailure("wrong-password", "the page that follows says so");
  return true;
}

/** A page that asks for something Galtry holds and has not sent yet. */
function requireAsks(page: SeenPage, sent: Sent, hasCode: boolean, typedInto: string): void {
  const fail = (failure: Failure, detail: string) => new SignInFailure(failure, detail);
  if (page.status === 401 && page.asksBasic)
    throw fail("http-basic", "the site answers 401 with WWW-Authenticate: Basic or Digest");
  if (page.status >= 500 || page.status === 404 || page.status === 429)
    throw fail("site-down", `the site answered ${page.status}`);
  const { kind } = page.reading;
  if (kind === "sign-in" || kind === "password-only-step") {
    if (sent.password) throw refusal(page, sent, typedInto);
    if (page.challenge) throw fail("challenge", "the sign-in page shows a challenge");
    return;
  }
  if (kind === "identifier-first") {
    if (sent.userName || sent.password) throw refusal(page, sent, typedInto);
    return;
  }
  if (kind === "one-time-code-step") {
    if (!hasCode) throw fail("code-missing", "the site asks for a code and the entry has none");
    if (sent.code) throw fail("code-refused", "the site asks for the code again");
    return;
  }
  if (page.challenge) throw fail("challenge", "the sign-in page shows a challenge");
  if (kind === "unsure")
    throw fail("not-understood", "the page may be for signing in, but that is not certain enough to act");
  if (page.drawnByScripts) throw fail("drawn-by-scripts", "the page holds scripts and no form");
  throw fail("not-understood", `the page at ${new URL(page.url).pathname} is no sign-in page`);
}

/** What it means that a page asks again for what was sent. */
export function refusal(page: SeenPage, sent: Sent, typedInto: string): SignInFailure {
  if (page.challenge) return new SignInFailure("challenge", "after the password the site shows a challenge");
  if (sent.code && page.says.codeWrong)
    return new SignInFailure("code-refused", "the site says that the code is wrong");
  const told = page.says.wrong || page.says.locked || page.status === 401 || page.status === 403;
  // Without a word of its own the site may not have looked at them at all: what is not known is not said.
  if (!told && page.mark === typedInto)
    return new SignInFailure("came-back", "the same page comes back and says nothing");
  return new SignInFailure("wrong-password", "the site asks for them again");
}
