"use client";

import { TriangleAlert } from "lucide-react";
import Link from "next/link";
import { useRouter } from "next/navigation";
import { type KeyboardEvent, useRef, useState } from "react";
import styled from "styled-components";
import { levelWord } from "@/core/access/level";
import { exactTime, sayTime } from "@/core/time";
import { Page } from "../frame/Frame";
import { useCommand } from "../shared/ask";
import { CutKey } from "../shared/CutKey";
import { Button, Chip, ChoiceField, Notice } from "../shared/controls";
import { useDone } from "../shared/Done";
import { Head } from "../vaults/VaultList";
import { RoundAnswer } from "./RoundAnswer";
import { roundsPage as t } from "./strings";
import { ROUND_KEYS, useRound } from "./useRound";
import { ODD_WORDS, type RoundView, SAY_WORDS, type Say, sayCounts } from "./words";

const Rows = styled.ol`
  margin-top: 12px;
  border-top: 3px solid var(--ink);
  background: var(--sheet);
  --ground: var(--sheet);
  li { display: grid; grid-template-columns: 66px minmax(0, 1.5fr) minmax(0, 1fr) minmax(0, 1fr) 226px; gap: 2px 14px; align-items: center; min-height: 56px; padding: 7px 12px; border-bottom: 1px solid var(--rule); line-height: 20px; overflow-wrap: anywhere; }
  li:focus-visible { outline: 2px solid var(--copper); outline-offset: -2px; }
  li[data-said] { background: var(--lit); --ground: var(--lit); }
  .small { display: block; }
  .odd { display: flex; flex-wrap: wrap; gap: 4px; }
  .do { display: flex; flex-wrap: wrap; gap: 2px 12px; justify-content: end; align-items: center; }
  @media (max-width: 1023px) { li { grid-template-columns: 66px minmax(0, 1fr); } li > :nth-child(n + 3) { grid-column: 2; } .do { justify-content: start; } }
`;

const Lines = styled.ul`
  max-width: 760px;
  margin-top: 8px;
  border-top: 1px solid var(--edge);
  li { display: flex; flex-wrap: wrap; justify-content: space-between; gap: 4px 16px; padding: 9px 0; border-bottom: 1px solid var(--rule); overflow-wrap: anywhere; }
`;

/** A round of one vault: each grant is confirmed, lowered or ended by one key, the odd ones first. */
export function RoundsPage({ view, now }: { view: RoundView; now: number }) {
  const { vault, round, zone } = view;
  const start = useCommand("rounds.startRound");
  return (
    <Page
      where={t.inARoundItsStewardsReviewWho(
        <Link href={`/access/${vault.id}`}>{t.access}</Link>,
        <b>{vault.name}</b>,
        round && (round.askedMe ? t.thisOneIsYours : t.hasBeenAskedYouCanAnswerToo(round.asked)),
      )}
    >
      <Head>
        <h1>{round ? t.roundOf(vault.name) : t.roundsOf(vault.name)}</h1>
        {!round && !view.reads && (
          <Button look="go" isDisabled={start.running} onPress={() => start.run({ vaultId: vault.id })}>
            {t.startARoundNow}
          </Button>
        )}
      </Head>
      {start.refused && (
        <Notice data-tone="bad" role="alert">
          {start.refused.message}
        </Notice>
      )}
      {round ? <Round view={view} now={now} /> : <Every view={view} />}
      {view.finished.length > 0 && (
        <section style={{ marginTop: 36 }}>
          <h2>{t.finishedRounds}</h2>
          <Lines>
            {view.finished.map((one) => (
              <li key={one.id}>
                <Link href={`/access/${vault.id}/rounds/${one.id}`} prefetch={false}>
                  {t.by(sayTime(one.finishedAt, now, zone), one.by)}
                </Link>
                <span className="soft">{sayCounts(one.kept)}</span>
              </li>
            ))}
          </Lines>
        </section>
      )}
    </Page>
  );
}

function Every({ view }: { view: RoundView }) {
  const save = useCommand("rounds.setRounds");
  if (view.reads) return <p>{view.months === null ? t.noneStartsByItself : t.oneStarts(view.months)}</p>;
  return (
    <div style={{ maxWidth: 460 }}>
      <p style={{ marginBottom: 12 }}>{t.theLongestServingStewardIs}</p>
      <ChoiceField
        label={t.aRoundStartsByItself}
        value={String(view.months ?? "")}
        onText={(months) => save.run({ vaultId: view.vault.id, months: months === "" ? null : Number(months) })}
        wrong={save.wrong() ?? save.wrong("months")}
      >
        <option value="">{t.never}</option>
        {[...new Set([1, 3, 6, 12, ...(view.months === null ? [] : [view.months])])]
          .sort((a, b) => a - b)
          .map((months) => (
            <option key={months} value={months}>
              {months === 1 ? t.everyMonth : t.everyMonths(months)}
            </option>
          ))}
      </ChoiceField>
    </div>
  );
}

