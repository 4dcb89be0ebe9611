/**
 * The words by which sign-in pages in many languages say what a field or form is for. Matched against text that
 * `plain` has made lower-case, without accents, with camelCase and punctuation turned into spaces.
 */

/** "logInForm_e-mail" → "log in form e mail"; accents fall away in Latin, Greek and Cyrillic alike. */
export function plain(text: string): string {
  return text
    .replace(/(\p{Ll}|\d)(\p{Lu})/gu, "$1 $2")
    .normalize("NFKD")
    .replace(/\p{M}+/gu, "")
    .toLowerCase()
    .replaceAll("ß", "ss")
    .replaceAll("ø", "o")
    .replaceAll("æ", "ae")
    .replaceAll("ł", "l")
    .replaceAll("ı", "i")
    .replace(/[^\p{L}\p{N}]+/gu, " ")
    .trim();
}

const any = (...patterns: string[]): RegExp => new RegExp(patterns.join("|"), "u");
/** Whole words; the ends are spaces or the text's own. */
const word = (...words: string[]): string => `(?:^| )(?:${words.join("|")})(?= |$)`;

export const SIGN_IN = any(
  word(
    "sign ?in", "signin", "sign ?on", "signon", "log ?in", "login", "log ?on", "logon", "logging in", "members?( area)?", "sso", "auth", "authenticate",
    "einloggen", "anmelden", "anmeldung", "einloggen", "zugang",
    "connexion", "se connecter", "connectez vous", "identifiez vous", "me connecter", "s identifier", "connecter", "ouvrir une session", "deja client",
    "iniciar( la)? sesion", "inicia( tu)? sesion", "inicio de sesion", "acceder", "acceso", "entrar", "ingresar", "ingreso", "identificate",
    "accedi", "accesso", "entra", "autenticazione", "accedere",
    "iniciar sessao", "inicie sessao", "acessar", "acesso", "entrar na conta", "fazer login",
    "inloggen", "aanmelden", "log in",
    "logga in", "inloggning", "log ind", "logg inn", "logg pa", "innlogging", "kirjaudu( sisaan)?", "kirjautuminen", "sisaan",
    "zaloguj( sie)?", "logowanie", "prihlasit( se| sa)?", "prihlaseni", "prihlasenie", "prihlaste", "bejelentkezes", "belepes", "bejelentkezem",
    "autentificare", "conectare", "intra in cont", "giris( yap)?", "oturum ac", "prijava", "prijavi se", "prijavite se", "sisselogimine", "logi sisse", "pieslegties", "prisijungti",
    "iniciar sessio", "inicia sessio", "saioa hasi", "innskraning", "skra inn", "mewngofnodi", "dang nhap", "masuk", "log masuk",
  ),
  "войти", "воити", "вход", "авторизация", "авторизоваться", "увіити", "увіити", "вхід", "влез", "пријава", "пријави се",
  "συνδεση", "εισοδος", "είσοδος",
  "ログイン", "ロクイン", "サインイン", "サインイン", "로그인", "로그인", "登录", "登錄", "登入", "تسجيل الدخول", "دخول", "ورود", "התחבר", "כניסה", "התחברות", "लॉग इन", "लॉगिन", "เข้าสู่ระบบ", "เขาสระบบ",
);

