import type { Language } from "./language";

/** Vietnamese. */
export const vi: Language = {
  signIn: { words: "dang nhap" },
  register: { words: "dang ky, tao tai khoan" },
  reset: { words: "quen mat khau, dat lai mat khau" },
  change: { words: "doi mat khau, mat khau moi" },
  confirm: { words: "xac nhan, nhap lai" },
  old: { words: "cu, hien tai" },
  new: { words: "moi" },
  password: { words: "mat khau" },
  userName: { words: "ten dang nhap" },
  code: { words: "ma xac (minh|nhan|thuc)" },
  search: { words: "tim kiem" },
  newsletter: { words: "ban tin, dang ky nhan tin" },
  next: { words: "tiep tuc, tiep theo" },
  send: { words: "xac nhan, gui, luu, xac minh" },
  remember: { words: "ghi nho" },
  particulars: { words: "ho ten, ho( va ten)?, ten" },
};
