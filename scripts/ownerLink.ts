/** npm run owner-link -- MAIL: a sign-in link for a locked-out owner; journaled, and told to all owners. */
import { readConfiguration } from "../src/server/configuration";
import { closeGaltry, startGaltry } from "../src/server/galtry";
import { ownerLink } from "../src/server/people/persons";
import { StartError } from "../src/server/startError";
import { oneLine } from "./oneLine";

await oneLine(async () => {
  const mail = process.argv[2];
  if (!mail) throw new StartError("Name the owner: npm run owner-link -- EMAIL");
  const app = await startGaltry(readConfiguration());
  const { link } = await ownerLink.execute(app, { mail }, { kind: "server" });
  console.log(link);
  await closeGaltry(app);
});
