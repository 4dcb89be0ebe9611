import { useState } from "react";
import { hostOf } from "../../src/core/signin/address";
import type { View } from "../shared/messages";
import { Approving } from "./Approving";
import { ask } from "./ask";
import { main as t } from "./strings";
import { Tick } from "./Tick";

/** Behind the person's name: what Lanyard is connected to, what it is not to offer, and how to approve a sign-in. */
export function Settings({ view, close, look }: { view: View; close: () => void; look: () => void }) {
  const connection = view.connection as Extract<View["connection"], { state: "connected" }>;
  const [approving, setApproving] = useState(false);
  if (approving) return <Approving address={connection.address} close={() => setApproving(false)} />;
  return (
    <>
      <p className="lead">{t.connectedFor(connection.person)}</p>
      <p>{t.toAt(connection.organisation, <span className="mono">{hostOf(connection.address)}</span>)}</p>
      {view.keys && view.keys.neverOn.length > 0 && (
        <>
          <p className="small soft">{t.loginsAreNotOffered}</p>
          <ul className="never">
            {view.keys.neverOn.map((site) => (
              <li key={site}>
                <span className="mono">{site}</span>
                <button
                  type="button"
                  className="quiet"
                  aria-label={t.offerAgainAt(site)}
                  onClick={() => void ask({ ask: "offer-again", site }).then(look)}
                >
                  {t.offerAgain}
                </button>
              </li>
            ))}
          </ul>
        </>
      )}
      <Tick
        ticked={view.choices.atFields}
        onTick={(atFields) => void ask({ ask: "choose", choices: { atFields } }).then(look)}
      >
        {t.showMyLoginsAtFields}
      </Tick>
      <div className="do">
        <button type="button" className="btn" onClick={() => setApproving(true)}>
          {t.approveASignIn}
        </button>
      </div>
      <p className="small soft" style={{ marginTop: 18 }}>
        {t.disconnectingRemovesTheCookies}
      </p>
      <div className="do">
        <button
          type="button"
          className="btn"
          onClick={() =>
            void ask({ ask: "disconnect" }).then(() => {
              close();
              look();
            })
          }
        >
          {t.disconnect}
        </button>
        <button type="button" className="quiet" onClick={close}>
          {t.back}
        </button>
      </div>
    </>
  );
}
