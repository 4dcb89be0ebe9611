import type { Language } from "./language";

/** Chinese. */
export const zh: Language = {
  signIn: { parts: "登录, 登錄, 登入, 登陆" },
  register: { parts: "注册, 註冊, 创建(帐|账)(户|号), 建立帳號, 創建帳戶, 创建账号, 创建帐号" },
  reset: { parts: "忘记密码, 忘記密碼, 找回密码, 重置密码, 重設密碼, 重设密码, 重置, 密码找回, 忘记" },
  change: { parts: "修改密码, 更改密码, 變更密碼, 新密码, 新密碼, 設定新密碼, 设置新密码" },
  confirm: { parts: "确认, 重复, 再输入, 再次" },
  old: { parts: "当前, 原密码, 旧密码, 目前, 舊密碼" },
  new: { parts: "新密" },
  password: { parts: "密码, 密碼" },
  userName: { parts: "用户名, 用戶名, 帐号, 账号, 帳號, 使用者" },
  email: { parts: "邮箱, 電子郵件, 电子邮件, 信箱" },
  phone: { parts: "手机, 手機" },
  code: { parts: "验证码, 驗證碼, 动态码" },
  search: { parts: "搜索, 搜尋" },
  newsletter: { parts: "订阅, 訂閱, 電子報, 资讯" },
  next: { parts: "下一步, 继续, 繼續" },
  send: { parts: "提交, 确定, 確定, 送出, 验证, 驗證, 儲存, 确认" },
  aside: { parts: "显示, 取消, 返回" },
  remember: { parts: "记住, 記住, 保持登录, 保持登入, 自动登录" },
  particulars: { parts: "姓, 姓名, 生日, 名字" },
  otherPurpose: { parts: "留言" },
  settings: { parts: "服务器,数据库,主机名,时区,无线" },
  payment: { parts: "卡号,礼品卡,余额,支付" },
  secondSecret: { parts: "出生日期,密保" },
};
