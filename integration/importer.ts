/** A process that brings in file after file until it is ended: for the test of sudden ends. */
import { readConfiguration } from "../src/server/configuration";
import { startGaltry } from "../src/server/galtry";
import { beginImport, importChunk, publishImport } from "../src/server/vaults/importing";

const [parentId, personId] = process.argv.slice(2) as [string, string];
const app = await startGaltry(readConfiguration());
const by = {
  kind: "person" as const,
  personId,
  sessionId: null,
  provedAt: Date.now(),
  address: "127.0.0.1",
  browser: "importer",
};

console.log("importing");
for (let file = 0; ; file++) {
  const { importId } = await beginImport.execute(app, { parentId }, by);
  for (let chunk = 0; chunk < 4; chunk++)
    await importChunk.execute(
      app,
      {
        importId,
        rows: Array.from({ length: 25 }, (_, i) => ({
          kind: "website-login",
          values: {
            name: `File ${file}, row ${chunk * 25 + i}`,
            signInPage: "https://written.example/in",
            password: "p",
          },
          folder: [`File ${process.pid} ${file}`],
        })),
      },
      by,
    );
  await publishImport.execute(app, { importId }, by);
  console.log(`published ${importId}`);
}
