"use client";

import { useState } from "react";
import styled from "styled-components";
import { codeLines } from "@/core/kinds/codes";
import { useCommand } from "../shared/ask";
import { CheckField } from "../shared/controls";
import { codes as t } from "./strings";

const List = styled.ol`
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(190px, 1fr));
  gap: 6px 20px;
  [data-used] { color: var(--soft); text-decoration: line-through; }
`;

interface CodesProps {
  entryId: string;
  field: string;
  value: string;
  versionId: string;
  /** Places of those that were used when it was revealed. */
  first: number[];
}

/** Recovery codes while they are revealed, each ticked off when it was used. */
export function Codes({ entryId, field, value, versionId, first }: CodesProps) {
  const tick = useCommand("vaults.tickCode");
  const [used, setUsed] = useState(first);
  const codes = codeLines(value);
  const turn = async (number: number, wanted: boolean) => {
    const answer = await tick.run({ entryId, versionId, field, number, used: wanted });
    if (answer.ok) setUsed(answer.result.used);
  };
  return (
    <>
      <List data-secret>
        {codes.map((code, at) => (
          <li key={at}>
            <CheckField
              checked={used.includes(at)}
              onTick={(wanted) => turn(at, wanted)}
              disabled={tick.running}
              label={
                <span className="mono" data-used={used.includes(at) || undefined}>
                  {code}
                </span>
              }
            />
          </li>
        ))}
      </List>
      <p className="soft small" style={{ marginTop: 6 }} role="status">
        {t.ofLeftTickACodeOffWhen(codes.length - used.length, codes.length)}
      </p>
      {tick.refused && <p role="alert">{tick.refused.message}</p>}
    </>
  );
}
