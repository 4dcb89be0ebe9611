/**
 * Ten thousand logins from a CSV file, from the last click to the ledger, beside the same rows sealed and written by
 * hand; and how long another person's command waits meanwhile.
 */
import type { Client } from "@libsql/client";
import { DEMO_PASSWORD } from "../demo/organisation";
import { openBrowser, signInToGaltry } from "../e2e/browser";
import type { App } from "../e2e/house";
import { KEY_LENGTH, randomBytes, seal, toHex, utf8 } from "../src/core/crypto";
import { connect } from "../src/server/database/client";
import { uuidv7 } from "../src/server/ids";
import { tell } from "./measure";

const ENTRIES = 10_000;

const rowsOf = (count: number) =>
  Array.from({ length: count }, (_, i) => ({
    name: `Market stall ${i}`,
    page: `https://stall${i}.example/in`,
    userName: `keeper${i}@tarrowick.example`,
    password: `${uuidv7()} ${i}`,
  }));

const PERSON = uuidv7();
/** As long as a fingerprint; what it is worked out from is not part of this. */
const mark = () => toHex(randomBytes(32));
const openOf = ({ name, page }: { name: string; page: string }) =>
  JSON.stringify({
    ...{ kind: "website-login", name, description: "", signInPage: page, reach: "site", fields: {} },
    ...{ notes: "", tags: [], extras: [], useSeesUserName: false },
  });

/**
 * Bare sealing and bare inserts of the same rows, into the tables as they are: node, place, entry, version, two
 * fingerprints, a sighting, the mark that its bringer has met it, and its line in the import. In a vault that nobody
 * reaches; taken out again.
 */
async function byHand(app: App): Promise<number> {
  const { configuration, keys } = app.galtry;
  const lowPriority = new Patient(() => connect(configuration.databaseUrl, keys.database).client);
  const key = randomBytes(KEY_LENGTH);
  const rows = rowsOf(ENTRIES);
  const start = performance.now();
  for (let from = 0; from < rows.length; from += 200) {
    const some = await Promise.all(
      rows.slice(from, from + 200).map(async (row) => {
        const [id, version] = [uuidv7(), uuidv7()];
        const text = JSON.stringify({ fields: { userName: row.userName, password: row.password }, code: null });
        const sealed = await seal(key, utf8(text), ["entry version", "v", id, version]);
        return { ...row, id, version, sealed };
      }),
    );
    const list = (values: number) => some.map(() => `(${Array(values).fill("?").join()})`).join();
    const tx = await lowPriority.ask((client) => client.transaction("write"));
    const insert = (
      table: string,
      columns: string[],
      of: (row: (typeof some)[number]) => (string | number | Uint8Array)[],
    ) =>
      tx.execute({
        sql: `insert into ${table} (${columns.join()}) values ${list(columns.length)}`,
        args: some.flatMap(of),
      });
    await insert("nodes", ["id", "type", "created_at", "created_by"], (row) => [row.id, "entry", 1, "by hand"]);
    await insert("places", ["id", "node_id", "parent_id", "vault_id", "valid_from", "command_id"], (row) => [
      row.version,
      row.id,
      "v",
      "v",
      1,
      "c",
    ]);
    await insert(
      "entry_versions",
      ["id", "entry_id", "number", "vault_id", "key_version", "open", "sealed", "created_at", "created_by"],
      (row) => [row.version, row.id, 1, "v", 1, openOf(row), row.sealed, 1, "p"],
    );
    const entry: Record<string, string | number> = {
      kind: "website-login",
      fields: "{}",
      reach: "site",
      host: "h",
      site: "s",
      tags: "[]",
      extras: "[]",
      steps: "{}",
      changed_at: 1,
      changed_by: "p",
      created_at: 1,
      created_by: "p",
    };
    await insert("entries", ["node_id", "name", "sign_in_page", "version_id", ...Object.keys(entry)], (row) => [
      row.id,
      row.name,
      row.page,
      row.version,
      ...Object.values(entry),
    ]);
    await insert("fingerprints", ["version_id", "field", "fingerprint"], (row) => [row.version, "userName", mark()]);
    await insert("fingerprints", ["version_id", "field", "fingerprint"], (row) => [row.version, "password", mark()]);
    await insert("sightings", ["id", "entry_id", "field", "fingerprint", "person_id", "at", "how"], (row) => [
      row.id,
      row.id,
      "password",
      mark(),
      PERSON,
      1,
      "brought in",
    ]);
    await insert("met", ["person_id", "entry_id", "at"], (row) => [PERSON, row.id, 1]);
    await insert("import_rows", ["entry_id", "import_id", "version_id", "place_id", "folder"], (row) => [
      row.id,
      PERSON,
      row.version,
      uuidv7(),
      "[]",
    ]);
    await tx.commit();
  }
  const taken = performance.now() - start;
  const mine = "select id from nodes where created_by = 'by hand'";
  for (const [table, column] of [
    ["fingerprints", "version_id in (select id from entry_versions where entry_id"],
    ["sightings", "(entry_id"],
    ["met", "(entry_id"],
    ["import_rows", "(entry_id"],
    ["places", "(node_id"],
    ["entries", "(node_id"],
    ["entry_versions", "(entry_id"],
    ["nodes", "(id"],
  ])
    await lowPriority.ask((client) => client.execute(`delete from ${table} where ${column} in (${mine}))`));
  lowPriority.close();
  return taken;
}

