import { afterEach, expect, test, vi } from "vitest";
import { post } from "./ask";

afterEach(() => vi.unstubAllGlobals());

test("only what is to be carried goes beyond its page, and only while it is small", async () => {
  const sent: RequestInit[] = [];
  vi.stubGlobal("fetch", async (_address: string, init: RequestInit) => {
    sent.push(init);
    return new Response(JSON.stringify({ ok: true, result: null }));
  });
  await post("/api/command/x", { some: "thing" });
  await post("/api/command/x", { some: "thing" }, true);
  await post("/api/command/x", { much: "x".repeat(70_000) }, true);
  // Browsers refuse a request when all that are carried together are too much: chunks of an import would be.
  expect(sent.map(({ keepalive }) => keepalive)).toEqual([false, true, false]);
});

test("no answer is a refusal in words", async () => {
  vi.stubGlobal("fetch", () => Promise.reject(new TypeError("offline")));
  expect(await post("/api/command/x", {})).toMatchObject({ ok: false, refused: { code: "offline" } });
});