export const REGISTER = any(
  word(
    "register", "registration", "sign ?up", "signup", "create( an| your| my| a)?( new| free)? (account|profile|login)", "new (account|customer|user|member)", "join( us| now| free)?", "enrol", "enroll", "enrolment", "get started", "become a member", "open an account", "start( your)?( free)? trial", "create account", "apply now",
    "registrieren", "registrierung", "konto (erstellen|anlegen|eroffnen)", "neues konto", "neukunde", "neu hier", "jetzt mitglied werden",
    "s inscrire", "inscription", "inscrivez vous", "creer( un| mon| votre)? compte", "nouveau client", "je m inscris", "m inscrire",
    "registrarse", "registrate", "registro", "crear( una| mi| tu)? cuenta", "nueva cuenta", "darse de alta", "date de alta", "unirse",
    "registrati", "registrazione", "registrarsi", "crea( un| il tuo)? (account|profilo|conto)", "iscriviti ora", "nuovo cliente",
    "registar", "registo", "registar se", "registe se", "cadastrar", "cadastro", "cadastre se", "criar( uma| a sua| sua)? conta", "inscreva se",
    "registreren", "registreer", "account (aanmaken|maken)", "maak( een)? account( aan)?", "nieuwe klant",
    "registrera( dig)?", "skapa( ett)? konto", "bli medlem", "opret( en)? (konto|profil|bruger)", "opprett( en)? (konto|bruker|profil)", "registrer( deg| dig)?", "luo tili", "rekisteroidy", "luo tunnus",
    "zarejestruj( sie)?", "rejestracja", "zaloz konto", "utworz konto", "registrovat( se| sa)?", "registrace", "registracia", "vytvorit( si)? ucet", "zalozit ucet", "regisztracio", "regisztralok", "fiok letrehozasa",
    "inregistrare", "creare cont", "creeaza( un)? cont", "cont nou", "kayit ol", "uye ol", "hesap olustur", "kaydol", "registracija", "registriraj se", "registreeru", "dang ky", "daftar", "cofrestru",
  ),
  "регистрация", "зарегистрироваться", "создать аккаунт", "реєстрація", "зареєструватися", "створити акаунт", "регистрирам", "εγγραφη", "δημιουργια λογαριασμου",
  "新規登録", "会員登録", "アカウント(を)?作成", "登録する", "회원가입", "가입하기", "계정 만들기", "注册", "註冊", "创建(帐|账)(户|号)", "إنشاء حساب", "انشاء حساب", "تسجيل جديد", "حساب جديد", "ثبت نام", "הרשמה", "הירשם", "צור חשבון", "पंजीकरण", "สมัครสมาชิก",
);

export const RESET = any(
  word(
    "forgot(ten)?( your| my| the)?( password| username| pin)?", "reset( your| my| the)?( password)?", "password (reset|recovery|help|reminder|assistance)", "recover( your| my)?( account| password| access)?", "lost( your)? password", "send( me)?( a)?( password)?( reset)?( the)? (link|instructions|email|e mail)", "remind", "account recovery", "trouble (signing|logging) in", "retrieve password",
    "passwort (vergessen|zurucksetzen|anfordern)", "kennwort (vergessen|zurucksetzen)", "zurucksetzen", "neues passwort anfordern",
    "mot de passe (oublie|perdu)", "reinitialiser( le| mon| votre)?( mot de passe)?", "reinitialisation", "recuperer( mon)? (mot de passe|compte)", "nouveau mot de passe par",
    "olvide( mi| la)? (contrasena|clave)", "olvidaste", "recuperar( la| tu| mi| su)? (contrasena|clave|cuenta|acceso|senha|palavra passe)", "restablecer( la| tu| mi| su)?( contrasena| clave)?", "has olvidado",
    "password dimenticata", "recupera( la)? password", "recupero password", "reimposta( la)?( password)?", "ripristina password",
    "esqueci( a| minha)?( senha| me)?", "esqueceu", "redefinir( a| sua)?( senha| palavra passe)?", "recuperacao", "repor( a)? palavra passe",
    "wachtwoord (vergeten|resetten|herstellen|opvragen)", "nieuw wachtwoord aanvragen",
    "glomt( ditt)? losenord", "aterstall( losenord)?", "glemt( din| dit)? (adgangskode|kodeord|passord)", "nulstil( adgangskode)?", "tilbakestill( passord)?", "unohditko( salasanan)?", "salasana unohtunut", "palauta salasana", "nollaa salasana",
    "nie pamietasz hasla", "zapomnial(es|as|em)?( hasla)?", "resetuj haslo", "odzyskaj haslo", "zresetuj haslo", "przypomnij haslo", "odzyskiwanie hasla", "zapomenute heslo", "zabudnute heslo", "obnovit heslo", "obnova hesla", "elfelejtett jelszo", "jelszo (visszaallitasa|emlekezteto)", "uj jelszo kerese",
    "ai uitat parola", "resetare parola", "recuperare parola", "sifremi unuttum", "sifre (sifirlama|yenileme)", "parolami unuttum", "sifreyi sifirla", "zaboravljena lozinka", "pozabljeno geslo", "quen mat khau", "lupa (kata sandi|password)",
  ),
  "забыли пароль", "восстановить", "восстановление", "сбросить пароль", "забули пароль", "відновити", "відновлення", "забравена парола", "επαναφορα κωδικου", "ξεχασα", "ξεχασατε", "υπενθυμιση",
  "パスワードを忘れ", "ハスワートを忘れ", "パスワード(の)?再設定", "ハスワート(の)?再設定", "再設定", "비밀번호 (찾기|재설정)", "비밀번호를 잊", "忘记密码", "忘記密碼", "找回密码", "重置密码", "重設密碼", "نسيت كلمة", "استعادة كلمة", "اعادة تعيين", "إعادة تعيين", "בازیابی", "بازیابی", "שכחתי סיסמה", "איפוס סיסמה", "ลืมรหัสผ่าน",
);

