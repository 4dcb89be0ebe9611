"use client";

import Link from "next/link";
import { explain, type Lookup, levelWord, preview, type Say, type Subject, subjectKey } from "@/core/access";
import { sayDay, sayTime } from "@/core/time";
import type { Column, Grid, Row } from "./grid";
import { why as t } from "./strings";

interface WhyProps {
  grid: Grid;
  lookup: Lookup;
  row: Row;
  column: Column;
  at: number;
  now: number;
  me: string;
}

/** Why somebody has what they have at the focused cell, with its grants, and the shortest way to change it. */
export function Why({ grid, lookup, row, column, at, now, me }: WhyProps) {
  const { node } = row;
  const { subject } = column;
  if (!node.mine) return <p className="soft">{t.youAreNotAStewardOfIt}</p>;
  const names = namesOf(grid, node.id);
  if (subject.kind !== "person") {
    const say = lookup.say(subject, node.id, at);
    const who = subject.kind === "everyone" ? "Everyone" : column.name;
    return (
      <>
        <p>
          {say
            ? t.hereBecauseOf(
                who,
                say.grant.level === "blocked" ? t.isBlocked : t.has(levelWord(say.grant.level)),
                say.distance === 0 ? t.aGrantOnThePlaceItself : t.aGrantOn(names.node(say.grant.node)),
              )
            : t.hasNoAccessHereOrAbove(who)}
        </p>
        {say && <Grants says={[{ subject, ...say }]} grid={grid} now={now} />}
      </>
    );
  }
  const person = lookup.person.get(subject.id);
  if (!person) return null;
  const resolution = lookup.resolve(person, node.id, at);
  const whose = { name: subject.id === me ? "you" : column.name, personId: subject.id };
  const namer = {
    ...names,
    since: (grant: { id: string; from: number | null }) => {
      const since = grant.from ?? grid.grant.get(grant.id)?.since ?? null;
      return since === null ? null : sayDay(since, now, grid.zone);
    },
    until: (grant: { until: number | null }) => (grant.until === null ? null : sayTime(grant.until, now, grid.zone)),
  };
  return (
    <>
      <p>{explain(resolution, namer, whose)}</p>
      <Grants says={[...resolution.because, ...resolution.lost]} grid={grid} now={now} />
      <p className="soft small">{shortest(grid, lookup, node.id, resolution.because, column, at)}</p>
    </>
  );
}

const namesOf = (grid: Grid, here: string) => ({
  subject: (subject: Subject): string =>
    subject.kind === "everyone"
      ? "Everyone"
      : ((subject.kind === "group" ? grid.groups : grid.people).find((one) => one.id === subject.id)?.name ??
        "somebody"),
  node: (id: string): string => {
    const node = grid.node.get(id);
    if (id === here) return t.thisWord(node?.type ?? "place");
    return t.the(node?.type ?? "folder", node?.name ?? "").trim();
  },
});

const addressOf = (grid: Grid, nodeId: string): string => {
  const node = grid.node.get(nodeId);
  if (node?.type === "entry") return `/entry/${nodeId}`;
  return node?.type === "folder" ? `/vaults/${grid.vault.id}/folder/${nodeId}` : `/vaults/${grid.vault.id}`;
};

/** Each grant that was looked at, where it stands, who gave it and what for. */
function Grants({ says, grid, now }: { says: readonly Say[]; grid: Grid; now: number }) {
  const known = says.flatMap((say) => {
    const grant = grid.grant.get(say.grant.id);
    return grant ? [{ say, grant }] : [];
  });
  if (known.length === 0) return null;
  return (
    <ul className="small">
      {known.map(({ say, grant }) => (
        <li key={grant.id}>
          {t.given(
            <Link href={addressOf(grid, grant.node)}>
              {t.on(levelWord(grant.level), grid.node.get(grant.node)?.name ?? t.thisVault)}
            </Link>,
            namesOf(grid, "").subject(say.subject),
            sayDay(grant.since, now, grid.zone),
            grant.by && t.by(grant.by),
            grant.why && `: “${grant.why}”`,
          )}
        </li>
      ))}
    </ul>
  );
}

/** "Without it he would have Use." "Taking away the grant of Shop Team takes Use from 9." */
function shortest(
  grid: Grid,
  lookup: Lookup,
  nodeId: string,
  because: readonly Say[],
  column: Column,
  at: number,
): string {
  const name = column.name;
  const [say] = because;
  if (!say) return t.toGiveAccessHereSetALevel(name);
  if (because.length > 1) return t.grantsGiveThisAccessToChangeIt(because.length);
  const change = { type: "set", nodeId: say.grant.node, subject: say.subject, grants: [] } as const;
  const seen = preview(lookup.of, [change], at);
  const person = lookup.person.get(column.subject.kind === "person" ? column.subject.id : "")!;
  const left = seen.after.level(person, nodeId, at);
  const others = new Set(seen.differences.filter((one) => one.at === at).flatMap((one) => one.personIds));
  const what = t.ofOn(
    levelWord(say.grant.level),
    subjectKey(say.subject) === subjectKey(column.subject) ? name : namesOf(grid, "").subject(say.subject),
    grid.node.get(say.grant.node)?.name ?? "it",
  );
  const whom = others.size > 1 ? t.peopleWouldBeAffected(others.size) : "";
  return t.withoutTheWouldHaveHere(what, name, levelWord(left), whom);
}
