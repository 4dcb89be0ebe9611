/**
 * Pictures from the demo data: one of each main view, 1280x800, into docs/screenshots, and the parts of them that Help
 * shows into public/help.
 */
import { mkdirSync } from "node:fs";
import sharp from "sharp";
import { DEMO_PASSWORD } from "../demo/organisation";
import { comeThere, setUpProvider } from "../demo/provider";
import { type Browser, connectLanyard, openBrowser, signInToGaltry } from "../e2e/browser";
import { startHouse } from "../e2e/house";
import { waitForTag } from "../e2e/tags";
import { PICTURE } from "../src/interface/help/strings";

const FOLDER = process.env.SCREENSHOTS ?? "docs/screenshots";
const HELP = process.env.HELP_PICTURES ?? "public/help";
mkdirSync(FOLDER, { recursive: true });
mkdirSync(HELP, { recursive: true });
const app = await startHouse({ GALTRY_SIGN_IN_BROWSER: process.env.CHROMIUM_PATH ?? "/usr/bin/chromium" });
const opened: Browser[] = [];

async function as(mail: string, options: { width?: number; height?: number } = {}): Promise<Browser> {
  const browser = await openBrowser({ galtry: app.url, ...options });
  opened.push(browser);
  await signInToGaltry(browser.page, app.url, `${mail}@tarrowick.example`, DEMO_PASSWORD);
  await connectLanyard(browser, app.url);
  return browser;
}

/** @param help the topics that show the upper left part of it */
async function take(
  browser: Browser,
  name: string,
  address: string | null,
  { settle = 500, help = [], top = 0 }: { settle?: number; help?: string[]; top?: number } = {},
): Promise<void> {
  if (address !== null) await browser.page.goto(address);
  await browser.page.evaluate(() => document.fonts.ready);
  await browser.page.waitForTimeout(settle);
  const png = await browser.page.screenshot({ path: `${FOLDER}/${name}.png` });
  for (const id of help)
    await sharp(png)
      .extract({ left: 0, top, ...PICTURE })
      .webp({ quality: 82 })
      .toFile(`${HELP}/${id}.webp`);
  console.log(name);
}

