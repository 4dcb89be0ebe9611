import { answering, pageCaller } from "@/server/http";
import { entryPicture } from "@/server/vaults/pictures";

/** The picture of an entry, as the PNG that Galtry drew. Its address changes with it, so that it may be kept. */
export async function GET(request: Request, { params }: { params: Promise<{ entry: string }> }): Promise<Response> {
  return answering(async () => {
    const { entry } = await params;
    const { house, caller } = await pageCaller(request);
    const png = await entryPicture.execute(house, { entryId: entry }, caller);
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
