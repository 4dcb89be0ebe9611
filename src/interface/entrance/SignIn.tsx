"use client";

import { useState } from "react";
import { runCommand } from "../shared/ask";
import { TextField } from "../shared/controls";
import { Form } from "../shared/Form";
import { Entrance } from "./Entrance";

export function SignIn({ organisation, next }: { organisation: string; next: string }) {
  const [mail, setMail] = useState("");
  const [password, setPassword] = useState("");
  const [running, setRunning] = useState(false);
  const [wrong, setWrong] = useState<{ message: string; field?: string } | null>(null);
  const submit = async () => {
    setRunning(true);
    const answer = await runCommand<{ signedIn: boolean; message?: string }>("people.signIn", { mail, password });
    if (answer.ok && answer.result.signedIn) {
      location.assign(next);
      return;
    }
    setRunning(false);
    setWrong(answer.ok ? { message: answer.result.message ?? "" } : answer.refused);
  };
  return (
    <Entrance organisation={organisation} title="Sign in to Galtry">
      <Form
        verb="Sign in"
        onSend={submit}
        running={running}
        wrong={wrong && wrong.field !== "mail" ? wrong.message : null}
      >
        <TextField
          label="Mail address"
          type="email"
          name="mail"
          autoComplete="username"
          value={mail}
          onText={setMail}
          wrong={wrong?.field === "mail" ? wrong.message : null}
          autoFocus
        />
        <TextField
          label="Sign-in password"
          type="password"
          name="password"
          autoComplete="current-password"
          value={password}
          onText={setPassword}
        />
      </Form>
      <p className="small soft" style={{ marginTop: 16 }}>
        No sign-in password yet, or forgotten? Ask an administrator for a new link.
      </p>
    </Entrance>
  );
}
