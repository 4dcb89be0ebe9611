import { z } from "zod";
import { answeringSlowly, json, visitor } from "@/server/http";
import { Refused } from "@/server/refused";
import { changePasswordOf, tryNewPassword } from "@/server/signin/changePassword";

/** `try`: only signs in with the new password of a change that left it open which one works. */
const asked = z.union([
  z.strictObject({ what: z.literal("change"), page: z.string().max(2000) }),
  z.strictObject({ what: z.literal("try") }),
]);

/** Changes the password of one entry at its site. It waits for the site, and so is no command of its own. */
export async function POST(request: Request, { params }: { params: Promise<{ entry: string }> }): Promise<Response> {
  return answeringSlowly(request, async () => {
    const { entry } = await params;
    const { app, caller, seenAs } = await visitor(request);
    const body = asked.safeParse(await request.json().catch(() => null));
    if (!body.success) throw new Refused("bad-input", "This request cannot be read.");
    // Once begun it is brought to its end, also for someone who has closed the page.
    const { signal } = new AbortController();
    const result =
      body.data.what === "change"
        ? await changePasswordOf(app, caller, seenAs, entry, signal, body.data.page.trim())
        : await tryNewPassword(app, caller, seenAs, entry, signal);
    return json({ ok: true, result });
  });
}
