/** npm run bench: each figure beside its floor, in one run. */
import { makeFixture } from "../demo/fixture";
import { inProcess } from "../demo/inProcess";
import { startHouse } from "../e2e/house";
import { benchBringIn } from "./bringIn";
import { benchBrowserSignIn } from "./browserSignIn";
import { benchCommand } from "./command";
import { benchCore } from "./core";
import { benchIdle } from "./idle";
import { benchJournal } from "./journal";
import { benchLanyardPage } from "./lanyardPage";
import { benchLarge } from "./large";
import { benchLive, benchLiveUnderSlip } from "./live";
import { overLimit } from "./measure";
import { benchPage } from "./page";
import { benchSignIn } from "./signIn";
import { benchSize } from "./size";
import { benchUpkeep } from "./upkeep";
import { benchVault } from "./vault";
import { benchWaysIn } from "./waysIn";

const only = process.argv.slice(2);
if (only.includes("size")) {
  await benchSize();
  process.exit(overLimit() > 0 ? 1 : 0);
}
if (only.includes("lanyard")) {
  await benchLanyardPage();
  process.exit(overLimit() > 0 ? 1 : 0);
}
if (only.includes("browser")) {
  await benchBrowserSignIn();
  process.exit(overLimit() > 0 ? 1 : 0);
}
if (only.includes("ways-in")) {
  await benchWaysIn();
  process.exit(overLimit() > 0 ? 1 : 0);
}
if (only.includes("upkeep")) {
  await benchUpkeep();
  process.exit(overLimit() > 0 ? 1 : 0);
}
if (only.includes("journal")) {
  await benchJournal(Number(only[1] ?? 5_000_000));
  process.exit(overLimit() > 0 ? 1 : 0);
}
if (only.includes("idle")) {
  const app = await startHouse();
  await benchIdle(app).finally(() => app.close());
  process.exit(overLimit() > 0 ? 1 : 0);
}
await benchCore();
const inside = await inProcess();
const fixture = await makeFixture(inside.galtry);
await benchSignIn(inside, fixture);
await benchCommand(inside, fixture);
await inside.close();
await benchWaysIn();
await benchBrowserSignIn();
await benchLanyardPage();
await benchUpkeep();
const app = await startHouse();
try {
  await benchLive(app);
  await benchIdle(app);
  await benchPage(app);
  await benchBringIn(app);
  await benchVault(app);
  await benchLiveUnderSlip(app);
  await benchLarge(app);
} finally {
  await app.close();
}
await benchSize();
process.exitCode = overLimit() > 0 ? 1 : 0;
