/** One listener for all practice sites, told apart by host name. */
import { createServer, type Server } from "node:http";
import express from "express";
import { practiceSites } from "./sites/all";
import type { Site } from "./sites/site";

export interface Standins {
  server: Server;
  sites: Site[];
  address: (host: string, path?: string) => string;
  /** Requests seen, for tests: who was called how often. */
  seen: { host: string; method: string; path: string }[];
  close: () => Promise<void>;
}

export async function startStandins(port: number, galtry: string): Promise<Standins> {
  const sites = practiceSites(port, galtry);
  const seen: Standins["seen"] = [];
  const app = express();
  app.disable("x-powered-by");
  app.use((request, _response, next) => {
    seen.push({ host: request.hostname, method: request.method, path: request.path });
    if (seen.length > 5000) seen.splice(0, 1000);
    // Old sites read the body in their own charset.
    const parts: Buffer[] = [];
    request.on("data", (part: Buffer) => parts.push(part));
    request.on("end", () => {
      (request as typeof request & { rawBody: Buffer }).rawBody = Buffer.concat(parts);
    });
    next();
  });
  app.use((request, response, next) => {
    const site = sites.find((one) => one.host === request.hostname);
    if (site) site.router(request, response, next);
    else next();
  });
  app.use((request, response) => {
    const list = sites
      .map((site) => `<li><a href="http://${site.host}:${port}${site.signInPath}">${site.name}</a></li>`)
      .join("");
    response
      .status(request.path === "/" ? 200 : 404)
      .send(`<!doctype html><title>Practice sites</title><h1>Practice sites</h1><ul>${list}</ul>`);
  });
  const server = createServer(app);
  await new Promise<void>((resolve, reject) => {
    server.once("error", reject);
    server.listen(port, "127.0.0.1", resolve);
  });
  return {
    server,
    sites,
    seen,
    address: (host, path = "/") => `http://${host}:${port}${path}`,
    close: () =>
      new Promise((resolve) => {
        server.closeAllConnections();
        server.close(() => resolve());
      }),
  };
}
