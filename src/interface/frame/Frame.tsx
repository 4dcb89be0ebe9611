"use client";

import Link from "next/link";
import { usePathname } from "next/navigation";
import type { ReactNode } from "react";
import styled from "styled-components";
import type { AskedCode } from "@/server/signin/askedCodes";
import { readerOf } from "../help/topics";
import { DoneSlip } from "../shared/Done";
import { LanyardBefore, lanyardBefore } from "../shared/lanyard";
import { CodesAsked } from "./CodesAsked";
import { Keys } from "./Keys";
import { Live } from "./Live";
import { ProveAgain } from "./ProveAgain";
import { SignInAgain } from "./SignInAgain";
import { frame as t } from "./strings";
import { useArrival } from "./useArrival";

export const Wrap = styled.div`
  width: 100%;
  max-width: 1200px;
  margin-inline: auto;
  padding-inline: var(--gutter);
`;

const Top = styled.header`
  background: var(--baize);
  color: var(--baize-ink);
  > div { display: flex; align-items: center; gap: 24px; height: 56px; }
  @media (max-width: 719px) { > div { height: 52px; gap: 12px; } }
  /* Enlarged to 200 %, a bar below would leave little between the two. */
  @media (max-width: 719px) and (max-height: 500px) { > div { flex-wrap: wrap; height: auto; gap: 2px 12px; padding-block: 6px; } }
`;

const Wordmark = styled(Link)`
  font: 700 22px/28px var(--title);
  letter-spacing: -0.015em;
  text-decoration: none;
`;

const Organisation = styled.span`
  margin-left: -12px;
  color: var(--baize-soft);
  font-size: 14px;
  white-space: nowrap;
  overflow: hidden;
  text-overflow: ellipsis;
  max-width: 240px;
  @media (max-width: 1023px) { display: none; }
`;

const Areas = styled.nav`
  display: flex;
  gap: 4px;
  margin-left: 8px;
  a { padding: 4px 10px; border-radius: 3px; text-decoration: none; white-space: nowrap; }
  a:hover { text-decoration: underline 2px var(--baize-soft); }
  a[aria-current] { background: var(--paper); color: var(--ink); font-weight: 650; }
  @media (max-width: 719px) and (max-height: 500px) { order: 3; width: 100%; margin: 0 -10px; }
  @media (max-width: 719px) and (min-height: 501px) {
    position: fixed;
    inset: auto 0 0;
    z-index: 5;
    height: var(--bar);
    margin: 0;
    padding: 0 6px;
    justify-content: space-around;
    align-items: center;
    background: var(--baize);
    border-top: 1px solid var(--baize-edge);
    a { padding: 8px 3px; font-size: clamp(12px, 3.5vw, 14px); }
  }
`;

const End = styled.div`
  margin-left: auto;
  display: flex;
  align-items: center;
  gap: 20px;
  white-space: nowrap;
  a { text-decoration-color: var(--baize-edge); }
  @media (max-width: 719px) { gap: 12px; }
`;

const Me = styled(Link)`
  display: grid;
  place-items: center;
  width: 32px;
  height: 32px;
  border: 1px solid var(--baize-edge);
  border-radius: 50%;
  font-size: 13px;
  font-weight: 650;
  text-decoration: none;
  &:hover { text-decoration: none; border-color: var(--baize-ink); }
`;

export const Where = styled.div`
  border-bottom: 1px solid var(--rule);
  color: var(--soft);
  p { padding-block: 11px; overflow-wrap: anywhere; }
  a, b { color: var(--ink); font-weight: 650; }
`;

const Skip = styled.a`
  position: fixed;
  inset: 6px auto auto -9999px;
  z-index: 30;
  padding: 8px 14px;
  background: var(--sheet);
  color: var(--ink);
  &:focus { left: 12px; }
`;

const Main = styled.main`
  flex: 1;
  &:focus { outline: none; }
  width: 100%;
  max-width: 1200px;
  margin-inline: auto;
  padding: 24px var(--gutter) 48px;
  @media (max-width: 719px) { padding-block: 16px 32px; }
`;

export interface FrameProps {
  organisation: string;
  person: { id: string; name: string; mail: string; role: string; steward: boolean; keeper: boolean };
  notices: number;
  codesAsked: AskedCode[];
  seen: string;
  at: number;
  /** What the browser's cookie says of Lanyard. */
  lanyard: string | undefined;
  children: ReactNode;
}

const AREAS = [
  { href: "/", label: t.frontDesk, for: () => true },
  { href: "/vaults", label: t.vaults, for: ({ role }: FrameProps["person"]) => role !== "auditor" },
  { href: "/access", label: t.access, for: ({ steward, role }: FrameProps["person"]) => steward || role === "auditor" },
  {
    href: "/people",
    label: t.people,
    for: ({ role, keeper }: FrameProps["person"]) =>
      role === "owner" || role === "administrator" || role === "auditor" || keeper,
  },
  {
    href: "/upkeep",
    label: t.upkeep,
    for: ({ role, steward }: FrameProps["person"]) => steward || role === "owner" || role === "administrator",
  },
  { href: "/journal", label: t.journal, for: () => true },
];

const initials = (name: string) =>
  name
    .split(/\s+/)
    .filter(Boolean)
    .map((part) => Array.from(part)[0])
    .slice(0, 2)
    .join("")
    .toUpperCase();

export function Frame({ organisation, person, notices, codesAsked, seen, at, lanyard, children }: FrameProps) {
  useArrival();
  const path = usePathname();
  const here = (href: string) =>
    href === "/"
      ? path === "/"
      : path.startsWith(href) ||
        (href === "/vaults" && path.startsWith("/entry")) ||
        (href === "/journal" && path.startsWith("/reports"));
  return (
    <LanyardBefore value={lanyardBefore(lanyard)}>
      <Skip href="#content">{t.skipToTheContent}</Skip>
      <Top className="on-baize">
        <Wrap style={/^\/access(\/[^/]+)?$/.test(path) ? { maxWidth: "none" } : undefined}>
          <Wordmark href="/">{t.galtry}</Wordmark>
          <Organisation title={organisation}>{organisation}</Organisation>
          <Areas aria-label={t.areas}>
            {AREAS.filter((area) => area.for(person)).map((area) => (
              <Link
                key={area.href}
                href={area.href}
                prefetch={false}
                aria-current={here(area.href) ? "page" : undefined}
              >
                {area.label}
              </Link>
            ))}
          </Areas>
          <End>
            <Keys reader={readerOf(person)} />
            {notices > 0 && (
              <Link href="/account#notices" prefetch={false}>
                {t.notices(notices)}
              </Link>
            )}
            <Me
              href="/account"
              prefetch={false}
              aria-label={t.yourSessionsLanyardsAnd(initials(person.name), person.name)}
              title={person.name}
            >
              {initials(person.name)}
            </Me>
          </End>
        </Wrap>
      </Top>
      <DoneSlip>
        {children}
        <CodesAsked asked={codesAsked} />
      </DoneSlip>
      <Live seen={seen} at={at} />
      <ProveAgain />
      <SignInAgain personId={person.id} mail={person.mail} />
    </LanyardBefore>
  );
}

/** The whereabouts line and the page under it. */
export function Page({ where, children }: { where: ReactNode; children: ReactNode }) {
  return (
    <>
      <Where>
        <Wrap>
          <p>{where}</p>
        </Wrap>
      </Where>
      <Main id="content" tabIndex={-1}>
        {children}
      </Main>
    </>
  );
}
