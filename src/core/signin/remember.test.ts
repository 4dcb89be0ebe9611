import { expect, test } from "vitest";
import { asksToRemember } from "./remember";

const box = (label: string, name = "", id = "") => ({ name, id, label });

test.each([
  ...[
    "Remember me",
    "Keep me signed in",
    "Stay logged in",
    "Trust this device",
    "Angemeldet bleiben",
    "Rester connecté",
  ],
  ...["Se souvenir de moi", "Recuérdame", "Mantener la sesión iniciada", "Ricordami", "Lembrar-me", "Onthoud mij"],
  ...[
    "Kom ihåg mig",
    "Husk meg",
    "Muista minut",
    "Zapamiętaj mnie",
    "Zapamatovat si mě",
    "Emlékezz rám",
    "Beni hatırla",
  ],
  ...[
    "Запомнить меня",
    "Запам’ятати мене",
    "Να με θυμάσαι",
    "ログイン状態を保存する",
    "로그인 상태 유지",
    "记住我",
    "تذكرني",
    "זכור אותי",
  ],
])("%s", (label) => {
  expect(asksToRemember(box(label))).toBe(true);
});

test("is known by its name or id where nothing is written beside it", () => {
  for (const name of ["remember", "rememberMe", "remember_me", "persistent", "keepMeSignedIn", "staySignedIn"])
    expect(asksToRemember(box("", name)), name).toBe(true);
  expect(asksToRemember(box("", "x", "chk-remember-me"))).toBe(true);
});

test("other boxes are other boxes", () => {
  for (const label of [
    "I agree to the terms",
    "Show password",
    "Send me news",
    "This is a shared computer",
    "Staff",
    "Member",
  ])
    expect(asksToRemember(box(label, "box")), label).toBe(false);
});
