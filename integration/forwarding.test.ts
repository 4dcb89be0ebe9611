/** Lines of the Journal sent on: each at least once and in order, signed, with names and without anything secret. */
import { createHmac } from "node:crypto";
import { writeFileSync } from "node:fs";
import { createServer as createHttpServer } from "node:http";
import type { AddressInfo } from "node:net";
import path from "node:path";
import { createServer as createTlsServer } from "node:tls";
import { max } from "drizzle-orm";
import { generate } from "selfsigned";
import { afterAll, beforeAll, beforeEach, describe, expect, test } from "vitest";
import { CANARY, CANARY_USER, type Fixture, makeFixture } from "../demo/fixture";
import { type InProcess, inProcess } from "../demo/inProcess";
import { ConfigurationError, type ForwardConfiguration, readConfiguration } from "../src/server/configuration";
import { journal } from "../src/server/database/schema";
import { forwardSome } from "../src/server/journal/forwarding";
import { houseFindings } from "../src/server/upkeep/house";
import { revealField } from "../src/server/vaults/revealing";

let app: InProcess;
let f: Fixture;

beforeAll(async () => {
  app = await inProcess();
  f = await makeFixture(app.galtry);
});
afterAll(() => app.close());

const reveal = (at = Date.now()) =>
  revealField.execute(app.galtry, { entryId: f.entryId, field: "password", how: "revealed" }, f.as("reveal"), at);
const newest = async () => (await app.galtry.db.select({ seq: max(journal.seq) }).from(journal))[0]!.seq!;

describe("to a webhook", () => {
  const SECRET = "of the two of us alone";
  const got: { headers: Record<string, string | undefined>; body: string }[] = [];
  let status = 204;
  const server = createHttpServer((request, response) => {
    let body = "";
    request.on("data", (piece) => {
      body += piece;
    });
    request.on("end", () => {
      got.push({ headers: request.headers as Record<string, string>, body });
      response.writeHead(status).end();
    });
  });
  let to: ForwardConfiguration;
  beforeAll(async () => {
    await new Promise<void>((done) => server.listen(0, "127.0.0.1", done));
    const address = new URL(`http://127.0.0.1:${(server.address() as AddressInfo).port}/lines`);
    to = { address, secret: SECRET, ca: null };
  });
  afterAll(() => new Promise((done) => server.close(done)));
  beforeEach(() => {
    got.length = 0;
    status = 204;
  });
  const seqs = () => got.map(({ body }) => (JSON.parse(body).lines as { seq: number }[]).map(({ seq }) => seq));

  test("from now on, each once where all goes well, signed", async () => {
    expect(await forwardSome(app.galtry, to)).toBe(0);
    expect(await forwardSome(app.galtry, to)).toBe(0);
    const before = await newest();
    await reveal();
    await reveal();
    expect(await forwardSome(app.galtry, to)).toBe(2);
    expect(await forwardSome(app.galtry, to)).toBe(0);
    expect(seqs()).toEqual([[before + 1, before + 2]]);
    const [{ headers, body }] = got as [(typeof got)[0]];
    const signed = createHmac("sha256", SECRET)
      .update(`${headers["webhook-id"]}.${headers["webhook-timestamp"]}.${body}`)
      .digest("base64");
    expect(headers["webhook-signature"]).toBe(`v1,${signed}`);
    const [line] = JSON.parse(body).lines;
    expect(line).toMatchObject({ act: "vaults.revealField", person: f.ids.reveal, details: { field: "password" } });
    expect(Object.values(line.called)).toContain("Pellam Tickets");
    for (const secret of [CANARY, CANARY_USER]) expect(body).not.toContain(secret);
  });

  test("again under the same id where they were not taken; an administrator is told when that goes on", async () => {
    const { configuration } = app.galtry;
    configuration.forward = to;
    const told = async (at: number) =>
      (await houseFindings.execute(app.galtry, {}, f.as("owner"), at)).rows.filter(({ kind }) => kind === "forwarding");
    const at = Date.now();
    await reveal(at);
    status = 500;
    await expect(forwardSome(app.galtry, to, at)).rejects.toThrow("500");
    await expect(forwardSome(app.galtry, to, at + 60_000)).rejects.toThrow("500");
    expect(await told(at + 5 * 60_000)).toEqual([]);
    expect(await told(at + 11 * 60_000)).toEqual([{ kind: "forwarding", since: at }]);
    status = 200;
    await reveal(at);
    expect(await forwardSome(app.galtry, to)).toBe(2);
    const seen = seqs();
    expect(seen[1]).toEqual(seen[0]);
    expect(seen[2]).toEqual([seen[0]![0], seen[0]![0]! + 1]);
    expect(got[0]!.headers["webhook-id"]).toBe(got[1]!.headers["webhook-id"]);
    expect(await told(at + 11 * 60_000)).toEqual([]);
    configuration.forward = null;
  });

  test("a redirect is not followed: the lines go where the operator said, or nowhere", async () => {
    await reveal();
    status = 302;
    await expect(forwardSome(app.galtry, to)).rejects.toThrow("302");
    status = 200;
    await forwardSome(app.galtry, to);
  });

  test("many go in turns, none left out", async () => {
    for (let i = 0; i < 230; i++) await reveal();
    const counts: number[] = [];
    for (let sent = 1; sent > 0; ) {
      sent = await forwardSome(app.galtry, to);
      counts.push(sent);
    }
    expect(counts).toEqual([200, 30, 0]);
    const all = seqs().flat();
    expect(all).toEqual(Array.from({ length: 230 }, (_, i) => all[0]! + i));
  });
});

