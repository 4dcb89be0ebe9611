/** A site at which people register, and change their password where the well-known address says. */
import { type Account, behindSignIn, page, router, Sessions, type Site } from "./site";

interface WithAccounts {
  host: string;
  name: string;
  signInPath: string;
  account: Account;
  text: string;
}

const LONG_ENOUGH = /^(?=.*\d)(?=.*[A-Z])[A-Za-z\d-]{12,24}$/;

/** Passwords have 12 to 24 characters, a capital letter and a digit, as its form says. */
export function accountSite({ host, name, signInPath, account, text }: WithAccounts): Site {
  const sessions = new Sessions("mb");
  const people = new Map([[account.userName, account.password]]);
  const routes = router();
  const says = (message: string) => (message ? `<p class="error" role="alert">${message}</p>` : "");
  const signIn = (message: string) =>
    page(
      `${name}: sign in`,
      `<h1>Sign in to ${name}</h1>${says(message)}<form method="post"><label>Email <input name="email" type="email" autocomplete="username"></label><label>Password <input name="password" type="password" autocomplete="current-password"></label><button>Sign in</button></form><p><a href="/join">Create an account</a></p>`,
    );
  const join = (message: string) =>
    page(
      `${name}: create an account`,
      `<h1>Create an account</h1>${says(message)}<form method="post"><label>Your name <input name="name"></label><label>Email <input name="email" type="email"></label><label>Password <input name="password" type="password" autocomplete="new-password"></label><p>12 to 24 characters, with a capital letter and a digit.</p><label>Confirm password <input name="again" type="password" autocomplete="new-password"></label><button>Create account</button></form>`,
    );
  const change = (message: string) =>
    page(
      `${name}: change your password`,
      `<h1>Change your password</h1>${says(message)}<form method="post"><label>Current password <input name="current" type="password" autocomplete="current-password"></label><label>New password <input name="fresh" type="password" autocomplete="new-password" passwordrules="minlength: 12; maxlength: 24; required: upper; required: digit; allowed: lower"></label><label>Confirm password <input name="again" type="password" autocomplete="new-password"></label><button>Change password</button></form>`,
    );
  routes.get("/", (_request, response) => response.redirect(302, "/desk"));
  routes.get(signInPath, (_request, response) => void response.send(signIn("")));
  routes.post(signInPath, (request, response) => {
    const { email, password } = request.body as Record<string, string>;
    if (!email || people.get(email) !== password) return void response.send(signIn("Wrong email or password."));
    sessions.start(response, { user: email });
    response.redirect(303, "/desk");
  });
  routes.get("/join", (_request, response) => void response.send(join("")));
  routes.post("/join", (request, response) => {
    const { email = "", password = "", again } = request.body as Record<string, string>;
    if (email === "" || !LONG_ENOUGH.test(password) || password !== again)
      return void response.send(join("Enter an email address, and twice a password as described."));
    people.set(email, password);
    sessions.start(response, { user: email });
    response.redirect(303, "/desk");
  });
  routes.get("/.well-known/change-password", (_request, response) => response.redirect(302, "/settings/password"));
  routes.get("/settings/password", (request, response) => {
    if (!sessions.of(request)) return response.redirect(302, signInPath);
    response.send(change(""));
  });
  routes.post("/settings/password", (request, response) => {
    const user = sessions.of(request)?.user;
    if (!user) return response.redirect(303, signInPath);
    const { current, fresh = "", again } = request.body as Record<string, string>;
    if (people.get(user) !== current || !LONG_ENOUGH.test(fresh) || fresh !== again)
      return void response.send(change("The current password is wrong, or the new one is not as described."));
    people.set(user, fresh);
    response.redirect(303, "/desk");
  });
  behindSignIn(routes, sessions, { name, text, signInPath }, "/desk");
  return { host, name, signInPath, account, router: routes };
}
