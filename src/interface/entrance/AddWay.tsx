"use client";

import type { WayNeed } from "@/core/access/houseRules";
import type { ResultOf } from "@/server/registry";
import { WaysIn } from "../account/WaysIn";
import { ProveAgain } from "../frame/ProveAgain";
import { runCommand } from "../shared/ask";
import { Button, Stack } from "../shared/controls";
import { Entrance } from "./Entrance";
import { addWay as t } from "./strings";

interface AddWayProps {
  organisation: string;
  needs: WayNeed;
  ways: ResultOf<"people.ownWays">;
  accounts: ResultOf<"provider.ownAccounts">;
  back: { code: string; provider: string | null } | null;
  zone: string;
  now: number;
}

/** Between signing in and everything else, where the house rules require a way in that is not there yet. */
export function AddWay({ organisation, needs, ways, accounts, back, zone, now }: AddWayProps) {
  const signOut = async () => {
    await runCommand("people.signOut", {});
    location.assign("/sign-in");
  };
  return (
    <Entrance organisation={organisation} title={t.addAWayToSignIn}>
      <Stack>
        <p>{t.required(needs)}</p>
        <ProveAgain />
        <WaysIn {...{ ways, accounts, back, zone, now }} link={null} />
        <Button onPress={signOut}>{t.signOut}</Button>
      </Stack>
    </Entrance>
  );
}
