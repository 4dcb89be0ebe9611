import { describe, expect, test } from "vitest";
import { answeringSlowly, json } from "./http";
import { Refused } from "./refused";

const request = { headers: new Headers(), url: "http://localhost/api/test/1" };
const pause = (ms: number) => new Promise((done) => setTimeout(done, ms));

describe("an answer that takes its time", () => {
  test("begins at once, says now and then that it lives, and is read as the JSON it is", async () => {
    const response = answeringSlowly(
      request,
      async () => {
        await pause(120);
        return json({ ok: true, result: "signed in" });
      },
      20,
    );
    const reader = response.body!.getReader();
    const start = performance.now();
    const parts = [new TextDecoder().decode((await reader.read()).value)];
    expect(performance.now() - start).toBeLessThan(60);
    for (let part = await reader.read(); !part.done; part = await reader.read())
      parts.push(new TextDecoder().decode(part.value));
    expect(parts.length).toBeGreaterThan(3);
    expect(parts.slice(0, -1).every((part) => part.trim() === "")).toBe(true);
    expect(JSON.parse(parts.join(""))).toEqual({ ok: true, result: "signed in" });
  });

  test("a refusal is in the body", async () => {
    const refuse = () => Promise.reject(new Refused("not-found", "There is no such entry."));
    const response = answeringSlowly(request, refuse);
    expect(response.headers.get("cache-control")).toBe("no-store");
    expect(await response.json()).toMatchObject({ ok: false, refused: { code: "not-found" } });
  });

  test("whoever goes away leaves nothing running and nothing thrown", async () => {
    let finished = false;
    const response = answeringSlowly(
      request,
      async () => {
        await pause(60);
        finished = true;
        return json({ ok: true });
      },
      5,
    );
    await response.body!.cancel();
    await pause(90);
    expect(finished).toBe(true);
  });
});
