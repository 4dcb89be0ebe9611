"use client";

import { useState } from "react";
import styled from "styled-components";
import type { Kind } from "@/core/kinds/kind";
import type { siteList } from "@/server/vaults/sites";
import { Page } from "../frame/Frame";
import { useCommand } from "../shared/ask";
import { Act, Button, CheckField, ChoiceField, TextField } from "../shared/controls";
import { Dialog } from "../shared/Dialog";
import { useDone } from "../shared/Done";
import { Form } from "../shared/Form";
import { Stamp } from "../shared/Stamp";
import { Head } from "../vaults/VaultList";
import { sites as t } from "./strings";

type SitesView = Awaited<ReturnType<(typeof siteList)["execute"]>>;
export type Site = SitesView["sites"][number];

const List = styled.ul`
  border-top: 3px solid var(--ink);
  li { display: grid; grid-template-columns: 36px minmax(0, 1fr) minmax(0, 1fr) auto; gap: 4px 16px; align-items: center; padding: 10px 0; border-bottom: 1px solid var(--rule); overflow-wrap: anywhere; }
  .do { display: flex; gap: 16px; }
  @media (max-width: 719px) { li { grid-template-columns: 36px minmax(0, 1fr); } li > :nth-child(3), .do { grid-column: 2; } }
`;

/** The organisation's own list of what it signs in to: a new entry begins from one by typing three letters. */
export function Sites({ view, kinds }: { view: SitesView; kinds: Kind[] }) {
  const [changing, setChanging] = useState<Site | "new" | null>(null);
  return (
    <Page where={t.sites(view.sites.length)}>
      <Head>
        <h1>{t.sitesWeUse}</h1>
        {view.mayChange && (
          <Button look={view.sites.length === 0 ? "go" : "plain"} onPress={() => setChanging("new")}>
            {t.addASite}
          </Button>
        )}
      </Head>
      {view.sites.length === 0 ? (
        <p style={{ maxWidth: "60ch" }}>
          {view.mayChange ? t.forTheSitesYourColleaguesUse : t.noSitesYetAskAnAdministratorTo}
        </p>
      ) : (
        <List>
          {view.sites.map((site) => (
            <li key={site.id}>
              <Stamp name={site.name} />
              <span>
                <b>{site.name}</b>
                {site.hint && (
                  <span className="soft small" style={{ display: "block" }}>
                    {site.hint}
                  </span>
                )}
              </span>
              <span className="mono small">{site.signInPage}</span>
              {view.mayChange && (
                <span className="do">
                  <Act onPress={() => setChanging(site)} aria-label={t.change(site.name)}>
                    {t.change2}
                  </Act>
                  <Drop site={site} />
                </span>
              )}
            </li>
          ))}
        </List>
      )}
      {changing && (
        <SiteSheet site={changing === "new" ? null : changing} kinds={kinds} onClose={() => setChanging(null)} />
      )}
    </Page>
  );
}

function Drop({ site }: { site: Site }) {
  const drop = useCommand("vaults.removeSite");
  const done = useDone();
  const { id, ...kept } = site;
  return (
    <Act
      onPress={async () => {
        if ((await drop.run({ siteId: id })).ok)
          done(t.wasRemovedFromTheList(site.name), [{ command: "vaults.saveSite", input: { site: kept } }]);
      }}
      isDisabled={drop.running}
      aria-label={t.remove(site.name)}
    >
      {t.remove2}
    </Act>
  );
}

interface SiteSheetProps {
  site: Site | null;
  kinds: Kind[];
  onClose: () => void;
}

function SiteSheet({ site, kinds, onClose }: SiteSheetProps) {
  const keep = useCommand("vaults.saveSite");
  const [name, setName] = useState(site?.name ?? "");
  const [signInPage, setSignInPage] = useState(site?.signInPage ?? "");
  const [kind, setKind] = useState(site?.kind ?? "website-login");
  const [hint, setHint] = useState(site?.hint ?? "");
  const [offersCodes, setOffersCodes] = useState(site?.offersCodes ?? false);
  const [passwordRules, setRules] = useState(site?.passwordRules ?? "");
  const send = async () => {
    const input = { site: { name, signInPage, kind, hint, passwordRules, offersCodes } };
    if ((await keep.run(site ? { siteId: site.id, ...input } : input)).ok) onClose();
  };
  return (
    <Dialog title={site ? t.change(site.name) : t.addASite} open onClose={onClose}>
      <Form verb={site ? t.save : t.add} onSend={send} running={keep.running} onCancel={onClose} wrong={keep.wrong()}>
        <TextField label={t.name} value={name} onText={setName} wrong={keep.wrong("site.name")} autoFocus />
        <TextField
          label={t.signInPage}
          className="mono"
          value={signInPage}
          onText={setSignInPage}
          wrong={keep.wrong("site.signInPage")}
          hint={t.thePageWithTheSignInForm}
        />
        <ChoiceField label={t.kind} value={kind} onText={setKind} wrong={keep.wrong("site.kind")}>
          {kinds.map((one) => (
            <option key={one.id} value={one.id}>
              {one.name}
            </option>
          ))}
        </ChoiceField>
        <TextField
          label={t.hint}
          value={hint}
          onText={setHint}
          wrong={keep.wrong("site.hint")}
          hint={t.customerNumberNotEmailAddress}
        />
        <TextField
          label={t.theSitesRulesForPasswords}
          className="mono"
          value={passwordRules}
          onText={setRules}
          wrong={keep.wrong("site.passwordRules")}
          hint={t.asHtmlsPasswordrulesMinlength}
        />
        <CheckField label={t.offersCodes} checked={offersCodes} onTick={setOffersCodes} />
      </Form>
    </Dialog>
  );
}
