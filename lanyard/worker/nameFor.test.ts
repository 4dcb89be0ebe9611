import { expect, test } from "vitest";
import { nameFor } from "./nameFor";

test.each([
  ["https://pellam.example/in", "Pellam Tickets: sign in", "Pellam Tickets"],
  ["https://pellam.example/in", "Sign in | Pellam Tickets", "Pellam Tickets"],
  ["https://portal.harrow-mere.example/", "Anmelden – Harrow Mere Druck", "Harrow Mere Druck"],
  ["https://www.marlpit-buero.example/", "Marlpit Büro", "Marlpit Büro"],
  ["https://quillbrookcouriers.example/", "Quillbrook · Your parcels", "Quillbrook"],
  // The title says nothing of the host, or only more than a name.
  ["https://pellam.example/in", "Sign in", "Pellam"],
  ["https://pellam.example/in", "", "Pellam"],
  ["https://pellam.example/in", "Harrowmere Printing: sign in", "Pellam"],
  ["https://pellam.example/in", `Pellam ${"x".repeat(80)}`, "Pellam"],
  ["https://harrow-mere.example/", "Welcome", "Harrow mere"],
])("%s, “%s”", (page, title, name) => expect(nameFor(page, title)).toBe(name));
