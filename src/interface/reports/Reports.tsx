"use client";

import Link from "next/link";
import styled from "styled-components";
import { QUESTIONS, type Question } from "@/core/reports/questions";
import { Page } from "../frame/Frame";
import { Act } from "../shared/controls";
import { type MailedReports, useStop } from "./EmailMe";
import { reports as t } from "./strings";

const List = styled.ul`
  margin-top: 16px;
  border-top: 3px solid var(--ink);
  li { padding: 12px 0; border-bottom: 1px solid var(--rule); }
  a { font-weight: 600; }
  p { margin-top: 2px; }
`;

/** Answered elsewhere. */
const ELSEWHERE = { exports: "/journal?acts=exports", year: "/upkeep" } as const;

function addressOf({ question, nodeId, personId }: MailedReports["rows"][number]): string {
  const search = new URLSearchParams({ ...(nodeId && { node: nodeId }), ...(personId && { person: personId }) });
  return `/reports/${question}${search.size > 0 ? `?${search}` : ""}`;
}

/** All questions there are, one a line. */
export function Reports({ upkeep, mailed }: { upkeep: boolean; mailed: MailedReports }) {
  const stop = useStop();
  const own = (Object.keys(QUESTIONS) as Question[]).map((key) => ({ key, href: `/reports/${key}` }));
  const others = (["exports", "year"] as const)
    .filter((key) => key !== "year" || upkeep)
    .map((key) => ({ key, href: ELSEWHERE[key] }));
  return (
    <Page where={t.readyQuestions}>
      <h1>{t.reports}</h1>
      <List>
        {[...own, ...others].map(({ key, href }) => (
          <li key={key}>
            <Link href={href} prefetch={false}>
              {t.questions[key]}
            </Link>
            <p className="soft small">{t.tells[key]}</p>
          </li>
        ))}
      </List>
      {mailed.rows.length > 0 && (
        <section style={{ marginTop: 28 }}>
          <h2>{t.byEmail}</h2>
          <List>
            {mailed.rows.map((row) => (
              <li key={row.id}>
                <Link href={addressOf(row)} prefetch={false}>
                  {t.questions[row.question]}
                </Link>
                <p className="soft small">
                  {t.emailed[row.every]}{" "}
                  <Act onPress={() => void stop(row.id)} aria-label={t.stopOf(t.questions[row.question])}>
                    {t.stop}
                  </Act>
                </p>
              </li>
            ))}
          </List>
        </section>
      )}
    </Page>
  );
}
