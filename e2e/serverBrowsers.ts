/** Browsers of the server's own that run, and profiles that lie about. */
import { execFileSync } from "node:child_process";
import { readdirSync } from "node:fs";
import { tmpdir } from "node:os";

export const left = () => ({
  processes: execFileSync("ps", ["-eo", "args"])
    .toString()
    .split("\n")
    .filter((line) => /galtry-sign-in-/.test(line)).length,
  profiles: readdirSync(tmpdir()).filter((name) => name.startsWith("galtry-sign-in-")).length,
});
