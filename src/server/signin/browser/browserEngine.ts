/** Sealed sign-in in a browser of the server's own, for pages that scripts draw and sessions kept beside cookies. */
import type { Page as BrowserPage, Frame, Request, Response } from "playwright-core";
import { z } from "zod";
import { spread } from "../../../core/signin/boxes";
import { carriesSecret, type SecretTraces, tracesOf } from "../../../core/signin/carries";
import { asksToRemember } from "../../../core/signin/remember";
import { goesOn } from "../../log";
import { Refused } from "../../refused";
import { answerOf, asksForCode, asksForCurrent, findChangePage, isWellKnown } from "../changePage";
import { Course, type OnCourse } from "../course";
import {
  type ChangeEngine,
  ChangeFailure,
  type ChangeSent,
  type ChangeTask,
  databaseSchema,
  type HandedCookie,
  type HandedStorage,
  type Login,
  type SignedIn,
  type SignInEngine,
  type SignInTask,
} from "../engine";
import { canGiveCode, codeFor } from "../freshCode";
import { Guard, type GuardSettings, SignInFailure } from "../guardedClient";
import { sessionFrom } from "../handing";
import { type PageReader, PageUnreadable } from "../pageReader";
import type { StudiedPage } from "../studiedPage";
import { isDone, requireStep, type SeenPage, type Sent } from "../verdict";
import { type BrowserProgram, ServerBrowser } from "./chromium";
import { pictureOf } from "./picture";
import { BrowserProxy } from "./proxy";
import { BEFORE_SCRIPTS, MARK, SNAPSHOT, STORAGE } from "./snapshot";

/** At once in one process: each takes some hundred mebibytes. */
const MOST_AT_ONCE = 3;
/** And so many more that only wait until a person enters a code. */
const MOST_WAITING = 3;
const MOST_STEPS = 10;
const SETTLE_MS = 10_000;
const LOOK_EVERY_MS = 120;
/** So long a page that asks for nothing is waited for to become a sign-in page, and to answer what was sent. */
const QUIET_MS = 1_500;
const NO_ANSWER_MS = 3_500;
const LONGEST_REQUEST_MS = 6_000;
const STORAGE_MOST = 1_000_000;

/** Places for browsers, given on in turn. */
class Turns {
  #taken = 0;
  readonly #waiting: (() => void)[] = [];

  /** @throws SignInFailure where its time is over before its turn comes */
  async take(signal: AbortSignal): Promise<void> {
    if (this.#taken < MOST_AT_ONCE) {
      this.#taken++;
      return;
    }
    await new Promise<void>((done, failed) => {
      const giveUp = () => {
        this.#waiting.splice(this.#waiting.indexOf(begin), 1);
        failed(new SignInFailure("too-slow", "too many sign-ins at once"));
      };
      const begin = () => {
        signal.removeEventListener("abort", giveUp);
        done();
      };
      this.#waiting.push(begin);
      signal.addEventListener("abort", giveUp, { once: true });
      if (signal.aborted) giveUp();
    });
  }

  /** The place goes to whoever waits longest. */
  give(): void {
    const next = this.#waiting.shift();
    if (next) next();
    else this.#taken--;
  }
}

const turns = new Turns();
let waitingForCode = 0;

/** One visit's place, which others have while it waits for a person. */
class Place {
  #held = true;

  give(): void {
    if (this.#held) turns.give();
    this.#held = false;
  }

  async lentWhile<R>(work: () => Promise<R>, signal: AbortSignal): Promise<R> {
    if (waitingForCode >= MOST_WAITING) throw new SignInFailure("too-slow", "too many sign-ins wait for a code");
    waitingForCode++;
    this.give();
    try {
      const done = await work();
      await turns.take(signal);
      this.#held = true;
      return done;
    } finally {
      waitingForCode--;
    }
  }
}

export class BrowserEngine implements SignInEngine, ChangeEngine {
  constructor(
    private readonly program: BrowserProgram,
    private readonly guard: Pick<GuardSettings, "allowedTargets" | "ownPort">,
    private readonly pages: Pick<PageReader, "read">,
  ) {}

