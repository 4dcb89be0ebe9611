/** Which Chromium the server starts, and as whom: found out once, at start. */
import { accessSync, constants, readFileSync } from "node:fs";
import { getuid } from "node:process";
import { StartError } from "../../startError";
import type { BrowserProgram } from "./chromium";

/**
 * @param path of Chromium
 * @param user by name: the user it runs as where Galtry is root, so that a page that breaks out is nobody
 * @throws StartError that says in one line why it cannot be used
 */
export function browserProgram(path: string, user: string): BrowserProgram {
  try {
    accessSync(path, constants.X_OK);
  } catch {
    throw new StartError(`GALTRY_SIGN_IN_BROWSER: there is no program ${path} that may be started.`);
  }
  if (getuid?.() !== 0) return { path, user: null };
  const line = readFileSync("/etc/passwd", "utf8")
    .split("\n")
    .map((one) => one.split(":"))
    .find(([name]) => name === user);
  const [uid, gid] = [Number(line?.[2]), Number(line?.[3])];
  if (!line || !Number.isInteger(uid) || uid === 0)
    throw new StartError(
      `GALTRY_SIGN_IN_BROWSER_USER: there is no ordinary user called ${user}. Galtry never runs Chromium as root.`,
    );
  try {
    accessSync("/usr/bin/setpriv", constants.X_OK);
  } catch {
    throw new StartError(
      "GALTRY_SIGN_IN_BROWSER: Galtry runs as root and needs setpriv (util-linux) to start Chromium as another user.",
    );
  }
  return { path, user: { uid, gid } };
}
