"use client";

import Link from "next/link";
import {
  type InputHTMLAttributes,
  type ReactNode,
  type SelectHTMLAttributes,
  type TextareaHTMLAttributes,
  useId,
  useRef,
} from "react";
import { Button as AriaButton, type ButtonProps } from "react-aria-components";
import styled, { css } from "styled-components";
import { useTypedBefore } from "./useTypedBefore";

const buttonLook = css`
  display: inline-flex;
  align-items: center;
  justify-content: center;
  gap: 8px;
  min-height: var(--control);
  padding: 4px 12px;
  border: 1px solid var(--edge);
  border-radius: var(--corner);
  background: var(--sheet);
  color: var(--ink);
  font: 650 14px/20px var(--text);
  text-decoration: none;
  cursor: pointer;
  &:hover { border-color: var(--ink); text-decoration: none; }
  &[data-disabled], &[aria-disabled="true"] { color: var(--soft); cursor: default; border-style: dashed; }
  &[data-look="go"] { background: var(--copper); border-color: var(--copper); color: var(--on-copper); }
  &[data-look="go"][data-disabled] { background: var(--sheet); color: var(--soft); border-color: var(--edge); }
  &[data-look="harm"] { color: var(--crimson); border-color: var(--crimson); }
  &[data-big="true"] { min-height: 48px; padding: 8px 24px; font-size: 17px; overflow-wrap: anywhere; }
`;

const Pressable = styled(AriaButton)`${buttonLook}`;
export const ButtonLink = styled.a`${buttonLook}`;

type Look = "plain" | "go" | "harm";

/** A verb. `go` is the one main act of a page. */
export function Button({ look = "plain", big = false, ...props }: ButtonProps & { look?: Look; big?: boolean }) {
  return <Pressable {...props} data-look={look} data-big={big} />;
}

const actLook = css`
  min-height: 28px;
  padding: 0;
  border: 0;
  background: none;
  color: var(--ink);
  font: 600 14px/20px var(--text);
  white-space: nowrap;
  text-decoration: underline 1px var(--edge);
  text-underline-offset: 3px;
  cursor: pointer;
  &:hover { text-decoration: underline 2px currentColor; }
  &[data-disabled] { color: var(--soft); cursor: default; }
`;

/** A quiet act: words only, for what repeats on every row. */
export const Act = styled(AriaButton)`${actLook}`;
/** The same where the act is done on a page of its own. */
export const ActLink = styled(Link)`${actLook}`;

export const fieldLook = css`
  width: 100%;
  min-height: 36px;
  padding: 6px 12px;
  border: 1px solid var(--edge);
  border-radius: var(--corner);
  background: var(--sheet);
  color: var(--ink);
  font: 400 15px/22px var(--text);
  &::placeholder { color: var(--soft); opacity: 1; }
  &:focus { outline: 2px solid var(--copper); outline-offset: 1px; }
  &[aria-invalid="true"] { border-color: var(--crimson); }
  &.mono { font-family: var(--mono); font-size: 14px; }
`;

const Input = styled.input`${fieldLook}`;
const Area = styled.textarea`${fieldLook} min-height: 88px; resize: vertical;`;
export const Select = styled.select`${fieldLook} cursor: pointer;`;

export const labelLook = css`
  display: block;
  margin-bottom: 4px;
  font-size: 14px;
  line-height: 20px;
`;
const Label = styled.label`${labelLook}`;

export const Below = styled.p`
  margin-top: 4px;
  font-size: 13.5px;
  line-height: 20px;
  color: var(--soft);
  &[data-wrong] { color: var(--crimson); font-weight: 600; }
`;

interface Around {
  label: ReactNode;
  hint?: ReactNode;
  /** The message at its place. */
  wrong?: string | null;
}

/** What every field that holds text has besides: `onText` is told the text as it changes. */
interface Typed extends Around {
  onText?: (text: string) => void;
}

const told = (onText?: (text: string) => void) =>
  onText && { onChange: (event: { target: { value: string } }) => onText(event.target.value) };

function useAround({ hint, wrong }: Around) {
  const id = useId();
  const below = wrong || hint ? `${id}-below` : undefined;
  return {
    id,
    props: { id, "aria-describedby": below, "aria-invalid": wrong ? true : undefined } as const,
    below: (
      <>
        {wrong && (
          <Below id={below} data-wrong role="alert">
            {wrong}
          </Below>
        )}
        {!wrong && hint && <Below id={below}>{hint}</Below>}
      </>
    ),
  };
}

