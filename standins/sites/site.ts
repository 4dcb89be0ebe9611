/** What the practice sites share: accounts, sessions, pages. Every company here is made up. */
import { randomBytes } from "node:crypto";
import express, { type Request, type Response, type Router } from "express";

export interface Account {
  userName: string;
  password: string;
  /** Base32 secret of its one-time code. */
  code?: string;
}

export interface Site {
  host: string;
  name: string;
  /** Where one signs in. */
  signInPath: string;
  account: Account;
  router: Router;
}

export const page = (title: string, body: string, head = ""): string =>
  `<!doctype html><html lang="en"><head><meta charset="utf-8"><title>${title}</title><style>body{font:16px/24px Georgia,serif;margin:40px;color:#2b2b33;max-width:640px}input,select,button{font:inherit;padding:4px 8px;margin:2px 0 10px;display:block}nav a{margin-right:12px}.error{color:#a00}</style>${head}</head><body>${body}</body></html>`;

/** Sessions in memory, by a cookie of the site's own. */
export class Sessions {
  readonly #open = new Map<string, Record<string, string>>();
  constructor(private readonly cookie: string) {}

  of(request: Request): Record<string, string> | null {
    return this.#open.get(cookieOf(request, this.cookie) ?? "") ?? null;
  }

  start(response: Response, data: Record<string, string>, attributes = "Path=/; HttpOnly; SameSite=Lax"): string {
    const id = randomBytes(18).toString("base64url");
    this.#open.set(id, data);
    response.append("set-cookie", `${this.cookie}=${id}; ${attributes}`);
    return id;
  }

  end(request: Request): void {
    this.#open.delete(cookieOf(request, this.cookie) ?? "");
  }
}

export function cookieOf(request: Request, name: string): string | undefined {
  for (const pair of (request.headers.cookie ?? "").split(";")) {
    const at = pair.indexOf("=");
    if (pair.slice(0, at).trim() === name) return pair.slice(at + 1).trim();
  }
  return undefined;
}

export const router = (): Router => {
  const made = express.Router();
  made.use(express.urlencoded({ extended: false }), express.json());
  return made;
};

/** The page inside, with a way out. */
export function inside(site: string, who: string, text: string): string {
  return page(
    `${site}: today`,
    `<nav><a href="/">${site}</a><a href="/sign-out">Sign out</a></nav><h1>Today at ${site}</h1><p>Signed in as <b>${who.replace(/[<&]/g, "")}</b>.</p><p>${text}</p>`,
  );
}

/** What a session opens: the page inside, which sends others to the sign-in page, and the way out. */
export function behindSignIn(
  routes: Router,
  sessions: Sessions,
  { name, text, signInPath }: { name: string; text: string; signInPath: string },
  landing: string,
): void {
  routes.get(landing, (request, response) => {
    const session = sessions.of(request);
    if (!session) return response.redirect(302, signInPath);
    response.send(inside(name, session.user!, text));
  });
  routes.get("/sign-out", (request, response) => {
    sessions.end(request);
    response.redirect(302, signInPath);
  });
}