try {
  const entry = (host: string) => `${app.url}/entry/${app.built.entries.get(host)}`;
  const vault = (name: string) => `${app.url}/vaults/${app.built.vaults.get(name)}`;
  const site = app.standins.sites.find((one) => one.host === "pellam.localhost")!;

  const maren = await as("maren.pohl");
  await take(maren, "front-desk", app.url, { help: ["front-desk"] });
  await take(maren, "entry-at-use", entry("quillbrook.localhost"), { help: ["entry"] });
  await maren.page.goto(`${app.url}/lanyard`);
  await maren.page.waitForLoadState("networkidle");
  await sharp(await maren.page.screenshot())
    .extract({ left: 0, top: 0, ...PICTURE })
    .webp({ quality: 82 })
    .toFile(`${HELP}/connect-lanyard.webp`);

  const ines = await as("ines.okafor");
  await ines.page.goto(vault("Shop & Tickets"));
  await ines.page.getByRole("button", { name: /^Suppliers/ }).click();
  for (const name of ["Lindenfold Paper", "Peltonhay Toys"])
    await ines.page.getByRole("checkbox", { name: `Select ${name}` }).click();
  await take(ines, "vault", null, { help: ["vault"] });
  await take(ines, "entry", entry("quillbrook.localhost"));
  await ines.page.goto(`${entry("quillbrook.localhost")}/steps`);
  await ines.page.getByRole("button", { name: "Test", exact: true }).click();
  await ines.page.getByText(/It works\. Tested/).waitFor({ timeout: 60_000 });
  await take(ines, "sign-in-steps", null);
  await take(ines, "people", `${app.url}/people`, { help: ["people"] });
  await take(ines, "journal", `${app.url}/journal`, { help: ["journal"] });
  await ines.page.goto(`${app.url}/people/groups/${app.built.groups.get("Shop Team")}`);
  await ines.page.waitForLoadState("networkidle");
  await ines.page.getByRole("button", { name: "Add to group" }).click();
  await ines.page.getByRole("combobox", { name: "People" }).fill("Maren");
  await ines.page.getByRole("option", { name: /Maren Pohl/ }).click();
  await ines.page
    .getByText(/goes from Use to Reveal/)
    .first()
    .waitFor();
  await take(ines, "group", null, { help: ["group"] });
  await ines.page.goto(`${vault("Shop & Tickets")}/import`);
  await ines.page.getByLabel("File", { exact: true }).setInputFiles({
    name: "from-the-old-browser.csv",
    mimeType: "text/csv",
    buffer: Buffer.from(
      [
        "name,url,username,password,folder,customer number",
        "Nordlicht Books,https://nordlicht.example/in,orders@tarrowick.example,lantern-9041,Suppliers/Books,K-77",
        "Suedwind Paper,https://suedwind.example/login,shop@tarrowick.example,harbour-2286,Suppliers/Paper,1190",
        "Ferrybridge Vans,https://ferrybridge.example/desk,tarrowick,shuttle-7713,Transport,TMT 4",
      ].join("\n"),
    ),
  });
  await ines.page.getByText("3 rows").waitFor();
  await take(ines, "bring-in", null);
  await ines.page.goto(`${app.url}/access/${app.built.vaults.get("Shop & Tickets")}`);
  await ines.page.waitForLoadState("networkidle");
  await ines.page.getByRole("rowheader", { name: /^Suppliers/ }).click();
  await ines.page.getByRole("grid").focus();
  for (const key of ["Control+Home", ...Array(9).fill("ArrowDown"), "ArrowRight", "ArrowRight", "b"])
    await ines.page.keyboard.press(key);
  await ines.page.getByText(/lose Use on/).waitFor();
  await take(ines, "access", null, { settle: 900, help: ["access"] });
  await ines.page.getByRole("button", { name: "Discard" }).click();
  await ines.page.goto(entry("quillbrook.localhost"));
  await ines.page.getByPlaceholder("Give access to a person, a group or Everyone").fill("Silas");
  await ines.page.getByRole("option", { name: /Silas Penhale/ }).click();
  await ines.page.getByRole("region", { name: "Effects" }).getByRole("listitem").first().waitFor();
  await take(ines, "give-access", null);
  await ines.page.goto(app.standins.address("pellam.localhost", site.signInPath));
  await ines.page.getByLabel("E-mail").fill(site.account.userName);
  await ines.page.getByLabel("Password").fill(site.account.password);
  await ines.page.getByRole("button", { name: "Sign in", exact: true }).click();
  await waitForTag(ines.page, "Never on this site");
  await take(ines, "keep-a-login", null);
  const window = await ines.context.newPage();
  await window.setViewportSize({ width: 404, height: 620 });
  await ines.page.goto(app.standins.address("quillbrook.localhost", "/login"));
  await ines.page.bringToFront();
  await window.goto(`chrome-extension://${ines.lanyardId}/popup.html`);
  await ines.page.bringToFront();
  await window.waitForTimeout(1500);
  await window.screenshot({ path: `${FOLDER}/lanyard.png` });

  const wilhelmina = await as("wilhelmina.oosterhuis");
  await wilhelmina.page.goto(`${app.url}/access/${app.built.vaults.get("Press & Publishing")}/rounds`);
  await wilhelmina.page.waitForLoadState("networkidle");
  await wilhelmina.page.getByRole("list", { name: "Who has what" }).getByRole("listitem").first().focus();
  for (const key of ["c", "c", "l"]) await wilhelmina.page.keyboard.press(key);
  await take(wilhelmina, "rounds", null, { help: ["rounds"] });
  const hanna = await as("hanna.quist");
  await take(hanna, "house-rules", `${app.url}/rules`, { help: ["house-rules"] });
  const bram = await as("bram.oyelaran");
  await bram.page.goto(`${app.url}/upkeep`);
  await bram.page.getByText("In a list of leaked passwords").waitFor({ timeout: 60_000 });
  for (const name of ["Rookstead Books", "Wexcombe Stock"])
    await bram.page.getByRole("checkbox", { name: new RegExp(`^Select ${name}: Also`) }).check();
  await take(bram, "upkeep", null, { help: ["upkeep"] });
  await take(ines, "leaving", `${app.url}/people/${app.built.people.get("bram")}/leave`);
  const owner = { kind: "person" as const, personId: app.built.people.get("hanna")!, sessionId: null };
  const from = { provedAt: Date.now(), address: "127.0.0.1", browser: "Chromium on Linux" };
  const providerId = await setUpProvider(app.galtry, app.standins.provider, { ...owner, ...from }, "tm-hanna");
  await comeThere(app.galtry, providerId, "tm-yusuf");
  await take(hanna, "single-sign-on", `${app.url}/people/sign-on`, { help: ["single-sign-on"] });

  const phone = await as("maren.pohl", { width: 390, height: 800 });
  await take(phone, "front-desk-phone", app.url);
} finally {
  await Promise.all(opened.map((browser) => browser.close()));
  await app.close();
}
