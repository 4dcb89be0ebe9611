/**
 * Firefox with the real Lanyard, in a fresh profile. It is driven over Marionette, the protocol that Firefox brings for
 * automation: each message is its length, a colon, and JSON. WebDriver BiDi cannot yet look into an extension's own pages.
 */
import { type ChildProcess, spawn, spawnSync } from "node:child_process";
import { existsSync, mkdirSync, mkdtempSync, readFileSync, rmSync, writeFileSync } from "node:fs";
import { connect, type Socket } from "node:net";
import { tmpdir } from "node:os";
import path from "node:path";

export const FIREFOX = process.env.FIREFOX_PATH ?? "/usr/bin/firefox-esr";
const LANYARD = path.resolve("dist/lanyard-firefox");
/** Firefox gives each profile an address of its own for an extension; here it is told which. */
const PLACE = "5f0f3a52-7f0c-4a53-9a55-0f6a3a1f2c11";

/** Whether it is there, and new enough for Lanyard: its manifest says which version that is. */
export function firefoxIsThere(): boolean {
  if (!existsSync(FIREFOX)) return false;
  const said = spawnSync(FIREFOX, ["--version"], { encoding: "utf8" }).stdout;
  const version = Number(/Firefox (\d+)/.exec(said)?.[1] ?? 0);
  return version >= Number.parseInt(gecko().strict_min_version, 10);
}

const gecko = (): { id: string; strict_min_version: string } =>
  JSON.parse(readFileSync("lanyard/firefox.json", "utf8")).browser_specific_settings.gecko;

const pause = (ms: number) => new Promise((resolve) => setTimeout(resolve, ms));

/** Marionette itself: one command after the other. */
class Marionette {
  #rest = Buffer.alloc(0);
  #last = 0;
  readonly #waiting = new Map<number, { done: (value: unknown) => void; failed: (error: Error) => void }>();

