/**
 * Trees of any shape, XML or JSON: finds the records that repeat and the nesting that makes folders, and lays them out
 * as a table whose columns somebody can then say the meaning of.
 */
import { XMLParser } from "fast-xml-parser";
import { guessMeanings } from "./columns";
import { MOST_COLUMNS, MOST_ROWS } from "./csv";

export type Json = null | boolean | number | string | Json[] | { [key: string]: Json };
type JsonObject = { [key: string]: Json };

/** Records of one name: "entries", "Login". */
export interface Part {
  name: string;
  header: string[];
  rows: string[][];
  /** Of each row: names of the folders around it. */
  folders: string[][];
  /** Of a table: how many cells a row had, where it was not as many as the header. */
  ragged?: ReadonlyMap<number, number>;
}

const DEEPEST = 200;
const isObject = (value: Json | undefined): value is JsonObject =>
  typeof value === "object" && value !== null && !Array.isArray(value);
const isScalar = (value: Json | undefined): value is string | number | boolean =>
  typeof value === "string" || typeof value === "number" || typeof value === "boolean";

/** @throws RangeError for what is no XML, or declares entities of its own */
export function readXml(text: string): Json {
  if (/<!ENTITY/i.test(text)) throw new RangeError("This XML declares its own entities. Such files cannot be read.");
  const parser = new XMLParser({
    ignoreAttributes: false,
    attributeNamePrefix: "",
    parseTagValue: false,
    parseAttributeValue: false,
    processEntities: true,
    trimValues: true,
  });
  try {
    return parser.parse(text.replace(/<!DOCTYPE[^>[]*(\[[^\]]*\])?[^>]*>/i, ""), true) as Json;
  } catch (error) {
    const line = (error as { line?: number }).line;
    throw new RangeError(`This XML is incomplete${line ? `: something is wrong in line ${line}` : ""}.`);
  }
}

/** @throws RangeError for what is no JSON */
export function readJson(text: string): Json {
  try {
    return JSON.parse(text.replace(/^\uFEFF/, "")) as Json;
  } catch {
    throw new RangeError("This JSON is incomplete.");
  }
}

