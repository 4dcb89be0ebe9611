import { describe, expect, it } from "vitest";
import { plainPage } from "./address";
import { type Happened, stepFrom } from "./learning";
import { canBeSent, isOwnHeader, jsonOf, PartMissing, pairsOf, type Values } from "./sending";
import { NO_STEPS, stepsSchema } from "./steps";

const CANARY = "Ganz geheim-7f3a!Wort";

function happened(over: Partial<Happened> = {}): Happened {
  const field = { name: "login", id: "login", label: "User name", placeholder: "" };
  return {
    page: "https://desk.hazelrow.example/sign-in?next=%2Fboard#top",
    entered: [
      { what: "user-name", field, value: "m.orrin" },
      { what: "password", field: { ...field, name: "secret", id: ":r3:", label: "Password" }, value: CANARY },
    ],
    pressed: { name: "", id: "go", label: "  Log\n in ", value: "" },
    sent: null,
    given: [],
    typedBesides: [],
    ...over,
  };
}

const sentJson = (body: unknown, headers: Record<string, string> = {}): Happened["sent"] => ({
  to: "https://desk.hazelrow.example/api/session",
  contentType: "application/json",
  body: JSON.stringify(body),
  headers,
  byScript: true,
});

const values: Values = { userName: "a", password: "b", code: null, token: () => null };

describe("a step learned from a page", () => {
  it("says where, what, and which button, without a value", () => {
    const step = stepFrom(happened())!;
    expect(step).toEqual({
      page: "https://desk.hazelrow.example/sign-in",
      enters: [
        { what: "user-name", field: { name: "login", id: "login", label: "User name" } },
        { what: "password", field: { name: "secret", id: "", label: "Password" } },
      ],
      presses: { name: "", id: "go", label: "Log in" },
      sends: null,
    });
  });

  it("tells the parts of a JSON body, where a token came from, and what is always the same", () => {
    const given: Happened["given"] = [{ in: "meta", name: "token", value: "9f3c77d1aa" }];
    const body = { user: { "na/me": "m.orrin", secret: CANARY }, remember: false, client: "web", count: 2 };
    const { sends } = stepFrom(happened({ sent: sentJson(body, { "X-Token": "9f3c77d1aa", accept: "x" }), given }))!;
    expect(sends!.parts.map(({ name, holds, value }) => [name, holds, value])).toEqual([
      ["/user/na~1me", "user-name", ""],
      ["/user/secret", "password", ""],
      ["/remember", "fixed", "false"],
      ["/client", "fixed", '"web"'],
      ["/count", "fixed", "2"],
    ]);
    expect(sends!.headers).toEqual([
      { name: "x-token", holds: "token", from: { in: "meta", name: "token" }, value: "" },
    ]);
    expect(canBeSent(sends!)).toBe(true);
    const again = jsonOf(sends!.parts, { ...values, userName: "Änne", password: 'a"b' });
    expect(JSON.parse(again)).toEqual({
      user: { "na/me": "Änne", secret: 'a"b' },
      remember: false,
      client: "web",
      count: 2,
    });
  });

  it("tells the parts of a form, whether a script sent it or the page itself", () => {
    const sent = (body: Happened["sent"] extends infer S ? (S extends { body: infer B } ? B : never) : never) => ({
      ...sentJson({})!,
      contentType: "application/x-www-form-urlencoded;charset=UTF-8",
      body,
    });
    const pairs: [string, string][] = [
      ["user", "m.orrin"],
      ["pass", CANARY],
      ["grant_type", "password"],
    ];
    const text = new URLSearchParams(pairs).toString();
    const [a, b] = [pairs, text].map((body) => stepFrom(happened({ sent: sent(body) }))!.sends!);
    expect(a).toEqual(b);
    expect(pairsOf(a!.parts, { ...values, userName: "x", password: "y" })).toEqual([
      ["user", "x"],
      ["pass", "y"],
      ["grant_type", "password"],
    ]);
  });

  it.each<[string, unknown]>([
    ["as it is, within more", { note: `to ${CANARY} end`, login: "m.orrin" }],
    ["in base64 with the user name", { basic: btoa(`m.orrin:${CANARY}`), login: "m.orrin" }],
    [
      "as a list of bytes in hex",
      { hex: [...CANARY].map((c) => c.charCodeAt(0).toString(16)).join(""), login: "m.orrin" },
    ],
    ["percent-encoded", { q: encodeURIComponent(CANARY), login: "m.orrin" }],
  ])("holds nothing of a password that was sent %s", (_, body) => {
    const { sends } = stepFrom(happened({ sent: sentJson(body) }))!;
    expect(sends!.parts[0]!.holds).toBe("unknown");
    expect(JSON.stringify(sends)).not.toMatch(/Ganz|btoa|47616e7a|bS5vcnJpbjpH/);
    expect(canBeSent(sends!)).toBe(false);
  });

  it("holds nothing that was typed besides, and nothing that is drawn anew each time", () => {
    const body = {
      login: "m.orrin",
      born: "born 1971-04-30",
      nonce: "Zk3x0Qq81LmPp92Rt5",
      trace: "4839201775",
      device: "0b9f2c1e-7d44-4f0e-9a53-2f6f6a1f3f10",
    };
    const { sends } = stepFrom(happened({ sent: sentJson(body), typedBesides: ["1971-04-30"] }))!;
    expect(sends!.parts.map(({ holds }) => holds)).toEqual(["user-name", "unknown", "unknown", "unknown", "unknown"]);
    expect(JSON.stringify(sends)).not.toMatch(/1971|Zk3x|4839|0b9f/);
  });

  it("holds nothing of what a page writes of it into its addresses, its labels and its buttons", () => {
    const away = (over: Partial<Happened>) => stepFrom(happened(over));
    expect(away({ page: `https://desk.hazelrow.example/for/${encodeURIComponent(CANARY)}` })).toBeNull();
    expect(away({ page: "https://desk.hazelrow.example/for/M.Orrin/in" })).toBeNull();
    const pressed = { name: "", id: "", label: `Continue as m.orrin with ${CANARY}`, value: "" };
    const step = away({ pressed, sent: { ...sentJson({ login: "m.orrin" })!, to: "https://d.example/m.orrin" } })!;
    expect(step.presses).toEqual({ name: "", id: "", label: "" });
    expect(step.sends).toBeNull();
    expect(JSON.stringify(step)).not.toMatch(/orrin|Ganz/);
  });

  it("learns no request in which nothing that was typed is found, none with lists, none with a query", () => {
    expect(stepFrom(happened({ sent: sentJson({ event: "click" }) }))!.sends).toBeNull();
    expect(stepFrom(happened({ sent: sentJson({ login: "m.orrin", tags: ["a"] }) }))!.sends).toBeNull();
    const queried = { ...sentJson({ login: "m.orrin" })!, to: "https://desk.hazelrow.example/api?key=abc" };
    expect(stepFrom(happened({ sent: queried }))!.sends).toBeNull();
    expect(stepFrom(happened({ page: "about:blank" }))).toBeNull();
  });

  it("takes no header that browsers or proxies go by", () => {
    expect(["x-token", "requestverificationtoken", "x-csrf"].every(isOwnHeader)).toBe(true);
    expect(
      ["cookie", "authorization", "host", "x-forwarded-for", "content-type", "x-real-ip", "sec-token"].some(
        isOwnHeader,
      ),
    ).toBe(false);
  });
});

