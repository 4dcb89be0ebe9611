/**
 * A Chromium of the server's own for one visit: a fresh profile, its own user and its sandbox, bounded in time and in
 * memory, and gone with all its processes and its profile afterwards, whatever happened to it or to Galtry.
 */
import {
  chmodSync,
  chownSync,
  existsSync,
  mkdirSync,
  mkdtempSync,
  readdirSync,
  readFileSync,
  rmSync,
  writeFileSync,
} from "node:fs";
import { tmpdir } from "node:os";
import path from "node:path";
import type { BrowserContext } from "playwright-core";

/** The program to start, and as whom. */
export interface BrowserProgram {
  path: string;
  /** Null where Galtry is no administrator of the machine: then it runs as Galtry does. */
  user: { uid: number; gid: number } | null;
}

export interface BrowserSettings {
  proxy: { port: number; secret: string };
  userAgent: string;
  acceptLanguage: string;
}

const PREFIX = "galtry-sign-in-";
/** Beyond every limit of a sign-in, and its wait for a code: what is left then the shell that watches it ends. */
const LONGEST_S = 220;
const MOST_MEMORY_MB = 700;
const LOOK_EVERY_MS = 500;

const FLAGS = [
  // No way out but the proxy: loopback goes through it too, and nothing resolves names or sends packets of its own.
  "--proxy-bypass-list=<-loopback>",
  "--host-resolver-rules=MAP * ~NOTFOUND, EXCLUDE 127.0.0.1",
  "--dns-prefetch-disable",
  "--disable-quic",
  "--force-webrtc-ip-handling-policy=disable_non_proxied_udp",
  "--webrtc-ip-handling-policy=disable_non_proxied_udp",
  "--disable-background-networking",
  "--disable-component-update",
  "--disable-sync",
  "--disable-breakpad",
  "--disable-crash-reporter",
  "--no-first-run",
  "--no-pings",
  "--disable-extensions",
  "--disable-remote-fonts",
  "--disable-gpu",
  "--disable-features=Translate,MediaRouter,OptimizationHints,InterestFeedContentSuggestions,PrefetchPrivacyChanges,AutofillServerCommunication",
  "--js-flags=--max-old-space-size=384",
];

/** It looks after no passwords of its own, and asks nobody whether one has leaked. */
const PREFERENCES = {
  credentials_enable_service: false,
  profile: { password_manager_enabled: false, password_manager_leak_detection: false },
};

export class ServerBrowser {
  #watch: ReturnType<typeof setInterval> | undefined;
  #ended = false;

  private constructor(
    readonly context: BrowserContext,
    private readonly folder: string,
  ) {
    const group = groupOf(folder);
    this.#watch = setInterval(() => {
      if (memoryOf(membersOf(group)) > MOST_MEMORY_MB) this.end();
    }, LOOK_EVERY_MS);
    this.#watch.unref();
  }

  /** @throws when it cannot be started; nothing is left of it then */
  static async start(program: BrowserProgram, settings: BrowserSettings): Promise<ServerBrowser> {
    const folder = mkdtempSync(path.join(tmpdir(), `${PREFIX}${process.pid}-`));
    try {
      // Loaded where a browser is started, and nowhere else.
      const { chromium } = await import("playwright-core");
      const profile = prepare(folder, program);
      const context = await chromium.launchPersistentContext(profile, {
        executablePath: path.join(folder, "run"),
        headless: true,
        chromiumSandbox: true,
        acceptDownloads: false,
        serviceWorkers: "block",
        // A page for people who sit before it; its certificates are looked at as theirs are.
        viewport: { width: 1280, height: 900 },
        ignoreHTTPSErrors: false,
        userAgent: settings.userAgent,
        locale: /^[a-z]{2,3}(-\w+)*/i.exec(settings.acceptLanguage)?.[0] ?? "en",
        extraHTTPHeaders: { "accept-language": settings.acceptLanguage },
        proxy: {
          server: `http://127.0.0.1:${settings.proxy.port}`,
          username: "galtry",
          password: settings.proxy.secret,
        },
        env: { HOME: profile, TMPDIR: profile, PATH: "/usr/local/bin:/usr/bin:/bin", LANG: "C.UTF-8" },
        args: FLAGS,
        timeout: 20_000,
      });
      return new ServerBrowser(context, folder);
    } catch (error) {
      endAll(folder);
      throw error;
    }
  }

  /** Whether it was ended, for its memory or by whoever uses it. */
  get ended(): boolean {
    return this.#ended;
  }

  /** All its processes at once, and its profile. */
  end(): void {
    if (this.#ended) return;
    this.#ended = true;
    clearInterval(this.#watch);
    endAll(this.folder);
    // What plays it notices by itself; its own tidying has nothing left to do.
    void this.context.close().catch(() => undefined);
  }
}

/** The profile's folder, and the shell that starts the browser, ends it when its time is over, and takes the profile away. */
function prepare(folder: string, { path: program, user }: BrowserProgram): string {
  chmodSync(folder, user ? 0o711 : 0o700);
  const profile = path.join(folder, "profile");
  const preferences = path.join(profile, "Default");
  mkdirSync(preferences, { mode: 0o700, recursive: true });
  writeFileSync(path.join(preferences, "Preferences"), JSON.stringify(PREFERENCES), { mode: 0o600 });
  if (user)
    for (const one of [profile, preferences, path.join(preferences, "Preferences")]) chownSync(one, user.uid, user.gid);
  const as = user ? `setpriv --reuid=${user.uid} --regid=${user.gid} --clear-groups --inh-caps=-all ` : "";
  const quoted = (text: string) => `'${text.replaceAll("'", "'\\''")}'`;
  writeFileSync(
    path.join(folder, "run"),
    `#!/bin/sh
echo $$ > ${quoted(path.join(folder, "pid"))}
cd /
${as}timeout --foreground -s KILL ${LONGEST_S} ${quoted(program)} "$@" &
wait $!
rm -rf ${quoted(folder)}
`,
    { mode: 0o755 },
  );
  return profile;
}

/** The group of the shell that was started in a folder; "" where it is gone. */
function groupOf(folder: string): string {
  const shell = readText(path.join(folder, "pid")).trim();
  // A number that was given away anew belongs to somebody else.
  return shell !== "" && readText(`/proc/${shell}/cmdline`).includes(`${folder}/`) ? shell : "";
}

const isIn = (group: string, id: string): boolean =>
  group !== "" &&
  readText(`/proc/${id}/stat`)
    .replace(/^.*\) /, "")
    .split(" ")[2] === group;

