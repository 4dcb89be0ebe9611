/** Sealed sign-in over plain HTTP: reads forms, fills them in as many steps as it takes, judges what comes back. */
import iconv from "iconv-lite";
import { Cookie, CookieJar } from "tough-cookie";
import { spread } from "../../core/signin/boxes";
import { carriesSecret, type SecretTraces, tracesOf } from "../../core/signin/carries";
import { codeAt } from "../../core/signin/code";
import { mayHoldCookie } from "../../core/signin/site";
import type { HandedCookie, Login, SignedIn, SignInEngine, SignInTask } from "./engine";
import { type Filled, submissionOf } from "./form";
import { GuardedClient, type GuardSettings, type Reply, SignInFailure } from "./guardedClient";
import { type PageReader, PageUnreadable } from "./pageReader";
import type { StudiedPage } from "./studiedPage";

const MOST_REDIRECTS = 20;
const MOST_STEPS = 6;
/** A code that is about to end would arrive too late. */
const CODE_MARGIN_MS = 2_000;

export class HttpEngine implements SignInEngine {
  constructor(
    private readonly guard: Pick<GuardSettings, "allowedTargets" | "ownPort">,
    private readonly pages: Pick<PageReader, "read">,
  ) {}

  async signIn(task: SignInTask): Promise<SignedIn> {
    const client = new GuardedClient({ ...this.guard, allows: task.allows, plainHttp: task.plainHttp });
    try {
      return await new Visit(task, client, this.pages).run();
    } finally {
      await client.close();
    }
  }
}

interface Page extends StudiedPage {
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

  constructor(
    private readonly task: SignInTask,
    private readonly client: GuardedClient,
    private readonly pages: Pick<PageReader, "read">,
  ) {}

  async run(): Promise<SignedIn> {
    const first = this.#follow({ method: "GET", address: this.task.signInPage, headers: {}, body: null }, null);
    let page: Page;
    [page, this.#login] = await Promise.all([first, this.task.login]);
    for (let step = 0; step < MOST_STEPS; step++) {
      if (this.#isDone(page)) return this.#handOver(page);
      this.#requireStep(page);
      page = await this.#step(page);
    }
    throw new SignInFailure("not-understood", "the sign-in has more steps than Galtry follows");
  }

  /** Signed in: a password was sent and the page asks for nothing more. */
  #isDone(page: Page): boolean {
    return (
      this.#sent.password &&
      page.reading.kind !== "sign-in" &&
      page.reading.kind !== "password-only-step" &&
      page.reading.kind !== "one-time-code-step" &&
      page.reading.kind !== "identifier-first" &&
      this.#requireAccepted(page)
    );
  }

  #requireAccepted(page: Page): true {
    if (page.reading.kind === "change-password")
      throw new SignInFailure("change-wanted", "after the password the site asks for a new one");
    if (page.challenge) throw new SignInFailure("challenge", "after the password the site shows a challenge");
    if (page.says.locked) throw new SignInFailure("wrong-password", "the site says that the account is locked");
    if (page.reply.status === 401 || page.reply.status === 403)
      throw new SignInFailure("wrong-password", `the site answered ${page.reply.status}`);
    if (page.reply.status >= 400)
      throw new SignInFailure(
        page.reply.status >= 500 ? "site-down" : "not-understood",
        `after the password the site answered ${page.reply.status}`,
      );
    if (page.says.wrong) throw new SignInFailure("wrong-password", "the page that follows says so");
    return true;
  }

