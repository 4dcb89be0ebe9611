"use client";

import { useRouter } from "next/navigation";
import { type KeyboardEvent, useEffect, useMemo, useRef, useState } from "react";
import styled from "styled-components";
import { find, first } from "@/core/finder";
import type { DeskLine } from "@/server/frontdesk/frontDesk";
import { signsIn } from "../frontdesk/Line";
import { NothingFound } from "../frontdesk/NothingFound";
import { HelpFound } from "../help/HelpFound";
import type { Reader } from "../help/strings";
import { runQuery } from "../shared/ask";
import { Dialog } from "../shared/Dialog";
import { useLanyard } from "../shared/lanyard";
import { Stamp } from "../shared/Stamp";
import { useFinder } from "../shared/useFinder";
import { useQuickCopy } from "../shared/useQuickCopy";
import { SignInNotice, useSignIn } from "../shared/useSignIn";
import { finderSheet as t } from "./strings";

const MOST = 8;

const Box = styled.div`
  input { width: 100%; height: 48px; padding: 0 14px; border: 1px solid var(--edge); border-radius: var(--corner); background: var(--paper); color: var(--ink); font: 400 18px/24px var(--text); }
  input:focus { border-color: var(--copper); outline: 2px solid var(--copper); }
  ul { margin-top: 10px; }
  li { display: grid; grid-template-columns: 36px minmax(0, 1fr) auto; gap: 12px; align-items: center; min-height: 42px; padding: 0 8px; border-bottom: 1px solid var(--rule); border-left: 3px solid transparent; cursor: pointer; }
  li > span { overflow: hidden; text-overflow: ellipsis; white-space: nowrap; }
  li[aria-selected="true"] { background: var(--pick); --ground: var(--pick); border-left-color: var(--copper); }
`;

/** The finder over whatever page one is on: every vault one reaches, at once. */
export default function FinderSheet({ reader, onClose }: { reader: Reader; onClose: () => void }) {
  const router = useRouter();
  const { lanyard } = useLanyard();
  const { signing, start, clear } = useSignIn();
  const [lines, setLines] = useState<DeskLine[] | "failed" | null>(null);
  const [typed, setTyped] = useState("");
  const [at, setAt] = useState(0);
  const input = useRef<HTMLInputElement>(null);
  useEffect(() => {
    input.current?.focus();
    void runQuery("frontdesk.frontDesk", {}).then((answer) => setLines(answer.ok ? answer.result.lines : "failed"));
  }, []);
  const known = useMemo(() => (Array.isArray(lines) ? lines : []), [lines]);
  const { index, noteHits } = useFinder(known);
  const quick = useQuickCopy();
  const found = typed.trim() === "" ? first(index, MOST) : find(index, typed, MOST);
  useEffect(() => {
    if (Array.isArray(lines)) noteHits(typed, found.length);
  });
  const marked = found[Math.min(at, found.length - 1)];
  const connected = lanyard?.state === "connected";

  const open = (line: DeskLine) => {
    onClose();
    router.push(`/entry/${line.id}`);
  };
  const act = (line: DeskLine) => (connected && signsIn(line) ? void start(line) : open(line));
  const onKeyDown = (event: KeyboardEvent) => {
    if (quick.onKey(event, marked)) return;
    if (event.key === "ArrowDown" || event.key === "ArrowUp") {
      event.preventDefault();
      setAt(Math.min(found.length - 1, Math.max(0, at + (event.key === "ArrowDown" ? 1 : -1))));
    } else if (event.key === "Enter" && marked) {
      event.preventDefault();
      if (event.shiftKey) open(marked);
      else act(marked);
    }
  };

  return (
    <Dialog title={t.findAndSignIn} open onClose={onClose}>
      <Box>
        <input
          ref={input}
          value={typed}
          onChange={(event) => {
            setTyped(event.target.value);
            setAt(0);
            clear();
            quick.clear();
          }}
          onKeyDown={onKeyDown}
          role="combobox"
          aria-expanded={found.length > 0}
          aria-controls="found"
          aria-activedescendant={marked && `found-${marked.id}`}
          aria-autocomplete="list"
          aria-label={t.findInEveryVault}
          placeholder={t.whereDoYouWantToSignIn}
          autoComplete="off"
          spellCheck={false}
        />
        {signing && (
          <div style={{ marginTop: 12 }}>
            <SignInNotice signing={signing} stewards={[]} onClose={clear} onAgain={() => void start(signing.entry)} />
          </div>
        )}
        {lines === null && (
          <p className="soft" style={{ marginTop: 12 }}>
            {t.searchingEverythingYouHave}
          </p>
        )}
        {lines === "failed" && <p style={{ marginTop: 12 }}>{t.galtryIsNotRespondingCloseThis}</p>}
        {Array.isArray(lines) && found.length === 0 && (
          <div style={{ marginTop: 12 }}>
            {lines.length === 0 ? t.youHaveNoAccessToAnythingYet : <NothingFound typed={typed} />}
          </div>
        )}
        <ul id="found" role="listbox" aria-label={t.found2}>
          {found.map((line) => (
            // biome-ignore lint/a11y/useKeyWithClickEvents: the keys are the input's, as in any combobox
            <li
              key={line.id}
              id={`found-${line.id}`}
              role="option"
              aria-selected={line === marked}
              onClick={(event) => (event.shiftKey ? open(line) : act(line))}
            >
              <Stamp name={line.name} picture={line.picture} />
              <span>
                <b>{line.name}</b> <span className="soft">{line.description}</span>
              </span>
              <span className="soft small">{line.vault}</span>
            </li>
          ))}
        </ul>
        <HelpFound typed={typed} reader={reader} onGo={onClose} />
        {quick.says && (
          <p role="status" style={{ marginTop: 10 }}>
            {quick.says}
          </p>
        )}
        {marked && (
          <p className="soft small" style={{ marginTop: 10 }}>
            {t.enter(
              connected && signsIn(marked) ? t.signsInTo : t.opens,
              <b>{marked.name}</b>,
              signsIn(marked) ? t.shiftEnterOpensItsEntry : ".",
            )}
          </p>
        )}
      </Box>
    </Dialog>
  );
}
