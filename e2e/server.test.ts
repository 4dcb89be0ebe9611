/** The built server over HTTP: proofs of possession, what it refuses, two processes on one file, and sudden ends. */
import { type ChildProcess, spawn } from "node:child_process";
import { generateKeyPair } from "jose";
import { afterAll, beforeAll, describe, expect, test } from "vitest";
import { freePort } from "../demo/freePort";
import { METRICS_TOKEN } from "../demo/inProcess";
import { DEMO_PASSWORD } from "../demo/organisation";
import { checkChain } from "../src/core/journal/chain";
import { endAccess, giveAccess } from "../src/server/access/grants";
import { hideNumber } from "../src/server/opaqueNumber";
import { suspendPerson } from "../src/server/people/persons";
import { type App, answers, startHouse } from "./house";
import { type ByHand, lanyardByHand } from "./lanyardByHand";

let app: App;
let maren: ByHand;
let entryId: string;

beforeAll(async () => {
  app = await startHouse();
  maren = await lanyardByHand(app, app.built.people.get("maren")!);
  entryId = app.built.entries.get("quillbrook.localhost")!;
});
afterAll(() => app?.close());

const by = (name: string) => ({
  kind: "person" as const,
  personId: app.built.people.get(name)!,
  sessionId: null,
  provedAt: Date.now(),
  address: "",
  browser: "",
});

/** Signs in as a page would, and gives the cookies. */
async function pageOf(
  mail: string,
  url = app.url,
): Promise<(kind: string, name: string, input?: unknown) => Promise<Response>> {
  const post = (kind: string, name: string, input: unknown, cookie: string) =>
    fetch(`${url}/api/${kind}/${name}`, {
      method: "POST",
      headers: { "content-type": "application/json", origin: app.url, cookie },
      body: JSON.stringify(input),
    });
  const answer = await post("command", "people.signIn", { mail, password: DEMO_PASSWORD }, "");
  const set = answer.headers.getSetCookie();
  for (const line of set) expect(line).toMatch(/HttpOnly; SameSite=Lax/);
  const cookie = set.map((line) => line.split(";")[0]).join("; ");
  return (kind, name, input = {}) => post(kind, name, input, cookie);
}

describe("whether it is well", () => {
  test("it lives, and is ready", async () => {
    for (const [place, says] of [
      ["healthz", "alive"],
      ["readyz", "ready"],
    ]) {
      const answer = await fetch(`${app.url}/${place}`);
      expect([answer.status, (await answer.text()).trim()]).toEqual([200, says]);
    }
  });

  test("what it has done is for whoever has the token, and names nobody", async () => {
    const metrics = (authorization?: string) =>
      fetch(`${app.url}/metrics`, { headers: authorization ? { authorization } : {} });
    const page = await pageOf("hanna.quist@tarrowick.example");
    await page("query", "frontdesk.frontDesk");
    expect((await metrics()).status).toBe(404);
    expect((await metrics("Bearer something of that length")).status).toBe(404);
    const answer = await metrics(`Bearer ${METRICS_TOKEN}`);
    expect(answer.status).toBe(200);
    const text = await answer.text();
    expect(text).toContain('galtry_acts_total{act="frontdesk.frontDesk",outcome="done"}');
    for (const unsaid of ["Hanna", "tarrowick.example", ...app.built.people.values()])
      expect(text).not.toContain(unsaid);
  });

  test("each answer carries an id that its sender did not choose", async () => {
    const ids = new Set<string | null>();
    for (let i = 0; i < 3; i++) {
      const answer = await fetch(`${app.url}/sign-in`, { headers: { "x-galtry-request": "chosen" } });
      ids.add(answer.headers.get("x-galtry-request"));
    }
    expect(ids.size).toBe(3);
    expect(ids.has("chosen")).toBe(false);
  });
});

