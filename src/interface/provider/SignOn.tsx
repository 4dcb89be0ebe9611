"use client";

import Link from "next/link";
import { useState } from "react";
import styled from "styled-components";
import type { ResultOf } from "@/server/registry";
import { Page } from "../frame/Frame";
import { Act, Button, Chip, Row } from "../shared/controls";
import { Head } from "../vaults/VaultList";
import { Addresses } from "./Addresses";
import { Domains } from "./Domains";
import { GroupTable } from "./GroupTable";
import { ProviderForm } from "./ProviderForm";
import { ProviderUse } from "./ProviderUse";
import { RemoveProvider } from "./RemoveProvider";
import { Scim } from "./Scim";
import { signOn as t } from "./strings";
import { TestSheet } from "./TestSheet";
import type { Provider, View } from "./types";
import { WaitingAccounts } from "./WaitingAccounts";

const Sheet = styled.article`
  margin-bottom: 48px;
  border-top: 4px double var(--ink);
  padding-top: 12px;
  > header { display: flex; flex-wrap: wrap; gap: 6px 14px; align-items: baseline; margin-bottom: 8px; }
  > header h2 { margin: 0; }
  h3 { margin-bottom: 8px; padding-bottom: 4px; border-bottom: 1px solid var(--edge); font-size: 16px; }
  > section { margin-top: 28px; }
`;

const Two = styled.div`
  display: grid;
  grid-template-columns: minmax(0, 1.15fr) minmax(0, 1fr);
  gap: 28px 56px;
  align-items: start;
  section { margin-bottom: 28px; }
  @media (max-width: 1023px) { grid-template-columns: minmax(0, 1fr); }
`;

interface SignOnProps {
  view: View;
  groups: Record<string, ResultOf<"provider.groupTable">>;
  isOwner: boolean;
  zone: string;
  now: number;
}

/** Identity providers: set up, tested step by step, switched on, and what they decide. */
export function SignOn({ view, groups, isOwner, zone, now }: SignOnProps) {
  const [form, setForm] = useState<Provider | "new" | null>(null);
  const [removing, setRemoving] = useState<Provider | null>(null);
  return (
    <Page where={t.where(<Link href="/people">{t.people}</Link>, view.providers.length)}>
      <Head>
        <h1>{t.singleSignOn}</h1>
        <Button look={view.providers.length === 0 ? "go" : "plain"} onPress={() => setForm("new")}>
          {t.addAProvider}
        </Button>
      </Head>
      {view.providers.length === 0 && <p style={{ maxWidth: "60ch" }}>{t.noneYet}</p>}
      {view.providers.map((provider) => (
        <Sheet key={provider.id} aria-label={provider.name}>
          <header>
            <h2>{provider.name}</h2>
            <span className="soft">{t.protocols[provider.protocol]}</span>
            <Chip data-tone={provider.enabled ? "good" : "plain"}>
              {provider.required ? t.required : provider.enabled ? t.inUse : t.notInUse}
            </Chip>
            <span className="soft small">{t.linked(provider.linked)}</span>
            <Row style={{ marginLeft: "auto" }}>
              <Act onPress={() => setForm(provider)} aria-label={t.changeProvider(provider.name)}>
                {t.change}
              </Act>
              <Act onPress={() => setRemoving(provider)}>{t.remove}</Act>
            </Row>
          </header>
          <Two>
            <div>
              <TestSheet {...{ provider, zone, now }} />
              <WaitingAccounts provider={provider} />
            </div>
            <div>
              <Addresses provider={provider} zone={zone} />
              <ProviderUse {...{ provider, isOwner }} owners={view.ownersWithoutAWay} />
              <Domains {...{ provider, isOwner, zone, now }} />
            </div>
          </Two>
          <GroupTable provider={provider} table={groups[provider.id] ?? { lines: [], here: [] }} />
          <Scim {...{ provider, zone, now }} />
        </Sheet>
      ))}
      {form && <ProviderForm provider={form === "new" ? null : form} onClose={() => setForm(null)} />}
      {removing && <RemoveProvider provider={removing} onClose={() => setRemoving(null)} />}
    </Page>
  );
}
