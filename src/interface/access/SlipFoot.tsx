"use client";

import { Clock, TriangleAlert, X } from "lucide-react";
import { type ReactNode, useState } from "react";
import styled from "styled-components";
import { placeOf } from "@/core/access";
import { sayTime } from "@/core/time";
import { findSubjects, type SubjectChoice } from "../entry/subjects";
import { runCommand, useCommand } from "../shared/ask";
import { Act, Button, TextField } from "../shared/controls";
import { Dialog } from "../shared/Dialog";
import { useDone } from "../shared/Done";
import { Picker } from "../shared/Picker";
import { Beyond, SaidLines } from "./SaidLine";
import type { SlipState } from "./useSlip";

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
    const answer = await runCommand<{ waiting: boolean }>("access.applySlip", input);
    setRunning(false);
    if (answer.ok) {
      setReason("");
      if (answer.result.waiting) done("Others are stewards of some of it: it waits for their yes.");
      else
        done(count === 1 ? "1 change is applied." : `${count} changes are applied.`, [
          { command: "access.undoSlip", input: { slipId: draft.id } },
        ]);
      onApplied();
    } else setWrong(answer.refused.message);
    await read();
  };
  const act = async (command: string, slipId: string) => {
    const answer = await runCommand(command, { slipId });
    if (!answer.ok) setWrong(answer.refused.message);
    await read();
  };
  return (
    <Foot className="on-baize">
      <div>
        <section className="paper" aria-label="Change slip" aria-busy={pending}>
          <h2>
            Change slip{" "}
            {count > 0 && (
              <Act onPress={() => setListed(!listed)} aria-expanded={listed}>
                {listed ? "what it does" : count === 1 ? "its 1 change" : `its ${count} changes`}
              </Act>
            )}
          </h2>
          {count === 0 && (
            <Empty slip={slip} zone={zone} now={now} onUndo={(slipId) => act("access.undoSlip", slipId)} />
          )}
          {slip.waiting.map((one) => (
            <p key={one.id} className="small">
              {one.changes === 1 ? "1 change waits" : `${one.changes} changes wait`} for the yes of other stewards since{" "}
              {sayTime(one.at, now, zone)}. <Act onPress={() => act("access.takeSlipBack", one.id)}>Take it back</Act>
            </p>
          ))}
          {wrong && (
            <p role="alert" className="harm">
              {wrong}
            </p>
          )}
          {moved && (
            <p className="warning" role="alert">
              Somebody else changed one of these places meanwhile.{" "}
              <Act onPress={() => change((before) => before, true)}>I have read it: keep my changes</Act>
            </p>
          )}
          {count > 0 && pending && <p className="soft">Working out what it would do…</p>}
          {listed && draft && (
            <ul>
              {draft.changes.map(({ change: one, text, moved: other }) => (
                <li key={placeOf(one)}>
                  <Clock size={16} aria-hidden style={{ visibility: "hidden" }} />
                  <span>
                    {text}
                    {other && <span className="warning"> It is different now.</span>}
                  </span>
                  <Act
                    aria-label={`Take off: ${text}`}
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
              {said.bare.length > 0 && (
                <li className="harm">
                  <TriangleAlert size={16} />
                  <span>
                    {said.bare[0]} would be left without a steward: the slip cannot be applied so. Make somebody else
                    its steward first, without an end.
                  </span>
                </li>
              )}
              <SaidLines lines={said.lines} {...{ zone, now, me }} />
              {said.lines.length === 0 && !said.beyond && (
                <li>
                  <TriangleAlert size={16} />
                  <span>It would change nothing for anybody.</span>
                </li>
              )}
              {said.lines.length > 0 && said.idle.length > 0 && (
                <li>
                  <TriangleAlert size={16} />
                  <span>
                    {said.idle.length === 1 ? "One change does nothing" : `${said.idle.length} changes do nothing`}:{" "}
                    {said.idle.map((at) => draft!.changes[at]?.text).join("; ")}
                  </span>
                </li>
              )}
              <Beyond said={said} />
              {draft?.second && (
                <li className="warning">
                  <TriangleAlert size={16} />
                  <span>
                    It lasts longer than the house rules let one steward give: another one is asked for a yes.
                  </span>
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
            label={draft?.reason ? "Reason: the house rules ask for one" : "Reason, for the journal"}
            value={reason}
            maxLength={500}
            onText={setReason}
          />
          <div className="do">
            <Button
              look="go"
              type="submit"
              isDisabled={count === 0 || pending || running || moved || (said?.bare.length ?? 0) > 0}
            >
              {count === 0
                ? "Apply"
                : said?.asks || draft?.second
                  ? "Ask for a yes"
                  : count === 1
                    ? "Apply 1 change"
                    : `Apply ${count} changes`}
            </Button>
            {count > 0 && <Button onPress={() => change(() => [])}>Drop</Button>}
            {count > 0 && (
              <Button isDisabled={pending} onPress={() => setShowing(true)}>
                Ask for a second look
              </Button>
            )}
          </div>
          <p className="small soft" style={{ marginTop: 6 }}>
            {count > 0 && "Nothing has changed yet."}
          </p>
        </form>
      </div>
      {showing && <ShowSlip me={me} onClose={() => setShowing(false)} />}
    </Foot>
  );
}

const findStaff = findSubjects("staff");

/** To whom else: they read it as far as they are steward, and say something. */
function ShowSlip({ me, onClose }: { me: string; onClose: () => void }) {
  const show = useCommand("access.showSlip");
  const done = useDone();
  const load = async (typed: string): Promise<SubjectChoice[] | null> =>
    (await findStaff(typed))?.filter(({ id }) => id !== me) ?? null;
  return (
    <Dialog title="Ask for a second look" open onClose={onClose}>
      <p style={{ marginBottom: 12 }}>
        They read what it would do, as far as they are steward of it, and write you a word. You apply it all the same
        when you like.
      </p>
      <Picker<SubjectChoice>
        label="Whom"
        seen
        placeholder="a name or a mail address"
        list="People"
        nothing="Nobody of that name is here."
        load={load}
        searches
        onPick={async ({ id, name }) => {
          if (!(await show.run({ personId: id })).ok) return;
          done(`${name} is asked for a second look.`);
          onClose();
        }}
      />
      {show.refused && (
        <p role="alert" style={{ color: "var(--crimson)", fontWeight: 600 }}>
          {show.refused.message}
        </p>
      )}
    </Dialog>
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
      <p className="soft">
        Set a level in a cell: it is written here with what it would do, and changes nothing before you apply it.
      </p>
      {last && (
        <p className="soft small">
          Applied {sayTime(last.at, now, zone)}: {last.changes === 1 ? "1 change" : `${last.changes} changes`}.{" "}
          <Act onPress={() => onUndo(last.id)}>Take it back on a new slip</Act>
        </p>
      )}
    </>
  );
}
