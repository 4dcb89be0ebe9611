import fc from "fast-check";
import { describe, expect, test } from "vitest";
import { readPeople, withoutLines } from "./peopleList";

const said = (text: string) =>
  readPeople(text).map(({ name, mail, groups, role, until, wrong }) =>
    [name, mail, groups.join("+"), role ?? "", until ?? "", wrong?.field ?? ""].join("|"),
  );

describe("people as they are pasted", () => {
  test.each([
    ["Ada Brandt, ada@tarrowick.example", "Ada Brandt|ada@tarrowick.example||||"],
    ["Ada Brandt <Ada@Tarrowick.example>", "Ada Brandt|ada@tarrowick.example||||"],
    ["ada.van-dam@tarrowick.example", "Ada Van Dam|ada.van-dam@tarrowick.example||||"],
    ["ada@tarrowick.example, Ada Brandt", "Ada Brandt|ada@tarrowick.example||||"],
    [
      "Ada Brandt; ada@tarrowick.example; Shop Team|Learning; guest; 30/09/2026",
      "Ada Brandt|ada@tarrowick.example|Shop Team+Learning|guest|2026-09-30|",
    ],
    ["Ada\tada@tarrowick.example\tShop\tadmin\t2026-9-3", "Ada|ada@tarrowick.example|Shop|administrator|2026-09-03|"],
    ["Ada Brandt, ada at tarrowick", "Ada Brandt|ada at tarrowick||||mail"],
    ["Ada Brandt", "Ada Brandt|||||mail"],
    ["Ada, ada@tarrowick.example, , boss", "Ada|ada@tarrowick.example||||role"],
    ["Ada, ada@tarrowick.example, , , 31/02/2027", "Ada|ada@tarrowick.example||||until"],
    ["Ada, ada@tarrowick.example, , , soon", "Ada|ada@tarrowick.example||||until"],
  ])("%s", (text, expected) => {
    expect(said(text)).toEqual([expected]);
  });

  test("a table says by its first line what is what, in any order", () => {
    expect(
      said("Department,Surname,First name,E-mail,Last day\nShop,Brandt,Ada,ada@tarrowick.example,2026-09-30\n"),
    ).toEqual(["Ada Brandt|ada@tarrowick.example|Shop||2026-09-30|"]);
  });

  test("lines keep their number; empty ones are passed over", () => {
    expect(readPeople("\na@b.example\n\n\nc@d.example\n").map((one) => one.line)).toEqual([2, 5]);
  });

  test("what is left when some were added; nothing where only the heading would be", () => {
    expect(withoutLines("a@b.example\nnot one\nc@d.example", new Set([1, 3]))).toBe("not one");
    expect(withoutLines("Name,Mail\nAda,a@b.example\nBo,c@d.example", new Set([2]))).toBe("Name,Mail\nBo,c@d.example");
    expect(withoutLines("Name,Mail\nAda,a@b.example", new Set([2]))).toBe("");
    const cells = 'Name,Mail\n"Ada\nBrandt",a@b.example\nBo,c@d.example';
    expect(readPeople(cells).map(({ line, mail }) => [line, mail])).toEqual([
      [2, "a@b.example"],
      [3, "c@d.example"],
    ]);
    expect(withoutLines(cells, new Set([2]))).toBe("Name,Mail\nBo,c@d.example");
  });

  test("whatever is pasted gives lines and never throws", () => {
    fc.assert(
      fc.property(fc.string({ unit: "grapheme" }), (text) => {
        for (const one of readPeople(text))
          expect(one.wrong === null).toBe(one.wrong === null && one.mail.includes("@"));
      }),
    );
  });
});
