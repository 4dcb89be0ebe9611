/** One listener for all practice sites and the pages of the post room, told apart by host name. */
import { createServer, type Server } from "node:http";
import express from "express";
import { answerLeaks, LEAKS_HOST } from "./leaks";
import { Passwords } from "./passwords";
import { POST_ROOM, type PostRoom, startPostRoom } from "./postRoom";
import { makeProvider, PROVIDER_HOST, type ProviderStandin, type StaffAccount } from "./provider";
import { makeSaml, SAML_HOST, type SamlStandin } from "./saml";
import { practiceSites } from "./sites/all";
import type { Site } from "./sites/site";

export interface Standins {
  server: Server;
  sites: Site[];
  postRoom: PostRoom;
  provider: ProviderStandin;
  saml: SamlStandin;
  /** What a Galtry is given to know of them: where it may call, and where its mail goes. */
  environment: Record<string, string>;
  address: (host: string, path?: string) => string;
  /** Requests seen, for tests: who was called how often. */
  seen: { host: string; method: string; path: string }[];
  close: () => Promise<void>;
}

/** @param kept the file of passwords that were changed at the sites; without it they forget */
export async function startStandins(
  port: number,
  galtry: string,
  staff: StaffAccount[] = [],
  kept: string | null = null,
): Promise<Standins> {
  const provider = await makeProvider(port, galtry, staff);
  const saml = await makeSaml(port, () => provider.staff);
  const sites = practiceSites(port, galtry, new Passwords(kept));
  const postRoom = await startPostRoom();
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
    else if (request.hostname === LEAKS_HOST) answerLeaks(request, response);
    else if (request.hostname === POST_ROOM) postRoom.pages(request, response, next);
    else if (request.hostname === PROVIDER_HOST || request.hostname === SAML_HOST) {
      const standin = request.hostname === SAML_HOST ? saml : provider;
      const handle = () => void standin.handle(request, response).catch(next);
      // Once its body is there.
      if (request.complete) handle();
      else request.on("end", handle);
    } else next();
  });
  app.use((request, response) => {
    const list = sites
      .map((site) => `<li><a href="http://${site.host}:${port}${site.signInPath}">${site.name}</a></li>`)
      .join("");
    response
      .status(request.path === "/" ? 200 : 404)
      .send(
        `<!doctype html><title>Practice sites</title><h1>Practice sites</h1><ul>${list}</ul><p><a href="http://${POST_ROOM}:${port}/">Post room</a>, <a href="http://${PROVIDER_HOST}:${port}/">Identity provider</a></p>`,
      );
  });
  const server = createServer(app);
  await new Promise<void>((resolve, reject) => {
    server.once("error", reject);
    server.listen(port, "127.0.0.1", resolve);
  }).catch(async (error) => {
    await postRoom.close();
    throw error;
  });
  return {
    server,
    sites,
    postRoom,
    provider,
    saml,
    environment: {
      GALTRY_LEAKED_PASSWORDS: `http://${LEAKS_HOST}:${port}/range`,
      GALTRY_LEAKED_ADDRESSES: `http://${LEAKS_HOST}:${port}/addresses`,
      GALTRY_ALLOWED_TARGETS: sites.map((site) => `${site.host}:${port}`).join(","),
      GALTRY_MAIL_SERVER: postRoom.address,
      GALTRY_MAIL_FROM: "Galtry <galtry@tarrowick.example>",
    },
    seen,
    address: (host, path = "/") => `http://${host}:${port}${path}`,
    close: async () => {
      await postRoom.close();
      server.closeAllConnections();
      await new Promise<void>((resolve) => server.close(() => resolve()));
    },
  };
}
