/** Sealed sign-in over plain HTTP: reads forms, fills them in as many steps as it takes, judges what comes back. */
import iconv from "iconv-lite";
import { Cookie, CookieJar } from "tough-cookie";
import { spread } from "../../core/signin/boxes";
import { type SecretTraces, tracesOf } from "../../core/signin/carries";
import { saysWrongIn } from "../../core/signin/saysWrong";
import { jsonOf, PartMissing, pairsOf, type Values } from "../../core/signin/sending";
import type { Sending, TokenPlace } from "../../core/signin/steps";
import { answerOf, asksForCode, asksForCurrent, findChangePage } from "./changePage";
import { Course, type Entering, type OnCourse } from "./course";
import {
  type ChangeEngine,
  ChangeFailure,
  type ChangeSent,
  type ChangeTask,
  type HandedCookie,
  type Login,
  type SignedIn,
  type SignInEngine,
  type SignInTask,
} from "./engine";
import { encode, type Filled, requireForm, submissionOf } from "./form";
import { canGiveCode, codeFor } from "./freshCode";
import { GuardedClient, type GuardSettings, type Reply, SignInFailure } from "./guardedClient";
import { sessionFrom } from "./handing";
import { type PageReader, PageUnreadable } from "./pageReader";
import type { StudiedPage } from "./studiedPage";
import { isDone, requireStep, type SeenPage } from "./verdict";

const MOST_REDIRECTS = 20;
const MOST_STEPS = 10;

export class HttpEngine implements SignInEngine, ChangeEngine {
  constructor(
    private readonly guard: Pick<GuardSettings, "allowedTargets" | "ownPort">,
    private readonly pages: Pick<PageReader, "read">,
  ) {}

  signIn(task: SignInTask): Promise<SignedIn> {
    return this.#visit(task, (visit) => visit.run());
  }

  change(task: ChangeTask): Promise<ChangeSent> {
    return this.#visit(task, (visit) => visit.change(task));
  }

  async #visit<R>(task: SignInTask, work: (visit: Visit) => Promise<R>): Promise<R> {
    const client = new GuardedClient({ ...this.guard, allows: task.allows, plainHttp: task.plainHttp });
    const visit = new Visit(task, client, this.pages);
    try {
      return await work(visit);
    } catch (error) {
      if (error instanceof SignInFailure) error.afterPassword = visit.sentPassword;
      throw error;
    } finally {
      await client.close();
    }
  }
}

interface Page extends StudiedPage, SeenPage {
  reply: Reply;
  charset: string;
}

