/** A mail to oneself, to see that mail goes out. */
import { eq } from "drizzle-orm";
import { command, none } from "../command";
import { persons } from "../database/schema";
import { loadHome } from "../organisation";
import { requireAdministrator } from "../people/administrators";
import { attemptKey, countAttempt, requireFewAttempts } from "../people/attempts";
import { Refused } from "../refused";
import { letterOf } from "./letter";
import { queueMail } from "./queue";
import { testMail as t } from "./strings";

const MOST_TESTS = 5;
const HOUR = 3_600_000;

export const sendTestMail = command({
  name: "mail.sendTestMail",
  input: none,
  by: ["person"],
  allow: ({ role, app }) => {
    requireAdministrator({ role });
    if (!app.configuration.mail) throw new Refused("conflict", t.noMailIsSetUp);
  },
  run: async ({ tx, me, at, app }) => {
    const key = attemptKey(app.keys, "test mail", me.id);
    await requireFewAttempts(tx, key, MOST_TESTS, at);
    await countAttempt(tx, key, at);
    const [person] = await tx.select({ mail: persons.mail }).from(persons).where(eq(persons.id, me.id));
    const home = await loadHome(tx);
    const to = person?.mail ?? "";
    await queueMail(
      tx,
      app.keys,
      {
        to,
        subject: t.subject(home.name),
        body: letterOf({
          organisation: home.name,
          paragraphs: [t.hello(me.name), t.itWorks],
          act: { word: t.openGaltry, address: app.configuration.publicUrl.href },
          after: [],
        }),
        ...{ until: at + HOUR, makerId: me.id, nodeId: null },
      },
      at,
    );
    return { to, personId: me.id };
  },
  journal: () => ({}),
  says: () => "sent a test email to themselves",
  tell: ({ result }) => [`person:${result.personId}`],
});
