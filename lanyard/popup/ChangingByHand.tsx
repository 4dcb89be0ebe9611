/** While a password is changed by hand in the tab in front: both to be copied, and which of them stands. */
import { useState } from "react";
import type { View } from "../shared/messages";
import { ask } from "./ask";
import { changingByHand as t } from "./strings";

interface Props {
  changing: NonNullable<View["changing"]>;
  tabId: number;
  look: () => void;
}

export function ChangingByHand({ changing: { name, filled }, tabId, look }: Props) {
  const [says, setSays] = useState("");
  const copy = async (which: "current" | "fresh") => {
    const answer = await ask<{ password: string } | { wrong: string }>({ ask: "copy-change", which, tabId });
    if (!answer || "wrong" in answer) return setSays(answer?.wrong ?? t.couldNotBeCopied);
    setSays(
      await navigator.clipboard.writeText(answer.password).then(
        () => t.copied(t[which]),
        () => t.couldNotBeCopied,
      ),
    );
    look();
  };
  const fill = async () => {
    const answer = await ask<{ wrong: string | null }>({ ask: "fill-change", tabId });
    setSays(answer?.wrong ?? t.isFilledIn);
    look();
  };
  const decide = async (keep: "new" | "old" | null) => {
    const answer = await ask<{ wrong: string | null }>({ ask: "end-change", keep, tabId });
    setSays(answer?.wrong ?? "");
    look();
  };
  return (
    <section className="ruled" aria-label={t.changing(name)}>
      <h2>{t.changing(name)}</h2>
      <p className="small soft">{t.says}</p>
      <div className="do">
        <button type="button" className={filled ? "btn" : "btn go"} onClick={() => void fill()}>
          {t.fillIn}
        </button>
        <button type="button" className="btn" onClick={() => void copy("current")}>
          {t.copyCurrent}
        </button>
        <button type="button" className="btn" onClick={() => void copy("fresh")}>
          {t.copyNew}
        </button>
      </div>
      <div className="do">
        {filled ? (
          <>
            <button type="button" className="btn go" onClick={() => void decide("new")}>
              {t.useNew}
            </button>
            <button type="button" className="btn" onClick={() => void decide("old")}>
              {t.keepOld}
            </button>
          </>
        ) : (
          <button type="button" className="quiet" onClick={() => void decide(null)}>
            {t.stop}
          </button>
        )}
      </div>
      <p className="small" role="status">
        {says}
      </p>
    </section>
  );
}
