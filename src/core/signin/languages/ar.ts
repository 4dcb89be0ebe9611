import type { Language } from "./language";

/** Arabic. */
export const ar: Language = {
  signIn: { parts: "تسجيل الدخول, دخول" },
  register: { parts: "إنشاء حساب, انشاء حساب, تسجيل جديد, حساب جديد, ثبت نام, ساخت حساب" },
  reset: { parts: "نسيت كلمة, استعادة كلمة, اعادة تعيين, إعادة تعيين" },
  change: { parts: "تغيير كلمة, كلمة المرور الجديدة" },
  confirm: { parts: "تأكيد, تاكيد" },
  old: { parts: "الحالية" },
  new: { parts: "الجديدة" },
  password: { parts: "كلمة المرور, كلمة السر" },
  userName: { parts: "اسم المستخدم" },
  email: { parts: "البريد" },
  phone: { parts: "الجوال, الهاتف" },
  code: { parts: "رمز التحقق, رمز التأكيد" },
  search: { parts: "بحث, جستجو" },
  newsletter: { parts: "اشترك, الإخبارية, خبرنامه" },
  next: { parts: "التالي, متابعة" },
  send: { parts: "إرسال, تأكيد, حفظ, تحقق" },
  aside: { parts: "إلغاء" },
  remember: { parts: "تذكرني, مرا به خاطر" },
  particulars: { parts: "الاسم(?! المستخدم)" },
};
