import { createServer } from "node:net";

const given = new Set<number>();

/** A port that nothing listens on, and that was not given before: a moment after it is free the system may name it again. */
export async function freePort(): Promise<number> {
  for (;;) {
    const port = await namedBySystem();
    if (given.has(port)) continue;
    given.add(port);
    return port;
  }
}

function namedBySystem(): Promise<number> {
  return new Promise((resolve, reject) => {
    const server = createServer();
    server.once("error", reject);
    server.listen(0, "127.0.0.1", () => {
      const { port } = server.address() as { port: number };
      server.close(() => resolve(port));
    });
  });
}
