"use client";

import { Check, X } from "lucide-react";
import { useState } from "react";
import styled from "styled-components";
import { Act, ButtonLink } from "../shared/controls";
import { askLanyard, type LanyardState, type TestReport } from "../shared/lanyard";
import { lanyardSide as t } from "./strings";

const Section = styled.section`
  padding: 12px 0 20px;
  border-top: 1px solid var(--edge);
  h2 { font-size: 15px; line-height: 20px; margin-bottom: 6px; }
  p + p, p + ol, ol + p { margin-top: 8px; }
  ol.steps { counter-reset: step; }
  ol.steps li { counter-increment: step; display: grid; grid-template-columns: 22px 1fr; padding: 3px 0; }
  ol.steps li::before { content: counter(step) "."; font-weight: 650; }
  ul li { display: grid; grid-template-columns: 20px 1fr; gap: 4px; padding: 2px 0; align-items: start; }
  ul svg { margin-top: 3px; }
`;

/** Lanyard's state in this browser: connected, or what is missing and how to get it. */
export function LanyardSide({ lanyard, again }: { lanyard: LanyardState | null; again: () => void; zone: string }) {
  return (
    <Section>
      <h2>{t.lanyard}</h2>
      {lanyard === null && <p className="soft">{t.lookingForLanyardInThisBrowser}</p>}
      {lanyard?.state === "connected" && <p>{t.connectedInThisBrowserFor(<b>{lanyard.person}</b>)}</p>}
      {lanyard?.state === "absent" && (
        <>
          <p>{t.lanyardGaltrysBrowserExtension}</p>
          <ol className="steps">
            <li>
              <span>{t.andUnpackIt(<a href="/lanyard">{t.getLanyard}</a>)}</span>
            </li>
            <li>
              <span>{t.loadItOnTheBrowsersExtensions}</span>
            </li>
            <li>
              <span>{t.comeBackHereAndConnectIt}</span>
            </li>
          </ol>
          <p>
            <Act onPress={again}>{t.checkAgain}</Act>
          </p>
        </>
      )}
      {lanyard?.state === "unconnected" && (
        <>
          <p>{t.lanyardIsInThisBrowserButNot}</p>
          <p>
            <ButtonLink href="/lanyard/connect" data-look="go">
              {t.connectLanyard}
            </ButtonLink>
          </p>
        </>
      )}
      {lanyard?.state !== "absent" && lanyard !== null && <TestConnection />}
    </Section>
  );
}

function TestConnection() {
  const [report, setReport] = useState<TestReport | "running" | "silent" | null>(null);
  const test = async () => {
    setReport("running");
    setReport((await askLanyard<TestReport>("test", {}, 8000)) ?? "silent");
  };
  return (
    <div style={{ marginTop: 8 }} aria-live="polite">
      <Act onPress={test} isDisabled={report === "running"}>
        {t.testTheConnection}
      </Act>
      {report === "running" && <p className="soft">{t.testing}</p>}
      {report === "silent" && <p>{t.lanyardDidNotRespondReloadThis}</p>}
      {report !== null && typeof report === "object" && (
        <ul style={{ marginTop: 6 }}>
          <Tested good={report.reached} yes={t.lanyardCanConnectToGaltry} no={t.lanyardCannotConnectToGaltry} />
          <Tested
            good={report.person !== null}
            yes={t.itIsConnectedFor(report.person)}
            no={t.itIsNotConnectedForAnyone}
          />
          <Tested good={report.mayCookies} yes={t.itIsAllowedToSetCookies} no={t.itIsNotAllowedToSetCookies} />
          <Tested good yes={t.version(report.version)} no="" />
        </ul>
      )}
    </div>
  );
}

function Tested({ good, yes, no }: { good: boolean; yes: string; no: string }) {
  return (
    <li>
      {good ? (
        <Check size={16} aria-label={t.works} style={{ color: "var(--moss)" }} />
      ) : (
        <X size={16} aria-label={t.doesNotWork} style={{ color: "var(--crimson)" }} />
      )}
      <span>{good ? yes : no}</span>
    </li>
  );
}
