import { readFileSync } from "node:fs";
import { answering } from "@/server/http";
import { lanyardBrowser, lanyardPackage } from "@/server/lanyard/package";
import { notFound } from "@/server/refused";

/** Firefox offers to install what has this type. */
const TYPES = { chromium: "application/zip", firefox: "application/x-xpinstall" };
const NAMES = { chromium: "lanyard.zip", firefox: "lanyard.xpi" };

export async function GET(request: Request): Promise<Response> {
  return answering(request, async () => {
    const asked = new URL(request.url).searchParams.get("for");
    const browser = lanyardBrowser(asked, request.headers.get("user-agent") ?? "");
    const found = lanyardPackage(browser);
    if (!found) throw notFound();
    return new Response(new Uint8Array(readFileSync(found.file)), {
      headers: {
        "content-type": TYPES[browser],
        "content-disposition": `attachment; filename="${NAMES[browser]}"`,
        vary: "User-Agent",
      },
    });
  });
}
