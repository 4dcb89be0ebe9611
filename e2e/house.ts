/** A Galtry of a test's own: data in a temporary folder, practice sites in this process, the server in another. */
import { type ChildProcess, spawn } from "node:child_process";
import { mkdtempSync, rmSync } from "node:fs";
import { createServer } from "node:net";
import { tmpdir } from "node:os";
import path from "node:path";
import { type Built, buildDemo } from "../demo/build";
import { readConfiguration } from "../src/server/configuration";
import { type Galtry, startGaltry } from "../src/server/galtry";
import { type Standins, startStandins } from "../standins/server";

export interface House {
  url: string;
  built: Built;
  standins: Standins;
  environment: NodeJS.ProcessEnv;
  folder: string;
  /** This process's own view of the data. */
  galtry: Galtry;
  /** What the server wrote to its terminal. */
  log: () => string;
  start: () => Promise<void>;
  /** Ends the server as a power cut would. */
  kill: () => Promise<void>;
  close: () => Promise<void>;
}

export function freePort(): Promise<number> {
  return new Promise((resolve, reject) => {
    const server = createServer();
    server.once("error", reject);
    server.listen(0, "127.0.0.1", () => {
      const { port } = server.address() as { port: number };
      server.close(() => resolve(port));
    });
  });
}

export async function startHouse(): Promise<House> {
  const folder = mkdtempSync(path.join(tmpdir(), "galtry-house-"));
  const [port, sitesPort] = [await freePort(), await freePort()];
  const url = `http://localhost:${port}`;
  const standins = await startStandins(sitesPort, url);
  const environment: NodeJS.ProcessEnv = {
    ...process.env,
    NODE_ENV: "production",
    GALTRY_PORT: String(port),
    GALTRY_PUBLIC_URL: url,
    GALTRY_DATA: path.join(folder, "data"),
    GALTRY_ROOT_KEY_FILE: path.join(folder, "root.key"),
    GALTRY_ALLOWED_TARGETS: standins.sites.map((site) => `${site.host}:${sitesPort}`).join(","),
  };
  const galtry = await startGaltry(readConfiguration(environment));
  const built = await buildDemo(galtry, standins.sites, standins.address);
  let child: ChildProcess | null = null;
  let log = "";
  const house: House = {
    url,
    built,
    standins,
    environment,
    folder,
    galtry,
    log: () => log,
    start: async () => {
      const started = spawn(process.execPath, ["--import", "tsx", "scripts/start.ts"], {
        env: environment,
        stdio: ["ignore", "pipe", "pipe"],
      });
      child = started;
      const hear = (part: Buffer) => {
        log += part.toString();
      };
      started.stdout.on("data", hear);
      started.stderr.on("data", hear);
      await answers(
        `${url}/api/lanyard/hello`,
        () => started.exitCode !== null,
        () => log,
      );
    },
    kill: () => ended(child, "SIGKILL"),
    close: async () => {
      await ended(child, "SIGTERM");
      galtry.opened.client.close();
      await standins.close();
      rmSync(folder, { recursive: true, force: true });
    },
  };
  await house.start();
  return house;
}

async function answers(address: string, gone: () => boolean, log: () => string): Promise<void> {
  for (const start = Date.now(); Date.now() - start < 60_000; ) {
    if (gone()) throw new Error(`Galtry did not start:\n${log()}`);
    if (
      await fetch(address).then(
        (response) => response.ok,
        () => false,
      )
    )
      return;
    await new Promise((resolve) => setTimeout(resolve, 100));
  }
  throw new Error(`Galtry does not answer:\n${log()}`);
}

function ended(child: ChildProcess | null, signal: NodeJS.Signals): Promise<void> {
  if (!child || child.exitCode !== null || child.signalCode !== null) return Promise.resolve();
  return new Promise((resolve) => {
    child.once("exit", () => resolve());
    child.kill(signal);
  });
}
