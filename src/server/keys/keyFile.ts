/**
 * The key file beside the data: random keys, each sealed under a key derived from the root key, and a sentinel
 * that is opened first so that a wrong root key is known before the database is touched. Replaced atomically.
 */
import { existsSync, mkdirSync, readFileSync } from "node:fs";
import { open as openFile, rename } from "node:fs/promises";
import path from "node:path";
import { z } from "zod";
import {
  type Bytes,
  deriveKey,
  fromBase64Url,
  fromUtf8,
  KEY_LENGTH,
  open,
  randomBytes,
  SealError,
  seal,
  toBase64Url,
  utf8,
} from "../../core/crypto";
import { StartError } from "../startError";

const NAMES = ["database", "fingerprints", "journal", "vaults"] as const;
type KeyName = (typeof NAMES)[number];
const SENTINEL = "galtry-key-file";

const fileSchema = z.strictObject({
  format: z.literal(1),
  /** Raised at each rotation of the root key. */
  generation: z.number().int(),
  sentinel: z.string(),
  keys: z.record(z.enum(NAMES), z.string()),
});

/** The keys of a running Galtry. `vaults` wraps the vaults' keys in the database. */
export type KeyRing = Record<KeyName, Bytes> & { generation: number };

export const keyFilePath = (dataFolder: string) => path.join(/* turbopackIgnore: true */ dataFolder, "keys.json");
export const hasKeyFile = (dataFolder: string) => existsSync(keyFilePath(dataFolder));

export function newKeyRing(): KeyRing {
  return Object.assign({ generation: 1 }, ...NAMES.map((name) => ({ [name]: randomBytes(KEY_LENGTH) }))) as KeyRing;
}

export async function writeKeyFile(dataFolder: string, rootKey: Bytes, ring: KeyRing): Promise<void> {
  const wrapping = await deriveKey(rootKey, "galtry key file");
  const generation = String(ring.generation);
  const sealed = async (text: Bytes, name: string) =>
    toBase64Url(await seal(wrapping, text, ["key file", name, generation]));
  const content = {
    format: 1 as const,
    generation: ring.generation,
    sentinel: await sealed(utf8(SENTINEL), "sentinel"),
    keys: Object.fromEntries(await Promise.all(NAMES.map(async (name) => [name, await sealed(ring[name], name)]))),
  };
  mkdirSync(dataFolder, { recursive: true, mode: 0o700 });
  await replaceFile(keyFilePath(dataFolder), `${JSON.stringify(content, null, 2)}\n`);
}

/** @throws StartError when the file cannot be read or the root key is another one */
export async function readKeyFile(dataFolder: string, rootKey: Bytes): Promise<KeyRing> {
  const file = keyFilePath(dataFolder);
  let content: z.infer<typeof fileSchema>;
  try {
    content = fileSchema.parse(JSON.parse(readFileSync(file, "utf8")));
  } catch {
    throw new StartError(
      `The key file ${file} cannot be read. Restore it from a backup: Galtry does not create a new one over existing data.`,
    );
  }
  const wrapping = await deriveKey(rootKey, "galtry key file");
  const generation = String(content.generation);
  try {
    const sentinel = await open(wrapping, fromBase64Url(content.sentinel), ["key file", "sentinel", generation]);
    if (fromUtf8(sentinel) !== SENTINEL) throw new SealError("sentinel");
    const keys = await Promise.all(
      NAMES.map(
        async (name) =>
          [name, await open(wrapping, fromBase64Url(content.keys[name]), ["key file", name, generation])] as const,
      ),
    );
    return Object.assign({ generation: content.generation }, Object.fromEntries(keys)) as unknown as KeyRing;
  } catch {
    throw new StartError("The root key is not the one that this data was locked with. Galtry does not start.");
  }
}

/** Write beside, flush, rename: a crash leaves the old file or the new one. */
async function replaceFile(file: string, text: string): Promise<void> {
  const beside = `${file}.${process.pid}.new`;
  const handle = await openFile(beside, "w", 0o600);
  try {
    await handle.writeFile(text);
    await handle.sync();
  } finally {
    await handle.close();
  }
  await rename(beside, file);
}