export const CHANGE = any(
  word(
    "change( your| my| the)?( account)? password", "(update|set|choose|create|enter|pick)( your| a| my)?( new)? password", "new password", "password change", "expired password", "password( has)? expired",
    "passwort (andern|aendern|festlegen|vergeben|setzen)", "neues (passwort|kennwort)", "kennwort (andern|aendern)",
    "(changer|modifier|changement)( de| le| mon| votre)? mot de passe", "nouveau mot de passe", "definir( un)? mot de passe",
    "cambiar( la| tu| mi| su)? (contrasena|clave)", "cambio de (contrasena|clave)", "nueva (contrasena|clave)", "modificar (contrasena|clave)",
    "(cambia|modifica|cambio)( la| tua)? password", "nuova password", "(alterar|mudar|trocar)( a| sua)? (senha|palavra passe)", "nova (senha|palavra passe)",
    "wachtwoord (wijzigen|veranderen|instellen)", "nieuw wachtwoord", "(byt|andra) losenord", "nytt losenord", "(skift|aendr|andr) (adgangskode|kodeord)", "ny adgangskode", "nytt passord", "(bytt|endre) passord", "vaihda salasana", "uusi salasana",
    "zmien haslo", "zmiana hasla", "nowe haslo", "(zmenit|zmena) (heslo|hesla)", "nove heslo", "jelszo (modositasa|megvaltoztatasa|csere)", "uj jelszo", "schimba(re|ti)? parola", "parola noua", "sifre degistir", "yeni (sifre|parola)", "doi mat khau", "nova lozinka",
  ),
  "(из|с)менить пароль", "смена пароля", "сменить пароль", "новыи пароль", "змінити пароль", "новии пароль", "αλλαγη κωδικου", "νεος κωδικος", "パスワード(の)?変更", "ハスワート(の)?変更", "新しいパスワード", "新しいハスワート", "비밀번호 변경", "새 비밀번호", "修改密码", "更改密码", "變更密碼", "新密码", "新密碼", "تغيير كلمة", "كلمة المرور الجديدة", "שינוי סיסמה", "סיסמה חדשה",
);

export const CONFIRM = any(
  word("confirm( password)?", "confirmation", "repeat( password)?", "again", "retype", "re enter", "reenter", "verify password", "password ?2", "pass2", "pwd2", "wiederholen", "wiederholung", "bestatigen", "bestatigung", "confirmer", "repeter", "repetir", "repite", "confirmar", "conferma", "ripeti", "herhaal", "bevestig(en)?", "upprepa", "bekrafta", "gentag", "gjenta", "bekreft", "toista", "vahvista", "powtorz", "potwierdz", "zopakovat", "potvrdit", "potvrzeni", "znovu", "megerosites", "ismet", "ujra", "confirma", "repeta", "tekrar", "onayla", "xac nhan", "nhap lai", "ponovite", "ulangi"),
  "повтор", "подтверд", "підтверд", "ще раз", "еще раз", "επιβεβαιωση", "επαναληψη", "確認", "再入力", "もう一度", "확인", "확인", "确认", "確認密碼", "重复", "تأكيد", "تاكيد", "אישור", "אימות סיסמה",
);

/** Of a password field: the one in force now. */
export const OLD = any(
  word("old", "current", "existing", "present", "oldpass(word)?", "aktuelles", "altes", "bisheriges", "ancien", "actuel", "actual", "antigua", "anterior", "attuale", "vecchia", "atual", "antiga", "huidig(e)?", "oude?", "nuvarande", "gammalt", "nuvaerende", "gammel", "gammelt", "navaerende", "nykyinen", "vanha", "obecne", "stare", "aktualne", "soucasne", "sucasne", "jelenlegi", "regi", "actuala", "veche", "mevcut", "eski", "cu"),
  "текущии", "старыи", "поточнии", "старии", "τρεχων", "παλιος", "現在の", "현재", "当前", "原密码", "旧密码", "目前", "الحالية", "נוכחית",
);

