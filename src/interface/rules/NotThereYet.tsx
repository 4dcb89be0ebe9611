"use client";

import Link from "next/link";
import { Fragment } from "react";
import type { ResultOf } from "@/server/registry";
import { useCommand } from "../shared/ask";
import { Act, Notice } from "../shared/controls";
import { useDone } from "../shared/Done";
import { Sentences } from "./ruleParts";
import { notThereYet as t } from "./strings";

type Missing = ResultOf<"people.waysMissing">[number];

/** For administrators: who does not have yet what the rules require, and a reminder to all of them. */
export function NotThereYet({ missing }: { missing: Missing[] }) {
  const remind = useCommand("people.remindWays");
  const done = useDone();
  return (
    <section aria-label={t.whoIsNotThereYet}>
      <h2>{t.whoIsNotThereYet}</h2>
      {remind.refused && (
        <Notice data-tone="bad" role="alert">
          {remind.refused.message}
        </Notice>
      )}
      <Sentences>
        {missing.map(({ groupId, needs, from, group, now, count, people }) => (
          <li key={`${groupId} ${needs} ${from}`} className="read">
            <b>{group === null ? t.allPeople : group}</b>: {count === 0 ? t.allHaveIt : t.lack(count, needs)}
            {count > 0 && (now ? t.ledAtTheNext : null)}{" "}
            {count > 0 && (
              <Act
                onPress={async () => {
                  const answer = await remind.run({ groupId, needs, from });
                  if (answer.ok) done(t.reminded(answer.result.count));
                }}
              >
                {t.remindThem}
              </Act>
            )}{" "}
            {people.map((person, i) => (
              <Fragment key={person.id}>
                {i > 0 && ", "}
                <Link href={`/people/${person.id}`} prefetch={false}>
                  {person.name}
                </Link>
              </Fragment>
            ))}
            {count > people.length && t.andOthers(count - people.length)}
          </li>
        ))}
      </Sentences>
    </section>
  );
}
