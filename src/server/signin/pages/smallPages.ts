/** Small pages, in many languages and shapes, and what each is for; none of them is a real site's. */
import type { PageReading } from "../../../core/signin/page";

export type Expected = Partial<PageReading>;
export const page = (body: string, title = "") =>
  `<!doctype html><html><head><title>${title}</title></head><body>${body}</body></html>`;

export const SIGN_IN: [string, string, Expected][] = [
  [
    "plain",
    page(
      '<form method="post"><label for="u">User name</label><input id="u" name="u"><label for="p">Password</label><input id="p" type="password"><button id="go">Sign in</button></form>',
    ),
    { userName: "#u", password: "#p", submit: "#go" },
  ],
  [
    "German, in a table, without labels",
    page(
      '<form name="f"><table><tr><td>Benutzername</td><td><input name="T1"></td></tr><tr><td>Kennwort</td><td><input type="password" name="T2"></td></tr></table><input type="submit" name="B" value="Anmelden"></form>',
    ),
    { userName: 'input[name="T1"]', password: 'input[name="T2"]', submit: 'input[name="B"]' },
  ],
  [
    "French, with forgotten and register links",
    page(
      '<form><h2>Connectez-vous</h2><input id="a" type="email" placeholder="Adresse e-mail"><input id="b" type="password" placeholder="Mot de passe"><a href="/x">Mot de passe oublié ?</a><button id="c" type="submit">Se connecter</button><a href="/y">Créer un compte</a></form>',
    ),
    { userName: "#a", password: "#b", submit: "#c" },
  ],
  [
    "Spanish",
    page(
      '<form><label>Usuario <input id="a"></label><label>Contraseña <input id="b" type="password"></label><input id="c" type="submit" value="Iniciar sesión"></form>',
    ),
    { userName: "#a", password: "#b", submit: "#c" },
  ],
  [
    "Italian",
    page(
      '<form><label>Nome utente <input id="a"></label><label>Password <input id="b" type="password"></label><button id="c">Accedi</button></form>',
    ),
    { userName: "#a", submit: "#c" },
  ],
  [
    "Portuguese",
    page(
      '<form><label>CPF <input id="a"></label><label>Senha <input id="b" type="password"></label><button id="c">Entrar</button></form>',
    ),
    { userName: "#a", submit: "#c" },
  ],
  [
    "Dutch",
    page(
      '<form><label>Gebruikersnaam <input id="a"></label><label>Wachtwoord <input id="b" type="password"></label><button id="c">Inloggen</button></form>',
    ),
    { userName: "#a", submit: "#c" },
  ],
  [
    "Swedish",
    page(
      '<form><label>Användarnamn <input id="a"></label><label>Lösenord <input id="b" type="password"></label><button id="c">Logga in</button></form>',
    ),
    { userName: "#a", submit: "#c" },
  ],
  [
    "Polish",
    page(
      '<form><label>Nazwa użytkownika <input id="a"></label><label>Hasło <input id="b" type="password"></label><button id="c">Zaloguj się</button><a>Zarejestruj się</a></form>',
    ),
    { userName: "#a", submit: "#c" },
  ],
  [
    "Czech",
    page(
      '<form><label>Uživatelské jméno <input id="a"></label><label>Heslo <input id="b" type="password"></label><button id="c">Přihlásit se</button></form>',
    ),
    { userName: "#a", submit: "#c" },
  ],
  [
    "Russian",
    page(
      '<form><label>Логин <input id="a"></label><label>Пароль <input id="b" type="password"></label><button id="c">Войти</button><a>Забыли пароль?</a><a>Регистрация</a></form>',
    ),
    { userName: "#a", submit: "#c" },
  ],
  [
    "Greek",
    page(
      '<form><label>Όνομα χρήστη <input id="a"></label><label>Κωδικός <input id="b" type="password"></label><button id="c">Σύνδεση</button></form>',
    ),
    { userName: "#a", submit: "#c" },
  ],
  [
    "Turkish",
    page(
      '<form><label>Kullanıcı adı <input id="a"></label><label>Şifre <input id="b" type="password"></label><button id="c">Giriş yap</button></form>',
    ),
    { userName: "#a", submit: "#c" },
  ],
  [
    "Hungarian",
    page(
      '<form><label>Felhasználónév <input id="a"></label><label>Jelszó <input id="b" type="password"></label><button id="c">Bejelentkezés</button></form>',
    ),
    { userName: "#a", submit: "#c" },
  ],
  [
    "Japanese",
    page(
      '<form><label>メールアドレス <input id="a" type="email"></label><label>パスワード <input id="b" type="password"></label><button id="c">ログイン</button><a>新規登録</a></form>',
    ),
    { userName: "#a", submit: "#c" },
  ],
  [
    "Chinese",
    page(
      '<form><input id="a" placeholder="用户名"><input id="b" type="password" placeholder="密码"><button id="c">登录</button><a>注册</a></form>',
    ),
    { userName: "#a", submit: "#c" },
  ],
  [
    "Korean",
    page(
      '<form><input id="a" placeholder="아이디"><input id="b" type="password" placeholder="비밀번호"><button id="c">로그인</button><a>회원가입</a></form>',
    ),
    { userName: "#a", submit: "#c" },
  ],
  [
    "Arabic",
    page(
      '<form dir="rtl"><label>اسم المستخدم <input id="a"></label><label>كلمة المرور <input id="b" type="password"></label><button id="c">تسجيل الدخول</button></form>',
    ),
    { userName: "#a", submit: "#c" },
  ],
  [
    "Hebrew",
    page(
      '<form dir="rtl"><label>שם משתמש <input id="a"></label><label>סיסמה <input id="b" type="password"></label><button id="c">התחברות</button></form>',
    ),
    { userName: "#a", submit: "#c" },
  ],
  [
    "no form element, buttons aside",
    page(
      '<main><h1>Log in</h1><div><label>E-mail <input id="a"></label></div><div><input id="b" type="password"><button id="eye" type="button" aria-label="Show password"></button></div><div><button id="c">Log in</button></div></main>',
    ),
    { form: null, userName: "#a", password: "#b", submit: "#c" },
  ],
  [
    "no form, search beside it",
    page(
      '<header><div><input id="s" type="search"><button>Search</button></div></header><main><div class="box"><input id="a" placeholder="Username"><input id="b" type="password"><div role="button" id="c">Sign in</div></div></main>',
    ),
    { form: null, userName: "#a", password: "#b", submit: "#c" },
  ],
  [
    "misleading names: the user name is called search",
    page(
      '<form><label for="q">Member number</label><input id="q" name="search"><label for="x">Secret word</label><input id="x" name="email" type="password"><button id="c">Log on</button></form>',
    ),
    { userName: "#q", password: "#x", submit: "#c" },
  ],
  [
    "a branch first, then the user",
    page(
      '<form><label>Branch <select id="br"><option>North</option></select></label><label>Login <input id="a"></label><label>Password <input id="b" type="password"></label><button id="c">Log in</button></form>',
    ),
    { userName: "#a", submit: "#c" },
  ],
  [
    "a code in the same form",
    page(
      '<form><input id="a" name="username"><input id="b" type="password"><label>Authenticator code <input id="o" autocomplete="one-time-code"></label><button id="c">Sign in</button></form>',
    ),
    { oneTimeCode: "#o", userName: "#a", password: "#b" },
  ],
  [
    "a trap field hidden by style",
    page(
      '<style>.hp{position:absolute;left:-9999px}</style><form><div class="hp"><input id="trap" name="username"></div><input id="a" name="mail" type="email"><input id="b" type="password"><button id="c">Sign in</button></form>',
    ),
    { userName: "#a" },
  ],
  [
    "other organisations' buttons before its own",
    page(
      '<form><button type="submit" id="x" name="idp">Sign in with Other Place</button><input id="a" type="email"><input id="b" type="password"><button id="c" type="submit">Sign in</button></form>',
    ),
    { submit: "#c" },
  ],
  [
    "register, newsletter and search beside it",
    page(
      '<form action="/search"><input name="q"><button>Go</button></form><form action="/register"><input name="email" type="email"><input type="password" autocomplete="new-password"><input type="password" name="repeat"><button>Create account</button></form><form action="/in"><input id="a" type="email" name="login"><input id="b" type="password" name="pw"><button id="c">Log in</button></form><form><input type="email"><button>Subscribe</button></form>',
    ),
    { userName: "#a", password: "#b", submit: "#c" },
  ],
  [
    "a register form in a closed dialog",
    page(
      '<dialog><form><input type="email"><input type="password"><input type="password"><button>Sign up</button></form></dialog><form><input id="a"><input id="b" type="password"><button id="c">Enter</button></form>',
    ),
    { password: "#b" },
  ],
  [
    "autocomplete only",
    page(
      '<form><input id="a" autocomplete="username"><input id="b" type="password" autocomplete="current-password"><button id="c">→</button></form>',
    ),
    { userName: "#a", password: "#b", submit: "#c" },
  ],
  [
    "a button of type button that submits by script",
    page(
      '<form><input id="a" name="user"><input id="b" type="password"><input id="c" type="button" value="Login"></form>',
    ),
    { submit: "#c" },
  ],
  [
    "a PIN as password",
    page(
      '<form><label>Card number <input id="a"></label><label>PIN <input id="b" type="password" maxlength="6" inputmode="numeric"></label><button id="c">Log in</button></form>',
    ),
    { userName: "#a", password: "#b" },
  ],
  [
    "in a modal that is shown",
    page(
      '<div class="modal" style="display:block"><form><input id="a" type="email"><input id="b" type="password"><button class="close" type="button">Close</button><button id="c">Continue</button></form></div>',
      "Sign in",
    ),
    { submit: "#c" },
  ],
  [
    "remember me and a language menu",
    page(
      '<form><select name="lang"><option>English</option></select><input id="a" name="userid"><input id="b" type="password" name="pass"><label><input type="checkbox" name="remember"> Remember me</label><button type="reset">Clear</button><input type="image" id="c" alt="Login" src="x"></form>',
    ),
    { userName: "#a", submit: "#c" },
  ],
];

