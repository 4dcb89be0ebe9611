/** A process that goes on with rotations until it is ended: for the tests of power cuts. */
import { readConfiguration } from "../src/server/configuration";
import { closeGaltry, startGaltry } from "../src/server/galtry";
import { Rotating } from "../src/server/vaults/rotation";

const house = await startGaltry(readConfiguration());
console.log("rotating");
await new Rotating(house).look();
await closeGaltry(house);
console.log("finished");
