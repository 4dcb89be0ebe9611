/** Sites at which passwords can be changed, each at a host of its own, all at one port of this machine. */
import { createServer } from "node:http";
import express from "express";
import { freePort } from "../demo/freePort";
import { type ChangeWay, type ChangingSite, changingSite } from "../standins/sites/changing";

export interface ChangingSites {
  port: number;
  /** By host; a host that is taken out answers with 404. */
  at: Map<string, ChangingSite>;
  /** One more, with its account; one that is there already takes its place. */
  add: (way: ChangeWay, name: string, password: string, code?: string) => ChangingSite;
  addressOf: (site: ChangingSite) => string;
  close: () => Promise<void>;
}

export async function startChangingSites(): Promise<ChangingSites> {
  const port = await freePort();
  const at = new Map<string, ChangingSite>();
  const routes = express();
  routes.use((request, response, next) => {
    const site = at.get(request.hostname);
    return site ? site.router(request, response, next) : next();
  });
  const server = createServer(routes);
  await new Promise<void>((done) => server.listen(port, "127.0.0.1", done));
  return {
    ...{ port, at },
    add: (way, name, password, code) => {
      const host = `${name}.localhost`;
      const site = changingSite(way, { host, name: `Site ${name}`, account: { userName: "office", password, code } });
      at.set(host, site);
      return site;
    },
    addressOf: ({ host, signInPath }) => `http://${host}:${port}${signInPath}`,
    close: async () => {
      server.closeAllConnections();
      await new Promise((done) => server.close(done));
    },
  };
}
