"use client";

import { useRouter } from "next/navigation";
import { useState } from "react";
import styled from "styled-components";
import { askedFor, PURPOSES } from "@/core/kinds/kind";
import { Page } from "../frame/Frame";
import { useCommand } from "../shared/ask";
import { Act, Button, Chip, Notice } from "../shared/controls";
import { PictureSheet } from "../shared/PictureSheet";
import { Stamp } from "../shared/Stamp";
import { Head } from "../vaults/VaultList";
import { KindDesigner } from "./KindDesigner";
import { kinds as t } from "./strings";
import type { KindsView } from "./types";

type OwnKind = KindsView["own"][number];

const List = styled.ul`
  border-top: 3px solid var(--ink);
  li { display: grid; grid-template-columns: minmax(0, 1fr) 150px auto; gap: 4px 20px; align-items: baseline; padding: 12px 0; border-bottom: 1px solid var(--rule); overflow-wrap: anywhere; }
  .do { display: flex; gap: 16px; }
  .what { display: flex; align-items: center; gap: 14px; min-width: 0; }
  @media (max-width: 719px) { li { grid-template-columns: minmax(0, 1fr); } }
`;

/** The organisation's own kinds: what an office has that no ready kind is made for. */
export function Kinds({ view }: { view: KindsView }) {
  const [drawn, setDrawn] = useState<OwnKind | "new" | null>(null);
  const [pictured, setPictured] = useState<OwnKind | null>(null);
  if (drawn !== null)
    return (
      <Page where={t.aKindIsAListOfFields}>
        <KindDesigner kind={drawn === "new" ? null : drawn} onClose={() => setDrawn(null)} />
      </Page>
    );
  return (
    <Page where={t.kindsAreBuiltIn(view.kinds.filter((kind) => !kind.own).length, <b>{t.yourOwn(view.own.length)}</b>)}>
      <Head>
        <h1>{t.ownKinds}</h1>
        {view.mayMake && (
          <Button look={view.own.length === 0 ? "go" : "plain"} onPress={() => setDrawn("new")}>
            {t.createAKind}
          </Button>
        )}
      </Head>
      {view.own.length === 0 ? (
        <p style={{ maxWidth: "60ch" }}>
          {view.mayMake ? t.aFilmProjectorALoanAgreementA : t.noKindsYetAskAnAdministratorTo}
        </p>
      ) : (
        <List>
          {view.own.map((kind) => (
            <li key={kind.id}>
              <span className="what">
                {kind.picture && <Stamp name={kind.name} picture={kind.picture} />}
                <span>
                  <b>{kind.name}</b> {kind.closed && <Chip data-tone="plain">{t.noLongerOffered}</Chip>}
                  <span className="soft small" style={{ display: "block" }}>
                    {PURPOSES.find((one) => one.purpose === kind.purpose)!.title}:{" "}
                    {askedFor(kind)
                      .map((field) => field.label)
                      .join(", ")}
                  </span>
                </span>
              </span>
              <span className="soft">{kind.entries !== null && t.entries(kind.entries)}</span>
              {view.mayMake && (
                <span className="do">
                  <Act onPress={() => setDrawn(kind)} aria-label={t.change(kind.name)}>
                    {t.change2}
                  </Act>
                  <Act onPress={() => setPictured(kind)} aria-label={t.pictureOf(kind.name)}>
                    {t.picture}
                  </Act>
                  <Close kind={kind} />
                  {kind.entries === 0 && <Delete kind={kind} />}
                </span>
              )}
            </li>
          ))}
        </List>
      )}
      {pictured && (
        <PictureSheet
          name={pictured.name}
          picture={pictured.picture ?? null}
          own={pictured.picture !== undefined}
          command="vaults.setKindPicture"
          inputOf={(picture) => ({ kindId: pictured.id, picture })}
          onClose={() => setPictured(null)}
        />
      )}
    </Page>
  );
}

function Close({ kind }: { kind: OwnKind }) {
  const close = useCommand("vaults.closeKind");
  const verb = kind.closed ? t.offerAgain : "Close";
  return (
    <Act
      onPress={() => close.run({ kindId: kind.id, closed: !kind.closed })}
      isDisabled={close.running}
      aria-label={`${verb}: ${kind.name}`}
    >
      {verb}
    </Act>
  );
}

function Delete({ kind }: { kind: OwnKind }) {
  const router = useRouter();
  const remove = useCommand("vaults.deleteKind");
  return (
    <>
      <Act
        onPress={async () => {
          if ((await remove.run({ kindId: kind.id })).ok) router.refresh();
        }}
        isDisabled={remove.running}
        aria-label={t.deleteWord(kind.name)}
      >
        {t.deleteWord2}
      </Act>
      {remove.refused && (
        <Notice data-tone="bad" role="alert">
          {remove.refused.message}
        </Notice>
      )}
    </>
  );
}
