/** A process that writes without pause until it is ended: for the tests of crashes and of two processes on one file. */

import { readConfiguration } from "../src/server/configuration";
import { closeGaltry, startGaltry } from "../src/server/galtry";
import { PageReader } from "../src/server/signin/pageReader";
import { sealedSignIn } from "../src/server/signin/sealed";
import { addEntry, changeEntry } from "../src/server/vaults/entries";

const [vaultId, personId, lanyardId, slowEntryId, most] = process.argv.slice(2) as [
  string,
  string,
  string,
  string,
  string,
];
const app = await startGaltry(readConfiguration());
app.pages = new PageReader();
const by = {
  kind: "person" as const,
  personId,
  sessionId: null,
  provedAt: Date.now(),
  address: "127.0.0.1",
  browser: "writer",
};
const lanyard = {
  kind: "lanyard" as const,
  personId,
  lanyardId,
  address: "127.0.0.1",
  browser: "writer",
  language: "en",
};

console.log("writing");
if (slowEntryId !== "-")
  void sealedSignIn(app, lanyard, slowEntryId, () => undefined, new AbortController().signal).catch(() => undefined);
let done = 0;
let wrong = 0;
await Promise.all(
  Array.from({ length: 4 }, async () => {
    while (done < Number(most)) {
      done += 1;
      try {
        const values = {
          name: `Entry ${process.pid} ${done}`,
          signInPage: "https://written.example/in",
          userName: "u",
          password: `canary-${done}`,
        };
        const { entryId, versionId } = await addEntry.execute(app, { parentId: vaultId, captured: false, values }, by);
        await changeEntry.execute(
          app,
          { entryId, baseVersionId: versionId, captured: false, values: { ...values, notes: "changed" } },
          by,
        );
        console.log(`kept ${entryId}`);
      } catch (error) {
        wrong += 1;
        console.log(`wrong ${error instanceof Error ? error.message : error}`);
      }
    }
  }),
);
console.log(`finished ${wrong}`);
await closeGaltry(app);
