import { useState } from "react";
import { sayLeft } from "../../src/interface/shared/useLeft";
import type { AskedCode } from "../../src/server/signin/askedCodes";
import type { View } from "../shared/messages";
import { ask } from "./ask";
import { codesAsked as t } from "./strings";

/** Before all else: somebody's sign-in waits for a code that only the person here has received. */
export function CodesAsked({ view, look }: { view: View; look: () => void }) {
  const asked = (view.keys?.codesAsked ?? []).filter(({ until }) => until > Date.now());
  return asked.map((one) => <CodeAsked key={one.id} asked={one} look={look} />);
}

function CodeAsked({ asked: { id, entry, person, until }, look }: { asked: AskedCode; look: () => void }) {
  const [code, setCode] = useState("");
  const [wrong, setWrong] = useState<string | null>(null);
  const [running, setRunning] = useState(false);
  const send = async (given: string | null) => {
    setRunning(true);
    const refused = await ask<{ wrong: string } | null>({ ask: "give-code", id, code: given });
    setRunning(false);
    setWrong(refused?.wrong ?? null);
    look();
  };
  return (
    <form
      className="asked"
      onSubmit={(event) => {
        event.preventDefault();
        void send(code);
      }}
    >
      <p className="lead">{t.isSigningInTo(person, entry.name)}</p>
      <p className="small">{t.theSiteHasSentACode}</p>
      <label className="small" htmlFor={id}>
        {t.code} · {t.left(sayLeft(until - Date.now()) ?? "0:00")}
      </label>
      <input
        id={id}
        className="field mono"
        autoComplete="one-time-code"
        autoFocus
        value={code}
        onChange={(event) => setCode(event.target.value)}
      />
      {wrong && (
        <p className="small bad" role="alert">
          {wrong}
        </p>
      )}
      <div className="do">
        <button type="submit" className="btn go" disabled={running || code.trim() === ""}>
          {t.sendCode}
        </button>
        <button type="button" className="quiet" disabled={running} onClick={() => void send(null)}>
          {t.iReceivedNone}
        </button>
      </div>
    </form>
  );
}
