import type { Language } from "./language";

/** Thai. */
export const th: Language = {
  signIn: { parts: "เข้าสู่ระบบ, เขาสระบบ, เข้าระบบ" },
  register: { parts: "สมัครสมาชิก, สร้างบัญชี, ลงทะเบียน" },
  reset: { parts: "ลืมรหัสผ่าน, รีเซ็ตรหัสผ่าน, ตั้งรหัสผ่านใหม่" },
  change: { parts: "เปลี่ยนรหัสผ่าน, รหัสผ่านใหม่" },
  confirm: { parts: "ยืนยันรหัส" },
  old: { parts: "ปัจจุบัน, เดิม" },
  new: { parts: "ใหม่" },
  password: { parts: "รหัสผ่าน, รหสผาน" },
  userName: { parts: "ชื่อผู้ใช้, ชอผใช" },
  email: { parts: "อีเมล, อเมล" },
  code: { parts: "รหัสยืนยัน, คода подтв, รหัส otp" },
  search: { parts: "ค้นหา" },
  newsletter: { parts: "จดหมายข่าว, สมัครรับข่าว" },
  next: { parts: "ต่อไป, ถัดไป" },
  send: { parts: "ส่ง, บันทึก, ยืนยัน, ตกลง" },
  remember: { parts: "จดจำฉัน" },
  particulars: { parts: "ชื่อ(?!ผู้ใช้), นามสกุล" },
};
