"use client";

import { useEffect, useRef, useState } from "react";
import { CODE } from "@/core/kinds/kind";
import type { Condition } from "@/server/upkeep/conditions";
import { useCommand } from "../shared/ask";
import { Act, Chip } from "../shared/controls";
import { Dialog } from "../shared/Dialog";
import { useCopy } from "../shared/useCopy";
import { Fact } from "./Card";
import { Codes } from "./Codes";
import { Qr } from "./Qr";
import { SpellingCard } from "./SpellingCard";
import { secret as t } from "./strings";

const SHOWN_MS = 30_000;

interface Revealed {
  value: string;
  /** Of a one-time code: how long it holds, and the one after it. */
  leftMs: number | null;
  next: string | null;
  versionId: string;
  /** Of recovery codes: places of those that were used. */
  used: number[] | null;
}

interface SecretProps {
  entryId: string;
  field: string;
  label: string;
  condition?: Condition | undefined;
  /** What is said of it while it is hidden. */
  note?: string;
  /** What its QR code says, where that is more than the value. */
  qr?: { label: string; text: (value: string) => string };
}

/** Twelve dots whatever its length; each showing is a line in the journal, and hides itself after 30 seconds. */
export function Secret({ entryId, field, label, note, condition, qr }: SecretProps) {
  const reveal = useCommand("vaults.revealField");
  const { copy, copied } = useCopy();
  const [shown, setShown] = useState<(Revealed & { until: number | null }) | null>(null);
  const timer = useRef<ReturnType<typeof setTimeout> | null>(null);
  const hide = () => {
    if (timer.current) clearTimeout(timer.current);
    setShown(null);
  };
  useEffect(
    () => () => {
      if (timer.current) clearTimeout(timer.current);
    },
    [],
  );
  const show = async () => {
    const answer = await reveal.run({ entryId, field, how: "revealed" });
    if (!answer.ok) return;
    const { leftMs } = answer.result;
    setShown({ ...answer.result, until: leftMs === null ? null : Date.now() + leftMs });
    if (timer.current) clearTimeout(timer.current);
    timer.current = setTimeout(() => setShown(null), leftMs === null ? SHOWN_MS : Math.min(leftMs, SHOWN_MS));
  };
  // A sheet with the value in it closes when the value hides itself.
  const [sheet, setSheet] = useState<"qr" | "spell" | null>(null);
  const take = async () => {
    const answer = await reveal.run({ entryId, field, how: "copied" });
    if (answer.ok) await copy(answer.result.value, true, field);
  };
  const card = (
    <Fact
      label={label}
      act={
        <>
          {shown ? (
            <Act onPress={hide} aria-label={t.hide(label)}>
              {t.hide2}
            </Act>
          ) : (
            <Act onPress={show} isDisabled={reveal.running} aria-label={t.reveal(label)}>
              {t.reveal2}
            </Act>
          )}
          {shown && field !== CODE && !shown.used && (
            <>
              <Act onPress={() => setSheet("spell")} aria-label={t.spellOut(label)}>
                {t.spellOut2}
              </Act>
              <Act onPress={() => setSheet("qr")} aria-label={`${qr?.label ?? t.qrCode}: ${label}`}>
                {t.qr}
              </Act>
            </>
          )}
          <Act onPress={take} isDisabled={reveal.running} aria-label={t.copy(label)}>
            {t.copy2}
          </Act>
        </>
      }
    >
      {shown?.used ? (
        <Codes entryId={entryId} field={field} value={shown.value} versionId={shown.versionId} first={shown.used} />
      ) : shown ? (
        <span className="mono" style={{ fontSize: 16 }} data-secret>
          {field === CODE ? inThrees(shown.value) : shown.value}
        </span>
      ) : (
        <span role="img" aria-label="hidden" style={{ fontSize: 17, letterSpacing: ".14em" }}>
          ••••••••••••
        </span>
      )}
      {!shown && note && <span className="soft small"> {note}</span>}
      {shown?.until && <SecondsLeft until={shown.until} />}
      {shown?.next && (
        <span className="soft small" style={{ display: "block" }}>
          {t.nextCode(<span className="mono">{inThrees(shown.next)}</span>)}
        </span>
      )}
      {copied === field && (
        <span className="soft small" style={{ display: "block" }} role="status">
          {t.copiedTheClipboardIsClearedIn}
        </span>
      )}
      {shown && sheet && (
        <Dialog
          title={sheet === "spell" ? label : (qr?.label ?? t.asAQrCode(label))}
          open
          onClose={() => setSheet(null)}
        >
          {sheet === "spell" ? (
            <SpellingCard text={shown.value} />
          ) : (
            <Qr text={qr ? qr.text(shown.value) : shown.value} label={qr?.label ?? label} />
          )}
        </Dialog>
      )}
      {reveal.refused && (
        <span className="small" style={{ display: "block", color: "var(--crimson)" }} role="alert">
          {reveal.refused.message}
        </span>
      )}
    </Fact>
  );
  return condition ? (
    <>
      {card}
      <ConditionFact condition={condition} of={label} />
    </>
  ) : (
    card
  );
}

const TONES: Partial<Record<string, string>> = {
  "very weak": "bad",
  weak: "bad",
  fair: "plain",
  good: "good",
  strong: "good",
};

/** How long it would stand, and where else the same one is kept. */
function ConditionFact({ condition: { strength, alike }, of }: { condition: Condition; of: string }) {
  return (
    <Fact label={of === "Password" ? t.strength : t.strengthOf(of)}>
      {strength === null ? (
        <span className="soft">{t.beingChecked}</span>
      ) : (
        <>
          <Chip data-tone={TONES[strength.word]}>{strength.word}</Chip>
          {t.wouldTakeToGuessFromAStolen(strength.time)}
        </>
      )}
      {alike.length > 0 && (
        <span style={{ display: "block" }}>
          <Chip data-tone="bad">{t.reused}</Chip>
          {t.alsoThePasswordOf}
          {alike.slice(0, 5).map((other, at) => (
            <span key={other.id}>
              {at > 0 && ", "}
              <a href={`/entry/${other.id}`}>{other.name}</a>
            </span>
          ))}
          {alike.length > 5 && t.andMore(alike.length - 5)}
        </span>
      )}
    </Fact>
  );
}

const inThrees = (code: string) => code.replace(/(.{3})(?=.{3})/g, "$1 ");

function SecondsLeft({ until }: { until: number }) {
  const [left, setLeft] = useState(() => Math.ceil((until - Date.now()) / 1000));
  useEffect(() => {
    const timer = setInterval(() => setLeft(Math.max(0, Math.ceil((until - Date.now()) / 1000))), 500);
    return () => clearInterval(timer);
  }, [until]);
  return (
    <span className="soft small" style={{ marginLeft: 12 }}>
      {t.s(left)}
    </span>
  );
}
