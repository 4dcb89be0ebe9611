"use client";

import Link from "next/link";
import { useRef, useState } from "react";
import { FAILURES, type SignInOutcome } from "@/core/signin/outcome";
import { post, runQuery } from "../shared/ask";
import { Button, Chip, Row } from "../shared/controls";
import { testLogins as t } from "./strings";

/** Between two tries: a site, or what watches over it, takes a row of quick ones for an attack. */
const PAUSE_MS = 2_000;

interface Tried {
  entryId: string;
  name: string;
  outcome: SignInOutcome | "not-tried";
  says: string;
}

/** Sealed sign-ins tried one after another, slowly, once each; the result stands on every entry. */
export function TestLogins({ importId, count }: { importId: string; count: number }) {
  const [tried, setTried] = useState<Tried[]>([]);
  const [at, setAt] = useState<number | null>(null);
  const stopped = useRef(false);
  const [entries, setEntries] = useState<{ entryId: string; name: string }[]>([]);
  if (count === 0) return null;
  const list = async () => {
    if (entries.length > 0) return entries;
    const answer = await runQuery("vaults.importTestable", { importId });
    const found = answer.ok ? answer.result : [];
    setEntries(found);
    return found;
  };
  const run = async () => {
    stopped.current = false;
    const all = await list();
    for (let i = tried.length; i < all.length && !stopped.current; i++) {
      setAt(i);
      const { entryId, name } = all[i]!;
      const answer = await post<{ outcome: SignInOutcome; detail: string }>(`/api/test/${entryId}`, {});
      const one: Tried = answer.ok
        ? { entryId, name, outcome: answer.result.outcome, says: answer.result.detail }
        : { entryId, name, outcome: "not-tried", says: answer.refused.message };
      setTried((before) => [...before, one]);
      await new Promise((resolve) => setTimeout(resolve, PAUSE_MS));
    }
    setAt(null);
  };
  const good = tried.filter((one) => one.outcome === "signed-in").length;
  return (
    <section>
      <h2 style={{ paddingBottom: 6, borderBottom: "1px solid var(--edge)" }}>{t.testTheLogins}</h2>
      <p>{t.galtrySignsInWithEachLoginOnce(count)}</p>
      <Row style={{ marginTop: 10 }}>
        {at === null ? (
          tried.length < count && <Button onPress={run}>{tried.length === 0 ? t.testTheLogins : t.continueWord}</Button>
        ) : (
          <>
            <span role="status">
              {t.testingOf(entries[at]?.name, (at + 1).toLocaleString("en-GB"), count.toLocaleString("en-GB"))}
            </span>
            <Button
              onPress={() => {
                stopped.current = true;
              }}
            >
              {t.stop}
            </Button>
          </>
        )}
      </Row>
      {tried.length > 0 && (
        <>
          <p style={{ marginTop: 10 }}>
            {t.ofWork(<b>{good.toLocaleString("en-GB")}</b>, tried.length.toLocaleString("en-GB"))}
          </p>
          <ul>
            {tried
              .filter((one) => one.outcome !== "signed-in")
              .map((one) => (
                <li key={one.entryId} style={{ padding: "6px 0", borderBottom: "1px solid var(--rule)" }}>
                  <Link href={`/entry/${one.entryId}`} prefetch={false}>
                    {one.name}
                  </Link>
                  :{" "}
                  <Chip data-tone="bad">
                    {one.outcome === "not-tried" ? t.notTested : FAILURES[one.outcome as keyof typeof FAILURES]?.title}
                  </Chip>{" "}
                  <span className="soft small">{one.says}</span>
                </li>
              ))}
          </ul>
        </>
      )}
    </section>
  );
}
