/** npm run restore -- FOLDER: puts a backup in the place of the data, which must be empty or moved away. */
import { copyFileSync, existsSync, mkdirSync, readdirSync } from "node:fs";
import path from "node:path";
import { databaseFile, readConfiguration } from "../src/server/configuration";
import { closeGaltry, startGaltry } from "../src/server/galtry";
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
  copyFileSync(path.join(from, "galtry.db"), databaseFile(configuration));
  const house = await startGaltry(configuration);
  await closeGaltry(house);
  console.log(`Restored into ${dataFolder}, and it opens with the root key.`);
  console.log(
    "What was revoked since the backup was made may be live again: access, sessions, Lanyards, passwords. Go through the leavers and the grants before people use it.",
  );
});
