/** Browsers that a process started for sealed sign-ins and that run, and their profiles that lie about. */
import { execFileSync } from "node:child_process";
import { readdirSync } from "node:fs";
import { tmpdir } from "node:os";

/** @param owner id of the process: files of tests run beside each other */
export const left = (owner: number) => ({
  processes: execFileSync("ps", ["-eo", "args"])
    .toString()
    .split("\n")
    .filter((line) => line.includes(`galtry-sign-in-${owner}-`)).length,
  profiles: readdirSync(tmpdir()).filter((name) => name.startsWith(`galtry-sign-in-${owner}-`)).length,
});
