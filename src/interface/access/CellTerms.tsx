"use client";

import { useState } from "react";
import { type Given, LEVELS, levelWord, type Terms } from "@/core/access";
import { CutKey } from "../shared/CutKey";
import { Button, CheckField, Row, Stack } from "../shared/controls";
import { Dialog } from "../shared/Dialog";
import { fromLocal, toLocal } from "../shared/localTime";
import { fromWeeklyText, toWeeklyText, WeeklyFields } from "../shared/WeeklyFields";
import { WindowFields } from "../shared/WindowFields";
import { cellTerms as t } from "./strings";

interface CellTermsProps {
  title: string;
  start: Terms | null;
  zone: string;
  now: number;
  onSet: (terms: Terms) => void;
  onClose: () => void;
}

/** Level and time of the chosen cells: it goes on the slip. */
export function CellTerms({ title, start, zone, now, onSet, onClose }: CellTermsProps) {
  const [level, setLevel] = useState<Given>(start?.level ?? "use");
  const [from, setFrom] = useState(toLocal(start?.from ?? null, zone));
  const [until, setUntil] = useState(toLocal(start?.until ?? null, zone));
  const [weekly, setWeekly] = useState(toWeeklyText(start?.weekly));
  const [wrong, setWrong] = useState<{ field: string; says: string } | null>(null);
  const set = () => {
    const terms = { level, from: fromLocal(from, zone), until: fromLocal(until, zone) };
    if (terms.until !== null && terms.until <= now) return setWrong({ field: "until", says: t.theEndDateIsInThePast });
    if (terms.until !== null && terms.from !== null && terms.until <= terms.from)
      return setWrong({ field: "until", says: t.theEndDateMustBeAfterThe });
    if (weekly && weekly.days.length === 0) return setWrong({ field: "weekly", says: t.chooseADay });
    const pattern = fromWeeklyText(weekly);
    onSet({ ...terms, weekly: pattern && { ...pattern, zone } });
    onClose();
  };
  const wrongAt = (field: string) => (wrong?.field === field ? wrong.says : null);
  return (
    <Dialog title={title} open onClose={onClose}>
      <Stack>
        <fieldset>
          <legend className="unseen">{t.level}</legend>
          <Row style={{ flexWrap: "wrap", gap: "8px 20px" }}>
            {[...LEVELS, "blocked" as const].map((one) => (
              <CheckField
                key={one}
                type="radio"
                name="level"
                value={one}
                checked={level === one}
                onChange={() => setLevel(one)}
                label={
                  <span style={{ display: "inline-flex", gap: 8, alignItems: "center" }}>
                    <CutKey level={one} silent /> {levelWord(one)}
                  </span>
                }
              />
            ))}
          </Row>
        </fieldset>
        <WindowFields from={from} until={until} onFrom={setFrom} onUntil={setUntil} wrong={wrongAt} />
        <WeeklyFields value={weekly} onChange={setWeekly} wrong={wrongAt("weekly")} />
        <p className="soft small">{t.nothingChangesUntilYouApplyThe}</p>
        <Row>
          <Button look="go" onPress={set}>
            {t.addToSlip}
          </Button>
          <Button onPress={onClose}>{t.cancel}</Button>
        </Row>
      </Stack>
    </Dialog>
  );
}
