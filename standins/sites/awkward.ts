/** Sites that a sealed sign-in has to refuse, or must be careful with. */
import { type Account, inside, page, router, Sessions, type Site } from "./site";

interface Awkward {
  host: string;
  name: string;
  signInPath: string;
  account: Account;
  text: string;
}

/** Signs in by way of a second host, which sends one back with a ticket. */
export function secondHostSite(site: Awkward & { idHost: string; port: number }): Site[] {
  const { host, name, signInPath, account, text, idHost, port } = site;
  const sessions = new Sessions("bm");
  const tickets = new Map<string, string>();
  const own = router();
  const id = router();
  const at = (name_: string, path: string) => `http://${name_}:${port}${path}`;
  own.get("/", (request, response) => {
    response.redirect(302, sessions.of(request) ? "/meters" : signInPath);
  });
  own.get(signInPath, (_request, response) => {
    response.redirect(302, at(idHost, "/enter?for=meters"));
  });
  own.get("/back", (request, response) => {
    const user = tickets.get(String(request.query.ticket));
    if (!user) return response.redirect(302, signInPath);
    tickets.delete(String(request.query.ticket));
    sessions.start(response, { user });
    response.redirect(302, "/meters");
  });
  own.get("/meters", (request, response) => {
    const session = sessions.of(request);
    if (!session) return response.redirect(302, signInPath);
    response.send(inside(name, session.user!, text));
  });
  own.get("/sign-out", (request, response) => {
    sessions.end(request);
    response.redirect(302, "/");
  });
  const form = (wrong: boolean) =>
    page(
      `${name} identity`,
      `<h1>Sign in for ${name}</h1>${wrong ? '<p class="error">Wrong e-mail or password.</p>' : ""}<form method="post" action="//${idHost}:${port}/enter"><label>E-mail <input name="e" type="email" autocomplete="username"></label><label>Password <input name="p" type="password"></label><button>Sign in</button></form>`,
    );
  id.get("/enter", (_request, response) => {
    response.send(form(false));
  });
  id.post("/enter", (request, response) => {
    if (request.body.e !== account.userName || request.body.p !== account.password)
      return void response.send(form(true));
    const ticket = Math.random().toString(36).slice(2);
    tickets.set(ticket, account.userName);
    response.redirect(302, at(host, `/back?ticket=${ticket}`));
  });
  return [
    { host, name, signInPath, account, router: own },
    { host: idHost, name: `${name} identity`, signInPath: "/enter", account, router: id },
  ];
}

/** A page that scripts draw; what is typed goes out as JSON. */
export function scriptedSite({ host, name, signInPath, account, text }: Awkward): Site {
  const sessions = new Sessions("lb");
  const routes = router();
  const script = `const root=document.getElementById("app");root.innerHTML='<h1>${name}</h1><div><label for="u">User name</label><input id="u"><label for="p">Password</label><input id="p" type="password"><p class="error" id="e"></p><button id="go">Log in</button></div>';document.getElementById("go").onclick=async()=>{const r=await fetch("/api/session",{method:"POST",headers:{"content-type":"application/json"},body:JSON.stringify({user:document.getElementById("u").value,password:document.getElementById("p").value})});if(r.ok){history.pushState({},"","/feed");root.innerHTML="<h1>Today at ${name}</h1><p>Signed in.</p>"}else document.getElementById("e").textContent="Wrong user name or password."};`;
  routes.get("/", (request, response) => {
    response.redirect(302, sessions.of(request) ? "/feed" : signInPath);
  });
  routes.get(signInPath, (_request, response) => {
    response.send(page(name, `<div id="app">Loading</div><script>setTimeout(()=>{${script}},60)</script>`));
  });
  routes.post("/api/session", (request, response) => {
    if (request.body.user !== account.userName || request.body.password !== account.password)
      return void response.status(401).json({ error: "wrong" });
    sessions.start(response, { user: account.userName });
    response.json({ ok: true });
  });
  routes.get("/feed", (request, response) => {
    const session = sessions.of(request);
    if (!session) return response.redirect(302, signInPath);
    response.send(inside(name, session.user!, text));
  });
  return { host, name, signInPath, account, router: routes };
}

/** HTTP Basic: no page at all. */
export function basicSite({ host, name, signInPath, account, text }: Awkward): Site {
  const routes = router();
  routes.get("/{*path}", (request, response) => {
    const wanted = `Basic ${Buffer.from(`${account.userName}:${account.password}`).toString("base64")}`;
    if (request.headers.authorization !== wanted)
      return void response
        .status(401)
        .setHeader("www-authenticate", `Basic realm="${name}"`)
        .send("Authorization required");
    response.send(inside(name, account.userName, text));
  });
  return { host, name, signInPath, account, router: routes };
}

