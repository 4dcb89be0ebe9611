import { expect, test } from "vitest";
import { freePort } from "./freePort";

test("no port is given twice, however often the system names it", async () => {
  const ports = await Promise.all(Array.from({ length: 300 }, () => freePort()));
  expect(new Set(ports).size).toBe(ports.length);
});
