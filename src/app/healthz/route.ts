/** Whether this process lives: it answers. */
export const dynamic = "force-dynamic";

export const GET = () => new Response("alive\n", { headers: { "cache-control": "no-store" } });
