import { expect, test, vi } from "vitest";
import { Deadline } from "./deadline";

test("time that somebody is waited for does not count; the rest goes on after it", async () => {
  vi.useFakeTimers({ toFake: ["setTimeout", "clearTimeout", "performance"] });
  try {
    const deadline = new Deadline(1_000);
    await vi.advanceTimersByTimeAsync(600);
    const waited = deadline.standStill(() => new Promise((done) => setTimeout(done, 60_000)));
    await vi.advanceTimersByTimeAsync(60_000);
    await waited;
    expect(deadline.signal.aborted).toBe(false);
    await vi.advanceTimersByTimeAsync(390);
    expect(deadline.signal.aborted).toBe(false);
    await vi.advanceTimersByTimeAsync(20);
    expect(deadline.signal.aborted).toBe(true);
  } finally {
    vi.useRealTimers();
  }
});

test("it goes on also where nobody came, and not once it has ended", async () => {
  vi.useFakeTimers({ toFake: ["setTimeout", "clearTimeout", "performance"] });
  try {
    const deadline = new Deadline(1_000);
    await expect(deadline.standStill(() => Promise.reject(new Error("nobody")))).rejects.toThrow("nobody");
    await vi.advanceTimersByTimeAsync(1_010);
    expect(deadline.signal.aborted).toBe(true);
    const other = new Deadline(1_000);
    other.end();
    await vi.advanceTimersByTimeAsync(2_000);
    expect(other.signal.aborted).toBe(false);
  } finally {
    vi.useRealTimers();
  }
});
