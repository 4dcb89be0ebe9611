/** npm run -s check-journal [-- --head HASH]: walks the journal's chain and names the first broken line. */

import { counted } from "../src/core/counted";
import { readConfiguration } from "../src/server/configuration";
import { openDatabase } from "../src/server/database/client";
import { checkWholeJournal } from "../src/server/journal/check";
import { readKeyFile } from "../src/server/keys/keyFile";
import { readRootKey } from "../src/server/keys/rootKey";
import { oneLine } from "./oneLine";

await oneLine(async () => {
  const at = process.argv.indexOf("--head");
  const head = at < 0 ? undefined : process.argv[at + 1];
  const configuration = readConfiguration();
  const keys = await readKeyFile(configuration.dataFolder, readRootKey(configuration));
  const { client, db } = await openDatabase(configuration.databaseUrl, keys.database, configuration.databaseToken);
  const result = await checkWholeJournal(db, keys.journal, head);
  client.close();
  if (result.broken) {
    console.log(`broken at line ${result.broken.line}: ${result.broken.why}`);
    process.exitCode = 1;
  } else if (result.altered) {
    console.log(`a name was altered: what is stored as ${result.altered} is not the name that was written down then`);
    process.exitCode = 1;
  } else {
    console.log(`complete: ${counted(result.lines, "line")}, head ${result.head}`);
    if (result.erased > 0) console.log(`erased names: ${result.erased}`);
    if (head === undefined)
      console.log(
        "Whether later lines were cut off cannot be seen from here: note this head elsewhere, and check with --head next time.",
      );
  }
});
