/** Browsers that a process started for sealed sign-ins and that run, and their profiles that lie about. */
import { execFileSync } from "node:child_process";
import { readdirSync, readFileSync, readlinkSync } from "node:fs";
import { tmpdir } from "node:os";

/** @param owner id of the process: files of tests run beside each other */
export const left = (owner: number) => ({
  processes: execFileSync("ps", ["-eo", "args"])
    .toString()
    .split("\n")
    .filter((line) => line.includes(`galtry-sign-in-${owner}-`)).length,
  profiles: readdirSync(tmpdir()).filter((name) => name.startsWith(`galtry-sign-in-${owner}-`)).length,
});

const tried = <T>(read: () => T, otherwise: T): T => {
  try {
    return read();
  } catch {
    // The process has ended in the meantime.
    return otherwise;
  }
};

const withChildren = (pid: string): string[] => [
  pid,
  ...tried(() => readFileSync(`/proc/${pid}/task/${pid}/children`, "utf8"), "")
    .split(" ")
    .filter(Boolean)
    .flatMap(withChildren),
];

/** Where sockets of these browsers lead, as the kernel lists them: the protocol and the remote address (hexadecimal). */
export function spokenBy(owner: number): string[] {
  const mark = `galtry-sign-in-${owner}-`;
  const isOurs = (pid: string) => tried(() => readFileSync(`/proc/${pid}/cmdline`, "utf8"), "").includes(mark);
  const pids = new Set(
    readdirSync("/proc")
      .filter((name) => /^\d+$/.test(name) && isOurs(name))
      .flatMap(withChildren),
  );
  const sockets = new Set(
    [...pids].flatMap((pid) =>
      tried(() => readdirSync(`/proc/${pid}/fd`), []).flatMap(
        (fd) => /^socket:\[(\d+)\]$/.exec(tried(() => readlinkSync(`/proc/${pid}/fd/${fd}`), ""))?.[1] ?? [],
      ),
    ),
  );
  return ["tcp", "tcp6", "udp", "udp6"].flatMap((kind) =>
    readFileSync(`/proc/net/${kind}`, "utf8")
      .split("\n")
      .slice(1)
      .map((line) => line.trim().split(/\s+/))
      .filter((parts) => sockets.has(parts[9] ?? "") && !/^0+:0+$/.test(parts[2]!))
      .map((parts) => `${kind} ${parts[2]}`),
  );
}