  signIn(task: SignInTask): Promise<SignedIn> {
    return this.#visit(task, async (visit) => {
      try {
        return await visit.run();
      } finally {
        await visit.giveItsPicture();
      }
    });
  }

  change(task: ChangeTask): Promise<ChangeSent> {
    return this.#visit(task, (visit) => visit.change(task));
  }

  show(task: SignInTask, session: SignedIn | null): Promise<void> {
    return this.#visit(task, async (visit) => {
      try {
        await visit.openWith(session);
      } finally {
        await visit.giveItsPicture();
      }
    });
  }

  /** A browser for one visit, gone when it is over. */
  async #visit<R>(task: SignInTask, work: (visit: Visit) => Promise<R>): Promise<R> {
    // It may come to nothing before it is asked for: that it cannot be opened is then nobody's surprise.
    task.login.catch(() => undefined);
    await turns.take(task.signal);
    const place = new Place();
    const { askCode } = task;
    const inPlace = askCode ? { ...task, askCode: () => place.lentWhile(askCode, task.signal) } : task;
    /** Hosts that are not the entry's may be read from until something secret is on the page. */
    let reading = false;
    const guard = new Guard({
      ...this.guard,
      plainHttp: task.plainHttp,
      allows: (address) => task.allows(address) || (reading && isOpenWeb(address)),
    });
    const proxy = await BrowserProxy.open(guard).catch((error) => {
      place.give();
      throw error;
    });
    let browser: ServerBrowser | null = null;
    try {
      browser = await ServerBrowser.start(this.program, {
        proxy,
        userAgent: task.userAgent,
        acceptLanguage: task.acceptLanguage,
      }).catch((error) => {
        goesOn("signIn.startBrowser")(error);
        throw new SignInFailure("browser-missing", "Galtry’s own browser could not be started");
      });
      const held = browser;
      const end = () => held.end();
      task.signal.addEventListener("abort", end, { once: true });
      if (task.signal.aborted) end();
      const visit = new Visit(inPlace, held, proxy, this.pages, (on) => {
        reading = on;
      });
      try {
        return await work(visit);
      } catch (error) {
        if (!task.signal.aborted && (error instanceof ChangeFailure || error instanceof Refused)) throw error;
        throw asFailure(error, visit, held, task.signal);
      } finally {
        task.signal.removeEventListener("abort", end);
      }
    } finally {
      browser?.end();
      proxy.close();
      place.give();
    }
  }
}

/** Scripts and styles of others are fetched over https alone. */
const isOpenWeb = (address: string): boolean => address.startsWith("https://");

function asFailure(error: unknown, visit: Visit, browser: ServerBrowser, signal: AbortSignal): SignInFailure {
  const failure = signal.aborted
    ? new SignInFailure("too-slow", "it did not finish in time")
    : error instanceof SignInFailure
      ? error
      : browser.ended
        ? new SignInFailure("too-much", "the page used more memory than a sign-in needs")
        : unexpected(error);
  failure.afterPassword = visit.sentPassword;
  return failure;
}

/** The page moved away under the hand, or Galtry is wrong: the second is to be found in the log. */
function unexpected(error: unknown): SignInFailure {
  goesOn("signIn.browser")(error);
  return new SignInFailure("not-understood", "the page could not be operated");
}

/** A page, and the frame that its sign-in is in. */
interface Page extends StudiedPage, SeenPage, OnCourse {
  frame: Frame;
}

const asksForSomething = ({ reading, followed }: Page): boolean => reading.kind !== "none" || followed !== null;

class Visit {
  #sent: Sent = { userName: false, password: false, code: false };
  #login: Login = { userName: "", password: "", code: null };
  #traces: SecretTraces | null = null;
  #typedInto = "";
  #saidAgain = false;
  /** None of them leaves in an address. */
  readonly #secrets: SecretTraces[] = [];
  #status = 200;
  #asksBasic = false;
  /** A request of a script that was turned away after the password was sent. */
  #refusedByScript = 0;
  readonly #asked = new Map<Request, number>();
  #leaked = false;
  #ledTo: string | null = null;
  #page!: BrowserPage;
  readonly #course: Course;

  constructor(
    private readonly task: SignInTask,
    private readonly browser: ServerBrowser,
    private readonly proxy: BrowserProxy,
    private readonly pages: Pick<PageReader, "read">,
    private readonly readOthers: (on: boolean) => void,
  ) {
    this.#course = new Course(task.steps, "browser", task.onPage);
  }

