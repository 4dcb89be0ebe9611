"use client";

import Link from "next/link";
import styled from "styled-components";
import { QUESTIONS, type Question } from "@/core/reports/questions";
import { Page } from "../frame/Frame";
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

/** All questions there are, one a line. */
export function Reports({ upkeep }: { upkeep: boolean }) {
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
    </Page>
  );
}
