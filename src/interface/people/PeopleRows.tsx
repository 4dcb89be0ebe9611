"use client";

import { ArrowDown, ArrowUp } from "lucide-react";
import Link from "next/link";
import { Fragment } from "react";
import styled from "styled-components";
import { addressOf, type PeopleFilter } from "@/core/people/peopleFilter";
import { roleWord } from "@/core/people/role";
import { exactTime, sayTime } from "@/core/time";
import type { PersonLine } from "@/server/people/peopleList";
import { Act, Chip, Tick } from "../shared/controls";
import { sayLink } from "./ManagePerson";
import { peopleRows as t } from "./strings";

const Table = styled.table`
  width: 100%;
  table-layout: fixed;
  border-collapse: collapse;
  border-top: 3px solid var(--ink);
  background: var(--sheet);
  --ground: var(--sheet);
  th { padding: 6px 8px; border-bottom: 1px solid var(--edge); text-align: left; font: 600 13.5px/20px var(--text); color: var(--soft); }
  th a { display: inline-flex; gap: 4px; align-items: center; color: inherit; }
  td { height: 44px; padding: 4px 8px; border-bottom: 1px solid var(--rule); overflow: hidden; text-overflow: ellipsis; }
  tr[data-picked] { background: var(--pick); box-shadow: inset 4px 0 var(--ink); }
  .tick { width: 42px; padding-left: 14px; }
  .role { width: 118px; }
  .ways { width: 150px; }
  .seen { width: 130px; }
  .state { width: 168px; }
  .acts { width: 76px; text-align: right; }
  .mail { display: block; white-space: nowrap; overflow: hidden; text-overflow: ellipsis; }
  .groups { max-height: 36px; }
  @media (max-width: 1023px) { .groups, .ways { display: none; } .state { width: 130px; } }
  @media (max-width: 719px) {
    .role, .seen { display: none; }
    .state { width: 92px; }
    td { white-space: normal; overflow-wrap: anywhere; }
  }
`;

interface RowsProps {
  people: readonly PersonLine[];
  filter: PeopleFilter;
  chosen: ReadonlyMap<string, PersonLine>;
  onChoose: (people: readonly PersonLine[], chosen: boolean) => void;
  onManage: (id: string) => void;
  me: string;
  /** Nobody is selected or managed. */
  reads: boolean;
  zone: string;
  now: number;
}

