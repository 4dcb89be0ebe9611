"use client";

import Link from "next/link";
import { useRouter } from "next/navigation";
import { useState } from "react";
import styled from "styled-components";
import { levelWord } from "@/core/access/level";
import type { VaultLine } from "@/server/vaults/vaults";
import { Page } from "../frame/Frame";
import { useCommand } from "../shared/ask";
import { CutKey } from "../shared/CutKey";
import { Act, Button, TextField } from "../shared/controls";
import { Dialog } from "../shared/Dialog";
import { Form } from "../shared/Form";
import { Stamp } from "../shared/Stamp";
import { vaultList as t } from "./strings";
import { TakeStewardship } from "./TakeStewardship";

export const Head = styled.div`
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 8px;
  margin-bottom: 16px;
  h1 { margin-right: auto; min-width: 0; }
  @media (max-width: 719px) { h1 { width: 100%; } }
`;

const List = styled.ul`
  border-top: 3px solid var(--ink);
  li { display: grid; grid-template-columns: minmax(0, 1fr) 110px 130px; gap: 16px; align-items: center; padding: 12px 0; border-bottom: 1px solid var(--rule); }
  a { font-weight: 650; font-size: 17px; text-decoration: none; overflow-wrap: anywhere; }
  a:hover { text-decoration: underline 1px; }
  .you { display: flex; align-items: center; gap: 8px; }
  .what { display: flex; align-items: center; gap: 14px; min-width: 0; --ground: var(--paper); }
  .what > :last-child { min-width: 0; }
  @media (max-width: 719px) { li { grid-template-columns: minmax(0, 1fr) auto; } .count { display: none; } }
`;

interface VaultListProps {
  vaults: VaultLine[];
  mayMake: boolean;
  /** Guests have no use for the organisation's own lists. */
  staff: boolean;
  owner: boolean;
}

export function VaultList({ vaults, mayMake, staff, owner }: VaultListProps) {
  const [making, setMaking] = useState(false);
  const [taking, setTaking] = useState(false);
  const entries = vaults.reduce((sum, vault) => sum + vault.entries, 0);
  return (
    <Page
      where={
        vaults.length === 0
          ? t.youHaveNoAccessToAnyVault
          : t.youHaveAccessToIn(<b>{t.entries(entries)}</b>, <b>{t.vaults(vaults.length)}</b>)
      }
    >
      <Head>
        <h1>{t.heading}</h1>
        {mayMake && (
          <Button look={vaults.length === 0 ? "go" : "plain"} onPress={() => setMaking(true)}>
            {t.createAVault}
          </Button>
        )}
      </Head>
      {vaults.length === 0 ? (
        <p style={{ maxWidth: "60ch" }}>{mayMake ? t.aVaultHoldsTheLoginsThatOne : t.whenSomeoneGivesYouAccessToAn}</p>
      ) : (
        <List>
          {vaults.map((vault) => (
            <li key={vault.id}>
              <span className="what">
                <Stamp name={vault.name} picture={vault.picture} />
                <span>
                  <Link href={`/vaults/${vault.id}`} prefetch={false}>
                    {vault.name}
                  </Link>
                  {vault.description && (
                    <span className="soft small" style={{ display: "block" }}>
                      {vault.description}
                    </span>
                  )}
                </span>
              </span>
              <span className="count soft">{t.entries(vault.entries)}</span>
              <span className="you">
                {vault.level === "none" ? (
                  <span className="soft small">{t.singleEntries}</span>
                ) : (
                  <>
                    <CutKey level={vault.level} silent /> {levelWord(vault.level)}
                  </>
                )}
              </span>
            </li>
          ))}
        </List>
      )}
      {staff && (
        <p className="soft" style={{ marginTop: 20 }}>
          {t.forAllVaultsToStartNewEntries(
            <Link href="/sites">{t.sitesWeUse}</Link>,
            <Link href="/kinds">{t.kindsOfYourOwn}</Link>,
          )}
        </p>
      )}
      {owner && (
        <p className="soft" style={{ marginTop: 8 }}>
          {t.doesSomethingHaveNoStewardOr}
          <Act onPress={() => setTaking(true)}>{t.takeStewardship}</Act>
        </p>
      )}
      {taking && <TakeStewardship onClose={() => setTaking(false)} />}
      {making && <MakeVault onClose={() => setMaking(false)} />}
    </Page>
  );
}

function MakeVault({ onClose }: { onClose: () => void }) {
  const router = useRouter();
  const make = useCommand("vaults.createVault");
  const [name, setName] = useState("");
  const [description, setDescription] = useState("");
  return (
    <Dialog title={t.createAVault} open onClose={onClose}>
      <Form
        verb={t.createVault}
        onSend={async () => {
          const answer = await make.run({ name, description });
          if (answer.ok) router.push(`/vaults/${answer.result.vaultId}`);
        }}
        running={make.running}
        wrong={make.wrong()}
        onCancel={onClose}
      >
        <TextField label={t.name} value={name} onText={setName} wrong={make.wrong("name")} autoFocus />
        <TextField
          label={t.description}
          value={description}
          onText={setDescription}
          wrong={make.wrong("description")}
        />
        <p className="small soft">{t.youBecomeItsFirstSteward}</p>
      </Form>
    </Dialog>
  );
}