export const NEW = any(
  word("new", "newpass(word)?", "neues?", "nouveau", "nueva", "nuova", "nova", "nieuw(e)?", "nytt?", "ny", "uusi", "nowe", "nove", "uj", "noua", "yeni", "moi", "baru", "choose", "create"),
  "новы(и|й)", "новии", "νεος", "新しい", "새", "新密", "新しい", "الجديدة", "חדשה",
);

export const PASSWORD = any(
  word("password", "passwd", "passwort", "kennwort", "pass", "pwd", "pword", "passphrase", "passcode", "mot de passe", "mdp", "contrasena", "clave", "senha", "palavra passe", "wachtwoord", "losenord", "adgangskode", "kodeord", "passord", "salasana", "haslo", "heslo", "jelszo", "parola", "sifre", "lozinka", "geslo", "parool", "parole", "slaptazodis", "mat khau", "kata sandi", "cyfrinair", "contrasenya", "pasahitza", "lykilord"),
  "пароль", "парола", "лозинка", "κωδικος προσβασης", "κωδικος", "συνθηματικο", "パスワード", "ハスワート", "비밀번호", "비밀번호", "密码", "密碼", "كلمة المرور", "كلمة السر", "رمز عبور", "סיסמה", "पासवर्ड", "รหัสผ่าน", "รหสผาน",
);

export const USER_NAME = any(
  word("user ?(name|id)?", "username", "userid", "uname", "usr", "login( ?(name|id))?", "logon( ?id)?", "account( ?(name|id|number|no))?", "member( ?(id|number|no|name))?", "customer( ?(id|number|no))?", "client( ?(id|number|no))?", "email or .*", "handle", "staff( ?(id|number|no))", "employee( ?(id|number|no))", "card ?number", "reference( ?number)?", "benutzer(name|kennung)?", "nutzername", "kennung", "kundennummer", "kunden nr", "mitgliedsnummer", "anmeldename", "identifiant", "nom d utilisateur", "utilisateur", "numero (de )?client", "pseudo", "usuario", "nombre de usuario", "numero de cliente", "nome utente", "utente", "codice (cliente|utente)", "utilizador", "nome de (utilizador|usuario)", "gebruiker(snaam)?", "klantnummer", "anvandar(namn|id)?", "kundnummer", "bruger(navn|id)?", "bruker(navn|id)?", "kundenummer", "kayttaja(tunnus|nimi)?", "tunnus", "asiakasnumero", "uzytkownik(a)?", "nazwa uzytkownika", "uzivatel(ske jmeno)?", "uzivatelske", "prihlasovaci( jmeno)?", "pouzivatel(ske meno)?", "pouzivatelske", "felhasznalo(nev)?", "utilizator", "nume( de)? utilizator", "kullanici( adi)?", "korisnicko ime", "uporabnisko ime", "kasutajanimi", "lietotajvards", "ten dang nhap", "nama pengguna", "usuari", "enw defnyddiwr", "dni", "nif", "personnummer", "cpf", "codice fiscale", "matricola", "matricule"),
  "логин", "имя пользователя", "пользователь", "логін", "ім я користувача", "користувач", "потребител", "корисничко", "ονομα χρηστη", "χρηστης", "ユーザー?(名|id)", "ユーサー(名|id)", "ログインid", "ロクインid", "会員番号", "利用者id", "아이디", "아이디", "사용자", "用户名", "用戶名", "帐号", "账号", "帳號", "使用者", "اسم المستخدم", "نام کاربری", "שם משתמש", "תעודת זהות", "ชื่อผู้ใช้", "ชอผใช",
);

export const EMAIL = any(
  word("e ?mail( ?(address|id))?", "mail( ?address)?", "email", "e ?mail adresse", "mailadresse", "courriel", "adresse (e ?mail|mail|electronique)", "correo( electronico)?", "posta elettronica", "indirizzo e ?mail", "e ?post( ?adress(e)?)?", "sahkoposti(osoite)?", "adres e ?mail", "eposta", "e posta", "epost", "emailova adresa", "poczta", "ebost"),
  "почта", "почты", "пошта", "имеил", "имейл", "email", "メールアドレス", "メールアトレス", "이메일", "邮箱", "電子郵件", "电子邮件", "信箱", "البريد", "ایمیل", "אימייל", "דוא ל", "อีเมล", "อเมล",
);

