/** The root key: 32 bytes in a file with mode 0600 outside the data folder, or in the environment. */
import { existsSync, mkdirSync, readFileSync, realpathSync, statSync, writeFileSync } from "node:fs";
import path from "node:path";
import { type Bytes, fromBase64Url, KEY_LENGTH, randomBytes, toBase64Url } from "../../core/crypto";
import type { Configuration } from "../configuration";
import { StartError } from "../startError";

/** @throws StartError when there is none or it is not a key */
export function readRootKey(configuration: Configuration): Bytes {
  if (configuration.rootKey !== undefined) return parse(configuration.rootKey, "GALTRY_ROOT_KEY");
  const file = configuration.rootKeyFile;
  if (!existsSync(file))
    throw new StartError(`The root key is missing: ${file} is not there. Without it this data cannot be opened.`);
  if (process.platform !== "win32" && (statSync(file).mode & 0o077) !== 0)
    throw new StartError(`The root key in ${file} can be read by others. Set its mode to 0600.`);
  return parse(readFileSync(file, "utf8"), file);
}

export function hasRootKey(configuration: Configuration): boolean {
  return configuration.rootKey !== undefined || existsSync(configuration.rootKeyFile);
}

/**
 * Makes a new root key file; never over an existing one, and never where it would be carried away with the data.
 * @throws StartError for a place within the data folder
 */
export function makeRootKey(file: string, dataFolder: string): Bytes {
  const way = path.relative(realPlace(dataFolder), realPlace(file));
  if (way !== ".." && !way.startsWith(`..${path.sep}`) && !path.isAbsolute(way))
    throw new StartError(
      `The root key would lie within the data folder, and every copy of the data would hold it: set GALTRY_ROOT_KEY_FILE to a place outside ${dataFolder}.`,
    );
  const key = randomBytes(KEY_LENGTH);
  mkdirSync(path.dirname(file), { recursive: true });
  writeFileSync(file, `${toBase64Url(key)}\n`, { mode: 0o600, flag: "wx" });
  return key;
}

/** Without links on the way, as far as it is there yet. */
function realPlace(place: string): string {
  const whole = path.resolve(place);
  if (existsSync(whole)) return realpathSync(whole);
  const above = path.dirname(whole);
  return above === whole ? whole : path.join(realPlace(above), path.basename(whole));
}

function parse(text: string, where: string): Bytes {
  try {
    const key = fromBase64Url(text.trim());
    if (key.length === KEY_LENGTH) return key;
  } catch {
    // told below
  }
  throw new StartError(`The root key in ${where} is not 32 bytes in base64url.`);
}
