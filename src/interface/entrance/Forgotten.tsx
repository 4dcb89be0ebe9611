"use client";

import { useState } from "react";
import { useCommand } from "../shared/ask";
import { Button, Notice, Stack, TextField } from "../shared/controls";
import { Form } from "../shared/Form";
import { Entrance } from "./Entrance";
import { forgotten as t } from "./strings";

interface ForgottenProps {
  organisation: string;
  /** What was typed on the sign-in page. */
  mail: string;
  onBack: () => void;
}

/** A link to set a new sign-in password, to whoever has the address; it says the same whether there is such a person. */
export function Forgotten({ organisation, mail: typed, onBack }: ForgottenProps) {
  const ask = useCommand("people.forgotPassword");
  const [mail, setMail] = useState(typed);
  const [sent, setSent] = useState(false);
  return (
    <Entrance organisation={organisation} title={t.forgottenPassword}>
      {sent ? (
        <Stack>
          <Notice data-tone="good" role="status">
            {t.aLinkIsOnItsWay(mail)}
          </Notice>
          <Button onPress={onBack}>{t.back}</Button>
        </Stack>
      ) : (
        <Form
          verb={t.emailMeALink}
          onSend={async () => {
            if ((await ask.run({ mail })).ok) setSent(true);
          }}
          running={ask.running}
          wrong={ask.wrong()}
          onCancel={onBack}
        >
          <p>{t.youGetALink}</p>
          <TextField
            label={t.emailAddress}
            type="email"
            autoComplete="username"
            value={mail}
            onText={setMail}
            wrong={ask.wrong("mail")}
            autoFocus
          />
        </Form>
      )}
    </Entrance>
  );
}
