import { readFileSync } from "node:fs";
import { answering } from "@/server/http";
import { lanyardPackage } from "@/server/lanyard/package";
import { notFound } from "@/server/refused";

export async function GET(request: Request): Promise<Response> {
  return answering(request, async () => {
    const found = lanyardPackage();
    if (!found) throw notFound();
    return new Response(new Uint8Array(readFileSync(found.file)), {
      headers: { "content-type": "application/zip", "content-disposition": 'attachment; filename="lanyard.zip"' },
    });
  });
}
