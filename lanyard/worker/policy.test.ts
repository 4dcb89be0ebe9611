import { expect, test } from "vitest";
import { policyFrom } from "./policy";

test("a policy names one Galtry by its origin, and may switch the offer off", () => {
  expect(policyFrom({})).toEqual({ address: null, offerToAdd: true });
  expect(policyFrom({ address: "https://galtry.company.example/vaults?x" })).toMatchObject({
    address: "https://galtry.company.example",
  });
  for (const address of ["javascript:alert(1)", "galtry", 7, null]) expect(policyFrom({ address }).address).toBeNull();
  expect(policyFrom({ offerToAdd: false }).offerToAdd).toBe(false);
  expect(policyFrom({ offerToAdd: "no" }).offerToAdd).toBe(true);
});
