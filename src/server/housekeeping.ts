/** Small regular work: sign-ins whose process is gone, and failures counted by the minute. */
import { hostname } from "node:os";
import { setTimeout as sleep } from "node:timers/promises";
import { and, inArray, isNotNull, isNull, lt, max } from "drizzle-orm";
import { z } from "zod";
import { counted } from "../core/counted";
import { tellOfExpiry } from "./access/expiry";
import { sweepHandovers } from "./access/handover/handover";
import { remindOfRequests } from "./access/requests/requests";
import { continueRounds } from "./access/rounds/rounds";
import { command } from "./command";
import {
  failedSignIns,
  importRows,
  imports,
  importUpdates,
  outbox,
  persons,
  runItems,
  signIns,
} from "./database/schema";
import { type Galtry, upToDate } from "./galtry";
import { Checkpoints } from "./journal/checkpoints";
import { keepForwarding } from "./journal/forwarding";
import { failed, goesOn, log } from "./log";
import { keepSending } from "./mail/post";
import { followChangeLists } from "./people/changeLists";
import { leaveDue } from "./people/persons";
import { tellOfCertificates } from "./provider/providers";
import { ReadingThread } from "./reading/readingThread";
import { ReportMails } from "./reports/mailed";
import { sweepBrowsers, whyNotStarting } from "./signin/browser/chromium";
import { browserProgram } from "./signin/browser/program";
import { NightTests } from "./signin/nightTests";
import { PageReader } from "./signin/pageReader";
import { RegularChanges } from "./signin/regularChanges";
import { keepRunning } from "./signin/running";
import { closeBrokenOff } from "./signin/sealed";
import { SigningOut } from "./signin/signingOut";
import { keepChecking } from "./upkeep/checking";
import { rateSome } from "./upkeep/conditions";
import { keepLookingUp } from "./upkeep/leaks";
import { Rater } from "./upkeep/rater";
import { sweepOld } from "./upkeep/sweeping";
import { Weekly } from "./upkeep/weekly";
import { sweepAttachments } from "./vaults/attachments";
import { emptyBins } from "./vaults/bin";
import { Composer } from "./vaults/composer";
import { sweepImports } from "./vaults/importing";
import { PictureDrawer } from "./vaults/pictureDrawer";
import { Rotating } from "./vaults/rotation";
import { sweepExports } from "./vaults/takingOut";

const EVERY_MS = 5_000;

/** One line a person and minute, once the minute is over. */
export const journalFailures = command({
  name: "people.journalFailures",
  input: z.strictObject({}),
  by: ["server"],
  allow: () => undefined,
  run: async ({ tx, at }) => {
    const rows = await tx
      .delete(failedSignIns)
      .where(lt(failedSignIns.minute, Math.floor(at / 60_000)))
      .returning();
    const names =
      rows.length === 0
        ? []
        : await tx
            .select({ id: persons.id, name: persons.name })
            .from(persons)
            .where(
              inArray(
                persons.id,
                rows.map((row) => row.personId),
              ),
            );
    return rows.map((row) => ({ ...row, name: names.find((one) => one.id === row.personId)?.name ?? "" }));
  },
  journal: ({ result }) =>
    result.map((row) => ({
      subject: row.personId,
      person: row.personId,
      details: { count: row.count, minute: row.minute * 60_000 },
      names: { [row.personId]: row.name },
    })),
  says: ({ details }) => `${counted(Number(details.count), "failed sign-in")} with their email address`,
  tell: () => [],
});

/** Sign-ins of processes on this machine that are no more: closed as broken off. */
export async function closeDeadSignIns(app: Galtry): Promise<void> {
  const open = await app.db
    .selectDistinct({ process: signIns.process })
    .from(signIns)
    .where(and(isNull(signIns.endedAt)));
  const inRuns = await app.db
    .selectDistinct({ process: runItems.process })
    .from(runItems)
    .where(and(isNull(runItems.endedAt), isNotNull(runItems.begunAt)));
  const processes = [...open, ...inRuns].flatMap(({ process }) => (process === null ? [] : [{ process }]));
  await closeBrokenOff.execute(app, { deadProcesses: [...new Set(deadAmong(app, processes))] }, { kind: "server" });
}

/** What was being brought in and will not be: swept away piece by piece, so that nobody waits for it. */
export async function sweepDeadImports(app: Galtry): Promise<void> {
  const open = await app.db
    .selectDistinct({ process: imports.process })
    .from(imports)
    .where(and(isNull(imports.publishedAt), isNull(imports.cancelledAt)));
  const [left] = await app.db
    .select({ importId: importRows.importId })
    .from(importRows)
    .where(
      inArray(
        importRows.importId,
        app.db.select({ id: imports.id }).from(imports).where(isNotNull(imports.cancelledAt)),
      ),
    )
    .limit(1);
  const [waiting] = await app.db
    .select({ importId: importUpdates.importId })
    .from(importUpdates)
    .where(
      inArray(
        importUpdates.importId,
        app.db.select({ id: imports.id }).from(imports).where(isNotNull(imports.cancelledAt)),
      ),
    )
    .limit(1);
  if (open.length === 0 && !left && !waiting) return;
  const deadProcesses = deadAmong(app, open);
  while (await sweepImports.execute(app, { deadProcesses }, { kind: "server" }));
}

