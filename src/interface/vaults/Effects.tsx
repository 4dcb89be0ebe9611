import { levelWord } from "@/core/access/level";
import type { MoveEffect } from "@/server/vaults/moving";
import { Notice } from "../shared/controls";
import { effects as t } from "./strings";

const MOST_NAMED = 12;

/** For whom what changes, in words. */
export function Effects({ effects, none, about = "" }: { effects: MoveEffect[]; none: string; about?: string }) {
  if (effects.length === 0) return <p>{none}</p>;
  const people = new Set(effects.map((one) => one.personId)).size;
  return (
    <Notice role="status">
      <b>
        {about}
        {t.itChangesTheAccessOf(people)}
      </b>
      <ul>
        {effects.slice(0, MOST_NAMED).map((one) => (
          <li key={`${one.personId} ${one.node}`}>
            {t.goesFromToOn(one.name, levelWord(one.before), levelWord(one.after), one.node)}
          </li>
        ))}
        {effects.length > MOST_NAMED && <li>{t.andMore(effects.length - MOST_NAMED)}</li>}
      </ul>
    </Notice>
  );
}
