/**
 * Credential exchange JSON. The names of members follow the FIDO Alliance's Credential Exchange Format 1.0 as
 * published (header, account, collection, item, and the credential types basic-auth, totp, note, credit-card, wifi,
 * ssh-key, address and custom-fields). What that format has no place for stands in an extension of Galtry's own, so
 * that what Galtry writes it reads back equal; other programs read the rest.
 */
import { z } from "zod";
import { fieldOf, type Kind, PASSWORD, SIGN_IN_PAGE, USER_NAME } from "../kinds/kind";
import { isReadyKind, readyKind } from "../kinds/ready";
import { readValues } from "../kinds/values";
import { siteName } from "../signin/address";
import { codeAddress } from "../signin/code";
import { wholeAddress } from "../signin/site";
import type { Incoming, ReadRow } from "./rows";
import type { TakenEntry } from "./taken";

const EXTENSION = "galtry.entry";
const VERSION = { major: 1, minor: 0 };

interface EditableField {
  fieldType: string;
  value: string;
  label?: string;
}

const text = (value: string, label?: string): EditableField => ({
  fieldType: "string",
  value,
  ...(label && { label }),
});
const hidden = (value: string, label?: string): EditableField => ({
  fieldType: "concealed-string",
  value,
  ...(label && { label }),
});

type Credential = Record<string, unknown> & { type: string };

/** Values of an entry, flat, as `readValues` takes them. */
export function flatOf(entry: TakenEntry): Record<string, unknown> {
  const has = (id: string) => fieldOf(entry.kind, id) !== undefined;
  return {
    name: entry.name,
    description: entry.description,
    notes: entry.notes,
    tags: entry.tags,
    ...entry.fields,
    ...(has(SIGN_IN_PAGE) && { signInPage: entry.signInPage, reach: entry.reach }),
    ...(has(USER_NAME) && { useSeesUserName: entry.useSeesUserName }),
    ...(entry.code && { code: codeAddress(entry.code, entry.name) }),
    extras: entry.extras,
  };
}

function credentialsOf(entry: TakenEntry): Credential[] {
  const { fields, kind } = entry;
  const found: Credential[] = [];
  const told = new Set<string>();
  const take = (id: string): string => {
    told.add(id);
    return fields[id] ?? "";
  };
  if (kind.id === "wifi")
    found.push({
      type: "wifi",
      ssid: text(take("network")),
      networkSecurityType: { fieldType: "wifi-network-security-type", value: securityOf(take("security")) },
      passphrase: hidden(take(PASSWORD)),
      hidden: { fieldType: "boolean", value: String(take("hidden").startsWith("no")) },
    });
  else if (kind.id === "card")
    found.push({
      type: "credit-card",
      number: hidden(take("number")),
      fullName: text(take("holder")),
      verificationNumber: hidden(take("security-code")),
      pin: hidden(take("pin")),
      expiryDate: { fieldType: "year-month", value: take("expires") },
    });
  else if (fields[USER_NAME] || fields[PASSWORD])
    found.push({ type: "basic-auth", username: text(take(USER_NAME)), password: hidden(take(PASSWORD)) });
  if (entry.code)
    found.push({
      type: "totp",
      secret: entry.code.secret,
      period: entry.code.period,
      digits: entry.code.digits,
      algorithm: entry.code.algorithm.toLowerCase(),
      username: fields[USER_NAME] ?? "",
      issuer: entry.name,
    });
  const rest = kind.fields
    .filter(({ id }) => !told.has(id) && (fields[id] ?? "") !== "")
    .map((field) => (field.class === "secret" ? hidden : text)(fields[field.id]!, field.label));
  const extras = entry.extras.map((extra) =>
    (extra.class === "secret" ? hidden : text)(extra.value ?? "", extra.label),
  );
  if (rest.length + extras.length > 0)
    found.push({ type: "custom-fields", label: kind.name, fields: [...rest, ...extras], extensions: [] });
  if (entry.notes) found.push({ type: "note", content: text(entry.notes) });
  return found;
}

const securityOf = (value: string) => (value === "none" ? "unsecured" : value === "WEP" ? "wep" : "wpa2-personal");

