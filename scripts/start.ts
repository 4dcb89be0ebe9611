/** Starts Galtry: keys and database first, then the pages. One line when it cannot. */
import { createServer } from "node:http";
import next from "next";
import { ConfigurationError } from "../src/server/configuration";
import { type Galtry, galtry } from "../src/server/galtry";
import { closeDeadSignIns, startHousekeeping } from "../src/server/housekeeping";
import { hubOf } from "../src/server/live/hub";
import { newReference } from "../src/server/log";
import { gauge } from "../src/server/metrics";
import { setUpAddress } from "../src/server/people/setUp";
import { REQUEST_ID } from "../src/server/requestId";
import { StartError } from "../src/server/startError";

async function start(): Promise<void> {
  const app = await galtry();
  const { port, listen, publicUrl } = app.configuration;
  await closeDeadSignIns(app);
  startHousekeeping(app);
  const pages = next({ dev: false, hostname: listen, port });
  // Whoever comes first waits for nothing that all need.
  await Promise.all([pages.prepare(), app.access.fresh()]);
  const handle = pages.getRequestHandler();
  gauge("streams", "Pages and Lanyards that are told of changes.", () => hubOf(app).listening);
  gauge("writes_waiting", "Commands that wait for their turn to write.", () => app.writer.waiting);
  const server = createServer((request, response) => {
    // Set here and nowhere else: what a client sends under this name is overwritten.
    request.headers["x-galtry-peer"] = request.socket.remoteAddress ?? "";
    const reference = newReference();
    request.headers[REQUEST_ID] = reference;
    response.setHeader(REQUEST_ID, reference);
    void handle(request, response);
  });
  server.requestTimeout = 120_000;
  server.headersTimeout = 20_000;
  server.on("error", (error: NodeJS.ErrnoException) =>
    fail(error.code === "EADDRINUSE" ? `Port ${port} is in use: set GALTRY_PORT to another.` : String(error)),
  );
  server.listen(port, listen, async () => {
    console.log(`Galtry is at ${publicUrl.origin}`);
    const address = await setUpAddress(app);
    if (address) console.log(`No organisation yet. Open this one-time address to set it up:\n  ${address}`);
  });
  for (const signal of ["SIGINT", "SIGTERM"] as const)
    process.on(signal, () => void ending(app).then(() => process.exit(0)));
}

/** The thread that reads closes its own connection, if it can do so at once. */
const ending = (app: Galtry) => Promise.race([app.reading?.close(), new Promise((next) => setTimeout(next, 500))]);

function fail(line: string): never {
  console.error(line);
  process.exit(1);
}

start().catch((error) => {
  if (error instanceof StartError || error instanceof ConfigurationError) fail(error.message);
  console.error(error);
  process.exit(1);
});