/** One visit to one site, with its own cookies. */
class Visit {
  readonly #jar = new CookieJar(undefined, {
    allowSpecialUseDomain: true,
    rejectPublicSuffixes: true,
    looseMode: false,
  });
  #sent = { userName: false, password: false, code: false };
  #login: Login = { userName: "", password: "", code: null };
  #traces: SecretTraces | null = null;
  /** Of the page that the password was typed into. */
  #typedInto = "";
  #saidAgain = false;
  readonly #course: Course;

  constructor(
    private readonly task: SignInTask,
    private readonly client: GuardedClient,
    private readonly pages: Pick<PageReader, "read">,
  ) {
    this.#course = new Course(task.steps, "http", task.onPage);
  }

  get sentPassword(): boolean {
    return this.#sent.password;
  }

  async run(): Promise<SignedIn> {
    return this.#handOver(await this.#signedIn());
  }

  /** The page on which the sign-in ends. */
  async #signedIn(): Promise<Page> {
    const first = this.#follow({ method: "GET", address: this.task.signInPage, headers: {}, body: null }, null);
    let page: Page;
    [page, this.#login] = await Promise.all([first, this.task.login]);
    for (let step = 0; step < MOST_STEPS; step++) {
      const now = this.#course.ontoWithoutScripts(page);
      this.#course.saw(now);
      if (!now.followed && isDone(now, this.#sent)) return now;
      requireStep(now, this.#sent, canGiveCode(this.#login, this.task), this.#typedInto);
      page = now.sends ? await this.#sendAsLearned(now, now.sends) : await this.#step(now);
    }
    throw new SignInFailure("not-understood", "the sign-in has more steps than Galtry follows");
  }

  async change(task: ChangeTask): Promise<ChangeSent> {
    const landing = await this.#signedIn();
    task.onSignedIn();
    const page = await findChangePage(landing, task.changePage, task.allows, (address) => this.#lookAt(address));
    const { reading, description } = page;
    const filled: Filled = new Map();
    // Whether it can be sent at all is found before a password is made for it.
    try {
      requireForm(description, reading, true);
    } catch (error) {
      throw error instanceof SignInFailure ? new ChangeFailure("only-by-hand", error.detail) : error;
    }
    if (reading.oneTimeCode !== null && !canGiveCode(this.#login, this.task))
      throw new ChangeFailure("only-by-hand", "the page asks for a code that the entry does not have");
    if (reading.userName) filled.set(reading.userName, this.#login.userName);
    if (asksForCurrent(page)) this.#put(page, filled, reading.password!, this.#login.password);
    const fresh = await task.create(page.newPasswordRules);
    for (const selector of reading.newPasswords) filled.set(selector, fresh);
    if (reading.oneTimeCode !== null) await this.#fillCode(page, filled);
    const { headers, body, ...rest } = submissionOf(description, reading, filled, {}, page.charset, true);
    if (!task.allows(rest.address))
      throw new ChangeFailure("only-by-hand", `the form sends to ${safeHost(rest.address)}`);
    await task.onSend();
    const next = await this.#follow({ ...rest, headers, body }, page.reply.url);
    const confirms = asksForCode(next) && canGiveCode(this.#login, this.task);
    return answerOf(confirms ? await this.#step({ ...next, followed: null, sends: null }) : next, page);
  }

  async #lookAt(address: string): Promise<Page | null> {
    try {
      const from = this.task.signInPage;
      const page = await this.#follow({ method: "GET", address, headers: {}, body: null }, from);
      const asksWho = page.reading.kind === "password-only-step" || page.reading.kind === "sign-in";
      if (!asksWho || this.#saidAgain) return page;
      // Some sites want to know anew who it is before they show this page: they are told once.
      this.#saidAgain = true;
      return await this.#step({ ...page, followed: null, sends: null });
    } catch (error) {
      // A link may lead anywhere; where it leads nowhere the next one may not.
      if (error instanceof SignInFailure && !this.task.signal.aborted) return null;
      throw error;
    }
  }

  async #step(page: Page & OnCourse): Promise<Page> {
    this.task.onProgress("page-read");
    const { reading } = page;
    // A code that is used up for nothing costs the next engine half a minute.
    requireForm(page.description, reading, reading.oneTimeCode !== null);
    const filled: Filled = new Map();
    if (reading.userName) filled.set(reading.userName, this.#login.userName);
    if (reading.password && reading.kind !== "identifier-first")
      this.#put(page, filled, reading.password, this.#login.password);
    const wantsCode =
      reading.oneTimeCode !== null && (reading.kind === "one-time-code-step" || this.#login.code !== null);
    if (wantsCode) await this.#fillCode(page, filled);
    const secret = filled.size > 0 && reading.kind !== "identifier-first";
    if (reading.password !== null) this.#typedInto = page.mark;
    const { headers, body, ...rest } = submissionOf(
      page.description,
      reading,
      filled,
      this.task.steps.choices,
      page.charset,
      secret,
    );
    this.#requireSafeTarget(rest.address);
    this.#enters(page, {
      userName: reading.userName !== null,
      password: reading.password !== null && reading.kind !== "identifier-first",
      code: wantsCode,
    });
    const following = this.#follow({ ...rest, headers, body: rest.method === "POST" ? body : null }, page.reply.url);
    // Worked out while the site answers.
    this.#traces ??= tracesOf(this.#login.password, this.#login.userName);
    const next = await following;
    if (reading.kind === "identifier-first") this.task.onProgress("user-name-sent");
    else if (next.reading.kind === "one-time-code-step") this.task.onProgress("password-accepted");
    return next;
  }

  /**
   * Sends what the page's own script would send, as the entry's steps tell it.
   * @throws SignInFailure where a token does not stand where it did, or the site turns it away
   */
  async #sendAsLearned(page: Page & OnCourse, sends: Sending): Promise<Page> {
    this.task.onProgress("page-read");
    const entered = new Set(page.followed!.enters.map(({ what }) => what));
    this.#requireSafeTarget(sends.to);
    const { userName, password } = this.#login;
    const cookies = await this.#jar.getCookies(sends.to);
    const token = (place: TokenPlace) => tokenAt(page, cookies, place);
    const compose = (code: string | null) => composed(sends, { userName, password, code, token });
    // What the page lacks is found before a code is used up for it.
    let request = compose(entered.has("code") ? "" : null);
    if (entered.has("code")) request = compose(await codeFor(this.#login, this.task));
    if (entered.has("password")) this.#typedInto = page.mark;
    this.#enters(page, {
      userName: entered.has("user-name"),
      password: entered.has("password"),
      code: entered.has("code"),
    });
    this.#traces ??= tracesOf(password, userName);
    const before = JSON.stringify(cookies);
    const accept = { accept: "application/json, text/plain, */*" };
    const reply = await this.#send("POST", sends.to, { ...request.headers, ...accept }, request.body, page.reply.url);
    this.#requireTaken(reply);
    if (this.#course.goesOnAt(page.url)) return { ...page, reply, status: reply.status };
    // Without a cookie the session is somewhere that only the page's script knows of.
    if (!this.#sent.password || JSON.stringify(await this.#jar.getCookies(sends.to)) === before)
      throw new SignInFailure("session-elsewhere", "the site’s answer gives no cookie");
    const lands = this.task.steps.lands ?? new URL("/", page.url).href;
    const landing = await this.#follow({ method: "GET", address: lands, headers: {}, body: null }, page.reply.url);
    if (landing.reading.kind === "sign-in" || landing.reading.kind === "identifier-first")
      throw new SignInFailure("session-elsewhere", "with its cookies the site asks to sign in again");
    return landing;
  }

  #enters(page: Page & OnCourse, entering: Entering): void {
    this.#course.does(page, entering);
    this.#sent = {
      userName: this.#sent.userName || entering.userName,
      password: this.#sent.password || entering.password,
      code: this.#sent.code || entering.code,
    };
  }

  #requireTaken({ status, body }: Reply): void {
    const wrong = status === 401 || (status >= 400 && saysWrongIn(body.toString("utf8").slice(0, 2_000)));
    if (wrong)
      throw this.#sent.code
        ? new SignInFailure("code-refused", `after the code the site answered ${status}`)
        : new SignInFailure("wrong-password", `the site answered ${status}`);
    if (status >= 500) throw new SignInFailure("site-down", `the site answered ${status}`);
    // What the page's own script would have done besides is not known: that, and no password, may be what is wrong.
    if (status >= 300)
      throw new SignInFailure("drawn-by-scripts", `the site answered ${status} to what the steps send`);
  }

  /** Secrets leave an encrypted page only for an encrypted address. */
  #requireSafeTarget(address: string): void {
    if (!this.task.allows(address))
      throw new SignInFailure("address-not-allowed", `the form sends to ${new URL(address).host}`);
  }

  async #fillCode(page: Page, filled: Filled): Promise<void> {
    this.#put(page, filled, page.reading.oneTimeCode!, await codeFor(this.#login, this.task));
  }

  /** A value into its field, or a character a box. */
  #put(page: Page, filled: Filled, selector: string, value: string): void {
    const pieces = spread(page.description, selector, value);
    if (pieces === null)
      throw new SignInFailure("not-understood", "the page asks for letters of it that Galtry cannot tell");
    for (const [box, text] of pieces) filled.set(box, text);
  }

  async #follow(
    first: { method: "GET" | "POST"; address: string; headers: Record<string, string>; body: Buffer | null },
    referer: string | null,
  ): Promise<Page> {
    let { method, address, headers, body } = first;
    let from = referer;
    for (let hops = 0; hops <= MOST_REDIRECTS; hops++) {
      const reply = await this.#send(method, address, headers, body, from);
      const target = redirectOf(reply);
      if (target === null) {
        const page = await this.#read(reply);
        const refresh = this.#sent.password && page.reading.kind === "none" ? page.refresh : null;
        if (refresh === null) return page;
        [method, address, headers, body, from] = ["GET", refresh, {}, null, reply.url];
        continue;
      }
      // 307 and 308 repeat the request: a POST that carries a secret is never sent again.
      if ((reply.status === 307 || reply.status === 308) && method === "POST") {
        if (new URL(target).host !== new URL(address).host)
          throw new SignInFailure("address-not-allowed", "the site redirects what was filled in to another host");
        throw new SignInFailure("not-understood", "the site asks to send the form a second time");
      }
      from = reply.url;
      [method, address, headers, body] = ["GET", target, {}, null];
    }
    throw new SignInFailure("too-much", `more than ${MOST_REDIRECTS} redirects`);
  }

  async #send(
    method: "GET" | "POST",
    address: string,
    headers: Record<string, string>,
    body: Buffer | null,
    referer: string | null,
  ): Promise<Reply> {
    if (!this.task.allows(address))
      throw new SignInFailure("address-not-allowed", `the sign-in leads to ${safeHost(address)}`);
    const cookie = await this.#jar.getCookieString(address);
    const reply = await this.client.send(address, {
      method,
      headers: {
        "user-agent": this.task.userAgent,
        "accept-language": this.task.acceptLanguage,
        accept: "text/html,application/xhtml+xml,application/xml;q=0.9,*/*;q=0.8",
        ...(cookie ? { cookie } : {}),
        ...(referer ? { referer: refererOf(referer, address) } : {}),
        ...(method === "POST" ? { origin: new URL(referer ?? address).origin } : {}),
        ...headers,
      },
      ...(body ? { body } : {}),
      signal: this.task.signal,
    });
    for (const line of [reply.headers["set-cookie"] ?? []].flat())
      await this.#jar.setCookie(line, reply.url, { ignoreError: true });
    return reply;
  }

  async #read(reply: Reply): Promise<Page> {
    const type = String(reply.headers["content-type"] ?? "");
    const { text, charset } = decode(reply.body, type);
    const html = /html|xml|^$/i.test(type) ? text : `<pre>${text.replace(/[<&]/g, " ")}</pre>`;
    try {
      const studied = await this.pages.read({ html, url: reply.url });
      const asksBasic = /^\s*(basic|digest)\b/i.test(String(reply.headers["www-authenticate"] ?? ""));
      return { ...studied, reply, charset, url: reply.url, status: reply.status, asksBasic };
    } catch (error) {
      if (error instanceof PageUnreadable) throw new SignInFailure("too-much", error.message);
      throw error;
    }
  }

  /** The cookies, and nothing else; searched first for the password in any form. */
  async #handOver(page: Page): Promise<SignedIn> {
    const kept = (await this.#jar.serialize())?.cookies ?? [];
    const cookies = kept.flatMap((serialized): HandedCookie[] => {
      const cookie = Cookie.fromJSON(serialized);
      const domain = cookie?.domain;
      if (!cookie?.key || !domain) return [];
      return [
        {
          name: cookie.key,
          value: cookie.value ?? "",
          domain,
          hostOnly: cookie.hostOnly ?? true,
          path: cookie.path ?? "/",
          secure: cookie.secure ?? false,
          httpOnly: cookie.httpOnly ?? false,
          sameSite: sameSiteOf(cookie.sameSite),
          expires: expiryOf(cookie),
        },
      ];
    });
    const traces = this.#traces ?? tracesOf(this.#login.password, this.#login.userName);
    const session = sessionFrom({ cookies, storage: [], landing: page.reply.url }, traces, this.task.allows);
    this.task.onProgress(this.#sent.code ? "code-accepted" : "password-accepted");
    return session;
  }
}

