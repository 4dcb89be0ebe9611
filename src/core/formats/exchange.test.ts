import fc from "fast-check";
import { describe, expect, test } from "vitest";
import type { Kind } from "../kinds/kind";
import { drawnFrom, kindFrom, ownKindSchema } from "../kinds/own";
import { READY_KINDS, readyKind } from "../kinds/ready";
import { readValues } from "../kinds/values";
import { exchangeWriter, flatOf, fromExchange, isExchange } from "./exchange";
import { fromOtpauth, fromVcard, isOtpauth, isVcard } from "./lines";
import type { TakenEntry } from "./taken";

const ABOUT = {
  organisation: "Tarrowick Museums Trust",
  person: "Ines",
  mail: "ines@tarrowick.example",
  at: 1_790_000_000_000,
};
const EMPTY: TakenEntry = {
  kind: readyKind("website-login"),
  name: "Pellam Tickets",
  description: "",
  notes: "",
  tags: [],
  folder: [],
  signInPage: "https://pellam.example/in",
  reach: "site",
  useSeesUserName: false,
  fields: {},
  code: null,
  extras: [],
  createdAt: 1_780_000_000_000,
  changedAt: 1_780_000_500_000,
};

/** Written in parts of some, as a page does it. */
function written(entries: TakenEntry[], kinds: Kind[] = [], some = 2): string {
  const writer = exchangeWriter(ABOUT, kinds);
  let text = "";
  for (let at = 0; at < entries.length; at += some) text += writer.add(entries.slice(at, at + some));
  return text + writer.end();
}

const word = fc
  .string({ minLength: 1, maxLength: 20 })
  .map((text) => text.replace(/[\u0000-\u001f\u007f]/g, "").trim() || "x");
const anyEntry = fc.constantFrom(...READY_KINDS).chain((kind) =>
  fc
    .record({
      name: word,
      description: fc.constantFrom("", "box office"),
      notes: fc.string({ maxLength: 40 }),
      tags: fc.uniqueArray(
        word.map((one) => one.replace(/,/g, "")).filter((one) => one.trim() !== ""),
        { maxLength: 3 },
      ),
      folder: fc.array(word, { maxLength: 3 }),
      withCode: fc.boolean(),
      secret: word,
      extras: fc.array(
        fc.record({
          id: fc.uuid(),
          label: word,
          class: fc.constantFrom("open", "identifier", "secret" as const),
          value: word,
        }),
        { maxLength: 3 },
      ),
    })
    .map(({ withCode, secret, extras, ...rest }): TakenEntry => {
      const fields = Object.fromEntries(
        kind.fields
          .filter(({ id }) => id !== "signInPage" && id !== "code")
          .map(({ id, form, choices }) => [
            id,
            form === "choice"
              ? choices![0]!
              : form === "digits"
                ? "4471"
                : form === "date"
                  ? "2026-11-26"
                  : form === "month"
                    ? "2028-04"
                    : form === "mail"
                      ? "a@b.example"
                      : form === "phone"
                        ? "01632 960 960"
                        : secret,
          ]),
      );
      const has = (id: string) => kind.fields.some((field) => field.id === id);
      return {
        ...EMPTY,
        ...rest,
        kind,
        fields,
        signInPage: has("signInPage") ? EMPTY.signInPage : "",
        code:
          withCode && has("code") ? { secret: "JBSWY3DPEHPK3PXP", digits: 8, period: 60, algorithm: "SHA256" } : null,
        extras: extras as TakenEntry["extras"],
      };
    }),
);

