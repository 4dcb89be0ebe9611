"use client";

import { useEffect, useMemo, useState } from "react";
import styled from "styled-components";
import type { listedEntries } from "@/server/access/requests/requests";
import { RequestSheet } from "../requests/RequestSheet";
import { runQuery } from "../shared/ask";
import { Act } from "../shared/controls";
import { listedFound as t } from "./strings";

type ListedLine = Awaited<ReturnType<(typeof listedEntries)["execute"]>>[number];

const Found = styled.section`
  margin-top: 22px;
  h2 { font-size: 15px; line-height: 20px; padding-bottom: 6px; border-bottom: 1px solid var(--edge); }
  li { display: grid; grid-template-columns: minmax(0, 1fr) auto; gap: 12px; padding: 9px 0; border-bottom: 1px solid var(--rule); overflow-wrap: anywhere; }
`;

const MOST = 8;

/** What is listed and not given to one, found by its name or site: to be asked for. */
export function ListedFound({ typed, zone }: { typed: string; zone: string }) {
  const [all, setAll] = useState<ListedLine[] | null>(null);
  const [asking, setAsking] = useState<ListedLine | null>(null);
  const wanted = typed.trim().toLowerCase();
  const wants = wanted.length > 1;
  useEffect(() => {
    if (wants && all === null)
      void runQuery("access.listedEntries", {}).then((answer) => answer.ok && setAll(answer.result));
  }, [wants, all]);
  const found = useMemo(
    () =>
      wants
        ? (all ?? [])
            .filter((one) => one.name.toLowerCase().includes(wanted) || one.site.toLowerCase().includes(wanted))
            .slice(0, MOST)
        : [],
    [all, wanted, wants],
  );
  if (found.length === 0) return null;
  return (
    <Found aria-label={t.youCanRequestThese}>
      <h2>{t.youCanRequestThese}</h2>
      <ul>
        {found.map((one) => (
          <li key={one.id}>
            <span>
              <b>{one.name}</b> <span className="soft">{one.site}</span>
              <span className="small soft" style={{ display: "block" }}>
                {one.stewards.length > 0 ? t.steward(one.stewards.join(", ")) : t.noSteward}
              </span>
            </span>
            <Act onPress={() => setAsking(one)} aria-label={t.requestAccessTo(one.name)}>
              {t.request}
            </Act>
          </li>
        ))}
      </ul>
      {asking && (
        <RequestSheet
          nodeId={asking.id}
          name={asking.name}
          has="none"
          stewards={asking.stewards}
          zone={zone}
          onClose={() => setAsking(null)}
        />
      )}
    </Found>
  );
}
