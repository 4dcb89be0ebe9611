"use client";

import { Clock, TriangleAlert, X } from "lucide-react";
import { type ReactNode, useState } from "react";
import styled from "styled-components";
import { placeOf } from "@/core/access";
import { sayTime } from "@/core/time";
import { runCommand } from "../shared/ask";
import { Act, Button, TextField } from "../shared/controls";
import { useDone } from "../shared/Done";
import { Beyond, SaidLines } from "./SaidLine";
import { ShowSlip } from "./ShowSlip";
import { slipFoot as t } from "./strings";
import { undoSlip } from "./undoSlip";
import { type SlipState, withChange } from "./useSlip";

const Foot = styled.div`
  flex: none;
  background: var(--baize);
  color: var(--baize-ink);
  --ground: var(--baize);
  > div { display: grid; grid-template-columns: minmax(0, 1fr) minmax(0, 340px) 264px; gap: 32px; min-height: 172px; padding: 12px var(--gutter); }
  h2 { font-size: 15px; line-height: 20px; margin-bottom: 4px; }
  .paper { margin: -2px 0; padding: 10px 16px 8px; max-height: 210px; overflow: auto; background: var(--sheet); color: var(--ink); --ground: var(--sheet); }
  .paper li { display: grid; grid-template-columns: 16px minmax(0, 1fr) auto; gap: 10px; padding: 4px 0; border-top: 1px solid var(--rule); font-size: 14px; line-height: 20px; overflow-wrap: anywhere; }
  .paper li > svg { margin-top: 2px; }
  .paper .warning { color: var(--amber); font-weight: 650; }
  .paper .harm { color: var(--crimson); font-weight: 650; }
  .why { max-height: 210px; overflow: auto; font-size: 14px; line-height: 20px; }
  .why .soft { color: var(--baize-soft); }
  .why ul { margin: 4px 0; color: var(--baize-soft); }
  .why a { color: var(--baize-ink); }
  .apply label, .apply .soft { color: var(--baize-soft); }
  .do { display: flex; flex-wrap: wrap; gap: 10px; margin-top: 10px; }
  .do button { background: none; border-color: var(--baize-edge); color: inherit; }
  .do button[data-look="go"] { background: var(--baize-copper); border-color: var(--baize-copper); color: var(--on-baize-copper); }
  .do button[data-look="go"][data-disabled] { background: none; border-color: var(--baize-edge); color: var(--baize-soft); }
  .set { display: flex; flex-wrap: wrap; gap: 2px 12px; margin-top: 6px; }
  .set button { color: inherit; text-decoration-color: var(--baize-edge); }
  @media (max-width: 1023px) { > div { grid-template-columns: minmax(0, 1fr); gap: 12px; } .paper, .why { max-height: none; } }
`;

interface FootProps {
  state: SlipState;
  zone: string;
  now: number;
  me: string;
  why: ReactNode;
  onApplied: () => void;
}

