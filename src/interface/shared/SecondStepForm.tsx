"use client";

import { useState } from "react";
import { Button, Stack, TextField } from "./controls";
import { Form } from "./Form";
import { secondStep as t } from "./strings";
import type { SigningIn } from "./useSigningIn";

/** After the sign-in password: a code of an app, a recovery code, or a passkey. */
export function SecondStepForm({ signing }: { signing: SigningIn }) {
  const [code, setCode] = useState("");
  const { second, running, wrong } = signing;
  if (!second) return null;
  const codes = second.code || second.recovery;
  return (
    <Stack>
      {second.passkey && (
        <div>
          <Button look={codes ? "plain" : "go"} onPress={() => void signing.secondPasskey()} isDisabled={running}>
            {t.useAPasskey}
          </Button>
        </div>
      )}
      {codes ? (
        <Form
          verb={t.signIn}
          onSend={() => signing.secondCode(code)}
          running={running}
          unready={code.trim() === ""}
          onCancel={signing.startAgain}
          wrong={wrong?.message ?? null}
        >
          <TextField
            label={second.code ? t.oneTimeCode : t.recoveryCode}
            value={code}
            onText={setCode}
            autoComplete="one-time-code"
            inputMode={second.code ? "numeric" : undefined}
            className="mono"
            hint={second.code ? (second.recovery ? t.sixDigitsOrARecoveryCode : t.sixDigits) : t.eachWorksOnce}
            autoFocus
          />
        </Form>
      ) : (
        wrong && <p role="alert">{wrong.message}</p>
      )}
    </Stack>
  );
}
