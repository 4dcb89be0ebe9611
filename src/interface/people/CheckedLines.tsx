"use client";

import Link from "next/link";
import type { ListedPerson } from "@/core/people/peopleList";
import { sayTime } from "@/core/time";
import type { CheckedPerson } from "@/server/people/adding";
import { fromLocal } from "../shared/localTime";
import { addPeople as t } from "./strings";

interface LinesProps {
  listed: readonly ListedPerson[];
  checked: ReadonlyMap<number, CheckedPerson>;
  zone: string;
  now: number;
}

export function Lines({ listed, checked, zone, now }: LinesProps) {
  return (
    <table>
      <thead>
        <tr>
          <th scope="col">{t.line}</th>
          <th scope="col">{t.name}</th>
          <th scope="col">{t.emailAddress}</th>
          <th scope="col">{t.firstDay}</th>
        </tr>
      </thead>
      <tbody>
        {listed.map((one) => {
          const found = checked.get(one.line);
          const wrong = one.wrong?.message ?? found?.wrong?.message ?? null;
          return (
            <tr key={one.line} data-wrong={wrong ? true : undefined}>
              <td>{one.line}</td>
              <td>
                <b>{one.name}</b>
                {(one.groups.length > 0 || one.until) && (
                  <span className="soft small" style={{ display: "block" }}>
                    {[
                      one.groups.join(", "),
                      one.until && t.until(sayTime(fromLocal(`${one.until}T23:59`, zone) ?? now, now, zone)),
                    ]
                      .filter(Boolean)
                      .join(" · ")}
                  </span>
                )}
              </td>
              <td>{one.mail}</td>
              <td>
                {wrong ??
                  (found?.firstDay ? t.sitesAndOthers(found.firstDay.sites, found.firstDay.others) : t.checking)}{" "}
                {found?.wrong?.personId && (
                  <Link href={`/people/${found.wrong.personId}`} prefetch={false}>
                    {t.openThem}
                  </Link>
                )}
              </td>
            </tr>
          );
        })}
      </tbody>
    </table>
  );
}
