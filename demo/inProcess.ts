/** A Galtry in this process with data in a temporary folder: for tests and measurements. */
import { cpSync, mkdtempSync, rmSync } from "node:fs";
import { tmpdir } from "node:os";
import path from "node:path";
import { readConfiguration } from "../src/server/configuration";
import { closeGaltry, type Galtry, startGaltry } from "../src/server/galtry";
import { PageReader } from "../src/server/signin/pageReader";
import { PictureDrawer } from "../src/server/vaults/pictureDrawer";
import { type Standins, startStandins } from "../standins/server";
import { freePort } from "./freePort";
import { staffAccounts } from "./provider";

export const METRICS_TOKEN = "metrics token of tests";

export interface InProcess extends Prepared {
  url: string;
  environment: NodeJS.ProcessEnv;
  galtry: Galtry;
  standins: Standins;
  /** Ends it, and leaves its data. */
  stop: () => Promise<void>;
  close: () => Promise<void>;
}

/** Data that another begins with a copy of. Its entries name the ports, so that one at a time may. */
export interface Prepared {
  folder: string;
  port: number;
  sitesPort: number;
}

interface InProcessOptions {
  /** As for people: a remote database is read from a copy. */
  serves?: boolean;
  from?: Prepared | null;
}

/** @param more of the environment */
export async function inProcess(
  more: Record<string, string> = {},
  { serves = false, from = null }: InProcessOptions = {},
): Promise<InProcess> {
  const folder = mkdtempSync(path.join(tmpdir(), "galtry-house-"));
  if (from) cpSync(from.folder, folder, { recursive: true });
  const [port, sitesPort] = from ? [from.port, from.sitesPort] : [await freePort(), await freePort()];
  const url = `http://localhost:${port}`;
  const standins = await startStandins(sitesPort, url, staffAccounts());
  const environment: NodeJS.ProcessEnv = {
    ...process.env,
    NODE_ENV: "production",
    GALTRY_PORT: String(port),
    GALTRY_PUBLIC_URL: url,
    GALTRY_DATA: path.join(folder, "data"),
    GALTRY_ROOT_KEY_FILE: path.join(folder, "root.key"),
    GALTRY_METRICS_TOKEN: METRICS_TOKEN,
    ...standins.environment,
    ...more,
  };
  const galtry = await startGaltry(readConfiguration(environment), { serves });
  galtry.pages = new PageReader();
  galtry.pictures = new PictureDrawer();
  const stop = async () => {
    await closeGaltry(galtry);
    await standins.close();
  };
  return {
    ...{ folder, port, sitesPort, url, environment, galtry, standins, stop },
    close: async () => {
      await stop();
      rmSync(folder, { recursive: true, force: true });
    },
  };
}