/** The server writes too, now and then: whoever comes second tries again, with a client that was never told "busy". */
class Patient {
  #client: Client;
  constructor(private readonly fresh: () => Client) {
    this.#client = fresh();
  }

  async ask<R>(what: (client: Client) => Promise<R>): Promise<R> {
    for (;;)
      try {
        return await what(this.#client);
      } catch (error) {
        if ((error as { code?: string }).code !== "SQLITE_BUSY") throw error;
        this.close();
        this.#client = this.fresh();
        await new Promise((next) => setTimeout(next, 5));
      }
  }

  close = () => this.#client.close();
}

/** Another person's command, over and over from a client of its own: a browser would measure how it shares our cores. */
class OtherPerson {
  #over = false;
  readonly #waits: number[] = [];
  #asking: Promise<void> | null = null;

  constructor(
    private readonly app: App,
    private readonly cookie: string,
  ) {}

  async ask(i: number): Promise<number> {
    const start = performance.now();
    const answer = await fetch(`${this.app.url}/api/command/frontdesk.pinEntry`, {
      method: "POST",
      headers: { "content-type": "application/json", cookie: this.cookie, origin: this.app.url },
      body: JSON.stringify({ entryId: this.app.built.entries.get("quillbrook.localhost")!, pinned: i % 2 === 0 }),
    });
    if (!answer.ok) throw new Error(await answer.text());
    return performance.now() - start;
  }

  begin(): void {
    this.#asking = (async () => {
      for (let i = 0; !this.#over; i++) {
        this.#waits.push(await this.ask(i));
        await new Promise((next) => setTimeout(next, 100));
      }
    })();
  }

  /** How long each took, the shortest first. */
  async end(): Promise<number[]> {
    this.#over = true;
    await this.#asking;
    return this.#waits.sort((a, b) => a - b);
  }
}

/** As a cookie header, of somebody who signs in with a browser that is then closed. */
async function cookieOf(app: App, mail: string): Promise<string> {
  const { page, context, close } = await openBrowser({ galtry: app.url, lanyard: false });
  try {
    await signInToGaltry(page, app.url, mail, DEMO_PASSWORD);
    return (await context.cookies()).map(({ name, value }) => `${name}=${value}`).join("; ");
  } finally {
    await close();
  }
}

export async function benchBringIn(app: App): Promise<void> {
  // The better of two: the server beside it is at work of its own at first.
  const floor = Math.min(await byHand(app), await byHand(app));
  const other = new OtherPerson(app, await cookieOf(app, "maren.pohl@tarrowick.example"));
  const alone: number[] = [];
  for (let i = 0; i < 20; i++) alone.push(await other.ask(i));
  const bringer = await openBrowser({ galtry: app.url, lanyard: false });
  try {
    bringer.context.removeAllListeners("response");
    await signInToGaltry(bringer.page, app.url, "clementine.ruddock@tarrowick.example", DEMO_PASSWORD);
    const { page } = bringer;
    await page.goto(`${app.url}/vaults/${app.built.vaults.get("Money")}/import`);
    const csv = [
      "name,url,username,password",
      ...rowsOf(ENTRIES).map((row) => [row.name, row.page, row.userName, row.password].join()),
    ];
    await page
      .getByLabel("File", { exact: true })
      .setInputFiles({ name: "stalls.csv", mimeType: "text/csv", buffer: Buffer.from(csv.join("\n")) });
    await page.getByRole("button", { name: "Look it over" }).click();
    const go = page.getByRole("button", { name: "Bring in 10,000 entries" });
    await go.waitFor();
    other.begin();
    const start = performance.now();
    await go.click();
    await page.getByRole("heading", { name: "10,000 entries brought in" }).waitFor({ timeout: 120_000 });
    await page.getByRole("link", { name: "See them in their place" }).click();
    await page.getByRole("link", { name: "Market stall 0", exact: true }).waitFor({ timeout: 60_000 });
    const taken = performance.now() - start;
    const times = await other.end();
    tell(`${ENTRIES} logins brought in, from the last click to the ledger`, taken / 1000, 10, " s");
    tell("the same, beside bare sealing and bare inserts", taken / floor, 3, "×", `${Math.round(floor)} ms by hand`);
    tell(
      "another person’s command meanwhile, 95 of 100",
      times[Math.floor(times.length * 0.95)]!,
      100,
      " ms",
      `the middle one ${Math.round(times[times.length >> 1]!)} ms, the slowest ${Math.round(times.at(-1)!)} ms; ${Math.round(alone.sort((a, b) => a - b)[10]!)} ms when nothing else goes on`,
    );
  } finally {
    await other.end();
    await bringer.close();
  }
}
