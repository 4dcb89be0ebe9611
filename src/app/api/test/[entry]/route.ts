import { answeringSlowly, json, visitor } from "@/server/http";
import { testEntry } from "@/server/signin/testing";

/** Tests one entry at its site, once. It waits for the site, and so is no command of its own: two stand around it. */
export async function POST(request: Request, { params }: { params: Promise<{ entry: string }> }): Promise<Response> {
  return answeringSlowly(request, async () => {
    const { entry } = await params;
    const { app, caller, seenAs } = await visitor(request);
    const result = await testEntry(app, caller, seenAs, entry, request.signal);
    return json({ ok: true, result });
  });
}
