/** Files of tests share their process: what one has put in another's place goes back when it is done. */
import { afterAll, vi } from "vitest";

afterAll(() => {
  vi.useRealTimers();
  vi.unstubAllGlobals();
  vi.unstubAllEnvs();
  vi.restoreAllMocks();
});
