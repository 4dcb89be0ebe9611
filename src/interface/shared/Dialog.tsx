"use client";

import { type ReactNode, useEffect, useLayoutEffect, useRef } from "react";
import { Dialog as AriaDialog, Heading, Modal, ModalOverlay } from "react-aria-components";
import styled from "styled-components";

const Overlay = styled(ModalOverlay)`
  position: fixed;
  inset: 0;
  z-index: 20;
  display: grid;
  place-items: start center;
  padding: 10vh 16px 16px;
  overflow: auto;
  background: light-dark(#1e242080, #000000b0);
  &[data-cover] { background: var(--ground); }
`;

const Sheet = styled(Modal)`
  width: 100%;
  max-width: 520px;
  padding: 20px 24px 24px;
  background: var(--sheet);
  border-top: 4px double var(--ink);
  box-shadow: var(--shade);
  --ground: var(--sheet);
  h2 { margin-bottom: 12px; overflow-wrap: anywhere; }
  &:focus { outline: none; }
  &[data-wide] { max-width: 860px; }
`;

/**
 * Gives the focus back to where it came from. React Aria does so too, but loses it when the page is drawn anew in the
 * same moment, as it is after every command.
 */
function useFocusBack(open: boolean): void {
  const from = useRef<HTMLElement | null>(null);
  if (open && from.current === null && typeof document !== "undefined")
    from.current = document.activeElement as HTMLElement | null;
  useEffect(() => {
    if (!open) return;
    const came = from.current;
    return () => {
      from.current = null;
      for (const after of [50, 300, 800])
        setTimeout(() => {
          if (document.activeElement === document.body && came?.isConnected) came.focus();
        }, after);
    };
  }, [open]);
}

/** A sheet of paper over the page. Escape and a press outside close it. */
export function Dialog({
  title,
  open,
  onClose,
  wide = false,
  cover = false,
  children,
}: {
  title: string;
  open: boolean;
  onClose: () => void;
  /** For what is looked at rather than filled in. */
  wide?: boolean;
  /** Nothing behind it is seen, and it closes by its own buttons only. */
  cover?: boolean;
  children: ReactNode;
}) {
  useFocusBack(open);
  const paper = useRef<HTMLElement>(null);
  // What stood in it may have given place to what came of it, and the focus went with the button: keys are heard still.
  useLayoutEffect(() => {
    if (paper.current && !paper.current.contains(document.activeElement)) paper.current.focus();
  }, [title]);
  const closing = useRef(onClose);
  closing.current = onClose;
  // Also where the focus has gone nowhere: Escape is pressed at the page then, and means the dialog on top of it.
  useEffect(() => {
    if (!open) return;
    const atPage = (event: KeyboardEvent) => {
      const top = [...document.querySelectorAll('[role="dialog"]')].at(-1);
      if (event.key === "Escape" && document.activeElement === document.body && top === paper.current)
        closing.current();
    };
    document.addEventListener("keydown", atPage);
    return () => document.removeEventListener("keydown", atPage);
  }, [open]);
  return (
    <Overlay
      isOpen={open}
      onOpenChange={(isOpen) => !isOpen && onClose()}
      isDismissable={!cover}
      isKeyboardDismissDisabled={cover}
      data-cover={cover || undefined}
    >
      <Sheet data-wide={wide || undefined}>
        <AriaDialog ref={paper} style={{ outline: "none" }}>
          <Heading slot="title" level={2}>
            {title}
          </Heading>
          {children}
        </AriaDialog>
      </Sheet>
    </Overlay>
  );
}
