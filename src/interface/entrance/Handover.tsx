"use client";

import { useCallback, useEffect, useRef, useState } from "react";
import styled from "styled-components";
import { fromBase64, fromBase64Url, fromUtf8, open, sha256, toBase64Url, toHex, utf8 } from "@/core/crypto";
import { sayTime } from "@/core/time";
import type { HandedOver, lookAtHandover } from "@/server/access/handover/handover";
import { runCommand, runQuery } from "../shared/ask";
import { Act, Button, Notice, Row, Stack, TextField } from "../shared/controls";
import { Form } from "../shared/Form";
import { useCopy } from "../shared/useCopy";
import { Entrance } from "./Entrance";
import { handover as t } from "./strings";
import { takeLink } from "./takeLink";

type Look = Awaited<ReturnType<(typeof lookAtHandover)["execute"]>>;

const Values = styled.dl`
  margin: 12px 0;
  div { padding: 10px 0; border-top: 1px solid var(--rule); }
  dt { display: flex; justify-content: space-between; color: var(--soft); font-size: 14px; }
  dd { margin: 2px 0 0; font: 15px/22px var(--mono); white-space: pre-wrap; overflow-wrap: anywhere; }
`;

const ENDED: Record<string, string> = {
  withdrawn: t.thisLinkWasWithdrawnByThe,
  closed: t.thisLinkIsClosedAfterFiveWrong,
  expired: t.thisLinkHasExpiredAskForA,
  opened: t.thisLinkHasAlreadyBeenOpened,
  gone: t.theEntryBehindThisLinkNoLonger,
};

/** Kept by this browser alone: within ten minutes a lost answer can be fetched again. */
const OPENER = "galtry-handover-opener";

function opener(): string {
  const kept = localStorage.getItem(OPENER);
  if (kept) return kept;
  const made = toBase64Url(crypto.getRandomValues(new Uint8Array(32)));
  localStorage.setItem(OPENER, made);
  return made;
}

