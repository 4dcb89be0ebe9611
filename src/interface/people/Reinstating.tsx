"use client";

import { useState } from "react";
import { levelWord } from "@/core/access/level";
import { useCommand } from "../shared/ask";
import { CheckField } from "../shared/controls";
import { useDone } from "../shared/Done";
import { Form } from "../shared/Form";
import type { LeavingView } from "./leavingView";
import { leaving as t } from "./strings";

/** Role and sign-in come back; of access and groups, what is ticked. */
export function Reinstating({ view }: { view: LeavingView }) {
  const reinstate = useCommand("people.reinstate");
  const done = useDone();
  const [ticked, setTicked] = useState<ReadonlySet<string>>(new Set());
  const tick = (id: string, on: boolean) => {
    const next = new Set(ticked);
    if (on) next.add(id);
    else next.delete(id);
    setTicked(next);
  };
  const { grants, groups } = view.had;
  return (
    <section>
      <h2>{t.reinstateTitle}</h2>
      <Form
        verb={t.reinstate}
        onSend={async () => {
          const grantIds = grants.filter(({ id }) => ticked.has(id)).map(({ id }) => id);
          const membershipIds = groups.filter(({ id }) => ticked.has(id)).map(({ id }) => id);
          const answer = await reinstate.run({ personId: view.id, why: "", grantIds, membershipIds });
          if (answer.ok) done(t.isBack(view.name, ticked.size));
        }}
        running={reinstate.running}
        wrong={reinstate.wrong()}
      >
        <p className="soft small">{t.reinstateSays}</p>
        {groups.map(({ id, name }) => (
          <CheckField key={id} label={t.inGroup(name)} checked={ticked.has(id)} onTick={(on) => tick(id, on)} />
        ))}
        {grants.map(({ id, level, what }) => (
          <CheckField
            key={id}
            label={t.levelOn(levelWord(level), what)}
            checked={ticked.has(id)}
            onTick={(on) => tick(id, on)}
          />
        ))}
      </Form>
    </section>
  );
}
