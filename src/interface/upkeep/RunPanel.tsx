"use client";

import Link from "next/link";
import { Button, Notice, Row } from "../shared/controls";
import { Dialog } from "../shared/Dialog";
import { Form } from "../shared/Form";
import { run as t } from "./strings";
import type { Run, RunItem } from "./useRun";

/** What is under way and what each came to; it stays until its reader closes it. */
export function RunPanel({ run, onStop, onClose }: { run: Run; onStop: () => void; onClose: () => void }) {
  const good = run.lines.filter((line) => line.good).length;
  const left = run.of - run.lines.length;
  return (
    <Notice
      role="status"
      data-tone={run.now === null && good === run.of ? "good" : "plain"}
      style={{ marginBottom: 16 }}
    >
      <Row>
        <b style={{ marginRight: "auto" }}>
          {run.now
            ? (run.what === "change" ? t.changing : t.testing)(run.now.name, run.lines.length + 1, run.of)
            : t.done(good, run.of, run.what)}
        </b>
        {run.now ? (
          <Button onPress={onStop} isDisabled={run.stopping || left <= 1}>
            {run.stopping ? t.stopping : t.stop}
          </Button>
        ) : (
          <Button onPress={onClose}>{t.close}</Button>
        )}
      </Row>
      {run.now && <progress max={run.of} value={run.lines.length} style={{ width: "100%", marginTop: 8 }} />}
      {run.lines.length > 0 && (
        <ul className="small" style={{ marginTop: 6 }}>
          {run.lines.map((line) => (
            <li key={line.entryId} data-good={line.good}>
              {t.line(
                <Link href={`/entry/${line.entryId}/steps`} prefetch={false}>
                  {line.name}
                </Link>,
                line.says,
              )}
            </li>
          ))}
        </ul>
      )}
      {run.now === null && left > 0 && <p className="small">{t.stopped(left)}</p>}
    </Notice>
  );
}

interface AskProps {
  items: readonly RunItem[];
  onStart: () => void;
  onClose: () => void;
}

/** Before passwords are changed: what happens, and to which. */
export function AskToChange({ items, onStart, onClose }: AskProps) {
  return (
    <Dialog open title={t.changeTitle(items.length)} onClose={onClose}>
      <Form
        verb={t.change}
        onSend={() => {
          onClose();
          onStart();
        }}
        onCancel={onClose}
      >
        <p>{t.changeSays}</p>
        <ul className="small" style={{ maxHeight: 220, overflow: "auto" }}>
          {items.map((item) => (
            <li key={item.entryId}>{item.name}</li>
          ))}
        </ul>
        {items.length > 1 && <p className="small soft">{t.oneAfterTheOther}</p>}
      </Form>
    </Dialog>
  );
}
