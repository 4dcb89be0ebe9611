import type { Language } from "./language";

/** Korean. */
export const ko: Language = {
  signIn: { parts: "로그인" },
  register: { parts: "회원가입, 가입하기, 계정 만들기" },
  reset: { parts: "비밀번호 (찾기|재설정), 비밀번호를 잊" },
  change: { parts: "비밀번호 변경, 새 비밀번호" },
  confirm: { parts: "확인" },
  old: { parts: "현재" },
  new: { parts: "새" },
  password: { parts: "비밀번호" },
  userName: { parts: "아이디, 사용자" },
  email: { parts: "이메일" },
  phone: { parts: "휴대폰" },
  code: { parts: "인증(번호| 코드|코드)" },
  search: { parts: "검색" },
  newsletter: { parts: "구독, 뉴스레터" },
  next: { parts: "다음, 계속" },
  send: { parts: "확인, 저장, 보내기, 변경" },
  aside: { parts: "보기, 취소" },
  remember: { parts: "로그인 상태 유지, 자동 로그인" },
  particulars: { parts: "생년월일, 이름" },
  otherPurpose: { parts: "문의" },
};
