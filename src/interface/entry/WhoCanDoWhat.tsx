"use client";

import { useState } from "react";
import styled from "styled-components";
import { sayWeekly } from "@/core/access/explain";
import { levelWord } from "@/core/access/level";
import { exactTime, sayTime } from "@/core/time";
import type { whoCanDoWhat } from "@/server/access/who";
import { CutKey } from "../shared/CutKey";
import { Act, Chip } from "../shared/controls";
import { Picker } from "../shared/Picker";
import { whoCanDoWhat as t } from "./strings";
import { loadSubjects, type SubjectChoice } from "./subjects";
import { TermsDialog } from "./TermsDialog";

export type WhoView = Awaited<ReturnType<(typeof whoCanDoWhat)["execute"]>>;
type WhoLine = WhoView["lines"][number];

const List = styled.ul`
  li { display: grid; grid-template-columns: 66px minmax(0, 1fr) auto; gap: 0 10px; padding: 8px 0; border-top: 1px solid var(--rule); line-height: 20px; overflow-wrap: anywhere; }
  li > svg { margin: 3px 0 0; }
  .small { display: block; }
  .do { display: flex; flex-wrap: wrap; gap: 4px 12px; justify-content: end; align-items: start; }
  .do button { min-height: 20px; }
  @media (max-width: 719px) {
    li { grid-template-columns: 66px minmax(0, 1fr); }
    .do { grid-column: 2; justify-content: start; margin-top: 4px; }
  }
`;

const People = styled.ul`
  li { padding: 6px 0; border-top: 1px solid var(--rule); font-size: 13.5px; line-height: 20px; overflow-wrap: anywhere; }
`;

interface Props {
  nodeId: string;
  nodeWord: string;
  who: WhoView;
  zone: string;
  now: number;
}

/** Grants that count here, where each comes from, and everybody who is reached through them. */
export function WhoCanDoWhat({ nodeId, nodeWord, who, zone, now }: Props) {
  const [giving, setGiving] = useState<SubjectChoice | null>(null);
  const [changing, setChanging] = useState<WhoLine | null>(null);
  const [each, setEach] = useState(false);
  const users = who.reached.length;
  return (
    <section>
      <h2 style={{ marginBottom: 8 }}>{t.whoCanDoWhat}</h2>
      <Picker<SubjectChoice>
        label={t.giveAccess}
        placeholder={t.giveAccessToAPersonAGroup}
        list={t.peopleAndGroups}
        nothing={t.noMatchTryPartOfTheName}
        load={loadSubjects}
        searches
        onPick={setGiving}
      />
      <List style={{ marginTop: 10 }}>
        {who.lines.map((line) => (
          <li key={line.key} data-subject={line.name}>
            <CutKey
              level={line.level}
              inherited={!line.here}
              until={line.until === null ? null : exactTime(line.until, zone)}
            />
            <span>
              <b>{line.name}</b> <span className="soft">{line.note}</span>
              <span className="small">
                {levelWord(line.level)}, {line.where}
                {line.coming && (
                  <>
                    {" "}
                    <Chip data-tone="plain">{t.from(sayTime(line.from!, now, zone))}</Chip>
                  </>
                )}
                {line.weekly && (
                  <>
                    {" "}
                    <Chip data-tone="plain">{sayWeekly(line.weekly)}</Chip>
                  </>
                )}
                {line.until !== null && (
                  <>
                    {" "}
                    <Chip>{t.until(sayTime(line.until, now, zone))}</Chip>
                  </>
                )}
              </span>
              {line.why && <span className="small soft">“{line.why}”</span>}
            </span>
            <span className="do">
              <Act
                onPress={() => setChanging(line)}
                aria-label={`${line.here ? "Change" : t.setForThisEntry}: ${line.name}`}
              >
                {line.here ? t.change : t.setForThisEntry}
              </Act>
            </span>
          </li>
        ))}
      </List>
      <p className="small" style={{ borderTop: "1px solid var(--rule)", paddingTop: 9 }}>
        {users === 0 ? t.nobodyCanUseIt : t.canUseItInAll(users)}{" "}
        {users > 0 && (
          <Act onPress={() => setEach(!each)} aria-expanded={each}>
            {each ? t.hidePeople : t.showEachPerson}
          </Act>
        )}
      </p>
      {each && (
        <People>
          {who.reached.map((one) => (
            <li key={one.personId}>
              <b>{one.name}</b> <span className="soft">{one.note}</span>
              <br />
              {one.sentence}
            </li>
          ))}
        </People>
      )}
      {giving && (
        <TermsDialog
          title={t.giveAccessTo(giving.name)}
          nodeWord={nodeWord}
          start={{ level: "use", from: null, until: null, why: "" }}
          zone={zone}
          onClose={() => setGiving(null)}
          nodeIds={[nodeId]}
          subject={giving.kind === "everyone" ? { kind: "everyone" } : { kind: giving.kind, id: giving.id }}
          verb={t.giveAccess}
        />
      )}
      {changing?.here && (
        <TermsDialog
          title={t.changeAccessOf(changing.name)}
          nodeWord={nodeWord}
          start={changing}
          zone={zone}
          onClose={() => setChanging(null)}
          nodeIds={[nodeId]}
          subject={changing.subject}
          changes={changing.grantId}
          verb={t.change}
        />
      )}
      {changing && !changing.here && (
        <TermsDialog
          title={t.setAccessOfForThisEntry(changing.name)}
          nodeWord={nodeWord}
          start={{ ...changing, why: "" }}
          zone={zone}
          onClose={() => setChanging(null)}
          nodeIds={[nodeId]}
          subject={changing.subject}
          verb={t.setForThisEntry}
        />
      )}
    </section>
  );
}
