import type { Language } from "./language";

/** Hindi. */
export const hi: Language = {
  signIn: { parts: "लॉग इन, लॉगिन, साइन इन" },
  register: { parts: "पंजीकरण, खाता बन" },
  reset: { parts: "पासवर्ड भूल, पासवर्ड रीसेट" },
  change: { parts: "पासवर्ड बदल, नया पासवर्ड" },
  confirm: { parts: "पुष्टि" },
  old: { parts: "वर्तमान, पुराना" },
  new: { parts: "नया" },
  password: { parts: "पासवर्ड" },
  userName: { parts: "उपयोगकर्ता नाम, यूज़र" },
  email: { parts: "ईमेल, आईडी ईमेल" },
  code: { parts: "कोड सत्यापन, सत्यापन कोड, ओटीपी" },
  search: { parts: "खोज" },
  newsletter: { parts: "समाचार, सदस्यता" },
  next: { parts: "आगे, जारी रखें" },
  send: { parts: "शेजें, भेजें, सहेजें, सत्यापित, जमा करें" },
  remember: { parts: "मुझे याद" },
  particulars: { parts: "पहला नाम, अंतिम नाम, उपनाम" },
};
