"use client";

import styled from "styled-components";
import { ACT_WORD, CONFIRMED_ACTS, type HouseRules as Rules } from "@/core/access/houseRules";
import { CheckField } from "../shared/controls";
import { Pick, type SetRules } from "./ruleParts";
import { confirmRule as t } from "./strings";

const Acts = styled.div`
  display: flex;
  flex-wrap: wrap;
  gap: 2px 26px;
  padding: 2px 0 6px;
  line-height: 24px;
`;

const MINUTES = [1, 5, 15, 30, 60];

/** Before which acts people show that it is them, and how long that lasts. */
export function ConfirmRule({ confirm, set }: { confirm: Rules["confirm"]; set: SetRules }) {
  const offered = [...new Set([...MINUTES, confirm.minutes])].sort((a, b) => a - b);
  return (
    <li>
      {t.peopleConfirm(
        <Pick
          label={t.howLongItLasts}
          value={String(confirm.minutes)}
          choices={offered.map((minutes) => [String(minutes), t.minutes(minutes)] as const)}
          onPick={(minutes) => set({ confirm: { ...confirm, minutes: Number(minutes) } })}
        />,
      )}
      <Acts>
        {CONFIRMED_ACTS.map((act) => (
          <CheckField
            key={act}
            label={ACT_WORD[act]}
            checked={confirm.acts.includes(act)}
            onTick={(ticked) =>
              set({
                confirm: {
                  ...confirm,
                  acts: CONFIRMED_ACTS.filter((one) => (one === act ? ticked : confirm.acts.includes(one))),
                },
              })
            }
          />
        ))}
      </Acts>
      <span className="small soft">{t.alwaysConfirmed}</span>
    </li>
  );
}
