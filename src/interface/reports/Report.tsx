"use client";

import Link from "next/link";
import { useRouter } from "next/navigation";
import { useState } from "react";
import styled from "styled-components";
import { harmless, writeCsv } from "@/core/formats/csv";
import { askedOf, MOMENTS, type Question, type ReportColumn, type ReportRow } from "@/core/reports/questions";
import { exactTime, sayFullDate } from "@/core/time";
import type { ReportAnswer } from "@/server/reports/report";
import { entryFull } from "../entry/strings";
import { findSubjects } from "../entry/subjects";
import { Page } from "../frame/Frame";
import { runQuery } from "../shared/ask";
import { Button, Row } from "../shared/controls";
import { DayField, DaysField } from "../shared/DateFields";
import { MaybeLink } from "../shared/MaybeLink";
import { Picker } from "../shared/Picker";
import { save } from "../shared/save";
import { EmailMe, type MailedReports } from "./EmailMe";
import { reports as t } from "./strings";

const Table = styled.table`
  width: 100%;
  margin-top: 16px;
  border-collapse: collapse;
  background: var(--sheet);
  border-top: 3px solid var(--ink);
  th, td { padding: 8px 12px; border-bottom: 1px solid var(--rule); text-align: left; vertical-align: top; font-size: 14px; line-height: 20px; overflow-wrap: anywhere; }
  th { color: var(--soft); font-weight: 600; font-size: 13.5px; white-space: nowrap; }
  td[data-as="moment"] { white-space: nowrap; font-variant-numeric: tabular-nums; }
  td[data-as="level"] { white-space: nowrap; }
  td[data-as="person"] { min-width: 150px; }
  td[data-as="why"] { min-width: 220px; }
  @media (max-width: 719px) {
    thead { display: none; }
    &, tbody, tr, td { display: block; }
    tr { padding: 8px 0; border-bottom: 1px solid var(--edge); }
    td { padding: 1px 12px; border: 0; }
    td:empty { display: none; }
    td[data-as="moment"]::before, td[data-as="by"]::before, td[data-as="people"]::before { content: attr(data-head) ": "; color: var(--soft); }
  }
  @media print { th, td { padding: 3pt 5pt; font-size: 9pt; line-height: 12pt; border-color: #999; } thead { display: table-header-group; } tr { break-inside: avoid; } }
`;

const Asked = styled(Row)`
  align-items: end;
  > div { min-width: 240px; }
  @media print { display: none; }
`;

export interface Asking {
  node: string | null;
  person: string | null;
  /** Days, as a date field gives them. */
  from: string | null;
  to: string | null;
}

const findPlaces = (vaults: boolean) => async (text: string) => {
  const answer = await runQuery("reports.reportPlaces", { text, vaults });
  return answer.ok ? answer.result : null;
};
const anyPlace = findPlaces(false);
const anyVault = findPlaces(true);
const anyPerson = findSubjects("people");

function headOf(question: Question, column: ReportColumn): string {
  if (question === "known" && t.known[column]) return t.known[column];
  if (question === "unused" && column === "at") return t.lastUsed;
  if (question === "over" && column === "person") return t.givenTo;
  return t.heads[column];
}

/** A value as it is read and saved: a moment exactly, in the organisation's zone. */
function said(row: ReportRow, column: ReportColumn, zone: string, short: boolean): string {
  const value = row[column];
  if (MOMENTS.has(column)) {
    if (typeof value === "number") return short ? sayFullDate(value, zone) : exactTime(value, zone);
    // What was never changed has no moment; what nobody used was never used.
    return value === undefined ? "" : column === "until" ? t.noEnd : t.never;
  }
  if (column === "how") {
    const words: Record<string, string> = { ...entryFull.seenHow, ...t.hows };
    return words[String(value)] ?? String(value);
  }
  return value === null || value === undefined ? "" : String(value);
}

interface ReportProps {
  question: Question;
  answer: ReportAnswer;
  asking: Asking;
  mailed: MailedReports;
}

