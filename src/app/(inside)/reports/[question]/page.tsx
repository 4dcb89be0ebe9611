import { notFound } from "next/navigation";
import { askedOf, isQuestion } from "@/core/reports/questions";
import { Report } from "@/interface/reports/Report";
import { dayAfter, dayOf, fromLocal } from "@/interface/shared/localTime";
import { readsAll } from "@/server/caller";
import { ask, me } from "@/server/page";
import { ownReportMails } from "@/server/reports/mailed";
import { report } from "@/server/reports/report";

export const metadata = { title: "Report" };

const DAY = 86_400_000;
const idOf = (text: string | undefined): string | null => (/^[0-9a-f-]{36}$/.test(text ?? "") ? text! : null);

export default async function ReportPage({
  params,
  searchParams,
}: {
  params: Promise<{ question: string }>;
  searchParams: Promise<Record<string, string | undefined>>;
}) {
  const [{ role, steward, zone }, { question }, search] = await Promise.all([me(), params, searchParams]);
  if (!isQuestion(question) || !(steward || readsAll(role))) notFound();
  const { days } = askedOf(question);
  const ago = (count: number) => new Date(Date.now() - count * DAY).toISOString().slice(0, 10);
  const asking = {
    node: idOf(search.node),
    person: idOf(search.person),
    from: dayOf(search.from) ?? (days === "both" ? ago(30) : days === "first" ? ago(90) : null),
    to: days === "both" ? (dayOf(search.to) ?? ago(0)) : null,
  };
  const mailing = ask(ownReportMails, {});
  const answer = await ask(report, {
    question,
    nodeId: asking.node,
    personId: asking.person,
    from: asking.from === null ? null : fromLocal(`${asking.from}T00:00`, zone),
    until: asking.to === null ? null : fromLocal(`${dayAfter(asking.to)}T00:00`, zone),
  });
  return <Report {...{ question, answer, asking }} mailed={await mailing} />;
}
