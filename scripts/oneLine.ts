/** Runs a script; what an operator can mend is said in one line. */
import { ConfigurationError } from "../src/server/configuration";
import { Refused } from "../src/server/refused";
import { StartError } from "../src/server/startError";

export async function oneLine(work: () => Promise<void>): Promise<void> {
  try {
    await work();
  } catch (error) {
    const known = error instanceof StartError || error instanceof ConfigurationError || error instanceof Refused;
    console.error(known ? (error as Error).message : error);
    process.exitCode = 1;
  }
}