/** The change slip: losses first, then who used it, then the rest; what stands at the focused cell; reason and Apply. */
export function SlipFoot({ state, zone, now, me, why, onApplied }: FootProps) {
  const { slip, changes, pending, wrong, change, read, setWrong } = state;
  const [reason, setReason] = useState("");
  const [running, setRunning] = useState(false);
  const [listed, setListed] = useState(false);
  const [showing, setShowing] = useState(false);
  const done = useDone();
  const { draft } = slip;
  const moved = draft?.changes.some((one) => one.moved) ?? false;
  const count = changes.length;
  const said = draft?.said;
  const apply = async () => {
    if (!draft) return;
    setRunning(true);
    const input = { slipId: draft.id, revision: draft.revision, ground: draft.said.ground, why: reason };
    const answer = await runCommand("access.applySlip", input);
    setRunning(false);
    if (answer.ok) {
      setReason("");
      if (answer.result.waiting) done(t.someOfItHasOtherStewardsIt);
      else done(t.changesApplied(count), () => undoSlip(draft.id));
      onApplied();
    } else setWrong(answer.refused.message);
    await read();
  };
  const act = async (command: "access.discardSlip" | "access.withdrawSlip", slipId: string) => {
    const answer = await runCommand(command, { slipId });
    if (!answer.ok) setWrong(answer.refused.message);
    await read();
  };
  return (
    <Foot className="on-baize">
      <div>
        <section className="paper" aria-label={t.changeSlip} aria-busy={pending}>
          <h2>
            {t.changeSlip2}
            {count > 0 && (
              <Act onPress={() => setListed(!listed)} aria-expanded={listed}>
                {listed ? t.effects : t.changes(count)}
              </Act>
            )}
          </h2>
          {count === 0 && (
            <Empty
              slip={slip}
              zone={zone}
              now={now}
              onUndo={async (slipId) => {
                done(await undoSlip(slipId));
                await read();
                onApplied();
              }}
            />
          )}
          {slip.waiting.map((one) => (
            <p key={one.id} className="small">
              {t.waitingForApprovalSince(one.changes, sayTime(one.at, now, zone))}
              <Act onPress={() => act("access.withdrawSlip", one.id)}>{t.withdraw}</Act>
            </p>
          ))}
          {wrong && (
            <p role="alert" className="harm">
              {wrong}
            </p>
          )}
          {moved && (
            <p className="warning" role="alert">
              {t.someoneHasChangedOneOfThese(draft!.changes.flatMap((one) => one.movedBy))}
              <Act onPress={() => change((before) => before, true)}>{t.keepMyChanges}</Act>
            </p>
          )}
          {count > 0 && pending && <p className="soft">{t.checkingTheEffects}</p>}
          {listed && draft && (
            <ul>
              {draft.changes.map(({ change: one, text, moved: other }) => (
                <li key={placeOf(one)}>
                  <Clock size={16} aria-hidden style={{ visibility: "hidden" }} />
                  <span>
                    {text}
                    {other && <span className="warning">{t.theEffectsHaveChanged}</span>}
                  </span>
                  <Act
                    aria-label={t.removeFromSlip(text)}
                    onPress={() => change((before) => before.filter((each) => placeOf(each) !== placeOf(one)))}
                  >
                    <X size={16} aria-hidden />
                  </Act>
                </li>
              ))}
            </ul>
          )}
          {!listed && !pending && said && (
            <ul>
              {said.withoutSteward.length > 0 && (
                <li className="harm">
                  <TriangleAlert size={16} />
                  <span>{t.wouldBeLeftWithoutAStewardMake(said.withoutSteward[0])}</span>
                </li>
              )}
              <SaidLines lines={said.lines} {...{ zone, now, me }} />
              {said.lines.length === 0 && !said.beyond && (
                <li>
                  <TriangleAlert size={16} />
                  <span>{t.nobodysAccessChanges}</span>
                </li>
              )}
              {said.lines.length > 0 && said.idle.length > 0 && (
                <li>
                  <TriangleAlert size={16} />
                  <span>
                    {t.noEffect(said.idle.length)}: {said.idle.map((at) => draft!.changes[at]?.text).join("; ")}
                  </span>
                </li>
              )}
              <Beyond said={said} />
              {draft?.refused.map((message) => (
                <li key={message} className="harm">
                  <TriangleAlert size={16} />
                  <span>{message}</span>
                </li>
              ))}
              {draft?.second && (
                <li className="warning">
                  <TriangleAlert size={16} />
                  <span>{t.itLastsLongerThanTheHouseRules}</span>
                </li>
              )}
            </ul>
          )}
        </section>
        <section className="why" aria-live="polite">
          {why}
        </section>
        <form
          className="apply"
          onSubmit={(event) => {
            event.preventDefault();
            void apply();
          }}
        >
          <TextField
            label={draft?.reason ? t.reasonRequiredByTheHouseRules : t.reason}
            value={reason}
            maxLength={500}
            onText={setReason}
          />
          <div className="do">
            <Button
              look="go"
              type="submit"
              isDisabled={
                count === 0 ||
                pending ||
                running ||
                moved ||
                (said?.withoutSteward.length ?? 0) > 0 ||
                (draft?.refused.length ?? 0) > 0
              }
            >
              {count === 0 ? t.apply : said?.asks || draft?.second ? t.sendForApproval : t.applyChanges(count)}
            </Button>
            {count > 0 && (
              <Button
                onPress={() => {
                  const discarded = changes;
                  change(() => []);
                  done(t.discarded(count), async () => {
                    change((now) => discarded.reduce(withChange, [...now]));
                    return t.backOnTheSlip;
                  });
                }}
              >
                {t.discard}
              </Button>
            )}
            {count > 0 && (
              <Button isDisabled={pending} onPress={() => setShowing(true)}>
                {t.askForASecondOpinion}
              </Button>
            )}
          </div>
          <p className="small soft" style={{ marginTop: 6 }}>
            {count > 0 && t.nothingHasChangedYet}
          </p>
        </form>
      </div>
      {showing && <ShowSlip me={me} onClose={() => setShowing(false)} />}
    </Foot>
  );
}

function Empty({
  slip,
  zone,
  now,
  onUndo,
}: {
  slip: SlipState["slip"];
  zone: string;
  now: number;
  onUndo: (slipId: string) => void;
}) {
  const [last] = slip.applied;
  return (
    <>
      <p className="soft">{t.setALevelInACellIt}</p>
      {last && (
        <p className="soft small">
          {t.applied(sayTime(last.at, now, zone), last.changes)}
          <Act onPress={() => onUndo(last.id)}>{t.undo}</Act>
        </p>
      )}
    </>
  );
}
