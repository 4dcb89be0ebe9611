/** A Galtry of a test's own: data in a temporary folder, practice sites in this process, the server in another. */
import { type ChildProcess, spawn } from "node:child_process";
import { cpSync, mkdtempSync, rmSync } from "node:fs";
import path from "node:path";
import { type Built, buildDemo } from "../demo/build";
import { type InProcess, inProcess, type Prepared } from "../demo/inProcess";
import { SERVER_FLAGS } from "../scripts/serverFlags.mjs";
import { sessions } from "../src/server/database/schema";
import type { Galtry } from "../src/server/galtry";
import type { Standins } from "../standins/server";

export interface App {
  url: string;
  built: Built;
  standins: Standins;
  environment: NodeJS.ProcessEnv;
  folder: string;
  /** This process's own view of the data. */
  galtry: Galtry;
  /** What the server wrote to its terminal. */
  log: () => string;
  /** Of the server, while it runs. */
  pid: () => number | undefined;
  start: () => Promise<void>;
  /** Ends the server as a power cut would. */
  kill: () => Promise<void>;
  close: () => Promise<void>;
}

interface Sample extends Prepared {
  built: Built;
  at: number;
}

let sample: Promise<Sample> | null = null;
/** Of the houses that stand on it: there is one pair of ports. */
let taken = false;

/** What happened minutes ago is to have happened minutes ago. */
const FRESH_MS = 10 * 60_000;

async function makeSample(): Promise<Sample> {
  const { galtry, standins, stop, folder, port, sitesPort } = await inProcess();
  const built = await buildDemo(galtry, standins.sites, standins.address);
  await stop();
  const { inject } = await import("vitest");
  const kept = path.join(mkdtempSync(path.join(inject("samples"), "sample-")), "house");
  cpSync(folder, kept, { recursive: true });
  rmSync(folder, { recursive: true });
  return { folder: kept, port, sitesPort, built, at: Date.now() };
}

/** The sample organisation: built once for the files of this process, and copied for each house. */
async function sampleHouse(
  more: Record<string, string>,
): Promise<{ inside: InProcess; built: Built; free: () => void }> {
  // Pictures and measurements, outside a run of tests, have one house and build it.
  if (taken || "GALTRY_DATABASE_URL" in more || !process.env.VITEST) {
    const inside = await inProcess(more);
    const built = await buildDemo(inside.galtry, inside.standins.sites, inside.standins.address);
    return { inside, built, free: () => undefined };
  }
  taken = true;
  if (sample && Date.now() - (await sample).at > FRESH_MS) sample = null;
  sample ??= makeSample();
  const { built, ...from } = await sample;
  const inside = await inProcess(more, { from });
  return {
    inside,
    built: structuredClone(built),
    free: () => {
      taken = false;
    },
  };
}

/** @param more of the environment */
export async function startHouse(more: Record<string, string> = {}): Promise<App> {
  const { inside, built, free } = await sampleHouse(more);
  const { folder, url, environment, galtry, standins } = inside;
  let child: ChildProcess | null = null;
  let log = "";
  const app: App = {
    url,
    built,
    standins,
    environment,
    folder,
    galtry,
    log: () => log,
    pid: () => child?.pid,
    start: async () => {
      const started = spawn(process.execPath, [...SERVER_FLAGS, "dist/server/start.js"], {
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
      await inside.close();
      free();
    },
  };
  await app.start();
  return app;
}

/** Waits until a server answers there, or its process is gone. */
export async function answers(address: string, gone: () => boolean, log: () => string): Promise<void> {
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
  throw new Error(`Galtry is not responding:\n${log()}`);
}

function ended(child: ChildProcess | null, signal: NodeJS.Signals): Promise<void> {
  if (!child || child.exitCode !== null || child.signalCode !== null) return Promise.resolve();
  return new Promise((resolve) => {
    child.once("exit", () => resolve());
    child.kill(signal);
  });
}

/** As though everybody had shown ten minutes ago that it is them; written as Galtry writes, which waits for its turn. */
export const longAfterSigningIn = (app: App): Promise<unknown> =>
  app.galtry.writer.write((tx) => tx.update(sessions).set({ provedAt: Date.now() - 600_000 }));
