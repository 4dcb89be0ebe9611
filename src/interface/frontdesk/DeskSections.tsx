"use client";

import styled from "styled-components";
import { sayTime } from "@/core/time";
import type { DeskLine } from "@/server/frontdesk/frontDesk";
import { frontDesk as t } from "./strings";

export const GroupTitle = styled.h2`
  display: flex;
  align-items: baseline;
  flex-wrap: wrap;
  gap: 4px 10px;
  margin-top: 26px;
  padding-bottom: 6px;
  border-bottom: 1px solid var(--edge);
  .count { color: var(--soft); font-weight: 400; font-size: 15px; }
`;

const Letters = styled.span`
  display: flex;
  flex-wrap: wrap;
  margin-left: auto;
  font-size: 14px;
  > * { min-width: 19px; text-align: center; }
  a { font-weight: 650; }
  span { color: var(--edge); }
  @media (max-width: 719px) { margin: 0; width: 100%; > * { min-width: 27px; padding: 3px 0; } }
`;

interface Section {
  id: string;
  title: string;
  lines: DeskLine[];
}

export function sectionsOf(lines: DeskLine[]): Section[] {
  return [
    { id: "pinned", title: t.pinned, lines: lines.filter((line) => line.pinned) },
    { id: "new", title: t.newToYou, lines: lines.filter((line) => line.newFrom !== null).slice(0, 6) },
    {
      id: "ending",
      title: t.endingSoon,
      lines: lines.filter((line) => line.endsAt !== null).sort((a, b) => a.endsAt! - b.endsAt!),
    },
    { id: "all", title: t.everything, lines },
  ];
}

const HOW: Record<DeskLine["how"], string> = {
  sealed: t.sealedSignIn,
  "sealed with code": t.sealedSignInWithCode,
  opened: "",
};

export function noteOf(
  section: string,
  line: DeskLine,
  now: number,
  zone: string,
): { text: string; tone?: "good" | "look" | "bad" } {
  if (line.refused) return { text: t.rejectedByTheSite, tone: "bad" };
  if (section === "new" && line.newFrom)
    return { text: t.newFrom(line.newFrom, line.newWhy && `: “${line.newWhy}”`), tone: "good" };
  if (line.endsAt !== null && section !== "new")
    return { text: t.until(sayTime(line.endsAt, now, zone)), tone: "look" };
  return { text: HOW[line.how] };
}

export function LetterIndex({ lines }: { lines: DeskLine[] }) {
  const first = new Map<string, string>();
  for (const line of lines) {
    const letter = Array.from(line.name.normalize("NFKD"))[0]?.toUpperCase() ?? "";
    if (!first.has(letter)) first.set(letter, line.id);
  }
  return (
    <Letters role="navigation" aria-label={t.letters}>
      {Array.from("ABCDEFGHIJKLMNOPQRSTUVWXYZ", (letter) =>
        first.has(letter) ? (
          <a key={letter} href={`#all-${first.get(letter)}`}>
            {letter}
          </a>
        ) : (
          <span key={letter} aria-hidden>
            {letter}
          </span>
        ),
      )}
    </Letters>
  );
}
