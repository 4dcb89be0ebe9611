/** npm run -s check-journal [-- --head HASH]: walks the journal's chain and names the first broken line. */
import { asc, gt } from "drizzle-orm";
import { type ChainedLine, checkChain } from "../src/core/journal/chain";
import { readConfiguration } from "../src/server/configuration";
import { type Database, openDatabase } from "../src/server/database/client";
import { journal } from "../src/server/database/schema";
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

await oneLine(async () => {
  const at = process.argv.indexOf("--head");
  const head = at < 0 ? undefined : process.argv[at + 1];
  const configuration = readConfiguration();
  const keys = await readKeyFile(configuration.dataFolder, readRootKey(configuration));
  const { client, db } = await openDatabase(configuration.databaseUrl, keys.database, configuration.databaseToken);
  const result = await checkChain(lines(db), keys.journal, head);
  client.close();
  if (result.broken) {
    console.log(`broken at line ${result.broken.seq}: ${WORDS[result.broken.why]}`);
    process.exitCode = 1;
  } else console.log(`whole: ${result.lines} lines, head ${result.head}`);
});