export function TextField({ label, hint, wrong, onText, ...input }: Typed & InputHTMLAttributes<HTMLInputElement>) {
  const around = useAround({ label, hint, wrong });
  const field = useRef<HTMLInputElement>(null);
  useTypedBefore(field, input.value, onText);
  return (
    <div>
      <Label htmlFor={around.id}>{label}</Label>
      <Input ref={field} {...input} {...told(onText)} {...around.props} />
      {around.below}
    </div>
  );
}

export function TextArea({ label, hint, wrong, onText, ...area }: Typed & TextareaHTMLAttributes<HTMLTextAreaElement>) {
  const around = useAround({ label, hint, wrong });
  const field = useRef<HTMLTextAreaElement>(null);
  useTypedBefore(field, area.value, onText);
  return (
    <div>
      <Label htmlFor={around.id}>{label}</Label>
      <Area ref={field} {...area} {...told(onText)} {...around.props} />
      {around.below}
    </div>
  );
}

export function ChoiceField({
  label,
  hint,
  wrong,
  onText,
  children,
  ...select
}: Typed & SelectHTMLAttributes<HTMLSelectElement>) {
  const around = useAround({ label, hint, wrong });
  return (
    <div>
      <Label htmlFor={around.id}>{label}</Label>
      <Select {...select} {...told(onText)} {...around.props}>
        {children}
      </Select>
      {around.below}
    </div>
  );
}

export const Tick = styled.input`
  appearance: none;
  flex: none;
  display: grid;
  place-items: center;
  width: 18px;
  height: 18px;
  margin: 2px 0 0;
  border: 1.5px solid var(--edge);
  border-radius: 3px;
  background: var(--sheet);
  cursor: pointer;
  &[type="radio"] { border-radius: 50%; }
  &:checked { background: var(--ink); border-color: var(--ink); }
  &::after { content: ""; width: 9px; height: 5px; margin-top: -2px; border: solid transparent; border-width: 0 0 2px 2px; rotate: -45deg; }
  &:checked::after { border-color: var(--sheet); }
  &[type="radio"]::after { width: 6px; height: 6px; margin: 0; border: 0; border-radius: 50%; rotate: 0deg; }
  &[type="radio"]:checked::after { background: var(--sheet); }
`;

const TickLabel = styled.label`
  display: grid;
  grid-template-columns: 18px minmax(0, 1fr);
  gap: 10px;
  align-items: start;
  cursor: pointer;
`;

export function CheckField({
  label,
  hint,
  onTick,
  ...input
}: { label: ReactNode; hint?: ReactNode; onTick?: (ticked: boolean) => void } & Omit<
  InputHTMLAttributes<HTMLInputElement>,
  "type"
> & {
    type?: "checkbox" | "radio";
  }) {
  return (
    <TickLabel>
      <Tick type="checkbox" {...input} {...(onTick && { onChange: (event) => onTick(event.target.checked) })} />
      <span>
        {label}
        {hint && (
          <span className="soft small" style={{ display: "block" }}>
            {hint}
          </span>
        )}
      </span>
    </TickLabel>
  );
}

export const Chip = styled.span`
  display: inline-block;
  padding: 0 7px;
  border-radius: 3px;
  background: var(--amber-wash);
  color: var(--amber);
  font-size: 13px;
  line-height: 20px;
  font-weight: 600;
  &[data-tone="good"] { background: var(--moss-wash); color: var(--moss); }
  &[data-tone="bad"] { background: var(--crimson-wash); color: var(--crimson); }
  &[data-tone="plain"] { background: none; box-shadow: inset 0 0 0 1px var(--edge); color: var(--soft); }
`;

/** A message that stands in the page: what happened, why, what to do. */
export const Notice = styled.div`
  padding: 12px 14px;
  background: var(--amber-wash);
  color: var(--ink);
  border-left: 4px solid var(--amber);
  overflow-wrap: anywhere;
  &[data-tone="bad"] { background: var(--crimson-wash); border-color: var(--crimson); }
  &[data-tone="good"] { background: var(--moss-wash); border-color: var(--moss); }
`;

export const Stack = styled.div`
  display: grid;
  grid-template-columns: minmax(0, 1fr);
  gap: 16px;
`;

export const Row = styled.div`
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 8px;
`;
