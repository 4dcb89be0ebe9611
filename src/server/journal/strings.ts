/** Every sentence and label of this area, in one place to be read. */

export const checkpoints = {
  aLineIsMissing: "A line of the Journal is missing. Check the Journal to see which.",
  notYet: "Galtry is still working through the Journal for its first checkpoint. Try again in a few minutes.",
  itDiffers:
    "The Journal is no longer what the newest checkpoint says it was, so Galtry does not sign it. Check the Journal to see from which line on.",
  thereIsNone: "There is no checkpoint yet.",
  thereIsNoSuchLine: "The Journal has no line with this number.",
  subject: (organisation: string) => `Checkpoint of the Journal of ${organisation}`,
  keepThis: (lines: string, moment: string) =>
    `The Journal had ${lines} on ${moment}. Keep this email where nobody who runs Galtry can change it.`,
  whatFor:
    "To check later that nothing before it was changed: in Galtry, open the Journal, choose Check, and paste this whole email.",
};

/** Why what was pasted is no checkpoint of this Journal. */
export const CHECKPOINT_FAULTS = {
  form: "This is no checkpoint. Paste all of it, from the address at the top to the line with the signature.",
  origin: "This is the checkpoint of another Journal: its address is not that of this Galtry.",
  key: "This checkpoint was not signed by this Galtry.",
  signature: "This checkpoint was changed after it was signed.",
};