/** What stands where a token stood when the steps were learned; scripts read a cookie's escapes undone. */
function tokenAt(
  { description, metas }: Page,
  cookies: readonly Cookie[],
  { in: where, name }: TokenPlace,
): string | null {
  if (where === "meta") return metas[name] ?? null;
  if (where === "field") return description.fields.find((field) => field.name === name)?.value ?? null;
  const value = cookies.find((cookie) => cookie.key === name)?.value;
  try {
    return value === undefined ? null : decodeURIComponent(value);
  } catch {
    return value ?? null;
  }
}

function composed(sends: Sending, values: Values): { headers: Record<string, string>; body: Buffer } {
  try {
    const headers = Object.fromEntries(pairsOf(sends.headers, values));
    if (sends.encoding === "json") {
      const body = Buffer.from(jsonOf(sends.parts, values));
      return { headers: { ...headers, "content-type": "application/json" }, body };
    }
    const type = sends.encoding === "multipart" ? "multipart/form-data" : "application/x-www-form-urlencoded";
    const form = encode(pairsOf(sends.parts, values), type, "utf-8");
    return { headers: { ...headers, ...form.headers }, body: form.body };
  } catch (error) {
    if (error instanceof PartMissing)
      throw new SignInFailure("drawn-by-scripts", `the page lacks what the steps send as ${error.message}`);
    throw error;
  }
}

