import { expect, test } from "vitest";
import { plainName } from "./plainName";

test.each([
  ["Pellam Tickets", "Pellam Tickets"],
  ["  Pellam\tTickets\n", "Pellam Tickets"],
  ["Pay\u200broll", "Payroll"],
  ["Payroll\u200d", "Payroll"],
  ["Pay\u200croll", "Payroll"],
  ["\u202egnihton\u202c Payroll", "gnihton Payroll"],
  ["\u2067Payroll\u2069", "Payroll"],
  ["\u{e0050}\u{e0061}Payroll", "Payroll"],
  ["\ufeffPayroll\u3164", "Payroll"],
  ["Cafe\u0301", "Café"],
  ["\u200f\u200b", ""],
])("%j is %j", (typed, name) => expect(plainName(typed)).toBe(name));

test.each([
  "حساب المتجر",
  "می\u200cخواهم",
  "क्\u200dष",
  "קופה",
  "会計",
  "👩🏽\u200d🔧 workshop",
  "🏳️\u200d🌈",
  "Ünïcödé & <b>",
])("%j stays as it is", (name) => expect(plainName(name)).toBe(name));
