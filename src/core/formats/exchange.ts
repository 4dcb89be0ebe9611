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
import type { TakenEntry, TakenWriter } from "./taken";

const EXTENSION = "galtry.entry";
const KINDS = "galtry.kinds";
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

/**
 * The file in parts: items as they come, the folders after them.
 * @param about whose it is; of `at` seconds are kept, as the format has them
 * @param kinds of the organisation's own, those that entries have: written with their fields
 */
export function exchangeWriter(
  about: { organisation: string; person: string; mail: string; at: number },
  kinds: readonly Kind[] = [],
): TakenWriter {
  const collections: Collection[] = [];
  let [folders, written] = [0, 0];
  const place = (folder: readonly string[]): Collection | null => {
    let [level, found] = [collections, null as Collection | null];
    for (const title of folder) {
      found = level.find((one) => one.title === title) ?? null;
      if (!found) {
        found = { id: idOf("folder", ++folders), title, items: [], subCollections: [] };
        level.push(found);
      }
      level = found.subCollections;
    }
    return found;
  };
  const itemOf = (entry: TakenEntry) => {
    const id = idOf("entry", ++written);
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
  };
  const beginning = () => {
    const outer = {
      version: VERSION,
      exporterRpId: "galtry",
      exporterDisplayName: `Galtry, ${about.organisation}`,
      timestamp: Math.floor(about.at / 1000),
    };
    const account = { id: idOf("account", 1), username: about.person, email: about.mail };
    return `${JSON.stringify(outer).slice(0, -1)},"accounts":[${JSON.stringify(account).slice(0, -1)},"items":[`;
  };
  let begun = false;
  const add = (entries: readonly TakenEntry[]): string => {
    let text = begun ? "" : beginning();
    begun = true;
    for (const entry of entries) text += `${written > 0 ? "," : ""}\n${JSON.stringify(itemOf(entry))}`;
    return text;
  };
  return {
    add,
    end: () => {
      const extensions = kinds.length === 0 ? [] : [{ name: KINDS, data: kinds }];
      return `${add([])}],"collections":${JSON.stringify(collections)},"extensions":${JSON.stringify(extensions)}}]}\n`;
    },
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
    z.object({
      collections: z.array(collection).default([]),
      items: z.array(z.unknown()).default([]),
      extensions: z.array(z.looseObject({ name: z.string().optional(), data: z.unknown().optional() })).nullish(),
    }),
  ),
});

/** Whether parsed JSON is of this format, as its outermost members say. */
export const isExchange = (json: unknown): boolean =>
  typeof json === "object" && json !== null && "accounts" in json && "version" in json;

export interface ReadExchange {
  rows: ReadRow[];
  /** Kinds that another Galtry wrote with their fields and that are not here, neither by id nor by name. */
  missing: Kind[];
}

/**
 * @param own kinds of the organisation, besides the ready ones
 * @throws RangeError with a sentence when it is not this format after all
 */
export function fromExchange(json: unknown, own: readonly Kind[] = []): ReadExchange {
  const read = header.safeParse(json);
  if (!read.success) throw new RangeError("This looks like credential exchange JSON, but parts of it are missing.");
  if (read.data.version.major !== 1) throw new RangeError("This is a later version of the credential exchange format.");
  const rows: ReadRow[] = [];
  const missing: Kind[] = [];
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
    const brought = keptKinds.safeParse(account.extensions?.find((one) => one.name === KINDS)?.data).data ?? [];
    const known = new Map<string, KnownKind>();
    for (const kind of own) known.set(kind.id, { kind, idOf: (id) => id });
    for (const kind of brought) {
      const same = own.find((one) => one.name.toLowerCase() === kind.name.toLowerCase());
      if (known.has(kind.id)) continue;
      if (same) known.set(kind.id, { kind: same, idOf: fieldsByLabel(kind, same) });
      else missing.push(kind as Kind);
    }
    for (const raw of account.items) rows.push(toRow(raw, rows.length + 1, folderOf, known));
  }
  return { rows, missing };
}

interface KnownKind {
  kind: Kind;
  /** The id here of a field of the file's kind; null where there is none. */
  idOf: (id: string) => string | null;
}

const keptKinds = z.array(
  z.looseObject({
    id: z.string().max(64),
    name: z.string().min(1).max(60),
    purpose: z.enum(["sign-in", "get-in", "pay", "prove", "run", "keep"]),
    title: z.string().max(64).optional(),
    fields: z
      .array(
        z.looseObject({
          id: z.string().min(1).max(64),
          label: z.string().max(60),
          class: z.enum(["open", "identifier", "secret"]),
          form: z.string().max(20),
        }),
      )
      .max(100),
  }),
);

function fieldsByLabel({ fields }: z.output<typeof keptKinds>[number], here: Kind): KnownKind["idOf"] {
  const ids = new Map(
    fields.map(({ id, label, class: fieldClass }) => [
      id,
      fieldOf(here, id)?.id ??
        here.fields.find((one) => one.label.toLowerCase() === label.toLowerCase() && one.class === fieldClass)?.id ??
        null,
    ]),
  );
  return (id) => (ids.has(id) ? ids.get(id)! : id);
}

function toRow(raw: unknown, row: number, folderOf: Map<string, string[]>, own: Map<string, KnownKind>): ReadRow {
  const read = item.safeParse(raw);
  if (!read.success) return { row, incoming: null, wrong: "This item does not follow the format." };
  const folder = folderOf.get(read.data.id) ?? [];
  const mine = fromExtension(read.data, own);
  if (mine) return { row, incoming: { ...mine, folder }, wrong: null };
  const made = fromCredentials(read.data);
  if (typeof made === "string") return { row, incoming: null, wrong: made };
  return { row, incoming: { ...made, folder }, wrong: null };
}

/** What Galtry wrote itself; null where there is none, its kind is not here, or a value has no field in it. */
function fromExtension(
  { extensions }: z.output<typeof item>,
  own: Map<string, KnownKind>,
): Omit<Incoming, "folder"> | null {
  const data = extensions?.find((one) => one.name === EXTENSION)?.data;
  const kept = z.object({ kind: z.string(), values: z.record(z.string(), z.unknown()) }).safeParse(data);
  if (!kept.success) return null;
  const { kind: id } = kept.data;
  const known: KnownKind | undefined = isReadyKind(id) ? { kind: readyKind(id), idOf: (one) => one } : own.get(id);
  if (!known) return null;
  const values: Record<string, unknown> = {};
  for (const [key, value] of Object.entries(kept.data.values)) {
    const here = known.idOf(key);
    if (here !== null) values[here] = value;
    else if (value !== "") return null;
  }
  try {
    readValues(known.kind, values);
    return { kind: known.kind.id, values };
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
    else if (credential.type === "passkey") return "A passkey cannot be imported. Create a new one at the site.";
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
    return issue ? `${String(issue.path[0] ?? "It")}: ${issue.message}` : "It cannot be understood.";
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
