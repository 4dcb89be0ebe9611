"use client";

import { useState } from "react";
import { sayTime } from "@/core/time";
import { useCommand } from "../shared/ask";
import { Act, Button, Chip, Notice, Row, TextArea, TextField } from "../shared/controls";
import { Dialog } from "../shared/Dialog";
import { Form } from "../shared/Form";
import { domains as t } from "./strings";
import type { Provider } from "./types";

interface DomainsProps {
  provider: Provider;
  isOwner: boolean;
  zone: string;
  now: number;
}

/** Domains whose addresses count, each proven by a record or stated by an owner. */
export function Domains({ provider, isOwner, zone, now }: DomainsProps) {
  const add = useCommand("provider.addDomain");
  const check = useCommand("provider.proveDomain");
  const remove = useCommand("provider.removeDomain");
  const [domain, setDomain] = useState("");
  const [stating, setStating] = useState<string | null>(null);
  const providerId = provider.id;
  const refused = [check, remove].map((one) => one.refused).find(Boolean);
  return (
    <section>
      <h3>{t.domains}</h3>
      <p className="soft small">{t.domainsSay}</p>
      <ul>
        {provider.domains.map((one) => (
          <li key={one.domain} style={{ padding: "8px 0", borderBottom: "1px solid var(--rule)" }}>
            <Row>
              <b>{one.domain}</b>
              {one.provedAt === null ? (
                <Chip>{t.notProved}</Chip>
              ) : (
                <span className="soft small">
                  {t.provedBy(one.how, one.by ?? "", sayTime(one.provedAt, now, zone))}
                </span>
              )}
              <Act onPress={() => remove.run({ providerId, domain: one.domain })} aria-label={t.remove(one.domain)}>
                {t.removeWord}
              </Act>
            </Row>
            {one.provedAt === null && (
              <>
                <p className="small" style={{ margin: "4px 0", overflowWrap: "anywhere" }}>
                  {t.record(<code>_galtry.{one.domain}</code>, <code>{one.token}</code>)}
                </p>
                <Row>
                  <Act onPress={() => check.run({ providerId, domain: one.domain })}>{t.check}</Act>
                  {isOwner && <Act onPress={() => setStating(one.domain)}>{t.state}</Act>}
                </Row>
              </>
            )}
          </li>
        ))}
      </ul>
      {refused && (
        <Notice data-tone="bad" role="alert">
          {refused.message}
        </Notice>
      )}
      <Row style={{ alignItems: "end", marginTop: 10 }}>
        <TextField
          label={t.addADomain}
          placeholder={t.example}
          value={domain}
          onText={setDomain}
          wrong={add.wrong("domain") ?? add.wrong()}
        />
        <Button
          isDisabled={domain.trim() === ""}
          onPress={async () => {
            if ((await add.run({ providerId, domain })).ok) setDomain("");
          }}
        >
          {t.add}
        </Button>
      </Row>
      {stating !== null && <StateDomain {...{ providerId, domain: stating }} onClose={() => setStating(null)} />}
    </section>
  );
}

function StateDomain({ providerId, domain, onClose }: { providerId: string; domain: string; onClose: () => void }) {
  const prove = useCommand("provider.proveDomain");
  const [statement, setStatement] = useState("");
  return (
    <Dialog title={t.stateTitle(domain)} open onClose={onClose}>
      <Form
        verb={t.stateVerb}
        onSend={async () => {
          if ((await prove.run({ providerId, domain, statement })).ok) onClose();
        }}
        running={prove.running}
        onCancel={onClose}
        wrong={prove.wrong()}
      >
        <p>{t.stateSays}</p>
        <TextArea
          label={t.statement}
          value={statement}
          onText={setStatement}
          wrong={prove.wrong("statement")}
          maxLength={500}
          rows={3}
        />
      </Form>
    </Dialog>
  );
}