describe("credential exchange", () => {
  test("any entry comes back equal, of whatever ready kind, in its folder", () => {
    fc.assert(
      fc.property(fc.array(anyEntry, { maxLength: 6 }), (entries) => {
        const json = JSON.parse(written(entries));
        expect(isExchange(json)).toBe(true);
        const { rows } = fromExchange(json);
        expect(rows.map((row) => row.wrong)).toEqual(entries.map(() => null));
        for (const [at, entry] of entries.entries()) {
          const { incoming } = rows[at]!;
          expect(incoming!.kind).toBe(entry.kind.id);
          expect(incoming!.folder).toEqual(entry.folder);
          expect(readValues(entry.kind, incoming!.values)).toEqual(readValues(entry.kind, flatOf(entry)));
        }
      }),
      { numRuns: 60 },
    );
  });

  test("another program finds user name, password, code and note where the format has them", () => {
    const entry: TakenEntry = {
      ...EMPTY,
      notes: "Ring first.",
      fields: { userName: "desk", password: "p 1" },
      code: { secret: "JBSWY3DPEHPK3PXP", digits: 6, period: 30, algorithm: "SHA1" },
    };
    const { accounts } = JSON.parse(written([entry])) as {
      accounts: { items: { credentials: object[]; scope: object }[] }[];
    };
    expect(accounts[0]!.items[0]!.scope).toEqual({ urls: [EMPTY.signInPage], androidApps: [] });
    expect(accounts[0]!.items[0]!.credentials).toMatchObject([
      { type: "basic-auth", username: { value: "desk" }, password: { fieldType: "concealed-string", value: "p 1" } },
      { type: "totp", secret: "JBSWY3DPEHPK3PXP", algorithm: "sha1" },
      { type: "note", content: { value: "Ring first." } },
    ]);
  });

  test("what another program wrote is read: logins, cards, Wi-Fi, notes; a passkey is refused in words", () => {
    const item = (id: string, title: string, credentials: object[], more: object = {}) => ({
      id,
      title,
      credentials,
      ...more,
    });
    const json = {
      version: { major: 1, minor: 0 },
      exporterRpId: "other.example",
      accounts: [
        {
          id: "a",
          collections: [
            {
              id: "c",
              title: "Shop",
              items: [{ item: "1" }],
              subCollections: [{ id: "d", title: "Post", items: [{ item: "2" }] }],
            },
          ],
          items: [
            item(
              "1",
              "Pellam",
              [
                {
                  type: "basic-auth",
                  username: { fieldType: "string", value: "desk" },
                  password: { fieldType: "concealed-string", value: "p" },
                },
                { type: "totp", secret: "JBSWY3DPEHPK3PXP", period: 30, digits: 6, algorithm: "sha1" },
                { type: "custom-fields", fields: [{ fieldType: "concealed-string", label: "PIN", value: "4471" }] },
              ],
              { scope: { urls: ["https://pellam.example/in"] }, tags: ["season"] },
            ),
            item("2", "House Wi-Fi", [
              {
                type: "wifi",
                ssid: { value: "Loom House" },
                passphrase: { value: "w" },
                networkSecurityType: { value: "wpa2-personal" },
              },
            ]),
            item("3", "Card", [
              { type: "credit-card", number: { value: "9999 0000 0000 0001" }, expiryDate: { value: "2028-04" } },
            ]),
            item("4", "Drawer", [{ type: "note", content: { value: "top left" } }]),
            item("5", "Key", [{ type: "passkey", credentialId: "x" }]),
            { nonsense: true },
          ],
        },
      ],
    };
    const { rows } = fromExchange(json);
    expect(rows.map((row) => row.incoming?.kind ?? row.wrong)).toEqual([
      "website-login",
      "wifi",
      "card",
      "note",
      "A passkey cannot be imported. Create a new one at the site.",
      "This item does not follow the format.",
    ]);
    expect(rows[0]!.incoming).toMatchObject({
      folder: ["Shop"],
      values: { userName: "desk", tags: ["season"], extras: [{ label: "PIN", class: "secret", value: "4471" }] },
    });
    expect(rows[1]!.incoming).toMatchObject({ folder: ["Shop", "Post"], values: { network: "Loom House" } });
    expect(() => fromExchange({ version: { major: 2 }, accounts: [] })).toThrow("later version");
  });
});

describe("otpauth addresses, one per line", () => {
  const lines = [
    "otpauth://totp/Pellam%20Tickets:desk%40tarrowick.example?secret=JBSWY3DPEHPK3PXP&issuer=Pellam%20Tickets",
    "",
    "otpauth://totp/tills?secret=JBSWY3DPEHPK3PXP&digits=8",
    "otpauth://hotp/count?secret=JBSWY3DPEHPK3PXP&counter=1",
  ].join("\n");
  test("are told apart and named", () => {
    expect([isOtpauth(lines), isOtpauth("name,url\notpauth://x")]).toEqual([true, false]);
    expect(
      fromOtpauth(lines).map((row) => [row.row, row.incoming?.values.name ?? row.wrong, row.incoming?.values.userName]),
    ).toEqual([
      [1, "Pellam Tickets", "desk@tarrowick.example"],
      [3, "tills", "tills"],
      [4, "This is a counter-based code. Galtry supports only time-based codes.", undefined],
    ]);
  });
});

