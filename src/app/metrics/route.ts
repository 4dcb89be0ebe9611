/** What Galtry has done, for whoever presents the operator's token; for anybody else there is nothing here. */
import { timingSafeEqual } from "node:crypto";
import { sha256, utf8 } from "@/core/crypto";
import { galtry } from "@/server/galtry";
import { answering } from "@/server/http";
import { metricsText } from "@/server/metrics";

export const dynamic = "force-dynamic";

export function GET(request: Request): Promise<Response> {
  return answering(request, async () => {
    const { metricsToken } = (await galtry()).configuration;
    const given = /^Bearer (.+)$/.exec(request.headers.get("authorization") ?? "")?.[1] ?? "";
    if (metricsToken === undefined || !timingSafeEqual(sha256(utf8(given)), sha256(utf8(metricsToken))))
      return new Response("Not found\n", { status: 404, headers: { "cache-control": "no-store" } });
    const { type, text } = await metricsText();
    return new Response(text, { headers: { "content-type": type, "cache-control": "no-store" } });
  });
}
