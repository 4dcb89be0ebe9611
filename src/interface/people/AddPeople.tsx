"use client";

import Link from "next/link";
import { useEffect, useMemo, useRef, useState } from "react";
import styled from "styled-components";
import { type ListedPerson, type ListedRole, readPeople, withoutLines } from "@/core/people/peopleList";
import type { CheckedPerson } from "@/server/people/adding";
import type { InputOf, ResultOf } from "@/server/registry";
import { Page } from "../frame/Frame";
import { runQuery, useCommand } from "../shared/ask";
import { Button, ButtonLink, CheckField, ChoiceField, Notice, Row, Stack, TextArea } from "../shared/controls";
import { MomentField } from "../shared/DateFields";
import { Form } from "../shared/Form";
import { fromLocal } from "../shared/localTime";
import { PickSeveral } from "../shared/PickSeveral";
import { useCopy } from "../shared/useCopy";
import { useSettled } from "../shared/useSettled";
import { Head } from "../vaults/VaultList";
import { Lines } from "./CheckedLines";
import { findGroups } from "./findGroups";
import { addPeople as t } from "./strings";

const Sheet = styled.div`
  max-width: 980px;
  .all { display: grid; grid-template-columns: repeat(auto-fit, minmax(260px, 1fr)); gap: 14px 24px; align-items: start; }
  table { width: 100%; border-collapse: collapse; border-top: 3px solid var(--ink); background: var(--sheet); font-size: 14.5px; }
  th { padding: 6px 10px; border-bottom: 1px solid var(--edge); color: var(--soft); font-weight: 400; font-size: 13px; text-align: left; }
  td { padding: 7px 10px; border-bottom: 1px solid var(--rule); vertical-align: top; overflow-wrap: anywhere; }
  td:first-child { width: 44px; color: var(--soft); font-variant-numeric: tabular-nums; }
  tr[data-wrong] td:last-child { color: var(--crimson); font-weight: 600; }
  @media (max-width: 719px) { th:nth-child(3), td:nth-child(3) { display: none; } }
`;

interface Group {
  id: string;
  name: string;
}

type CheckInput = InputOf<"people.checkPeople">["people"][number];

type Added = ResultOf<"people.addPeople">;

/** Of one request, as many as are checked or added at once. */
const AT_ONCE = 200;

/** One person or a list: each line is checked at its place, and says what its person will have on the first day. */
export function AddPeople({ mails, zone, now }: { mails: boolean; zone: string; now: number }) {
  const [text, setText] = useState("");
  const [groups, setGroups] = useState<Group[]>([]);
  const [role, setRole] = useState<ListedRole>("member");
  const [until, setUntil] = useState("");
  const [send, setSend] = useState(mails);
  const [added, setAdded] = useState<Added | null>(null);
  const add = useCommand("people.addPeople");
  const listed = useMemo(() => readPeople(text), [text]);
  const inputOf = (one: ListedPerson) => ({
    mail: one.mail,
    role: one.role ?? role,
    until: one.until === null ? fromLocal(until, zone) : fromLocal(`${one.until}T23:59`, zone),
  });
  const { checked, refused } = useChecked(
    listed.filter((one) => one.wrong === null),
    (one) => ({ ...inputOf(one), groups: one.groups, groupIds: groups.map(({ id }) => id) }),
  );
  const good = listed.filter((one) => checked.get(one.line)?.wrong === null && one.wrong === null);
  const bad = listed.filter((one) => one.wrong !== null || checked.get(one.line)?.wrong);
  const submit = async () => {
    const some = good.slice(0, AT_ONCE);
    const people = some.map((one) => ({
      ...inputOf(one),
      name: one.name,
      groupIds: checked.get(one.line)?.groupIds ?? [],
    }));
    const answer = await add.run({ people, send: send && mails });
    if (!answer.ok) return false;
    setAdded(answer.result);
    const gone = new Set(some.map(({ line }) => line));
    setText(withoutLines(text, gone));
    return true;
  };
  return (
    <Page where={<Link href="/people">{t.people}</Link>}>
      <Sheet>
        <Head>
          <h1>{t.addPeople}</h1>
        </Head>
        {added && <JustAdded added={added} onMore={() => setAdded(null)} />}
        {(!added || text !== "") && (
          <Form
            wide={text !== ""}
            verb={good.length > 0 ? t.add(Math.min(good.length, AT_ONCE)) : t.nobodyToAdd}
            onSend={submit}
            running={add.running}
            unready={good.length === 0}
            wrong={add.refused?.message ?? refused}
          >
            <div className="whole">
              <p style={{ marginBottom: 12 }}>{t.theyGetALink}</p>
              <TextArea
                label={t.peopleToAdd}
                value={text}
                onText={setText}
                hint={t.oneALine}
                placeholder={t.example}
                rows={6}
                spellCheck={false}
                autoFocus
              />
            </div>
            <fieldset className="whole">
              <legend className="unseen">{t.forAllOfThem}</legend>
              <div className="all">
                <div>
                  <PickSeveral
                    label={t.group}
                    seen
                    placeholder={t.addToAGroup}
                    list={t.groups}
                    nothing={t.noMatch}
                    load={findGroups}
                    searches
                    chosen={groups}
                    onChange={setGroups}
                    remove={t.remove}
                  />
                </div>
                <ChoiceField label={t.roleWhereNoneIsGiven} value={role} onText={(word) => setRole(word as ListedRole)}>
                  <option value="member">{t.member}</option>
                  <option value="guest">{t.guest}</option>
                  <option value="administrator">{t.administrator}</option>
                </ChoiceField>
                <MomentField
                  label={t.allAccessEnds}
                  value={until}
                  onText={setUntil}
                  time="23:59"
                  hint={t.leaveEmptyForNoEndDate}
                />
              </div>
            </fieldset>
            <div className="whole">
              {mails ? (
                <CheckField label={t.emailTheLinks} hint={t.otherwiseYouPassThemOn} checked={send} onTick={setSend} />
              ) : (
                <p className="soft small">{t.noMail}</p>
              )}
            </div>
            {listed.length > 0 && (
              <div className="whole">
                <Lines {...{ listed, checked, zone, now }} />
                {bad.length > 0 && good.length > 0 && <p className="small">{t.linesStay(bad.length)}</p>}
              </div>
            )}
          </Form>
        )}
      </Sheet>
    </Page>
  );
}

