import { describe, expect, test } from "vitest";
import { fromHex, sha256, toBase64, toHex, utf8 } from "../crypto";
import { FIRST_PREVIOUS, type JournalLine, lineHash } from "./chain";
import { openCheckpoint, signCheckpoint, verifierOf } from "./checkpoint";
import { nameHash } from "./names";
import { checkGrowth, checkLineProof, type LineProof, PROOF_FORMAT } from "./proof";
import { growthPath, inclusionPath, leafOf, rootOf, subtreeOf } from "./tree";

/** RFC 8032, section 7.1, test 1. */
const secret = fromHex("9d61b19deffd5a60ba844af492ec2cc44449c5697b326919703bac031cae7f60");
const publicKey = fromHex("d75a980182b10ab7d54bfed3c964073a0ee172f3daa62325af021a68f707511a");
const other = fromHex("4ccd089b28ff96da9db6c346ec114e0f5b8a319f35aba624da8cf6ed4fb8a6fb");
const origin = "galtry.tarrowick.example/journal";
const verifier = verifierOf(origin, secret);
const at = Date.parse("2026-12-01T06:00:00Z");
const note = signCheckpoint({ origin, size: 1204, root: sha256(utf8("all of it")), at }, secret);

describe("a checkpoint", () => {
  test("is a signed note: origin, size, root, moment, and a signature that says by which key", async () => {
    const lines = note.split("\n");
    expect(lines.slice(0, 4)).toEqual([
      origin,
      "1204",
      toBase64(sha256(utf8("all of it"))),
      "made 2026-12-01T06:00:00Z",
    ]);
    expect(lines[4]).toBe("");
    expect(lines[5]).toMatch(/^— galtry\.tarrowick\.example\/journal [A-Za-z0-9+/]+=*$/);
    // Another implementation of the standard agrees.
    const signed = Uint8Array.from(atob(lines[5]!.split(" ")[2]!), (one) => one.charCodeAt(0));
    const key = await crypto.subtle.importKey("raw", publicKey, "Ed25519", false, ["verify"]);
    expect(await crypto.subtle.verify("Ed25519", key, signed.slice(4), utf8(`${lines.slice(0, 4).join("\n")}\n`))).toBe(
      true,
    );
    const mark = sha256(Uint8Array.of(...utf8(`${origin}\n`), 1, ...publicKey)).slice(0, 4);
    expect(toHex(signed.slice(0, 4))).toBe(toHex(mark));
    expect(verifier).toBe(`${origin}+${toHex(mark)}+${toBase64(Uint8Array.of(1, ...publicKey))}`);
  });

  test("opens as it was, also as a mail program hands it on", () => {
    const opened = { origin, size: 1204, root: sha256(utf8("all of it")), at };
    expect(openCheckpoint(note, verifier)).toEqual(opened);
    expect(openCheckpoint(`\r\n${note.replaceAll("\n", "\r\n")}\r\n\r\n`, verifier)).toEqual(opened);
    expect(openCheckpoint(`Galtry at Tarrowick\n\nKeep this:\n\n${note}\nGaltry, Tarrowick\n`, verifier)).toEqual(
      opened,
    );
    // Somebody else may sign it too.
    expect(openCheckpoint(`${note}— witness.example/w AAAA\n`, verifier)).toEqual(opened);
  });

  test.each([
    ["a size", note.replace("1204", "1205"), "signature"],
    ["a root", note.replace(/\n[^\n]{20}/, (a) => a.toLowerCase()), "signature"],
    ["a moment", note.replace("06:00:00", "07:00:00"), "signature"],
    ["a signature", note.replace(/.{9}=*\n$/, "AAAAAAAA=\n"), "key"],
    ["an origin", note.replaceAll("tarrowick", "wexcombe"), "origin"],
    ["another key", signCheckpoint({ origin, size: 1204, root: new Uint8Array(32), at }, other), "key"],
    ["no signature", note.split("\n\n")[0]!, "form"],
    ["a size with a nought before it", note.replace("1204", "01204"), "form"],
    ["a short root", note.replace(/\n[A-Za-z0-9+/]{43}=\n/, "\nAAAA\n"), "form"],
    ["nothing", "", "form"],
    ["something else", "Dear all,\n\nthe shop is closed.\n", "form"],
  ])("with %s changed does not open", (_, changed, fault) => {
    expect(changed).not.toBe(note);
    expect(openCheckpoint(changed, verifier)).toEqual({ fault });
  });

  test("does not open with a key whose mark is not its own", () => {
    const forged = `${origin}+${verifier.split("+")[1]}+${toBase64(Uint8Array.of(1, ...other))}`;
    expect(openCheckpoint(note, forged)).toEqual({ fault: "key" });
    expect(openCheckpoint(note, "no key")).toEqual({ fault: "key" });
  });
});

