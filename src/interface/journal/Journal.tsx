"use client";

import Link from "next/link";
import { useRouter } from "next/navigation";
import { useState } from "react";
import styled from "styled-components";
import { harmless, writeCsv } from "@/core/formats/csv";
import { exactTime, sayTime } from "@/core/time";
import type { Acts, journalPage } from "@/server/journal/page";
import { capital } from "../entry/Card";
import { findSubjects } from "../entry/subjects";
import { Page } from "../frame/Frame";
import { runQuery } from "../shared/ask";
import { Act, Button, ButtonLink, Chip, ChoiceField, Row, TextField } from "../shared/controls";
import { DaysField } from "../shared/DateFields";
import { fromLocal } from "../shared/localTime";
import { Picker } from "../shared/Picker";
import { save } from "../shared/save";
import { CheckJournal } from "./CheckJournal";
import { LineProof } from "./LineProof";
import { lineProof, journal as t } from "./strings";

type View = Awaited<ReturnType<(typeof journalPage)["execute"]>>;

const Lines = styled.ol`
  border-top: 3px solid var(--ink);
  li { display: grid; grid-template-columns: 170px minmax(0, 1fr); gap: 16px; padding: 7px 0; border-bottom: 1px solid var(--rule); font-size: 14px; line-height: 20px; overflow-wrap: anywhere; }
  li[data-numbered] { grid-template-columns: 64px 170px minmax(0, 1fr); }
  a.plain { color: inherit; text-decoration-color: var(--edge); }
  .no, time { color: var(--soft); font-variant-numeric: tabular-nums; }
  button.no { justify-self: start; min-height: 20px; font-weight: 400; }
  @media (max-width: 719px) {
    li { grid-template-columns: minmax(0, 1fr); gap: 0; }
    li[data-numbered] { grid-template-columns: auto minmax(0, 1fr); gap: 0 12px; }
    li[data-numbered] > :last-child { grid-column: 1 / -1; }
  }
`;

/** More nobody reads; narrowed by dates it comes in parts. */
const MOST_CSV_LINES = 5_000;

const journalCsv = (lines: readonly View["lines"][number][]): string =>
  writeCsv(
    [t.line, t.when, t.who, t.what],
    lines.map((line) => [
      line.seq === null ? "" : String(line.seq),
      new Date(line.at).toISOString(),
      harmless(line.who ?? t.galtry),
      harmless(`${line.says}${line.refused ? ` (${t.refused})` : ""}`),
    ]),
  );

export interface JournalFilters {
  person: string | null;
  acts: Acts | null;
  /** A vault or an entry. */
  node: string | null;
  /** Of a reason. */
  words: string | null;
  /** Days, as a date field gives them. */
  from: string | null;
  to: string | null;
}

const ACT_WORDS: Record<Acts, string> = {
  "sign-ins": "Sign-ins",
  revealed: t.revealedAndCopied,
  access: "Access",
  entries: t.entriesAndVaults,
  people: "People",
  Lanyard: "Lanyard",
  exports: t.exportsAndHandovers,
};

const findPeople = findSubjects("people");

const loadNodes = async () => {
  const answer = await runQuery("journal.journalNodes", {});
  return answer.ok ? answer.result : null;
};

