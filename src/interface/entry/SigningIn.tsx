"use client";

import { useState } from "react";
import { useCommand } from "../shared/ask";
import { CheckField, ChoiceField, TextArea, TextField } from "../shared/controls";
import { Dialog } from "../shared/Dialog";
import { Form } from "../shared/Form";
import { signingIn as t } from "./strings";
import type { EntryView } from "./types";

/** Steps are for who may edit; guarded fill and plain http for the steward alone. */
export function SigningInDialog({ entry, open, onClose }: { entry: EntryView; open: boolean; onClose: () => void }) {
  const steward = entry.level === "steward";
  const change = useCommand("vaults.changeSigningIn");
  const saveSteps = useCommand("vaults.changeSteps");
  const [guardedFill, setGuardedFill] = useState(entry.guardedFill);
  const [plainHttp, setPlainHttp] = useState(entry.plainHttp);
  const [filling, setFilling] = useState(entry.filling);
  const [hosts, setHosts] = useState(entry.steps.hosts.join(", "));
  const [choices, setChoices] = useState(
    Object.entries(entry.steps.choices)
      .map(([name, value]) => `${name}=${value}`)
      .join("\n"),
  );
  const [signOutPage, setSignOutPage] = useState(entry.steps.signOutPage ?? "");
  const save = async () => {
    const steps = {
      hosts: hosts.split(/[\s,]+/).filter(Boolean),
      choices: Object.fromEntries(
        choices
          .split("\n")
          .map((line) => line.trim())
          .filter(Boolean)
          .map((line) => [line.split("=")[0]!.trim(), line.slice(line.indexOf("=") + 1).trim()]),
      ),
      signOutPage: signOutPage.trim() || null,
    };
    if (!(await saveSteps.run({ entryId: entry.id, steps })).ok) return;
    const rules = { entryId: entry.id, guardedFill, plainHttp, filling };
    if (steward && !(await change.run(rules)).ok) return;
    onClose();
  };
  const wrong =
    change.refused?.message ?? (saveSteps.refused?.field?.startsWith("steps.") ? null : saveSteps.refused?.message);
  return (
    <Dialog title={t.signInStepsOf(entry.name)} open={open} onClose={onClose}>
      <Form verb={t.save} onSend={save} running={change.running || saveSteps.running} onCancel={onClose} wrong={wrong}>
        <p>{t.galtrySignsInToTheSiteItself}</p>
        <TextField
          label={t.otherHostsTheSignInUses}
          className="mono"
          value={hosts}
          onText={setHosts}
          wrong={saveSteps.wrong("steps.hosts")}
          hint={t.separatedByCommasWithoutThem}
        />
        <TextArea
          label={t.fixedChoices}
          className="mono"
          rows={2}
          value={choices}
          onText={setChoices}
          wrong={saveSteps.wrong("steps.choices")}
          hint={t.onePerLineTheNameOfThe}
        />
        <TextField
          label={t.signOutPage}
          className="mono"
          value={signOutPage}
          onText={setSignOutPage}
          wrong={saveSteps.wrong("steps.signOutPage")}
          hint={t.galtryOpensItWhenSomeones}
        />
        {steward && (
          <>
            <CheckField
              checked={guardedFill}
              onTick={setGuardedFill}
              label={<b>{t.allowGuardedFillAsWell}</b>}
              hint={t.forSitesWhereASealedSignIn}
            />
            <ChoiceField
              label={t.onTheSitesOwnPage}
              value={filling}
              onText={(text) => setFilling(text as typeof filling)}
              hint={t.aSealedSignInFromGaltryWorks}
            >
              <option value="send">{t.lanyardOffersItGuardedFill}</option>
              <option value="type">{t.lanyardOffersItGuardedFill2}</option>
              <option value="never">{t.lanyardDoesNotOfferItThereAnd}</option>
            </ChoiceField>
            <CheckField
              checked={plainHttp}
              onTick={setPlainHttp}
              label={<b>{t.thisSiteHasNoHttpsSendThe}</b>}
              hint={t.anyoneOnTheNetworkBetween}
            />
          </>
        )}
      </Form>
    </Dialog>
  );
}
