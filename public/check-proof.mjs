/**
 * Checks a proof about the Journal that was saved from Galtry. It is on its own: it needs Node and nothing else, reads
 * the file that it is given, and asks nobody.
 *
 *   node check-proof.mjs PROOF.json [KEY]
 *
 * KEY is the key of that Galtry's checkpoints as you noted it before, from its Journal page. Without it the key in the
 * file is taken, and printed: a proof is as good as its key.
 *
 * Standards: RFC 6962 and RFC 9162 (the tree), RFC 8032 (Ed25519), FIPS 180-4 (SHA-256), C2SP signed notes.
 */
import { createHash, createPublicKey, verify } from "node:crypto";
import { readFileSync } from "node:fs";

const sha256 = (...parts) => parts.reduce((hash, part) => hash.update(part), createHash("sha256")).digest();
const node = (left, right) => sha256(Buffer.of(1), left, right);
const bytes = (text) => Buffer.from(text, "base64");

class Wrong extends Error {}
const must = (holds, otherwise) => {
  if (!holds) throw new Wrong(otherwise);
};

/** Reads a checkpoint and checks its signature. */
function open(note, verifier) {
  const [, name, mark, encoded] = /^([^+\s]+)\+([0-9a-f]{8})\+(\S+)$/.exec(verifier) ?? [];
  must(encoded, "The key is none.");
  const key = bytes(encoded);
  must(key.length === 33 && key[0] === 1, "The key is not one of Ed25519.");
  const markOf = sha256(`${name}\n`, key).subarray(0, 4);
  must(markOf.toString("hex") === mark, "The key is not the one that its name says.");
  const [, text, signatures] = /^([\s\S]*?\n)\n((?:— [^\n]+\n)+)$/.exec(note) ?? [];
  must(text, "The checkpoint is none.");
  const [origin, size, root, made] = text.split("\n");
  must(origin === name, "The checkpoint is that of another Journal than the key.");
  // An Ed25519 key as SubjectPublicKeyInfo (RFC 8410) is this and the 32 bytes of the key.
  const spki = Buffer.concat([Buffer.from("302a300506032b6570032100", "hex"), key.subarray(1)]);
  const publicKey = createPublicKey({ key: spki, format: "der", type: "spki" });
  const signed = signatures
    .trim()
    .split("\n")
    .map((line) => line.split(" "))
    .filter(([, by]) => by === name)
    .map(([, , signature]) => bytes(signature))
    .filter((signature) => signature.length === 68 && signature.subarray(0, 4).equals(markOf));
  must(signed.length > 0, "The checkpoint was not signed with this key.");
  const holds = signed.some((signature) => verify(null, Buffer.from(text), publicKey, signature.subarray(4)));
  must(holds, "The checkpoint was changed after it was signed.");
  return { origin, size: Number(size), root: bytes(root), made: made.replace("made ", "") };
}

const half = (number) => Math.floor(number / 2);
const odd = (number) => number % 2 === 1;

/** RFC 9162, section 2.1.3.2. */
function included(leaf, index, size, path, root) {
  let [at, last, hash] = [index, size - 1, leaf];
  for (const beside of path) {
    if (last === 0) return false;
    if (odd(at) || at === last) {
      hash = node(beside, hash);
      while (!odd(at) && at !== 0) [at, last] = [half(at), half(last)];
    } else hash = node(hash, beside);
    [at, last] = [half(at), half(last)];
  }
  return index < size && last === 0 && hash.equals(root);
}

/** RFC 9162, section 2.1.4.2. */
function grown(before, now, path) {
  if (before.size === now.size) return path.length === 0 && before.root.equals(now.root);
  if (before.size > now.size || before.size < 1) return false;
  const [first, ...rest] = Number.isInteger(Math.log2(before.size)) ? [before.root, ...path] : path;
  if (!first) return false;
  let [at, last] = [before.size - 1, now.size - 1];
  while (odd(at)) [at, last] = [half(at), half(last)];
  let [old, fresh] = [first, first];
  for (const beside of rest) {
    if (last === 0) return false;
    if (odd(at) || at === last) {
      [old, fresh] = [node(beside, old), node(beside, fresh)];
      while (!odd(at) && at !== 0) [at, last] = [half(at), half(last)];
    } else fresh = node(fresh, beside);
    [at, last] = [half(at), half(last)];
  }
  return last === 0 && old.equals(before.root) && fresh.equals(now.root);
}

function checkLine({ seq, hash, line, names, path, checkpoint, verifier }, key) {
  const noted = open(checkpoint, key ?? verifier);
  if (line) {
    must(line.seq === seq, "The line has another number.");
    const said = ["galtry-journal-1", line.previous, line.seq, line.at, line.act, line.outcome, line.person];
    said.push(line.node, line.vault, line.subject, line.details, line.names);
    must(sha256(JSON.stringify(said)).toString("hex") === hash, "The line does not say what was written.");
    const kept = JSON.parse(line.names);
    for (const { ref, name, salt } of names) {
      const holds = kept[ref] === sha256(JSON.stringify([salt, ref, name])).toString("hex");
      must(holds, `The name ${name} is not the one that was written with the line.`);
    }
  }
  const leaf = sha256(Buffer.of(0), Buffer.from(hash, "hex"));
  const holds = included(leaf, seq - 1, noted.size, path.map(bytes), noted.root);
  must(holds, "The line is not one of those that the checkpoint stands for.");
  const says = line
    ? `It says: ${line.act}, ${line.outcome}, ${new Date(line.at).toISOString()}, ${line.details}`
    : "What it says is not in this file.";
  const called = names.map(({ ref, name }) => `  ${ref} was called ${name}`);
  return [`Line ${seq} is one of the ${noted.size} lines of ${noted.origin} on ${noted.made}.`, says, ...called];
}

function checkGrowth({ earlier, later, path, verifier }, key) {
  const [before, now] = [open(earlier, key ?? verifier), open(later, key ?? verifier)];
  must(grown(before, now, path.map(bytes)), `Something in the first ${before.size} lines was changed.`);
  return [
    `The ${now.size} lines of ${now.origin} on ${now.made} begin with the ${before.size} of ${before.made}: nothing was changed.`,
  ];
}

const FORMATS = { "galtry-journal-proof-1": checkLine, "galtry-journal-growth-1": checkGrowth };

const [file, key] = process.argv.slice(2);
if (!file) {
  console.log("node check-proof.mjs PROOF.json [KEY]");
  process.exit(2);
}
try {
  const proof = JSON.parse(readFileSync(file, "utf8"));
  const check = FORMATS[proof.format];
  must(check, "This is no proof that this program knows.");
  console.log(check(proof, key).join("\n"));
  if (!key) console.log(`The key is the one in the file. Compare it with the one you noted: ${proof.verifier}`);
} catch (error) {
  console.log(error instanceof Wrong ? error.message : `The file cannot be read: ${error.message}`);
  process.exit(1);
}
