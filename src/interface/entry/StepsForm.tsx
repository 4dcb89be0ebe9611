"use client";

import { useRouter } from "next/navigation";
import { useState } from "react";
import styled from "styled-components";
import { ENTERED, type Entered, type PageStep, type Sign } from "@/core/signin/steps";
import { useCommand } from "../shared/ask";
import { Button, CheckField, ChoiceField, Row, TextArea, TextField } from "../shared/controls";
import { Dialog } from "../shared/Dialog";
import { Form } from "../shared/Form";
import type { StepsView } from "./StepsPage";
import { stepsForm as s, signingIn as t } from "./strings";

/** A step as it is typed: each field by one word, and the step it came from, for what the form does not show. */
interface Draft {
  key: number;
  page: string;
  fields: Record<Entered | "button", string>;
  sends: boolean;
  was: PageStep | null;
}

const word = (sign: Sign | null | undefined): string => (sign ? sign.name || sign.label || sign.id : "");
/** A button is known by what stands on it. */
const wordOn = (sign: Sign | null | undefined): string => (sign ? sign.label || sign.name || sign.id : "");

const draftOf = (step: PageStep, key: number): Draft => ({
  key,
  page: step.page,
  fields: {
    ...(Object.fromEntries(
      ENTERED.map((what) => [what, word(step.enters.find((one) => one.what === what)?.field)]),
    ) as Record<Entered, string>),
    button: wordOn(step.presses),
  },
  sends: step.sends !== null,
  was: step,
});

/** What was not touched keeps all by which it is found; a new word is looked for as a name and as a label. */
function stepOf({ page, fields, sends, was }: Draft): PageStep {
  const sign = (typed: string, before: Sign | null | undefined, called = word): Sign =>
    before && called(before) === typed ? before : { name: typed, id: "", label: typed };
  return {
    page,
    enters: ENTERED.filter((what) => fields[what].trim() !== "").map((what) => ({
      what,
      field: sign(fields[what].trim(), was?.enters.find((one) => one.what === what)?.field),
    })),
    presses: fields.button.trim() === "" ? null : sign(fields.button.trim(), was?.presses, wordOn),
    sends: sends ? (was?.sends ?? null) : null,
  };
}

const Step = styled.fieldset`
  margin: 0;
  padding: 12px 0;
  border: 0;
  border-top: 1px solid var(--edge);
  legend { float: left; padding: 0; font-weight: 650; }
  > .act { float: right; }
  > div { clear: both; display: grid; gap: 10px; padding-top: 10px; }
  .two { display: grid; grid-template-columns: 1fr 1fr; gap: 10px 16px; }
  @media (max-width: 719px) { .two { grid-template-columns: 1fr; } }
`;

/** Steps are for who may edit; guarded fill and plain http for the steward alone. */
export function StepsForm({ view, onClose }: { view: StepsView; onClose: () => void }) {
  const router = useRouter();
  const steward = view.level === "steward";
  const change = useCommand("vaults.changeSigningIn");
  const saveSteps = useCommand("vaults.changeSteps");
  const [guardedFill, setGuardedFill] = useState(view.guardedFill);
  const [plainHttp, setPlainHttp] = useState(view.plainHttp);
  const [filling, setFilling] = useState(view.filling);
  const [codesReach, setCodesReach] = useState(view.codesReach);
  const [hosts, setHosts] = useState(view.steps.hosts.join(", "));
  const [choices, setChoices] = useState(
    Object.entries(view.steps.choices)
      .map(([name, value]) => `${name}=${value}`)
      .join("\n"),
  );
  const [signOutPage, setSignOutPage] = useState(view.steps.signOutPage ?? "");
  const [pages, setPages] = useState(view.steps.pages.map(draftOf));
  const [lands, setLands] = useState(view.steps.lands ?? "");
  const put = (key: number, over: Partial<Draft>) =>
    setPages(pages.map((one) => (one.key === key ? { ...one, ...over } : one)));
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
      pages: pages.map(stepOf),
      lands: lands.trim() || null,
    };
    if (!(await saveSteps.run({ entryId: view.id, steps })).ok) return;
    const rules = { entryId: view.id, guardedFill, plainHttp, filling, codesReach };
    if (steward && !(await change.run(rules)).ok) return;
    router.refresh();
    onClose();
  };
  const ownField = /^steps\.(hosts|choices|signOutPage|lands|pages\.\d+\.page)/.test(saveSteps.refused?.field ?? "");
  const wrong = change.refused?.message ?? (ownField ? null : saveSteps.refused?.message);
  return (
    <Dialog title={t.signInStepsOf(view.name)} open onClose={onClose}>
      <Form verb={t.save} onSend={save} running={change.running || saveSteps.running} onCancel={onClose} wrong={wrong}>
        <p>{t.galtrySignsInToTheSiteItself}</p>
        <p className="small soft">
          {s.thePages} {s.leaveEmpty}
        </p>
        {pages.map(({ key, page, fields, sends, was }, at) => {
          const field = (what: Entered | "button", label: string) => (
            <TextField
              label={label}
              value={fields[what]}
              onText={(text) => put(key, { fields: { ...fields, [what]: text } })}
            />
          );
          return (
            <Step key={key}>
              <legend>{s.step(at + 1)}</legend>
              <span className="act">
                <Button onPress={() => setPages(pages.filter((one) => one.key !== key))}>{s.removeStep(at + 1)}</Button>
              </span>
              <div>
                <TextField
                  label={s.pageAddress}
                  className="mono"
                  value={page}
                  onText={(text) => put(key, { page: text })}
                  wrong={saveSteps.wrong(`steps.pages.${at}.page`)}
                />
                <div className="two">
                  {field("user-name", s.userNameField)}
                  {field("password", s.passwordField)}
                  {field("code", s.codeField)}
                  {field("button", s.button)}
                </div>
                {was?.sends?.byScript && (
                  <CheckField
                    checked={sends}
                    onTick={(on) => put(key, { sends: on })}
                    label={s.sendAsThePage(was.sends.to)}
                  />
                )}
              </div>
            </Step>
          );
        })}
        <Row>
          <Button
            onPress={() => {
              const key = Math.max(-1, ...pages.map((one) => one.key)) + 1;
              const empty = { page: view.signInPage, enters: [], presses: null, sends: null };
              setPages([...pages, { ...draftOf(empty, key), was: null }]);
            }}
          >
            {s.addStep}
          </Button>
        </Row>
        <TextField
          label={s.lands}
          className="mono"
          value={lands}
          onText={setLands}
          wrong={saveSteps.wrong("steps.lands")}
          hint={s.landsHint}
        />
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
              label={t.codesFromTheSite}
              value={codesReach}
              onText={setCodesReach}
              hint={t.whileSomeoneSignsIn}
            >
              <option value="">{t.codesReachNobody}</option>
              <option value="stewards">{t.codesReachAny}</option>
              {view.stewards.map(({ id, name }) => (
                <option key={id} value={id}>
                  {name}
                </option>
              ))}
              {!view.stewards.some(({ id }) => id === codesReach) && !["", "stewards"].includes(codesReach) && (
                <option value={codesReach}>{t.noStewardAnyMore}</option>
              )}
            </ChoiceField>
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
