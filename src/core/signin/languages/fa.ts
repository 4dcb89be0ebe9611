import type { Language } from "./language";

/** Persian. */
export const fa: Language = {
  signIn: { parts: "ورود" },
  reset: { parts: "بازیابی, رمز عبور را فراموش, فراموشی رمز" },
  change: { parts: "تغییر رمز, رمز عبور جدید" },
  confirm: { parts: "تکرار" },
  old: { parts: "فعلی, قبلی" },
  new: { parts: "جدید" },
  password: { parts: "رمز عبور" },
  userName: { parts: "نام کاربری" },
  email: { parts: "ایمیل" },
  code: { parts: "کد تایید, کد تأیید, کد یکبار" },
  next: { parts: "ادامه, بعدی" },
  send: { parts: "ارسال, تایید, ذخیره" },
  particulars: { parts: "نام خانوادگی" },
};
