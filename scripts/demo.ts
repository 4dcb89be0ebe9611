/** The sample organisation with its outside world: makes it on first use, then starts Galtry and the stand-ins. */

import { type ChildProcess, spawn } from "node:child_process";
import { existsSync, rmSync } from "node:fs";
import { buildDemo } from "../demo/build";
import { buildLarge, WITH_VOLUNTEERS } from "../demo/large";
import { DEMO_PASSWORD } from "../demo/organisation";
import { setUpProvider, staffAccounts } from "../demo/provider";
import { readConfiguration } from "../src/server/configuration";
import { closeGaltry, startGaltry } from "../src/server/galtry";
import { POST_ROOM } from "../standins/postRoom";
import { PROVIDER_HOST } from "../standins/provider";
import { startStandins } from "../standins/server";
import { SERVER_FLAGS } from "./serverFlags.mjs";

const port = Number(process.env.GALTRY_PORT ?? 4600);
const sitesPort = Number(process.env.STANDINS_PORT ?? 4700);
const data = process.env.GALTRY_DATA ?? ".data/demo";
const chromium = process.env.CHROMIUM_PATH ?? "/usr/bin/chromium";
const environment: NodeJS.ProcessEnv = {
  // For practice sites that only work in a browser, where this machine has one.
  ...(existsSync(chromium) && { GALTRY_SIGN_IN_BROWSER: chromium }),
  ...process.env,
  GALTRY_PORT: String(port),
  GALTRY_PUBLIC_URL: process.env.GALTRY_PUBLIC_URL ?? `http://localhost:${port}`,
  GALTRY_DATA: data,
  GALTRY_ROOT_KEY_FILE: process.env.GALTRY_ROOT_KEY_FILE ?? ".data/demo-root.key",
};

if (process.argv.includes("--fresh")) {
  rmSync(data, { recursive: true, force: true });
  rmSync(environment.GALTRY_ROOT_KEY_FILE!, { force: true });
}
const atSites = `${data}-sites/passwords.json`;
if (!existsSync(`${data}/keys.json`)) rmSync(atSites, { force: true });
const standins = await startStandins(sitesPort, environment.GALTRY_PUBLIC_URL!, staffAccounts(), atSites).catch(
  (error: NodeJS.ErrnoException) => {
    console.error(
      error.code === "EADDRINUSE" ? `Port ${sitesPort} is in use: set STANDINS_PORT to another.` : String(error),
    );
    process.exit(1);
  },
);
Object.assign(environment, standins.environment);

if (!existsSync(`${data}/keys.json`)) {
  console.log("Creating the sample organisation…");
  const app = await startGaltry(readConfiguration(environment));
  const { people } = await buildDemo(app, standins.sites, standins.address);
  const owner = {
    ...{ kind: "person" as const, personId: people.get("hanna")!, sessionId: null, provedAt: Date.now() },
    ...{ address: "127.0.0.1", browser: "Chromium on Linux" },
  };
  await setUpProvider(app, standins.provider, owner, "tm-hanna");
  if (process.argv.includes("--large")) {
    console.log("… and all its volunteers…");
    await buildLarge(app, WITH_VOLUNTEERS);
  }
  await closeGaltry(app);
}

const server: ChildProcess = spawn(process.execPath, [...SERVER_FLAGS, "dist/server/start.js"], {
  env: environment,
  stdio: "inherit",
});
server.on("exit", (code) => process.exit(code ?? 0));
for (const signal of ["SIGINT", "SIGTERM"] as const)
  process.on(signal, () => {
    server.kill("SIGTERM");
    void standins.close();
  });

console.log(`
Tarrowick Museums Trust, at ${environment.GALTRY_PUBLIC_URL}
  sign in as                            who
  hanna.quist@tarrowick.example         owner
  ines.okafor@tarrowick.example         administrator, steward of Shop & Tickets
  bram.oyelaran@tarrowick.example       steward of Shop & Tickets
  maren.pohl@tarrowick.example          colleague: signs in, sees no password
  tobias.renn@tarrowick.example         colleague without access to Pellam Tickets
  silas.penhale@tarrowick.example       colleague with Reveal in the shop
  ottilie.brackenridge@tarrowick.example  volunteer, until the season ends
  kit.ashdown@tarrowick.example         guest: an exhibition designer
  sign-in password for all:             ${DEMO_PASSWORD}

Practice sites: http://localhost:${sitesPort}
  Pellam Tickets, not in a vault yet: http://pellam.localhost:${sitesPort}/box-office/sign-in
    boxoffice@tarrowick.example, quiet-Lantern-52-harbour
Post room, with every email that was sent: http://${POST_ROOM}:${sitesPort}
Identity provider with the same staff: http://${PROVIDER_HOST}:${sitesPort}
  its administration: http://${PROVIDER_HOST}:${sitesPort}/administration

Lanyard: open chrome://extensions, switch on Developer mode, press "Load unpacked" and choose
  ${process.cwd()}/dist/lanyard
  (in Firefox: open about:debugging, This Firefox, "Load Temporary Add-on": dist/lanyard-firefox/manifest.json)
`);
