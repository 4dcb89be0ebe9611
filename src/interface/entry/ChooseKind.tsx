import Link from "next/link";
import styled from "styled-components";
import { askedFor, type Kind, PURPOSES } from "@/core/kinds/kind";
import { WEBSITE_LOGIN } from "@/core/kinds/ready";
import { Stamp } from "../shared/Stamp";
import { TypeAhead } from "../shared/TypeAhead";
import { BeginFromSite } from "./BeginFromSite";
import { FirstLink } from "./FirstLink";
import { chooseKind as t } from "./strings";

const Columns = styled.div`
  columns: 3 300px;
  column-gap: 40px;
  section { break-inside: avoid; padding-bottom: 28px; }
  h2 { padding-bottom: 6px; border-bottom: 1px solid var(--edge); }
  li { border-bottom: 1px solid var(--rule); }
  a { display: block; padding: 8px 0; color: inherit; text-decoration: none; }
  a b { text-decoration: underline 1px var(--edge); text-underline-offset: 3px; }
  a:hover b { text-decoration: underline 2px currentColor; }
`;

const Hint = styled.p`
  margin-bottom: 20px;
  @media (hover: none), (max-width: 719px) { display: none; }
`;

/** What is to be kept? Kinds by what an office does with them; under each, what it asks for. */
export function ChooseKind({
  kinds,
  vaultId,
  place,
  ownKinds,
  sites,
}: {
  kinds: readonly Kind[];
  vaultId: string;
  place: { id: string; name: string };
  /** There are some, or the reader may make some. */
  ownKinds: boolean;
  /** Sites we use are there to begin from. */
  sites: boolean;
}) {
  return (
    <>
      <h1>{t.whatDoYouWantToAddTo(place.name)}</h1>
      <Hint className="soft">{t.typeItsFirstLetters}</Hint>
      {sites && <BeginFromSite vaultId={vaultId} place={place} />}
      <TypeAhead>
        <Columns>
          {PURPOSES.map(({ purpose, title }) => (
            <section key={purpose} aria-labelledby={purpose}>
              <h2 id={purpose}>{title}</h2>
              <ul>
                {kinds
                  .filter((kind) => kind.purpose === purpose)
                  .map((kind) => {
                    const To = kind.id === WEBSITE_LOGIN.id ? FirstLink : Link;
                    return (
                      <li key={kind.id}>
                        <To
                          href={`/vaults/${vaultId}/new?kind=${kind.id}&in=${place.id}`}
                          prefetch={false}
                          data-name={kind.name}
                        >
                          {kind.picture && <Stamp name={kind.name} picture={kind.picture} />} <b>{kind.name}</b>
                          <span className="soft small" style={{ display: "block" }}>
                            {askedFor(kind)
                              .slice(0, 4)
                              .map(({ label }) => label)
                              .join(", ")}
                          </span>
                        </To>
                      </li>
                    );
                  })}
              </ul>
            </section>
          ))}
        </Columns>
      </TypeAhead>
      {ownKinds && (
        <p>
          {t.nothingFitsHaveTheFieldsYou(
            <Link href="/kinds">{t.kindsOfYourOwn}</Link>,
            <Link href="/sites">{t.sitesWeUse}</Link>,
          )}
        </p>
      )}
    </>
  );
}
