import { levelWord } from "@/core/access/level";
import type { MoveEffect } from "@/server/vaults/moving";
import { Notice } from "../shared/controls";

const MOST_NAMED = 12;

/** For whom what changes, in words. */
export function Effects({ effects, none, about = "" }: { effects: MoveEffect[]; none: string; about?: string }) {
  if (effects.length === 0) return <p>{none}</p>;
  const people = new Set(effects.map((one) => one.personId)).size;
  return (
    <Notice role="status">
      <b>
        {about}
        {people === 1 ? "It changes what one person may do:" : `It changes what ${people} people may do:`}
      </b>
      <ul>
        {effects.slice(0, MOST_NAMED).map((one) => (
          <li key={`${one.personId} ${one.node}`}>
            {one.name}: {levelWord(one.before)} becomes {levelWord(one.after)} on {one.node}
          </li>
        ))}
        {effects.length > MOST_NAMED && <li>and {effects.length - MOST_NAMED} more</li>}
      </ul>
    </Notice>
  );
}
