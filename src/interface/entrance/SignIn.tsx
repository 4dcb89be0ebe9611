"use client";

import { useState } from "react";
import { runCommand } from "../shared/ask";
import { Button, Notice, Stack, TextField } from "../shared/controls";
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
      <form
        onSubmit={(event) => {
          event.preventDefault();
          void submit();
        }}
        noValidate
      >
        <Stack>
          <TextField
            label="Mail address"
            type="email"
            name="mail"
            autoComplete="username"
            value={mail}
            onChange={(event) => setMail(event.target.value)}
            wrong={wrong?.field === "mail" ? wrong.message : null}
            autoFocus
          />
          <TextField
            label="Sign-in password"
            type="password"
            name="password"
            autoComplete="current-password"
            value={password}
            onChange={(event) => setPassword(event.target.value)}
          />
          {wrong && wrong.field !== "mail" && (
            <Notice data-tone="bad" role="alert">
              {wrong.message}
            </Notice>
          )}
          <Button look="go" type="submit" isDisabled={running}>
            Sign in
          </Button>
          <p className="small soft">No sign-in password yet, or forgotten? Ask an administrator for a new link.</p>
        </Stack>
      </form>
    </Entrance>
  );
}
