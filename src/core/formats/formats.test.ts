import fc from "fast-check";
import iconv from "iconv-lite";
import { describe, expect, test } from "vitest";
import { guessMeanings, type Meaning, wrongMeanings } from "./columns";
import { readCell, readCsv, writeCsv } from "./csv";
import { folderPath, readRow } from "./rows";
import { decodeText } from "./text";

const bytes = (text: string, encoding: string) =>
  new Uint8Array(iconv.encode(text, encoding, { addBOM: encoding === "utf16" }));

describe("text of any origin", () => {
  const text = "Name;Kennwort\r\nMüller & Söhne;größer\r\nCafé “Harbour”;naïve\r\n";
  test.each([
    ["utf8", "UTF-8"],
    ["utf16le", "UTF-16LE"],
    ["utf16be", "UTF-16BE"],
    ["win1252", "windows-1252"],
  ])("%s", (encoding, found) => {
    const decoded = decodeText(bytes(text, encoding));
    expect(decoded).toEqual({ text, encoding: found });
  });

  test("a byte order mark is no part of the text", () => {
    expect(readCsv(decodeText(new Uint8Array([0xef, 0xbb, 0xbf, ...bytes("a,b\n1,2", "utf8")])).text).header).toEqual([
      "a",
      "b",
    ]);
    expect(readCsv(decodeText(new Uint8Array([0xff, 0xfe, ...bytes("a,b\n1,2", "utf16le")])).text).header).toEqual([
      "a",
      "b",
    ]);
  });

  test("an archive with another name is no text", () =>
    expect(() => decodeText(new Uint8Array([0x50, 0x4b, 3, 4, 20, 0, 8, 0, 8, 0, 1, 2, 3]))).toThrow(
      "not a text file",
    ));
});

