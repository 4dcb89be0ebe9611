"use client";

import { useCallback, useEffect, useState } from "react";
import styled from "styled-components";
import { Page } from "../frame/Frame";
import { type Refusal, runCommand, runQuery } from "../shared/ask";
import { ButtonLink, Notice, Row, Stack } from "../shared/controls";
import { Form } from "../shared/Form";
import { askLanyard, useLanyard } from "../shared/lanyard";
import { GIVEN_UP } from "../shared/proving";
import { connectLanyard as t } from "./strings";

const Code = styled.p`
  margin: 8px 0;
  font: 600 30px/40px var(--mono);
  letter-spacing: 0.08em;
`;

interface Pairing {
  userCode: string;
  browser: string;
}

/**
 * Confirms the code that Lanyard in this very browser presents. The page takes no code from its address and no
 * code that is typed, so that nobody confirms a stranger's.
 */
export function ConnectLanyard({ person }: { person: string }) {
  const { lanyard, again } = useLanyard();
  const [pairing, setPairing] = useState<Pairing | null>(null);
  const [refused, setRefused] = useState<Refusal | null>(null);
  const [running, setRunning] = useState(false);
  const [done, setDone] = useState(false);

  const present = useCallback(async (first: boolean) => {
    const answer = await askLanyard<{ code: string | null }>("present-code", { first }, 8000);
    if (!answer?.code) return;
    const found = await runQuery("lanyard.pairingFor", { userCode: answer.code });
    if (found.ok) setPairing(found.result);
    else setRefused(found.refused);
  }, []);
  const waiting = lanyard?.state === "unconnected" && !pairing && !done;
  useEffect(() => {
    if (lanyard?.state === "connected") setDone(true);
    if (!waiting) return;
    void present(true);
    const timer = setInterval(() => void present(false), 1000);
    return () => clearInterval(timer);
  }, [lanyard, waiting, present]);

  const confirm = async () => {
    if (!pairing) return;
    setRunning(true);
    setRefused(null);
    const answer = await runCommand("lanyard.confirmPairing", { userCode: pairing.userCode });
    setRunning(false);
    if (!answer.ok) return setRefused(answer.refused.code === GIVEN_UP ? null : answer.refused);
    await askLanyard("confirmed", {}, 8000);
    again();
  };

  return (
    <Page where={t.connectingLanyardInThisBrowser(<b>{person}</b>)}>
      <div style={{ maxWidth: 560 }}>
        <h1 style={{ marginBottom: 16 }}>{t.connectLanyard}</h1>
        {done ? (
          <Notice data-tone="good" role="status">
            {t.youCanSignInFromTheAnd(<b>{t.lanyardIsConnected}</b>, <a href="/">{t.frontDesk}</a>)}
          </Notice>
        ) : lanyard?.state === "absent" ? (
          <Stack>
            <p>{t.lanyardIsNotInstalledInThis}</p>
            <Row>
              <ButtonLink href="/lanyard" data-look="go">
                {t.getLanyard}
              </ButtonLink>
            </Row>
          </Stack>
        ) : !pairing ? (
          refused ? (
            <Notice data-tone="bad" role="alert">
              {refused.message}
            </Notice>
          ) : (
            <p>{t.openLanyardFromTheBrowsers(<b>{t.connect}</b>)}</p>
          )
        ) : (
          <Form
            verb={t.theCodesMatchConnect}
            onSend={confirm}
            running={running}
            wrong={refused?.message}
            acts={<ButtonLink href="/">{t.doNotConnect}</ButtonLink>}
          >
            <div>
              <p>{t.lanyardInWantsToConnectForIts(<b>{pairing.browser}</b>, <b>{person}</b>)}</p>
              <Code>{pairing.userCode}</Code>
              <p>{t.confirmOnlyIfLanyardsWindow}</p>
            </div>
          </Form>
        )}
      </div>
    </Page>
  );
}
