import type { Language } from "./language";

/** Indonesian. */
export const id: Language = {
  signIn: { words: "masuk" },
  register: { words: "daftar, buat akun" },
  reset: { words: "lupa (kata sandi|password), atur ulang kata sandi, atur ulang" },
  change: { words: "ubah kata sandi, kata sandi baru" },
  confirm: { words: "ulangi, konfirmasi" },
  old: { words: "saat ini, lama" },
  new: { words: "baru" },
  password: { words: "kata sandi" },
  userName: { words: "nama pengguna" },
  email: { words: "surel" },
  code: { words: "kode (verifikasi|otp)" },
  search: { words: "cari" },
  newsletter: { words: "buletin( kami)?, berlangganan" },
  next: { words: "lanjut(kan)?, berikutnya, lanjut" },
  send: { words: "kirim, simpan, konfirmasi" },
  remember: { words: "ingat saya" },
  particulars: { words: "nama( lengkap)?, nama (depan|belakang)" },
};