describe("a Lanyard's proofs", () => {
  test("with its key it signs in, and is not told the password", async () => {
    const { answer } = await maren.signIn(entryId);
    expect(answer?.outcome).toBe("signed-in");
    expect(JSON.stringify(answer)).not.toContain("password");
  });

  test("a token without the key, a proof used before, an old one, one for another address or token: all refused", async () => {
    const other = await generateKeyPair("ES256");
    const ask = async (proof: string, token?: string | null) => {
      const answer = await maren.post("run/lanyard.keyList", {}, proof, token);
      return answer.status;
    };
    const once = await maren.prove("POST", "run/lanyard.keyList");
    expect(await ask(once)).toBe(200);
    expect(await ask(once)).toBe(401);
    expect(await ask(await maren.prove("POST", "run/lanyard.keyList", { key: other }))).toBe(401);
    expect(await ask(await maren.prove("POST", "run/lanyard.keyList", { at: Date.now() - 300_000 }))).toBe(401);
    expect(await ask(await maren.prove("POST", "run/lanyard.keyList", { at: Date.now() + 300_000 }))).toBe(401);
    expect(await ask(await maren.prove("POST", "run/lanyard.compareLogin"))).toBe(401);
    expect(await ask(await maren.prove("GET", "run/lanyard.keyList"))).toBe(401);
    expect(await ask(await maren.prove("POST", "run/lanyard.keyList", { forToken: "another" }))).toBe(401);
    expect(await ask(await maren.prove("POST", "run/lanyard.keyList", { jti: "short" }))).toBe(401);
    expect(await ask(await maren.prove("POST", "run/lanyard.keyList"), null)).toBe(401);
    expect(await ask(await maren.prove("POST", "run/lanyard.keyList"), "not-the-token")).toBe(401);
    expect(await ask("not.a.proof")).toBe(401);
  });

  test("what Galtry runs itself has no address, nor has what is a page's", async () => {
    for (const name of [
      "signIn.beginSignIn",
      "signIn.handOver",
      "signIn.claimCode",
      "lanyard.lanyardFor",
      "access.giveAccess",
      "vaults.revealField",
    ]) {
      const answer = await maren.post(`run/${name}`, { entryId });
      expect({ name, status: answer.status }).toEqual({ name, status: 404 });
    }
  });

  test("an entry that is none is refused in words, not with an error", async () => {
    const answer = await maren.post("sign-in", { entryId: "x" });
    expect(answer.status).toBe(422);
    expect(((await answer.json()) as { refused: { field: string } }).refused.field).toBe("entryId");
  });
});

describe("requests", () => {
  test("pages forbid scripts that are not Galtry's and being framed; nothing is kept by caches", async () => {
    const answer = await fetch(`${app.url}/sign-in`);
    const policy = answer.headers.get("content-security-policy") ?? "";
    expect(/script-src ([^;]*)/.exec(policy)![1]).not.toMatch(/unsafe-inline|unsafe-eval|\*/);
    expect(policy).toContain("frame-ancestors 'none'");
    const nonce = /'nonce-([^']+)'/.exec(policy)![1]!;
    const html = await answer.text();
    for (const [tag] of html.matchAll(/<script\b[^>]*>/g)) expect(tag).toContain(`nonce="${nonce}"`);
  });

  test("from another origin, with no session, too large or no JSON: refused, each in its way", async () => {
    const send = (headers: Record<string, string>, body: BodyInit) =>
      fetch(`${app.url}/api/command/people.signIn`, { method: "POST", headers, body });
    const status = async (answer: Promise<Response>) => (await answer).status;
    expect(await status(send({ origin: "https://elsewhere.example" }, "{}"))).toBe(403);
    expect(await status(send({}, "{}"))).toBe(403);
    expect(await status(send({ origin: app.url }, "{"))).toBe(422);
    expect(await status(send({ origin: app.url }, "x".repeat(3 * 1024 * 1024 + 1)))).toBe(422);
    expect(await status(send({ origin: app.url }, "{}"))).toBe(422);
    const reveal = fetch(`${app.url}/api/command/vaults.revealField`, {
      method: "POST",
      headers: { origin: app.url },
      body: JSON.stringify({ entryId, field: "password", how: "revealed" }),
    });
    expect(await status(reveal)).toBe(401);
  });

  test("a person who is suspended is out at once, with page, stream and Lanyard", async () => {
    const page = await pageOf("silas.penhale@tarrowick.example");
    const lanyard = await lanyardByHand(app, app.built.people.get("silas")!);
    expect((await page("query", "frontdesk.frontDesk")).status).toBe(200);
    expect((await lanyard.post("run/lanyard.keyList", {})).status).toBe(200);
    const stream = lanyard.live();
    await new Promise((resolve) => setTimeout(resolve, 500));
    await suspendPerson.execute(app.galtry, { personId: app.built.people.get("silas")!, why: "" }, by("hanna"));
    expect(await stream).toContain("event: ended");
    expect((await page("query", "frontdesk.frontDesk")).status).toBe(401);
    expect((await lanyard.post("run/lanyard.keyList", {})).status).toBe(401);
  });
});

