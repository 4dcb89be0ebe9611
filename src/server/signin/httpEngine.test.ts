/** What a sealed sign-in sends, and what it says of what comes back: small sites on this machine, one for each case. */

import { createServer, type IncomingMessage, type Server } from "node:http";
import type { AddressInfo } from "node:net";
import { afterAll, beforeAll, beforeEach, describe, expect, test } from "vitest";
import { NO_STEPS } from "../../core/signin/steps";
import type { SignInTask } from "./engine";
import { HttpEngine } from "./httpEngine";
import { studyPage } from "./studiedPage";

const USER = "box-office";
const PASSWORD = "canary-engine/61";

interface Sent {
  path: string;
  method: string;
  form: URLSearchParams;
}

let server: Server;
let origin: string;
/** What the site answers: to a GET its page, to a POST what this says. */
let site: { page: string; answer: (sent: Sent) => { status?: number; body?: string; to?: string } };
const posts: Sent[] = [];

const bodyOf = async (request: IncomingMessage) => {
  const parts: Buffer[] = [];
  for await (const part of request) parts.push(part as Buffer);
  return Buffer.concat(parts).toString();
};

beforeAll(async () => {
  server = createServer(async (request, response) => {
    const path = request.url ?? "/";
    if (request.method === "GET") {
      response.setHeader("content-type", "text/html");
      return void response.end(path === "/in" ? site.page : "<h1>Today</h1><a href=/out>Sign out</a>");
    }
    const sent = { path, method: "POST", form: new URLSearchParams(await bodyOf(request)) };
    posts.push(sent);
    const { status = 200, body = site.page, to } = site.answer(sent);
    response.writeHead(to ? 303 : status, {
      "content-type": "text/html",
      ...(to && { location: to }),
      ...((to || /out|melden|onnecter/.test(body)) && { "set-cookie": "visit=1; Path=/" }),
    });
    response.end(to ? "" : body);
  });
  await new Promise<void>((done) => server.listen(0, "127.0.0.1", done));
  origin = `http://127.0.0.1:${(server.address() as AddressInfo).port}`;
});
afterAll(() => new Promise((done) => server.close(done)));
beforeEach(() => void posts.splice(0));

const form = (inner = "", attributes = 'method="post"') =>
  `<!doctype html><title>Sign in</title><form ${attributes}><label>User name <input name="user"></label><label>Password <input type="password" name="pass"></label>${inner}<button>Sign in</button></form>`;

async function signIn(choices: Record<string, string> = {}, more: Partial<SignInTask> = {}): Promise<string> {
  const engine = new HttpEngine(
    { allowedTargets: new Set([new URL(origin).host]), ownPort: 1 },
    { read: async (page) => studyPage(page) },
  );
  return engine
    .signIn({
      signInPage: `${origin}/in`,
      login: Promise.resolve({ userName: USER, password: PASSWORD, code: null }),
      steps: { ...NO_STEPS, choices },
      allows: (address) => address.startsWith(origin),
      plainHttp: true,
      worked: null,
      ...{ userAgent: "test", acceptLanguage: "en", signal: new AbortController().signal },
      ...{ onProgress: () => undefined, claimCode: async () => true },
      ...more,
    })
    .then(
      () => "signed-in",
      (failure) => failure.failure ?? failure.outcome ?? failure.code ?? String(failure),
    );
}
const inside = () => ({ to: "/today" });

test("a code that only a script could send is not used up", async () => {
  const boxes = Array.from({ length: 6 }, () => '<input class="digit" maxlength="1" inputmode="numeric">').join("");
  site = { page: form(), answer: () => ({ body: `<h1>Enter the 6-digit code</h1><div>${boxes}</div>` }) };
  const claimed: number[] = [];
  const code = { secret: "MFRGGZDFMZTWQ2LKNNWG23TP", digits: 6, period: 30, algorithm: "SHA1" as const };
  const login = Promise.resolve({ userName: USER, password: PASSWORD, code });
  const claimCode = async (step: number) => claimed.push(step) > 0;
  expect(await signIn({}, { login, claimCode })).toBe("drawn-by-scripts");
  expect(claimed).toEqual([]);
});