/** One small file a process: this is looked at again and again beside whoever is waiting for a page. */
const membersOf = (group: string): number[] =>
  readdirSync("/proc")
    .filter((name) => /^\d+$/.test(name) && isIn(group, name))
    .map(Number);

/** Processes that were started in a folder: all that belong to the shell's group or name the profile. */
function processesOf(folder: string): number[] {
  const group = groupOf(folder);
  return readdirSync("/proc")
    .filter((name) => /^\d+$/.test(name))
    .filter((name) => isIn(group, name) || readText(`/proc/${name}/cmdline`).includes(`${folder}/`))
    .map(Number);
}

/** What they hold for themselves, in mebibytes. */
function memoryOf(processes: readonly number[]): number {
  let pages = 0;
  for (const id of processes) {
    const [, resident = 0, shared = 0] = readText(`/proc/${id}/statm`).split(" ").map(Number);
    pages += resident - shared;
  }
  return (pages * 4096) / 1024 / 1024;
}

function endAll(folder: string): void {
  // Twice: what was being started while the first list was made.
  for (let round = 0; round < 2; round++)
    for (const id of processesOf(folder)) {
      try {
        process.kill(id, "SIGKILL");
      } catch {
        // It has ended by itself.
      }
    }
  rmSync(folder, { recursive: true, force: true, maxRetries: 5, retryDelay: 50 });
}

function readText(file: string): string {
  try {
    return readFileSync(file, "utf8");
  } catch {
    return "";
  }
}

/**
 * Starts it once and ends it again, while nothing secret is about: what it says itself may then be logged.
 * @returns null where it starts; otherwise why not, in its own words as far as they tell
 */
export async function whyNotStarting(program: BrowserProgram): Promise<string | null> {
  try {
    const settings = { proxy: { port: 9, secret: "none" }, userAgent: "Galtry", acceptLanguage: "en" };
    (await ServerBrowser.start(program, settings)).end();
    return null;
  } catch (error) {
    const lines = String(error instanceof Error ? error.message : error).split("\n");
    const telling = lines.filter((line) => /sandbox|denied|not found|FATAL|cannot|No such/i.test(line));
    return (telling.length > 0 ? telling : lines).slice(0, 3).join(" ").slice(0, 600);
  }
}

/** At start: browsers and profiles of a Galtry that was killed. */
export function sweepBrowsers(): void {
  for (const name of readdirSync(tmpdir())) {
    const owner = new RegExp(`^${PREFIX}(\\d+)-`).exec(name)?.[1];
    if (owner && !existsSync(`/proc/${owner}`)) endAll(path.join(tmpdir(), name));
  }
}
