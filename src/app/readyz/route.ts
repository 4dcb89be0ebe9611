/** Whether this Galtry can serve people: its database answers. Says nothing else to anybody. */
import { ready } from "@/server/ready";

export const dynamic = "force-dynamic";

export async function GET(): Promise<Response> {
  const yes = await ready();
  return new Response(yes ? "ready\n" : "not ready\n", {
    status: yes ? 200 : 503,
    headers: { "cache-control": "no-store" },
  });
}
