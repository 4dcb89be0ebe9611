import { createHmac } from "node:crypto";
import { describe, expect, test } from "vitest";
import { type ForwardedLine, framed, syslogMessage, webhookHeaders } from "./forwarded";

const line: ForwardedLine = {
  ...{ seq: 12, at: Date.parse("2026-12-01T06:00:00.250Z"), act: "access.giveAccess", outcome: "done" },
  ...{ person: "p1", node: "n1", vault: "v1", subject: 's"]\\', names: "{}", hash: "ab", previous: "cd" },
  ...{ details: JSON.stringify({ level: "use", why: "Bürobedarf" }), called: { n1: "Marlpit Bürobedarf" } },
};

describe("a line to a syslog", () => {
  test("has the header, the structured data and the JSON of RFC 5424", () => {
    const message = syslogMessage(line, "galtry.example");
    const [, header, json] = /^(.*\]) \uFEFF(.*)$/.exec(message)!;
    expect(header).toBe(
      '<110>1 2026-12-01T06:00:00.250Z galtry.example galtry - access.giveAccess [galtry@32473 seq="12" outcome="done" person="p1" hash="ab"]',
    );
    expect(JSON.parse(json!)).toEqual({
      ...{ at: "2026-12-01T06:00:00.250Z", seq: 12, act: "access.giveAccess", outcome: "done", person: "p1" },
      ...{ node: "n1", vault: "v1", subject: 's"]\\', hash: "ab", previous: "cd" },
      ...{ details: { level: "use", why: "Bürobedarf" }, called: { n1: "Marlpit Bürobedarf" } },
    });
  });

  test("what was refused is a warning, and nothing in it ends a part before its time", () => {
    expect(syslogMessage({ ...line, outcome: "refused" }, "h")).toMatch(/^<108>1 /);
    const odd = syslogMessage({ ...line, person: 'a"] \\x', act: "x y\nz".padEnd(90, "q") }, "höst name\n");
    expect(odd).toContain('person="a\\"\\] \\\\x"');
    expect(odd).toContain(" hstname galtry - ");
    expect(odd.split(" ")[5]).toBe("xyz".padEnd(32, "q"));
    expect(odd.split("\n")).toHaveLength(1);
    expect(syslogMessage(line, "  ")).toContain("Z - galtry - ");
  });

  test("is framed by its length in octets, not in characters", () => {
    expect(framed(["é", "ab"])).toBe("2 é2 ab");
  });
});

test("a webhook is signed over its id, its moment and its body", () => {
  const headers = webhookHeaders("msg_1", 1_796_104_800_999, "{}", "a secret of the two");
  const signed = createHmac("sha256", "a secret of the two").update("msg_1.1796104800.{}").digest("base64");
  expect(headers).toEqual({
    "webhook-id": "msg_1",
    "webhook-timestamp": "1796104800",
    "webhook-signature": `v1,${signed}`,
  });
});