describe("to a syslog over TLS", () => {
  test("framed, by a certificate that holds; what an attacker in between shows is not taken", async () => {
    const pems = await generate([{ name: "commonName", value: "localhost" }], {
      extensions: [{ name: "subjectAltName", altNames: [{ type: 2, value: "localhost" }] }],
    });
    let text = "";
    const server = createTlsServer({ key: pems.private, cert: pems.cert }, (socket) => {
      socket.setEncoding("utf8");
      socket.on("data", (piece) => {
        text += piece;
      });
      socket.on("error", () => undefined);
    });
    server.on("tlsClientError", () => undefined);
    await new Promise<void>((done) => server.listen(0, "localhost", done));
    const ca = path.join(app.folder, "syslog.pem");
    writeFileSync(ca, pems.cert);
    const address = new URL(`syslog+tls://localhost:${(server.address() as AddressInfo).port}`);
    const to = { address, secret: "", ca };
    try {
      await forwardSome(app.galtry, to);
      await reveal();
      const seq = await newest();
      await expect(forwardSome(app.galtry, { ...to, ca: null })).rejects.toThrow(/self.signed/i);
      expect(text).toBe("");
      await reveal();
      expect(await forwardSome(app.galtry, to)).toBe(2);
      await expect.poll(() => text).toContain(`seq="${seq + 1}"`);
      const first = /^(\d+) /.exec(text)!;
      const bytes = Buffer.from(text).subarray(first[0].length, first[0].length + Number(first[1]));
      expect(bytes.toString()).toMatch(
        new RegExp(`^<110>1 .* galtry - vaults.revealField \\[galtry@32473 seq="${seq}"`),
      );
      expect(
        Buffer.from(text)
          .subarray(first[0].length + Number(first[1]))
          .toString(),
      ).toMatch(/^\d+ <110>1 /);
      expect(text).not.toContain(CANARY);
    } finally {
      await new Promise((done) => server.close(done));
    }
    // Nobody is there any more.
    await reveal();
    await expect(forwardSome(app.galtry, to)).rejects.toThrow(/ECONNREFUSED/);
  });
});

test("the start refuses plain http elsewhere, and a webhook without a secret", () => {
  const read = (more: Record<string, string>) => () => readConfiguration({ ...app.environment, ...more });
  expect(read({ GALTRY_JOURNAL_TO: "http://collector.example/x", GALTRY_JOURNAL_SECRET: "s".repeat(20) })).toThrow(
    ConfigurationError,
  );
  expect(read({ GALTRY_JOURNAL_TO: "https://collector.example/x" })).toThrow(/GALTRY_JOURNAL_SECRET/);
  expect(read({ GALTRY_JOURNAL_TO: "syslog://collector.example" })).toThrow(ConfigurationError);
  expect(read({ GALTRY_JOURNAL_TO: "syslog+tls://collector.example:6514" })().forward).toMatchObject({ ca: null });
});
