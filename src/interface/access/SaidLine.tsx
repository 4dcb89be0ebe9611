"use client";

import { ArrowDown, ArrowUp, Clock, TriangleAlert } from "lucide-react";
import { useState } from "react";
import { atLeast, levelWord, rank } from "@/core/access";
import { listOf } from "@/core/counted";
import { sayTime } from "@/core/time";
import type { SlipLine, SlipSaid } from "@/server/access/slip/slipTelling";
import { Act } from "../shared/controls";
import { saidLine as t } from "./strings";

interface SaidProps {
  line: SlipLine;
  zone: string;
  now: number;
  me: string;
  open: boolean;
  onOpen: () => void;
}

/** What would differ, a line each; one at a time says who. */
export function SaidLines({
  lines,
  ...shown
}: Pick<SaidProps, "zone" | "now" | "me"> & { lines: readonly SlipLine[] }) {
  const [open, setOpen] = useState<number | null>(null);
  return lines.map((line, i) => (
    <SaidLine
      key={`${line.before} ${line.after} ${line.at} ${line.people[0]?.id} ${line.what[0]?.id}`}
      {...shown}
      line={line}
      open={open === i}
      onOpen={() => setOpen(open === i ? null : i)}
    />
  ));
}

/** "4 people lose Use of Pellam refunds", with who on asking, and who used it on a line of its own. */
function SaidLine({ line, zone, now, me, open, onOpen }: SaidProps) {
  const loses = rank(line.after) < rank(line.before);
  const names = line.people.map((one) => (one.id === me ? "you" : one.name));
  const who = names.length === 1 ? names[0]! : t.people(names.length);
  const plural = names.length > 1 || names[0] === "you";
  const what =
    line.count === 1
      ? line.what[0]!.name
      : line.count <= 3
        ? listOf(line.what.map((one) => one.name))
        : t.entries(line.count, line.within ?? "");
  return (
    <>
      <li>
        {line.at !== null ? <Clock size={16} /> : loses ? <ArrowDown size={16} /> : <ArrowUp size={16} />}
        <span>
          {line.at !== null && t.from(sayTime(line.at, now, zone))}
          <b>
            {line.at === null ? capital(who) : who} {verb(line, plural)}
          </b>{" "}
          {what}
          {open && (
            <span className="soft small" style={{ display: "block" }}>
              {names.join(", ")}
              {line.count > 1 && ` · ${line.what.map((one) => one.name).join(", ")}`}
              {line.count > line.what.length && t.andMore(line.count - line.what.length)}
            </span>
          )}
        </span>
        <Act onPress={onOpen} aria-expanded={open} aria-label={t.whoIsThat(`${who} ${verb(line, plural)} ${what}`)}>
          {t.who}
        </Act>
      </li>
      {line.used.length > 0 && (
        <li className="warning">
          <TriangleAlert size={16} />
          <span>{t.usedInTheLast30Days(line.used)}</span>
        </li>
      )}
      {line.first.length > 0 && atLeast(line.after, "reveal") && (
        <li>
          <TriangleAlert size={16} />
          <span>{t.firstToSee(line.first, line.count)}</span>
        </li>
      )}
    </>
  );
}

/** What the reader is no steward of is not named, nor counted. */
export function Beyond({ said }: { said: Pick<SlipSaid, "beyond" | "asks"> }) {
  if (!said.beyond && !said.asks) return null;
  return (
    <li className="warning">
      <TriangleAlert size={16} />
      <span>{t.itAlsoAffectsEntriesWithOther(said.asks ? t.theyMustApproveFirst : t.theyAreTold)}</span>
    </li>
  );
}

function verb({ before, after }: SlipLine, plural: boolean): string {
  if (before === "none") return t.gains(plural, levelWord(after));
  if (after === "none") return t.loses(plural, levelWord(before));
  return t.goes(plural, levelWord(before), levelWord(after));
}

const capital = (text: string) => text.charAt(0).toUpperCase() + text.slice(1);
