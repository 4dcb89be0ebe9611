"use client";

import styled from "styled-components";
import { exactTime } from "@/core/time";
import { Act } from "../shared/controls";
import { useCopy } from "../shared/useCopy";
import { certificates, addresses as t } from "./strings";
import type { Provider } from "./types";

const Lines = styled.dl`
  display: grid;
  grid-template-columns: minmax(0, 1fr) auto;
  gap: 0 12px;
  dt { grid-column: 1 / -1; color: var(--soft); font-size: 14px; margin-top: 6px; }
  dd { margin: 0; overflow-wrap: anywhere; font: 400 13.5px/20px var(--mono); }
`;

/** What is entered at the provider. */
export function Addresses({ provider, zone }: { provider: Provider; zone: string }) {
  const { copy, copied } = useCopy();
  const lines: [string, string][] =
    provider.protocol === "oidc"
      ? [
          [t.returnAddress, provider.returnAddress],
          [t.startAddress, provider.startAddress],
          [t.logoutAddress, provider.logoutAddress],
        ]
      : [
          [t.entityId, provider.metadataAddress],
          [t.answerAddress, provider.metadataAddress.replace(/metadata$/, "acs")],
          [t.metadata, provider.metadataAddress],
          [t.startAddress, provider.startAddress],
        ];
  return (
    <section>
      <h3>{t.atTheProvider}</h3>
      <Lines>
        {lines.map(([word, address]) => (
          <div key={word} style={{ display: "contents" }}>
            <dt>{word}</dt>
            <dd>{address}</dd>
            <dd>
              <Act onPress={() => copy(address, false, word)} aria-label={t.copy(word)}>
                {copied === word ? t.copied : t.copyWord}
              </Act>
            </dd>
          </div>
        ))}
      </Lines>
      <p className="soft small" style={{ marginTop: 6 }}>
        {t.startsAtEntry}
      </p>
      {provider.certificates.map(
        (one) =>
          one && (
            <p key={one.until} className="small soft">
              {certificates.until(one.subject, exactTime(one.until, zone))}
            </p>
          ),
      )}
    </section>
  );
}
