/** Passwords that were changed at the practice sites: kept in a file, so that they hold when the sites start again. */
import { existsSync, mkdirSync, readFileSync, writeFileSync } from "node:fs";
import path from "node:path";
import type { Account } from "./sites/site";

export interface KeptPassword {
  now: () => string;
  change: (fresh: string) => void;
}

export class Passwords {
  readonly #changed: Record<string, string>;

  /** @param file null where they may be forgotten */
  constructor(private readonly file: string | null) {
    this.#changed = file && existsSync(file) ? (JSON.parse(readFileSync(file, "utf8")) as Record<string, string>) : {};
  }

  /** Of the account at a host. */
  of(host: string, account: Account): KeptPassword {
    return {
      now: () => this.#changed[host] ?? account.password,
      change: (fresh) => {
        this.#changed[host] = fresh;
        if (!this.file) return;
        mkdirSync(path.dirname(this.file), { recursive: true });
        writeFileSync(this.file, JSON.stringify(this.#changed, null, 2), { mode: 0o600 });
      },
    };
  }
}
