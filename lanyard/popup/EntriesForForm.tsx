import { useEffect, useState } from "react";
import { FORM_KINDS } from "../../src/core/forms/autofill";
import type { FormEntry } from "../../src/server/lanyard/forms";
import { ask } from "./ask";
import { Stamp } from "./Stamp";
import { entriesForForm as t } from "./strings";

const SHOWN_FIRST = 5;

/** What could go into the form of the page in front: a card, an address, a contact, a paper. Filled in on a press alone. */
export function EntriesForForm({ tabId }: { tabId: number }) {
  const [entries, setEntries] = useState<FormEntry[]>([]);
  const [all, setAll] = useState(false);
  const [says, setSays] = useState<{ text: string; wrong: boolean } | null>(null);
  useEffect(() => {
    void ask<FormEntry[]>({ ask: "entries-for-form", tabId }).then(setEntries);
  }, [tabId]);
  if (entries.length === 0) return null;
  const ordered = [...entries].sort((a, b) => FORM_KINDS.indexOf(a.kind) - FORM_KINDS.indexOf(b.kind));
  return (
    <section className="ruled" aria-label={t.heading}>
      <h2>{t.heading}</h2>
      {(all ? ordered : ordered.slice(0, SHOWN_FIRST)).map((one) => (
        <div className="line" key={one.id}>
          <Stamp name={one.name} />
          <span className="small">
            <b>{one.name}</b>
            <span className="soft">
              {t.kinds[one.kind]} · {one.vault}
            </span>
          </span>
          <button
            type="button"
            className="quiet"
            aria-label={t.fillInWith(one.name)}
            onClick={async () => {
              const done = await ask<{ fields: number } | { wrong: string }>({
                ...{ ask: "fill-form", entryId: one.id, tabId },
              });
              setSays(
                "wrong" in done ? { text: done.wrong, wrong: true } : { text: t.filledIn(done.fields), wrong: false },
              );
            }}
          >
            {t.fillIn}
          </button>
        </div>
      ))}
      {!all && ordered.length > SHOWN_FIRST && (
        <button type="button" className="quiet" onClick={() => setAll(true)}>
          {t.showAll(ordered.length)}
        </button>
      )}
      <p className={says?.wrong ? "small bad" : "small"} role="status">
        {says?.text ?? ""}
      </p>
    </section>
  );
}
