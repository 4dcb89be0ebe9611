"use client";

import Link from "next/link";
import { useState } from "react";
import styled from "styled-components";
import { sayTime } from "@/core/time";
import type { groupList } from "@/server/people/groupPage";
import { useCommand } from "../shared/ask";
import { TextField } from "../shared/controls";
import { Dialog } from "../shared/Dialog";
import { Form } from "../shared/Form";
import { groups as t } from "./strings";

export type GroupLine = Awaited<ReturnType<(typeof groupList)["execute"]>>["groups"][number];

const Lines = styled.ul`
  margin-top: 8px;
  border-top: 3px solid var(--ink);
  background: var(--sheet);
  --ground: var(--sheet);
  li { display: grid; grid-template-columns: minmax(0, 1.3fr) 120px minmax(0, 1.4fr) 170px; gap: 16px; align-items: center; min-height: 44px; padding: 4px 12px; border-bottom: 1px solid var(--rule); }
  li > * { min-width: 0; overflow: hidden; text-overflow: ellipsis; }
  @media (max-width: 1023px) { li { grid-template-columns: minmax(0, 1fr) 90px; } .keepers, .end { grid-column: 1 / -1; } .keepers:empty, .end:empty { display: none; } }
`;

/** Groups that one may change; each opens. */
export function GroupLines({ groups, zone, now }: { groups: GroupLine[]; zone: string; now: number }) {
  if (groups.length === 0) return <p style={{ marginTop: 6 }}>{t.aGroupIsPeopleWhoGetThe}</p>;
  return (
    <Lines aria-label={t.groups}>
      {groups.map((group) => (
        <li key={group.id}>
          <Link href={`/people/groups/${group.id}`} prefetch={false} title={group.description || group.name}>
            {group.name}
          </Link>
          <span>{t.people(group.members)}</span>
          <span className="keepers soft small">{group.keepers.length > 0 && t.keeper(group.keepers.join(", "))}</span>
          <span className="end soft small">{group.until !== null && t.until(sayTime(group.until, now, zone))}</span>
        </li>
      ))}
    </Lines>
  );
}

export function MakeGroup({ onClose }: { onClose: () => void }) {
  const make = useCommand("people.createGroup");
  const [name, setName] = useState("");
  const [description, setDescription] = useState("");
  return (
    <Dialog title={t.createAGroup} open onClose={onClose}>
      <Form
        verb={t.createGroup}
        onSend={async () => {
          if ((await make.run({ name, description })).ok) onClose();
        }}
        running={make.running}
        onCancel={onClose}
        wrong={make.wrong()}
      >
        <TextField label={t.name} value={name} onText={setName} wrong={make.wrong("name")} autoFocus />
        <TextField
          label={t.description}
          value={description}
          onText={setDescription}
          wrong={make.wrong("description")}
          hint={t.oneLineThatSaysWhatTheGroup}
        />
      </Form>
    </Dialog>
  );
}