export const PHONE = any(
  word("phone( number)?", "mobile( number)?", "telephone", "tel", "handy(nummer)?", "telefon(nummer)?", "telefonnummer", "mobil(nummer)?", "portable", "movil", "cellulare", "telemovel", "celular", "telefoon(nummer)?", "mobiel", "puhelin(numero)?"),
  "телефон", "電話番号", "携帯", "휴대폰", "手机", "手機", "الجوال", "الهاتف", "טלפון",
);

export const CODE = any(
  word("otp", "totp", "one time( ?(pass)?(code|word)?)?", "onetimecode", "2fa", "mfa", "two factor( code)?", "two step( code)?", "(verification|security|authentication|authenticator|auth|access|confirmation|login|passcode|sms|six digit|6 digit) ?code", "code from", "authenticator", "token( ?code)?", "verification", "einmal(code|passwort|kennwort)", "bestatigungscode", "sicherheitscode", "verifizierungscode", "code( de)? (verification|securite|validation|confirmation)", "code (a usage unique|recu|unique)", "codigo( de)? (verificacion|verificacao|seguridad|seguranca|acceso|confirmacion|autenticacion)", "codice( di)? (verifica|sicurezza|conferma|accesso)", "verificatie ?code", "beveiligingscode", "eenmalige code", "engangs(kod|kode)", "verifieringskod", "sakerhetskod", "bekreftelseskode", "bekraeftelseskode", "vahvistuskoodi", "kertakayttokoodi", "turvakoodi", "kod (weryfikacyjny|jednorazowy|sms|z aplikacji|bezpieczenstwa)", "overovaci kod", "jednorazovy kod", "ellenorzo kod", "egyszer hasznalatos", "cod( de)? (verificare|securitate)", "dogrulama kodu", "guvenlik kodu", "tek kullanimlik", "ma xac (minh|nhan|thuc)", "kode (verifikasi|otp)", "digit", "verifycode", "authcode", "mfacode", "otpcode"),
  "код подтверждения", "код из", "одноразовыи", "код підтвердження", "одноразовии", "код за потвърждение", "κωδικος (επαληθευσης|μιας χρησης)", "認証コード", "認証コート", "確認コード", "確認コート", "ワンタイム", "인증(번호| 코드|코드)", "验证码", "驗證碼", "动态码", "رمز التحقق", "رمز التأكيد", "קוד אימות", "קוד חד", "รหัสยืนยัน",
);

export const SEARCH = any(
  word("search", "query", "q", "s", "find", "suche(n)?", "recherche(r)?", "rechercher", "buscar", "busqueda", "cerca", "ricerca", "pesquisar?", "busca", "zoek(en)?", "sok", "sog", "haku", "hae", "szukaj", "hledat", "hladat", "vyhledavani", "kereses", "cauta(re)?", "ara", "arama", "keyword", "keywords", "tim kiem", "cari"),
  "поиск", "искать", "пошук", "наити", "αναζητηση", "検索", "검색", "搜索", "搜尋", "بحث", "חיפוש",
);

export const NEWSLETTER = any(
  word("newsletter", "news letter", "subscribe", "subscription", "mailing list", "stay (in touch|informed|up to date)", "get (our )?(news|updates|offers)", "keep me posted", "sign ?up for (our )?(news|updates|offers|newsletter|emails?)", "abonnieren", "s abonner", "abonnez vous", "infolettre", "suscribirse", "suscribete", "suscripcion", "boletin", "iscriviti( alla newsletter)?", "subscrever", "assinar", "nyhetsbrev", "nyhedsbrev", "prenumerera", "tilmeld( nyhedsbrev)?", "uutiskirje", "tilaa", "nieuwsbrief", "abonneren", "zapisz sie", "subskrybuj", "odebirat", "odoberat", "novinky", "hirlevel", "feliratkozas", "abonare", "buletin", "bulten", "abone ol", "unsubscribe", "notify me", "waitlist", "waiting list"),
  "подписаться", "подписка", "рассылка", "підписатися", "ενημερωτικο", "メールマガジン", "購読", "구독", "뉴스레터", "订阅", "訂閱", "اشترك", "الإخبارية", "עלון", "הצטרפו לניוזלטר",
);

