"use client";

import { useEffect, useRef, useState } from "react";
import { CODE } from "@/core/kinds/kind";
import { useCommand } from "../shared/ask";
import { Act } from "../shared/controls";
import { Dialog } from "../shared/Dialog";
import { useCopy } from "../shared/useCopy";
import { Fact } from "./Card";
import { Qr } from "./Qr";
import { SpellingCard } from "./SpellingCard";

const SHOWN_MS = 30_000;

interface SecretProps {
  entryId: string;
  field: string;
  label: string;
  /** What its QR code says, where that is more than the value. */
  qr?: { label: string; text: (value: string) => string };
}

/** Twelve dots whatever its length; each showing is a line in the journal, and hides itself after 30 seconds. */
export function Secret({ entryId, field, label, qr }: SecretProps) {
  const reveal = useCommand<{ value: string; leftMs: number | null }>("vaults.reveal");
  const { copy, copied } = useCopy();
  const [shown, setShown] = useState<{ value: string; until: number | null } | null>(null);
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
    const { value, leftMs } = answer.result;
    setShown({ value, until: leftMs === null ? null : Date.now() + leftMs });
    if (timer.current) clearTimeout(timer.current);
    timer.current = setTimeout(() => setShown(null), leftMs === null ? SHOWN_MS : Math.min(leftMs, SHOWN_MS));
  };
  // A sheet with the value in it closes when the value hides itself.
  const [sheet, setSheet] = useState<"qr" | "spell" | null>(null);
  const take = async () => {
    const answer = await reveal.run({ entryId, field, how: "copied" });
    if (answer.ok) await copy(answer.result.value, true, field);
  };
  return (
    <Fact
      label={label}
      act={
        <>
          {shown ? (
            <Act onPress={hide} aria-label={`Hide ${label}`}>
              Hide
            </Act>
          ) : (
            <Act onPress={show} isDisabled={reveal.running} aria-label={`Reveal ${label}`}>
              Reveal
            </Act>
          )}
          {shown && field !== CODE && (
            <>
              <Act onPress={() => setSheet("spell")} aria-label={`Spell ${label}`}>
                Spell
              </Act>
              <Act onPress={() => setSheet("qr")} aria-label={`${qr?.label ?? "QR code"}: ${label}`}>
                QR
              </Act>
            </>
          )}
          <Act onPress={take} isDisabled={reveal.running} aria-label={`Copy ${label}`}>
            Copy
          </Act>
        </>
      }
    >
      {shown ? (
        <span className="mono" style={{ fontSize: 16 }} data-secret>
          {field === CODE ? shown.value.replace(/(.{3})(?=.{3})/g, "$1 ") : shown.value}
        </span>
      ) : (
        <span role="img" aria-label="hidden" style={{ fontSize: 17, letterSpacing: ".14em" }}>
          ••••••••••••
        </span>
      )}
      {shown?.until && <SecondsLeft until={shown.until} />}
      {copied === field && (
        <span className="soft small" style={{ display: "block" }} role="status">
          Copied. The clipboard is cleared in 30 seconds.
        </span>
      )}
      {shown && sheet && (
        <Dialog
          title={sheet === "spell" ? label : (qr?.label ?? `${label} as a QR code`)}
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
}

function SecondsLeft({ until }: { until: number }) {
  const [left, setLeft] = useState(() => Math.ceil((until - Date.now()) / 1000));
  useEffect(() => {
    const timer = setInterval(() => setLeft(Math.max(0, Math.ceil((until - Date.now()) / 1000))), 500);
    return () => clearInterval(timer);
  }, [until]);
  return (
    <span className="soft small" style={{ marginLeft: 12 }}>
      {left} s
    </span>
  );
}
