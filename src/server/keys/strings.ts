/** Every sentence and label of this area, in one place to be read. */

export const houseKeys = {
  onlyOwners: "Only owners see and rotate the keys of the house.",
  allAreBeingRotated: "These keys are being rotated already.",
};
