import type { Language } from "./language";

/** Malay. */
export const ms: Language = {
  signIn: { words: "log masuk" },
  register: { words: "cipta akaun, daftar( akaun)?" },
  reset: { words: "lupa kata laluan, tetapkan semula( kata laluan)?" },
  change: { words: "tukar kata laluan, kata laluan baharu" },
  confirm: { words: "sahkan" },
  old: { words: "semasa" },
  new: { words: "baharu" },
  password: { words: "kata laluan" },
  email: { words: "alamat e mel, e mel" },
  code: { words: "kod pengesahan" },
  newsletter: { words: "surat berita, langgan" },
  next: { words: "seterusnya" },
  particulars: { words: "nama (pertama|keluarga)" },
};
