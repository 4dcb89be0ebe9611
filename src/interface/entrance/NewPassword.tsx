"use client";

import { useEffect, useState } from "react";
import { NewPasswordFields, useNewPassword } from "../passwords/NewPasswordFields";
import { runQuery, useCommand } from "../shared/ask";
import { ButtonLink, Notice, Stack } from "../shared/controls";
import { Form } from "../shared/Form";
import { Entrance } from "./Entrance";
import { newPassword as t } from "./strings";
import { takeLink } from "./takeLink";

/** By the link of a forgotten sign-in password: a new one. One signs in with it afterwards, second step included. */
export function NewPassword({ organisation }: { organisation: string | null }) {
  const reset = useCommand("people.resetPassword");
  const [token, setToken] = useState("");
  const [mail, setMail] = useState<string | null>(null);
  const [refused, setRefused] = useState<string | null>(null);
  const { password, matches, fields } = useNewPassword();
  const [done, setDone] = useState(false);
  useEffect(() => {
    const held = takeLink();
    setToken(held);
    void runQuery("people.linkFor", { token: held, purpose: "reset" }).then((answer) => {
      if (answer.ok) setMail(answer.result.mail);
      else setRefused(answer.refused.message);
    });
  }, []);
  const send = async () => {
    if (matches() && (await reset.run({ token, password })).ok) setDone(true);
  };
  return (
    <Entrance organisation={organisation} title={t.setANewPassword}>
      {refused && (
        <Notice data-tone="bad" role="alert">
          {refused}
        </Notice>
      )}
      {done && (
        <Stack>
          <Notice data-tone="good" role="status">
            {t.yourNewPasswordIsSet}
          </Notice>
          <ButtonLink href="/sign-in" data-look="go">
            {t.signIn}
          </ButtonLink>
        </Stack>
      )}
      {mail !== null && !done && (
        <Form verb={t.setPassword} onSend={send} running={reset.running} wrong={reset.wrong()}>
          <p>{t.forWhom(mail)}</p>
          <input type="hidden" name="username" autoComplete="username" value={mail} readOnly />
          <NewPasswordFields
            fields={fields}
            label={t.signInPassword}
            hints={[mail, organisation ?? ""]}
            wrong={reset.wrong("password")}
          />
        </Form>
      )}
    </Entrance>
  );
}