/** One question, what it is asked about, and the answer. */
export function Report({ question, answer, asking, mailed }: ReportProps) {
  const router = useRouter();
  const asked = askedOf(question);
  const go = (change: Partial<Asking>) => {
    const query = new URLSearchParams();
    for (const [key, value] of Object.entries({ ...asking, ...change })) if (value) query.set(key, value);
    router.push(`/reports/${question}?${query}`);
  };
  const waits =
    asked.node === "any" && asking.node === null
      ? t.choose.node
      : asked.person && asking.person === null
        ? t.choose.person
        : null;
  const { rows, zone, at } = answer;
  const columns = asked.columns.filter((column) => column !== "note" || rows.some((row) => row.note));
  const file = `report-${question}-${new Date(at).toISOString().slice(0, 10)}`;
  const saveCsv = () =>
    save(
      new Blob([
        "\uFEFF",
        writeCsv(
          columns.map((column) => headOf(question, column)),
          rows.map((row) => columns.map((column) => harmless(said(row, column, zone, false)))),
        ),
      ]),
      `${file}.csv`,
    );
  const saveJson = () => save(new Blob([rows.map((row) => jsonLine(row, columns)).join("")]), `${file}.jsonl`);
  return (
    <Page where={<Link href="/reports">{t.reports}</Link>}>
      <h1>{t.questions[question]}</h1>
      <p className="soft" style={{ margin: "6px 0 16px" }}>
        {t.tells[question]}
      </p>
      <Asked>
        {asked.node && (
          <div>
            <Picker
              label={asked.node === "vault" ? t.vault : t.entryFolderOrVault}
              seen
              placeholder={(asking.node && answer.about) ?? (asked.node === "vault" ? t.allVaults : "")}
              list={t.places}
              nothing={t.noMatch}
              load={asked.node === "vault" ? anyVault : anyPlace}
              searches
              onPick={({ id }) => go({ node: id })}
            />
          </div>
        )}
        {asked.person && (
          <div>
            <Picker
              label={t.person}
              seen
              placeholder={(asking.person && answer.about) ?? ""}
              list={t.people}
              nothing={t.noMatch}
              load={anyPerson}
              searches
              onPick={({ id }) => go({ person: id })}
            />
          </div>
        )}
        {asked.days === "both" && (
          <DaysField label={t.days} from={asking.from} to={asking.to} onDays={(from, to) => go({ from, to })} />
        )}
        {asked.days === "first" && (
          <div>
            <Since key={asking.from} from={asking.from ?? ""} onDay={(from) => go({ from })} />
          </div>
        )}
        {asked.node === "vault" && asking.node && <Button onPress={() => go({ node: null })}>{t.allVaults}</Button>}
        {rows.length > 0 && (
          <>
            <Button onPress={() => window.print()}>{t.print}</Button>
            <Button onPress={saveCsv}>{t.csv}</Button>
            <Button onPress={saveJson}>{t.jsonLines}</Button>
          </>
        )}
        {!waits && <EmailMe {...{ question, mailed }} node={asking.node} person={asking.person} />}
      </Asked>
      {waits ? (
        <p style={{ marginTop: 24 }}>{waits}</p>
      ) : (
        <>
          {answer.about && (
            <h2 style={{ marginTop: 24 }} data-about>
              {answer.about}
            </h2>
          )}
          <p className="soft small" style={{ marginTop: 12 }} role="status">
            {t.rows(rows.length, answer.more)}, {t.asOf(exactTime(at, zone))}.{" "}
            {question === "known" && rows.length > 0 && `${t.stillWorks(stillWorking(rows))} `}
            {answer.unnamed > 0 && t.unnamed(answer.unnamed)}
          </p>
          {rows.length === 0 ? (
            <p style={{ marginTop: 12 }}>{t.nothing}</p>
          ) : (
            <Rows {...{ question, columns, rows, zone }} />
          )}
        </>
      )}
    </Page>
  );
}

function Since({ from, onDay }: { from: string; onDay: (day: string | null) => void }) {
  const [day, setDay] = useState(from);
  return (
    <DayField
      label={t.sinceDay}
      value={day}
      onText={(text) => {
        setDay(text);
        // While its year is being typed it is one of long ago.
        if (text === "" || (text >= "2000" && text !== from)) onDay(text || null);
      }}
    />
  );
}

/** The moment at which somebody changed it is there of what was changed. */
const stillWorking = (rows: readonly ReportRow[]): number => rows.filter(({ since }) => since === undefined).length;

const jsonLine = (row: ReportRow, columns: readonly ReportColumn[]): string => {
  const said = columns.map((column) => {
    const value = row[column] ?? null;
    return [column, MOMENTS.has(column) && typeof value === "number" ? new Date(value).toISOString() : value];
  });
  return `${JSON.stringify(Object.fromEntries(said))}\n`;
};

function Rows({
  question,
  columns,
  rows,
  zone,
}: {
  question: Question;
  columns: readonly ReportColumn[];
  rows: readonly ReportRow[];
  zone: string;
}) {
  return (
    <Table>
      <thead>
        <tr>
          {columns.map((column) => (
            <th key={column} scope="col">
              {headOf(question, column)}
            </th>
          ))}
        </tr>
      </thead>
      <tbody>
        {rows.map((row, at) => (
          <tr key={at}>
            {columns.map((column) => (
              <td
                key={column}
                data-as={MOMENTS.has(column) ? "moment" : column}
                data-head={headOf(question, column)}
                title={
                  MOMENTS.has(column) && typeof row[column] === "number" ? said(row, column, zone, false) : undefined
                }
              >
                {column === "place" ? (
                  <MaybeLink to={row.link || null}>{said(row, column, zone, true)}</MaybeLink>
                ) : (
                  said(row, column, zone, true)
                )}
              </td>
            ))}
          </tr>
        ))}
      </tbody>
    </Table>
  );
}
