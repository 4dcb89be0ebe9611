"use client";

import { useEffect, useRef, useState } from "react";
import { NewPasswordFields, SignInPasswordField, useNewPassword } from "../passwords/NewPasswordFields";
import { type Refusal, runCommand, runQuery } from "../shared/ask";
import { beginAtProvider } from "../shared/atProvider";
import { Button, Notice, TextField } from "../shared/controls";
import { Form } from "../shared/Form";
import { makePasskey } from "../shared/passkey";
import { Entrance } from "./Entrance";
import { withLink as t } from "./strings";
import { takeLink } from "./takeLink";

/** The token stands after the # of the address: it reaches no server log and no Referer. */
function useToken(purpose: "set-up" | "sign-in") {
  const held = useRef<string | null>(null);
  const [token, setToken] = useState<string | null>(null);
  const [person, setPerson] = useState<{ name: string | null; mail: string | null } | null>(null);
  const [refused, setRefused] = useState<string | null>(null);
  useEffect(() => {
    const found = held.current ?? takeLink();
    held.current = found;
    setToken(found);
    void runQuery("people.linkFor", { token: found, purpose }).then((answer) => {
      if (!answer.ok) return setRefused(answer.refused.message);
      setPerson(answer.result);
      // Whoever sent it sees that it has arrived.
      if (purpose === "sign-in") void runCommand("people.noteOpened", { token: found });
    });
  }, [purpose]);
  return { token, person, refused };
}

interface JoinProps {
  organisation: string | null;
  providers: { id: string; name: string }[];
}

export function Join({ organisation, providers }: JoinProps) {
  const { token, person, refused } = useToken("sign-in");
  const { password, matches, fields } = useNewPassword();
  const [running, setRunning] = useState(false);
  const [wrong, setWrong] = useState<Refusal | null>(null);
  const withPasskey = async () => {
    setRunning(true);
    const held = { token: token ?? "" };
    const made = await makePasskey(await runCommand("people.beginJoinPasskey", held));
    const answer = made.ok ? await runCommand("people.acceptLinkWithPasskey", { ...held, ...made.result }) : made;
    if (answer.ok) return location.assign("/");
    setRunning(false);
    setWrong(answer.refused);
  };
  const withProvider = async (providerId: string) => {
    setRunning(true);
    const answer = await beginAtProvider(providerId, { purpose: "join", next: "/", token: token ?? "" });
    if (answer.ok) return location.assign(answer.result.address);
    setRunning(false);
    setWrong(answer.refused);
  };
  const submit = async () => {
    if (!matches()) return;
    setRunning(true);
    const answer = await runCommand("people.acceptLink", { token: token ?? "", password });
    if (answer.ok) return location.assign("/");
    setRunning(false);
    setWrong(answer.refused);
  };
  return (
    <Entrance organisation={organisation} title={person?.name ? t.welcome(person.name.split(" ")[0]) : t.welcome2}>
      {refused && (
        <Notice data-tone="bad" role="alert">
          {refused}
        </Notice>
      )}
      {person && (
        <Form
          verb={t.saveAndSignIn}
          onSend={submit}
          running={running}
          wrong={wrong?.field ? null : wrong?.message}
          acts={
            <>
              <Button onPress={() => void withPasskey()} isDisabled={running}>
                {t.useAPasskeyInstead}
              </Button>
              {providers.map(({ id, name }) => (
                <Button key={id} onPress={() => void withProvider(id)} isDisabled={running}>
                  {t.joinWith(name)}
                </Button>
              ))}
            </>
          }
        >
          <p>{t.chooseTheSignInPasswordFor(<b>{person.mail}</b>)}</p>
          <input type="hidden" name="username" autoComplete="username" value={person.mail ?? ""} readOnly />
          <NewPasswordFields
            fields={fields}
            label={t.signInPassword}
            hints={[person.name ?? "", person.mail ?? "", organisation ?? ""]}
            wrong={wrong?.field === "password" ? wrong.message : null}
          />
        </Form>
      )}
    </Entrance>
  );
}

export function SetUp() {
  const { token, person, refused } = useToken("set-up");
  const [values, setValues] = useState({ organisation: "", name: "", mail: "", password: "" });
  const [running, setRunning] = useState(false);
  const [wrong, setWrong] = useState<Refusal | null>(null);
  const field = (key: keyof typeof values) => ({
    value: values[key],
    onText: (text: string) => setValues((now) => ({ ...now, [key]: text })),
    wrong: wrong?.field === key ? wrong.message : null,
  });
  const submit = async () => {
    setRunning(true);
    const timeZone = Intl.DateTimeFormat().resolvedOptions().timeZone || "UTC";
    const answer = await runCommand("people.setUp", { token: token ?? "", timeZone, ...values });
    if (answer.ok) return location.assign("/");
    setRunning(false);
    setWrong(answer.refused);
  };
  return (
    <Entrance organisation={null} title={t.setUpGaltry}>
      {refused && (
        <Notice data-tone="bad" role="alert">
          {refused}
        </Notice>
      )}
      {person && (
        <Form verb={t.setUp} onSend={submit} running={running} wrong={wrong?.field ? null : wrong?.message}>
          <p>{t.youBecomeTheFirstOwnerThisPage}</p>
          <TextField label={t.nameOfTheOrganisation} autoFocus {...field("organisation")} />
          <TextField label={t.yourName} autoComplete="name" {...field("name")} />
          <TextField label={t.yourEmailAddress} type="email" autoComplete="username" {...field("mail")} />
          <SignInPasswordField
            label={t.yourSignInPassword}
            hints={[values.organisation, values.name, values.mail]}
            {...field("password")}
          />
        </Form>
      )}
    </Entrance>
  );
}