function Round({ view, now }: { view: RoundView; now: number }) {
  const { vault, round, lines, zone } = view;
  const finish = useCommand("rounds.finishRound");
  const passOn = useCommand("rounds.passRoundOn");
  const done = useDone();
  const router = useRouter();
  const { sayOf, say: sayOn, wrong, looked, left, forAnother } = useRound(vault.id, lines);
  const [at, setAt] = useState(0);
  const list = useRef<HTMLOListElement>(null);
  const go = (to: number) => {
    const next = Math.max(0, Math.min(lines.length - 1, to));
    setAt(next);
    (list.current?.children[next] as HTMLElement | undefined)?.focus();
  };
  const say = (i: number, what: Say | null, on: boolean) => {
    const row = lines[i];
    if (!row || view.reads || (what === "lower" && row.lower === null)) return;
    if (on && what !== null) go(i + 1);
    // One's own line is passed over: another steward answers it.
    if (row.reviewer !== null) return;
    void sayOn(row, what);
  };
  const keys = (event: KeyboardEvent) => {
    if (event.ctrlKey || event.metaKey || event.altKey) return;
    const acts: Record<string, () => void> = {
      ArrowDown: () => go(at + 1),
      ArrowUp: () => go(at - 1),
      Home: () => go(0),
      End: () => go(lines.length - 1),
    };
    const what = ROUND_KEYS[event.key.toLowerCase()];
    const act = what === undefined ? acts[event.key] : () => say(at, what, true);
    if (!act) return;
    event.preventDefault();
    act();
  };
  const end = async () => {
    const answer = await finish.run({ vaultId: vault.id });
    if (!answer.ok) return;
    const { changes } = answer.result;
    done(t.finished(changes));
    if (changes > 0) router.push(`/access/${vault.id}`);
  };
  return (
    <>
      <p className="soft">
        {t.startedNothingChangesUntilYou(
          sayTime(round!.startedAt, now, zone),
          round!.startedBy ? t.by2(round!.startedBy) : t.becauseItWasDue,
          round!.passed.length > 0 && t.didNotAnswer(round!.passed.join(", ")),
          <kbd>{t.c}</kbd>,
          <kbd>{t.l}</kbd>,
          <kbd>{t.e}</kbd>,
          <kbd>{t.u}</kbd>,
          <Link href={`/access/${vault.id}`}>{t.inTheGrid}</Link>,
        )}
      </p>
      <p style={{ display: "flex", gap: 14, alignItems: "center", marginTop: 10 }}>
        <progress
          value={looked}
          max={lines.length || 1}
          aria-label={t.reviewed}
          style={{ accentColor: "var(--moss)" }}
        />
        <span role="status">{t.ofReviewed(looked, lines.length)}</span>
        <span style={{ marginLeft: "auto" }}>
          {view.reads ? null : forAnother === null ? (
            <Button look="go" isDisabled={left > 0 || finish.running} onPress={end}>
              {t.finishTheRound}
            </Button>
          ) : (
            <Button
              look="go"
              isDisabled={left > 0 || passOn.running || !round!.askedMe}
              onPress={() => passOn.run({ vaultId: vault.id })}
            >
              {round!.askedMe ? t.askToReviewYours(forAnother) : t.waitsFor(forAnother)}
            </Button>
          )}
        </span>
      </p>
      {(wrong ?? finish.refused?.message ?? passOn.refused?.message) && (
        <Notice data-tone="bad" role="alert">
          {wrong ?? finish.refused?.message ?? passOn.refused?.message}
        </Notice>
      )}
      <Rows ref={list} role="list" aria-label={t.whoHasWhat} onKeyDown={keys}>
        {lines.map((row, i) => (
          <li
            key={row.grantId}
            tabIndex={i === at ? 0 : -1}
            onFocus={() => setAt(i)}
            data-said={sayOf(row) ?? undefined}
            aria-label={t.on(
              row.who,
              levelWord(row.level),
              row.what,
              row.odd.map((odd) => ODD_WORDS[odd]).join(", "),
              sayOf(row) === null ? t.noAnswerYet : SAY_WORDS[sayOf(row)!],
            )}
          >
            <CutKey level={row.level} until={row.until === null ? null : exactTime(row.until, zone)} silent />
            <span>
              <b>{row.who}</b>{" "}
              <span className="soft">{row.own ? t.yourOwnAccess(row.reviewer === null) : row.note}</span>
              <span className="small">
                {t.on2(levelWord(row.level), row.what, row.until !== null && t.until(sayTime(row.until, now, zone)))}
              </span>
            </span>
            <span className="small soft">
              {t.sinceBy(sayTime(row.since, now, zone), row.by)}
              {row.why && <span className="small">“{row.why}”</span>}
            </span>
            <span>
              <span className="small soft">
                {row.lastUse === null ? t.neverUsed : t.used(sayTime(row.lastUse, now, zone))}
              </span>
              <span className="odd">
                {row.odd.map((odd) => (
                  <Chip key={odd}>
                    <TriangleAlert size={12} aria-hidden /> {ODD_WORDS[odd]}
                  </Chip>
                ))}
              </span>
            </span>
            <span className="do">
              {view.reads ? (
                <span className="soft">{sayOf(row) === null ? t.noAnswerYet : SAY_WORDS[sayOf(row)!]}</span>
              ) : (
                <RoundAnswer row={row} now={sayOf(row)} onSay={(what) => say(i, what, false)} />
              )}
            </span>
          </li>
        ))}
      </Rows>
    </>
  );
}
