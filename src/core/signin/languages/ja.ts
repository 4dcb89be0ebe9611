import type { Language } from "./language";

/** Japanese. */
export const ja: Language = {
  signIn: { parts: "ログイン, ロクイン, サインイン, サインオン" },
  register: { parts: "新規登録, 会員登録, アカウント(を)?作成, 登録する, アカウント登録, 登録はこちら" },
  reset: {
    parts:
      "パスワードを忘れ, ハスワートを忘れ, パスワード(の)?再設定, ハスワート(の)?再設定, 再設定, 再発行, パスワードを忘れた",
  },
  change: { parts: "パスワード(の)?変更, ハスワート(の)?変更, 新しいパスワード, 新しいハスワート" },
  confirm: { parts: "確認, 再入力, もう一度, 確認密碼" },
  old: { parts: "現在の" },
  new: { parts: "新しい" },
  password: { parts: "パスワード, ハスワート" },
  userName: { parts: "ユーザー?(名|id), ユーサー(名|id), ログインid, ロクインid, 会員番号, 利用者id" },
  email: { parts: "メールアドレス, メールアトレス" },
  phone: { parts: "電話番号, 携帯" },
  code: { parts: "認証コード, 認証コート, 確認コード, 確認コート, ワンタイム, 6桁, 確認番号, 暗証番号" },
  search: { parts: "検索" },
  newsletter: { parts: "メールマガジン, 購読" },
  next: { parts: "次へ, 続ける, 続行, 進む" },
  send: { parts: "送信, 確認, 保存, 変更する, 更新" },
  aside: { parts: "表示, キャンセル, 戻る" },
  remember: { parts: "ログイン状態を保存, ロクイン状態を保持, 次回から" },
  particulars: { parts: "氏名, お名前" },
  otherPurpose: { parts: "お問い合わせ" },
  settings: { parts: "サーバー,データベース,ホスト名,タイムゾーン" },
  payment: { parts: "カード番号,ギフトカード,残高,支払い" },
  secondSecret: { parts: "生年月日,秘密の質問" },
};
