/** A command beside the very statements it issues, by hand in one transaction. */
import type { InStatement, InValue } from "@libsql/client";
import { drizzle } from "drizzle-orm/libsql";
import type { Fixture } from "../demo/fixture";
import type { InProcess } from "../demo/inProcess";
import { giveAccess } from "../src/server/access/grants";
import * as schema from "../src/server/database/schema";
import { Writer } from "../src/server/database/writer";
import { uuidv7 } from "../src/server/ids";
import { sideBySide, tell } from "./measure";

export async function benchCommand(app: InProcess, fixture: Fixture): Promise<void> {
  const { galtry } = app;
  const input = (until: number) => ({
    nodeId: fixture.entryId,
    subject: { kind: "person" as const, id: fixture.ids.nothing },
    level: "use" as const,
    from: null,
    until,
    why: "",
  });
  let until = Date.now() + 3_600_000;
  const command = () => giveAccess.execute(galtry, input(until++), fixture.as("steward"));

  const said: { sql: string; args: unknown[] }[] = [];
  const logged = drizzle(galtry.opened.client, {
    schema,
    logger: { logQuery: (sql, args) => void said.push({ sql, args }) },
  });
  await giveAccess.execute(
    { ...galtry, db: logged, writer: new Writer(() => ({ client: galtry.opened.client, db: logged })) },
    input(until++),
    fixture.as("steward"),
  );
  const statements = said.filter(({ sql }) => !/^(begin|commit|rollback)/i.test(sql.trim()));

  // What each insert made anew is made anew again: its ids, and the journal's next number.
  const made = new Set(
    statements
      .filter(({ sql }) => /^insert/i.test(sql))
      .flatMap(({ args }) => args)
      .filter((arg): arg is string => typeof arg === "string" && /^[0-9a-f]{8}-[0-9a-f]{4}-7/.test(arg)),
  );
  for (const known of [...Object.values(fixture.ids), fixture.entryId, fixture.vaultId]) made.delete(known);
  const byHand = async () => {
    const fresh = new Map([...made].map((id) => [id, uuidv7()]));
    const tx = await galtry.opened.client.transaction("write");
    let last = 0;
    for (const { sql, args } of statements) {
      const isLine = /^insert into "journal"/i.test(sql);
      const values = args.map((arg, i) => (isLine && i === 0 ? last + 1 : (fresh.get(arg as string) ?? arg)));
      const { rows } = await tx.execute({ sql, args: values as InValue[] } as InStatement);
      if (/^\s*select coalesce\(\(select max\(seq\)/.test(sql)) last = Number(rows[0]!.seq);
    }
    await tx.commit();
  };
  // The journal lines made by hand have no hashes that hold: nothing reads them after this.
  const { floor, taken } = await sideBySide(60, byHand, command);
  tell(
    "a command (access.giveAccess), beside its statements by hand",
    taken / floor,
    2,
    "×",
    `${floor.toFixed(2)} ms by hand, ${statements.length} statements`,
  );
}
