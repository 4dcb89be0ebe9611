"use client";

import { useEffect, useState } from "react";
import styled from "styled-components";
import {
  FEWEST_WORDS,
  type Made,
  MOST_WORDS,
  SEPARATORS,
  type WebsiteWishes,
  WISHES,
  type Wishes,
} from "@/core/generator";
import { Button, CheckField, ChoiceField, Notice, Row, Stack, TextField } from "../shared/controls";
import { useCopy } from "../shared/useCopy";
import { makePassword } from "./ask";
import { makePassword as t } from "./strings";

const Ruled = styled.output`
  display: block;
  min-height: 66px;
  padding: 16px 0 14px;
  border-top: 4px double var(--ink);
  border-bottom: 1px solid var(--rule);
  font: 400 21px/31px var(--mono);
  overflow-wrap: anywhere;
  user-select: all;
`;

const Pairs = styled.div`
  display: grid;
  grid-template-columns: repeat(auto-fit, minmax(130px, 1fr));
  gap: 12px;
`;

const PURPOSES: { purpose: Wishes["purpose"]; label: string; hint: string }[] = [
  { purpose: "website", label: t.aWebsite, hint: t.allCharactersNobodyTypesIt },
  { purpose: "words", label: t.toTypeByHand, hint: t.wordsEasyToReadOutAndRemember },
  { purpose: "easy", label: t.toTypeByHandShort, hint: t.lowerCaseLettersAndDigits },
  { purpose: "keypad", label: t.aKeypad, hint: t.digits },
];

interface MakePasswordProps {
  first?: Wishes["purpose"];
  siteRules?: string | undefined;
  /** Beside the made password, what it is for: put into a field. */
  onTake?: (text: string) => void;
}

/** Asks what the password is for, makes it in this browser, and says how strong it is by the way it was made. */
export function MakePassword({ first = "website", siteRules = "", onTake }: MakePasswordProps) {
  const [wishes, setWishes] = useState<Wishes>({
    ...WISHES,
    purpose: first,
    website: { ...WISHES.website, siteRules },
  });
  const [made, setMade] = useState<Made | null>(null);
  const [wrong, setWrong] = useState<string | null>(null);
  const [turn, setTurn] = useState(0);
  const { copy, copied } = useCopy();
  // Each turn makes another one by the same wishes.
  useEffect(() => {
    let current = true;
    void makePassword(wishes).then((answer) => {
      if (!current) return;
      setMade(answer.answer);
      setWrong(answer.wrong);
    });
    return () => {
      current = false;
    };
  }, [wishes, turn]);
  return (
    <Stack>
      <div>
        <Ruled aria-live="polite" aria-label={t.thePassword} data-made>
          {made?.text ?? ""}
        </Ruled>
        <p className="small soft" style={{ marginTop: 6, minHeight: 20 }}>
          {made && t.bitsOneOf2ToThePower(Math.floor(made.bits))}
          {copied === "made" && t.copiedTheClipboardIsClearedIn}
        </p>
        {wrong && (
          <Notice data-tone="bad" role="alert">
            {wrong}
          </Notice>
        )}
        <Row style={{ marginTop: 10 }}>
          {onTake && (
            <Button look="go" isDisabled={!made} onPress={() => made && onTake(made.text)}>
              {t.useThisPassword}
            </Button>
          )}
          <Button
            look={onTake ? "plain" : "go"}
            isDisabled={!made}
            onPress={() => made && copy(made.text, true, "made")}
          >
            {t.copy}
          </Button>
          <Button onPress={() => setTurn(turn + 1)}>{t.tryAnother}</Button>
        </Row>
      </div>
      <fieldset>
        <legend style={{ fontWeight: 650, marginBottom: 8 }}>{t.purpose}</legend>
        <Stack style={{ gap: 8 }}>
          {PURPOSES.map(({ purpose, label, hint }) => (
            <CheckField
              key={purpose}
              type="radio"
              name="purpose"
              label={label}
              hint={hint}
              checked={wishes.purpose === purpose}
              onChange={() => setWishes({ ...wishes, purpose })}
            />
          ))}
        </Stack>
      </fieldset>
      {wishes.purpose === "website" && (
        <ForWebsite wishes={wishes.website} set={(website) => setWishes({ ...wishes, website })} />
      )}
      {wishes.purpose === "words" && (
        <>
          <Pairs>
            <Amount
              label={t.words}
              value={wishes.words.count}
              from={FEWEST_WORDS}
              to={MOST_WORDS}
              set={(count) => setWishes({ ...wishes, words: { ...wishes.words, count } })}
            />
            <ChoiceField
              label={t.betweenThem}
              value={wishes.words.separator}
              onText={(separator) => setWishes({ ...wishes, words: { ...wishes.words, separator } })}
            >
              {SEPARATORS.map((separator) => (
                <option key={separator} value={separator}>
                  {separator === " " ? t.aSpace : separator}
                </option>
              ))}
            </ChoiceField>
          </Pairs>
          <CheckField
            label={t.startEachWithACapitalLetter}
            checked={wishes.words.capitals}
            onTick={(capitals) => setWishes({ ...wishes, words: { ...wishes.words, capitals } })}
          />
          <CheckField
            label={t.addADigitAfterOneOfThem}
            checked={wishes.words.digit}
            onTick={(digit) => setWishes({ ...wishes, words: { ...wishes.words, digit } })}
          />
        </>
      )}
      {wishes.purpose === "easy" && (
        <Amount
          label={t.characters}
          value={wishes.easyLength}
          from={8}
          to={64}
          set={(easyLength) => setWishes({ ...wishes, easyLength })}
        />
      )}
      {wishes.purpose === "keypad" && (
        <Amount
          label={t.digits2}
          value={wishes.keypadLength}
          from={4}
          to={20}
          set={(keypadLength) => setWishes({ ...wishes, keypadLength })}
        />
      )}
    </Stack>
  );
}

