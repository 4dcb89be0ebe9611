"use client";

import { useEffect, useState } from "react";
import { runQuery, useCommand } from "../shared/ask";
import { Button, Notice, Stack } from "../shared/controls";
import { Entrance } from "./Entrance";
import { notMe as t } from "./strings";
import { holdLink, takeLink } from "./takeLink";

/** From the mail about a new browser: one press ends all that is open, and a new sign-in password is set at once. */
export function NotMe({ organisation }: { organisation: string | null }) {
  const end = useCommand("people.wasNotMe");
  const [token, setToken] = useState<string | null>(null);
  const [name, setName] = useState<string | null>(null);
  const [refused, setRefused] = useState<string | null>(null);
  const [over, setOver] = useState<{ provider: string | null } | null>(null);
  useEffect(() => {
    const held = takeLink();
    setToken(held);
    void runQuery("people.linkFor", { token: held, purpose: "not-me" }).then((answer) => {
      if (answer.ok) setName(answer.result.name);
      else setRefused(answer.refused.message);
    });
  }, []);
  const send = async () => {
    const answer = await end.run({ token: token ?? "" });
    if (!answer.ok) return;
    const { link, provider } = answer.result;
    if (link === null) return setOver({ provider });
    holdLink(link);
    location.assign(`/join#${link}`);
  };
  return (
    <Entrance organisation={organisation} title={t.itWasNotMe}>
      <Stack>
        {(refused || end.refused) && (
          <Notice data-tone="bad" role="alert">
            {refused ?? end.refused?.message}
          </Notice>
        )}
        {over && (
          <Notice data-tone="good" role="status">
            {over.provider === null ? t.everythingHasEnded : t.changeItAt(over.provider)}
          </Notice>
        )}
        {name !== null && !over && (
          <>
            <p>{t.whatHappens(name)}</p>
            <p className="soft">{t.administratorsAreTold}</p>
            <Button look="harm" onPress={send} isDisabled={end.running}>
              {t.signOutEverywhere}
            </Button>
          </>
        )}
      </Stack>
    </Entrance>
  );
}
