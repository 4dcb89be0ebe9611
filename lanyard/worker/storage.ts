/**
 * What a site keeps beside cookies: put into its origin before the site's own page opens, and taken out when Use ends.
 * Lanyard remembers names, never values.
 */
import { hostOf } from "../../src/core/signin/address";
import { matches, siteOf } from "../../src/core/signin/site";
import type { KeyLine } from "../../src/server/lanyard/keys";
import type { Cloned, HandedDatabase, HandedStorage } from "../../src/server/signin/engine";
import { disk, type StoredNames, setDisk } from "./store";

/** A page of the site's that has no scripts of its own to meet what is not there yet. */
const QUIET_PAGE = "/robots.txt";
const ARRIVES_WITHIN_MS = 10_000;

/** Whether something may be stored for this origin: one of the entry's, never Galtry's own site. */
export function mayStore(
  origin: string,
  key: Pick<KeyLine, "signInPage" | "hosts" | "reach">,
  galtry: string,
): boolean {
  const host = hostOf(`${origin}/`);
  if (host === null) return false;
  const [own, there] = [new URL(galtry).hostname, new URL(origin).hostname];
  if (own === there || siteOf(own) === siteOf(there)) return false;
  return matches(key, `${origin}/`) || key.hosts.includes(host);
}

/**
 * Opens a tab in the origin and stores what was handed over.
 * @returns the tab, in which the site opens next; null where nothing could be stored
 */
export async function putStorage(
  { origin, local, session, databases }: HandedStorage,
  key: KeyLine,
  signInId: string,
): Promise<number | null> {
  const tab = await chrome.tabs.create({ url: `${origin}${QUIET_PAGE}`, active: false });
  if (tab.id === undefined) return null;
  await arrived(tab.id);
  const [result] = await chrome.scripting
    .executeScript({
      target: { tabId: tab.id },
      func: store,
      args: [origin, local, session, databases],
    })
    .catch(() => []);
  if (result?.result !== true) {
    await chrome.tabs.remove(tab.id).catch(() => undefined);
    return null;
  }
  const names = (pairs: [string, string][]) => pairs.map(([name]) => name);
  const now: StoredNames = {
    ...{ entryId: key.id, origin, local: names(local), session: names(session), signInId },
    databases: databases.map(({ name }) => name),
  };
  const before = (await disk("stored")).filter((one) => one.origin !== origin || one.entryId !== key.id);
  await setDisk({ stored: [...before, now] });
  return tab.id;
}

/** Within the page: nothing of the worker is known there. A database that is there already takes the rows. */
async function store(
  wanted: string,
  kept: [string, string][],
  passing: [string, string][],
  databases: HandedDatabase[],
): Promise<boolean> {
  const whole = (value: Cloned): unknown => {
    switch (value[0]) {
      case "v":
        return value[1];
      case "u":
        return undefined;
      case "d":
        return new Date(value[1]);
      case "b": {
        const bytes = Uint8Array.from(atob(value[1]), (letter) => letter.charCodeAt(0));
        return value[2] === "buffer" ? bytes.buffer : bytes;
      }
      case "a":
        return value[1].map(whole);
      case "o":
        return Object.fromEntries(value[1].map(([name, one]) => [name, whole(one)]));
    }
  };
  const putInto = ({ name, version, stores }: HandedDatabase) =>
    new Promise<void>((done, failed) => {
      const request = indexedDB.open(name, version);
      request.onupgradeneeded = () => {
        for (const one of stores) {
          if (request.result.objectStoreNames.contains(one.name)) continue;
          const { keyPath, autoIncrement } = one;
          const made = request.result.createObjectStore(one.name, { keyPath, autoIncrement });
          for (const { name: index, keyPath: path, unique, multiEntry } of one.indexes)
            made.createIndex(index, path, { unique, multiEntry });
        }
      };
      request.onblocked = () => failed(new Error("blocked"));
      request.onerror = () => failed(request.error);
      request.onsuccess = () => {
        const opened = request.result;
        if (stores.length === 0) return done();
        const writing = opened.transaction(
          stores.map((one) => one.name),
          "readwrite",
        );
        for (const { name: store, keyPath, rows } of stores)
          for (const [key, value] of rows)
            if (keyPath === null) writing.objectStore(store).put(whole(value), whole(key) as IDBValidKey);
            else writing.objectStore(store).put(whole(value));
        writing.oncomplete = () => {
          opened.close();
          done();
        };
        writing.onabort = () => failed(writing.error);
      };
    });
  if (location.origin !== wanted) return false;
  try {
    for (const [name, value] of kept) localStorage.setItem(name, value);
    for (const [name, value] of passing) sessionStorage.setItem(name, value);
    for (const database of databases) await putInto(database);
    return true;
  } catch {
    return false;
  }
}

