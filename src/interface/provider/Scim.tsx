"use client";

import { useState } from "react";
import { sayTime } from "@/core/time";
import { useCommand } from "../shared/ask";
import { Act, Button, Notice, Row } from "../shared/controls";
import { useCopy } from "../shared/useCopy";
import { addresses, scim as t } from "./strings";
import type { Provider } from "./types";

/** The token by which the provider tells of people and groups; two count while one takes the place of the other. */
export function Scim({ provider, zone, now }: { provider: Provider; zone: string; now: number }) {
  const create = useCommand("provider.newScimToken");
  const stop = useCommand("provider.stopScim");
  const { copy, copied } = useCopy();
  const [made, setMade] = useState<{ scimToken: string; address: string } | null>(null);
  const providerId = provider.id;
  return (
    <section aria-label={t.scim} style={{ marginTop: 24, maxWidth: 760 }}>
      <h3>{t.scim}</h3>
      <p className="soft small">{t.says}</p>
      <p style={{ margin: "6px 0" }}>
        {provider.scim ? t.on : t.off}{" "}
        {provider.scimOverlapUntil !== null && t.both(sayTime(provider.scimOverlapUntil, now, zone))}
      </p>
      {made && (
        <Notice>
          <p>
            {t.address}: <code>{made.address}</code>
          </p>
          <p style={{ overflowWrap: "anywhere" }}>
            {t.token}: <code>{made.scimToken}</code>{" "}
            <Act onPress={() => copy(made.scimToken, true, t.token)}>
              {copied === t.token ? addresses.copied : addresses.copyWord}
            </Act>
          </p>
          <p>{t.shownOnce}</p>
        </Notice>
      )}
      <Row style={{ marginTop: 8 }}>
        <Button
          onPress={async () => {
            const answer = await create.run({ providerId });
            if (answer.ok) setMade(answer.result);
          }}
        >
          {provider.scim ? t.replace : t.create}
        </Button>
        {provider.scim && <Act onPress={() => stop.run({ providerId })}>{t.end}</Act>}
      </Row>
    </section>
  );
}