  get sentPassword(): boolean {
    return this.#sent.password;
  }

  async run(): Promise<SignedIn> {
    return this.#handOver(await this.#signedIn());
  }

  async change(task: ChangeTask): Promise<ChangeSent> {
    const landing = await this.#signedIn();
    this.#requireInside(landing);
    task.onSignedIn();
    const page = await findChangePage(landing, task.changePage, task.allows, (address) => this.#lookAt(address));
    const { reading } = page;
    if (reading.oneTimeCode !== null && !canGiveCode(this.#login, this.task))
      throw new ChangeFailure("only-by-hand", "the page asks for a code that the entry does not have");
    this.#requireSafeForm(page, true);
    if (reading.userName) await this.#type(page, reading.userName, this.#login.userName);
    if (asksForCurrent(page)) await this.#type(page, reading.password!, this.#login.password);
    const fresh = await task.create(page.newPasswordRules);
    this.#secrets.push(tracesOf(fresh, this.#login.userName));
    // A page may send what is typed before anything is pressed.
    await task.onSend();
    for (const selector of reading.newPasswords) await this.#type(page, selector, fresh);
    if (reading.oneTimeCode !== null)
      await this.#type(page, reading.oneTimeCode, await codeFor(this.#login, this.task));
    this.#refusedByScript = 0;
    await this.#send(page);
    try {
      const next = await this.#settled((seen) => this.#hasMovedOn(page, seen), NO_ANSWER_MS);
      return answerOf(asksForCode(next) && canGiveCode(this.#login, this.task) ? await this.#step(next) : next, page);
    } catch (error) {
      // The page put it into an address, and that request was stopped here.
      if (this.#leaked) return { says: "stopped", at: page.url, rules: "" };
      throw error;
    }
  }

  /** Only looked at; the old password is said once where the page wants to know anew who asks. */
  async #lookAt(address: string): Promise<Page | null> {
    try {
      const target = isWellKnown(address) ? await this.#leadsTo(address) : address;
      if (target === null) return null;
      await this.#open(target);
      const page = await this.#settled(asksForSomething, QUIET_MS);
      const asksWho = page.reading.kind === "password-only-step" || page.reading.kind === "sign-in";
      if (!asksWho || this.#saidAgain) return page;
      this.#saidAgain = true;
      return await this.#step(page);
    } catch (error) {
      // A link may lead anywhere; where it leads nowhere the next one may not.
      if (!(error instanceof SignInFailure) || this.browser.ended || this.#leaked) throw error;
      this.#ledTo = null;
      return null;
    }
  }

  /** Where an address leads, asked from within the page: Chromium does something of its own with the well-known one. */
  async #leadsTo(address: string): Promise<string | null> {
    const asked = `fetch(${JSON.stringify(address)}).then((reply) => (reply.ok && reply.redirected ? reply.url : null), () => null)`;
    const target = (await this.#page.evaluate(asked).catch(() => null)) as string | null;
    return target !== null && this.task.allows(target) ? target : null;
  }

  /** The page on which the sign-in ends. */
  async #signedIn(): Promise<Page> {
    await this.#begin();
    await this.#open(this.task.signInPage);
    let page = await this.#settled((seen) => asksForSomething(seen) || seen.challenge, QUIET_MS);
    // What the page cannot do without may lie elsewhere: fetched for reading, before anything is typed.
    if (!asksForSomething(page) && !page.challenge && this.proxy.refused.size > 0) {
      await this.#onlyReadOthers();
      this.readOthers(true);
      await this.#open(this.task.signInPage);
      page = await this.#settled((seen) => asksForSomething(seen) || seen.challenge, QUIET_MS);
    }
    this.readOthers(false);
    this.#login = await this.task.login;
    this.#traces = tracesOf(this.#login.password, this.#login.userName);
    await this.#watchRequests(this.#traces);
    this.proxy.cut();
    for (let step = 0; step < MOST_STEPS; step++) {
      this.#course.saw(page);
      if (!page.followed && isDone(page, this.#sent)) return page;
      this.#requireInside(page);
      requireStep(page, this.#sent, canGiveCode(this.#login, this.task), this.#typedInto);
      page = await this.#step(page);
    }
    throw new SignInFailure("not-understood", "the sign-in has more steps than Galtry follows");
  }

  async #begin(): Promise<void> {
    const { context } = this.browser;
    await context.addInitScript(BEFORE_SCRIPTS);
    this.#page = context.pages()[0] ?? (await context.newPage());
    context.on("page", (other) => {
      if (other !== this.#page) void other.close().catch(() => undefined);
    });
    this.#listen(this.#page);
    this.#page.setDefaultTimeout(6_000);
  }

  /**
   * Opens a session of the other engine where it leads to.
   * @throws SignInFailure session-elsewhere where the site asks to sign in again
   */
  async openWith(session: SignedIn | null): Promise<void> {
    await this.#begin();
    if (!session) {
      await this.#open(this.task.signInPage);
      await this.#settled((seen) => !isBare(seen), QUIET_MS);
      return;
    }
    const { cookies, landing } = session;
    this.#login = await this.task.login;
    this.#traces = tracesOf(this.#login.password, this.#login.userName);
    await this.#watchRequests(this.#traces);
    await this.browser.context.addCookies(cookies.map(asBrowserCookie));
    await this.#open(landing);
    const page = await this.#settled((seen) => !isBare(seen), QUIET_MS);
    this.#course.saw({ ...page, followed: null });
    if (page.reading.kind === "sign-in" || page.reading.kind === "identifier-first")
      throw new SignInFailure("session-elsewhere", "in a browser the session is asked to sign in again");
  }

  /** For a test's report: the page as it stands now. */
  async giveItsPicture(): Promise<void> {
    if (!this.task.onPicture || !this.#page || this.browser.ended || this.task.signal.aborted) return;
    try {
      const { password, userName } = await this.task.login;
      const picture = await pictureOf(this.#page, this.#traces ?? tracesOf(password, userName));
      if (picture) this.task.onPicture(picture);
    } catch (error) {
      if (!this.browser.ended) goesOn("signIn.picture")(error);
    }
  }

  #listen(page: BrowserPage): void {
    page.on("dialog", (dialog) => void dialog.dismiss().catch(() => undefined));
    page.on("response", (response) => this.#hear(response));
    page.on("request", (request) => {
      if (!/eventsource|websocket|media|image|font/.test(request.resourceType())) this.#asked.set(request, Date.now());
    });
    page.on("requestfinished", (request) => void this.#asked.delete(request));
    page.on("requestfailed", (request) => void this.#asked.delete(request));
  }

  #hear(response: Response): void {
    const request = response.request();
    if (request.isNavigationRequest() && response.frame() === this.#page.mainFrame()) {
      this.#status = response.status();
      this.#asksBasic = /^\s*(basic|digest)\b/i.test(response.headers()["www-authenticate"] ?? "");
    } else if ([400, 401, 403, 422].includes(response.status()) && this.#carriedPassword(request))
      this.#refusedByScript = response.status();
  }

  /** What a page counts or reports besides may be turned away: it says nothing of the password. */
  #carriedPassword(request: Request): boolean {
    const body = request.postData();
    if (body === null || this.#traces === null || !this.#sent.password) return false;
    return carriesSecret([body, decoded(body.replaceAll("+", " "))], this.#traces);
  }

  async #open(address: string): Promise<void> {
    if (!this.task.allows(address))
      throw new SignInFailure("address-not-allowed", "the sign-in page is none of the entry’s addresses");
    try {
      const response = await this.#page.goto(address, { waitUntil: "domcontentloaded", timeout: 15_000 });
      this.#status = response?.status() ?? this.#status;
    } catch (error) {
      const why = String(error);
      if (this.browser.ended) throw error;
      if (/ERR_INVALID_AUTH_CREDENTIALS|ERR_UNEXPECTED_PROXY_AUTH/.test(why))
        throw new SignInFailure("http-basic", "the site answers 401 with WWW-Authenticate: Basic or Digest");
      if (this.proxy.refused.size > 0 && /ERR_TUNNEL|ERR_PROXY|ERR_ABORTED/.test(why))
        throw new SignInFailure("address-not-allowed", `the sign-in leads to ${[...this.proxy.refused].at(-1)}`);
      if (/Timeout/.test(why)) throw new SignInFailure("too-slow", "the page did not come in time");
      throw new SignInFailure("site-down", "the sign-in page cannot be reached");
    }
  }

  /** From now on every request is looked at: none leaves for elsewhere, none carries the password in its address. */
  async #watchRequests(traces: SecretTraces): Promise<void> {
    this.#secrets.push(traces);
    await this.browser.context.route("**/*", async (route) => {
      const request = route.request();
      const address = request.url();
      if (this.#secrets.some((one) => carriesSecret([decoded(address), address], one))) {
        this.#leaked = true;
        return route.abort("blockedbyclient").catch(() => undefined);
      }
      if (!this.task.allows(address)) {
        if (isOfThePage(request, this.#page)) this.#ledTo = new URL(address).host;
        return route.abort("blockedbyclient").catch(() => undefined);
      }
      return route.continue().catch(() => undefined);
    });
  }

  /** Of hosts that are not the entry's nothing but what a page is drawn with is fetched. */
  async #onlyReadOthers(): Promise<void> {
    await this.browser.context.route("**/*", (route) => {
      const request = route.request();
      const may =
        this.task.allows(request.url()) ||
        (request.method() === "GET" && /^(script|stylesheet|fetch|xhr)$/.test(request.resourceType()));
      return (may ? route.continue() : route.abort("blockedbyclient")).catch(() => undefined);
    });
  }

  #requireNotLedAway(): void {
    if (this.#leaked) throw new SignInFailure("form-unsafe", "the page puts what is typed into an address");
    if (this.#ledTo !== null) throw new SignInFailure("address-not-allowed", `the sign-in leads to ${this.#ledTo}`);
  }

  #requireInside(page: Page): void {
    this.#requireNotLedAway();
    if (!this.task.allows(page.url))
      throw new SignInFailure("address-not-allowed", `the sign-in leads to ${new URL(page.url).host}`);
  }

  /**
   * The page once it has become what is waited for, or as it is when nothing has happened for a while.
   * @param enough counts once the page has been so twice in a row, and asks for nothing more from its site
   */
  async #settled(enough: (page: Page) => boolean, quietMs: number): Promise<Page> {
    const end = Date.now() + SETTLE_MS;
    let before: Page | null = null;
    let changedAt = Date.now();
    for (;;) {
      this.task.signal.throwIfAborted();
      const page = await this.#look();
      this.#requireNotLedAway();
      const still = page !== null && before?.mark === page.mark && before.url === page.url;
      if (!still || this.#underWay() > 0) changedAt = Date.now();
      if (still && enough(page) && this.#underWay() === 0) return page;
      if (still && Date.now() - changedAt > quietMs) return page;
      if (Date.now() > end) {
        if (page ?? before) return (page ?? before)!;
        throw new SignInFailure("too-slow", "the page does not come to rest");
      }
      before = page;
      await new Promise((done) => setTimeout(done, LOOK_EVERY_MS));
    }
  }

  /** Requests that are on their way; what takes long is a stream, and no part of a page that comes. */
  #underWay(): number {
    const now = Date.now();
    return [...this.#asked.values()].filter((since) => now - since < LONGEST_REQUEST_MS).length;
  }

  /** The page as it is drawn now; of its frames the one that asks for something. Null while it is on its way elsewhere. */
  async #look(): Promise<Page | null> {
    const found: Page[] = [];
    const frames = [this.#page.mainFrame(), ...this.#page.frames().filter((one) => one !== this.#page.mainFrame())];
    for (const frame of frames.slice(0, 6)) {
      const url = frame.url();
      if (frame !== this.#page.mainFrame() && !(url.startsWith("http") && this.task.allows(url))) continue;
      try {
        const html = (await frame.evaluate(SNAPSHOT)) as string;
        const studied = await this.pages.read({ html, url: url.startsWith("http") ? url : this.task.signInPage });
        const status = this.#refusedByScript || this.#status;
        const seen = { ...studied, frame, url: frames[0]!.url(), status, asksBasic: this.#asksBasic };
        found.push(this.#course.onto(seen));
      } catch (error) {
        if (error instanceof PageUnreadable) throw new SignInFailure("too-much", error.message);
        if (this.browser.ended) throw error;
      }
    }
    const main = found[0];
    if (!main) return null;
    // A sign-in within a frame of the same site is the page's sign-in.
    return asksForSomething(main) ? main : (found.find(asksForSomething) ?? main);
  }

  async #step(page: Page): Promise<Page> {
    this.task.onProgress("page-read");
    const { reading } = page;
    if (reading.userName) await this.#type(page, reading.userName, this.#login.userName);
    const wantsCode =
      reading.oneTimeCode !== null && (reading.kind === "one-time-code-step" || this.#login.code !== null);
    const code = wantsCode ? await codeFor(this.#login, this.task) : null;
    if (code !== null) await this.#type(page, reading.oneTimeCode!, code);
    const givesPassword = reading.password !== null && reading.kind !== "identifier-first";
    this.#requireSafeForm(page, givesPassword);
    await this.#choose(page);
    if (givesPassword) {
      this.#typedInto = page.mark;
      await this.#type(page, reading.password!, this.#login.password);
    }
    const entering = { userName: reading.userName !== null, password: givesPassword, code: wantsCode };
    this.#course.does(page, entering);
    this.#sent = {
      userName: this.#sent.userName || entering.userName,
      password: this.#sent.password || entering.password,
      code: this.#sent.code || entering.code,
    };
    this.#refusedByScript = 0;
    await this.#send(page);
    const next = await this.#settled((seen) => this.#hasMovedOn(page, seen), NO_ANSWER_MS);
    if (reading.kind === "identifier-first") this.task.onProgress("user-name-sent");
    else if (next.reading.kind === "one-time-code-step") this.task.onProgress("password-accepted");
    return next;
  }

  /** Another page, another kind of page, or a word of what went wrong. */
  #hasMovedOn(before: Page, now: Page): boolean {
    if (now.says.wrong || now.says.locked || now.says.codeWrong || now.challenge || this.#refusedByScript > 0)
      return true;
    // A step that only goes on leads to a page of the same sort.
    if (before.followed?.enters.length === 0 || now.followed) return now.mark !== before.mark && !isBare(now);
    return now.reading.kind !== before.reading.kind && !(now.reading.kind === "none" && isBare(now));
  }

  /** A form that another site would get, or that would put what is typed into an address. */
  #requireSafeForm({ description, reading, frame }: Page, secret: boolean): void {
    const form = description.forms.find(({ selector }) => selector === reading.form);
    if (!form || !secret) return;
    const action = form.action.trim();
    if (action === "" || /^\s*javascript:/i.test(action)) return;
    const target = new URL(action, description.base ? new URL(description.base, frame.url()) : frame.url()).href;
    if (!this.task.allows(target))
      throw new SignInFailure("address-not-allowed", `the form sends to ${new URL(target).host}`);
  }

  /** What the entry's steps choose, as the other engine sends it; to be remembered beyond this visit is left out. */
  async #choose({ description, reading, marks, frame }: Page): Promise<void> {
    const form = description.forms.findIndex(({ selector }) => selector === reading.form);
    for (const field of description.fields) {
      const mark = marks[field.selector];
      if (!mark || !field.visible || field.disabled || (form >= 0 && field.form !== form)) continue;
      const control = frame.locator(`[${MARK}="${mark}"]`);
      const chosen = Object.hasOwn(this.task.steps.choices, field.name)
        ? this.task.steps.choices[field.name]
        : undefined;
      if (field.control === "select" && chosen !== undefined) await control.selectOption(chosen);
      else if (field.type === "radio" && chosen === field.value) await control.check();
      else if (field.type === "checkbox") {
        if (chosen !== undefined) await control.setChecked(chosen === field.value);
        else if (!field.required && asksToRemember(field)) await control.uncheck();
      }
    }
  }

  async #type(page: Page, selector: string, value: string): Promise<void> {
    const pieces = spread(page.description, selector, value);
    if (pieces === null)
      throw new SignInFailure("not-understood", "the page asks for letters of it that Galtry cannot tell");
    for (const [field, text] of pieces) {
      const mark = page.marks[field];
      if (!mark) throw new SignInFailure("not-understood", "a field of the page is gone");
      await page.frame.locator(`[${MARK}="${mark}"]`).fill(text);
    }
  }

  async #send({ reading, marks, frame }: Page): Promise<void> {
    const button = reading.submit ? marks[reading.submit] : undefined;
    const field = marks[reading.oneTimeCode ?? reading.password ?? reading.userName ?? ""];
    try {
      if (button) return await frame.locator(`[${MARK}="${button}"]`).click({ timeout: 4_000, noWaitAfter: true });
    } catch (error) {
      // Covered or switched off: Enter sends a form as well.
      if (this.browser.ended) throw error;
    }
    // A code in boxes is often sent by its last digit.
    if (field)
      await frame
        .locator(`[${MARK}="${field}"]`)
        .press("Enter", { noWaitAfter: true })
        .catch(() => undefined);
  }

  async #handOver(page: Page): Promise<SignedIn> {
    this.#requireInside(page);
    const { stored, elsewhere } = await this.#storage();
    const cookies = (await this.browser.context.cookies()).map(
      (cookie): HandedCookie => ({
        name: cookie.name,
        value: cookie.value,
        domain: cookie.domain.replace(/^\./, ""),
        hostOnly: !cookie.domain.startsWith("."),
        path: cookie.path,
        secure: cookie.secure,
        httpOnly: cookie.httpOnly,
        sameSite: cookie.sameSite === "Strict" ? "strict" : cookie.sameSite === "Lax" ? "lax" : "no_restriction",
        expires: cookie.expires > 0 ? Math.floor(cookie.expires) : null,
      }),
    );
    if (cookies.length + stored.length === 0 && elsewhere)
      throw new SignInFailure(
        "session-elsewhere",
        "the site keeps its session in a database of a kind that is not handed over",
      );
    const session = sessionFrom(
      { cookies, storage: stored, landing: this.#page.url() },
      this.#traces!,
      this.task.allows,
    );
    this.task.onProgress(this.#sent.code ? "code-accepted" : "password-accepted");
    return session;
  }

  /** @returns what can be handed over; `elsewhere` where the origin keeps databases that cannot be */
  async #storage(): Promise<{ stored: HandedStorage[]; elsewhere: boolean }> {
    const found = (await this.#page.evaluate(STORAGE)) as Omit<HandedStorage, "databases"> & {
      count: number;
      databases: unknown;
    };
    const { origin, local, session } = found;
    const size = [...local, ...session].flat().reduce((sum, text) => sum + text.length, 0);
    if (size > STORAGE_MOST) throw new SignInFailure("too-much", "the site stores more than a session needs");
    // The page's own scripts may have had a hand in it: what is no database is none.
    const read = z.array(databaseSchema).safeParse(found.databases);
    const databases = read.success && JSON.stringify(read.data).length <= STORAGE_MOST ? read.data : [];
    const any = local.length + session.length + databases.length > 0;
    return { stored: any ? [{ origin, local, session, databases }] : [], elsewhere: found.count > databases.length };
  }
}

/** By address where it belongs to one host alone, by domain otherwise: the two ways a browser takes it. */
function asBrowserCookie(cookie: HandedCookie): Parameters<ServerBrowser["context"]["addCookies"]>[0][number] {
  const { name, value, domain, hostOnly, path, secure, httpOnly, sameSite, expires } = cookie;
  return {
    ...{ name, value, path, secure, httpOnly },
    domain: hostOnly ? domain : `.${domain}`,
    expires: expires ?? -1,
    ...(sameSite === "strict" && { sameSite: "Strict" as const }),
    ...(sameSite === "lax" && { sameSite: "Lax" as const }),
    ...(sameSite === "no_restriction" && secure && { sameSite: "None" as const }),
  };
}

/** Whether a request would take the page itself elsewhere, and not a frame of it or another window. */
function isOfThePage(request: Request, page: BrowserPage): boolean {
  try {
    return request.isNavigationRequest() && request.frame() === page.mainFrame();
  } catch {
    return false;
  }
}

/** Nothing drawn yet: the next page is on its way. */
const isBare = ({ description, drawnByScripts }: Page): boolean =>
  drawnByScripts && description.fields.length === 0 && description.title === "";

const decoded = (address: string): string => {
  try {
    return decodeURIComponent(address);
  } catch {
    return address;
  }
};