/** Within the page. Rows first: a database that the page holds open is deleted only once it is closed. */
async function takeOutOfPage(kept: string[], passing: string[], databases: string[]): Promise<boolean> {
  for (const name of kept) localStorage.removeItem(name);
  for (const name of passing) sessionStorage.removeItem(name);
  const emptied = (name: string) =>
    new Promise<void>((done) => {
      const request = indexedDB.open(name);
      request.onerror = () => done();
      request.onsuccess = () => {
        const opened = request.result;
        const stores = [...opened.objectStoreNames];
        const finish = () => {
          opened.close();
          indexedDB.deleteDatabase(name);
          done();
        };
        if (stores.length === 0) return finish();
        const writing = opened.transaction(stores, "readwrite");
        for (const one of stores) writing.objectStore(one).clear();
        writing.oncomplete = finish;
        writing.onabort = finish;
      };
    });
  await Promise.all(databases.map(emptied));
  return true;
}

/** The page has come, or does not come in time. */
function arrived(tabId: number): Promise<void> {
  return new Promise((done) => {
    const finish = () => {
      clearTimeout(timer);
      chrome.webNavigation.onCompleted.removeListener(onEnd);
      chrome.webNavigation.onErrorOccurred.removeListener(onEnd);
      done();
    };
    const timer = setTimeout(finish, ARRIVES_WITHIN_MS);
    const onEnd = (details: { tabId: number; frameId: number }) => {
      if (details.tabId === tabId && details.frameId === 0) finish();
    };
    chrome.webNavigation.onCompleted.addListener(onEnd);
    chrome.webNavigation.onErrorOccurred.addListener(onEnd);
    void chrome.tabs.get(tabId).then((tab) => {
      if (tab.status === "complete" && tab.url !== "about:blank" && !tab.pendingUrl) finish();
    }, finish);
  });
}

/**
 * Takes out what was stored: in open pages of the site by its names, otherwise all that the site stored in this browser,
 * which is all that a browser can be asked for without opening the site.
 * @returns the entries it was for
 */
export async function removeStorage(which: (stored: StoredNames) => boolean): Promise<Set<string>> {
  const all = await disk("stored");
  const gone = all.filter(which);
  if (gone.length === 0) return new Set();
  for (const stored of gone) await takeOut(stored);
  await setDisk({ stored: all.filter((one) => !gone.includes(one)) });
  return new Set(gone.map((stored) => stored.entryId));
}

// A Lanyard of before has noted no databases.
async function takeOut({ origin, local, session, databases = [] }: StoredNames): Promise<void> {
  const tabs = (await chrome.tabs.query({})).filter((tab) => tab.url?.startsWith(`${origin}/`));
  let done = false;
  for (const { id } of tabs) {
    if (id === undefined) continue;
    const [result] = await chrome.scripting
      .executeScript({
        target: { tabId: id },
        func: takeOutOfPage,
        args: [local, session, databases],
      })
      .catch(() => []);
    done ||= result?.result === true;
    // What the page holds in its memory goes with the page.
    if (result?.result === true) await chrome.tabs.reload(id).catch(() => undefined);
  }
  if (done) return;
  // Firefox takes host names, for both schemes and all ports of a host, and refuses what it does not know.
  const byHost = { hostnames: [new URL(origin).hostname] } as chrome.browsingData.RemovalOptions;
  for (const what of [...(local.length > 0 ? ["localStorage"] : []), ...(databases.length > 0 ? ["indexedDB"] : [])])
    await chrome.browsingData
      .remove({ origins: [origin] }, { [what]: true })
      .catch(() => chrome.browsingData.remove(byHost, { [what]: true }))
      .catch(() => undefined);
}
