"use client";

import { type ReactNode, useEffect, useRef, useState } from "react";
import { Button, Row, Stack } from "./controls";
import { Dialog } from "./Dialog";
import { leaveGuard as t } from "./strings";

/**
 * What was typed into a long form is not lost by a link, by closing the page or by *Cancel*: its reader is asked.
 * @param dirty whether something was typed since it was last saved
 */
export function useLeaveGuard(dirty: () => boolean): { ask: (leave: () => void) => void; sheet: ReactNode } {
  const [leave, setLeave] = useState<(() => void) | null>(null);
  const latest = useRef(dirty);
  latest.current = dirty;
  useEffect(() => {
    const closing = (event: BeforeUnloadEvent) => {
      if (latest.current()) event.preventDefault();
    };
    const click = (event: MouseEvent) => {
      const link = event.target instanceof Element ? event.target.closest("a[href]") : null;
      if (!(link instanceof HTMLAnchorElement) || !latest.current()) return;
      // A tab of its own leaves nothing.
      if (link.target || event.ctrlKey || event.metaKey || event.shiftKey || event.button !== 0) return;
      if (link.hash && link.pathname === location.pathname) return;
      event.preventDefault();
      event.stopPropagation();
      setLeave(() => () => location.assign(link.href));
    };
    addEventListener("beforeunload", closing);
    document.addEventListener("click", click, true);
    return () => {
      removeEventListener("beforeunload", closing);
      document.removeEventListener("click", click, true);
    };
  }, []);
  const go = () => {
    // Answered: the browser need not ask again.
    latest.current = () => false;
    leave?.();
  };
  return {
    ask: (how) => (latest.current() ? setLeave(() => how) : how()),
    sheet: leave && (
      <Dialog title={t.leaveWithoutSaving} open onClose={() => setLeave(null)}>
        <Stack>
          <p>{t.whatYouTypedIsLost}</p>
          <Row>
            <Button look="go" onPress={() => setLeave(null)} autoFocus>
              {t.keepEditing}
            </Button>
            <Button look="harm" onPress={go}>
              {t.leave}
            </Button>
          </Row>
        </Stack>
      </Dialog>
    ),
  };
}