/** Locks after three wrong tries, for everybody who uses the account. */
export function lockingSite({ host, name, signInPath, account, text }: Awkward): Site & { wrongTries: () => number } {
  const sessions = new Sessions("tb");
  const routes = router();
  let wrong = 0;
  const form = (message: string) =>
    page(
      name,
      `<h1>${name}</h1>${message ? `<p class="error">${message}</p>` : ""}<form method="post"><label>User ID <input name="userid"></label><label>Password <input name="pwd" type="password"></label><button>Sign on</button></form>`,
    );
  routes.get("/", (request, response) => {
    response.redirect(302, sessions.of(request) ? "/rota" : signInPath);
  });
  routes.get(signInPath, (_request, response) => {
    response.send(form(""));
  });
  routes.post(signInPath, (request, response) => {
    if (wrong >= 3) return void response.send(page(name, "<h1>Your account is locked</h1><p>Ring us.</p>"));
    if (request.body.userid !== account.userName || request.body.pwd !== account.password) {
      wrong += 1;
      return void response.send(form("Incorrect user ID or password."));
    }
    wrong = 0;
    sessions.start(response, { user: account.userName });
    response.redirect(303, "/rota");
  });
  routes.get("/rota", (request, response) => {
    const session = sessions.of(request);
    if (!session) return response.redirect(302, signInPath);
    response.send(inside(name, session.user!, text));
  });
  return { host, name, signInPath, account, router: routes, wrongTries: () => wrong };
}

/**
 * Ties its session to where the caller comes from. On one machine all come from one address, so a browser is told from
 * a server by the Sec-Fetch headers that only browsers send.
 */
export function tiedSite({ host, name, signInPath, account, text }: Awkward): Site {
  const sessions = new Sessions("wx");
  const routes = router();
  const from = (request: { headers: Record<string, unknown> }) =>
    request.headers["sec-fetch-site"] ? "a browser" : "a server";
  const form = (message: string) =>
    page(
      name,
      `<h1>${name}</h1>${message ? `<p class="error">${message}</p>` : ""}<form method="post"><label>User name <input name="u"></label><label>Password <input name="p" type="password"></label><button>Sign in</button></form>`,
    );
  routes.get("/", (request, response) => {
    response.redirect(302, sessions.of(request) ? "/stock" : signInPath);
  });
  routes.get(signInPath, (_request, response) => {
    response.send(form(""));
  });
  routes.post(signInPath, (request, response) => {
    if (request.body.u !== account.userName || request.body.p !== account.password)
      return void response.send(form("Wrong user name or password."));
    sessions.start(response, { user: account.userName, from: from(request) });
    response.redirect(303, "/stock");
  });
  routes.get("/stock", (request, response) => {
    const session = sessions.of(request);
    if (session?.from !== from(request)) return response.redirect(302, signInPath);
    response.send(inside(name, session.user!, text));
  });
  return { host, name, signInPath, account, router: routes };
}

/** Gives the password back: in its page and, base64, in a cookie. */
export function tellTaleSite({ host, name, signInPath, account, text }: Awkward): Site {
  const sessions = new Sessions("dm");
  const routes = router();
  routes.get("/", (request, response) => {
    response.redirect(302, sessions.of(request) ? "/desk" : signInPath);
  });
  routes.get(signInPath, (_request, response) => {
    response.send(
      page(
        name,
        `<h1>${name}</h1><form method="post"><label>User name <input name="u"></label><label>Password <input name="p" type="password"></label><button>Sign in</button></form>`,
      ),
    );
  });
  routes.post(signInPath, (request, response) => {
    if (request.body.u !== account.userName || request.body.p !== account.password)
      return response.redirect(303, signInPath);
    sessions.start(response, { user: account.userName });
    response.append(
      "set-cookie",
      `remember=${encodeURIComponent(Buffer.from(`${account.userName}:${account.password}`).toString("base64"))}; Path=/`,
    );
    response.send(inside(name, account.userName, `${text} Your password is ${account.password}.`));
  });
  routes.get("/desk", (request, response) => {
    const session = sessions.of(request);
    if (!session) return response.redirect(302, signInPath);
    response.send(inside(name, session.user!, `${text} Your password is ${account.password}.`));
  });
  return { host, name, signInPath, account, router: routes };
}

/** Shows a puzzle before the form. */
export function puzzleSite({ host, name, signInPath, account }: Awkward): Site {
  const routes = router();
  routes.get("/{*path}", (_request, response) => {
    response.send(
      page(
        name,
        `<h1>${name}</h1><form method="post"><label>User name <input name="u"></label><label>Password <input name="p" type="password"></label><div class="captcha-box" data-sitekey="x">Which of these pictures shows a boat?</div><button>Sign in</button></form>`,
      ),
    );
  });
  return { host, name, signInPath, account, router: routes };
}