const CLASSES: { key: "lower" | "upper" | "digits" | "signs"; label: string }[] = [
  { key: "lower", label: t.lowerCaseLetters },
  { key: "upper", label: t.capitalLetters },
  { key: "digits", label: t.digits2 },
  { key: "signs", label: t.symbols },
];

function ForWebsite({ wishes, set }: { wishes: WebsiteWishes; set: (wishes: WebsiteWishes) => void }) {
  const bySite = wishes.siteRules.trim() !== "";
  return (
    <>
      <Amount
        label={t.characters}
        value={wishes.length}
        from={8}
        to={128}
        set={(length) => set({ ...wishes, length })}
      />
      {!bySite && (
        <>
          <Pairs>
            {CLASSES.map(({ key, label }) => (
              <ChoiceField
                key={key}
                label={label}
                value={String(wishes[key])}
                onText={(text) => set({ ...wishes, [key]: text === "null" ? null : Number(text) })}
              >
                <option value="null">{t.none}</option>
                <option value="0">{t.allowed}</option>
                {[1, 2, 3, 4, 5].map((least) => (
                  <option key={least} value={least}>
                    {t.atLeast(least)}
                  </option>
                ))}
              </ChoiceField>
            ))}
          </Pairs>
          <CheckField
            label={t.noLookAlikes}
            hint={t.suchAsOAnd0IAnd}
            checked={wishes.noLookAlikes}
            onTick={(noLookAlikes) => set({ ...wishes, noLookAlikes })}
          />
          <CheckField
            label={t.noThreeEqualCharactersInARow}
            checked={wishes.noThreeAlike}
            onTick={(noThreeAlike) => set({ ...wishes, noThreeAlike })}
          />
        </>
      )}
      <TextField
        label={t.theSitesRules}
        className="mono"
        value={wishes.siteRules}
        onText={(siteRules) => set({ ...wishes, siteRules })}
        autoComplete="off"
        spellCheck={false}
        hint={t.asItsPageGivesThem}
      />
    </>
  );
}

interface AmountProps {
  label: string;
  value: number;
  from: number;
  to: number;
  set: (value: number) => void;
}

/** A whole number within its bounds; while it is being typed, what is not yet one changes nothing. */
function Amount({ label, value, from, to, set }: AmountProps) {
  const [typed, setTyped] = useState(String(value));
  const number = Number(typed);
  const good = Number.isInteger(number) && number >= from && number <= to;
  return (
    <TextField
      label={label}
      type="number"
      min={from}
      max={to}
      value={typed}
      onText={(text) => {
        setTyped(text);
        const next = Number(text);
        if (Number.isInteger(next) && next >= from && next <= to) set(next);
      }}
      wrong={good ? null : t.fromTo(from, to)}
      style={{ maxWidth: 120 }}
    />
  );
}
