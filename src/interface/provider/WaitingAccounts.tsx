"use client";

import Link from "next/link";
import { useCommand } from "../shared/ask";
import { Act, Button, Notice, Row } from "../shared/controls";
import { waiting as t } from "./strings";
import type { Provider } from "./types";

/** Accounts there that have the address of somebody here: whether they are the same person is for a person to say. */
export function WaitingAccounts({ provider }: { provider: Provider }) {
  const confirm = useCommand("provider.confirmAccount");
  if (provider.waiting.length === 0) return null;
  return (
    <section>
      <h3>{t.accounts}</h3>
      <p className="soft small">{t.says}</p>
      <ul>
        {provider.waiting.map((one) => (
          <li key={one.id} style={{ padding: "8px 0", borderBottom: "1px solid var(--rule)" }}>
            <p>
              {t.isThis(
                <b>{one.name ? `${one.name}, ${one.mail}` : one.mail}</b>,
                <Link href={`/people/${one.personId}`}>{one.person}</Link>,
              )}
            </p>
            <Row>
              <Button onPress={() => confirm.run({ accountId: one.id, yes: true })} aria-label={t.confirmFor(one.mail)}>
                {t.confirm}
              </Button>
              <Act onPress={() => confirm.run({ accountId: one.id, yes: false })}>{t.decline}</Act>
            </Row>
          </li>
        ))}
      </ul>
      {confirm.refused && (
        <Notice data-tone="bad" role="alert">
          {confirm.refused.message}
        </Notice>
      )}
    </section>
  );
}
