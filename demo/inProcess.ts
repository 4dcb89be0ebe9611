/** A Galtry in this process with data in a temporary folder: for tests and measurements. */
import { mkdtempSync, rmSync } from "node:fs";
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

export interface InProcess {
  folder: string;
  url: string;
  environment: NodeJS.ProcessEnv;
  galtry: Galtry;
  standins: Standins;
  close: () => Promise<void>;
}

/** @param more of the environment; @param serves as for people: a remote database is read from a copy */
export async function inProcess(more: Record<string, string> = {}, serves = false): Promise<InProcess> {
  const folder = mkdtempSync(path.join(tmpdir(), "galtry-house-"));
  const [port, sitesPort] = [await freePort(), await freePort()];
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
  return {
    folder,
    url,
    environment,
    galtry,
    standins,
    close: async () => {
      await closeGaltry(galtry);
      await standins.close();
      rmSync(folder, { recursive: true, force: true });
    },
  };
}