describe("a request made anew", () => {
  const part = (name: string, holds: "password" | "token" | "code") => ({
    ...{ name, holds, from: null, value: "" },
    ...(holds === "token" && { from: { in: "meta" as const, name: "t" } }),
  });

  it("goes out with a token as it stands now, and not at all without one", () => {
    expect(pairsOf([part("t", "token")], { ...values, token: () => "now" })).toEqual([["t", "now"]]);
    expect(() => pairsOf([part("t", "token")], values)).toThrow(PartMissing);
    expect(() => pairsOf([part("c", "code")], values)).toThrow(PartMissing);
  });

  it("cannot be made to write beside its own object", () => {
    expect(() => jsonOf([part("/__proto__/admin", "password")], values)).toThrow(PartMissing);
    expect(() => jsonOf([part("/constructor/prototype/x", "password")], values)).toThrow(PartMissing);
    expect(({} as Record<string, unknown>).admin).toBeUndefined();
  });
});

describe("steps as they are stored", () => {
  it("take addresses without query, fragment, user name or final slash, and nothing but web addresses", () => {
    expect(plainPage("https://u:p@a.example/x/?t=secret#f")).toBe("https://a.example/x");
    expect(plainPage("javascript:alert(1)")).toBeNull();
    const page = { page: "file:///etc/passwd", enters: [], presses: null };
    expect(stepsSchema.safeParse({ pages: [page] }).success).toBe(false);
    expect(stepsSchema.parse({})).toEqual(NO_STEPS);
    const header = (name: string) => ({ name, holds: "fixed", value: "x" });
    const sends = (name: string) => ({ to: "https://a.example", encoding: "json", parts: [], headers: [header(name)] });
    const withHeader = (name: string) => ({ page: "https://a.example", enters: [], presses: null, sends: sends(name) });
    expect(stepsSchema.safeParse({ pages: [withHeader("x-token")] }).success).toBe(true);
    for (const name of ["cookie", "host", "authorization", "x-a\r\nhost"])
      expect(stepsSchema.safeParse({ pages: [withHeader(name)] }).success).toBe(false);
  });
});