/** What the server says of each line, by its number; asked when the list has not changed for a moment. */
function useChecked(lines: readonly ListedPerson[], inputOf: (one: ListedPerson) => CheckInput) {
  const [checked, setChecked] = useState<ReadonlyMap<number, CheckedPerson>>(new Map());
  const [refused, setRefused] = useState<string | null>(null);
  const people = lines.map((one) => ({ line: one.line, input: inputOf(one) }));
  const asked = JSON.stringify(people);
  const latest = useRef("");
  const check = useSettled(async (text: string) => {
    const all = JSON.parse(text) as typeof people;
    const found = new Map<number, CheckedPerson>();
    for (let from = 0; from < all.length; from += AT_ONCE) {
      const some = all.slice(from, from + AT_ONCE);
      const answer = await runQuery("people.checkPeople", { people: some.map((one) => one.input) });
      if (!answer.ok) return setRefused(answer.refused.message);
      for (const [i, one] of answer.result.entries()) {
        const line = some[i]?.line;
        if (line !== undefined) found.set(line, one);
      }
    }
    setRefused(null);
    if (latest.current === text) setChecked(found);
  });
  useEffect(() => {
    latest.current = asked;
    // What was said of another list is no answer to this one.
    setChecked(new Map());
    if (asked !== "[]") check(asked);
  }, [asked]);
  return { checked, refused };
}

/** Who was added, and the links that are to be passed on by hand. */
function JustAdded({ added, onMore }: { added: Added; onMore: () => void }) {
  const { copy, copied } = useCopy();
  const links = added.flatMap(({ name, link }) => (link === null ? [] : [{ name, link }]));
  const all = links.map(({ name, link }) => `${name}: ${link}`).join("\n");
  return (
    <Stack style={{ marginBottom: 28 }}>
      <Notice data-tone="good" role="status">
        {t.added(added.length)} {added.length > links.length && t.emailsAreOnTheirWay(added.length - links.length)}
      </Notice>
      {links.length > 0 && (
        <>
          <p>{t.passTheseLinksOn}</p>
          <ul>
            {links.map(({ name, link }) => (
              <li key={link} style={{ marginBottom: 8 }}>
                <b>{name}</b>
                <span className="mono small" style={{ display: "block", overflowWrap: "anywhere" }} data-link>
                  {link}
                </span>
              </li>
            ))}
          </ul>
        </>
      )}
      <Row>
        {links.length > 0 && <Button onPress={() => copy(all)}>{copied ? t.copied : t.copyAll}</Button>}
        <ButtonLink href="/people">{t.backToPeople}</ButtonLink>
        <Button onPress={onMore}>{t.addMore}</Button>
      </Row>
    </Stack>
  );
}
