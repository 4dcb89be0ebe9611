/** Sites with forms: plain, with hidden tokens, user name first, with codes, with a branch, old and crowded. */

import { randomBytes } from "node:crypto";
import iconv from "iconv-lite";
import { codeAt } from "../../src/core/signin/code";
import type { KeptPassword } from "../passwords";
import { type Account, behindSignIn, cookieOf, inside, page, router, Sessions, type Site } from "./site";

interface Plain {
  host: string;
  name: string;
  signInPath: string;
  account: Account;
  text: string;
}

/** The simplest: one form, one post, one cookie; and a page behind two links where the password is changed. */
export function plainSite({ host, name, signInPath, account, text }: Plain, password: KeptPassword): Site {
  const sessions = new Sessions("visit");
  const routes = router();
  const form = (wrong: boolean) =>
    page(
      `Sign in to ${name}`,
      `<h1>${name}</h1>${wrong ? '<p class="error" role="alert">That user name or password is not right.</p>' : ""}<form method="post" action="${signInPath}"><label for="u">E-mail</label><input id="u" name="email" type="email" autocomplete="username"><label for="p">Password</label><input id="p" name="password" type="password" autocomplete="current-password"><button>Sign in</button></form><p><a href="/forgotten">Forgotten your password?</a></p>`,
    );
  routes.get("/", (request, response) => {
    response.send(
      sessions.of(request)
        ? inside(name, sessions.of(request)!.user!, text)
        : page(name, `<h1>${name}</h1><p><a href="${signInPath}">Sign in</a></p>`),
    );
  });
  routes.get(signInPath, (_request, response) => {
    response.send(form(false));
  });
  routes.post(signInPath, (request, response) => {
    if (request.body.email !== account.userName || request.body.password !== password.now())
      return void response.send(form(true));
    sessions.start(response, { user: account.userName });
    response.redirect(303, "/today");
  });
  const change = (says: string) =>
    page(
      `${name}: change your password`,
      `<h1>Change your password</h1>${says ? `<p class="error" role="alert">${says}</p>` : ""}<form method="post"><label for="o">Current password</label><input id="o" name="old" type="password" autocomplete="current-password"><label for="n">New password</label><input id="n" name="fresh" type="password" autocomplete="new-password" minlength="10"><label for="a">New password again</label><input id="a" name="again" type="password" autocomplete="new-password" minlength="10"><button>Change password</button></form>`,
    );
  routes.get("/account", (request, response) => {
    if (!sessions.of(request)) return response.redirect(302, signInPath);
    response.send(
      page(`${name}: account`, '<h1>Your account</h1><p><a href="/account/password">Change password</a></p>'),
    );
  });
  routes.get("/account/password", (request, response) => {
    if (!sessions.of(request)) return response.redirect(302, signInPath);
    response.send(change(""));
  });
  routes.post("/account/password", (request, response) => {
    if (!sessions.of(request)) return response.redirect(303, signInPath);
    const { old, fresh = "", again } = request.body as Record<string, string>;
    if (old !== password.now()) return void response.send(change("The current password is wrong."));
    if (fresh.length < 10 || fresh !== again)
      return void response.send(change("Enter a new password of at least 10 characters twice."));
    password.change(fresh);
    response.send(
      page(`${name}: account`, '<h1>Your account</h1><p role="status">Your password has been changed.</p>'),
    );
  });
  const links = `${text}</p><p><a href="/account">Your account</a>`;
  behindSignIn(routes, sessions, { name, text: links, signInPath }, "/today");
  return { host, name, signInPath, account, router: routes };
}

/** A hidden token bound to a cookie given before signing in; either missing is refused. */
export function tokenSite({ host, name, signInPath, account, text }: Plain): Site {
  const sessions = new Sessions("desk_session");
  const tokens = new Map<string, string>();
  const routes = router();
  const form = (response: Parameters<Sessions["start"]>[0], wrong: string | null) => {
    const before = randomBytes(12).toString("hex");
    const token = randomBytes(16).toString("base64url");
    tokens.set(before, token);
    response.append("set-cookie", `desk_before=${before}; Path=/; HttpOnly; SameSite=Lax`);
    response.send(
      page(
        `${name}: sign in`,
        `<h1>${name}</h1>${wrong ? `<p class="error" role="alert">${wrong}</p>` : ""}<form method="post" action="sign-in/check"><input type="hidden" name="form_token" value="${token}"><input type="hidden" name="area" value="box-office"><label for="mail">E-mail</label><input id="mail" name="mail" type="email"><label for="secret">Password</label><input id="secret" name="secret" type="password"><button type="submit" name="go" value="in">Sign in</button></form>`,
      ),
    );
  };
  routes.get("/", (request, response) => {
    response.redirect(302, sessions.of(request) ? "/box-office/today" : signInPath);
  });
  routes.get(signInPath, (_request, response) => form(response, null));
  routes.post(`${signInPath}/check`, (request, response) => {
    const before = cookieOf(request, "desk_before") ?? "";
    if (
      !tokens.has(before) ||
      tokens.get(before) !== request.body.form_token ||
      request.body.area !== "box-office" ||
      request.body.go !== "in"
    )
      return void response.status(400).send(page(name, "<p>This form is too old. Start again.</p>"));
    tokens.delete(before);
    if (request.body.mail !== account.userName || request.body.secret !== account.password)
      return form(response, "E-mail or password is wrong.");
    sessions.start(response, { user: account.userName });
    response.redirect(302, "/box-office/today");
  });
  behindSignIn(routes, sessions, { name, text, signInPath }, "/box-office/today");
  return { host, name, signInPath, account, router: routes };
}