describe("two processes on one file", () => {
  let second: ChildProcess;
  let url: string;

  beforeAll(async () => {
    const port = await freePort();
    url = `http://127.0.0.1:${port}`;
    second = spawn(process.execPath, ["dist/server/start.js"], {
      env: { ...app.environment, GALTRY_PORT: String(port) },
      stdio: "ignore",
    });
    await answers(
      `${url}/api/lanyard/hello`,
      () => second.exitCode !== null,
      () => "",
    );
  });
  afterAll(() => void second?.kill("SIGKILL"));

  test("what one does, the other's streams hear within a second; both write without losing anything", async () => {
    const answer = await fetch(`${url}/api/command/people.signIn`, {
      method: "POST",
      headers: { "content-type": "application/json", origin: app.url },
      body: JSON.stringify({ mail: "maren.pohl@tarrowick.example", password: DEMO_PASSWORD }),
    });
    const cookie = answer.headers
      .getSetCookie()
      .map((line) => line.split(";")[0])
      .join("; ");
    // All that was told so far has been seen.
    const seen = hideNumber(app.galtry.keys, "live", 999_999_999);
    const stop = new AbortController();
    const stream = await fetch(`${url}/api/live?${new URLSearchParams({ seen, since: String(Date.now()) })}`, {
      headers: { cookie },
      signal: stop.signal,
    });
    const reader = stream.body!.pipeThrough(new TextDecoderStream()).getReader();
    const hear = async (word: string) => {
      for (;;) {
        const { value, done } = await reader.read();
        if (done) throw new Error("the stream ended");
        if (value.includes(word)) return Date.now();
      }
    };
    await hear("event: ready");
    const heard = hear("event: look");
    const start = Date.now();
    const { grantId } = await giveAccess.execute(
      app.galtry,
      {
        nodeId: app.built.entries.get("windlesea.localhost")!,
        subject: { kind: "person", id: app.built.people.get("maren")! },
        level: "use",
        from: null,
        until: null,
        why: "",
      },
      by("harriet"),
    );
    expect((await heard) - start).toBeLessThan(3000);
    stop.abort();
    const [here, there] = [
      await pageOf("maren.pohl@tarrowick.example"),
      await pageOf("maren.pohl@tarrowick.example", url),
    ];
    const pins = Array.from({ length: 40 }, (_, i) =>
      (i % 2 ? here : there)("command", "frontdesk.pinEntry", { entryId, pinned: i % 4 < 2 }),
    );
    for (const pinned of await Promise.all(pins)) expect(pinned.status).toBe(200);
    await endAccess.execute(app.galtry, { grantId }, by("harriet"));
  });
});

describe("a sudden end", () => {
  test("SIGKILL during sign-ins over HTTP, again and again: the chain is whole, nothing stays open, it opens again", async () => {
    for (let round = 0; round < 4; round++) {
      const asked = Array.from({ length: 6 }, () => maren.signIn(entryId).catch(() => null));
      await new Promise((resolve) => setTimeout(resolve, 60 + round * 70));
      await app.kill();
      await Promise.all(asked);
      await app.start();
      const { rows } = await app.galtry.opened.client.execute(
        "select count(*) as n from sign_ins where ended_at is null",
      );
      expect(Number(rows[0]!.n)).toBe(0);
    }
    const lines = await app.galtry.db.query.journal.findMany({ orderBy: (line, { asc }) => asc(line.seq) });
    expect((await checkChain(lines as never, app.galtry.keys.journal)).broken).toBeNull();
    expect((await maren.signIn(entryId)).answer?.outcome).toBe("signed-in");
  });
});