export function Journal({
  view,
  byPerson,
  reports,
  filters,
  now,
}: {
  view: View;
  /** The reader may look for what one person did. */
  byPerson: boolean;
  reports: boolean;
  filters: JournalFilters;
  now: number;
}) {
  const router = useRouter();
  const address = (change: Partial<JournalFilters> & { before?: string }) => {
    const query = new URLSearchParams();
    for (const [key, value] of Object.entries({ ...filters, ...change })) if (value) query.set(key, value);
    return `/journal?${query}`;
  };
  const go = (change: Partial<JournalFilters>) => router.push(address(change));
  const [words, setWords] = useState(filters.words ?? "");
  const [checking, setChecking] = useState(false);
  const [proven, setProven] = useState<View["lines"][number] | null>(null);
  const [saving, setSaving] = useState(false);
  const saveCsv = async () => {
    setSaving(true);
    const lines = [...view.lines];
    const moment = (day: string | null, hours: number) =>
      day === null ? null : fromLocal(`${day}T00:00`, view.zone)! + hours * 3_600_000;
    let before = view.more;
    while (before !== null && lines.length < MOST_CSV_LINES) {
      const answer = await runQuery("journal.journalPage", {
        before,
        ...{ from: moment(filters.from, 0), until: moment(filters.to, 24) },
        ...{ personId: filters.person, nodeId: filters.node, acts: filters.acts, words: filters.words ?? "" },
      });
      if (!answer.ok) break;
      lines.push(...answer.result.lines);
      before = answer.result.more;
    }
    save(new Blob(["\uFEFF", journalCsv(lines)]), `journal-${new Date(now).toISOString().slice(0, 10)}.csv`);
    setSaving(false);
  };
  return (
    <Page
      where={
        filters.node && view.about
          ? t.whatHappenedToNewestFirst(<b>{view.about}</b>)
          : view.seesAll
            ? t.everythingThatWasDoneNewest
            : t.whatYouDidAndWhatHappenedWhere
      }
    >
      <h1 style={{ marginBottom: 16 }}>{t.journal}</h1>
      {checking && <CheckJournal zone={view.zone} onClose={() => setChecking(false)} />}
      {proven?.seq && (
        <LineProof
          line={{ seq: proven.seq, who: proven.who ?? t.galtry, says: proven.says }}
          zone={view.zone}
          onClose={() => setProven(null)}
        />
      )}
      <Row style={{ marginBottom: 16, alignItems: "end" }}>
        {byPerson && (
          <div style={{ minWidth: 220 }}>
            <Picker
              label={t.person}
              seen
              placeholder={view.person ?? t.allPeople}
              list={t.people}
              nothing={t.noMatchTryPartOfTheName}
              load={findPeople}
              searches
              onPick={(person) => go({ person: person.id })}
            />
          </div>
        )}
        <div style={{ minWidth: 220 }}>
          <Picker
            label={t.entryOrVault}
            seen
            placeholder={view.about ?? t.allEntriesAndVaults}
            list={t.entriesAndVaults}
            nothing={t.nothingYouHaveAccessToMatches}
            load={loadNodes}
            onPick={(node) => go({ node: node.id })}
          />
        </div>
        <div>
          <ChoiceField
            label={t.act}
            value={filters.acts ?? ""}
            onChange={(event) => go({ acts: (event.target.value as Acts) || null })}
          >
            <option value="">{t.allActs}</option>
            {Object.entries(ACT_WORDS).map(([key, word]) => (
              <option key={key} value={key}>
                {word}
              </option>
            ))}
          </ChoiceField>
        </div>
        <div>
          <DaysField label={t.days} from={filters.from} to={filters.to} onDays={(from, to) => go({ from, to })} />
        </div>
        <form
          role="search"
          onSubmit={(event) => {
            event.preventDefault();
            go({ words: words.trim() || null });
          }}
        >
          <TextField
            label={t.wordsOfAReason}
            value={words}
            onText={setWords}
            onBlur={() => words.trim() !== (filters.words ?? "") && go({ words: words.trim() || null })}
            type="search"
            maxLength={200}
          />
        </form>
        {filters.person && <Button onPress={() => go({ person: null })}>{t.allPeople}</Button>}
        {filters.node && <Button onPress={() => go({ node: null })}>{t.allEntriesAndVaults}</Button>}
        <Button isDisabled={saving} onPress={saveCsv}>
          {t.csv}
        </Button>
        {reports && <ButtonLink href="/reports">{t.reports}</ButtonLink>}
        {view.seesAll && <Button onPress={() => setChecking(true)}>{t.checkTheJournal}</Button>}
      </Row>
      {view.lines.length === 0 ? (
        <p>{t.noLinesMatchTheseFilters}</p>
      ) : (
        <Lines>
          {view.lines.map((line) => (
            <li key={line.id} data-numbered={view.seesAll || undefined}>
              {line.seq !== null && (
                <Act
                  className="no"
                  aria-label={lineProof.proofOfLine(line.seq.toLocaleString("en"))}
                  onPress={() => setProven(line)}
                >
                  {line.seq}
                </Act>
              )}
              <time dateTime={new Date(line.at).toISOString()} title={exactTime(line.at, view.zone)}>
                {capital(sayTime(line.at, now, view.zone))}
              </time>
              <span>
                {line.who ? <b>{line.who}</b> : t.galtry}{" "}
                {line.link ? (
                  <Link className="plain" href={line.link} prefetch={false}>
                    {line.says}
                  </Link>
                ) : (
                  line.says
                )}
                {line.refused && (
                  <>
                    {" "}
                    <Chip data-tone="bad">{t.refused}</Chip>
                  </>
                )}
              </span>
            </li>
          ))}
        </Lines>
      )}
      {view.more !== null && (
        <p style={{ marginTop: 16 }}>
          <Link href={address({ before: String(view.more) })}>{t.earlier}</Link>
        </p>
      )}
    </Page>
  );
}
