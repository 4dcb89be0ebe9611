"use client";

import { useState } from "react";
import { useCommand } from "../shared/ask";
import { Notice, TextField } from "../shared/controls";
import { Form } from "../shared/Form";
import { Entrance } from "./Entrance";
import { joinByMail as t } from "./strings";

interface JoinByMailProps {
  organisation: string;
  domains: readonly string[];
  /** What was typed on the sign-in page. */
  mail: string;
  onBack: () => void;
}

/** Joins without being invited: a code shows that an address in one of the domains is one's own. */
export function JoinByMail({ organisation, domains, mail: typed, onBack }: JoinByMailProps) {
  const ask = useCommand("people.askToJoin");
  const join = useCommand("people.joinWithCode");
  const [name, setName] = useState("");
  const [mail, setMail] = useState(typed);
  const [sent, setSent] = useState(false);
  const [code, setCode] = useState("");
  const [wrong, setWrong] = useState(false);
  const send = async () => {
    setWrong(false);
    const answer = await join.run({ mail, name, code });
    if (!answer.ok) return;
    // How one signs in is set up on the page that invited people come to as well.
    if (answer.result) location.assign(`/join#${answer.result.token}`);
    else setWrong(true);
  };
  if (sent)
    return (
      <Entrance organisation={organisation} title={t.joinGaltry}>
        <Form
          verb={t.join}
          onSend={send}
          running={join.running}
          wrong={join.refused?.field === "code" ? null : join.refused?.message}
          onCancel={() => setSent(false)}
        >
          <Notice data-tone="good" role="status">
            {t.aCodeIsOnItsWay(mail)}
          </Notice>
          <TextField
            label={t.code}
            hint={t.theCodeHint}
            inputMode="numeric"
            autoComplete="one-time-code"
            value={code}
            onText={setCode}
            wrong={wrong ? t.thisIsNotTheCode : join.wrong("code")}
            autoFocus
          />
        </Form>
      </Entrance>
    );
  return (
    <Entrance organisation={organisation} title={t.joinGaltry}>
      <Form
        verb={t.emailMeACode}
        onSend={async () => {
          if ((await ask.run({ mail })).ok) setSent(true);
        }}
        running={ask.running}
        unready={name.trim() === ""}
        wrong={ask.wrong()}
        onCancel={onBack}
      >
        <p>{t.whoCanJoin(domains)}</p>
        <TextField label={t.yourName} autoComplete="name" required value={name} onText={setName} autoFocus />
        <TextField
          label={t.emailAddress}
          type="email"
          autoComplete="email"
          required
          value={mail}
          onText={setMail}
          wrong={ask.wrong("mail")}
        />
      </Form>
    </Entrance>
  );
}
