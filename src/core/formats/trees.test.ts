import { describe, expect, test } from "vitest";
import { cpuTime } from "../../../integration/cpuTime";
import { guessMeanings } from "./columns";
import { readRow } from "./rows";
import { partsOf, readJson, readXml } from "./tree";

const brought = (tree: ReturnType<typeof readJson>) => {
  const [part] = partsOf(tree);
  const meanings = guessMeanings(part!.header, part!.rows);
  return part!.rows.map((cells, at) => {
    const { incoming } = readRow(part!.header, meanings, cells, at + 1, part!.folders[at]);
    const { name, userName, password, signInPage, notes } = incoming!.values;
    return [incoming!.folder.join(" / "), name, userName, password, signInPage, notes];
  });
};

describe("JSON of any shape", () => {
  test("a flat list of logins", () => {
    const tree = readJson(
      '{"export":{"created":"today"},"logins":[{"title":"Pellam","website":"https://pellam.example/in","login":{"username":"desk","password":"p 1"}},{"title":"Tills","website":"","login":{"username":"till","password":"p 2"},"note":"by the door"}]}',
    );
    expect(brought(tree)).toEqual([
      ["", "Pellam", "desk", "p 1", "https://pellam.example/in", ""],
      ["", "Tills", "till", "p 2", undefined, "by the door"],
    ]);
  });

  test("groups within groups, whose names are the folders; what all lie in is the file's own name", () => {
    const login = (name: string) => ({ name, user: "u", pass: `of ${name}`, url: `https://${name}.example` });
    const tree = readJson(
      JSON.stringify({
        database: {
          name: "Everything",
          groups: [
            {
              name: "Shop",
              entries: [login("tills")],
              groups: [{ name: "Post", entries: [login("couriers")], groups: [] }],
            },
            { name: "House", entries: [login("alarm")], groups: [] },
          ],
        },
      }),
    );
    expect(brought(tree).map(([folder, name]) => [folder, name])).toEqual([
      ["Shop", "tills"],
      ["Shop / Post", "couriers"],
      ["House", "alarm"],
    ]);
  });

  test("folders and entries that go by the same name", () => {
    const tree = readJson(
      JSON.stringify({
        items: [
          {
            name: "Shop",
            items: [
              { name: "Tills", username: "a", password: "x" },
              { name: "Safe", username: "b", password: "y" },
            ],
          },
          { name: "Top", username: "c", password: "z" },
        ],
      }),
    );
    expect(brought(tree).map(([folder, name, , password]) => [folder, name, password])).toEqual([
      ["Shop", "Tills", "x"],
      ["Shop", "Safe", "y"],
      ["", "Top", "z"],
    ]);
  });

  test.each(['{"a":1}', "[]", '"word"'])("%s holds nothing like entries", (text) => {
    expect(() => partsOf(readJson(text))).toThrow("othing in it looks like entries");
  });
  test("half a file", () => expect(() => readJson('{"a":[')).toThrow("incomplete"));
});

describe("XML of any shape", () => {
  const xml = `<?xml version="1.0"?><!DOCTYPE store>
    <store><meta><generator>Old tool</generator></meta>
      <group><name>Shop &amp; Tickets</name>
        <entry><field><key>Title</key><value>Pellam</value></field><field><key>UserName</key><value>desk</value></field>
          <field><key>Password</key><value protected="true">p &lt; 1</value></field>
          <field><key>URL</key><value>https://pellam.example/in</value></field>
          <history><entry><field><key>Title</key><value>Pellam old</value></field><field><key>Password</key><value>older</value></field></entry></history>
        </entry>
        <group><name>Post</name>
          <entry><field><key>Title</key><value>Couriers</value></field><field><key>Password</key><value>p2</value></field></entry>
        </group>
      </group>
      <group><name>House</name>
        <entry><field><key>Title</key><value>Alarm</value></field><field><key>Password</key><value>p3</value></field></entry>
      </group>
    </store>`;

  test("pairs of key and value, groups within groups; an entry's history is not entries", () => {
    expect(brought(readXml(xml)).map(([folder, name, , password, page]) => [folder, name, password, page])).toEqual([
      ["Shop & Tickets", "Pellam", "p < 1", "https://pellam.example/in"],
      ["Shop & Tickets / Post", "Couriers", "p2", undefined],
      ["House", "Alarm", "p3", undefined],
    ]);
  });

  test("attributes are fields as well", () => {
    const tree = readXml(
      '<list><login name="A" user="u" password="x" url="https://a.example"/><login name="B" user="v" password="y" url=""/></list>',
    );
    expect(brought(tree).map(([, name, user, password]) => [name, user, password])).toEqual([
      ["A", "u", "x"],
      ["B", "v", "y"],
    ]);
  });

  test("a bomb of entities and an entity from outside are refused, and so is half a file", () => {
    const bomb = '<!DOCTYPE x [<!ENTITY a "aaaa"><!ENTITY b "&a;&a;&a;">]><x><login name="&b;" password="1"/></x>';
    expect(() => readXml(bomb)).toThrow("declares its own entities");
    expect(() => readXml('<!DOCTYPE x [<!entity e SYSTEM "file:///etc/passwd">]><x>&e;</x>')).toThrow("entities");
    expect(() => readXml("<a><b></a>")).toThrow("incomplete");
  });
});

test("ten thousand records in a thousand folders are read in a second or two", () => {
  const groups = Array.from({ length: 1000 }, (_, g) => ({
    name: `Group ${g}`,
    entries: Array.from({ length: 10 }, (_, e) => ({
      title: `E ${g}.${e}`,
      user: "u",
      password: "p",
      fields: [{ key: "PIN", value: "1" }],
    })),
  }));
  let parts: ReturnType<typeof partsOf> = [];
  const taken = cpuTime(() => {
    parts = partsOf({ groups });
  });
  const [part] = parts;
  expect(part!.rows).toHaveLength(10_000);
  expect(part!.header).toContain("PIN");
  expect(taken).toBeLessThan(5000);
});
