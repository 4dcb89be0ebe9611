import { answering, json, readJson, visitor } from "@/server/http";
import { beginRun } from "@/server/signin/runs";

/** Begins a run: the sites are told of the browser in which somebody asked for it. */
export async function POST(request: Request): Promise<Response> {
  return answering(request, async () => {
    const { app, caller, seenAs } = await visitor(request);
    const input = (await readJson(request)) as object;
    const result = await beginRun.execute(
      app,
      { ...input, userAgent: seenAs.userAgent.slice(0, 500), language: seenAs.acceptLanguage.slice(0, 200) },
      caller,
    );
    return json({ ok: true, result });
  });
}