  /** A page that asks for something Galtry holds and has not sent yet; otherwise the failure by name. */
  #requireStep(page: Page): void {
    const { reply, reading } = page;
    if (reply.status === 401 && /^\s*basic/i.test(String(reply.headers["www-authenticate"] ?? "")))
      throw new SignInFailure("http-basic", "the site answers 401 with WWW-Authenticate: Basic");
    if (reply.status >= 500 || reply.status === 404 || reply.status === 429)
      throw new SignInFailure("site-down", `the site answered ${reply.status}`);
    const { kind } = reading;
    if (kind === "sign-in" || kind === "password-only-step") {
      if (this.#sent.password) throw this.#refusedPassword(page);
      if (page.challenge) throw new SignInFailure("challenge", "the sign-in page shows a challenge");
      return;
    }
    if (kind === "identifier-first") {
      if (this.#sent.userName || this.#sent.password) throw this.#refusedPassword(page);
      return;
    }
    if (kind === "one-time-code-step") {
      if (!this.#login.code) throw new SignInFailure("code-missing", "the site asks for a code and the entry has none");
      if (this.#sent.code) throw new SignInFailure("code-refused", "the site asks for the code again");
      return;
    }
    if (page.challenge) throw new SignInFailure("challenge", "the sign-in page shows a challenge");
    if (kind === "unsure")
      throw new SignInFailure(
        "not-understood",
        "the page may be for signing in, but that is not certain enough to act",
      );
    if (page.drawnByScripts) throw new SignInFailure("drawn-by-scripts", "the page holds scripts and no form");
    throw new SignInFailure("not-understood", `the page at ${new URL(reply.url).pathname} is no sign-in page`);
  }

  #refusedPassword(page: Page): SignInFailure {
    if (page.challenge) return new SignInFailure("challenge", "after the password the site shows a challenge");
    if (this.#sent.code && page.says.codeWrong)
      return new SignInFailure("code-refused", "the site says that the code is wrong");
    const told = page.says.wrong || page.says.locked || page.reply.status === 401 || page.reply.status === 403;
    // Without a word of its own the site may not have looked at them at all: what is not known is not said.
    if (!told && page.mark === this.#typedInto)
      return new SignInFailure("came-back", "the same page comes back and says nothing");
    return new SignInFailure("wrong-password", "the site asks for them again");
  }

  async #step(page: Page): Promise<Page> {
    this.task.onProgress("page-read");
    const { reading } = page;
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
    this.#sent = {
      userName: this.#sent.userName || reading.userName !== null,
      password: this.#sent.password || (reading.password !== null && reading.kind !== "identifier-first"),
      code: this.#sent.code || wantsCode,
    };
    const following = this.#follow({ ...rest, headers, body: rest.method === "POST" ? body : null }, page.reply.url);
    // Worked out while the site answers.
    this.#traces ??= tracesOf(this.#login.password, this.#login.userName);
    const next = await following;
    if (reading.kind === "identifier-first") this.task.onProgress("user-name-sent");
    else if (next.reading.kind === "one-time-code-step") this.task.onProgress("password-accepted");
    return next;
  }

  /** Secrets leave an encrypted page only for an encrypted address. */
  #requireSafeTarget(address: string): void {
    if (!this.task.allows(address))
      throw new SignInFailure("address-not-allowed", `the form sends to ${new URL(address).host}`);
  }

  async #fillCode(page: Page, filled: Filled): Promise<void> {
    const settings = this.#login.code;
    if (!settings || !page.reading.oneTimeCode) return;
    const code = await this.#freshCode();
    this.#put(page, filled, page.reading.oneTimeCode, code);
  }

  /** A value into its field, or a character a box. */
  #put(page: Page, filled: Filled, selector: string, value: string): void {
    const pieces = spread(page.description, selector, value);
    if (pieces === null)
      throw new SignInFailure("not-understood", "the page asks for letters of it that Galtry cannot tell");
    for (const [box, text] of pieces) filled.set(box, text);
  }

  /** The current code, or the next when this one is about to end or was used. */
  async #freshCode(): Promise<string> {
    for (let tries = 0; tries < 4; tries++) {
      const { code, step, leftMs } = codeAt(this.#login.code!, Date.now());
      if (leftMs > CODE_MARGIN_MS && (await this.task.claimCode(step))) return code;
      this.task.onProgress("code-wait");
      await pause(leftMs + 20, this.task.signal);
    }
    throw new SignInFailure("too-slow", "no unused code came up in time");
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
      return { ...(await this.pages.read({ html, url: reply.url })), reply, charset };
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
    if (cookies.length === 0)
      throw new SignInFailure("not-understood", "the site gave no cookie: its session may live elsewhere");
    const traces = this.#traces ?? tracesOf(this.#login.password, this.#login.userName);
    const landing = new URL(page.reply.url);
    const values = [
      ...cookies.flatMap((cookie) => [cookie.name, cookie.value, cookie.domain, cookie.path]),
      landing.href,
      ...landing.searchParams.values(),
      ...landing.pathname.split("/"),
      landing.hash,
    ];
    if (carriesSecret(values, traces))
      throw new SignInFailure("gave-password-back", "a cookie or the landing address holds the password");
    this.task.onProgress(this.#sent.code ? "code-accepted" : "password-accepted");
    return {
      cookies: cookies.filter(
        (cookie) => mayHoldCookie(landing.hostname, cookie.domain) || this.task.allows(`https://${cookie.domain}/`),
      ),
      landing: landing.href,
    };
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