const deadAmong = (app: Galtry, open: { process: string }[]): string[] =>
  open.map((row) => row.process).filter((name) => name !== app.process && isDead(name));

function isDead(name: string): boolean {
  const at = name.lastIndexOf(":");
  if (name.slice(0, at) !== hostname()) return false;
  try {
    process.kill(Number(name.slice(at + 1)), 0);
    return false;
  } catch (error) {
    return (error as NodeJS.ErrnoException).code === "ESRCH";
  }
}

const RATING_EVERY_MS = 2_000;
/** So long after the last page or act people are taken to be at work. */
const WORKING_MS = 2_000;

/** Rates what was written, as long as this process lives. */
async function keepRating(app: Galtry): Promise<void> {
  let rater: Rater | null = null;
  let looked = -1;
  const rest = () => {
    void rater?.close();
    rater = null;
  };
  const rate = (value: string, hints: string[]) => {
    rater ??= new Rater();
    return rater.rate(value, hints);
  };
  for (;;) {
    const began = performance.now();
    // Nothing is looked for while nothing has happened.
    const [last] = await app.db
      .select({ seq: max(outbox.seq) })
      .from(outbox)
      .catch(() => [{ seq: looked }]);
    if ((last?.seq ?? 0) === looked) {
      await sleep(RATING_EVERY_MS, undefined, { ref: false });
      continue;
    }
    const more = await rateSome(app, { rate }).catch((error) => {
      failed("upkeep.rate", error);
      rest();
      return false;
    });
    if (!more) {
      looked = last?.seq ?? 0;
      // Its word lists take more memory than all the rest of it.
      rest();
    }
    // Half the time at most while nobody asks for anything, and little of it while people work.
    const share = Date.now() - (app.askedAt ?? 0) < WORKING_MS ? 8 : 1;
    await sleep(more ? share * (performance.now() - began) : RATING_EVERY_MS, undefined, { ref: false });
  }
}

const EXPIRY_EVERY_MS = 60_000;

/** What is done each minute, by the server. */
const EACH_MINUTE = [
  leaveDue,
  followChangeLists,
  tellOfExpiry,
  continueRounds,
  sweepHandovers,
  remindOfRequests,
  tellOfCertificates,
  emptyBins,
  sweepExports,
  sweepAttachments,
  sweepOld,
] as const;

export function startHousekeeping(app: Galtry): void {
  let expiryAt = 0;
  const signingOut = new SigningOut(app);
  const rotating = new Rotating(app);
  const nightTests = new NightTests(app);
  const regularChanges = new RegularChanges(app);
  const weekly = new Weekly(app);
  const reportMails = new ReportMails(app);
  const checkpoints = new Checkpoints(app);
  app.composer = new Composer();
  app.reading = new ReadingThread(app);
  app.pages = new PageReader();
  app.pictures = new PictureDrawer();
  const { signInBrowser } = app.configuration;
  if (signInBrowser) {
    sweepBrowsers();
    app.signInBrowser = browserProgram(signInBrowser.path, signInBrowser.user);
    void whyNotStarting(app.signInBrowser).then((why) => {
      if (why !== null) log.error({ act: "signIn.startBrowser", why }, "the browser for sealed sign-in does not start");
    });
  }
  void app.pages.warm().catch(goesOn("signIn.readPages"));
  void keepRating(app);
  void keepChecking(app);
  void keepLookingUp(app);
  void keepSending(app);
  void keepForwarding(app);
  void keepRunning(app);
  const work = async () => {
    await upToDate(app);
    if (Date.now() >= expiryAt) {
      expiryAt = Date.now() + EXPIRY_EVERY_MS;
      for (const work of EACH_MINUTE) void work.execute(app, {}, SERVER).catch(goesOn(work.name));
    }
    void signingOut.look().catch(goesOn("signIn.signOutEnded"));
    void rotating.look().catch(goesOn("vaults.rotate"));
    void weekly.look().catch(goesOn("upkeep.tellOfWeek"));
    void reportMails.look().catch(goesOn("reports.mail"));
    void checkpoints.look().catch(goesOn("journal.makeCheckpoint"));
    void nightTests.look().catch(goesOn("signIn.testAtNight"));
    void regularChanges.look().catch(goesOn("signIn.changeRegularly"));
    void closeDeadSignIns(app).catch(goesOn("signIn.closeDead"));
    void sweepDeadImports(app).catch(goesOn("vaults.sweepImports"));
    void journalFailures.execute(app, {}, SERVER).catch(goesOn(journalFailures.name));
  };
  const timer = setInterval(() => void work().catch(goesOn("housekeeping")), EVERY_MS);
  timer.unref();
}

const SERVER = { kind: "server" } as const;
