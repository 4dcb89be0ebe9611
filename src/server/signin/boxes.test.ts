import { describe, expect, test } from "vitest";
import { spread } from "../../core/signin/boxes";
import { describeHtml } from "./htmlPage";

const boxes = (labels: string[], type = "password") =>
  describeHtml(
    `<form><input name="u">${labels.map((label) => `<input type="${type}" maxlength="1" aria-label="${label}">`).join("")}<button>Go</button></form>`,
    "https://page.example/",
  ).description;
const into = (labels: string[], value: string) => {
  const page = boxes(labels);
  return [...(spread(page, page.fields[1]!.selector, value)?.values() ?? ["nothing"])].join("");
};

describe("a value in boxes", () => {
  test("chosen letters, by their numbers", () => {
    expect(into(["2nd letter", "5th letter", "8th letter"], "quillhaven")).toBe("ulv");
    expect(into(["Character 1", "Character 3", "Character 10"], "quillhaven")).toBe("qin");
  });
  test("all of it in a row, numbered or not", () => {
    expect(into(["", "", "", ""], "1234")).toBe("1234");
    expect(into(["Digit 1 of 4", "Digit 2 of 4", "Digit 3 of 4", "Digit 4 of 4"], "1234")).toBe("1234");
  });
  test("nothing where a letter is wanted that there is not, or more letters are there than boxes", () => {
    expect(into(["2", "5", "12"], "quill")).toBe("nothing");
    expect(into(["", "", ""], "quill")).toBe("nothing");
  });
  test("a letter outside the basic plane is one letter", () => expect(into(["2", "3", "4"], "a𝒷cd")).toBe("𝒷cd"));
  test("an ordinary field takes it whole", () => {
    const page = boxes(["", "", ""]);
    expect(spread(page, page.fields[0]!.selector, "ada")).toEqual(new Map([[page.fields[0]!.selector, "ada"]]));
  });
});
