"use client";

import styled from "styled-components";
import type { MailTime } from "@/core/people/notices";
import type { ResultOf } from "@/server/registry";
import { useCommand } from "../shared/ask";
import { ChoiceField } from "../shared/controls";
import { noticeMail as t } from "./strings";

const Choices = styled.div`
  display: grid;
  grid-template-columns: repeat(2, minmax(0, 1fr));
  gap: 14px 24px;
  margin-top: 12px;
  @media (max-width: 719px) { grid-template-columns: minmax(0, 1fr); }
`;

type Mailed = ResultOf<"people.ownMailChoices">;

/** Which notices also come by mail, sort by sort. */
export function NoticeMail({ mailed }: { mailed: Mailed }) {
  if (!mailed.mails) return <p>{t.noMailIsSetUp}</p>;
  return (
    <>
      <p className="soft">{t.securityAlways}</p>
      <Choices>
        {mailed.choices.map((one) => (
          <OneSort key={one.sort} {...one} />
        ))}
      </Choices>
    </>
  );
}

function OneSort({ sort, time }: Mailed["choices"][number]) {
  const choose = useCommand("people.chooseMail");
  return (
    <ChoiceField
      label={t.sorts[sort]}
      value={time}
      onText={(chosen) => choose.run({ sort, time: chosen as MailTime })}
      wrong={choose.wrong()}
    >
      <option value="at once">{t.atOnce}</option>
      <option value="daily">{t.daily}</option>
      <option value="never">{t.onlyInGaltry}</option>
    </ChoiceField>
  );
}
