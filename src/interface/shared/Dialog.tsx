"use client";

import type { ReactNode } from "react";
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
`;

/** A sheet of paper over the page. Escape and a press outside close it. */
export function Dialog({
  title,
  open,
  onClose,
  children,
}: {
  title: string;
  open: boolean;
  onClose: () => void;
  children: ReactNode;
}) {
  return (
    <Overlay isOpen={open} onOpenChange={(isOpen) => !isOpen && onClose()} isDismissable>
      <Sheet>
        <AriaDialog style={{ outline: "none" }}>
          <Heading slot="title" level={2}>
            {title}
          </Heading>
          {children}
        </AriaDialog>
      </Sheet>
    </Overlay>
  );
}