/** What somebody outside was handed: nothing is shown, and nothing used up, before a button is pressed. */
export function Handover() {
  const parts = useRef<{ token: string; key: string } | null>(null);
  const [look, setLook] = useState<Look | null>(null);
  const [word, setWord] = useState("");
  const [code, setCode] = useState("");
  const [wrong, setWrong] = useState<string | null>(null);
  const [running, setRunning] = useState(false);
  const [copyOf, setCopyOf] = useState<HandedOver | null>(null);
  const read = useCallback(async () => {
    const { token } = parts.current!;
    const answer = await runQuery("access.lookAtHandover", { token, opener: opener() });
    if (answer.ok) setLook(answer.result);
    else setWrong(answer.refused.message);
  }, []);
  useEffect(() => {
    const [token = "", key = ""] = parts.current ? [parts.current.token, parts.current.key] : takeLink().split(".");
    parts.current = { token, key };
    if (token.length < 20 || key.length < 20) setWrong(t.thisLinkIsIncompleteCopyAllOf);
    else void read();
  }, [read]);
  const press = async () => {
    const { token, key } = parts.current!;
    setRunning(true);
    const answer = await runCommand("access.openHandover", {
      ...{ token, opener: opener(), word, code },
    });
    setRunning(false);
    if (!answer.ok) {
      setWrong(answer.refused.message);
      return read();
    }
    const { opened, triesLeft } = answer.result;
    if (opened === null) {
      const asked = [look?.needsWord && "passphrase", look?.needsCode && "code"].filter(Boolean).join(" or ");
      setWrong(triesLeft > 0 ? t.wrong(asked, triesLeft) : null);
      return read();
    }
    try {
      const binding = ["handover", toHex(sha256(utf8(token)))] as const;
      setCopyOf(JSON.parse(fromUtf8(await open(fromBase64Url(key), fromBase64(opened), binding))) as HandedOver);
      setWrong(null);
    } catch {
      setWrong(t.theEndOfThisLinkIsDamaged);
    }
  };
  const askForCode = async () => {
    const { token } = parts.current!;
    const answer = await runCommand("access.sendHandoverCode", { token, opener: opener() });
    setWrong(answer.ok ? null : answer.refused.message);
    await read();
  };
  const waiting = look?.needsCode && look.code === "on its way";
  useEffect(() => {
    if (!waiting) return;
    const timer = setInterval(() => void read(), 2000);
    return () => clearInterval(timer);
  }, [waiting, read]);
  const now = Date.now();
  const times = look?.openedAt.map((at) => sayTime(at, now, look.zone)).join("; ");
  return (
    <Entrance organisation={look?.organisation ?? null} title={copyOf ? copyOf.name : t.somethingForYou}>
      {wrong && (
        <Notice data-tone="bad" role="alert" style={{ marginBottom: 12 }}>
          {wrong}
        </Notice>
      )}
      {copyOf && look ? (
        <Opened copyOf={copyOf} />
      ) : (
        look && (
          <>
            <p>{t.ofHasSentYouSomething(<b>{look.from}</b>, look.organisation)}</p>
            {look.end || look.taken ? (
              <>
                <p style={{ marginTop: 8 }}>{ENDED[look.end ?? "opened"]}</p>
                {times && <p className="soft">{t.itWasOpened(times)}</p>}
                {times && <p className="soft">{t.ifThatWasNotYouTellAt(look.from)}</p>}
              </>
            ) : (
              <>
                <p className="soft" style={{ margin: "8px 0 16px" }}>
                  {t.itCanBeOpenedUntilOpenIt(sayTime(look.expiresAt, now, look.zone))}
                </p>
                {look.needsCode && <MailedCode state={look.code} onAsk={askForCode} />}
                {(!look.needsCode || look.code) && (
                  <Form verb={t.openIt} onSend={press} running={running}>
                    {look.needsCode && (
                      <TextField
                        label={t.codeFromTheEmail}
                        value={code}
                        onText={setCode}
                        autoComplete="one-time-code"
                        inputMode="numeric"
                        maxLength={20}
                      />
                    )}
                    {look.needsWord && (
                      <TextField
                        label={t.passphraseYouWereTold}
                        value={word}
                        onText={setWord}
                        autoComplete="off"
                        maxLength={100}
                      />
                    )}
                  </Form>
                )}
              </>
            )}
          </>
        )
      )}
    </Entrance>
  );
}

const SENT = {
  "on its way": t.aCodeIsOnItsWayTo,
  sent: t.aCodeHasBeenSentToThe,
  failed: t.theCodeCouldNotBeSentAsk,
};

/** Whom the link is for is not told: whoever it is for knows. */
function MailedCode({ state, onAsk }: { state: Look["code"]; onAsk: () => Promise<void> }) {
  return (
    <Stack style={{ marginBottom: 16 }}>
      <p role="status">{state ? SENT[state] : t.thisIsForOneEmailAddressAnd}</p>
      <Row>
        {state ? (
          <Act onPress={onAsk}>{t.sendAnotherCode}</Act>
        ) : (
          <Button look="go" onPress={onAsk}>
            {t.sendTheCode}
          </Button>
        )}
      </Row>
    </Stack>
  );
}

function Opened({ copyOf }: { copyOf: HandedOver }) {
  const { copy, copied } = useCopy();
  const [shown, setShown] = useState<readonly string[]>([]);
  return (
    <>
      <p className="soft">{t.saveItWhereNobodyElseCanRead}</p>
      <Values>
        {copyOf.fields.map((field) => {
          const hidden = field.class === "secret" && !shown.includes(field.label);
          return (
            <div key={field.label}>
              <dt>
                {field.label}
                <span style={{ display: "flex", gap: 12 }}>
                  {hidden && (
                    <Act onPress={() => setShown([...shown, field.label])} aria-label={t.show(field.label)}>
                      {t.show2}
                    </Act>
                  )}
                  <Act
                    onPress={() => copy(field.value, field.class === "secret", field.label)}
                    aria-label={t.copy(field.label)}
                  >
                    {copied === field.label ? t.copied : t.copy2}
                  </Act>
                </span>
              </dt>
              <dd>{hidden ? "••••••••••••" : field.value}</dd>
            </div>
          );
        })}
      </Values>
    </>
  );
}
