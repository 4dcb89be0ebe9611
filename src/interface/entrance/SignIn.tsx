"use client";

import { useState } from "react";
import { runCommand } from "../shared/ask";
import { TextField } from "../shared/controls";
import { Form } from "../shared/Form";
import { Entrance } from "./Entrance";
import { signIn as t } from "./strings";

export function SignIn({ organisation, next }: { organisation: string; next: string }) {
  const [mail, setMail] = useState("");
  const [password, setPassword] = useState("");
  const [running, setRunning] = useState(false);
  const [wrong, setWrong] = useState<{ message: string; field?: string } | null>(null);
  const submit = async () => {
    setRunning(true);
    const answer = await runCommand("people.signIn", { mail, password });
    if (answer.ok && answer.result.signedIn) {
      location.assign(next);
      return;
    }
    setRunning(false);
    setWrong(answer.ok ? { message: answer.result.message ?? "" } : answer.refused);
  };
  return (
    <Entrance organisation={organisation} title={t.signInToGaltry}>
      <Form
        verb={t.signIn}
        onSend={submit}
        running={running}
        wrong={wrong && wrong.field !== "mail" ? wrong.message : null}
      >
        <TextField
          label={t.emailAddress}
          type="email"
          name="mail"
          autoComplete="username"
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
      <p className="small soft" style={{ marginTop: 16 }}>
        {t.noSignInPasswordYetOrForgotten}
      </p>
    </Entrance>
  );
}
