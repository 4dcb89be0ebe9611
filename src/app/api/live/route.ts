import { answering, pageCaller } from "@/server/http";
import { liveStream } from "@/server/live/stream";
import { shownNumber } from "@/server/opaqueNumber";
import { Refused } from "@/server/refused";

export const dynamic = "force-dynamic";

export async function GET(request: Request): Promise<Response> {
  return answering(request, async () => {
    const { app, caller } = await pageCaller(request);
    if (caller.kind !== "person") throw new Refused("signed-out", "Sign in first.");
    const { searchParams } = new URL(request.url);
    const last = request.headers.get("last-event-id");
    const seen = shownNumber(app.keys, "live", last ?? searchParams.get("seen") ?? "") ?? 0;
    const at = Number(searchParams.get("since") ?? 0);
    const since = { seen, at: Number.isFinite(at) ? at : 0 };
    const still = async () => (await pageCaller(request)).caller.kind === "person";
    const listener = { personId: caller.personId, owner: caller.sessionId ?? caller.personId };
    return liveStream(app, listener, since, request.signal, still);
  });
}
