import type { Galtry } from "@/server/galtry";
import { answering, browserCookie, json, runNamed, sessionCookie, setCookie } from "@/server/http";
import { SESSION_LONGEST_MS } from "@/server/people/sessions";

/** What signs somebody in; a token that any other command makes is for its reader. */
const SIGNS_IN: ReadonlySet<string> = new Set([
  "people.setUp",
  "people.acceptLink",
  "people.acceptLinkWithPasskey",
  "people.signIn",
  "people.signInWithPasskey",
  "people.finishDeviceSignIn",
  "people.finishSignIn",
]);

/** Tokens that a command makes for the browser go into cookies and never into the answer's text. */
function withCookies(app: Galtry, name: string, result: unknown): Response {
  if (name === "people.signOut")
    return json({ ok: true, result: null }, 200, [["set-cookie", setCookie(app, sessionCookie(app), "", 0)]]);
  if (!SIGNS_IN.has(name) || typeof result !== "object" || result === null || !("token" in result))
    return json({ ok: true, result: result ?? null });
  const { token, browserToken, ...rest } = result as { token: string; browserToken?: string };
  const cookies: [string, string][] = [
    ["set-cookie", setCookie(app, sessionCookie(app), token, SESSION_LONGEST_MS / 1000)],
  ];
  if (browserToken) cookies.push(["set-cookie", setCookie(app, browserCookie(app), browserToken, 400 * 24 * 3600)]);
  return json({ ok: true, result: rest }, 200, cookies);
}

export async function POST(request: Request, { params }: { params: Promise<{ name: string }> }): Promise<Response> {
  return answering(request, async () => {
    const { name } = await params;
    const { app, result } = await runNamed("command", name, request);
    return withCookies(app, name, result);
  });
}