describe("CSV", () => {
  test.each([",", ";", "\t", "|"])("separator %j is found, quotes and line breaks stay within a value", (separator) => {
    const cell = (value: string) => `"${value.replaceAll('"', '""')}"`;
    const file = [
      ["name", "notes", "password"],
      ["Pellam", `two\nlines, “said” "twice"`, `a${separator}b`],
    ]
      .map((row) => row.map(cell).join(separator))
      .join("\r\n");
    const table = readCsv(file);
    expect(table.separator).toBe(separator);
    expect(table.rows).toEqual([["Pellam", `two\nlines, “said” "twice"`, `a${separator}b`]]);
  });

  test("any rows → CSV → the same rows", () => {
    // A last empty line cannot be told from none; a row of blanks is no row.
    const row = fc
      .array(fc.string({ unit: "grapheme" }), { minLength: 3, maxLength: 3 })
      .filter((cells) => cells.some((cell) => cell.trim() !== ""));
    fc.assert(
      fc.property(fc.array(row, { minLength: 1, maxLength: 20 }), (rows) => {
        const back = readCsv(writeCsv(["a", "b", "c"], rows));
        expect(back.rows.map((cells) => cells.map(readCell))).toEqual(rows);
      }),
    );
  });

  test("a formula is harmless on the way out and itself on the way in", () => {
    const written = writeCsv(["name"], [["=1+1"], ["+44 20"], ["@cmd"], ["-x"]]);
    for (const line of written.split("\r\n").slice(1)) expect(line).toMatch(/^"?'/);
    expect(readCsv(written).rows.flat().map(readCell)).toEqual(["=1+1", "+44 20", "@cmd", "-x"]);
  });

  test.each([
    ["", "The file is empty"],
    ["name,password", "The file is empty"],
    ['a,b\n"open,2\n3,4', "never closed"],
    [`${"c,".repeat(150)}\n1`, "at most 100"],
  ])("%j is refused", (text, message) => expect(() => readCsv(text)).toThrow(message));

  test("half a row is filled up", () =>
    expect(readCsv("a,b,c\n1\n1,2,3").rows).toEqual([
      ["1", "", ""],
      ["1", "2", "3"],
    ]));
});

describe("columns", () => {
  const guess = (header: string[], row: string[] = header.map(() => "x")) => guessMeanings(header, [row]);
  test.each<[string[], Meaning[]]>([
    [
      ["name", "url", "username", "password", "note"],
      ["name", "signInPage", "userName", "password", "notes"],
    ],
    [
      ["Titel", "Benutzername", "Kennwort", "Webseite", "Bemerkungen"],
      ["name", "userName", "password", "signInPage", "notes"],
    ],
    [
      ["Nom", "Identifiant", "Mot de passe", "Site web", "Dossier"],
      ["name", "userName", "password", "signInPage", "folder"],
    ],
    [
      ["Nombre", "Usuario", "Contraseña", "Sitio", "Etiquetas"],
      ["name", "userName", "password", "signInPage", "tags"],
    ],
    [
      ["Naam", "Gebruikersnaam", "Wachtwoord", "Opmerkingen", "Map"],
      ["name", "userName", "password", "notes", "folder"],
    ],
    [
      ["Nazwa", "Użytkownik", "Hasło", "Strona", "Notatki"],
      ["name", "userName", "password", "signInPage", "notes"],
    ],
    [
      ["signin_address", "signin_user", "signin_password", "signin_totp", "folder"],
      ["signInPage", "userName", "password", "code", "folder"],
    ],
    [
      ["Category", "Heading title", "UserName", "Password", "Authenticator"],
      ["folder", "name", "userName", "password", "code"],
    ],
    [
      ["url", "username", "password", "httpRealm", "formActionOrigin", "guid", "timeCreated", "timePasswordChanged"],
      ["signInPage", "userName", "password", "leave out", "leave out", "leave out", "leave out", "leave out"],
    ],
  ])("%j", (header, meanings) => expect(guess(header)).toEqual(meanings));

  test("what no word tells, the values do; what nothing tells is kept", () => {
    const header = ["a", "b", "c", "d", "e"];
    const row = ["https://x.example", "me@x.example", "otpauth://totp/x?secret=ABCD", "42", " "];
    expect(guess(header, row)).toEqual(["signInPage", "userName", "code", "extra identifier", "leave out"]);
  });

  test("a second password column is not the password", () =>
    expect(guess(["name", "password", "old password"])).toEqual(["name", "password", "extra identifier"]));

  test("meanings that cannot stand together", () => {
    expect(wrongMeanings(["password", "password", "name"])).toContain("Two columns");
    expect(wrongMeanings(["password", "notes"])).toContain("One column must be");
    expect(wrongMeanings(["name", "password"])).toBeNull();
  });
});

describe("rows", () => {
  const header = ["name", "url", "user", "password", "folder", "Customer"];
  const meanings: Meaning[] = ["name", "signInPage", "userName", "password", "folder", "extra identifier"];
  const read = (...cells: string[]) => readRow(header, meanings, cells, 1);

  test("a login with all its parts", () =>
    expect(read("Pellam", "pellam.example/in", "box", "s3cret", "Shop/Tills", "TMT-4").incoming).toMatchObject({
      kind: "website-login",
      folder: ["Shop", "Tills"],
      values: {
        name: "Pellam",
        signInPage: "https://pellam.example/in",
        userName: "box",
        password: "s3cret",
        extras: [{ label: "Customer", class: "identifier", value: "TMT-4" }],
      },
    }));

  test("without an address it is a password; without a name it takes the site’s", () => {
    expect(read("Safe PC", "", "me", "x", "", "").incoming?.kind).toBe("password");
    expect(read("", "https://www.pellam.example/in", "me", "x", "", "").incoming?.values.name).toBe("pellam.example");
    expect(read("Phone", "android://abc@com.example.app/", "me", "x", "", "").incoming).toMatchObject({
      kind: "password",
      values: { where: "android://abc@com.example.app/" },
    });
  });

  test("what cannot be kept says why; nothing is cut from a secret", () => {
    expect(read("", "", "", "x", "", "").wrong).toContain("no name");
    expect(read("x", "", "", "p".repeat(2000), "", "").wrong).toContain("password: At most 1,000 characters");
    expect(read("x", "", "", "p", Array(200).fill("f").join("/"), "").wrong).toContain("200 deep");
  });

  test("names with control characters become one line; any script stays", () =>
    expect(read("شركة\u0007\nPellam", "", "x", "", "", "").incoming?.values.name).toBe("شركة Pellam"));

  test("folders within folders, as programs write them", () =>
    expect(["a/b", "a\\b", " a > b ", "/a//b/"].map(folderPath)).toEqual(Array(4).fill(["a", "b"])));
});

test("a row with more or fewer cells than the header is named, and so is an address that is none", () => {
  const { ragged } = readCsv("name,url,password\na,https://a.example,x\nb,https://b.example\nc,d,e,f\n");
  expect([...ragged]).toEqual([
    [1, 2],
    [2, 4],
  ]);
  const read = readRow(["name", "url"], ["name", "signInPage"], ["Till", "the one by the door"], 1);
  expect(read).toMatchObject({ wrong: null, remark: "“the one by the door” is not a web address." });
  expect(readRow(["name", "url"], ["name", "signInPage"], ["Till", "https://till.example"], 1)).not.toHaveProperty(
    "remark",
  );
});
