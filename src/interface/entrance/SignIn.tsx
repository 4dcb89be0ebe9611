"use client";

import { useState } from "react";
import styled from "styled-components";
import { Button, TextField } from "../shared/controls";
import { Form } from "../shared/Form";
import { SecondStepForm } from "../shared/SecondStepForm";
import { useSigningIn } from "../shared/useSigningIn";
import { Entrance } from "./Entrance";
import { signIn as t } from "./strings";

const Or = styled.p`
  display: flex;
  align-items: center;
  gap: 12px;
  margin: 16px 0;
  color: var(--soft);
  font-size: 14px;
  &::before, &::after { content: ""; flex: 1; border-top: 1px solid var(--rule); }
`;

export function SignIn({ organisation, next }: { organisation: string; next: string }) {
  const [mail, setMail] = useState("");
  const [password, setPassword] = useState("");
  const signing = useSigningIn(() => location.assign(next));
  const { running, wrong, second } = signing;
  if (second)
    return (
      <Entrance organisation={organisation} title={t.secondStep}>
        <SecondStepForm signing={signing} />
      </Entrance>
    );
  return (
    <Entrance organisation={organisation} title={t.signInToGaltry}>
      <Form
        verb={t.signIn}
        onSend={() => signing.withPassword(mail, password)}
        running={running}
        wrong={wrong && wrong.field !== "mail" ? wrong.message : null}
      >
        <TextField
          label={t.emailAddress}
          type="email"
          name="mail"
          autoComplete="username webauthn"
          value={mail}
          onText={setMail}
          wrong={wrong?.field === "mail" ? wrong.message : null}
          autoFocus
        />
        <TextField
          label={t.signInPassword}
          type="password"
          name="password"
          autoComplete="current-password"
          value={password}
          onText={setPassword}
        />
      </Form>
      <Or>{t.or}</Or>
      <Button onPress={() => void signing.withPasskey()} isDisabled={running}>
        {t.signInWithAPasskey}
      </Button>
      <p className="small soft" style={{ marginTop: 16 }}>
        {t.noSignInPasswordYetOrForgotten}
      </p>
    </Entrance>
  );
}
