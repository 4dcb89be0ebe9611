/** Connecting, disconnecting, and following what changes in Galtry. */

import { hostOf } from "../../src/core/signin/address";
import { matches } from "../../src/core/signin/site";
import type { KeyLine } from "../../src/server/lanyard/keys";
import type { AskedCode } from "../../src/server/signin/askedCodes";
import type { Connection, ConnectionView, Keys } from "../shared/messages";
import { answerOf, ask, Refusal, send, Unreachable } from "./api";
import { removeCookies } from "./cookies";
import { endLive } from "./holdLive";
import { showEverywhere } from "./icon";
import { forgetKey, newKey } from "./key";
import { oneAfter } from "./oneAfter";
import { policy } from "./policy";
import { removeStorage } from "./storage";
import { disk, memory, NOTHING_CHOSEN, setDisk, setMemory } from "./store";
import { connection as t } from "./strings";

/** Chromium-based browsers say what they are in brands, Firefox to an extension that asks. */
export async function browserName(): Promise<string> {
  const brands = (
    navigator as Navigator & { userAgentData?: { brands: { brand: string; version: string }[]; platform: string } }
  ).userAgentData;
  const brand = brands?.brands.find((one) => !/not.?a.?brand/i.test(one.brand));
  if (brand) return t.on(brand.brand, brand.version, brands!.platform);
  const { getBrowserInfo } = chrome.runtime as typeof chrome.runtime & {
    getBrowserInfo?: () => Promise<{ name: string; version: string }>;
  };
  if (!getBrowserInfo) return t.aBrowser;
  const [{ name, version }, { os }] = await Promise.all([getBrowserInfo(), chrome.runtime.getPlatformInfo()]);
  return t.on(name, version.split(".")[0]!, SYSTEMS[os] ?? os);
}

const SYSTEMS: Record<string, string> = { linux: "Linux", mac: "macOS", win: "Windows", android: "Android" };

let starting: Promise<void> | null = null;

/** Starts a pairing, unless one with this Galtry is under way: page and window may ask at the same time. */
export async function connect(address: string): Promise<void> {
  await starting?.catch(() => undefined);
  const { origin } = new URL(address);
  const only = (await policy()).address;
  if (only !== null && only !== origin) throw new Error(t.thisBrowserConnectsOnlyTo(hostOf(only) ?? only));
  const connection = await disk("connection");
  if (connection.state === "connecting" && connection.address === origin && connection.until > Date.now() + 5_000)
    return;
  starting = startPairing(origin).finally(() => {
    starting = null;
  });
  await starting;
}

async function startPairing(origin: string): Promise<void> {
  const hello = await fetch(new URL("/api/lanyard/hello", origin), { credentials: "omit", cache: "no-store" })
    .then((response) => response.json())
    .catch(() => null);
  if (hello?.galtry !== 1 || hello.address !== origin) throw new Refusal("not-found", t.thereIsNoGaltryAtThisAddress);
  await newKey();
  const started = await answerOf<{ deviceCode: string; userCode: string; expiresIn: number }>(
    await send(
      origin,
      "pair/start",
      { browser: await browserName(), version: chrome.runtime.getManifest().version },
      null,
    ),
  );
  await setDisk({
    connection: {
      state: "connecting",
      address: origin,
      deviceCode: started.deviceCode,
      userCode: started.userCode,
      until: Date.now() + started.expiresIn * 1000,
    },
  });
  await showEverywhere();
}

/**
 * The code for Galtry's own page in this browser. Only for an address that the person has agreed to in Lanyard's
 * window: any page can say that it is a Galtry.
 */
export async function presentCode(address: string): Promise<string | null> {
  const connection = await disk("connection");
  if (connection.state === "connected" || connection.address !== address) return null;
  await connect(address);
  const now = await disk("connection");
  return now.state === "connecting" ? now.userCode : null;
}

/** Asks once whether the person has confirmed. */
export async function takeToken(): Promise<boolean> {
  const connection = await disk("connection");
  if (connection.state !== "connecting") return connection.state === "connected";
  const { address, deviceCode, until } = connection;
  if (until < Date.now()) {
    await setDisk({ connection: { state: "none", address, ended: null } });
    return false;
  }
  const taken = await answerOf<
    | { state: "waiting" }
    | { state: "connected"; token: string; lanyardId: string; personId: string; person: string; organisation: string }
  >(await send(address, "pair/token", { deviceCode }, null));
  if (taken.state === "waiting") return false;
  await setDisk({ connection: { ...taken, state: "connected", address } });
  await refreshKeys();
  return true;
}

