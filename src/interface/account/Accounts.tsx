"use client";

import { useState } from "react";
import { sayTime } from "@/core/time";
import type { ResultOf } from "@/server/registry";
import { useCommand } from "../shared/ask";
import { beginAtProvider } from "../shared/atProvider";
import { Act, Notice } from "../shared/controls";
import { GIVEN_UP, proving } from "../shared/proving";
import { sayBack } from "../shared/sayBack";
import { accounts as t } from "./strings";

interface AccountsProps {
  accounts: ResultOf<"provider.ownAccounts">;
  /** The provider whose account somebody comes to link. */
  link: string | null;
  /** Why linking at a provider, or confirming there, came to nothing. */
  back: { code: string; provider: string | null } | null;
  zone: string;
  now: number;
}

/** Accounts at identity providers, as ways in: linked by signing in there while signed in here. */
export function Accounts({ accounts, link, back, zone, now }: AccountsProps) {
  const unlink = useCommand("provider.unlinkOwn");
  const [wrong, setWrong] = useState<string | null>(null);
  const begin = async (providerId: string) => {
    const answer = await proving(() => beginAtProvider(providerId, { purpose: "link", next: "/account" }));
    if (answer.ok) location.assign(answer.result.address);
    else if (answer.refused.code !== GIVEN_UP) setWrong(answer.refused.message);
  };
  const refused = wrong ?? unlink.refused?.message;
  return (
    <>
      {back && (
        <li>
          <Notice data-tone="bad" role="alert">
            {sayBack(back.code, accounts.find(({ id }) => id === back.provider)?.name)}
          </Notice>
        </li>
      )}
      {accounts.map(({ id, name, account }) => (
        <li key={id}>
          <span>
            <b>{name}</b>
            <span className="soft small" style={{ display: "block" }}>
              {account
                ? t.linkedAndUsed(account.called, account.lastAt === null ? null : sayTime(account.lastAt, now, zone))
                : link === id
                  ? t.linkItNow(name)
                  : t.notLinked}
            </span>
          </span>
          {account ? (
            <Act onPress={() => unlink.run({ accountId: account.id })} aria-label={t.unlinkFrom(name)}>
              {t.unlink}
            </Act>
          ) : (
            <Act onPress={() => void begin(id)} aria-label={t.linkWith(name)}>
              {t.link}
            </Act>
          )}
        </li>
      ))}
      {refused && (
        <li>
          <Notice data-tone="bad" role="alert">
            {refused}
          </Notice>
        </li>
      )}
    </>
  );
}