/** User name on one page, password on the next. */
export function userNameFirstSite({ host, name, signInPath, account, text }: Plain): Site {
  const sessions = new Sessions("sw");
  const steps = new Sessions("sw_step");
  const routes = router();
  const first = (wrong: boolean) =>
    page(
      `${name} log in`,
      `<h1>Log in</h1>${wrong ? '<p class="error">We do not know this customer number.</p>' : ""}<form method="post" action="/account/identify"><label>Customer number <input name="customer" autocomplete="username"></label><button>Next</button></form>`,
    );
  const second = (who: string, wrong: boolean) =>
    page(
      `${name} log in`,
      `<h1>Welcome back</h1><p>${who}</p>${wrong ? '<p class="error">Incorrect password.</p>' : ""}<form method="post" action="/account/password"><label>Password <input type="password" name="pw" autocomplete="current-password"></label><button>Log in</button></form>`,
    );
  routes.get("/", (request, response) => {
    response.redirect(302, sessions.of(request) ? "/orders" : signInPath);
  });
  routes.get(signInPath, (_request, response) => {
    response.send(first(false));
  });
  routes.post("/account/identify", (request, response) => {
    if (request.body.customer !== account.userName) return void response.send(first(true));
    steps.start(response, { user: account.userName });
    response.redirect(303, "/account/password");
  });
  routes.get("/account/password", (request, response) => {
    const step = steps.of(request);
    if (!step) return response.redirect(302, signInPath);
    response.send(second(step.user!, false));
  });
  routes.post("/account/password", (request, response) => {
    const step = steps.of(request);
    if (!step) return response.redirect(302, signInPath);
    if (request.body.pw !== account.password) return void response.send(second(step.user!, true));
    sessions.start(response, { user: step.user! });
    response.redirect(303, "/orders");
  });
  behindSignIn(routes, sessions, { name, text, signInPath }, "/orders");
  return { host, name, signInPath, account, router: routes };
}

/** A code after the password; each code works once. */
export function codeSite({ host, name, signInPath, account, text }: Plain): Site {
  const sessions = new Sessions("qb");
  const halfway = new Sessions("qb_half");
  const used = new Set<string>();
  const routes = router();
  const form = (wrong: boolean) =>
    page(
      `${name} sign in`,
      `<h1>${name}</h1>${wrong ? '<p class="error">Wrong user name or password.</p>' : ""}<form method="post"><label>User name <input name="user" autocomplete="username"></label><label>Password <input name="pass" type="password"></label><input type="submit" value="Sign in"></form>`,
    );
  const codeForm = (wrong: boolean) =>
    page(
      `${name} second step`,
      `<h1>Second step</h1>${wrong ? '<p class="error">This code is not valid.</p>' : ""}<form method="post" action="/second"><label>Code from your app <input name="otp" inputmode="numeric" autocomplete="one-time-code" maxlength="6"></label><button>Verify</button></form>`,
    );
  routes.get("/", (request, response) => {
    response.redirect(302, sessions.of(request) ? "/parcels" : signInPath);
  });
  routes.get(signInPath, (_request, response) => {
    response.send(form(false));
  });
  routes.post(signInPath, (request, response) => {
    if (request.body.user !== account.userName || request.body.pass !== account.password)
      return void response.send(form(true));
    halfway.start(response, { user: account.userName });
    response.redirect(302, "/second");
  });
  routes.get("/second", (_request, response) => {
    response.send(codeForm(false));
  });
  routes.post("/second", (request, response) => {
    const half = halfway.of(request);
    if (!half) return response.redirect(302, signInPath);
    const settings = { secret: account.code!, digits: 6, period: 30, algorithm: "SHA1" as const };
    const valid = [0, -30_000].map((shift) => codeAt(settings, Date.now() + shift).code);
    if (!valid.includes(request.body.otp) || used.has(request.body.otp)) return void response.send(codeForm(true));
    used.add(request.body.otp);
    sessions.start(response, { user: half.user! });
    response.redirect(302, "/parcels");
  });
  behindSignIn(routes, sessions, { name, text, signInPath }, "/parcels");
  return { host, name, signInPath, account, router: routes };
}

