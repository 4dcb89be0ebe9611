import type { Language } from "./language";

/** Ukrainian. */
export const uk: Language = {
  signIn: { parts: "увіити, вхід" },
  register: { parts: "реєстрація, зареєструватися, створити акаунт, створення облікового, тіркелу" },
  reset: { parts: "забули пароль, відновити, відновлення, скинути пароль" },
  change: { parts: "змінити пароль, новии пароль" },
  confirm: { parts: "підтверд, повторіть" },
  old: { parts: "поточнии, старии" },
  new: { parts: "новии" },
  userName: { parts: "логін, ім я користувача, користувач" },
  code: { parts: "код підтвердження, одноразовии, код від" },
  search: { parts: "пошук" },
  newsletter: { parts: "підписатися, розсилк" },
  next: { parts: "далі" },
  send: { parts: "надіслати, підтвердити, зберегти" },
  remember: { parts: "запам ятати, не виходити" },
  particulars: { parts: "ім я(?! користувача), прізвище" },
};
