/** Every sentence and label of this area, in one place to be read. */

import { agree, counted, listOf } from "../../core/counted";

export const weekly = {
  /** Kept and read later: it names no day. */
  thisWeek: (names: string[], of: number, later: number, more: boolean) => {
    const wait = `${more ? "more than " : ""}${counted(later, of > 0 ? "other finding" : "finding")} can wait`;
    if (of === 0) return `Upkeep: nothing is urgent, ${wait}.`;
    const all = of > names.length ? [...names, counted(of - names.length, "other")] : names;
    return `Upkeep: ${listOf(all)} ${agree(of, "needs", "need")} an answer now${later > 0 ? `; ${wait}` : ""}.`;
  },
};

export const leakedAddresses = {
  yours: (mail: string) =>
    `Your address ${mail} is in a list of leaked accounts. Change your password at sites where you sign in with it, and wherever else you use that password.`,
  anothers: (name: string, mail: string) =>
    `The address of ${name}, ${mail}, is in a list of leaked accounts. They have been told.`,
};

export const house = {
  onlyAdministrators: "Only administrators see what needs attention of the house.",
};

export const puttingOff = {
  thisFindingIsOver: "One of these findings is over already. Reload the page.",
  theDateIsInThePast: "The date is in the past. Choose a later one.",
  atMostAYear: "A finding can be put off for at most a year.",
  giveAReason: "Enter a reason. The other stewards see it.",
};
