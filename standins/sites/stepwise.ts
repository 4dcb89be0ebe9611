/** Sites with more to do after the password: a question, a code in six boxes, a code sent to somebody's telephone. */
import { randomInt } from "node:crypto";
import { codeAt } from "../../src/core/signin/code";
import { type Account, behindSignIn, page, router, Sessions, type Site } from "./site";

interface Stepwise {
  host: string;
  name: string;
  signInPath: string;
  account: Account;
  text: string;
}

/** After the password it asks which house one works for: nothing opens before that is answered. */
export function questionSite({ host, name, signInPath, account, text }: Stepwise): Site {
  const waiting = new Sessions("tb_asked");
  const sessions = new Sessions("tb");
  const routes = router();
  const form = (message: string) =>
    page(
      `${name}: sign in`,
      `<h1>Sign in to ${name}</h1>${message}<form method="post"><label>User name <input name="user"></label><label>Password <input name="pass" type="password"></label><button>Continue</button></form>`,
    );
  routes.get("/", (_request, response) => response.redirect(302, "/counter"));
  routes.get(signInPath, (_request, response) => void response.send(form("")));
  routes.post(signInPath, (request, response) => {
    if (request.body.user !== account.userName || request.body.pass !== account.password)
      return void response.send(form('<p class="error" role="alert">Wrong user name or password.</p>'));
    waiting.start(response, { user: account.userName });
    response.redirect(303, "/house");
  });
  routes.get("/house", (request, response) => {
    if (!waiting.of(request)) return response.redirect(302, signInPath);
    response.send(
      page(
        `${name}: which house?`,
        '<h1>Which house are you in today?</h1><form method="post"><button name="house" value="1">Loom House</button><button name="house" value="2">Glassworks</button></form>',
      ),
    );
  });
  routes.post("/house", (request, response) => {
    const user = waiting.of(request)?.user;
    if (!user || !request.body.house) return response.redirect(303, "/house");
    const house = request.body.house === "1" ? "Loom House" : "Glassworks";
    sessions.start(response, { user: `${user}, ${house}` });
    response.redirect(303, "/counter");
  });
  behindSignIn(routes, sessions, { name, text, signInPath: "/house" }, "/counter");
  return { host, name, signInPath, account, router: routes };
}

/**
 * After the password it sends a code to the telephone of whoever has the account. There is no telephone here: what was
 * sent last stands at `/telephone`.
 */
export function sentCodeSite({ host, name, signInPath, account, text }: Stepwise): Site {
  const waiting = new Sessions("bc_first");
  const sessions = new Sessions("bc");
  const routes = router();
  let sent = "";
  const signIn = (message: string) =>
    page(
      `${name}: sign in`,
      `<h1>Sign in to ${name}</h1>${message}<form method="post"><label>User name <input name="user" autocomplete="username"></label><label>Password <input name="pass" type="password"></label><button>Sign in</button></form>`,
    );
  const code = (message: string) =>
    page(
      `${name}: enter your code`,
      `<h1>Enter the code we sent you</h1><p>We have sent a text message to the number that ends in 417.</p>${message}<form method="post"><label>Code <input name="code" inputmode="numeric" autocomplete="one-time-code"></label><button>Continue</button></form>`,
    );
  routes.get("/", (_request, response) => response.redirect(302, "/policies"));
  routes.get(signInPath, (_request, response) => void response.send(signIn("")));
  routes.post(signInPath, (request, response) => {
    if (request.body.user !== account.userName || request.body.pass !== account.password)
      return void response.send(signIn('<p class="error" role="alert">Wrong user name or password.</p>'));
    waiting.start(response, { user: account.userName });
    sent = String(randomInt(1_000_000)).padStart(6, "0");
    response.redirect(303, "/code");
  });
  routes.get("/code", (request, response) => {
    if (!waiting.of(request)) return response.redirect(302, signInPath);
    response.send(code(""));
  });
  routes.post("/code", (request, response) => {
    const user = waiting.of(request)?.user;
    if (!user) return response.redirect(302, signInPath);
    if (sent === "" || request.body.code !== sent)
      return void response.send(code('<p class="error" role="alert">That code is not valid.</p>'));
    sent = "";
    sessions.start(response, { user });
    response.redirect(303, "/policies");
  });
  routes.get("/telephone", (_request, response) => {
    const message = sent === "" ? "<p>No messages.</p>" : `<p>${name}: your code is <b id="sent">${sent}</b>.</p>`;
    response.send(page("Telephone", `<h1>Text messages</h1>${message}`));
  });
  behindSignIn(routes, sessions, { name, text, signInPath: "/code" }, "/policies");
  return { host, name, signInPath, account, router: routes };
}

/** A code in six boxes on an address of its own; its script joins them, and sends them with the last digit. */
export function boxesSite({ host, name, signInPath, account, text }: Stepwise): Site {
  const waiting = new Sessions("ph_first");
  const sessions = new Sessions("ph");
  const routes = router();
  const used = new Set<string>();
  const form = (message: string) =>
    page(
      `${name}: sign in`,
      `<h1>Sign in to ${name}</h1>${message}<form method="post"><label>Email <input name="email" type="email"></label><label>Password <input name="password" type="password"></label><button>Sign in</button></form>`,
    );
  const boxes = Array.from(
    { length: 6 },
    (_, at) =>
      `<input class="digit" inputmode="numeric" maxlength="1" aria-label="Digit ${at + 1}" style="display:inline;width:2em">`,
  ).join("");
  const script = `const d=[...document.querySelectorAll(".digit")];d.forEach((e,i)=>e.addEventListener("input",async()=>{if(e.value&&d[i+1])d[i+1].focus();const code=d.map((x)=>x.value).join("");if(code.length<6)return;const r=await fetch("/api/verify",{method:"POST",headers:{"content-type":"application/json"},body:JSON.stringify({code})});if(r.ok)location.assign("/rooms");else{document.querySelector(".error").textContent="That code is not valid.";d.forEach((x)=>{x.value=""})}}))`;
  routes.get("/", (_request, response) => response.redirect(302, "/rooms"));
  routes.get(signInPath, (_request, response) => void response.send(form("")));
  routes.post(signInPath, (request, response) => {
    if (request.body.email !== account.userName || request.body.password !== account.password)
      return void response.send(form('<p class="error" role="alert">Wrong email or password.</p>'));
    waiting.start(response, { user: account.userName });
    response.redirect(303, "/verify");
  });
  routes.get("/verify", (request, response) => {
    if (!waiting.of(request)) return response.redirect(302, signInPath);
    response.send(
      page(
        `${name}: enter your code`,
        `<h1>Enter the 6-digit code</h1><p>It is in your authenticator app.</p><p class="error" role="alert"></p><div class="code">${boxes}</div><script>${script}</script>`,
      ),
    );
  });
  routes.post("/api/verify", (request, response) => {
    const user = waiting.of(request)?.user;
    const settings = { secret: account.code!, digits: 6, period: 30, algorithm: "SHA1" as const };
    const valid = [0, -30_000].map((shift) => codeAt(settings, Date.now() + shift).code);
    const code = String(request.body.code);
    if (!user || !valid.includes(code) || used.has(code)) return void response.status(403).json({ error: "invalid" });
    used.add(code);
    sessions.start(response, { user });
    response.json({ ok: true });
  });
  behindSignIn(routes, sessions, { name, text, signInPath: "/verify" }, "/rooms");
  return { host, name, signInPath, account, router: routes };
}
