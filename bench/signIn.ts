/** A sealed sign-in beside the same requests by hand, to a site that takes 30 ms to answer. */
import { createServer } from "node:http";
import { Agent, request } from "undici";
import { type Fixture, give } from "../demo/fixture";
import { freePort } from "../demo/freePort";
import type { InProcess } from "../demo/inProcess";
import { sealedSignIn } from "../src/server/signin/sealed";
import { addEntry } from "../src/server/vaults/entries";
import { sideBySide, tell } from "./measure";

export async function benchSignIn(app: InProcess, fixture: Fixture): Promise<void> {
  const port = await freePort();
  const server = createServer((incoming, response) => {
    setTimeout(() => {
      if (incoming.method === "POST")
        response.writeHead(303, { location: "/today", "set-cookie": "s=1; Path=/" }).end();
      else if (incoming.url === "/today")
        response.writeHead(200, { "content-type": "text/html" }).end("<h1>Today</h1>");
      else
        response
          .writeHead(200, { "content-type": "text/html" })
          .end('<form method="post"><input name="u"><input type="password" name="p"><button>Sign in</button></form>');
    }, 30);
  });
  await new Promise<void>((resolve) => server.listen(port, "127.0.0.1", resolve));
  (app.galtry.configuration.allowedTargets as Set<string>).add(`bench.localhost:${port}`);
  const address = `http://bench.localhost:${port}/in`;
  const { entryId } = await addEntry.execute(
    app.galtry,
    {
      parentId: fixture.vaultId,
      captured: false,
      values: { name: "Bench", signInPage: address, userName: "u", password: "canary-of-the-bench" },
    },
    fixture.as("steward"),
  );
  await give(app.galtry, fixture.as("steward"), entryId, fixture.ids.use, "use");
  const byHand = async () => {
    const agent = new Agent();
    const local = `http://127.0.0.1:${port}`;
    const send = async (path: string, options: object) =>
      (await request(`${local}${path}`, { dispatcher: agent, ...options })).body.text();
    await send("/in", {});
    await send("/in", {
      method: "POST",
      headers: { "content-type": "application/x-www-form-urlencoded" },
      body: "u=u&p=canary-of-the-bench",
    });
    await send("/today", {});
    await agent.destroy();
  };
  const sealed = async () => {
    const answer = await sealedSignIn(
      app.galtry,
      fixture.lanyard("use"),
      entryId,
      () => undefined,
      new AbortController().signal,
    );
    if (answer.outcome !== "signed-in") throw new Error(answer.outcome);
  };
  const { floor, taken } = await sideBySide(40, byHand, sealed);
  tell(
    "a sealed sign-in, beside the same requests by hand",
    taken / floor,
    1.25,
    "×",
    `${floor.toFixed(1)} ms by hand, ${(taken - floor).toFixed(1)} ms added`,
  );
  server.closeAllConnections();
  server.close();
}
