"use client";

import Link from "next/link";
import { levelWord } from "@/core/access/level";
import { sayTime } from "@/core/time";
import { useCommand } from "../shared/ask";
import { Act, Chip } from "../shared/controls";
import { waitingForYou as t } from "./strings";
import type { Asks } from "./types";

type Own = Asks["own"][number];

export function OwnRequest({ ask, zone, now }: { ask: Own; zone: string; now: number }) {
  const withdraw = useCommand("access.withdrawRequest");
  const until = ask.until === null ? "" : t.until2(sayTime(ask.until, now, zone));
  const less = ask.given
    ? t.except(
        levelWord(ask.given.level),
        ask.given.until === null ? "" : t.until2(sayTime(ask.given.until, now, zone)),
      )
    : "";
  return (
    <li>
      {t.on2(<b>{levelWord(ask.level)}</b>)}
      {ask.link ? (
        <Link href={ask.link} prefetch={false}>
          {ask.node}
        </Link>
      ) : (
        ask.node
      )}
      {until}
      <br />
      {ask.state === "open" && (
        <>
          <Chip>{t.notAnsweredYet}</Chip>{" "}
          <Act
            onPress={() => withdraw.run({ askId: ask.id })}
            isDisabled={withdraw.running}
            aria-label={t.withdrawTheRequestFor(ask.node)}
          >
            {t.withdraw}
          </Act>
        </>
      )}
      {ask.state === "yes" && (
        <>
          <Chip data-tone="good">{t.approved}</Chip> {ask.by && t.by(ask.by)}
          {less}
        </>
      )}
      {ask.state === "no" && (
        <>
          <Chip data-tone="plain">{t.declined}</Chip> {ask.by && t.by2(ask.by)}“{ask.word}”
        </>
      )}
    </li>
  );
}
