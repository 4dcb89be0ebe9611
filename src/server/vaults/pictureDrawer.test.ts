/** Pictures that are made to take for ever, or to be something else. */
import { afterAll, expect, test } from "vitest";
import { PictureDrawer } from "./pictureDrawer";

const drawer = new PictureDrawer(1_500);
afterAll(() => drawer.close());

const svg = (inner: string) =>
  Buffer.from(
    `<svg xmlns="http://www.w3.org/2000/svg" xmlns:xlink="http://www.w3.org/1999/xlink" viewBox="0 0 90 90">${inner}</svg>`,
  );
const PLAIN = svg('<rect width="90" height="90" fill="#8c3f1d"/>');

/** Ten uses of ten uses of ten uses …: less than two kilobytes. */
const NESTED = svg(
  `<defs><rect id="u0" width="9" height="9"/>${Array.from(
    { length: 9 },
    (_, i) => `<g id="u${i + 1}">${`<use xlink:href="#u${i}" x="1"/>`.repeat(10)}</g>`,
  ).join("")}</defs><use xlink:href="#u9"/>`,
);

test("a picture that takes for ever is given up, the next one is drawn, and this thread goes on meanwhile", async () => {
  expect(NESTED.length).toBeLessThan(4_000);
  await drawer.draw(PLAIN);
  let turns = 0;
  const turning = setInterval(() => turns++, 5);
  const [endless, plain] = await Promise.all([drawer.draw(NESTED), drawer.draw(PLAIN)]);
  clearInterval(turning);
  expect(endless).toEqual({ refused: "This picture takes too long to draw. Save it as PNG first." });
  expect(plain).toHaveProperty("png");
  expect(turns).toBeGreaterThan(20);
});

test("what is no picture is refused in words", async () => {
  expect(await drawer.draw(Buffer.from("%PDF-1.4"))).toHaveProperty("refused");
  expect(await drawer.draw(Buffer.from("<svg><![CDATA["))).toHaveProperty("refused");
});
