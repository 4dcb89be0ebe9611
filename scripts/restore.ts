/** npm run restore -- FOLDER: puts a backup in the place of the data, which must be empty or moved away. */
import { copyFileSync, existsSync, mkdirSync, readdirSync } from "node:fs";
import path from "node:path";
import { type Configuration, databaseFile, isLocal, readConfiguration } from "../src/server/configuration";
import { connect } from "../src/server/database/client";
import { closeGaltry, startGaltry } from "../src/server/galtry";
import { readKeyFile } from "../src/server/keys/keyFile";
import { readRootKey } from "../src/server/keys/rootKey";
import { copyInto } from "../src/server/restoring";
import { StartError } from "../src/server/startError";
import { oneLine } from "./oneLine";

await oneLine(async () => {
  const from = process.argv[2];
  if (!from) throw new StartError("Say which backup: npm run restore -- FOLDER");
  if (!existsSync(path.join(from, "galtry.db")) || !existsSync(path.join(from, "keys.json")))
    throw new StartError(`${from} is no backup: galtry.db and keys.json belong in it.`);
  const configuration = readConfiguration();
  const { dataFolder } = configuration;
  if (existsSync(dataFolder) && readdirSync(dataFolder).length > 0)
    throw new StartError(
      `${dataFolder} is not empty. Stop Galtry and move it away first: a restore overwrites nothing.`,
    );
  mkdirSync(dataFolder, { recursive: true, mode: 0o700 });
  copyFileSync(path.join(from, "keys.json"), path.join(dataFolder, "keys.json"));
  if (isLocal(configuration)) copyFileSync(path.join(from, "galtry.db"), databaseFile(configuration));
  else await ontoServer(configuration, path.join(from, "galtry.db"));
  const app = await startGaltry(configuration);
  await closeGaltry(app);
  console.log(
    `Restored into ${isLocal(configuration) ? dataFolder : "the database server"}, and it opens with the root key.`,
  );
  console.log(
    "What was revoked since the backup may be live again: access, sessions, Lanyards, passwords. Check the leavers and the grants before people use it.",
  );
});

async function ontoServer(configuration: Configuration, copy: string): Promise<void> {
  const keys = await readKeyFile(configuration.dataFolder, readRootKey(configuration));
  const { client: from } = connect(`file:${copy}`, keys.database);
  const { client: to } = connect(configuration.databaseUrl, keys.database, configuration.databaseToken);
  try {
    await copyInto(from, to);
  } finally {
    from.close();
    to.close();
  }
}
