"use client";

import { useState } from "react";
import { useCommand } from "../shared/ask";
import { CheckField, ChoiceField, TextArea, TextField } from "../shared/controls";
import { Dialog } from "../shared/Dialog";
import { Form } from "../shared/Form";
import { useProving } from "../shared/useProving";
import type { EntryView } from "./types";

/** Steps are for who may edit; guarded fill and plain http for the steward alone. */
export function SigningInDialog({ entry, open, onClose }: { entry: EntryView; open: boolean; onClose: () => void }) {
  const steward = entry.level === "steward";
  const change = useCommand("vaults.changeSigningIn");
  const saveSteps = useCommand("vaults.changeSteps");
  const { prove, sheet } = useProving();
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
    if (!(await prove(() => saveSteps.run({ entryId: entry.id, steps }))).ok) return;
    const rules = { entryId: entry.id, guardedFill, plainHttp, filling };
    if (steward && !(await prove(() => change.run(rules))).ok) return;
    onClose();
  };
  const wrong =
    change.refused?.message ?? (saveSteps.refused?.field?.startsWith("steps.") ? null : saveSteps.refused?.message);
  return (
    <Dialog title={`How ${entry.name} is signed in to`} open={open} onClose={onClose}>
      <Form
        verb="Save"
        onSend={save}
        running={change.running || saveSteps.running}
        onCancel={onClose}
        wrong={sheet ? null : wrong}
      >
        <p>
          Galtry signs in to the site itself and hands the colleague’s browser the finished session. The password is not
          sent to that browser.
        </p>
        <TextField
          label="Other hosts it passes through"
          className="mono"
          value={hosts}
          onText={setHosts}
          wrong={saveSteps.wrong("steps.hosts")}
          hint="only the entry’s own site is called otherwise; separated by commas"
        />
        <TextArea
          label="What it chooses"
          className="mono"
          rows={2}
          value={choices}
          onText={setChoices}
          wrong={saveSteps.wrong("steps.choices")}
          hint="one a line: name of the page’s field = value, such as branch=harbour"
        />
        <TextField
          label="Page that signs out"
          className="mono"
          value={signOutPage}
          onText={setSignOutPage}
          wrong={saveSteps.wrong("steps.signOutPage")}
          hint="visited by Galtry when somebody’s access ends; empty: none"
        />
        {steward && (
          <>
            <CheckField
              checked={guardedFill}
              onTick={setGuardedFill}
              label={<b>Allow guarded fill as well</b>}
              hint="For sites where a sealed sign-in cannot work. Lanyard types the password into the page and sends it at once. Somebody with developer tools can see it then; whoever uses it counts among those who have seen it."
            />
            <ChoiceField
              label="In the site’s page"
              value={filling}
              onText={(text) => setFilling(text as typeof filling)}
              hint="a sealed sign-in from Galtry works with each of them"
            >
              <option value="send">Lanyard offers it; guarded fill types and sends</option>
              <option value="type">Lanyard offers it; guarded fill types, and the person sends</option>
              <option value="never">Lanyard does not offer it there, and never fills it in</option>
            </ChoiceField>
            <CheckField
              checked={plainHttp}
              onTick={setPlainHttp}
              label={<b>This site has no https: send the password over plain http</b>}
              hint="Anybody on the way between Galtry and the site can read it."
            />
          </>
        )}
      </Form>
      {sheet}
    </Dialog>
  );
}
