import { answering, json, runNamed } from "@/server/http";

export async function POST(request: Request, { params }: { params: Promise<{ name: string }> }): Promise<Response> {
  return answering(request, async () =>
    json({ ok: true, result: (await runNamed("query", (await params).name, request)).result }),
  );
}
