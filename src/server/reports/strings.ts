/** Every sentence and label of this area, in one place to be read. */

export const reports = {
  notFound: "This person is not in Galtry.",
  anEntry: "An entry",
  vault: "vault",
  guest: "guest",
  galtry: "Galtry",
  someoneOutside: "Someone outside",
  noAccessNow: "no access now",
  stillWorks: "still works",
  changed: "changed",
  standings: { leaver: "has left", suspended: "suspended" },
};
