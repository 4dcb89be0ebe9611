import styled from "styled-components";
import { accessPage as t } from "./strings";

const Line = styled.p`
  position: sticky;
  left: 0;
  display: flex;
  flex-wrap: wrap;
  gap: 2px 20px;
  max-width: calc(100vw - 24px);
  padding: 10px var(--gutter) 12px;
  color: var(--soft);
  font-size: 13px;
  line-height: 20px;
  @media (max-width: 719px) { .wide { display: none; } }
`;

/** What the signs in the cells mean, and the keys that set them. */
export function KeyTo({ changes }: { changes: boolean }) {
  return (
    <Line>
      <span>{t.solidSetDirectly}</span>
      <span>{t.hollowInheritedOrFromAGroup}</span>
      <span>{t.clockHasAnEndDate}</span>
      <span>{t.struckThroughBlocked}</span>
      <span>{t.dashedOnTheSlip}</span>
      <span>{t.foldedCornerAnEffectOfTheSlip}</span>
      {changes && <span className="wide">{t.n0To4AndBSetA}</span>}
    </Line>
  );
}