/** Ids of the format are base64url of bytes; these count. */
const idOf = (kind: string, number: number) =>
  btoa(`${kind} ${number}`).replace(/\+/g, "-").replace(/\//g, "_").replace(/=+$/, "");

interface Collection {
  id: string;
  title: string;
  items: { item: string }[];
  subCollections: Collection[];
}

/** @param at seconds are kept, as the format has them */
export function toExchange(
  entries: readonly TakenEntry[],
  about: { organisation: string; person: string; mail: string; at: number },
): object {
  const collections: Collection[] = [];
  let made = 0;
  const place = (folder: readonly string[]): Collection | null => {
    let [level, found] = [collections, null as Collection | null];
    for (const title of folder) {
      found = level.find((one) => one.title === title) ?? null;
      if (!found) {
        found = { id: idOf("folder", ++made), title, items: [], subCollections: [] };
        level.push(found);
      }
      level = found.subCollections;
    }
    return found;
  };
  const items = entries.map((entry, at) => {
    const id = idOf("entry", at + 1);
    place(entry.folder)?.items.push({ item: id });
    return {
      id,
      creationAt: Math.floor(entry.createdAt / 1000),
      modifiedAt: Math.floor(entry.changedAt / 1000),
      title: entry.name,
      ...(entry.description && { subtitle: entry.description }),
      ...(entry.signInPage && { scope: { urls: [entry.signInPage], androidApps: [] } }),
      credentials: credentialsOf(entry),
      tags: entry.tags,
      extensions: [{ name: EXTENSION, data: { kind: entry.kind.id, values: flatOf(entry) } }],
    };
  });
  return {
    version: VERSION,
    exporterRpId: "galtry",
    exporterDisplayName: `Galtry, ${about.organisation}`,
    timestamp: Math.floor(about.at / 1000),
    accounts: [
      { id: idOf("account", 1), username: about.person, email: about.mail, collections, items, extensions: [] },
    ],
  };
}

const field = z
  .object({ value: z.union([z.string(), z.number(), z.boolean()]).transform(String), label: z.string().optional() })
  .nullish();

const item = z.object({
  id: z.string(),
  title: z.string().default(""),
  subtitle: z.string().nullish(),
  scope: z.object({ urls: z.array(z.string()).default([]) }).nullish(),
  credentials: z.array(z.looseObject({ type: z.string() })).default([]),
  tags: z.array(z.string()).nullish(),
  extensions: z.array(z.looseObject({ name: z.string().optional(), data: z.unknown().optional() })).nullish(),
});

interface ReadCollection {
  title: string;
  items: { item: string }[];
  subCollections?: ReadCollection[] | undefined;
}

const collection: z.ZodType<ReadCollection> = z.lazy(() =>
  z.object({
    title: z.string().default(""),
    items: z.array(z.object({ item: z.string() })).default([]),
    subCollections: z.array(collection).optional(),
  }),
);

const header = z.object({
  version: z.object({ major: z.number() }),
  accounts: z.array(
    z.object({ collections: z.array(collection).default([]), items: z.array(z.unknown()).default([]) }),
  ),
});

/** Whether parsed JSON is of this format, as its outermost members say. */
export const isExchange = (json: unknown): boolean =>
  typeof json === "object" && json !== null && "accounts" in json && "version" in json;

/**
 * @param own kinds of the organisation, by id, besides the ready ones
 * @throws RangeError with a sentence when it is not this format after all
 */
export function fromExchange(json: unknown, own: readonly Kind[] = []): ReadRow[] {
  const read = header.safeParse(json);
  if (!read.success)
    throw new RangeError("This looks like credential exchange JSON, but its parts are not in their places.");
  if (read.data.version.major !== 1) throw new RangeError("This is a later version of the credential exchange format.");
  const rows: ReadRow[] = [];
  for (const account of read.data.accounts) {
    const folderOf = new Map<string, string[]>();
    const walk = (collections: readonly ReadCollection[], way: string[]) => {
      for (const one of collections) {
        const here = [...way, one.title.trim().slice(0, 200) || "Folder"];
        for (const { item: id } of one.items) if (!folderOf.has(id)) folderOf.set(id, here);
        walk(one.subCollections ?? [], here);
      }
    };
    walk(account.collections, []);
    for (const raw of account.items) rows.push(toRow(raw, rows.length + 1, folderOf, own));
  }
  return rows;
}

function toRow(raw: unknown, row: number, folderOf: Map<string, string[]>, own: readonly Kind[]): ReadRow {
  const read = item.safeParse(raw);
  if (!read.success) return { row, incoming: null, wrong: "This item is not as the format has it." };
  const folder = folderOf.get(read.data.id) ?? [];
  const mine = fromExtension(read.data, own);
  if (mine) return { row, incoming: { ...mine, folder }, wrong: null };
  const made = fromCredentials(read.data);
  if (typeof made === "string") return { row, incoming: null, wrong: made };
  return { row, incoming: { ...made, folder }, wrong: null };
}

/** What Galtry wrote itself; null where there is none, or its kind is not here. */
function fromExtension({ extensions }: z.output<typeof item>, own: readonly Kind[]): Omit<Incoming, "folder"> | null {
  const data = extensions?.find((one) => one.name === EXTENSION)?.data;
  const kept = z.object({ kind: z.string(), values: z.record(z.string(), z.unknown()) }).safeParse(data);
  if (!kept.success) return null;
  const { kind: id, values } = kept.data;
  const kind = isReadyKind(id) ? readyKind(id) : own.find((one) => one.id === id);
  if (!kind) return null;
  try {
    readValues(kind, values);
    return { kind: id, values };
  } catch {
    return null;
  }
}

const oneLine = (value: string) => value.replace(/[\u0000-\u001f\u007f]+/g, " ").trim();
const held = (credential: Record<string, unknown>, name: string): string =>
  field.safeParse(credential[name]).data?.value ?? "";

/** What other programs write: the first of each credential that an entry has a place for, the rest as extra fields. */
function fromCredentials(read: z.output<typeof item>): Omit<Incoming, "folder"> | string {
  const extras: { id: string; label: string; class: "identifier" | "secret"; value: string }[] = [];
  const extra = (label: string, value: string, secret: boolean) => {
    if (value !== "" && extras.length < 50)
      extras.push({
        id: `item-${extras.length}`,
        label: oneLine(label).slice(0, 100) || "Field",
        class: secret ? "secret" : "identifier",
        value: value.slice(0, 10_000),
      });
  };
  const notes: string[] = [];
  const of = (type: string) => read.credentials.find((one) => one.type === type);
  const kindId = of("wifi") ? "wifi" : of("credit-card") ? "card" : of("basic-auth") || of("totp") ? "" : "note";
  const main: Record<string, string> = {};
  for (const credential of read.credentials) {
    const value = (name: string) => held(credential, name);
    const first = credential === of(credential.type);
    if (credential.type === "basic-auth" && first && (kindId === "" || kindId === "note")) {
      main.userName = value("username");
      main.password = value("password");
    } else if (credential.type === "totp" && first && typeof credential.secret === "string" && kindId === "")
      main.code = otpauthOf(credential, read.title);
    else if (credential.type === "note") notes.push(value("content"));
    else if (credential.type === "wifi" && first && kindId === "wifi") {
      main.network = value("ssid");
      main.password = value("passphrase");
      main.security = { unsecured: "none", wep: "WEP" }[value("networkSecurityType")] ?? "WPA2 or WPA3";
      main.hidden = value("hidden") === "true" ? "no, it is hidden" : "";
    } else if (credential.type === "credit-card" && first && kindId === "card") {
      main.number = value("number").replace(/[^\d\s-]/g, "");
      main.holder = value("fullName");
      main["security-code"] = value("verificationNumber");
      main.pin = value("pin");
      main.expires = /^\d{4}-\d{2}$/.test(value("expiryDate")) ? value("expiryDate") : "";
    } else if (credential.type === "custom-fields" && Array.isArray(credential.fields))
      for (const one of credential.fields) {
        const known = field.safeParse(one).data;
        if (known)
          extra(known.label ?? "", known.value, (one as { fieldType?: string }).fieldType === "concealed-string");
      }
    else if (credential.type === "passkey") return "A passkey cannot be taken over: make a new one at the site.";
    else
      for (const [name, one] of Object.entries(credential)) {
        const known = field.safeParse(one).data;
        if (known && name !== "type")
          extra(
            `${credential.type} ${known.label ?? name}`,
            known.value,
            !/^(string|email|date)$/.test((one as { fieldType?: string }).fieldType ?? ""),
          );
      }
  }
  const page = pageOf(read.scope?.urls ?? []);
  const kind = kindId === "" ? (page ? "website-login" : "password") : kindId;
  const common = {
    name: oneLine(read.title).slice(0, 200) || (page ? siteName(page) : oneLine(main.userName ?? main.network ?? "")),
    description: oneLine(read.subtitle ?? "").slice(0, 300),
    notes: notes.join("\n\n").slice(0, 100_000),
    tags: (read.tags ?? [])
      .map((tag) => oneLine(tag).slice(0, 50))
      .filter(Boolean)
      .slice(0, 20),
    extras,
  };
  const values = { ...common, ...main, ...(page && kind === "website-login" && { signInPage: page }) };
  try {
    readValues(readyKind(kind), values);
    return { kind, values };
  } catch (error) {
    const [issue] = error instanceof z.ZodError ? error.issues : [];
    return issue ? `${String(issue.path[0] ?? "It")}: ${issue.message}` : "It cannot be read.";
  }
}

function otpauthOf(totp: Record<string, unknown>, name: string): string {
  const parameters = new URLSearchParams({
    secret: String(totp.secret),
    digits: String(totp.digits ?? 6),
    period: String(totp.period ?? 30),
    algorithm: String(totp.algorithm ?? "sha1").toUpperCase(),
  });
  return `otpauth://totp/${encodeURIComponent(name || "code")}?${parameters}`;
}

function pageOf(urls: readonly string[]): string {
  for (const url of urls)
    try {
      return wholeAddress(url);
    } catch {
      // The next one may be an address.
    }
  return "";
}
