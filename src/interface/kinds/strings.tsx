/** Every sentence and label of this area, in one place to be read. */

import type { ReactNode } from "react";
import { agree, counted } from "../../core/counted";

export const kindDesigner = {
  oneLine: "One line",
  text: "Text",
  passwordPinOrCombination: "Password, PIN or combination",
  digits: "Digits",
  choiceFromAList: "Choice from a list",
  date: "Date",
  month: "Month",
  emailAddress: "Email address",
  telephoneNumber: "Telephone number",
  codesToTickOffOneByOne: "Codes to tick off one by one",
  signInPage: "Sign-in page",
  userNameForSigningIn: "User name for signing in",
  passwordForSigningIn: "Password for signing in",
  oneTimeCode: "One-time code",
  changeTheKind: (name: string) => `Change the kind ${name}`,
  createAKind: "Create a kind",
  save: "Save",
  createKind: "Create kind",
  name: "Name",
  theNameOfOneSuchAsFilm: "The name of one, such as “Film projector”.",
  oldAfter: "Old after so many months",
  oldAfterHint: "Upkeep then says that its secrets are to be changed. Leave empty for never.",
  listedUnder: "Listed under",
  fields: "Fields",
  addAField: "Add a field",
  thisField: "this field",
  newField: "New field",
  type: "Type",
  seenFrom: "Seen from",
  use: "Use",
  reveal: "Reveal",
  revealHidden: "Reveal, hidden",
  choices: "Choices",
  onePerLine: "One per line.",
  hint: "Hint",
  shownBelowTheFieldWhileSomeone: "Shown below the field while someone fills it in.",
  checkedAs: "Checked as",
  nothing: "nothing",
  cardNumber: "card number",
  iban: "IBAN",
  required: "Required",
  useAsTheEntrysTitle: "Use as the entry’s title",
  moveUp: (called: string) => `Move ${called} up`,
  up: "Up",
  moveDown: (called: string) => `Move ${called} down`,
  down: "Down",
  remove: (called: string) => `Remove ${called}`,
  remove2: "Remove",
  entriesOfThisKind: (count: number) =>
    `${counted(count, "entry")} ${agree(count, "is", "are")} of this kind. A field you remove stays in them, with its value.`,
};

export const kinds = {
  aKindIsAListOfFields: "A kind is a list of fields that each of its entries has.",
  kindsAreBuiltIn: (filterCount: number, ownCount: ReactNode) => (
    <>
      {filterCount} kinds are built in; {ownCount}.
    </>
  ),
  ownKinds: "Own kinds",
  createAKind: "Create a kind",
  aFilmProjectorALoanAgreementA:
    "A film projector, a loan agreement, a costume on hire: anything your office has many of can be a kind, with the fields it needs.",
  noKindsYetAskAnAdministratorTo: "No kinds yet. Ask an administrator to create one.",
  noLongerOffered: "no longer offered",
  change: (name: string) => `Change ${name}`,
  change2: "Change",
  pictureOf: (name: string) => `Picture of ${name}`,
  picture: "Picture",
  offerAgain: "Offer again",
  deleteWord: (name: string) => `Delete ${name}`,
  deleteWord2: "Delete",
  yourOwn: (count: number) => `${count} ${agree(count, "is", "are")} your own`,
  entries: (count: number) => counted(count, "entry"),
};