describe("vCard", () => {
  // Folded and escaped as RFC 6350 sections 3.2 and 3.4 have it.
  const card = [
    "BEGIN:VCARD",
    "VERSION:4.0",
    "FN:Leontine Abernathy",
    "N:Abernathy;Leontine;;;",
    "ORG:Brightmere Energy;Accounts",
    "TITLE:Meter readings\\, all sites",
    'TEL;TYPE="voice,work";VALUE=uri:tel:+44-1632-960-101',
    "item1.TEL:01632 960 102",
    "EMAIL:leontine@brightmere.exa",
    " mple",
    "ADR;TYPE=work:;;4 Mill Lane;Tarrowick;;TK1 2AB;",
    "NOTE:Mornings only\\nAsk for meter 7",
    "END:VCARD",
    "BEGIN:VCARD",
    "ORG:Quillbrook Couriers",
    "END:VCARD",
    "",
  ].join("\r\n");
  test("is read", () => {
    expect(isVcard(card)).toBe(true);
    const [first, second] = fromVcard(card);
    expect(first!.incoming).toMatchObject({
      kind: "contact",
      values: {
        name: "Leontine Abernathy",
        organisation: "Brightmere Energy, Accounts",
        role: "Meter readings, all sites",
        mail: "leontine@brightmere.example",
        phone: "+44-1632-960-101",
        direct: "01632 960 102",
        notes: "Mornings only\nAsk for meter 7\nAddress: 4 Mill Lane, Tarrowick, TK1 2AB",
      },
    });
    expect(second!.incoming!.values.name).toBe("Quillbrook Couriers");
  });

  describe("kinds of one's own", () => {
    const draw = (names: [string, "open" | "secret"][]): Kind => {
      const drawn = ownKindSchema.parse({
        name: "Film projector",
        purpose: "run",
        fields: names.map(([label, fieldClass]) => ({ label, class: fieldClass })),
        title: 0,
      });
      let made = 0;
      return {
        id: `kind-${names.length}`,
        name: drawn.name,
        purpose: drawn.purpose,
        own: true,
        ...kindFrom(drawn, null, false, () => `f${names.length}-${made++}`),
      };
    };
    const there = draw([
      ["Model", "open"],
      ["Service code", "secret"],
    ]);
    const [model, code] = there.fields.map((field) => field.id) as [string, string];
    const entry: TakenEntry = {
      ...EMPTY,
      kind: there,
      name: "Lumen 4",
      signInPage: "",
      fields: { [model]: "Lumen 4", [code]: "4471-s" },
    };
    const json = JSON.parse(written([entry], [there]));

    test("come back as they are where the kind is, by its id or by its name", () => {
      const same = fromExchange(json, [there]);
      expect(same.missing).toEqual([]);
      expect(same.rows[0]!.incoming).toMatchObject({ kind: there.id, values: { [code]: "4471-s" } });
      const here = draw([
        ["Model", "open"],
        ["Lamp", "open"],
        ["service code", "secret"],
      ]);
      const read = fromExchange(json, [here]);
      expect(read.missing).toEqual([]);
      expect(read.rows[0]!.incoming).toMatchObject({ kind: here.id, values: { "f3-0": "Lumen 4", "f3-2": "4471-s" } });
    });

    test("are named where they are missing, can be drawn from the file, and nothing is lost till then", () => {
      const read = fromExchange(json);
      expect(read.missing.map((kind) => kind.name)).toEqual(["Film projector"]);
      expect(JSON.stringify(read.rows[0]!.incoming!.values)).toContain("4471-s");
      const drawn = ownKindSchema.parse(drawnFrom(read.missing[0]!));
      expect(drawn.fields.map(({ label, class: fieldClass }) => [label, fieldClass])).toEqual([
        ["Model", "open"],
        ["Service code", "secret"],
      ]);
      expect(drawn.title).toBe(0);
    });

    test("a value that has no field in the kind of that name is kept as an extra field", () => {
      const poorer = draw([["Model", "open"]]);
      const { incoming } = fromExchange(json, [poorer]).rows[0]!;
      expect(JSON.stringify(incoming!.values.extras)).toContain("4471-s");
    });

    test("a definition that is none is passed over", () => {
      const broken = structuredClone(json);
      broken.accounts[0].extensions[0].data = [{ id: 7, fields: "many" }];
      expect(fromExchange(broken).missing).toEqual([]);
      expect(fromExchange(broken).rows[0]!.wrong).toBe(null);
    });
  });
});