const NAMES = /^(name|title|label|text|folder|group|group ?name|caption|bezeichnung|titel|nom|nombre)$/i;
const KEYS = /^(key|name|label|title|field|caption|type|designation)$/i;
const VALUES = /^(value|content|text|#text|data|v|val)$/i;

/** "Password: x" said as {key: "Password", value: "x"}, as many programs do. */
function pairOf(value: JsonObject): [string, string] | null {
  const entries = Object.entries(value).map(([name, one]): [string, Json] => [
    name,
    isObject(one) && isScalar(one["#text"]) ? one["#text"] : one,
  ]);
  if (entries.length < 2 || entries.length > 6) return null;
  const key = entries.find(([name, one]) => KEYS.test(name) && typeof one === "string" && one.trim() !== "");
  const held = entries.find(([name, one]) => VALUES.test(name) && name !== key?.[0] && (isScalar(one) || one === null));
  return key && held ? [String(key[1]), held[1] === null ? "" : String(held[1])] : null;
}

/** All that one record says, flat: nested objects by their names, lists of pairs by their keys, lists of words joined. */
function flatten(record: JsonObject, skip: ReadonlySet<string>): Map<string, string> {
  const found = new Map<string, string>();
  const put = (label: string, value: string) => {
    const before = found.get(label);
    found.set(label, before === undefined || before === "" ? value : value === "" ? before : `${before}\n${value}`);
  };
  const walk = (value: Json, label: string, depth: number) => {
    if (depth > 6 || value === null) return;
    if (isScalar(value)) put(label || "value", String(value));
    else if (Array.isArray(value)) {
      const words = value.filter(isScalar);
      if (words.length > 0) put(label, words.join(", "));
      for (const one of value) if (isObject(one)) walk(one, label, depth + 1);
    } else {
      const pair = pairOf(value);
      if (pair && depth > 0) put(pair[0], pair[1]);
      else
        for (const [name, one] of Object.entries(value))
          if (!skip.has(name))
            walk(one, name === "#text" ? label : label && depth > 0 ? `${label} ${name}` : name, depth + 1);
    }
  };
  for (const [name, one] of Object.entries(record)) if (!skip.has(name)) walk(one, name === "#text" ? "text" : name, 1);
  return found;
}

/** A name on the way, and what the thing that has it goes by. */
interface Around {
  of: string;
  name: string;
}

interface Found {
  record: JsonObject;
  around: Around[];
  /** The nearest thing around it that goes by the same name. */
  within: JsonObject | null;
  /** Something within it goes by the same name. */
  holds: boolean;
  /** What the thing around it goes by. */
  parent: string;
  /** One of several in a list. */
  listed: boolean;
}

/** Everything that could be a record, under the name it goes by. */
function candidates(tree: Json): Map<string, Found[]> {
  const sets = new Map<string, Found[]>();
  const around = new Map<string, Found[]>();
  const walk = (value: Json, name: string, ways: Around[], depth: number, parent: string, listed = false) => {
    if (depth > DEEPEST) throw new RangeError(`It nests more than ${DEEPEST} deep.`);
    if (Array.isArray(value)) for (const one of value) walk(one, name, ways, depth + 1, parent, true);
    else if (isObject(value)) {
      const set = sets.get(name) ?? [];
      const outer = around.get(name) ?? [];
      const above = outer.at(-1);
      const found: Found = { record: value, around: ways, within: above?.record ?? null, holds: false, parent, listed };
      if (above) above.holds = true;
      if (pairOf(value) === null) set.push(found);
      sets.set(name, set);
      around.set(name, [...outer, found]);
      const own = nameOf(value);
      const inside = own === null ? ways : [...ways, { of: name, name: own }];
      for (const [key, one] of Object.entries(value))
        if (typeof one === "object") walk(one, key, inside, depth + 1, name);
      around.set(name, outer);
    }
  };
  walk(tree, Array.isArray(tree) ? "records" : "", [], 0, "");
  return sets;
}

function nameOf(value: JsonObject): string | null {
  for (const [key, one] of Object.entries(value))
    if (NAMES.test(key) && typeof one === "string" && one.trim()) return one.trim();
  return null;
}

const TELLING = new Set(["password", "userName", "signInPage", "code"]);

/**
 * The records of a tree, the likeliest first.
 * @throws RangeError when there is nothing in it that repeats, or too much
 */
export function partsOf(tree: Json): Part[] {
  const sets = candidates(tree);
  const lists = [...sets].filter(([, found]) => isList(found)).map(([name]) => name);
  const parts: (Part & { weight: number })[] = [];
  for (const [name, found] of sets) {
    if (name === "" || found.length === 0) continue;
    if (found.length > MOST_ROWS) throw new RangeError("It has more than 100,000 records. Split the file.");
    const skip = new Set([name, ...lists]);
    const flat = found.map((one) => ({ ...one, values: flatten(one.record, skip) }));
    const means = new Map(
      [...new Set(flat.flatMap(({ values }) => [...values.keys()]))].map((key) => [
        key,
        guessMeanings([key], [["x"]])[0]!,
      ]),
    );
    const tells = ({ values }: { values: Map<string, string> }) =>
      [...values].some(([key, value]) => value !== "" && TELLING.has(means.get(key)!));
    // What holds others of its name is a folder, unless it says more than a name; what lies in such a one is its history.
    const full = new Set(
      flat.filter((one) => one.values.size > 0 && (!one.holds || tells(one))).map((one) => one.record),
    );
    const records = flat.filter((one) => full.has(one.record) && !(one.within && full.has(one.within)));
    if (records.length === 0) continue;
    const header = [...new Set(records.flatMap(({ values }) => [...values.keys()]))];
    if (header.length > MOST_COLUMNS) header.length = MOST_COLUMNS;
    const rows = records.map(({ values }) => header.map((column) => values.get(column) ?? ""));
    const meanings = new Set<string>(guessMeanings(header, rows.slice(0, 50)));
    const telling = [...TELLING].filter((meaning) => meanings.has(meaning)).length;
    parts.push({
      name,
      header,
      rows,
      // The name of the whole, which does not repeat, is no folder.
      folders: records.map((one) => one.around.filter(({ of }) => lists.includes(of)).map(({ name: own }) => own)),
      weight: telling * 1000 + Math.min(records.length, 500) + header.length,
    });
  }
  if (parts.length === 0) throw new RangeError("Nothing in it looks like entries.");
  return parts.sort((a, b) => b.weight - a.weight).map(({ weight: _, ...part }) => part);
}

/**
 * Lists of things that are something by themselves. In XML a list of one looks like a part: it is known by standing under
 * parents of several names, or by holding pairs of key and value.
 */
function isList(found: readonly Found[]): boolean {
  const several =
    found.some((one) => one.listed) || new Set(found.map((one) => one.parent)).size > 1 || found.some(holdsPairs);
  return several && found.some((one) => nameOf(one.record) !== null || holdsPairs(one) || scalarsOf(one) > 2);
}

const scalarsOf = ({ record }: Found) => Object.values(record).filter(isScalar).length;
const holdsPairs = ({ record }: Found) =>
  Object.values(record).some(
    (one) => Array.isArray(one) && one.length > 1 && one.every((each) => isObject(each) && pairOf(each)),
  );