  private constructor(private readonly socket: Socket) {
    socket.on("data", (bytes) => this.#read(bytes));
    socket.on("close", () => {
      for (const one of this.#waiting.values()) one.failed(new Error("Firefox has ended."));
    });
  }

  static async at(port: number): Promise<Marionette> {
    for (let tries = 0; ; tries++)
      try {
        const socket = await new Promise<Socket>((done, failed) => {
          const one = connect(port, "127.0.0.1", () => done(one));
          one.once("error", failed);
        });
        return new Marionette(socket);
      } catch (error) {
        if (tries > 300) throw error;
        await pause(100);
      }
  }

  #read(bytes: Buffer): void {
    this.#rest = Buffer.concat([this.#rest, bytes]);
    for (;;) {
      const colon = this.#rest.indexOf(":");
      const length = Number(this.#rest.subarray(0, Math.max(colon, 0)).toString());
      if (colon < 1 || this.#rest.length < colon + 1 + length) return;
      const message = JSON.parse(this.#rest.subarray(colon + 1, colon + 1 + length).toString());
      this.#rest = this.#rest.subarray(colon + 1 + length);
      // The first message says which protocol it is, and is no answer.
      if (!Array.isArray(message)) continue;
      const [, id, error, result] = message as [number, number, { error: string; message: string } | null, unknown];
      const one = this.#waiting.get(id);
      this.#waiting.delete(id);
      if (error) one?.failed(new Error(`${error.error}: ${error.message}`));
      else one?.done(result);
    }
  }

  send<R = { value: unknown }>(command: string, parameters: object = {}): Promise<R> {
    const id = ++this.#last;
    const text = JSON.stringify([0, id, command, parameters]);
    this.socket.write(`${Buffer.byteLength(text)}:${text}`);
    return new Promise<R>((done, failed) => this.#waiting.set(id, { done: done as (value: unknown) => void, failed }));
  }

  end(): void {
    this.socket.destroy();
  }
}

const ELEMENT = "element-6066-11e4-a52e-4f735466cecf";

export class Firefox {
  private constructor(
    private readonly process: ChildProcess,
    private readonly profile: string,
    private readonly marionette: Marionette,
  ) {}

  /** @param managed what the organisation has set for Lanyard in this browser */
  static async open(managed: Record<string, unknown> = {}): Promise<Firefox> {
    const { id } = gecko();
    const profile = mkdtempSync(path.join(tmpdir(), "galtry-firefox-"));
    const settings = {
      "marionette.port": 0,
      "extensions.webextensions.uuids": JSON.stringify({ [id]: PLACE }),
      "intl.accept_languages": "en-GB",
      // Nothing is asked of anybody outside.
      "network.captive-portal-service.enabled": false,
      "network.connectivity-service.enabled": false,
      "app.update.enabled": false,
      "browser.shell.checkDefaultBrowser": false,
      "datareporting.policy.dataSubmissionEnabled": false,
      "services.settings.server": "http://127.0.0.1:9",
    };
    const lines = Object.entries(settings).map(
      ([name, value]) => `user_pref(${JSON.stringify(name)}, ${JSON.stringify(value)});`,
    );
    writeFileSync(path.join(profile, "user.js"), lines.join("\n"));
    // Firefox looks for what is set for an extension below its user's home, too, which here is the profile.
    const settingsOf = path.join(profile, ".mozilla/managed-storage");
    mkdirSync(settingsOf, { recursive: true });
    const manifest = { name: id, description: "Set by the organisation", type: "storage", data: managed };
    writeFileSync(path.join(settingsOf, `${id}.json`), JSON.stringify(manifest));
    const child = spawn(
      FIREFOX,
      // Pages of an extension are opened for a test only where this is said.
      ["--headless", "--no-remote", "--marionette", "--remote-allow-system-access", "--profile", profile],
      {
        stdio: "ignore",
        env: { ...process.env, HOME: profile, MOZ_HEADLESS_WIDTH: "1280", MOZ_HEADLESS_HEIGHT: "800" },
      },
    );
    try {
      const firefox = new Firefox(child, profile, await Marionette.at(await portOf(profile)));
      await firefox.marionette.send("WebDriver:NewSession", { acceptInsecureCerts: true });
      await firefox.marionette.send("Addon:Install", { path: LANYARD, temporary: true });
      return firefox;
    } catch (error) {
      child.kill("SIGKILL");
      throw error;
    }
  }

  async goto(url: string): Promise<void> {
    await this.marionette.send("WebDriver:Navigate", { url });
  }

  async url(): Promise<string> {
    return (await this.marionette.send<{ value: string }>("WebDriver:GetCurrentURL")).value;
  }

  /** Opens an address in a tab of its own, which is in front from then on. @returns its handle */
  async newTab(url: string): Promise<string> {
    const { handle } = await this.marionette.send<{ handle: string }>("WebDriver:NewWindow", { type: "tab" });
    await this.inTab(handle);
    await this.goto(url);
    return handle;
  }

  /** @param inFront false speaks to a tab that stays behind the one in front */
  async inTab(handle: string, inFront = true): Promise<void> {
    await this.marionette.send("WebDriver:SwitchToWindow", { handle, focus: inFront });
  }

  /** Lets another tab come, and goes there. @param how whatever opens it */
  async opened(how: () => Promise<unknown>): Promise<string> {
    const before = new Set(await this.tabs());
    await how();
    for (let tries = 0; tries < 150; tries++) {
      const fresh = (await this.tabs()).find((one) => !before.has(one));
      if (fresh) {
        await this.inTab(fresh);
        return fresh;
      }
      await pause(100);
    }
    throw new Error(`No tab has opened. ${await this.url()}: ${(await this.text()).slice(0, 600)}`);
  }

  tab = async (): Promise<string> => (await this.marionette.send<{ value: string }>("WebDriver:GetWindowHandle")).value;
  tabs = (): Promise<string[]> => this.marionette.send<string[]>("WebDriver:GetWindowHandles");

  async closeTab(): Promise<void> {
    const [first] = await this.marionette.send<string[]>("WebDriver:CloseWindow");
    if (first) await this.inTab(first);
  }

  /** Lanyard's window, as a tab, for the page of another tab or for none. */
  openWindow = (): Promise<string> => this.newTab(`moz-extension://${PLACE}/popup.html`);

  /** What a person reads; nothing while a page is on its way. */
  text = async (): Promise<string> => ((await this.run("return document.body?.innerText")) as string | null) ?? "";

  /** @param asSystem sees closed shadow trees, and what an extension's script sees */
  async run(script: string, args: unknown[] = [], asSystem = false): Promise<unknown> {
    const sandbox = asSystem ? { sandbox: "system" } : {};
    return (
      await this.marionette.send("WebDriver:ExecuteAsyncScript", {
        script: `const done = arguments[arguments.length - 1]; (async function () { ${script} }).apply(null, arguments).then(done, (e) => done("Error: " + e));`,
        args,
        ...sandbox,
      })
    ).value;
  }

  /** Until the page says it, at most ten seconds. */
  async waitForText(text: string | RegExp): Promise<void> {
    const found = () =>
      this.text().then(
        (all) => (typeof text === "string" ? all.includes(text) : text.test(all)),
        () => false,
      );
    for (let tries = 0; tries < 100; tries++) {
      if (await found()) return;
      await pause(100);
    }
    throw new Error(`${text} is not on ${await this.url()}:\n${(await this.text()).slice(0, 600)}`);
  }

  /** Galtry's page hears presses only from then on. */
  async takenOver(): Promise<void> {
    for (let tries = 0; tries < 100; tries++) {
      if (await this.run("return document.documentElement.hasAttribute('data-taken-over')")) return;
      await pause(100);
    }
    throw new Error(`${await this.url()} has not been taken over.`);
  }

  async press(name: string): Promise<void> {
    const id = await this.#find(
      `//*[self::button or self::a or @role='button' or @role='option'][normalize-space(.)=${quoted(name)} or @aria-label=${quoted(name)}]`,
    );
    await this.marionette.send("WebDriver:ElementClick", { id });
  }

  async fill(css: string, text: string): Promise<void> {
    const id = await this.#find(css, "css selector");
    await this.marionette.send("WebDriver:ElementClear", { id }).catch(() => undefined);
    await this.marionette.send("WebDriver:ElementSendKeys", { id, text });
  }

  async #find(value: string, using = "xpath"): Promise<string> {
    for (let tries = 0; ; tries++)
      try {
        const { value: found } = await this.marionette.send<{ value: Record<string, string> }>(
          "WebDriver:FindElement",
          {
            ...{ using, value },
          },
        );
        return found[ELEMENT]!;
      } catch (error) {
        if (tries > 100)
          throw new Error(`${value} is not on ${await this.url()}: ${(await this.text()).slice(0, 600)}`, {
            cause: error,
          });
        await pause(100);
      }
  }

  /** What hangs over the page, as a person reads it. */
  tagText = (): Promise<string> =>
    this.run(
      "return [...document.querySelectorAll('lanyard-tag')].map((one) => one.openOrClosedShadowRoot.querySelector('.tag').innerText).join('\\n')",
      [],
      true,
    ) as Promise<string>;

  async waitForTag(text: string): Promise<void> {
    for (let tries = 0; tries < 150; tries++) {
      if ((await this.tagText().catch(() => "")).includes(text)) return;
      await pause(100);
    }
    throw new Error(`No tag says “${text}”; there is: ${await this.tagText()}`);
  }

  /** A real press of the mouse on a tag's button. */
  async pressInTag(button: string): Promise<void> {
    const place = (await this.run(
      `for (const host of document.querySelectorAll('lanyard-tag'))
        for (const one of host.openOrClosedShadowRoot.querySelectorAll('button'))
          if (one.textContent.includes(arguments[0])) {
            const { x, y, width, height } = one.getBoundingClientRect();
            return { x: Math.round(x + width / 2), y: Math.round(y + height / 2) };
          }`,
      [button],
      true,
    )) as { x: number; y: number } | null;
    if (!place) throw new Error(`No tag has a button ${button}.`);
    const move = { type: "pointerMove", duration: 0, origin: "viewport", ...place };
    const actions = [move, { type: "pointerDown", button: 0 }, { type: "pointerUp", button: 0 }];
    await this.marionette.send("WebDriver:PerformActions", {
      actions: [{ type: "pointer", id: "mouse", parameters: { pointerType: "mouse" }, actions }],
    });
  }

  async picture(file: string): Promise<void> {
    const { value } = await this.marionette.send<{ value: string }>("WebDriver:TakeScreenshot", { full: false });
    writeFileSync(file, Buffer.from(value, "base64"));
  }

  async close(): Promise<void> {
    const ended = new Promise((done) => this.process.once("exit", done));
    await this.marionette.send("Marionette:Quit", { flags: ["eForceQuit"] }).catch(() => undefined);
    await Promise.race([ended, pause(5_000)]);
    this.process.kill("SIGKILL");
    this.marionette.end();
    rmSync(this.profile, { recursive: true, force: true });
  }
}

/** As an XPath string: those have no escapes. */
const quoted = (text: string): string => (text.includes("'") ? `"${text}"` : `'${text}'`);

/** Firefox chooses a free port and writes it into its profile. */
async function portOf(profile: string): Promise<number> {
  const file = path.join(profile, "MarionetteActivePort");
  for (let tries = 0; tries < 300; tries++) {
    if (existsSync(file)) return Number(readFileSync(file, "utf8"));
    await pause(100);
  }
  throw new Error("Firefox has not started.");
}
