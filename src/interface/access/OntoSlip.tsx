"use client";

import { useRouter } from "next/navigation";
import type { Change } from "@/core/access";
import { runCommand, runQuery } from "../shared/ask";
import { Button } from "../shared/controls";
import { useDone } from "../shared/Done";
import { ontoSlip as t } from "./strings";
import { toSend, withChange } from "./useSlip";

/** Puts changes on one's open slip, where they wait with the others. @returns what was refused, or null */
async function putOnSlip(changes: readonly Change[]): Promise<string | null> {
  const read = await runQuery("access.ownSlip", {});
  if (!read.ok) return read.refused.message;
  const { draft } = read.result;
  let all: readonly Change[] = (draft?.changes ?? []).map((one) => one.change);
  for (const change of changes) all = withChange(all, change);
  const answer = await runCommand("access.draftSlip", { changes: all.map(toSend), revision: draft?.revision ?? 0 });
  return answer.ok ? null : answer.refused.message;
}

interface OntoSlipProps {
  changes: readonly Change[];
  onWrong: (message: string | null) => void;
  onDone: () => void;
}

/** The other button: not at once, but with what else is being thought of. */
export function OntoSlip({ changes, onWrong, onDone }: OntoSlipProps) {
  const done = useDone();
  const router = useRouter();
  const press = async () => {
    const refused = await putOnSlip(changes);
    onWrong(refused);
    if (refused !== null) return;
    done(t.itIsOnYourChangeSlipUnder);
    router.refresh();
    onDone();
  };
  return (
    <Button isDisabled={changes.length === 0} onPress={press}>
      {t.addToMySlip}
    </Button>
  );
}
