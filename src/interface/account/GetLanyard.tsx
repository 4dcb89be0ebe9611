"use client";

import styled from "styled-components";
import { Page } from "../frame/Frame";
import { ButtonLink } from "../shared/controls";

const Steps = styled.ol`
  max-width: 640px;
  counter-reset: step;
  li { counter-increment: step; display: grid; grid-template-columns: 34px 1fr; padding: 12px 0; border-top: 1px solid var(--rule); }
  li::before { content: counter(step); font: 650 18px/24px var(--text); }
`;

/** How Lanyard comes into a browser; the zip is served by Galtry itself. */
export function GetLanyard({ available, version }: { available: boolean; version: string }) {
  return (
    <Page where="Lanyard is Galtry’s browser extension: with it colleagues sign in without being shown a password.">
      <h1 style={{ marginBottom: 16 }}>Get Lanyard</h1>
      <Steps>
        <li>
          <span>
            {available ? (
              <>
                <ButtonLink href="/lanyard/download" download>
                  Download Lanyard {version}
                </ButtonLink>
                <br />
                <span className="soft small">Unpack the zip into a folder that stays where it is.</span>
              </>
            ) : (
              "Ask whoever runs Galtry: Lanyard has not been built on this server yet."
            )}
          </span>
        </li>
        <li>
          <span>
            Open the browser’s page of extensions (<span className="mono">chrome://extensions</span>), switch on{" "}
            <b>Developer mode</b>, press <b>Load unpacked</b> and choose the folder.
          </span>
        </li>
        <li>
          <span>
            Come back to <a href="/lanyard/connect">Connect Lanyard</a>, press <b>Connect</b> in Lanyard’s window, and
            confirm here that both show the same code.
          </span>
        </li>
      </Steps>
      <p className="soft small" style={{ maxWidth: 640, marginTop: 16 }}>
        Lanyard asks to read and change data on all sites: it has to see sign-in pages, and to set the cookies of the
        sessions that Galtry hands over.
      </p>
    </Page>
  );
}
