/** Sites whose password can be changed, each in an awkward way of its own. */
import { codeAt } from "../../src/core/signin/code";
import { behindSignIn, page, router, Sessions, type Site } from "./site";

export type ChangeWay =
  /** The current password is wanted, the new one twice. */
  | "ordinary"
  /** Whoever is signed in need not say the current one. */
  | "current-not-wanted"
  /** Behind two links, and no well-known address. */
  | "behind-links"
  /** Its rules stand in no attribute, and are told once they are broken. */
  | "rules-after-refusal"
  /** Who changed it has to sign in again. */
  | "signs-out"
  /** It says that it was changed, and goes on taking the old one. */
  | "lies"
  /** It takes the new one only after a while. */
  | "late"
  /** The form puts passwords into an address. */
  | "by-get"
  /** It asks for the password once more before it shows the page. */
  | "asks-again"
  /** It sends a letter with a link instead. */
  | "by-mail"
  /** The answer never comes, though the password is changed. */
  | "answer-lost"
  /** It takes whatever comes and says no. */
  | "refuses"
  /** It wants a code on a second page before the new one counts. */
  | "code-after"
  /** It sends a letter whose link makes the new one count. */
  | "mail-after";

export interface ChangingSite extends Site {
  /** What lets somebody in now. */
  password: () => string;
  /** A site that is late catches up. */
  catchUp: () => void;
  /** How often somebody tried to sign in, and with a password that was wrong. */
  tries: () => { all: number; wrong: number };
}

const error = (text: string) => (text ? `<p class="error" role="alert">${text}</p>` : "");

export function changingSite(
  way: ChangeWay,
  { host, name, account }: Pick<Site, "host" | "name" | "account">,
): ChangingSite {
  const sessions = new Sessions("desk");
  const again = new Set<string>();
  const routes = router();
  const signInPath = "/enter";
  let password = account.password;
  let next: string | null = null;
  const tries = { all: 0, wrong: 0 };
  const signInForm = (wrong = "") =>
    page(
      `Sign in to ${name}`,
      `<h1>${name}</h1>${error(wrong)}<form method="post" action="${signInPath}"><label>User name <input name="user" autocomplete="username"></label><label>Password <input name="pass" type="password" autocomplete="current-password"></label><button>Sign in</button></form>`,
    );
  routes.get(signInPath, (_request, response) => void response.send(signInForm()));
  routes.post(signInPath, (request, response) => {
    tries.all += 1;
    if (request.body.user !== account.userName || request.body.pass !== password) {
      tries.wrong += 1;
      return void response.send(signInForm("That user name or password is wrong."));
    }
    sessions.start(response, { user: account.userName });
    response.redirect(303, "/desk");
  });
  const place = way === "behind-links" ? "/me/secrets/new" : "/settings/password";
  if (way !== "behind-links")
    routes.get("/.well-known/change-password", (_request, response) => response.redirect(302, place));
  routes.get("/me", (_request, response) => {
    response.send(page("My account", `<h1>My account</h1><p><a href="${place}">Change password</a></p>`));
  });
  const current =
    way === "current-not-wanted"
      ? ""
      : '<label>Current password <input type="password" name="old" autocomplete="current-password"></label>';
  const changeForm = (wrong = "") =>
    page(
      "Change password",
      way === "by-mail"
        ? `<h1>Change password</h1><p>We send you a link.</p><form method="post"><button>Send the link</button></form>`
        : `<h1>Change password</h1>${error(wrong)}<form method="${way === "by-get" ? "get" : "post"}" action="${place}">${current}<label>New password <input type="password" name="new" autocomplete="new-password"></label><label>Repeat the new password <input type="password" name="repeat" autocomplete="new-password"></label><button>Change password</button></form>`,
    );
  const codeForm = (wrong = "") =>
    page(
      "Security check",
      `<h1>Security check</h1>${error(wrong)}<form method="post" action="/settings/code"><label>Code from your app <input name="code" inputmode="numeric" autocomplete="one-time-code"></label><button>Confirm</button></form>`,
    );
  routes.get(place, (request, response) => {
    const user = sessions.of(request)?.user;
    if (!user) return response.redirect(302, signInPath);
    if (way === "asks-again" && !again.has(user))
      return void response.send(
        page(
          "Confirm",
          `<h1>Confirm that it is you</h1><form method="post" action="/confirm"><label>Your password <input type="password" name="pass" autocomplete="current-password"></label><button>Continue</button></form>`,
        ),
      );
    response.send(changeForm());
  });
  routes.post("/settings/code", (request, response) => {
    const settings = { secret: account.code ?? "", digits: 6, period: 30, algorithm: "SHA1" as const };
    const valid = account.code ? [0, -30_000].map((shift) => codeAt(settings, Date.now() + shift).code) : [];
    if (!sessions.of(request)) return response.redirect(303, signInPath);
    if (!valid.includes(request.body.code)) return void response.send(codeForm("That code is wrong."));
    password = next ?? password;
    response.redirect(303, "/desk");
  });
  routes.post("/confirm", (request, response) => {
    const user = sessions.of(request)?.user;
    if (!user || request.body.pass !== password) return response.redirect(303, signInPath);
    again.add(user);
    response.redirect(303, place);
  });
  routes.post(place, (request, response) => {
    const user = sessions.of(request)?.user;
    if (!user) return response.redirect(303, signInPath);
    const { old, new: fresh = "", repeat } = request.body as Record<string, string>;
    if (way !== "current-not-wanted" && old !== password)
      return void response.send(changeForm("The current password is wrong."));
    if (fresh !== repeat) return void response.send(changeForm("The two do not match."));
    if (way === "refuses") return void response.send(changeForm("This password is invalid."));
    if (way === "rules-after-refusal" && /[^A-Za-z0-9]/.test(fresh))
      return void response.send(changeForm("Invalid: letters and numbers only, at most 16 characters."));
    if (way === "code-after") {
      next = fresh;
      return void response.send(codeForm());
    }
    if (way === "mail-after") {
      next = fresh;
      return void response.send(
        page("Check your inbox", "<h1>Nearly done</h1><p>We have sent you an email. Follow its link to confirm.</p>"),
      );
    }
    if (way === "late") next = fresh;
    else if (way !== "lies") password = fresh;
    if (way === "answer-lost") return void request.socket.destroy();
    if (way === "signs-out") {
      response.clearCookie("desk");
      return void response.send(
        page("Changed", `<h1>Your password was changed</h1><p><a href="${signInPath}">Sign in again</a></p>`),
      );
    }
    response.redirect(303, "/desk");
  });
  const links = way === "behind-links" ? '<nav><a href="/orders">Orders</a> <a href="/me">My account</a></nav>' : "";
  behindSignIn(routes, sessions, { name, text: `Nothing is due today.${links}`, signInPath }, "/desk");
  return {
    ...{ host, name, signInPath, account, router: routes },
    password: () => password,
    catchUp: () => {
      password = next ?? password;
    },
    tries: () => ({ ...tries }),
  };
}
