"use client";

import { useRouter } from "next/navigation";
import { useId, useState } from "react";
import styled from "styled-components";
import type { AskedCode } from "@/server/signin/askedCodes";
import { useCommand } from "../shared/ask";
import { Act, Button, Row, TextField } from "../shared/controls";
import { useDone } from "../shared/Done";
import { useLeft } from "../shared/useLeft";
import { codesAsked as t } from "./strings";

const Corner = styled.section`
  position: fixed;
  inset: auto 24px calc(var(--bar, 0px) + 24px) auto;
  z-index: 16;
  width: min(380px, calc(100vw - 32px));
  max-height: calc(100vh - 120px);
  overflow: auto;
  background: var(--sheet);
  border: 1px solid var(--edge);
  border-top: 3px solid var(--copper);
  box-shadow: var(--shade);
  form { padding: 14px 18px 16px; }
  form > p { margin-bottom: 8px; }
  form + form { border-top: 1px solid var(--rule); }
  @media (max-width: 719px) { inset-inline: 16px; width: auto; }
`;

/** Over any page, while colleagues wait for a code that only its reader has received. */
export function CodesAsked({ asked }: { asked: readonly AskedCode[] }) {
  if (asked.length === 0) return null;
  return (
    <Corner aria-label={t.codesToEnter}>
      {asked.map((one) => (
        <CodeAsked key={one.id} asked={one} />
      ))}
    </Corner>
  );
}

function CodeAsked({ asked: { id, entry, person, until } }: { asked: AskedCode }) {
  const router = useRouter();
  const done = useDone();
  const title = useId();
  const give = useCommand("signIn.giveCode");
  const [code, setCode] = useState("");
  const left = useLeft(until);
  if (left === null) return null;
  const send = async (given: string | null) => {
    const answer = await give.run({ id, code: given });
    if (answer.ok) done(given === null ? t.youReceivedNone : t.codeSent(entry.name));
    router.refresh();
  };
  return (
    <form
      aria-labelledby={title}
      onSubmit={(event) => {
        event.preventDefault();
        void send(code);
      }}
    >
      <p id={title} role="status">
        <b>{t.isSigningInTo(person, entry.name)}</b> {t.theSiteHasSentACode}
      </p>
      <TextField
        label={t.code}
        className="mono"
        autoComplete="one-time-code"
        value={code}
        onText={setCode}
        wrong={give.refused?.message}
      />
      <Row style={{ marginTop: 10 }}>
        <Button type="submit" look="go" isDisabled={give.running || code.trim() === ""}>
          {t.sendCode}
        </Button>
        <Act onPress={() => send(null)} isDisabled={give.running}>
          {t.iReceivedNone}
        </Act>
        <span className="small soft" style={{ marginLeft: "auto" }}>
          {t.left(left)}
        </span>
      </Row>
    </form>
  );
}
