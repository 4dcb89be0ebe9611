/**
 * What outlives the worker. On disk: the connection and which cookies were set and what was stored (site and name, never values).
 * In memory only (`storage.session`): keys, a captured login for five minutes, the sign-in under way.
 */
import type { PageStep } from "../../src/core/signin/steps";
import type { Choices, Connection, Keys, SigningIn, TypedOn } from "../shared/messages";

export interface SetCookie {
  entryId: string;
  name: string;
  /** Address to name the cookie by when removing it. */
  url: string;
  signInId: string;
}

/** What was put into a site's storage: names, never values. */
export interface StoredNames {
  entryId: string;
  origin: string;
  local: string[];
  session: string[];
  databases?: string[];
  signInId: string;
}

export interface Captured {
  page: string;
  /** The page's title: what a name is suggested from. */
  title: string;
  userName: string;
  password: string;
  choices: Record<string, string>;
  on: TypedOn;
  /** What its pages did, without a value. */
  steps: PageStep[];
  /** Typed in a frame of the page. */
  inFrame: boolean;
  at: number;
  /** The offer was made and waits for an answer. */
  offered: boolean;
}

interface Disk {
  /** Where a login was added last: offered first. */
  lastPlace: string | null;
  choices: Choices;
  connection: Connection;
  cookies: SetCookie[];
  stored: StoredNames[];
}

interface Memory {
  keys: Keys | null;
  signing: SigningIn | null;
  reachable: boolean;
  lastReached: number | null;
  /** The key chosen at a page's field, for the window. */
  chosen: string | null;
  /** Landing tabs to look at once: tab id to sign-in id. */
  /** Tabs that wait for the page that follows; without a sign-in while only the user name was typed. */
  landings: Record<
    string,
    { signInId: string | null; entryId: string; filled?: boolean; onOpening?: boolean; at?: number }
  >;
  galtryPages: Record<string, string>;
  /** When a login was filled in as its page opened, by entry: a page that asks again is left to the person. */
  opened: Record<string, number>;
  /** The entry whose sign-in is being learned, in a tab of its own. */
  learning: LearningRecord | null;
  /** The entry whose password is being changed by hand, in a tab of its own. */
  changing: ChangingRecord | null;
}

export interface ChangingRecord {
  tabId: number;
  entryId: string;
  name: string;
  /** The new password is in Galtry, and has gone into a page or was copied. */
  filled: boolean;
  /** The document that it was filled in at last. */
  documentId: string | null;
  at: number;
}

export interface LearningRecord {
  tabId: number;
  entryId: string;
  name: string;
  signInPage: string;
  reach: "site" | "host";
  hosts: string[];
  steps: PageStep[];
  at: number;
}

export const NOTHING_CHOSEN = { lastPlace: null, choices: { atFields: true, onOpening: [] } } satisfies Partial<Disk>;

const DISK: Disk = {
  ...NOTHING_CHOSEN,
  connection: { state: "none", address: null, ended: null },
  cookies: [],
  stored: [],
};
const MEMORY: Memory = {
  keys: null,
  signing: null,
  reachable: true,
  lastReached: null,
  chosen: null,
  landings: {},
  galtryPages: {},
  opened: {},
  learning: null,
  changing: null,
};

export async function disk<K extends keyof Disk>(key: K): Promise<Disk[K]> {
  return ((await chrome.storage.local.get(key)) as Partial<Disk>)[key] ?? DISK[key];
}

export const setDisk = (part: Partial<Disk>): Promise<void> => chrome.storage.local.set(part);

export async function memory<K extends keyof Memory>(key: K): Promise<Memory[K]> {
  return ((await chrome.storage.session.get(key)) as Partial<Memory>)[key] ?? MEMORY[key];
}

export const setMemory = (part: Partial<Memory>): Promise<void> => chrome.storage.session.set(part);

const CAPTURE_MS = 5 * 60_000;

export async function captured(tabId: number): Promise<Captured | null> {
  const key = `captured-${tabId}`;
  const found = ((await chrome.storage.session.get(key)) as Record<string, Captured>)[key] ?? null;
  if (found && Date.now() - found.at > CAPTURE_MS) {
    await chrome.storage.session.remove(key);
    return null;
  }
  return found;
}

export async function setCaptured(tabId: number, value: Captured | null): Promise<void> {
  const key = `captured-${tabId}`;
  if (value) {
    await chrome.storage.session.set({ [key]: value });
    await chrome.alarms.create(key, { when: value.at + CAPTURE_MS });
  } else await chrome.storage.session.remove(key);
}

/** Neither disk nor memory of Lanyard is open to scripts in pages; Firefox keeps the memory from them by itself. */
export async function shutOutPages(): Promise<void> {
  if (chrome.storage.local.setAccessLevel === undefined) return;
  await chrome.storage.local.setAccessLevel({ accessLevel: "TRUSTED_CONTEXTS" });
  await chrome.storage.session.setAccessLevel({ accessLevel: "TRUSTED_CONTEXTS" });
}
