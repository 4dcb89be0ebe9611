import { answering, pageCaller } from "@/server/http";
import { pictureOf } from "@/server/vaults/pictures";

/** The picture of an entry, a vault or a kind, as the PNG that Galtry drew. Its address changes with it, so that it may be kept. */
export async function GET(request: Request, { params }: { params: Promise<{ id: string }> }): Promise<Response> {
  return answering(request, async () => {
    const { id } = await params;
    const { app, caller } = await pageCaller(request);
    const png = await pictureOf.execute(app, { id }, caller);
    return new Response(new Uint8Array(png), {
      headers: {
        "content-type": "image/png",
        "cache-control": "private, max-age=86400",
        "x-content-type-options": "nosniff",
        "content-security-policy": "default-src 'none'",
      },
    });
  });
}