/** A branch has to be chosen, or nobody gets in. */
export function branchSite({ host, name, signInPath, account, text }: Plain): Site {
  const sessions = new Sessions("branch_session");
  const routes = router();
  const form = (wrong: string) =>
    page(
      `${name}`,
      `<h1>${name}: for groups</h1>${wrong ? `<p class="error">${wrong}</p>` : ""}<form method="post"><label>Branch <select name="branch" required><option value="">Choose</option><option value="north">North</option><option value="harbour">Harbour</option></select></label><label>Login <input name="login"></label><label>Password <input name="password" type="password"></label><button>Log in</button></form>`,
    );
  routes.get("/", (request, response) => {
    response.redirect(302, sessions.of(request) ? "/trips" : signInPath);
  });
  routes.get(signInPath, (_request, response) => {
    response.send(form(""));
  });
  routes.post(signInPath, (request, response) => {
    if (request.body.branch !== "harbour") return void response.send(form("You are not known at this branch."));
    if (request.body.login !== account.userName || request.body.password !== account.password)
      return void response.send(form("Invalid login or password."));
    sessions.start(response, { user: account.userName });
    response.redirect(303, "/trips");
  });
  behindSignIn(routes, sessions, { name, text, signInPath }, "/trips");
  return { host, name, signInPath, account, router: routes };
}

/** An old page: windows-1252, a table, no labels, a base address, a frame of hidden fields. */
export function legacySite({ host, name, signInPath, account, text }: Plain): Site {
  const sessions = new Sessions("ASPVISIT");
  const routes = router();
  const send = (response: Parameters<Sessions["start"]>[0], html: string) =>
    response.type("text/html; charset=windows-1252").send(iconv.encode(html, "windows-1252"));
  const form = (wrong: boolean) =>
    `<html><head><title>${name} – Kundenbereich</title><base href="/shop/"></head><body bgcolor="#ffffff"><h2>${name}</h2>${wrong ? "<font color=red>Falsches Kennwort</font>" : ""}<form name="f1" method="POST" action="anmelden.asp"><input type="hidden" name="ziel" value="übersicht"><table><tr><td>Benutzername:</td><td><input type="text" name="T1" size="20"></td></tr><tr><td>Kennwort:</td><td><input type="password" name="T2" size="20"></td></tr><tr><td></td><td><input type="submit" name="B1" value="Anmelden"></td></tr></table></form></body></html>`;
  // The body arrives in the page's own charset.
  const raw = (body: Buffer) =>
    Object.fromEntries(
      body
        .toString("latin1")
        .split("&")
        .map((pair) =>
          pair
            .split("=")
            .map((part) => iconv.decode(Buffer.from(unescape(part.replaceAll("+", " ")), "latin1"), "windows-1252")),
        ),
    );
  routes.get("/", (request, response) => {
    response.redirect(302, sessions.of(request) ? "/shop/uebersicht.asp" : signInPath);
  });
  routes.get(signInPath, (_request, response) => {
    send(response, form(false));
  });
  routes.post("/shop/anmelden.asp", (request, response) => {
    const fields = raw((request as typeof request & { rawBody: Buffer }).rawBody);
    if (
      fields.T1 !== account.userName ||
      fields.T2 !== account.password ||
      fields.ziel !== "übersicht" ||
      fields.B1 !== "Anmelden"
    )
      return void send(response, form(true));
    sessions.start(response, { user: account.userName }, "Path=/");
    send(
      response,
      `<html><head><meta http-equiv="refresh" content="0;url=/shop/uebersicht.asp"></head><body>Einen Moment</body></html>`,
    );
  });
  behindSignIn(routes, sessions, { name, text, signInPath }, "/shop/uebersicht.asp");
  return { host, name, signInPath, account, router: routes };
}

/** Newsletter, register and sign-in on one page; the wrong form subscribes one to something. */
export function crowdedSite({ host, name, signInPath, account, text }: Plain): Site {
  const sessions = new Sessions("crowd");
  const routes = router();
  const form = (wrong: boolean) =>
    page(
      name,
      `<form action="/search"><input name="q" placeholder="Search"><button>Search</button></form><h1>${name}</h1><section><h2>New here?</h2><form method="post" action="/register"><label>Your e-mail <input name="email" type="email"></label><label>Choose a password <input name="password" type="password" autocomplete="new-password"></label><label>Repeat it <input name="password2" type="password"></label><button>Create account</button></form></section><section><h2>Members</h2>${wrong ? '<p class="error">Sign-in failed.</p>' : ""}<form method="post" action="/members"><label>E-mail <input name="email" type="email"></label><label>Password <input name="password" type="password"></label><button>Sign in</button></form></section><footer><form method="post" action="/news"><label>Our newsletter <input name="email" type="email"></label><button>Subscribe</button></form></footer>`,
    );
  routes.get("/", (request, response) => {
    response.redirect(302, sessions.of(request) ? "/table" : signInPath);
  });
  routes.get(signInPath, (_request, response) => {
    response.send(form(false));
  });
  routes.post("/members", (request, response) => {
    if (request.body.email !== account.userName || request.body.password !== account.password)
      return void response.send(form(true));
    sessions.start(response, { user: account.userName });
    response.redirect(303, "/table");
  });
  behindSignIn(routes, sessions, { name, text, signInPath }, "/table");
  return { host, name, signInPath, account, router: routes };
}
