"use client";

import { useState } from "react";
import styled from "styled-components";
import { Act, Button, ButtonLink, Notice, TextField } from "../shared/controls";
import { Form } from "../shared/Form";
import { SecondStepForm } from "../shared/SecondStepForm";
import { sayBack } from "../shared/sayBack";
import { useSigningIn } from "../shared/useSigningIn";
import { Entrance } from "./Entrance";
import { Forgotten } from "./Forgotten";
import { JoinByMail } from "./JoinByMail";
import { OnOtherDevice } from "./OnOtherDevice";
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

interface SignInProps {
  organisation: string;
  next: string;
  providers: { id: string; name: string }[];
  /** How a sign-in at a provider ended, by its name; null where nobody comes from there. */
  back: { code: string; provider: { id: string; name: string } | undefined } | null;
  /** A forgotten sign-in password is set anew by mail. */
  forgottenByMail: boolean;
  /** Whose people can join without being invited. */
  joinDomains: readonly string[];
}

export function SignIn({ organisation, next, providers, back, forgottenByMail, joinDomains }: SignInProps) {
  const [page, setPage] = useState<"device" | "forgotten" | "join" | null>(null);
  const [mail, setMail] = useState("");
  const [password, setPassword] = useState("");
  // Once signed in as before, the account there is linked.
  const toLink = back?.code === "to-link" && back.provider ? back.provider : null;
  const onwards = toLink ? `/account?link=${encodeURIComponent(toLink.id)}` : next;
  const signing = useSigningIn(() => location.assign(onwards));
  const { running, wrong, second } = signing;
  if (second)
    return (
      <Entrance organisation={organisation} title={t.secondStep}>
        <SecondStepForm signing={signing} />
      </Entrance>
    );
  const toFirst = () => setPage(null);
  if (page === "device")
    return <OnOtherDevice organisation={organisation} onIn={() => location.assign(onwards)} onBack={toFirst} />;
  if (page === "forgotten") return <Forgotten organisation={organisation} mail={mail} onBack={toFirst} />;
  if (page === "join") return <JoinByMail {...{ organisation, domains: joinDomains, mail }} onBack={toFirst} />;
  return (
    <Entrance organisation={organisation} title={t.signInToGaltry}>
      {back && (
        <Notice data-tone={toLink ? "plain" : "bad"} role="alert" style={{ marginBottom: 16 }}>
          {sayBack(back.code, back.provider?.name)}
        </Notice>
      )}
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
      <p style={{ marginTop: 10 }}>
        <Button onPress={() => setPage("device")} isDisabled={running}>
          {t.approveOnAnotherDevice}
        </Button>
      </p>
      {providers.map(({ id, name }) => (
        <p key={id} style={{ marginTop: 10 }}>
          <ButtonLink href={`/sso/${id}/start?${new URLSearchParams({ next })}`}>{t.signInWith(name)}</ButtonLink>
        </p>
      ))}
      {joinDomains.length > 0 && (
        <p style={{ marginTop: 16 }}>
          <Act onPress={() => setPage("join")}>{t.joinWithYourWorkEmail}</Act>
        </p>
      )}
      {forgottenByMail && (
        <p style={{ marginTop: 16 }}>
          <Act onPress={() => setPage("forgotten")}>{t.forgottenPassword}</Act>
        </p>
      )}
      <p className="small soft" style={{ marginTop: forgottenByMail ? 6 : 16 }}>
        {forgottenByMail ? t.noSignInPasswordYet : t.noSignInPasswordYetOrForgotten}{" "}
        <a href="/help">{t.helpWithSigningIn}</a>
      </p>
    </Entrance>
  );
}
