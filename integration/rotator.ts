/** A process that goes on with rotations until it is ended: for the tests of power cuts. */
import { readConfiguration } from "../src/server/configuration";
import { closeGaltry, startGaltry } from "../src/server/galtry";
import { Rotating } from "../src/server/vaults/rotation";

const app = await startGaltry(readConfiguration());
console.log("rotating");
await new Rotating(app).look();
await closeGaltry(app);
console.log("finished");
