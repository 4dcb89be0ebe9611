import type { Made, Wishes } from "@/core/generator";
import type { Strength } from "@/core/generator/strengthWords";
import { workerCall } from "../shared/workerCall";
import type { PasswordAsk } from "./passwords.worker";

/** One worker for the page, begun when it is first needed. */
const passwords = workerCall<PasswordAsk>(
  () => new Worker(new URL("./passwords.worker.ts", import.meta.url), { type: "module" }),
);

export const makePassword = (wishes: Wishes) => passwords.ask<Made>({ ask: "make", wishes });
export const ratePassword = (text: string, hints: string[]) => passwords.ask<Strength>({ ask: "rate", text, hints });
