/** Every sentence of mails about notices, in one place to be read. */
import { counted } from "../../core/counted";

export const noticeMail = {
  severalNotices: (count: number, organisation: string) => `${counted(count, "notice")} from Galtry, ${organisation}`,
  andEarlierOnes: (count: number) => `And ${counted(count, "earlier notice")}.`,
  openGaltry: "Open Galtry",
  alwaysSent: "Notices about your own sign-in are always sent.",
  chooseInYourAccount: "You choose in your account which notices come by email.",
};

export const testMail = {
  noMailIsSetUp: "This Galtry sends no email: the person who runs it sets that up.",
  subject: (organisation: string) => `Galtry at ${organisation} can send email`,
  hello: (name: string) => `Hello ${name},`,
  itWorks: "This is the test you asked for. Email from Galtry arrives.",
  openGaltry: "Open Galtry",
};
