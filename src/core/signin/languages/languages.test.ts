import { describe, expect, test } from "vitest";
import { patternOf, plain } from "../words";
import { LANGUAGES } from ".";
import { type Language, MEANINGS } from "./language";

const itemsOf = (text: string) =>
  text
    .split(",")
    .map((item) => item.replace(/\s+/g, " ").trim())
    .filter(Boolean);
const all = Object.entries(LANGUAGES);

describe.each(all)("%s", (_, language: Language) => {
  test("every item is a pattern over folded text, and matches no empty one", () => {
    for (const [meaning, { words = "", parts = "" }] of Object.entries(language)) {
      expect(MEANINGS).toContain(meaning);
      for (const item of [...itemsOf(words), ...itemsOf(parts)]) {
        const pattern = new RegExp(item.normalize("NFKD").replace(/\p{M}+/gu, ""), "u");
        expect(pattern.test(""), item).toBe(false);
        // Folded text has no capital letters: an item with one would never be found.
        expect(item.replace(/\\[a-zA-Z]/g, ""), item).not.toMatch(/[A-Z]/);
      }
    }
  });

  test("no item stands in it twice for the same meaning", () => {
    for (const { words = "", parts = "" } of Object.values(language))
      for (const list of [itemsOf(words), itemsOf(parts)]) expect(list.length).toBe(new Set(list).size);
  });
});

test("each language is found by the words of its own sign-in pages", () => {
  const pages: [string, RegExp, string[]][] = [
    [
      "sign in",
      patternOf("signIn"),
      ["Sign in", "Anmelden", "Se connecter", "Iniciar sesión", "Accedi", "Logga in", "Kirjaudu sisään"],
    ],
    [
      "sign in",
      patternOf("signIn"),
      ["Zaloguj się", "Přihlásit se", "Bejelentkezés", "Войти", "Увійти", "Σύνδεση", "ログイン", "로그인"],
    ],
    [
      "sign in",
      patternOf("signIn"),
      ["登录", "تسجيل الدخول", "ورود", "התחברות", "लॉग इन", "เข้าสู่ระบบ", "Đăng nhập", "შესვლა"],
    ],
    [
      "password",
      patternOf("password"),
      ["Kennwort", "Mot de passe", "Contraseña", "Senha", "Wachtwoord", "Lösenord", "Hasło", "Heslo"],
    ],
    [
      "password",
      patternOf("password"),
      ["Jelszó", "Şifre", "Пароль", "Κωδικός πρόσβασης", "パスワード", "비밀번호", "密码", "كلمة المرور"],
    ],
    [
      "reset",
      patternOf("reset"),
      ["Passwort vergessen?", "Mot de passe oublié ?", "¿Olvidaste tu contraseña?", "Glemt passord?"],
    ],
  ];
  for (const [what, pattern, texts] of pages)
    for (const text of texts) expect(pattern.test(plain(text)), `${what}: ${text}`).toBe(true);
});