/** Ends the connection from this side: told to Galtry, and everything of it forgotten here. */
export async function disconnect(): Promise<void> {
  const connection = await disk("connection");
  if (connection.state === "connected")
    await ask("lanyard.endLanyard", { why: t.disconnectedInTheBrowser }).catch(() => undefined);
  await forget({ state: "none", address: connection.address, ended: null });
}

/** Ended from the other side, or refused for good. */
export async function ended(data: Record<string, unknown>): Promise<void> {
  const { address } = await disk("connection");
  await forget({
    state: "none",
    address,
    ended: {
      why: (data.why as string | null) ?? null,
      at: (data.endedAt as number | null) ?? null,
      by: (data.endedBy as string | null) ?? null,
    },
  });
}

async function forget(connection: Connection): Promise<void> {
  await removeCookies(() => true);
  await removeStorage(() => true);
  // What one person chose holds for nobody who connects after them.
  await setDisk({ ...NOTHING_CHOSEN, connection });
  await setMemory({ keys: null, signing: null, chosen: null, opened: {}, learning: null, changing: null });
  await forgetKey();
  await endLive();
  await showEverywhere();
}

/** Looks again: keys that are no longer there lose their cookies at once. */
export const refreshKeys = oneAfter(refresh);

/** The stream says when to look again; this is for what it might have missed. */
const LOOK_AGAIN_MS = 30 * 60_000;

/** Looks again where nothing is known, or Galtry is out of reach, or the last look is long ago. */
export async function refreshOld(): Promise<void> {
  const [keys, reachable] = await Promise.all([memory("keys"), memory("reachable")]);
  if (!keys || !reachable || Date.now() - keys.fetchedAt > LOOK_AGAIN_MS) await refreshKeys();
}

async function refresh(): Promise<void> {
  if ((await disk("connection")).state !== "connected") return;
  try {
    const last = await memory("keys");
    const before = last?.keys ?? [];
    const keys = await ask<Omit<Keys, "fetchedAt">>("lanyard.keyList", {});
    await setMemory({ keys: { ...keys, fetchedAt: Date.now() } });
    const still = new Set(keys.keys.map((key) => key.id));
    const isGone = ({ entryId }: { entryId: string }) => !still.has(entryId);
    const gone = new Set([...(await removeCookies(isGone)), ...(await removeStorage(isGone))]);
    await tellEnded(before.filter((key) => gone.has(key.id)));
    const known = new Set(last?.codesAsked.map(({ id }) => id));
    await tellAsked(keys.codesAsked.filter(({ id }) => !known.has(id)));
  } catch (error) {
    if (error instanceof Refusal && error.code === "signed-out") await ended(error.data);
    else if (!(error instanceof Unreachable || error instanceof Refusal)) throw error;
  }
  await showEverywhere();
}

/** On each open page of a site whose session was taken out: that it was, and why. */
async function tellEnded(keys: KeyLine[]): Promise<void> {
  for (const key of keys) {
    const why = await ask<{ says: string } | null>("access.whyEnded", { entryId: key.id }).catch(() => null);
    for (const tab of await chrome.tabs.query({}))
      if (tab.id !== undefined && matches(key, tab.url ?? ""))
        chrome.tabs
          .sendMessage(tab.id, { tell: "ended", name: key.name, says: why?.says ?? "" }, { frameId: 0 })
          .catch(() => undefined);
  }
}

/** On the page in front: that somebody waits for a code. */
async function tellAsked(asked: readonly AskedCode[]): Promise<void> {
  const [first] = asked;
  if (!first) return;
  for (const tab of await chrome.tabs.query({ active: true }))
    if (tab.id !== undefined)
      chrome.tabs
        .sendMessage(tab.id, { tell: "code-asked", person: first.person, name: first.entry.name }, { frameId: 0 })
        .catch(() => undefined);
}

export async function connectionView(): Promise<ConnectionView> {
  const connection = await disk("connection");
  if (connection.state === "connected") {
    const { token: _, ...view } = connection;
    return view;
  }
  if (connection.state === "connecting") {
    const { deviceCode: _, ...view } = connection;
    return view;
  }
  return connection;
}

/** For Galtry's page: reached, right version, right person, may set cookies. */
export async function testConnection(): Promise<{
  reached: boolean;
  version: string;
  person: string | null;
  mayCookies: boolean;
}> {
  const version = chrome.runtime.getManifest().version;
  const mayCookies = await chrome.permissions.contains({
    permissions: ["cookies"],
    origins: ["http://*/*", "https://*/*"],
  });
  try {
    const { person } = await ask<{ person: string }>("lanyard.keyList", {});
    return { reached: true, version, person, mayCookies };
  } catch {
    const connection = await disk("connection");
    return { reached: false, version, person: connection.state === "connected" ? connection.person : null, mayCookies };
  }
}
