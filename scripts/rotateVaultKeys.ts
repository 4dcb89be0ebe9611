/** npm run rotate-vault-keys: a new key for every vault; a running Galtry encrypts the rest again in the background. */
import { readConfiguration } from "../src/server/configuration";
import { closeGaltry, startGaltry } from "../src/server/galtry";
import { rotateAllKeys } from "../src/server/vaults/rotation";
import { oneLine } from "./oneLine";

await oneLine(async () => {
  const app = await startGaltry(readConfiguration());
  const { rotated, of } = await rotateAllKeys.execute(app, {}, { kind: "server" });
  await closeGaltry(app);
  const others = of - rotated.length;
  console.log(
    `${rotated.length} of ${of} vaults have a new key.${others > 0 ? ` ${others} are still being rotated.` : ""} Keep Galtry running: it encrypts the rest again in the background.`,
  );
});
