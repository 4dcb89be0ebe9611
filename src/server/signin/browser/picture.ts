/** A picture of a page for a test's report: what was typed is blanked, and a page that shows the password gets none. */
import type { Page } from "playwright-core";
import { carriesSecret, type SecretTraces } from "../../../core/signin/carries";

const MOST_BYTES = 600_000;

/** Empties what hides what is typed, and gives back all that is written on the page. Runs within the page. */
const BLANK = `(() => {
  const texts = [document.title];
  const walk = (root) => {
    for (const e of root.querySelectorAll("*")) {
      if (e.shadowRoot) walk(e.shadowRoot);
      if (e.localName !== "input" && e.localName !== "textarea") continue;
      const masked = getComputedStyle(e).webkitTextSecurity;
      if (e.type === "password" || (masked && masked !== "none")) e.value = "";
      else texts.push(e.value || "");
    }
    texts.push(root === document ? document.body?.innerText || "" : root.textContent || "");
  };
  walk(document);
  return texts.map((text) => String(text).slice(0, 200000));
})()`;

/** @returns JPEG of what a visitor would see without scrolling; null where it cannot be shown to anybody */
export async function pictureOf(page: Page, traces: SecretTraces): Promise<Uint8Array | null> {
  for (const frame of page.frames()) {
    const texts = (await frame.evaluate(BLANK)) as string[];
    const words = texts.flatMap((text) => [text, ...text.split(/\s+/)]);
    if (carriesSecret(words, traces)) return null;
  }
  const picture = await page.screenshot({
    type: "jpeg",
    quality: 60,
    animations: "disabled",
    caret: "hide",
    timeout: 5_000,
  });
  return picture.length > MOST_BYTES ? null : picture;
}
