"use client";

import { Check } from "lucide-react";
import Link from "next/link";
import styled from "styled-components";
import { firstSteps as t } from "./strings";

const Section = styled.section`
  padding: 12px 0 20px;
  border-top: 1px solid var(--edge);
  h2 { font-size: 15px; line-height: 20px; margin-bottom: 6px; }
  li { display: grid; grid-template-columns: 22px 1fr; padding: 3px 0; align-items: start; }
  li svg { margin-top: 3px; color: var(--moss); }
  li > b { font-weight: 650; }
  .done { color: var(--soft); }
`;

export interface FirstStep {
  text: string;
  href: string;
  done: boolean;
}

/** For newcomers, until each of them is done; then it is gone for good. */
export function FirstSteps({ steps }: { steps: FirstStep[] }) {
  if (steps.every((step) => step.done)) return null;
  return (
    <Section>
      <h2>{t.firstSteps}</h2>
      <ol>
        {steps.map((step, i) => (
          <li key={step.href + step.text} className={step.done ? "done" : undefined}>
            {step.done ? <Check size={16} aria-label={t.done} /> : <b>{i + 1}.</b>}
            <span>{step.done ? step.text : <Link href={step.href}>{step.text}</Link>}</span>
          </li>
        ))}
      </ol>
    </Section>
  );
}
