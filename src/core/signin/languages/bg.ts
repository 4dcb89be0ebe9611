import type { Language } from "./language";

/** Bulgarian. */
export const bg: Language = {
  signIn: { parts: "влез" },
  register: { parts: "регистрирам, създаите профил" },
  reset: { parts: "забравена парола" },
  change: { parts: "смяна на парол, нова парола" },
  confirm: { parts: "повторете, повтори" },
  old: { parts: "текущ, стар" },
  new: { parts: "нова" },
  password: { parts: "парола" },
  userName: { parts: "потребител, потребителско" },
  email: { parts: "имеил, имейл" },
  code: { parts: "код за потвърждение" },
  search: { parts: "търсене" },
  newsletter: { parts: "бюлетин, абонир" },
  next: { parts: "напред, продължи" },
  send: { parts: "изпрати, потвърди, запази" },
  otherPurpose: { parts: "коментар" },
};
