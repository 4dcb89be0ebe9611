import { answering, pageCaller } from "@/server/http";
import { Refused } from "@/server/refused";
import { testPicture } from "@/server/signin/testing";

/** How the last page of an entry's last test looked. */
export async function GET(request: Request, { params }: { params: Promise<{ entry: string }> }): Promise<Response> {
  return answering(request, async () => {
    const { entry } = await params;
    const { app, caller } = await pageCaller(request);
    if (caller.kind !== "person") throw new Refused("signed-out", "Sign in first.");
    const picture = await testPicture.execute(app, { entryId: entry }, caller);
    return new Response(Buffer.from(picture), {
      headers: {
        "content-type": "image/jpeg",
        "cache-control": "no-store",
        "x-content-type-options": "nosniff",
        "content-security-policy": "default-src 'none'",
        "cross-origin-resource-policy": "same-origin",
      },
    });
  });
}
