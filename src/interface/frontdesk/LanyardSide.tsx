"use client";

import { Check, X } from "lucide-react";
import { useState } from "react";
import styled from "styled-components";
import { Act, ButtonLink } from "../shared/controls";
import { askLanyard, type LanyardState, type TestReport } from "../shared/lanyard";

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
      <h2>Lanyard</h2>
      {lanyard === null && <p className="soft">Looking for Lanyard in this browser.</p>}
      {lanyard?.state === "connected" && (
        <p>
          Connected in this browser for <b>{lanyard.person}</b>.
        </p>
      )}
      {lanyard?.state === "absent" && (
        <>
          <p>
            Lanyard, Galtry’s browser extension, is not in this browser. Without it nothing can be signed in to from
            here.
          </p>
          <ol className="steps">
            <li>
              <span>
                <a href="/lanyard">Get Lanyard</a> and unpack it
              </span>
            </li>
            <li>
              <span>Load it in the browser’s own page of extensions</span>
            </li>
            <li>
              <span>Come back here and connect it</span>
            </li>
          </ol>
          <p>
            <Act onPress={again}>Look again</Act>
          </p>
        </>
      )}
      {lanyard?.state === "unconnected" && (
        <>
          <p>Lanyard is in this browser, but not connected to Galtry.</p>
          <p>
            <ButtonLink href="/lanyard/connect" data-look="go">
              Connect Lanyard
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
        Test the connection
      </Act>
      {report === "running" && <p className="soft">Testing.</p>}
      {report === "silent" && (
        <p>Lanyard did not answer. Reload this page; if that does not help, load Lanyard again.</p>
      )}
      {report !== null && typeof report === "object" && (
        <ul style={{ marginTop: 6 }}>
          <Tested
            good={report.reached}
            yes="Lanyard reaches Galtry"
            no="Lanyard does not reach Galtry: connect it again"
          />
          <Tested
            good={report.person !== null}
            yes={`It is connected for ${report.person}`}
            no="It is connected for nobody"
          />
          <Tested
            good={report.mayCookies}
            yes="It may set cookies"
            no="It may not set cookies: allow it on all sites"
          />
          <Tested good yes={`Version ${report.version}`} no="" />
        </ul>
      )}
    </div>
  );
}

function Tested({ good, yes, no }: { good: boolean; yes: string; no: string }) {
  return (
    <li>
      {good ? (
        <Check size={16} aria-label="works" style={{ color: "var(--moss)" }} />
      ) : (
        <X size={16} aria-label="does not work" style={{ color: "var(--crimson)" }} />
      )}
      <span>{good ? yes : no}</span>
    </li>
  );
}
