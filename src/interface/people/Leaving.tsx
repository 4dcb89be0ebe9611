"use client";

import Link from "next/link";
import { useRouter } from "next/navigation";
import { useState } from "react";
import styled from "styled-components";
import { sayTime } from "@/core/time";
import type { InputOf } from "@/server/registry";
import type { RunView } from "@/server/signin/runs";
import { Page } from "../frame/Frame";
import { useCommand } from "../shared/ask";
import { ButtonLink, Notice, Row, TextField } from "../shared/controls";
import { MomentField } from "../shared/DateFields";
import { useDone } from "../shared/Done";
import { Form } from "../shared/Form";
import { fromLocal } from "../shared/localTime";
import { Head } from "../vaults/VaultList";
import { Ends } from "./Ends";
import { Erasing } from "./Erasing";
import type { LeavingView } from "./leavingView";
import { Reinstating } from "./Reinstating";
import { SeenStill } from "./SeenStill";
import { type Chosen, Successors } from "./Successors";
import { leaving as t } from "./strings";

const Book = styled.div`
  display: grid;
  grid-template-columns: minmax(0, 1fr) minmax(0, 1fr);
  gap: 28px 56px;
  align-items: start;
  section { margin-bottom: 28px; }
  h2 { padding-bottom: 6px; border-bottom: 1px solid var(--edge); font-size: 17px; }
  @media (max-width: 1023px) { grid-template-columns: minmax(0, 1fr); }
`;

interface LeavingProps {
  view: LeavingView;
  /** The reader's own, about this person. */
  runs: readonly RunView[];
  me: string;
  zone: string;
  now: number;
}

/** Somebody leaves: on one page what ends, who takes over, what they have seen, and then that it is done. */
export function Leaving({ view, runs, me, zone, now }: LeavingProps) {
  return (
    <Page where={t.where(<Link href="/people">{t.people}</Link>, <Link href={`/people/${view.id}`}>{view.name}</Link>)}>
      <Head>
        <h1>{view.leftAt === null ? t.leaves(view.name) : t.hasLeft(view.name)}</h1>
        {view.leftAt === null && (
          <ButtonLink href={`/people?find=${encodeURIComponent(view.mail)}`}>{t.suspendInstead}</ButtonLink>
        )}
      </Head>
      {view.leftAt === null ? (
        <Before {...{ view, runs, me, zone, now }} />
      ) : (
        <Book>
          <div>
            <section>
              <h2>{t.ended}</h2>
              <p style={{ marginTop: 8 }}>{t.everythingEnded(sayTime(view.leftAt, now, zone))}</p>
            </section>
            {view.erased ? <p className="soft">{t.isErased}</p> : <Reinstating view={view} />}
            {!view.erased && <Erasing view={view} />}
          </div>
          <SeenStill person={view} known={view.known} asks {...{ runs, zone, now }} />
        </Book>
      )}
    </Page>
  );
}

function Before({ view, runs, me, zone, now }: LeavingProps) {
  const router = useRouter();
  const done = useDone();
  const leave = useCommand("people.markLeaver");
  const [why, setWhy] = useState("");
  const [until, setUntil] = useState("");
  const [changeBy, setChangeBy] = useState("");
  const [chosen, setChosen] = useState<Chosen>({ successors: {}, keepers: {} });
  const open = view.alone.filter(({ nodeId }) => chosen.successors[nodeId] === undefined).length;
  const send = async () => {
    const input: InputOf<"people.markLeaver"> = {
      ...{ personId: view.id, why, until: until === "" ? null : fromLocal(until, zone) },
      changeBy: changeBy === "" || until !== "" ? null : fromLocal(changeBy, zone),
      successors: view.alone.map(({ nodeId }) => ({ nodeId, personId: chosen.successors[nodeId]?.id ?? null })),
      keepers: view.keeperAlone.map(({ groupId }) => ({ groupId, personId: chosen.keepers[groupId] ?? null })),
    };
    const answer = await leave.run(input);
    if (!answer.ok) return;
    done(until === "" ? t.isALeaver(view.name) : t.leavesLater(view.name));
    if (until !== "") router.push(`/people?find=${encodeURIComponent(view.mail)}`);
  };
  return (
    <Book>
      <div>
        <Ends {...{ view, zone, now }} />
        <Successors {...{ view, me, chosen }} onChosen={setChosen} />
        {view.lastOwner ? (
          <Notice>{t.lastOwner(view.name)}</Notice>
        ) : (
          <Form
            verb={until === "" ? t.markAsLeaver : t.setTheDate}
            look="harm"
            onSend={send}
            running={leave.running}
            unready={open > 0}
            wrong={leave.wrong("successors") ?? leave.wrong("keepers") ?? leave.wrong()}
          >
            <TextField label={t.reason} hint={t.writtenInTheJournal} value={why} onText={setWhy} maxLength={300} />
            <MomentField
              label={t.atALaterTime}
              hint={t.emptyForNow}
              value={until}
              onText={setUntil}
              wrong={leave.wrong("until")}
            />
            {until === "" && view.known.seen.length + view.known.elsewhere.length > 0 && (
              <MomentField
                label={t.changeBy}
                hint={t.emptyForAWeek}
                value={changeBy}
                onText={setChangeBy}
                wrong={leave.wrong("changeBy")}
              />
            )}
            {open > 0 && (
              <Row>
                <span className="small">{t.chooseFirst(open)}</span>
              </Row>
            )}
          </Form>
        )}
      </div>
      <SeenStill person={view} known={view.known} asks elsewhere {...{ runs, zone, now }} />
    </Book>
  );
}