/** The button's word alone must tell: no field has a telling name. */
export const SIGN_IN_WORDS = [
  "Войти",
  "Увійти",
  "로그인",
  "ログイン",
  "登录",
  "登入",
  "تسجيل الدخول",
  "התחברות",
  "लॉग इन",
  "เข้าสู่ระบบ",
  "Σύνδεση",
  "Đăng nhập",
  "Kirjaudu sisään",
  "Logg inn",
  "Log ind",
  "Bejelentkezés",
  "Conectare",
  "Přihlásit se",
  "Zaloguj się",
  "Giriş yap",
  "Iniciar sesión",
  "Se connecter",
];
export const REGISTER_WORDS = [
  "Зарегистрироваться",
  "회원가입",
  "新規登録",
  "注册",
  "إنشاء حساب",
  "הרשמה",
  "Εγγραφή",
  "Đăng ký",
  "Rekisteröidy",
  "Skapa konto",
  "Regisztráció",
  "Zarejestruj się",
  "Kayıt ol",
  "Crear cuenta",
  "S’inscrire",
  "Konto erstellen",
];

export const OTHERS: [string, string, string, Expected][] = [
  [
    "identifier-first",
    "email and Next",
    page(
      '<h1>Sign in</h1><form><label>E-mail or phone <input id="a" type="text" autocomplete="username"></label><button id="c">Next</button><a>Create account</a></form>',
    ),
    { userName: "#a", password: null, submit: "#c" },
  ],
  [
    "identifier-first",
    "with the password hidden until later",
    page(
      '<h1>Welcome</h1><form><input id="a" name="identifier" type="email"><input type="password" style="display:none"><button id="c">Continue</button></form>',
      "Log in",
    ),
    { userName: "#a", password: null },
  ],
  [
    "identifier-first",
    "German",
    page('<form><h1>Anmelden</h1><input id="a" placeholder="E-Mail-Adresse"><button id="c">Weiter</button></form>'),
    { userName: "#a", submit: "#c" },
  ],
  [
    "identifier-first",
    "without a form",
    page(
      '<div><h1>Log in to your account</h1><div><input id="a" type="email"></div><button id="c">Continue with e-mail</button></div>',
    ),
    { form: null, userName: "#a" },
  ],
  [
    "password-only-step",
    "welcome back",
    page(
      '<form><h1>Welcome back</h1><p>somebody@page.example</p><input id="b" type="password"><button id="c">Sign in</button></form>',
    ),
    { userName: null, password: "#b", submit: "#c" },
  ],
  [
    "password-only-step",
    "with the user name fixed",
    page(
      '<form><input id="a" value="somebody" readonly><input type="hidden" name="user" value="somebody"><label>Password <input id="b" type="password" autocomplete="current-password"></label><button id="c">Log in</button></form>',
    ),
    { userName: null, password: "#b" },
  ],
  [
    "one-time-code-step",
    "one field",
    page(
      '<form><h1>Two-step verification</h1><label>Enter the code from your app <input id="o" name="code" maxlength="6"></label><button id="c">Verify</button></form>',
    ),
    { oneTimeCode: "#o", submit: "#c" },
  ],
  [
    "one-time-code-step",
    "six boxes",
    page(
      `<form><h1>Enter your code</h1>${[1, 2, 3, 4, 5, 6].map((i) => `<input id="d${i}" maxlength="1" inputmode="numeric">`).join("")}<button id="c">Confirm</button><button type="button">Resend code</button></form>`,
    ),
    { oneTimeCode: "#d1", submit: "#c" },
  ],
  [
    "one-time-code-step",
    "German",
    page('<form><label>Bestätigungscode <input id="o" name="tan"></label><button id="c">Bestätigen</button></form>'),
    { oneTimeCode: "#o" },
  ],
  [
    "one-time-code-step",
    "a code typed like a password",
    page(
      '<form><h1>Second step</h1><label>One-time code <input id="o" type="password" autocomplete="one-time-code"></label><button id="c">Continue</button></form>',
    ),
    { oneTimeCode: "#o", password: null },
  ],
  [
    "change-password",
    "old, new, repeat",
    page(
      '<form><label>Current password <input id="old" type="password"></label><label>New password <input type="password"></label><label>Repeat <input type="password"></label><button id="c">Save</button></form>',
    ),
    { password: "#old", submit: "#c" },
  ],
  [
    "change-password",
    "after a reset link",
    page(
      '<form><h1>Choose a new password</h1><input id="n1" type="password" autocomplete="new-password"><input id="n2" type="password" autocomplete="new-password"><button>Set password</button></form>',
    ),
    {},
  ],
  [
    "change-password",
    "French",
    page(
      '<form><label>Ancien mot de passe <input id="old" type="password"></label><label>Nouveau mot de passe <input type="password"></label><button>Modifier le mot de passe</button></form>',
    ),
    { password: "#old" },
  ],
  [
    "register",
    "name, mail, password",
    page(
      '<form><label>First name <input></label><label>Last name <input></label><label>E-mail <input id="a" type="email"></label><label>Password <input id="b" type="password"></label><button id="c">Create account</button></form>',
    ),
    {},
  ],
  [
    "register",
    "mail and new password only",
    page(
      '<form><h1>Sign up</h1><input type="email" id="a"><input type="password" id="b" autocomplete="new-password"><button>Get started</button><p>Already have an account? <a>Log in</a></p></form>',
    ),
    {},
  ],
  [
    "register",
    "mail and password, with a link to sign in",
    page(
      '<form action="/signup"><h1>Create your account</h1><input type="email"><input type="password" placeholder="Choose a password"><button>Continue</button><a href="/login">Sign in</a></form>',
    ),
    {},
  ],
  [
    "register",
    "German",
    page(
      '<form><h1>Registrieren</h1><input type="email"><input type="password"><input type="password" placeholder="Passwort wiederholen"><button>Konto erstellen</button></form>',
    ),
    {},
  ],
  [
    "register",
    "Japanese",
    page('<form><h1>会員登録</h1><input type="email"><input type="password"><button>登録する</button></form>'),
    {},
  ],
  [
    "register",
    "without any word, but with terms to agree to",
    page(
      '<form><input type="email"><input type="password"><label><input type="checkbox" name="t"> I agree to the terms</label><button>Continue</button></form>',
    ),
    {},
  ],
  [
    "register",
    "without any word, but with a rule for the password",
    page(
      '<form><input type="email"><input type="password"><p>At least 8 characters</p><button>Continue</button></form>',
    ),
    {},
  ],
  [
    "register",
    "a name beside the password, and nothing else",
    page(
      '<form><h1>Tell us about you</h1><label>Your name <input></label><input type="email"><input type="password"><button>Next</button></form>',
    ),
    {},
  ],
  [
    "register",
    "named by its title",
    page('<form><input type="email"><input type="password"><button>Submit</button></form>', "Register - Somewhere"),
    {},
  ],
  [
    "change-password",
    "a reset by code",
    page(
      '<form><label>Code from the mail <input name="code"></label><label>New password <input type="password"></label><label>Confirm <input type="password"></label><button>Reset password</button></form>',
    ),
    {},
  ],
  [
    "change-password",
    "one field after a link",
    page(
      '<form><label>Password <input type="password"></label><p>Mindestens 10 Zeichen</p><button>Speichern</button></form>',
    ),
    {},
  ],
  [
    "reset-request",
    "English",
    page(
      '<form><h1>Forgot your password?</h1><input id="a" type="email"><button id="c">Send reset link</button><a>Back to log in</a></form>',
    ),
    { submit: "#c" },
  ],
  [
    "reset-request",
    "Spanish",
    page('<form><h1>Recuperar contraseña</h1><input type="email"><button>Enviar</button></form>'),
    {},
  ],
  [
    "reset-request",
    "named by its title",
    page(
      '<form><p>Enter the address of your account.</p><input type="email"><button>Submit</button></form>',
      "Password reset",
    ),
    {},
  ],
  ["none", "search", page('<form role="search"><input name="q"><button>Search</button></form>'), {}],
  ["none", "newsletter", page('<form><h3>Newsletter</h3><input type="email"><button>Subscribe</button></form>'), {}],
  [
    "none",
    "newsletter that says sign up",
    page('<footer><form><p>Sign up for our newsletter</p><input type="email"><button>Sign up</button></form></footer>'),
    {},
  ],
  [
    "none",
    "contact",
    page(
      '<form><label>Name <input></label><label>E-mail <input type="email"></label><label>Message <textarea></textarea></label><button>Send</button></form>',
    ),
    {},
  ],
  [
    "none",
    "checkout as a guest",
    page(
      '<form action="/checkout"><label>Full name <input></label><label>E-mail <input type="email"></label><label>Street <input></label><label>Postcode <input></label><button>Continue to payment</button></form>',
    ),
    {},
  ],
  ["none", "a voucher", page('<form><label>Voucher code <input name="code"></label><button>Apply</button></form>'), {}],
  [
    "none",
    "everything hidden",
    page(
      '<div hidden><form><input><input type="password"><button>Sign in</button></form></div><template><form><input type="password"></form></template>',
    ),
    {},
  ],
  [
    "none",
    "hidden by a rule",
    page(
      "<style>#login{display:none}</style><div id='login'><form><input><input type=password><button>Sign in</button></form></div>",
    ),
    {},
  ],
  ["none", "drawn by scripts", page('<div id="app"></div><script>start()</script>'), {}],
  [
    "none",
    "comments",
    page(
      '<form><textarea name="comment"></textarea><input name="author"><input type="email"><button>Post comment</button></form>',
    ),
    {},
  ],
  [
    "none",
    "a post code finder",
    page('<form><label>Post code <input name="postcode"></label><button>Find</button></form>'),
    {},
  ],
];
