import type { Language } from "./language";

/** Turkish. */
export const tr: Language = {
  signIn: { words: "giris( yap)?, oturum ac" },
  register: { words: "kayit ol, uye ol, hesap olustur, kaydol" },
  reset: { words: "sifremi unuttum, sifre (sifirlama|yenileme), parolami unuttum, sifreyi sifirla" },
  change: { words: "sifre degistir, yeni (sifre|parola)" },
  confirm: { words: "tekrar, onayla" },
  old: { words: "mevcut, eski" },
  new: { words: "yeni" },
  password: { words: "sifre" },
  userName: { words: "kullanici( adi)?" },
  email: { words: "eposta, e posta" },
  code: { words: "dogrulama kodu, guvenlik kodu, tek kullanimlik" },
  search: { words: "ara, arama" },
  newsletter: { words: "bulten, abone ol" },
  next: { words: "ileri, devam( et)?, sonraki" },
  send: { words: "gonder, kaydet, dogrula, onayla" },
  aside: { words: "goster, gizle, iptal" },
  remember: { words: "beni hatirla, oturumu acik tut" },
  particulars: { words: "ad, soyad, adiniz, soyadiniz" },
  otherPurpose: { words: "mesaj" },
};
