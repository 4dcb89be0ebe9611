import { describe, expect, test } from "vitest";
import { readyKind } from "../kinds/ready";
import { guessMeanings } from "./columns";
import { readCsv } from "./csv";
import { readRow } from "./rows";
import type { TakenEntry, TakenWriter } from "./taken";
import { csvWriter } from "./takenCsv";
import { pageWriter } from "./takenPage";

const entry = (more: Partial<TakenEntry>): TakenEntry => ({
  kind: readyKind("website-login"),
  name: "Pellam Tickets",
  description: "box office",
  notes: 'Ring first.\nThen "ask", twice',
  tags: ["season", "desk"],
  folder: ["Shop", "Post/out"],
  signInPage: "https://pellam.example/in",
  reach: "site",
  useSeesUserName: false,
  fields: { userName: "desk", password: '=1+1 "x", ünder' },
  code: { secret: "JBSWY3DPEHPK3PXP", digits: 6, period: 30, algorithm: "SHA1" },
  extras: [{ id: "a", label: "PIN", class: "secret", value: "@4471" }],
  createdAt: 0,
  changedAt: 0,
  ...more,
});

/** In two parts, as far as there are so many. */
const written = (writer: TakenWriter, [first, ...rest]: TakenEntry[]) =>
  `${writer.add(first ? [first] : [])}${writer.add(rest)}${writer.end()}`;

describe("CSV", () => {
  test("what it carries comes back equal, formulas harmless on the way", () => {
    const csv = written(csvWriter(), [
      entry({}),
      entry({
        name: "House Wi-Fi",
        kind: readyKind("wifi"),
        signInPage: "",
        code: null,
        fields: { network: "Loom", password: "w", security: "", hidden: "" },
        extras: [],
      }),
    ]);
    expect(csv).toContain("'=1+1");
    const table = readCsv(csv);
    const meanings = guessMeanings(table.header, table.rows);
    const { incoming } = readRow(table.header, meanings, table.rows[0]!, 1);
    expect(incoming!.folder).toEqual(["Shop", "Post-out"]);
    expect(incoming!.values).toMatchObject({
      name: "Pellam Tickets",
      description: "box office",
      userName: "desk",
      password: '=1+1 "x", ünder',
      signInPage: "https://pellam.example/in",
      notes: 'Ring first.\nThen "ask", twice',
      tags: ["season", "desk"],
    });
    expect(String(incoming!.values.code)).toContain("secret=JBSWY3DPEHPK3PXP");
    expect(incoming!.values.extras).toContainEqual(expect.objectContaining({ label: "PIN", value: "@4471" }));
  });
});

test("the page to print escapes what people typed, and holds nothing that runs or loads", () => {
  const page = written(pageWriter("Shop & Tickets"), [
    entry({ name: "<script>alert(1)</script>", notes: "<img src=x onerror=alert(1)>" }),
    entry({ name: "Second" }),
  ]);
  expect(page.match(/<article>/g)).toHaveLength(2);
  expect(page.endsWith("</body></html>")).toBe(true);
  expect(written(pageWriter("Nothing"), [])).toContain("<h1>Nothing</h1>\n\n</body>");
  expect(page).toContain("&lt;script&gt;alert(1)&lt;/script&gt;");
  expect(page).not.toMatch(/<script|<img|<link|src=x onerror=alert\(1\)>/);
  expect(page).toContain("default-src 'none'");
  expect(page).toContain("=1+1 &quot;x&quot;, ünder");
});
