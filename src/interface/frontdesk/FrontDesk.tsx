"use client";

import { Search } from "lucide-react";
import Link from "next/link";
import { useRouter } from "next/navigation";
import { type KeyboardEvent, useDeferredValue, useEffect, useMemo, useRef, useState } from "react";
import { find } from "@/core/finder";
import type { Packed } from "@/core/packed";
import type { DeskLine } from "@/server/frontdesk/frontDesk";
import type { ResultOf } from "@/server/registry";
import { Page } from "../frame/Frame";
import { HelpFound } from "../help/HelpFound";
import type { Reader } from "../help/strings";
import type { Waiting } from "../requests/types";
import { WaitingForYou } from "../requests/WaitingForYou";
import { useLanyard } from "../shared/lanyard";
import { useFinder } from "../shared/useFinder";
import { useQuickCopy } from "../shared/useQuickCopy";
import { SignInNotice, useSignIn } from "../shared/useSignIn";
import { useTypedBefore } from "../shared/useTypedBefore";
import { useUnpacked } from "../shared/useUnpacked";
import { GroupTitle, LetterIndex, noteOf, sectionsOf } from "./DeskSections";
import { Finder, Hint, Two } from "./deskLook";
import { FirstSteps } from "./FirstSteps";
import { LanyardSide } from "./LanyardSide";
import { Line, type LineAct, signsIn } from "./Line";
import { ListedFound } from "./ListedFound";
import { NothingFound } from "./NothingFound";
import { frontDesk as t } from "./strings";

export interface FrontDeskProps {
  person: string;
  packed: Packed<DeskLine>;
  zone: string;
  now: number;
  greeting: string;
  canAdd: boolean;
  /** What a newcomer does first, besides connecting Lanyard; empty for those who have settled in. */
  reader: Reader;
  /** For newcomers. */
  steps: ResultOf<"frontdesk.firstSteps">;
  waiting: Waiting;
  me: string;
}

/** At most this many lines stand in the page at once; the finder reaches all of them. */
const MOST_LINES = 300;

const MOST_FOUND = 60;

