import { describe, expect, test } from "vitest";
import { z } from "zod";
import "./inputErrors";

const says = (schema: z.ZodType, value: unknown): string => schema.safeParse(value).error!.issues[0]!.message;

describe("what an input's schema says by itself", () => {
  test.each([
    [z.array(z.string()).max(500), Array(501).fill("x"), "At most 500 items at once."],
    [z.array(z.string()).min(1), [], "Choose at least 1."],
    [z.string().max(50), "x".repeat(51), "At most 50 characters."],
    [z.string().min(1), "", "Fill this in."],
    [z.string().min(3), "ab", "At least 3 characters."],
    [z.number().max(20), 21, "At most 20."],
    [z.object({ name: z.string() }), {}, "Fill this in."],
    [z.enum(["a", "b"]), "c", "This value is not valid."],
    [z.number(), "nine", "This value is not valid."],
  ])("%#: in words", (schema, value, sentence) => expect(says(schema, value)).toBe(sentence));

  test("a schema's own sentence goes first", () =>
    expect(says(z.string().min(1, "Give it a name."), "")).toBe("Give it a name."));
});
