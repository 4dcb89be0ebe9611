import fc from "fast-check";
import { expect, test } from "vitest";
import { wifiText } from "./kinds/wifi";
import { spell, spellingCard } from "./spelling";

test("every character has the name one says", () => {
  expect(
    spellingCard("lL0O1-é€")
      .flat()
      .map((one) => one.name),
  ).toEqual(["l", "capital L", "nought", "capital O", "one", "hyphen", "é", "euro"]);
  expect(spell("\u0007").name).toBe("character 0007");
});

test("no two characters that can be typed are called alike", () => {
  const typed = Array.from({ length: 95 }, (_, i) => String.fromCharCode(32 + i));
  expect(new Set(typed.map((one) => spell(one).name)).size).toBe(95);
});

test("the card holds the whole text, in groups of four", () =>
  fc.assert(
    fc.property(fc.string({ unit: "grapheme" }), (text) => {
      const card = spellingCard(text);
      expect(
        card
          .flat()
          .map((one) => one.character)
          .join(""),
      ).toBe(text);
      expect(card.slice(0, -1).every((group) => group.length === 4)).toBe(true);
    }),
  ));

test("the text that joins a Wi-Fi network", () => {
  const base = { network: "Tarrowick Visitors", security: "WPA2 or WPA3", hidden: false, password: "warp-weft" };
  expect(wifiText(base)).toBe("WIFI:T:WPA;S:Tarrowick Visitors;P:warp-weft;;");
  expect(wifiText({ ...base, network: 'a;b,"c"\\:', hidden: true })).toBe(
    'WIFI:T:WPA;S:a\\;b\\,\\"c\\"\\\\\\:;P:warp-weft;H:true;;',
  );
  expect(wifiText({ ...base, security: "none", password: "" })).toBe("WIFI:T:nopass;S:Tarrowick Visitors;;");
});
