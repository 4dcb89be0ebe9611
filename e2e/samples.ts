/** A place for the sample organisations of a run of tests, gone with it: their processes are ended and cannot clear up. */
import { mkdtempSync, rmSync } from "node:fs";
import { tmpdir } from "node:os";
import path from "node:path";
import type { TestProject } from "vitest/node";

declare module "vitest" {
  interface ProvidedContext {
    samples: string;
  }
}

export default function setup(project: TestProject): () => void {
  const folder = mkdtempSync(path.join(tmpdir(), "galtry-samples-"));
  project.provide("samples", folder);
  return () => rmSync(folder, { recursive: true, force: true });
}
