/** Every sentence and label of this area, in one place to be read. */
import { counted } from "../../core/counted";

export const makePassword = {
  aWebsite: "A website",
  allCharactersNobodyTypesIt: "All characters; nobody types it.",
  toTypeByHand: "To type by hand",
  wordsEasyToReadOutAndRemember: "Words, easy to read out and remember.",
  toTypeByHandShort: "To type by hand, short",
  lowerCaseLettersAndDigits: "Lower-case letters and digits without look-alikes; no Shift.",
  aKeypad: "A keypad",
  digits: "Digits.",
  thePassword: "The password",
  bitsOneOf2ToThePower: (floor: number) => `${floor} bits: one of 2 to the power of ${floor} equally likely passwords.`,
  copiedTheClipboardIsClearedIn: " Copied. The clipboard is cleared in 30 seconds.",
  useThisPassword: "Use this password",
  copy: "Copy",
  tryAnother: "Try another",
  purpose: "Purpose",
  words: "Words",
  betweenThem: "Between them",
  aSpace: "a space",
  startEachWithACapitalLetter: "Start each with a capital letter",
  addADigitAfterOneOfThem: "Add a digit after one of them",
  characters: "Characters",
  digits2: "Digits",
  lowerCaseLetters: "Lower-case letters",
  capitalLetters: "Capital letters",
  symbols: "Symbols",
  none: "none",
  allowed: "allowed",
  atLeast: (least: number) => `at least ${least}`,
  noLookAlikes: "No look-alikes",
  suchAsOAnd0IAnd: "Such as O and 0, I and l.",
  noThreeEqualCharactersInARow: "No three equal characters in a row",
  theSitesRules: "The site’s rules",
  asItsPageGivesThem: "As its page gives them (passwordrules): minlength: 12; required: lower, upper; allowed: [-.]",
  fromTo: (from: number, to: number) => `From ${from} to ${to}.`,
};

export const passwordInput = {
  wouldTakeToGuessFromAStolen: (word: string, time: string) =>
    `${word}: would take ${time} to guess from a stolen, well-protected list`,
  createOne: "Create one",
  hide: "Hide",
  show: "Show",
  createThe: (toLowerCase: string, slice: string) => `Create the ${toLowerCase}${slice}`,
};

export const passwordsWorker = {
  noPasswordCanBeCreatedWith: "No password can be created with these settings.",
};

export const newPassword = {
  atLeast: "At least 15 characters: four or five plain words are good. Use it for nothing but Galtry.",
  more: (count: number) => `${counted(count, "more character")}: another word, perhaps.`,
  rating: "Long enough.",
  strength: (word: string, time: string) =>
    `Long enough, ${word.includes("weak") ? "but" : "and"} ${word}: it would take ${time} to guess.`,
  enterItAgain: "Enter it again",
  doNotMatch: "The passwords do not match.",
};