/** People a line each, with what is to be known at a glance; ticked for what is done to several. */
export function PeopleRows({ people, filter, chosen, onChoose, onManage, me, reads, zone, now }: RowsProps) {
  const others = people.filter(({ id }) => id !== me);
  const all = others.length > 0 && others.every(({ id }) => chosen.has(id));
  const heading = (label: string, sort: PeopleFilter["sort"], back?: PeopleFilter["sort"]) => {
    const [on, turned] = [filter.sort === sort, back !== undefined && filter.sort === back];
    return {
      "aria-sort": on ? ("ascending" as const) : turned ? ("descending" as const) : undefined,
      children: (
        <Link
          href={`/people${addressOf({ ...filter, sort: on && back ? back : sort })}`}
          scroll={false}
          replace
          prefetch={false}
        >
          {label}
          {on && <ArrowDown size={14} aria-hidden />}
          {turned && <ArrowUp size={14} aria-hidden />}
        </Link>
      ),
    };
  };
  return (
    <Table>
      <thead>
        <tr>
          <th className="tick" scope="col">
            {!reads && (
              <Tick
                type="checkbox"
                aria-label={t.selectAll(others.length)}
                checked={all}
                onChange={() => onChoose(others, !all)}
              />
            )}
          </th>
          <th scope="col" {...heading(t.name, "name")} />
          <th className="role" scope="col" {...heading(t.role, "role")} />
          <th className="groups" scope="col">
            {t.groups}
          </th>
          <th className="ways" scope="col">
            {t.signsInWith}
          </th>
          <th className="seen" scope="col" {...heading(t.lastSeen, "seen", "unseen")} />
          <th className="state" scope="col">
            {t.state}
          </th>
          <th className="acts" scope="col">
            <span className="unseen">{t.manage2}</span>
          </th>
        </tr>
      </thead>
      <tbody>
        {people.map((person) => (
          <tr key={person.id} data-picked={chosen.has(person.id) ? "" : undefined}>
            <td className="tick">
              {person.id !== me && !reads && (
                <Tick
                  type="checkbox"
                  aria-label={t.select(person.name)}
                  checked={chosen.has(person.id)}
                  onChange={() => onChoose([person], !chosen.has(person.id))}
                />
              )}
            </td>
            <td title={`${person.name}, ${person.mail}`}>
              <Link href={`/people/${person.id}`} prefetch={false} style={{ fontWeight: 650 }}>
                {person.name}
              </Link>
              {alike(people, person) && <span className="mail soft small">{person.mail}</span>}
            </td>
            <td className="role">{roleWord(person.role)}</td>
            <td className="groups soft small" title={person.groups.map((group) => group.name).join(", ")}>
              {person.groups.map((group, i) => (
                <Fragment key={group.id}>
                  {i > 0 && ", "}
                  <Link href={`/people/groups/${group.id}`} prefetch={false}>
                    {group.name}
                  </Link>
                </Fragment>
              ))}
            </td>
            <td className="ways small">
              <Ways ways={person.ways} />
            </td>
            <td
              className="seen soft small"
              title={person.lastSeenAt === null ? undefined : exactTime(person.lastSeenAt, zone)}
            >
              {person.lastSeenAt === null ? t.never : sayTime(person.lastSeenAt, now, zone)}
            </td>
            <td className="state small">
              <State {...{ person, zone, now }} />
            </td>
            <td className="acts">
              {person.id === me ? (
                <span className="soft small">{t.you}</span>
              ) : reads ? null : (
                <Act onPress={() => onManage(person.id)} aria-label={t.manage(person.name)}>
                  {t.manage2}
                </Act>
              )}
            </td>
          </tr>
        ))}
      </tbody>
    </Table>
  );
}

/** An address stands beside a name only where two people share it. */
const alike = (people: readonly PersonLine[], { id, name }: PersonLine): boolean =>
  people.some((one) => one.id !== id && one.name === name);

/** What somebody signs in with, the strongest first; that a password stands alone is worth a look. */
export function Ways({ ways }: { ways: PersonLine["ways"] }) {
  const said = [
    ...ways.providers,
    ...(ways.passkeys > 0 ? [t.passkeys(ways.passkeys)] : []),
    ...(ways.password ? [t.password] : []),
    ...(ways.codes ? [t.codes] : []),
  ];
  if (said.length === 0) return <span className="soft">{t.nothingYet}</span>;
  if (said.length === 1 && ways.password) return <span style={{ color: "var(--amber)" }}>{t.passwordOnly}</span>;
  return <>{said.join(", ")}</>;
}

function State({ person, zone, now }: { person: PersonLine; zone: string; now: number }) {
  const { standing, until, link } = person;
  if (standing === "leaver") return <Chip data-tone="bad">{t.left}</Chip>;
  if (standing === "suspended") return <Chip data-tone="bad">{t.suspended}</Chip>;
  const ends = until !== null && (
    <Chip data-tone={until - now < MONTH ? undefined : "plain"}>{t.until(sayTime(until, now, zone))}</Chip>
  );
  if (standing === "invited")
    return (
      <>
        <Chip data-tone="plain">{t.notJoinedYet}</Chip> {ends}
        <span className="soft" style={{ display: "block" }}>
          {sayLink(link, now, zone)}
        </span>
      </>
    );
  return ends || <span className="soft">{t.active}</span>;
}

const MONTH = 30 * 86_400_000;