export const NEXT = any(
  word("next", "continue", "proceed", "weiter", "fortfahren", "suivant", "continuer", "siguiente", "continuar", "avanti", "continua", "prosegui", "seguinte", "avancar", "proximo", "volgende", "verder", "doorgaan", "nasta", "fortsatt", "naste", "naeste", "fortsaet", "neste", "seuraava", "jatka", "dalej", "kontynuuj", "dalsi", "pokracovat", "dalsie", "kovetkezo", "tovabb", "urmatorul", "mai departe", "continuati", "ileri", "devam( et)?", "sonraki", "tiep tuc", "tiep theo", "lanjut(kan)?", "berikutnya", "dalje", "naprej"),
  "далее", "продолжить", "далі", "продовжити", "напред", "продължи", "επομενο", "συνεχεια", "次へ", "続ける", "다음", "계속", "下一步", "继续", "繼續", "التالي", "متابعة", "הבא", "המשך", "ต่อไป",
);

/** Buttons that show or hide a password, clear a field, close or cancel: never the submit. */
export const ASIDE = any(
  word("show( password)?", "hide( password)?", "toggle", "reveal", "clear", "close", "cancel", "back", "menu", "dismiss", "eye", "help", "language", "resend( code)?", "send again", "anzeigen", "ausblenden", "abbrechen", "schliessen", "zuruck", "afficher", "masquer", "annuler", "fermer", "retour", "mostrar", "ocultar", "cancelar", "cerrar", "volver", "mostra", "nascondi", "annulla", "chiudi", "indietro", "tonen", "verbergen", "annuleren", "sluiten", "terug", "visa", "dolj", "avbryt", "vis", "skjul", "annuller", "nayta", "piilota", "peruuta", "pokaz", "ukryj", "anuluj", "wroc", "zobrazit", "skryt", "zrusit", "zpet", "goster", "gizle", "iptal"),
  "показать", "скрыть", "отмена", "назад", "表示", "キャンセル", "キャンセル", "戻る", "显示", "取消", "返回", "보기", "취소", "إلغاء", "ביטול",
);

/** Ways in that are another organisation's. */
export const ELSEWHERE = any(
  word("(sign in|log in|login|continue|connect|anmelden|se connecter|connexion|accedi|entrar|iniciar sesion|inloggen|logga in) (with|using|via|mit|avec|con|com|met|med) (?!e ?mail|password|your (e ?mail|password)|username|passwort|mot de passe|contrasena|user)", "sso", "single sign ?on", "passkey", "magic link", "facebook", "qr code"),
);

/** Fields of a person's particulars: they belong to a registration or an order, not to a sign-in. */
export const PARTICULARS = any(
  word("first ?name", "last ?name", "full ?name", "your name", "surname", "given ?name", "family ?name", "fname", "lname", "birth(day|date)?", "date of birth", "dob", "street", "postcode", "zip( code)?", "city", "country", "company( name)?", "organi[sz]ation( name)?", "gender", "vorname", "nachname", "geburtsdatum", "strasse", "plz", "prenom", "nom( de famille)?", "date de naissance", "code postal", "nombre", "apellidos?", "fecha de nacimiento", "cognome", "nome", "data di nascita", "apelido", "sobrenome", "data de nascimento", "voornaam", "achternaam", "geboortedatum", "fornamn", "efternamn", "fornavn", "etternavn", "efternavn", "etunimi", "sukunimi", "imie( i nazwisko)?", "nazwisko", "jmeno( a prijmeni)?", "prijmeni", "meno", "priezvisko", "keresztnev", "vezeteknev", "prenume", "ad", "soyad", "adiniz", "soyadiniz", "ho ten", "nama( lengkap)?", "ime", "prezime"),
  "имя(?! пользователя)", "фамилия", "дата рождения", "ім я(?! користувача)", "прізвище", "ονομα(?! χρηστη)", "επωνυμο", "氏名", "お名前", "姓", "생년월일", "이름", "姓名", "生日", "الاسم(?! المستخدم)", "שם פרטי", "שם משפחה",
);

/** Order forms, contact forms, comments. */
export const OTHER_PURPOSE = any(
  word("contact( us)?", "comment", "message", "enquiry", "inquiry", "feedback", "checkout", "donate", "coupon", "voucher", "promo( code)?", "gift ?card", "discount", "quote", "track( your)?( order| parcel)?", "kontakt", "nachricht", "kommentar", "gutschein", "message", "commentaire", "mensaje", "comentario", "messaggio", "mensagem", "bericht", "melding", "meddelande", "viesti", "wiadomosc", "zprava", "uzenet", "mesaj"),
  "сообщение", "коментар", "комментарии", "μηνυμα", "お問い合わせ", "문의", "留言",
);
