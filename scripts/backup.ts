/** npm run backup [-- FOLDER]: a consistent, encrypted copy, while Galtry runs. */
import { noteBackup, writeBackup } from "../src/server/backup";
import { readConfiguration } from "../src/server/configuration";
import { readKeyFile } from "../src/server/keys/keyFile";
import { readRootKey } from "../src/server/keys/rootKey";
import { oneLine } from "./oneLine";

await oneLine(async () => {
  const configuration = readConfiguration();
  const keys = await readKeyFile(configuration.dataFolder, readRootKey(configuration));
  const folder =
    process.argv[2] ?? `${configuration.dataFolder}-backup-${new Date().toISOString().replace(/[:.]/g, "-")}`;
  const report = await writeBackup(configuration, keys, folder);
  await noteBackup(configuration, keys);
  console.log(`The backup is in ${report.folder}: ${report.lines} journal lines, head ${report.head}.`);
  console.log(
    `The root key is not part of it: store ${configuration.rootKey ? "GALTRY_ROOT_KEY" : configuration.rootKeyFile} elsewhere. Without it nobody can open the backup.`,
  );
});
