/** Every sentence and label of this area, in one place to be read. */

import { counted } from "../../core/counted";

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

export const mailedReports = {
  chooseFirst: "First choose what the report is about.",
  noMail: "Email is not set up.",
  tooMany: (most: number) => `You get ${most} reports by email. Stop one of them first.`,
  subject: (title: string) => `Report: ${title}`,
  says: (title: string, about: string, count: number, more: boolean, before: number | null) => {
    const lines = `${more ? "more than " : ""}${counted(count, "line")}`;
    const than =
      before === null || before === count
        ? ""
        : `, ${counted(Math.abs(count - before), "line")} ${count > before ? "more" : "fewer"} than last time`;
    return `${title}${about === "" ? "" : ` ${about}:`} ${lines}${than}.`;
  },
  open: "Open the report",
  howToStop: "You asked for this email. Stop it on the page of the report.",
  noLonger: (title: string) =>
    `You no longer have the access that the report “${title}” needs, so it is not emailed to you any more.`,
};
