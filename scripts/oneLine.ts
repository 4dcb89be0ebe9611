/** Runs a script; what an operator can mend is said in one line. */
import { ConfigurationError } from "../src/server/configuration";
import { Refused } from "../src/server/refused";
import { StartError } from "../src/server/startError";

/** What a script writes is for its own account alone. */
process.umask(0o077);

export async function oneLine(work: () => Promise<void>): Promise<void> {
  try {
    await work();
  } catch (error) {
    const known = error instanceof StartError || error instanceof ConfigurationError || error instanceof Refused;
    console.error(known ? (error as Error).message : error);
    process.exitCode = 1;
  }
}
