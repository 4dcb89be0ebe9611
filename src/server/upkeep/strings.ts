/** Every sentence and label of this area, in one place to be read. */

export const puttingOff = {
  thisFindingIsOver: "One of these findings is over already. Reload the page.",
  theDateIsInThePast: "The date is in the past. Choose a later one.",
  atMostAYear: "A finding can be put off for at most a year.",
  giveAReason: "Enter a reason. The other stewards see it.",
};
