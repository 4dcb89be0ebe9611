/** Reaches into the closed tags that Lanyard hangs over a page: by the browser's own protocol, as no page can. */
import type { CDPSession, Page } from "playwright-core";

interface Node {
  nodeId: number;
  backendNodeId: number;
  nodeName: string;
  nodeValue?: string;
  attributes?: string[];
  children?: Node[];
  shadowRoots?: Node[];
}

async function tagNodes(cdp: CDPSession): Promise<Node[]> {
  const { root } = (await cdp.send("DOM.getDocument", { depth: -1, pierce: true })) as { root: Node };
  const found: Node[] = [];
  const walk = (node: Node, inTag: boolean) => {
    const here = inTag || node.nodeName === "LANYARD-TAG";
    if (here) found.push(node);
    for (const child of [...(node.children ?? []), ...(node.shadowRoots ?? [])]) walk(child, here);
  };
  walk(root, false);
  return found;
}

const textOf = (node: Node): string =>
  `${node.nodeName === "#text" ? (node.nodeValue ?? "") : ""}${[...(node.children ?? [])].map(textOf).join("")}`;
const attribute = (node: Node, name: string) => {
  const at = node.attributes?.indexOf(name) ?? -1;
  return at < 0 ? null : (node.attributes![at + 1] ?? null);
};

/** Everything that hangs over the page, as text; style left out. */
export async function tagText(page: Page): Promise<string> {
  const cdp = await page.context().newCDPSession(page);
  try {
    const nodes = await tagNodes(cdp);
    return nodes
      .filter((node) => node.nodeName === "DIV" && attribute(node, "class")?.startsWith("tag"))
      .map(textOf)
      .join("\n");
  } finally {
    await cdp.detach();
  }
}

/** Waits until a tag says `text`. */
export async function waitForTag(page: Page, text: string, within = 20_000): Promise<void> {
  for (const start = Date.now(); Date.now() - start < within; ) {
    if ((await tagText(page).catch(() => "")).includes(text)) return;
    await page.waitForTimeout(50);
  }
  throw new Error(`No tag says “${text}”; there is: ${await tagText(page)}`);
}

async function centre(page: Page, match: (node: Node) => boolean): Promise<{ x: number; y: number }> {
  const cdp = await page.context().newCDPSession(page);
  try {
    const node = (await tagNodes(cdp)).find(match);
    if (!node) throw new Error("There is no such thing in a tag.");
    const { model } = (await cdp.send("DOM.getBoxModel", { backendNodeId: node.backendNodeId })) as {
      model: { content: number[] };
    };
    const [x1, y1, , , x3, y3] = model.content as [number, number, number, number, number, number];
    return { x: (x1 + x3) / 2, y: (y1 + y3) / 2 };
  } finally {
    await cdp.detach();
  }
}

/** A real press of the mouse on a tag's button. */
export async function pressInTag(page: Page, button: string): Promise<void> {
  const { x, y } = await centre(page, (node) => node.nodeName === "BUTTON" && textOf(node).includes(button));
  await page.mouse.click(x, y);
}

/** Types over what stands in a tag's field. */
export async function typeInTag(page: Page, label: string, text: string): Promise<void> {
  const { x, y } = await centre(page, (node) => node.nodeName === "INPUT" && attribute(node, "aria-label") === label);
  await page.mouse.click(x, y, { clickCount: 3 });
  await page.keyboard.type(text);
}

/** Chooses an option of a tag's list by its text, with the keyboard. */
export async function chooseInTag(page: Page, label: string, option: string): Promise<void> {
  const { x, y } = await centre(page, (node) => node.nodeName === "SELECT" && attribute(node, "aria-label") === label);
  await page.mouse.click(x, y);
  await page.keyboard.type(option);
  await page.keyboard.press("Enter");
}