describe("what is said of an answer", () => {
  test("let in", async () => {
    site = { page: form(), answer: inside };
    expect(await signIn()).toBe("signed-in");
    expect(Object.fromEntries(posts[0]!.form)).toEqual({ user: USER, pass: PASSWORD });
  });

  test.each([
    ["a message in a place for errors", { body: form('<p role="alert">Invalid user name or password.</p>') }],
    ["401", { status: 401, body: form() }],
    ["403", { status: 403, body: form() }],
    ["an account that is locked", { body: form("<p>Your account has been locked.</p>") }],
    ["the same form with other words", { body: form("<p>That did not work. Check what you typed.</p>") }],
  ])("wrong, on evidence: %s", async (_, answer) => {
    site = { page: form(), answer: () => answer };
    expect(await signIn()).toBe("wrong-password");
    expect(posts).toHaveLength(1);
  });

  test.each<[string, { status?: number; body?: string }]>([
    [
      "a failure of its own",
      {
        body: '<p role="alert">Connection to the archive failed.</p><a href="/session/logout" title="Log out"><i></i></a>',
      },
    ],
    ["accounts that are locked", { body: "<p>3 accounts are locked.</p><button>Abmelden</button>" }],
    ["that this page is not for them", { status: 403, body: "<p>Not for you.</p><a href='/x'>Se déconnecter</a>" }],
  ])("let in: the page reports %s, and offers to sign out", async (_, answer) => {
    site = { page: form(), answer: () => answer };
    expect(await signIn()).toBe("signed-in");
  });

  test.each<[string, { status?: number; body?: string }]>([
    ["nowhere to sign out", { body: '<p role="alert">Sign-in failed.</p><a href="/help">Help</a>' }],
    [
      "words about signing out",
      { body: '<p role="alert">Sign-in failed.</p><a href="/help">If you signed out, read this</a>' },
    ],
    [
      "the form itself, and a way to sign out others",
      { body: form('<p role="alert">Sign-in failed.</p><a href="/logout">Log out</a>') },
    ],
    ["401 all the same", { status: 401, body: "<a href='/logout'>Log out</a>" }],
  ])("not let in: a failure and %s", async (_, answer) => {
    site = { page: form(), answer: () => answer };
    expect(await signIn()).toBe("wrong-password");
  });

  test("the same page without a word is not called wrong; what a clock in it says does not count", async () => {
    let minute = 10;
    const page = () => form(`<p>It is 09:${minute++}.</p>`);
    site = { page: page(), answer: () => ({ body: page() }) };
    expect(await signIn()).toBe("came-back");
    expect(posts).toHaveLength(1);
  });
});

describe("what is sent", () => {
  const boxes =
    '<label><input type="checkbox" name="remember" value="1" checked> Remember me</label>' +
    '<label><input type="checkbox" name="k" value="1" checked> Angemeldet bleiben</label>' +
    '<label><input type="checkbox" name="news" value="1" checked> Show the news</label>' +
    '<label><input type="checkbox" name="terms" value="1" required> I agree</label>';

  test("to be remembered beyond the visit is left out, whatever it is called; other boxes stay as they are", async () => {
    site = { page: form(boxes), answer: inside };
    expect(await signIn()).toBe("signed-in");
    expect(Object.fromEntries(posts[0]!.form)).toEqual({ user: USER, pass: PASSWORD, news: "1", terms: "1" });
  });

  test("unless the entry's steps want it", async () => {
    site = { page: form(boxes), answer: inside };
    await signIn({ remember: "1" });
    expect(posts[0]!.form.get("remember")).toBe("1");
    expect(posts[0]!.form.get("k")).toBeNull();
  });

  test("a form that a script sends is named for that, and nothing goes anywhere", async () => {
    for (const action of ["javascript:void(0)", " JavaScript:send()"]) {
      site = { page: form("", `method="post" action="${action}"`), answer: inside };
      expect(await signIn()).toBe("drawn-by-scripts");
    }
    expect(posts).toEqual([]);
  });

  test("a page that hides all of itself until a script has looked at its frame is read", async () => {
    for (const guard of [
      "<style>html { display: none }</style>",
      "<style>body{display:none !important}</style>",
      '<style>html{visibility:hidden}</style><script>if (self === top) document.documentElement.style.visibility = "visible"</script>',
    ]) {
      site = { page: form().replace("<form", `${guard}<form`), answer: inside };
      expect(await signIn(), guard).toBe("signed-in");
    }
  });

  test("what else is hidden stays hidden: a second form beside it is not filled", async () => {
    const trap =
      '<div style="display:none"><form method="post" action="/trap"><input name="u"><input type="password" name="p"><button>Sign in</button></form></div>';
    site = { page: `<style>body{display:none}</style>${trap}${form()}`, answer: inside };
    expect(await signIn()).toBe("signed-in");
    expect(posts.map(({ path }) => path)).toEqual(["/in"]);
  });
});
