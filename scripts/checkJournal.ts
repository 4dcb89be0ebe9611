/** npm run -s check-journal [-- --head HASH]: walks the journal's chain and names the first broken line. */

import { asc, gt } from "drizzle-orm";
import { counted } from "../src/core/counted";
import { type ChainedLine, checkChain } from "../src/core/journal/chain";
import { checkNames, type KeptName } from "../src/core/journal/names";
import { readConfiguration } from "../src/server/configuration";
import { type Database, openDatabase } from "../src/server/database/client";
import { journal, journalNames } from "../src/server/database/schema";
import { readKeyFile } from "../src/server/keys/keyFile";
import { readRootKey } from "../src/server/keys/rootKey";
import { oneLine } from "./oneLine";

const WORDS = {
  sequence: "its number does not follow",
  previous: "it does not follow the line before it",
  hash: "what it says was changed",
  mac: "Galtry did not write it",
  "missing-head": "the noted head is gone: the tail was cut or rewritten",
};

async function* lines(db: Database): AsyncGenerator<ChainedLine> {
  for (let from = 0; ; ) {
    const rows = await db.select().from(journal).where(gt(journal.seq, from)).orderBy(asc(journal.seq)).limit(2000);
    if (rows.length === 0) return;
    yield* rows;
    from = rows.at(-1)!.seq;
  }
}

async function* nameRows(db: Database): AsyncGenerator<KeptName> {
  for (let from = ""; ; ) {
    const rows = await db
      .select()
      .from(journalNames)
      .where(gt(journalNames.hash, from))
      .orderBy(asc(journalNames.hash))
      .limit(2000);
    if (rows.length === 0) return;
    yield* rows;
    from = rows.at(-1)!.hash;
  }
}

/** The hashes that lines refer to, as the chain holds them. */
async function* mentions(db: Database): AsyncGenerator<Record<string, string>> {
  for await (const line of lines(db)) yield JSON.parse(line.names);
}

await oneLine(async () => {
  const at = process.argv.indexOf("--head");
  const head = at < 0 ? undefined : process.argv[at + 1];
  const configuration = readConfiguration();
  const keys = await readKeyFile(configuration.dataFolder, readRootKey(configuration));
  const { client, db } = await openDatabase(configuration.databaseUrl, keys.database, configuration.databaseToken);
  const result = await checkChain(lines(db), keys.journal, head);
  const names = result.broken ? null : await checkNames(nameRows(db), mentions(db));
  client.close();
  if (result.broken) {
    console.log(`broken at line ${result.broken.seq}: ${WORDS[result.broken.why]}`);
    process.exitCode = 1;
  } else if (names?.altered) {
    console.log(`a name was altered: what is stored as ${names.altered} is not the name that was written down then`);
    process.exitCode = 1;
  } else {
    console.log(`complete: ${counted(result.lines, "line")}, head ${result.head}`);
    if (names && names.erased > 0) console.log(`erased names: ${names.erased}`);
    if (head === undefined)
      console.log(
        "Whether later lines were cut off cannot be seen from here: note this head elsewhere, and check with --head next time.",
      );
  }
});
