"use client";

import { useRouter } from "next/navigation";
import { useState } from "react";
import { hostOf } from "@/core/signin/address";
import { CHANGE_OUTCOMES, type ChangeOutcome } from "@/core/signin/changing";
import { sayTime } from "@/core/time";
import type { Changed } from "@/server/signin/changePassword";
import { post, useCommand } from "../shared/ask";
import { Act, Button, Notice, Row, TextField } from "../shared/controls";
import { Dialog } from "../shared/Dialog";
import { useDone } from "../shared/Done";
import { Form } from "../shared/Form";
import { askLanyard, useLanyard } from "../shared/lanyard";
import type { StepsView } from "./StepsPage";
import { passwordAtSite as t } from "./strings";

/** Longer than any sign-in takes. */
const LONGEST_MS = 240_000;

/** What is neither good nor bad has no colour of its own. */
const TONES: Partial<Record<ChangeOutcome, "good" | "plain">> = {
  changed: "good",
  "new-chosen": "plain",
  "old-chosen": "plain",
  "by-hand": "plain",
};

/** One change from this page at a time; how it ended is read anew with the page. */
function useChange(entryId: string) {
  const router = useRouter();
  const [running, setRunning] = useState<"change" | "try" | null>(null);
  const [refused, setRefused] = useState<string | null>(null);
  const run = async (asked: { what: "change"; page: string } | { what: "try" }): Promise<void> => {
    if (running) return;
    setRunning(asked.what);
    setRefused(null);
    const answer = await post<Changed>(`/api/change/${entryId}`, asked);
    if (!answer.ok) setRefused(answer.refused.message);
    router.refresh();
    setRunning(null);
  };
  return { running, refused, run };
}

/** The password of an entry at its site: Galtry changes it, and where that left it open, its stewards decide. */
export function PasswordAtSite({ view, now }: { view: StepsView; now: number }) {
  const router = useRouter();
  const done = useDone();
  const decide = useCommand("signIn.decideChange");
  const [asking, setAsking] = useState(false);
  const [page, setPage] = useState("");
  const { running, refused, run } = useChange(view.id);
  const { change } = view;
  const keep = async (which: "new" | "old") => {
    if (!(await decide.run({ entryId: view.id, keep: which })).ok) return;
    done(which === "new" ? t.newStands : t.oldStands);
    router.refresh();
  };
  const busy = running !== null || change?.running === true;
  return (
    <section id="password">
      <h2>{t.passwordAtTheSite}</h2>
      <p className="small soft">{t.whatGaltryDoes}</p>
      {view.changePage !== "" && (
        <p className="small" style={{ marginTop: 6, overflowWrap: "anywhere" }}>
          {t.isChangedAt(
            <a href={view.changePage} target="_blank" rel="noopener noreferrer" className="mono">
              {view.changePage}
            </a>,
          )}
        </p>
      )}
      {busy && (
        <Notice role="status" style={{ marginTop: 10 }}>
          {running === "try" ? t.trying : t.changing}
        </Notice>
      )}
      {!busy && refused && (
        <Notice role="alert" data-tone="bad" style={{ marginTop: 10 }}>
          {refused}
        </Notice>
      )}
      {!busy && change?.outcome && (
        <Notice role="status" data-tone={TONES[change.outcome] ?? "bad"} style={{ marginTop: 10 }}>
          <b>{t.said(CHANGE_OUTCOMES[change.outcome].title, sayTime(change.at, now, view.zone), change.by)}</b>
          <p className="small">{CHANGE_OUTCOMES[change.outcome].says}</p>
          {change.detail && <p className="small soft">{t.details(change.detail)}</p>}
        </Notice>
      )}
      {decide.refused && <p role="alert">{decide.refused.message}</p>}
      <Row style={{ marginTop: 12 }}>
        {change?.open ? (
          <>
            <Button look="go" onPress={() => run({ what: "try" })} isDisabled={busy || !view.inUse}>
              {t.tryNew}
            </Button>
            <Button onPress={() => keep("new")} isDisabled={busy}>
              {t.useNew}
            </Button>
            <Button onPress={() => keep("old")} isDisabled={busy}>
              {t.keepOld}
            </Button>
          </>
        ) : (
          <Button onPress={() => setAsking(true)} isDisabled={busy || !view.inUse || view.refused}>
            {t.changeNow}
          </Button>
        )}
        {(!change?.open || change.outcome === "by-hand") && <ByHand view={view} busy={busy} />}
      </Row>
      <Regularly view={view} now={now} />
      {asking && (
        <Dialog open title={t.changeOf(view.name)} onClose={() => setAsking(false)}>
          <Form
            verb={t.changeNow}
            onSend={() => {
              setAsking(false);
              return run({ what: "change", page });
            }}
            onCancel={() => setAsking(false)}
          >
            <p>{t.whatHappens(hostOf(view.signInPage) ?? "")}</p>
            <TextField
              label={t.whereItIsChanged}
              hint={t.leaveEmpty}
              value={page}
              onText={setPage}
              className="mono"
              spellCheck={false}
            />
          </Form>
        </Dialog>
      )}
    </section>
  );
}

/** By Lanyard where it is connected; else its person goes there, and enters the new password in the entry. */
function ByHand({ view, busy }: { view: StepsView; busy: boolean }) {
  const { lanyard } = useLanyard();
  const [said, setSaid] = useState<string | null>(null);
  if (lanyard?.state !== "connected")
    return (
      <a href={view.changePage || view.signInPage} target="_blank" rel="noopener noreferrer">
        {t.openToChangeByHand}
      </a>
    );
  const open = async () => {
    setSaid(t.lanyardOpensThePage);
    const answer = await askLanyard<{ message?: string }>("change-by-hand", { entryId: view.id }, LONGEST_MS);
    if (answer?.message !== undefined || !answer) setSaid(answer?.message ?? t.lanyardDoesNotAnswer);
  };
  return (
    <>
      <Button onPress={open} isDisabled={busy || !view.inUse}>
        {t.changeByHand}
      </Button>
      {said && (
        <p role="status" className="small" style={{ flexBasis: "100%" }}>
          {said}
        </p>
      )}
    </>
  );
}

/** Whether it is among those that the house rules have changed every so many months. */
function Regularly({ view, now }: { view: StepsView; now: number }) {
  const done = useDone();
  const choose = useCommand("signIn.changeRegularly");
  const { chosen, every, asksFirst, next } = view.regularly;
  if (every === null && !chosen) return null;
  const set = async (regularly: boolean) => {
    if ((await choose.run({ entryIds: [view.id], regularly })).ok)
      done(regularly ? t.chosenNow : t.notChosenNow, [
        { command: "signIn.changeRegularly", input: { entryIds: [view.id], regularly: !regularly } },
      ]);
  };
  return (
    <div style={{ marginTop: 14 }}>
      <p className="small">
        {every === null
          ? t.noRule
          : !chosen
            ? t.notRegularly(every)
            : asksFirst
              ? t.notWhileItAsksFirst
              : t.regularly(every, sayTime(next!, now, view.zone))}
      </p>
      {view.level === "steward" && (
        <Act onPress={() => void set(!chosen)} isDisabled={choose.running}>
          {chosen ? t.stopRegularly : t.changeRegularly}
        </Act>
      )}
      {choose.refused && <p role="alert">{choose.refused.message}</p>}
    </div>
  );
}
