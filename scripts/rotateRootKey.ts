/** npm run rotate-root-key -- NEW-KEY-FILE: wraps the keys anew under a new root key; Galtry may run meanwhile. */
import { existsSync } from "node:fs";
import { readConfiguration } from "../src/server/configuration";
import { readKeyFile, writeKeyFile } from "../src/server/keys/keyFile";
import { makeRootKey, readRootKey } from "../src/server/keys/rootKey";
import { StartError } from "../src/server/startError";
import { oneLine } from "./oneLine";

await oneLine(async () => {
  const file = process.argv[2];
  if (!file) throw new StartError("Say where the new key goes: npm run rotate-root-key -- NEW-KEY-FILE");
  if (existsSync(file)) throw new StartError(`${file} is there already: a root key is never overwritten.`);
  const configuration = readConfiguration();
  const ring = await readKeyFile(configuration.dataFolder, readRootKey(configuration));
  const next = makeRootKey(file, configuration.dataFolder);
  await writeKeyFile(configuration.dataFolder, next, { ...ring, generation: ring.generation + 1 });
  await readKeyFile(configuration.dataFolder, next);
  console.log(
    `Done. From the next start on set GALTRY_ROOT_KEY_FILE=${file}. Backups made before still need the old key.`,
  );
});
