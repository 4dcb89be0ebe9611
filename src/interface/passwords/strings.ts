/** Every sentence and label of this area, in one place to be read. */
export const makePassword = {
  aWebsite: "A website",
  signsOfEverySortNobodyTypes: "signs of every sort; nobody types it",
  toTypeByHand: "To type by hand",
  wordsEasyToReadOutAnd: "words, easy to read out and remember",
  toTypeByHandShort: "To type by hand, short",
  smallLettersAndDigitsWithout: "small letters and digits without look-alikes; no Shift",
  aKeypad: "A keypad",
  digits: "digits",
  thePassword: "The password",
  bitsOneOf2ToThe: (floor: number) => `${floor} bits: one of 2 to the power of ${floor} that were equally likely.`,
  copiedTheClipboardIsClearedIn: " Copied. The clipboard is cleared in 30 seconds.",
  takeIt: "Take it",
  copy: "Copy",
  another: "Another",
  whatItIsFor: "What it is for",
  words: "Words",
  betweenThem: "Between them",
  aSpace: "a space",
  eachBeginsWithACapital: "Each begins with a capital",
  aDigitBehindOneOfThem: "A digit behind one of them",
  characters: "Characters",
  digits2: "Digits",
  smallLetters: "Small letters",
  capitals: "Capitals",
  signs: "Signs",
  none: "none",
  perhaps: "perhaps",
  atLeast: (least: number) => `at least ${least}`,
  noLookAlikes: "No look-alikes",
  suchAsOAnd0I: "such as O and 0, I and l",
  noThreeAlikeInARow: "No three alike in a row",
  theSitesOwnRules: "The site’s own rules",
  asItsPageGivesThem: "as its page gives them (passwordrules): minlength: 12; required: lower, upper; allowed: [-.]",
  fromTo: (from: number, to: number) => `From ${from} to ${to}.`,
};

export const passwordInput = {
  guessedInBySomebodyWhoHas: (word: string, time: string) =>
    `${word}: guessed in ${time} by somebody who has stolen the site’s list, if the site keeps it well`,
  makeOne: "Make one",
  hide: "Hide",
  show: "Show",
  makeThe: (toLowerCase: string, slice: string) => `Make the ${toLowerCase}${slice}`,
};

export const passwordsWorker = {
  nothingCouldBeMadeSo: "Nothing could be made so.",
};
