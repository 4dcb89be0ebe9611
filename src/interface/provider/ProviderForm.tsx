"use client";

import { useState } from "react";
import type { InputOf } from "@/server/registry";
import { runQuery, useCommand } from "../shared/ask";
import { ChoiceField, TextArea, TextField } from "../shared/controls";
import { Dialog } from "../shared/Dialog";
import { Form } from "../shared/Form";
import { providerForm as t } from "./strings";
import type { Provider } from "./types";

type Input = InputOf<"provider.addProvider">;

const START = {
  ...{ protocol: "oidc" as "oidc" | "saml", name: "", issuer: "", clientId: "", secret: "", secretIn: "header" },
  ...{ scopes: "openid email profile", groupsClaim: "groups", signOnUrl: "", certificate: "", nextCertificate: "" },
  ...{ mailAttribute: "email", nameAttribute: "name", groupsAttribute: "groups" },
};
type Draft = typeof START;

function draftOf(provider: Provider | null): Draft {
  if (!provider) return START;
  const { settings, name, issuer, protocol } = provider;
  if (settings.protocol === "oidc") return { ...START, ...settings, name, issuer, protocol };
  const [certificate = "", nextCertificate = ""] = settings.certificates;
  return { ...START, ...settings, name, issuer, protocol, certificate, nextCertificate };
}

const inputOf = (draft: Draft): Input => {
  const { name, issuer } = draft;
  if (draft.protocol === "oidc") {
    const { clientId, secret, scopes, groupsClaim } = draft;
    const secretIn = draft.secretIn as "header" | "body" | "none";
    return { protocol: "oidc", name, issuer, clientId, secret, secretIn, scopes, groupsClaim };
  }
  const { signOnUrl, mailAttribute, nameAttribute, groupsAttribute } = draft;
  const certificates = [draft.certificate, draft.nextCertificate].filter((text) => text.trim() !== "");
  return { protocol: "saml", name, issuer, signOnUrl, certificates, mailAttribute, nameAttribute, groupsAttribute };
};

/** Adds a provider, or changes what is known of it. */
export function ProviderForm({ provider, onClose }: { provider: Provider | null; onClose: () => void }) {
  const add = useCommand("provider.addProvider");
  const change = useCommand("provider.changeProvider");
  const [draft, setDraft] = useState(() => draftOf(provider));
  const [xml, setXml] = useState("");
  const [notMetadata, setNotMetadata] = useState(false);
  const save = provider ? change : add;
  const set = (key: keyof Draft) => (text: string) => setDraft((now) => ({ ...now, [key]: text }));
  const wrong = (field: string) => save.wrong(provider ? `settings.${field}` : field);
  const field = (key: keyof Draft) => ({ value: draft[key], onText: set(key), wrong: wrong(key) });
  const takeMetadata = async (text: string) => {
    setXml(text);
    setNotMetadata(false);
    if (text.trim() === "") return;
    const answer = await runQuery("provider.readMetadata", { xml: text });
    if (!answer.ok || !answer.result) return setNotMetadata(true);
    const { issuer, signOnUrl, certificates } = answer.result;
    const [certificate = "", nextCertificate = ""] = certificates;
    setDraft((now) => ({ ...now, issuer, signOnUrl, certificate, nextCertificate }));
  };
  const send = async () => {
    const settings = inputOf(draft);
    const answer = await (provider ? change.run({ providerId: provider.id, settings }) : add.run(settings));
    if (answer.ok) onClose();
  };
  return (
    <Dialog title={provider ? t.change(provider.name) : t.addAProvider} open onClose={onClose}>
      <Form
        verb={provider ? t.save : t.add}
        onSend={send}
        running={save.running}
        onCancel={onClose}
        wrong={save.wrong()}
      >
        {!provider && (
          <ChoiceField label={t.protocol} value={draft.protocol} onText={set("protocol")}>
            <option value="oidc">{t.protocols.oidc}</option>
            <option value="saml">{t.protocols.saml}</option>
          </ChoiceField>
        )}
        <TextField label={t.name} hint={t.nameHint} autoFocus {...field("name")} />
        {draft.protocol === "oidc" ? (
          <>
            <TextField label={t.issuer} hint={t.issuerHint} className="mono" {...field("issuer")} />
            <TextField label={t.clientId} className="mono" autoComplete="off" {...field("clientId")} />
            <TextField
              label={t.secret}
              type="password"
              autoComplete="off"
              hint={provider?.hasSecret ? t.keepSecret : t.noSecret}
              {...field("secret")}
            />
            <ChoiceField label={t.secretIn} value={draft.secretIn} onText={set("secretIn")}>
              <option value="header">{t.inHeader}</option>
              <option value="body">{t.inBody}</option>
              <option value="none">{t.none}</option>
            </ChoiceField>
            <TextField label={t.scopes} className="mono" {...field("scopes")} />
            <TextField label={t.groupsClaim} hint={t.groupsHint} className="mono" {...field("groupsClaim")} />
          </>
        ) : (
          <>
            <TextArea
              label={t.pasteMetadata}
              hint={t.pasteHint}
              value={xml}
              onText={(text) => void takeMetadata(text)}
              wrong={notMetadata ? t.notMetadata : null}
              rows={3}
              className="mono"
            />
            <TextField label={t.entityId} className="mono" {...field("issuer")} />
            <TextField label={t.signOnUrl} className="mono" {...field("signOnUrl")} />
            <TextArea
              label={t.certificate}
              className="mono"
              rows={3}
              value={draft.certificate}
              onText={set("certificate")}
              wrong={wrong("certificates")}
            />
            <TextArea
              label={t.nextCertificate}
              hint={t.nextHint}
              className="mono"
              rows={2}
              value={draft.nextCertificate}
              onText={set("nextCertificate")}
            />
            <TextField label={t.mailAttribute} className="mono" {...field("mailAttribute")} />
            <TextField label={t.nameAttribute} className="mono" {...field("nameAttribute")} />
            <TextField label={t.groupsAttribute} hint={t.groupsHint} className="mono" {...field("groupsAttribute")} />
          </>
        )}
        {provider && <p className="soft small">{t.testAfterwards}</p>}
      </Form>
    </Dialog>
  );
}
