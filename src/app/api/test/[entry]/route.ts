import { answeringSlowly, json, pageCaller, requireOrigin } from "@/server/http";
import { Refused } from "@/server/refused";
import { testEntry } from "@/server/signin/testing";

/** Tests one entry at its site, once. It waits for the site, and so is no command of its own: two stand around it. */
export async function POST(request: Request, { params }: { params: Promise<{ entry: string }> }): Promise<Response> {
  return answeringSlowly(request, async () => {
    const { entry } = await params;
    const { app, caller } = await pageCaller(request);
    requireOrigin(request, app);
    if (caller.kind !== "person") throw new Refused("signed-out", "Sign in first.");
    const seenAs = {
      userAgent: request.headers.get("user-agent") ?? "",
      acceptLanguage: request.headers.get("accept-language") ?? "",
    };
    const result = await testEntry(app, caller, seenAs, entry, request.signal);
    return json({ ok: true, result });
  });
}
