import { type FormEvent, useState } from "react";
import type { Found } from "../shared/messages";
import { ask } from "./ask";
import { approving as t } from "./strings";

/**
 * A number that another device shows is typed here; it is seen from where it comes and since when, and approved with the
 * sign-in password, or declined. No page can draw over this window.
 */
export function Approving({ address, close }: { address: string; close: () => void }) {
  const [number, setNumber] = useState("");
  const [found, setFound] = useState<Found | null>(null);
  const [password, setPassword] = useState("");
  const [wrong, setWrong] = useState<string | null>(null);
  const [done, setDone] = useState<"approved" | "declined" | null>(null);
  const [running, setRunning] = useState(false);
  const type = async () => {
    const answer = await ask<{ found: Found | null } | { wrong: string }>({ ask: "type-number", number });
    if ("wrong" in answer) return setWrong(answer.wrong);
    setFound(answer.found);
    setWrong(answer.found ? null : t.noSuchNumber);
  };
  const answer = async (approve: boolean) => {
    const refused = await ask<{ wrong: string } | null>({
      ask: "answer-number",
      ...{ number, approve, password: approve ? password : null },
    });
    setPassword("");
    if (refused) return setWrong(refused.wrong);
    setWrong(null);
    setDone(approve ? "approved" : "declined");
  };
  const send = (act: () => Promise<void>) => async (event?: FormEvent) => {
    event?.preventDefault();
    setRunning(true);
    await act();
    setRunning(false);
  };
  const back = (
    <button type="button" className="quiet" onClick={close}>
      {done ? t.done : t.cancel}
    </button>
  );
  if (done)
    return (
      <>
        <p className="lead" role="status">
          {t[done]}
        </p>
        <div className="do">{back}</div>
      </>
    );
  return (
    <form onSubmit={send(found ? () => answer(true) : type)}>
      <p className="lead">{t.approveASignIn}</p>
      {found ? (
        <>
          <p>
            {t.itComesFrom(
              <b>{found.browser}</b>,
              found.address,
              new Date(found.since).toLocaleTimeString("en-GB", {
                hour: "2-digit",
                minute: "2-digit",
                second: "2-digit",
              }),
            )}
          </p>
          <p className="small soft">{t.onlyYourOwn}</p>
          <label className="small" htmlFor="password">
            {t.signInPassword}
          </label>
          <input
            id="password"
            className="field"
            type="password"
            autoComplete="current-password"
            autoFocus
            value={password}
            onChange={(event) => setPassword(event.target.value)}
          />
          <p className="small soft">
            {t.withoutOne(
              <a href={new URL("/account?approve=1", address).href} target="_blank" rel="noreferrer">
                {t.inGaltry}
              </a>,
            )}
          </p>
        </>
      ) : (
        <>
          <label className="small" htmlFor="number">
            {t.shownOnTheOther}
          </label>
          <input
            id="number"
            className="field mono"
            inputMode="numeric"
            autoComplete="off"
            autoFocus
            value={number}
            onChange={(event) => setNumber(event.target.value)}
          />
        </>
      )}
      {wrong && (
        <p className="small bad" role="alert">
          {wrong}
        </p>
      )}
      <div className="do">
        <button type="submit" className="btn go" disabled={running || (found !== null && password === "")}>
          {found ? t.approve : t.continueWord}
        </button>
        {found && (
          <button type="button" className="btn" disabled={running} onClick={() => void send(() => answer(false))()}>
            {t.decline}
          </button>
        )}
        {back}
      </div>
    </form>
  );
}