function journal(length: number, changed?: number) {
  const lines: (JournalLine & { previous: string; hash: string })[] = [];
  for (let seq = 1; seq <= length; seq++) {
    const names = JSON.stringify({ p: nameHash({ salt: "5a17", ref: "p", name: "Maren Pohl" }) });
    const line: JournalLine = {
      ...{ seq, at: at + seq, act: "vaults.revealField", outcome: "done", person: "p", node: "n", vault: "v" },
      ...{ subject: null, details: JSON.stringify({ field: seq === changed ? "notes" : "password" }), names },
    };
    const previous = lines.at(-1)?.hash ?? FIRST_PREVIOUS;
    lines.push({ ...line, previous, hash: lineHash(line, previous) });
  }
  const subtree = subtreeOf(lines.map(({ hash }) => leafOf(hash)));
  const noted = async (size: number) =>
    signCheckpoint({ origin, size, root: await rootOf(subtree, size), at: at + size }, secret);
  return { lines, subtree, noted };
}

describe("the proof of a line", () => {
  async function proofOf(seq: number, size: number): Promise<LineProof> {
    const { lines, subtree, noted } = journal(size);
    const { hash, ...line } = lines[seq - 1]!;
    const path = (await inclusionPath(subtree, seq - 1, size)).map(toBase64);
    const names = [{ ref: "p", name: "Maren Pohl", salt: "5a17" }];
    return { format: PROOF_FORMAT, seq, hash, line, names, path, checkpoint: await noted(size), verifier };
  }

  test("holds for each line, with what it says and without", async () => {
    for (let seq = 1; seq <= 11; seq++) {
      const proof = await proofOf(seq, 11);
      expect(checkLineProof(proof)).toMatchObject({ size: 11, origin });
      expect(checkLineProof({ ...proof, line: null, names: [] })).toMatchObject({ size: 11 });
    }
  });

  test("does not hold for anything else", async () => {
    const proof = await proofOf(4, 11);
    const line = proof.line!;
    const faults: [Partial<LineProof>, string][] = [
      [{ line: { ...line, person: "q" } }, "line"],
      [{ line: { ...line, details: '{"field":"notes"}' } }, "line"],
      [{ line: { ...line, seq: 5 } }, "line"],
      [{ seq: 5 }, "line"],
      [{ seq: 5, line: null, names: [] }, "path"],
      [{ hash: "0".repeat(64), line: null, names: [] }, "path"],
      [{ names: [{ ref: "p", name: "Juno Hale", salt: "5a17" }] }, "name"],
      [{ names: [{ ref: "q", name: "Maren Pohl", salt: "5a17" }] }, "name"],
      [{ path: proof.path.slice(1) }, "path"],
      [{ path: proof.path.toReversed() }, "path"],
      [{ checkpoint: await journal(12).noted(12) }, "path"],
      [{ verifier: verifierOf(origin, other) }, "key"],
    ];
    for (const [change, fault] of faults) expect(checkLineProof({ ...proof, ...change })).toEqual({ fault });
  });
});

describe("from one checkpoint to a later one", () => {
  test("nothing was changed, or something was", async () => {
    const grown = (earlier: string, later: string, path: string[]) => checkGrowth({ earlier, later, path, verifier });
    const kept = journal(20);
    const changed = journal(20, 6);
    const path = async ({ subtree }: typeof kept, before: number) =>
      (await growthPath(subtree, before, 20)).map(toBase64);
    const later = await kept.noted(20);
    for (const size of [1, 6, 8, 19, 20])
      expect(grown(await kept.noted(size), later, await path(kept, size))).toMatchObject({
        earlier: { size },
        later: { size: 20 },
      });
    const cut = await kept.noted(19);
    expect(grown(later, cut, [])).toEqual({ fault: "shorter" });
    const rewritten = await changed.noted(20);
    expect(grown(cut, rewritten, await path(changed, 19))).toEqual({ fault: "changed" });
    expect(grown(await kept.noted(5), rewritten, await path(changed, 5))).toMatchObject({
      earlier: { size: 5 },
    });
    expect(grown("none", later, [])).toEqual({ fault: "form" });
  });
});
