"use client";

import Link from "next/link";
import type { ResultOf } from "@/server/registry";
import type { RunView } from "@/server/signin/runs";
import { Page } from "../frame/Frame";
import { Head } from "../vaults/VaultList";
import { SeenStill } from "./SeenStill";
import { knownPage as t } from "./strings";

interface KnownPageProps {
  view: ResultOf<"people.knownPage">;
  runs: readonly RunView[];
  zone: string;
  now: number;
}

/** What somebody knows and what of it has to be changed: each steward's share, and how far the others are. */
export function KnownPage({ view, runs, zone, now }: KnownPageProps) {
  return (
    <Page where={t.where(<Link href={`/people/${view.id}`}>{view.name}</Link>)}>
      <Head>
        <h1>{t.title(view.name)}</h1>
      </Head>
      <div style={{ maxWidth: 860 }}>
        <SeenStill person={view} known={view} asks={view.asks} {...{ runs, zone, now }} />
      </div>
    </Page>
  );
}
