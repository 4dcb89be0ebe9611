/**
 * npm run -s archive-journal -- YEAR [FOLDER]: writes a year that is over as journal-YEAR.jsonl.gz, for a place where nobody
 * who runs Galtry can change it. A file that is there already is left as it is.
 */
import { createWriteStream, existsSync, mkdirSync, renameSync, rmSync } from "node:fs";
import path from "node:path";
import { Readable } from "node:stream";
import { pipeline } from "node:stream/promises";
import { createGzip } from "node:zlib";
import { counted } from "../src/core/counted";
import { zonedYear } from "../src/core/time";
import { readConfiguration } from "../src/server/configuration";
import { openDatabase } from "../src/server/database/client";
import { archiveOf } from "../src/server/journal/archive";
import { readKeyFile } from "../src/server/keys/keyFile";
import { readRootKey } from "../src/server/keys/rootKey";
import { timeZone } from "../src/server/organisation";
import { StartError } from "../src/server/startError";
import { oneLine } from "./oneLine";

await oneLine(async () => {
  const [said = "", folder = "."] = process.argv.slice(2);
  if (!/^\d{4}$/.test(said)) throw new StartError("Say which year: npm run -s archive-journal -- 2026");
  const year = Number(said);
  const configuration = readConfiguration();
  const keys = await readKeyFile(configuration.dataFolder, readRootKey(configuration));
  const { client, db } = await openDatabase(configuration.databaseUrl, keys.database, configuration.databaseToken);
  try {
    const zone = await timeZone(db);
    if (year >= zonedYear(Date.now(), zone)) throw new StartError(`${year} is not over yet.`);
    const file = path.resolve(folder, `journal-${year}.jsonl.gz`);
    if (existsSync(file)) throw new StartError(`${file} is there already.`);
    mkdirSync(path.dirname(file), { recursive: true });
    let lines = -1;
    const texts = async function* () {
      for await (const line of archiveOf(db, year, zone)) {
        lines += 1;
        yield `${line}\n`;
      }
    };
    // Whole or not at all: under its own name only once it is complete.
    await pipeline(Readable.from(texts()), createGzip(), createWriteStream(`${file}.part`, { mode: 0o600 }));
    if (lines < 1) {
      rmSync(`${file}.part`);
      throw new StartError(`The Journal has no line of ${year}.`);
    }
    renameSync(`${file}.part`, file);
    console.log(`${file}: ${counted(lines, "line")} of ${year}`);
  } finally {
    client.close();
  }
});