const safeHost = (address: string) => {
  try {
    return new URL(address).host;
  } catch {
    return "an address that cannot be read";
  }
};

/** strict-origin-when-cross-origin, the browsers' default. */
function refererOf(from: string, to: string): string {
  const [a, b] = [new URL(from), new URL(to)];
  return a.origin === b.origin ? a.href.replace(/#.*$/, "") : `${a.origin}/`;
}

function redirectOf(reply: Reply): string | null {
  const location = reply.headers.location;
  if (![301, 302, 303, 307, 308].includes(reply.status) || typeof location !== "string") return null;
  try {
    return new URL(location, reply.url).href;
  } catch {
    throw new SignInFailure("not-understood", "the site redirects to an address that cannot be read");
  }
}

function decode(body: Buffer, contentType: string): { text: string; charset: string } {
  const declared =
    /charset=["']?([\w-]+)/i.exec(contentType)?.[1] ??
    /<meta[^>]+charset=["']?([\w-]+)/i.exec(body.subarray(0, 2048).toString("latin1"))?.[1];
  const charset = declared && iconv.encodingExists(declared) ? declared : "utf-8";
  return { text: iconv.decode(body, charset), charset };
}

function sameSiteOf(value: string | undefined): HandedCookie["sameSite"] {
  if (value === "strict" || value === "lax") return value;
  return value === "none" ? "no_restriction" : "unspecified";
}

function expiryOf(cookie: {
  expires?: Date | string | "Infinity" | null;
  maxAge?: number | "Infinity" | "-Infinity" | null;
  creation?: Date | string | "Infinity" | null;
}): number | null {
  if (typeof cookie.maxAge === "number") return Math.floor(Date.now() / 1000 + cookie.maxAge);
  if (!cookie.expires || cookie.expires === "Infinity") return null;
  const time = new Date(cookie.expires).getTime();
  return Number.isFinite(time) ? Math.floor(time / 1000) : null;
}
