import type { Language } from "./language";

/** Hebrew. */
export const he: Language = {
  signIn: { parts: "התחבר, כניסה, התחברות, לוגין, הכנס" },
  register: { parts: "הרשמה, הירשם, צור חשבון, יצירת חשבון" },
  reset: { parts: "בازیابی, שכחתי סיסמה, איפוס סיסמה, איפוס" },
  change: { parts: "שינוי סיסמה, סיסמה חדשה" },
  confirm: { parts: "אישור, אימות סיסמה" },
  old: { parts: "נוכחית, סיסמה ישנה" },
  new: { parts: "חדשה" },
  password: { parts: "סיסמה" },
  userName: { parts: "שם משתמש, תעודת זהות" },
  email: { parts: "אימייל, דוא ל, דואר אלקטרוני" },
  phone: { parts: "טלפון" },
  code: { parts: "קוד אימות, קוד חד" },
  search: { parts: "חיפוש" },
  newsletter: { parts: "עלון, הצטרפו לניוזלטר, ניוזלטר" },
  next: { parts: "הבא, המשך" },
  send: { parts: "שליחה, שמירה, אישור, אימות" },
  aside: { parts: "ביטול" },
  remember: { parts: "זכור אותי" },
  particulars: { parts: "שם פרטי, שם משפחה" },
};
