"use client";

import Link from "next/link";
import type { RunView } from "@/server/signin/runs";
import { useCommand } from "../shared/ask";
import { Button, Notice, Row } from "../shared/controls";
import { Dialog } from "../shared/Dialog";
import { Form } from "../shared/Form";
import { run as t } from "./strings";
import type { RunItem } from "./useBeginRun";

/** Runs that are under way, and those that have ended until their reader closes them. */
export function Runs({ runs, refused }: { runs: readonly RunView[]; refused: string | null }) {
  return (
    <>
      {refused && (
        <Notice data-tone="bad" role="alert" style={{ marginBottom: 16 }}>
          {refused}
        </Notice>
      )}
      {runs.map((run) => (
        <RunPanel key={run.id} run={run} />
      ))}
    </>
  );
}

function RunPanel({ run }: { run: RunView }) {
  const stop = useCommand("signIn.stopRun");
  const dismiss = useCommand("signIn.dismissRun");
  const of = run.lines.length;
  const ended = run.lines.filter(({ state }) => state === "ended");
  const good = ended.filter((line) => line.good).length;
  const unbegun = run.lines.filter(({ state }) => state === "not begun").length;
  const now = run.lines.filter(({ state }) => state === "running").map(({ name }) => name);
  const wait = run.lines.filter(({ state }) => state === "waiting").length;
  const { refused } = stop.refused ? stop : dismiss;
  return (
    <Notice role="status" data-tone={run.over && good === of ? "good" : "plain"} style={{ marginBottom: 16 }}>
      <Row>
        <b style={{ marginRight: "auto" }}>
          {run.over ? t.done(good, of, run.what) : t.underWay[run.what](now, ended.length, of)}
        </b>
        {run.over ? (
          <Button onPress={() => void dismiss.run({ runId: run.id })} isDisabled={dismiss.running}>
            {t.close}
          </Button>
        ) : (
          <Button
            onPress={() => void stop.run({ runId: run.id })}
            isDisabled={stop.running || run.stopping || wait === 0}
          >
            {run.stopping ? t.stopping : t.stop}
          </Button>
        )}
      </Row>
      {!run.over && (
        <progress aria-label={t.howFar} max={of} value={ended.length} style={{ width: "100%", marginTop: 8 }} />
      )}
      {ended.length > 0 && (
        <ul className="small" style={{ marginTop: 6, maxHeight: 320, overflow: "auto" }}>
          {ended.map((line) => (
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
      {!run.over && <p className="small soft">{t.goesOn}</p>}
      {run.over && unbegun > 0 && <p className="small">{t.stopped(unbegun)}</p>}
      {refused && <p role="alert">{refused.message}</p>}
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
