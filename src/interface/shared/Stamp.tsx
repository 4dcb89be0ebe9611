"use client";

import styled from "styled-components";
import { stampInk, stampLetters } from "@/core/stamp";

const Oval = styled.span`
  flex: none;
  display: grid;
  place-items: center;
  width: 36px;
  height: 24px;
  border: 1.5px solid var(--s);
  border-radius: 50%;
  color: var(--s);
  font: 700 11.5px/1 var(--text);
  letter-spacing: 0.02em;
  box-shadow: inset 0 0 0 1.5px var(--ground), inset 0 0 0 2.3px color-mix(in srgb, var(--s) 50%, transparent);
  &[data-large="true"] { width: 60px; height: 40px; font-size: 18px; }
`;

const Picture = styled.img`
  flex: none;
  width: 36px;
  height: 28px;
  object-fit: contain;
  &[data-large="true"] { width: 60px; height: 48px; }
`;

interface StampProps {
  name: string;
  /** Address of an uploaded picture, which takes the stamp's place. */
  picture?: string | null;
  large?: boolean;
}

export function Stamp({ name, picture, large = false }: StampProps) {
  if (picture) return <Picture src={picture} alt="" data-large={large} loading="lazy" />;
  return (
    <Oval aria-hidden data-large={large} style={{ "--s": `var(--stamp-${stampInk(name)})` } as React.CSSProperties}>
      {stampLetters(name)}
    </Oval>
  );
}
