"use client";

import styled from "styled-components";
import type { LanyardBrowser } from "@/server/lanyard/package";
import { Page } from "../frame/Frame";
import { ButtonLink } from "../shared/controls";
import { getLanyard as t } from "./strings";

const Steps = styled.ol`
  max-width: 640px;
  counter-reset: step;
  li { counter-increment: step; display: grid; grid-template-columns: 34px 1fr; padding: 12px 0; border-top: 1px solid var(--rule); }
  li::before { content: counter(step); font: 650 18px/24px var(--text); }
`;

interface Props {
  browser: LanyardBrowser;
  available: boolean;
  version: string;
}

/** How Lanyard comes into a browser; what is loaded is served by Galtry itself. */
export function GetLanyard({ browser, available, version }: Props) {
  const inFirefox = browser === "firefox";
  return (
    <Page where={t.lanyardIsGaltrysBrowser}>
      <h1 style={{ marginBottom: 16 }}>{t.getLanyard}</h1>
      <Steps>
        <li>
          <span>
            {available ? (
              <>
                <ButtonLink href={`/lanyard/download?for=${browser}`} download>
                  {inFirefox ? t.downloadForFirefox(version) : t.downloadLanyard(version)}
                </ButtonLink>
                <br />
                <span className="soft small">{inFirefox ? t.firefoxInstallsIt : t.unpackTheZipIntoAFolderThat}</span>
              </>
            ) : (
              t.lanyardHasNotBeenBuiltOnThis
            )}
          </span>
        </li>
        <li>
          <span>
            {inFirefox
              ? t.untilItIsClosed(<span className="mono">{"about:debugging"}</span>, <b>{t.loadTemporary}</b>)
              : t.openTheBrowsersExtensionsPage(
                  <span className="mono">{"chrome://extensions"}</span>,
                  <b>{t.developerMode}</b>,
                  <b>{t.loadUnpacked}</b>,
                )}
          </span>
        </li>
        <li>
          <span>
            {t.comeBackToPressInLanyards(<a href="/lanyard/connect">{t.connectLanyard}</a>, <b>{t.connect}</b>)}
          </span>
        </li>
      </Steps>
      <p className="soft small" style={{ maxWidth: 640, marginTop: 16 }}>
        {t.lanyardAsksForPermissionToRead}
      </p>
      <p className="small">
        <a href={`/lanyard?for=${inFirefox ? "chromium" : "firefox"}`}>{inFirefox ? t.forOthers : t.forFirefox}</a>
      </p>
    </Page>
  );
}