export function FrontDesk({ person, packed, zone, now, greeting, canAdd, steps, waiting, me, reader }: FrontDeskProps) {
  const lines = useUnpacked(packed);
  const router = useRouter();
  const { lanyard, again } = useLanyard();
  const { signing, start, clear } = useSignIn();
  const [typed, setTyped] = useState("");
  const deferred = useDeferredValue(typed);
  const { index, noteHits } = useFinder(lines);
  const quick = useQuickCopy();
  const sections = useMemo(
    () =>
      deferred.trim() ? [{ id: "found", title: t.found, lines: find(index, deferred, MOST_FOUND) }] : sectionsOf(lines),
    [deferred, index, lines],
  );
  const shown = useMemo(
    () => sections.flatMap((section) => section.lines.map((line) => ({ key: `${section.id}-${line.id}`, line }))),
    [sections],
  );
  useEffect(() => {
    if (deferred.trim() !== "") noteHits(deferred, shown.length);
  });
  const [activeKey, setActiveKey] = useState<string | null>(null);
  const active = shown.find(({ key }) => key === activeKey) ?? shown[0];
  const input = useRef<HTMLInputElement>(null);
  useEffect(() => input.current?.focus(), []);
  useTypedBefore(input, typed, setTyped);

  const connected = lanyard?.state === "connected";
  const [chosen, setChosen] = useState<DeskLine | null>(null);
  // One function for good, so that a key draws anew only the lines that differ.
  const run = useRef<LineAct["run"]>(() => undefined);
  useEffect(() => {
    run.current = (line) => {
      // Lanyard has not answered yet whether it is here: what was chosen waits that moment.
      if (lanyard === null && signsIn(line)) setChosen(line);
      else if (connected && signsIn(line)) void start(line);
      else router.push(`/entry/${line.id}`);
    };
  });
  useEffect(() => {
    if (chosen === null || lanyard === null) return;
    setChosen(null);
    run.current(chosen);
  }, [chosen, lanyard]);
  const act = useMemo<LineAct>(() => ({ run: (line) => run.current(line) }), []);

  const onKeyDown = (event: KeyboardEvent<HTMLInputElement>) => {
    if (quick.onKey(event, active?.line)) return;
    if (event.key === "ArrowDown" || event.key === "ArrowUp") {
      event.preventDefault();
      const at = shown.findIndex(({ key }) => key === active?.key);
      const next = shown[Math.min(shown.length - 1, Math.max(0, at + (event.key === "ArrowDown" ? 1 : -1)))];
      setActiveKey(next?.key ?? null);
      if (next) document.getElementById(next.key)?.scrollIntoView({ block: "nearest" });
    } else if (event.key === "Enter") {
      event.preventDefault();
      // The lines may be a key behind what is typed; the act never is.
      const line = deferred === typed || !typed.trim() ? active?.line : find(index, typed, 1)[0];
      if (line && event.shiftKey) router.push(`/entry/${line.id}`);
      else if (line) act.run(line);
    } else if (event.key === "Escape") setTyped("");
  };

  const ending = lines.filter((line) => line.endsAt !== null).length;
  const sites = lines.filter(signsIn).length;
  const where = (
    <>
      {greeting}, <b>{person.split(" ")[0]}</b>.{" "}
      {lines.length === 0 ? (
        t.youHaveNoAccessToAnythingYet
      ) : (
        <>
          {t.youCan(sites, lines.length - sites)}
          {ending > 0 && (
            <>
              ; <b>{t.endsWithinAWeek(ending)}</b>
            </>
          )}
          .
        </>
      )}
    </>
  );

  return (
    <Page where={where}>
      <h1 className="unseen">{t.frontDesk}</h1>
      <Two>
        <div>
          <Finder>
            <Search size={20} className="icon" aria-hidden />
            <input
              ref={input}
              value={typed}
              onChange={(event) => {
                setTyped(event.target.value);
                setActiveKey(null);
                quick.clear();
              }}
              onKeyDown={onKeyDown}
              role="combobox"
              aria-expanded={shown.length > 0}
              aria-controls="lines"
              aria-activedescendant={active?.key}
              aria-autocomplete="list"
              aria-label={t.findAndSignIn}
              placeholder={t.whereDoYouWantToSignIn}
              autoComplete="off"
              spellCheck={false}
            />
          </Finder>
          {quick.says && (
            <p role="status" style={{ marginTop: 10 }}>
              {quick.says}
            </p>
          )}
          <Hint>
            {active && (
              <>
                <span>
                  <kbd>{t.enter}</kbd>{" "}
                  {connected && signsIn(active.line)
                    ? t.signsInTo(<b>{active.line.name}</b>)
                    : t.opens(<b>{active.line.name}</b>)}
                </span>
                {signsIn(active.line) && <span>{t.opensItsEntry(<kbd>{t.shiftEnter}</kbd>)}</span>}
                <span>{t.nextLine(<kbd>↓</kbd>)}</span>
              </>
            )}
          </Hint>
          {signing && (!signing.report || lines.some((line) => line.id === signing.entry.id)) && (
            <div style={{ marginTop: 12 }}>
              <SignInNotice signing={signing} stewards={[]} onClose={clear} onAgain={() => void start(signing.entry)} />
            </div>
          )}
          <div id="lines">
            {lines.length === 0 && (
              <Empty
                canAdd={canAdd}
                reader={reader}
                first={steps?.steps.some(({ step }) => step === "vault") ?? false}
              />
            )}
            {lines.length > 0 && shown.length === 0 && <NothingFound typed={typed} />}
            {sections.map(
              (section) =>
                section.lines.length > 0 && (
                  <section key={section.id} aria-label={section.title}>
                    <GroupTitle>
                      {section.title} <span className="count">{section.lines.length.toLocaleString("en-GB")}</span>
                      {section.id === "all" && section.lines.length > 12 && <LetterIndex lines={section.lines} />}
                    </GroupTitle>
                    <ul>
                      {section.lines.slice(0, MOST_LINES).map((line) => {
                        const key = `${section.id}-${line.id}`;
                        return (
                          <Line
                            key={key}
                            id={key}
                            line={line}
                            active={key === active?.key}
                            act={act}
                            note={noteOf(section.id, line, now, zone)}
                          />
                        );
                      })}
                    </ul>
                    {section.lines.length > MOST_LINES && (
                      <p className="soft" style={{ paddingTop: 10 }}>
                        {t.moreTypeAFewLettersAbove((section.lines.length - MOST_LINES).toLocaleString("en-GB"))}
                      </p>
                    )}
                  </section>
                ),
            )}
          </div>
          <ListedFound typed={deferred} zone={zone} />
          <HelpFound typed={deferred} reader={reader} />
        </div>
        <aside aria-label={t.waitingForYou}>
          {steps && <FirstSteps list={steps} lanyard={lanyard} first={lines.find(signsIn) ?? null} canAdd={canAdd} />}
          <WaitingForYou waiting={waiting} me={me} zone={zone} now={now} />
          {/* Before what is known only a moment later: a link does not move away under the pointer. */}
          <p style={{ padding: "12px 0 16px", borderTop: "1px solid var(--edge)" }}>
            <Link href="/generator">{t.passwordGenerator}</Link>
          </p>
          {reader !== "auditor" && <LanyardSide lanyard={lanyard} again={again} zone={zone} />}
        </aside>
      </Two>
    </Page>
  );
}

function Empty({ canAdd, first, reader }: { canAdd: boolean; first: boolean; reader: Reader }) {
  if (reader === "auditor") return <p style={{ marginTop: 28, maxWidth: "60ch" }}>{t.anAuditorReadsElsewhere}</p>;
  return (
    <div style={{ marginTop: 28, maxWidth: "60ch" }}>
      <h2>{t.noLoginsYet}</h2>
      <p style={{ marginTop: 6 }}>
        {canAdd
          ? t.signInToASiteAsUsual(<Link href="/vaults">{t.addAnEntryToAVault}</Link>)
          : first
            ? t.createAVaultThenAddALogin
            : t.whenAColleagueGivesYouAccessIt}
      </p>
    </div>
  );
}
