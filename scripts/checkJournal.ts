/**
 * npm run -s check-journal [-- --head HASH] [--checkpoint FILE] [--archive FILE]: walks the journal's chain, compares it
 * with its checkpoints and names the first broken line; with a file of archive-journal, whether both still say the same.
 */

import { existsSync, readFileSync } from "node:fs";
import { counted } from "../src/core/counted";
import { openCheckpoint } from "../src/core/journal/checkpoint";
import { readConfiguration } from "../src/server/configuration";
import { openDatabase } from "../src/server/database/client";
import { checkArchive, linesOfArchive } from "../src/server/journal/archive";
import { checkWholeJournal } from "../src/server/journal/check";
import { verifierFor } from "../src/server/journal/checkpoints";
import { CHECKPOINT_FAULTS } from "../src/server/journal/strings";
import { readKeyFile } from "../src/server/keys/keyFile";
import { readRootKey } from "../src/server/keys/rootKey";
import { timeZone } from "../src/server/organisation";
import { StartError } from "../src/server/startError";
import { oneLine } from "./oneLine";

await oneLine(async () => {
  const given = (name: string) => {
    const at = process.argv.indexOf(name);
    return at < 0 ? undefined : process.argv[at + 1];
  };
  const head = given("--head");
  const file = given("--checkpoint");
  const configuration = readConfiguration();
  const keys = await readKeyFile(configuration.dataFolder, readRootKey(configuration));
  const { client, db } = await openDatabase(configuration.databaseUrl, keys.database, configuration.databaseToken);
  const verifier = await verifierFor({ configuration, keys });
  const archive = given("--archive");
  if (archive !== undefined) {
    if (!existsSync(archive)) throw new StartError(`There is no file ${archive}.`);
    const { year, first, last, fault } = await checkArchive(
      db,
      keys.journal,
      linesOfArchive(archive),
      await timeZone(db),
    );
    client.close();
    console.log(
      fault
        ? `${archive}: ${fault.line > 0 ? `line ${fault.line}: ` : ""}${fault.why}`
        : `complete: the lines ${first} to ${last} of ${year} are as the file has them`,
    );
    if (fault) process.exitCode = 1;
    return;
  }
  const checkpoint = file === undefined ? undefined : openCheckpoint(readFileSync(file, "utf8"), verifier);
  if (checkpoint && "fault" in checkpoint) {
    client.close();
    console.log(`${file}: ${CHECKPOINT_FAULTS[checkpoint.fault]}`);
    process.exitCode = 1;
    return;
  }
  const result = await checkWholeJournal(db, keys.journal, verifier, { head, checkpoint });
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
    if (head === undefined && !checkpoint)
      console.log(
        "Whether later lines were cut off cannot be seen from here: keep a checkpoint or this head elsewhere, and check with --checkpoint or --head next time.",
      );
  }
});
