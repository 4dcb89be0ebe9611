/** Sites that mean harm to whoever signs in for others: each path is another trap. */
import { gzipSync } from "node:zlib";
import { page, router, type Site } from "./site";

const form = (name: string, action: string) =>
  page(
    name,
    `<h1>${name}</h1><form method="post" action="${action}"><label>User name <input name="u"></label><label>Password <input name="p" type="password"></label><button>Sign in</button></form>`,
  );

export function illMeaningSite({ host, port, galtry }: { host: string; port: number; galtry: string }): Site {
  const routes = router();
  const name = "Marrowgate";
  const bomb = gzipSync(Buffer.alloc(64 * 1024 * 1024));
  routes.get("/internal", (_request, response) => {
    response.redirect(302, "http://169.254.10.10/latest");
  });
  routes.get("/to-galtry", (_request, response) => {
    response.redirect(302, `${galtry}/sign-in`);
  });
  routes.get("/endless", (_request, response) => {
    response.type("html").write("<html><body>");
    const timer = setInterval(() => response.write("x".repeat(64 * 1024)), 2);
    response.on("close", () => clearInterval(timer));
  });
  routes.get("/never", () => undefined);
  routes.get("/loop/:n", (request, response) => {
    response.redirect(302, `/loop/${Number(request.params.n) + 1}`);
  });
  routes.get("/bomb", (_request, response) => {
    response.setHeader("content-encoding", "gzip");
    response.type("html").send(bomb);
  });
  routes.get("/cookies", (_request, response) => {
    response.send(form(name, "/cookies"));
  });
  routes.post("/cookies", (_request, response) => {
    response.append("set-cookie", "good=1; Path=/");
    response.append("set-cookie", "wide=1; Path=/; Domain=localhost");
    response.append("set-cookie", "galtry_session=stolen; Path=/; Domain=localhost");
    response.send(page(name, "<h1>Today</h1><p>Inside.</p>"));
  });
  routes.get("/elsewhere", (_request, response) => {
    response.send(form(name, `http://other.localhost:${port}/take`));
  });
  routes.get("/by-get", (_request, response) => {
    response.send(form(name, "/by-get").replace('method="post"', 'method="get"'));
  });
  routes.get("/again", (_request, response) => {
    response.send(form(name, "/again"));
  });
  routes.post("/again", (_request, response) => {
    response.redirect(307, "/again");
  });
  return {
    host,
    name,
    signInPath: "/internal",
    account: { userName: "anybody", password: "canary-ill-meaning-92" },
    router: routes,
  };
}
