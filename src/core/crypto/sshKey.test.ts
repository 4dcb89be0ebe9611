import { parseKey, parsePrivateKey } from "sshpk";
import { describe, expect, test } from "vitest";
import { makeSshKey, type SshKeyType } from "./sshKey";

describe.each(["Ed25519", "RSA 4096"] satisfies SshKeyType[])("%s", (type) => {
  test("is read by another program's reader, and the two parts belong together", async () => {
    const made = await makeSshKey(type, "till@loom-house.tarrowick.example\n");
    const [pub, priv] = [parseKey(made.publicKey, "ssh"), parsePrivateKey(made.privateKey, "openssh")];
    expect(priv.toPublic().fingerprint("sha256").toString()).toBe(made.fingerprint);
    expect(pub.fingerprint("sha256").toString()).toBe(made.fingerprint);
    expect([pub.comment, priv.comment]).toEqual(Array(2).fill("till@loom-house.tarrowick.example"));
    const hash = type === "Ed25519" ? "sha512" : "sha256";
    const signer = priv.createSign(hash);
    signer.update("opens at ten");
    const verifier = pub.createVerify(hash);
    verifier.update("opens at ten");
    expect(verifier.verify(signer.sign())).toBe(true);
  }, 30_000);
});

test("two keys are never the same", async () => {
  const [a, b] = await Promise.all([makeSshKey("Ed25519", ""), makeSshKey("Ed25519", "")]);
  expect(a.publicKey).not.toBe(b.publicKey);
  expect(a.publicKey.split(" ")).toHaveLength(2);
});
