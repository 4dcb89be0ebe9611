/**
 * The words by which sign-in pages in many languages say what a field or form is for. Matched against text that
 * `plain` has made lower-case, without accents, with camelCase and punctuation turned into spaces.
 */

/** "logInForm_e-mail" → "log in form e mail"; accents fall away in Latin, Greek and Cyrillic alike. */
export function plain(text: string): string {
  if (/^[\0-\x7f]*$/.test(text))
    return text
      .replace(/([a-z\d])([A-Z])/g, "$1 $2")
      .toLowerCase()
      .replace(/[^a-z\d]+/g, " ")
      .trim();
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
    .replaceAll("đ", "d")
    .replaceAll("ð", "d")
    .replaceAll("þ", "th")
    .replace(/[^\p{L}\p{N}]+/gu, " ")
    .trim();
}

/** A pattern folded as `plain` folds text: without its accents, Hangul in its parts. */
const folded = (pattern: string): RegExp => new RegExp(pattern.normalize("NFKD").replace(/\p{M}+/gu, ""), "u");
/**
 * A pattern from a list: "words:" stand whole, between spaces or the text's own ends; "parts:" may stand inside a run
 * of letters, as in writing without spaces or with endings. Each item is a small regular expression.
 */
function said(list: string): RegExp {
  const [words = "", parts = ""] = list.split("parts:");
  const items = (text: string) =>
    text
      .replace("words:", "")
      .split(",")
      .map((item) => item.trim())
      .filter(Boolean);
  return folded([`(?:^| )(?:${items(words).join("|")})(?= |$)`, ...items(parts)].join("|"));
}

export const SIGN_IN = said(`
  words: sign ?in, signin, sign ?on, signon, log ?in, login, log ?on, logon, logging in,
   members? (area|sign ?in|log ?in), sso, auth, authenticate, einloggen, anmelden, anmeldung, zugang, connexion,
   se connecter, connectez vous, identifiez vous, me connecter, s identifier, connecter, ouvrir une session,
   deja client, iniciar( la)? sesion, inicia( tu)? sesion, inicio de sesion, acceder, acceso, entrar, ingresar,
   ingreso, identificate, accedi, accesso, entra, autenticazione, accedere, iniciar sessao, inicie sessao, acessar,
   acesso, entrar na conta, fazer login, inloggen, aanmelden, log in, logga in, inloggning, log ind, logg inn,
   logg pa, innlogging, kirjaudu( sisaan)?, kirjautuminen, sisaan, zaloguj( sie)?, logowanie, prihlasit( se| sa)?,
   prihlaseni, prihlasenie, prihlaste, bejelentkezes, belepes, bejelentkezem, autentificare, conectare,
   intra in cont, giris( yap)?, oturum ac, prijava, prijavi se, prijavite se, sisselogimine, logi sisse,
   pieslegties, prisijungti, iniciar sessio, inicia sessio, saioa hasi, innskraning, skra inn, mewngofnodi,
   dang nhap, masuk, log masuk,
   ienakt, prisijungimas, inicia la sessio, innskra( mig)?, prijavite se, acceso clientes, logi, sign into, log into, identificarse, acces client,
   meld aan, teken in, hasi saioa, saioa hasi, iniciar sesion, uloguj se, ulogujte se, mewngofnodi
  parts: войти, воити, вход, авторизация, авторизоваться, увіити, вхід, влез, пријава, пријави се, συνδεση, εισοδος,
   είσοδος, ログイン, ロクイン, サインイン, 로그인, 登录, 登錄, 登入, تسجيل الدخول, دخول, ورود, התחבר, כניסה, התחברות, लॉग इन, लॉगिन,
   เข้าสู่ระบบ, เขาสระบบ,
   登陆, サインオン, เข้าระบบ, সাইন ইন, साइन इन, לוגין, הכנס,
   пријави се, најави се, შესვლა, մուտք, кіру, увайсці
`);

export const REGISTER = said(`
  words: register, registration, sign ?up, signup, create( an| your| my| a)?( new| free)? (account|profile|login),
   new account, join( us| now| free)?, enrol, enroll, enrolment, get started, become a member, open an account,
   start( your)?( free)? trial, create account, registrieren, registrierung,
   konto (erstellen|anlegen|eroffnen), neues konto, jetzt mitglied werden, s inscrire, inscription, inscrivez vous,
   creer( un| mon| votre)? compte, je m inscris, m inscrire, registrarse, registrate, registro,
   crear( una| mi| tu)? cuenta, nueva cuenta, darse de alta, date de alta, unirse, registrati, registrazione,
   registrarsi, crea( un| il tuo)? (account|profilo|conto), iscriviti ora, registar, registo, registar se,
   registe se, cadastrar, cadastro, cadastre se, criar( uma| a sua| sua)? conta, inscreva se, registreren,
   registreer, account (aanmaken|maken), maak( een)? account( aan)?, registrera( dig)?, skapa( ett)? konto,
   bli medlem, opret( en)? (konto|profil|bruger), opprett( en)? (konto|bruker|profil), registrer( deg| dig)?,
   luo tili, rekisteroidy, luo tunnus, zarejestruj( sie)?, rejestracja, zaloz konto, utworz konto,
   registrovat( se| sa)?, registrace, registracia, vytvorit( si)? ucet, zalozit ucet, regisztracio, regisztralok,
   fiok letrehozasa, inregistrare, creare cont, creeaza( un)? cont, cont nou, kayit ol, uye ol, hesap olustur,
   kaydol, registracija, registriraj se, registreeru, dang ky, daftar, cofrestru,
   registreeru, loo konto, registruotis, registracija, sukurti paskyra, registreties, izveidot kontu, registra t, crea un compte, nyskraning, stofna adgang, ustvarite racun, otvorite racun, buat akun, tao tai khoan, make an account, new customer, new user, neu hier, ny bruger, cadastre, zaregistrovat( se| sa)?, zalozte( si)? ucet, vytvorte( si)? ucet,
   (create|open|make|set up)( \\w+)?( \\w+)? account, cri(e|ar|ando)( \\w+)?( \\w+)? conta, cre(a|ar|e|ate)( \\w+)?( \\w+)? cuenta, cre(a|are|i)( \\w+)?( \\w+)? (account|conto|profilo), neues \\w*konto, \\w*konto (erstellen|anlegen|eroffnen), (opprett|lag)( \\w+)?( \\w+)? (bruker|konto|profil), skapa( \\w+)?( \\w+)? konto, opret( \\w+)?( \\w+)? (konto|bruger|profil), cre(er|ez|ation)( \\w+)?( \\w+)? compte, maak( \\w+)?( \\w+)? (account|profiel), luo( \\w+)? (tili|tunnus), utworz( \\w+)? konto, zaloz( \\w+)? konto,
   registreer, skep( n)? rekening, erregistratu, sortu( kontua)?, creu cyfrif, cipta akaun, crea( \\w+)? tua conta, daftar( akaun)?
  parts: регистрация, зарегистрироваться, создать аккаунт, реєстрація, зареєструватися, створити акаунт,
   регистрирам, εγγραφη, δημιουργια λογαριασμου, 新規登録, 会員登録, アカウント(を)?作成, 登録する, 회원가입, 가입하기, 계정 만들기, 注册, 註冊,
   创建(帐|账)(户|号), إنشاء حساب, انشاء حساب, تسجيل جديد, حساب جديد, ثبت نام, הרשמה, הירשם, צור חשבון, पंजीकरण,
   สมัครสมาชิก,
   アカウント登録, 登録はこちら, 建立帳號, 創建帳戶, 创建账号, 创建帐号, पंजीकरण, खाता बन, สร้างบัญชี, ลงทะเบียน, ساخت حساب, создание уч, создать уч, створення облікового, създаите профил, יצירת חשבון,
   региструј, направите налог, регистрирај се, რეგისტრაცია, գրանցվել, тіркелу, рэгістрацыя
`);

export const RESET = said(`
  words: forgot(ten)?( your| my| the)?( password| username| pin)?, reset( your| my| the)?( password)?,
   password (reset|recovery|help|reminder|assistance), recover( your| my)?( account| password| access)?,
   lost( your)? password, send( me)?( a)?( password)?( reset)?( the)? (link|instructions|email|e mail), remind,
   account recovery, trouble (signing|logging) in, retrieve password, passwort (vergessen|zurucksetzen|anfordern),
   kennwort (vergessen|zurucksetzen), zurucksetzen, neues passwort anfordern, mot de passe (oublie|perdu),
   reinitialiser( le| mon| votre)?( mot de passe)?, reinitialisation, recuperer( mon)? (mot de passe|compte),
   nouveau mot de passe par, olvide( mi| la)? (contrasena|clave), olvidaste,
   recuperar( la| tu| mi| su)? (contrasena|clave|cuenta|acceso|senha|palavra passe),
   restablecer( la| tu| mi| su)?( contrasena| clave)?, has olvidado, password dimenticata, recupera( la)? password,
   recupero password, reimposta( la)?( password)?, ripristina password, esqueci( a| minha)?( senha| me)?, esqueceu,
   redefinir( a| sua)?( senha| palavra passe)?, recuperacao, repor( a)? palavra passe,
   wachtwoord (vergeten|resetten|herstellen|opvragen), nieuw wachtwoord aanvragen, glomt( ditt)? losenord,
   aterstall( losenord)?, glemt( din| dit)? (adgangskode|kodeord|passord), nulstil( adgangskode)?,
   tilbakestill( passord)?, unohditko( salasanan)?, salasana unohtunut, palauta salasana, nollaa salasana,
   nie pamietasz hasla, zapomnial(es|as|em)?( hasla)?, resetuj haslo, odzyskaj haslo, zresetuj haslo,
   przypomnij haslo, odzyskiwanie hasla, zapomenute heslo, zabudnute heslo, obnovit heslo, obnova hesla,
   elfelejtett jelszo, jelszo (visszaallitasa|emlekezteto), uj jelszo kerese, ai uitat parola, resetare parola,
   recuperare parola, sifremi unuttum, sifre (sifirlama|yenileme), parolami unuttum, sifreyi sifirla,
   zaboravljena lozinka, pozabljeno geslo, quen mat khau, lupa (kata sandi|password),
   unustasid parooli, parooli (taastamine|lahtestamine), aizmirsat paroli, paroles atjaunosana, pamirsote slaptazodi, slaptazodzio atkurimas, has oblidat( la)? contrasenya, restableix( la)? contrasenya, recupera( la)? contrasenya, gleymt lykilord, endurstilla( lykilord)?, dat lai mat khau, quen mat khau, atur ulang kata sandi, atur ulang, pozabljeno geslo, ste pozabili geslo, zaboravili ste lozinku, zaboravljena lozinka, obnoveni hesla, zapomneli jste heslo, zabudli ste heslo, elfelejtette( a)?( jelszavat)?, wachtwoord opnieuw instellen, anfordern, passwort anfordern, link anfordern, email me( the)? instructions, send( me)?( the| a)? instructions, ati uitat parola, i forgot, lost password, help signing in, can t (sign|log) in, cannot (sign|log) in, redefinicao, restablecimiento, esqueceu( se)?( da| a)?( senha| palavra passe)?, restaurar( la)? (contrasena|clave),
   wagwoord vergeet, herstel( jou)? wagwoord, pasahitza ahaztu, berrezarri( pasahitza)?, wedi anghofio( ch)?( cyfrinair)?, ailosod( cyfrinair)?, lupa kata laluan, tetapkan semula( kata laluan)?, esqueciches
  parts: забыли пароль, восстановить, восстановление, сбросить пароль, забули пароль, відновити, відновлення,
   забравена парола, επαναφορα κωδικου, ξεχασα, ξεχασατε, υπενθυμιση, パスワードを忘れ, ハスワートを忘れ, パスワード(の)?再設定,
   ハスワート(の)?再設定, 再設定, 비밀번호 (찾기|재설정), 비밀번호를 잊, 忘记密码, 忘記密碼, 找回密码, 重置密码, 重設密碼, نسيت كلمة, استعادة كلمة, اعادة تعيين,
   إعادة تعيين, בازیابی, بازیابی, שכחתי סיסמה, איפוס סיסמה, ลืมรหัสผ่าน,
   再発行, パスワードを忘れた, पासवर्ड भूल, पासवर्ड रीसेट, รีเซ็ตรหัสผ่าน, ตั้งรหัสผ่านใหม่, رمز عبور را فراموش, فراموشی رمز, איפוס, 重设密码, 重置, 密码找回, 忘记, забыли, скинути пароль, ξεχασες,
   заборавили сте, ресетовање, ресетуј, заборавена лозинка, պաշտպանված, забыўся
`);

export const CHANGE = said(`
  words: change( your| my| the)?( account)? password,
   (update|set|choose|create|enter|pick)( your| a| my)?( new)? password, new password, password change,
   expired password, password( has)? expired, passwort (andern|aendern|festlegen|vergeben|setzen),
   neues (passwort|kennwort), kennwort (andern|aendern),
   (changer|modifier|changement)( de| le| mon| votre)? mot de passe, nouveau mot de passe,
   definir( un)? mot de passe, cambiar( la| tu| mi| su)? (contrasena|clave), cambio de (contrasena|clave),
   nueva (contrasena|clave), modificar (contrasena|clave), (cambia|modifica|cambio)( la| tua)? password,
   nuova password, (alterar|mudar|trocar)( a| sua)? (senha|palavra passe), nova (senha|palavra passe),
   wachtwoord (wijzigen|veranderen|instellen), nieuw wachtwoord, (byt|andra) losenord, nytt losenord,
   (skift|aendr|andr) (adgangskode|kodeord), ny adgangskode, nytt passord, (bytt|endre) passord, vaihda salasana,
   uusi salasana, zmien haslo, zmiana hasla, nowe haslo, (zmenit|zmena) (heslo|hesla), nove heslo,
   jelszo (modositasa|megvaltoztatasa|csere), uj jelszo, schimba(re|ti)? parola, parola noua, sifre degistir,
   yeni (sifre|parola), doi mat khau, nova lozinka,
   muuda parooli, uus parool, mainit paroli, jauna parole, keisti slaptazodi, naujas slaptazodis, canvia( la)? contrasenya, contrasenya nova, breyta lykilordi, nytt lykilord, spremeni geslo, novo geslo, promijeni lozinku, nova lozinka, ubah kata sandi, kata sandi baru, mat khau moi, doi mat khau, opprett nytt passord,
   verander wagwoord, nuwe wagwoord, aldatu pasahitza, pasahitz berria, newid cyfrinair, cyfrinair newydd, tukar kata laluan, kata laluan baharu, cambiar contrasinal, novo contrasinal
  parts: (из|с)менить пароль, смена пароля, сменить пароль, новыи пароль, змінити пароль, новии пароль,
   αλλαγη κωδικου, νεος κωδικος, パスワード(の)?変更, ハスワート(の)?変更, 新しいパスワード, 新しいハスワート, 비밀번호 변경, 새 비밀번호, 修改密码, 更改密码, 變更密碼,
   新密码, 新密碼, تغيير كلمة, كلمة المرور الجديدة, שינוי סיסמה, סיסמה חדשה,
   पासवर्ड बदल, नया पासवर्ड, เปลี่ยนรหัสผ่าน, รหัสผ่านใหม่, تغییر رمز, رمز عبور جدید, смяна на парол, нова парола, смена на парол, 設定新密碼, 设置新密码,
   промени лозинк, нова лозинк
`);

export const CONFIRM = said(`
  words: confirm( password)?, confirmation, repeat( password)?, again, retype, re enter, reenter, verify password,
   password ?2, pass2, pwd2, wiederholen, wiederholung, bestatigen, bestatigung, confirmer, repeter, repetir,
   repite, confirmar, conferma, ripeti, herhaal, bevestig(en)?, upprepa, bekrafta, gentag, gjenta, bekreft, toista,
   vahvista, powtorz, potwierdz, zopakovat, potvrdit, potvrzeni, znovu, megerosites, ismet, ujra, confirma, repeta,
   tekrar, onayla, xac nhan, nhap lai, ponovite, ulangi,
   korda, atkartot, pakartokite, confirma la contrasenya, repeteix, stadfesta, ponovno, nhap lai, konfirmasi, opakovat, zopakujte, ponovite,
   bevestig, berretsi, cadarnhau, sahkan
  parts: повтор, подтверд, підтверд, ще раз, еще раз, επιβεβαιωση, επαναληψη, 確認, 再入力, もう一度, 확인, 确认, 確認密碼, 重复,
   تأكيد, تاكيد, אישור, אימות סיסמה,
   पुष्टि, ยืนยันรหัส, تکرار, повторете, повтори, повторіть, 再输入, 再次,
   поновите, потврдите лозинк
`);

/** Of a password field: the one in force now. */
export const OLD = said(`
  words: old, current, existing, present, oldpass(word)?, aktuelles, altes, bisheriges, ancien, actuel, actual,
   antigua, anterior, attuale, vecchia, atual, antiga, huidig(e)?, oude?, nuvarande, gammalt, nuvaerende, gammel,
   gammelt, navaerende, nykyinen, vanha, obecne, stare, aktualne, soucasne, sucasne, jelenlegi, regi, actuala,
   veche, mevcut, eski, cu,
   praegune, vana, pasreizeja, veca, dabartinis, senas, nuverandi, gamla, trenutn[ao], star[ao], saat ini, lama, hien tai, bisherigw*, aktuellw*,
   huidige, oraingo, presennol, semasa, actual
  parts: текущии, старыи, поточнии, старии, τρεχων, παλιος, 現在の, 현재, 当前, 原密码, 旧密码, 目前, الحالية, נוכחית,
   वर्तमान, पुराना, ปัจจุบัน, เดิม, فعلی, قبلی, текущ, стар, סיסמה ישנה, 舊密碼,
   тренутна, сегашна
`);

export const NEW = said(`
  words: new, newpass(word)?, neues?, nouveau, nueva, nuova, nova, nieuw(e)?, nytt?, ny, uusi, nowe, nove, uj, noua,
   yeni, moi, baru, choose, create,
   uus, jauna, naujas, nytt, ny, novo, nova, novou, moi,
   nuwe, berria, newydd, baharu
  parts: новы(и|й), новии, νεος, 新しい, 새, 新密, الجديدة, חדשה,
   नया, ใหม่, جدید, нова
`);

export const PASSWORD = said(`
  words: password, passwd, passwort, kennwort, pass, pwd, pword, passphrase, passcode, mot de passe, mdp,
   contrasena, clave, senha, palavra passe, wachtwoord, losenord, adgangskode, kodeord, passord, salasana, haslo,
   heslo, jelszo, parola, sifre, lozinka, geslo, parool, parole, slaptazodis, mat khau, kata sandi, cyfrinair,
   contrasenya, pasahitza, lykilord,
   lykilordi?, paroli, parooli, contrasenya, gesla, lozinku, hesla, jelszo,
   wagwoord, contrasinal, kata laluan, pasahitz
  parts: пароль, парола, лозинка, κωδικος προσβασης, κωδικος, συνθηματικο, パスワード, ハスワート, 비밀번호, 密码, 密碼, كلمة المرور,
   كلمة السر, رمز عبور, סיסמה, पासवर्ड, รหัสผ่าน, รหสผาน,
   პაროლი, գաղտնաբառ, құпия
`);

export const USER_NAME = said(`
  words: user ?(name|id)?, username, userid, uname, usr, login( ?(name|id))?, logon( ?id)?,
   account( ?(name|id|number|no))?, member( ?(id|number|no|name))?, customer( ?(id|number|no))?,
   client( ?(id|number|no))?, email or .*, handle, staff( ?(id|number|no)), employee( ?(id|number|no)),
   card ?number, reference( ?number)?, benutzer(name|kennung)?, nutzername, kennung, kundennummer, kunden nr,
   mitgliedsnummer, anmeldename, identifiant, nom d utilisateur, utilisateur, numero (de )?client, pseudo, usuario,
   nombre de usuario, numero de cliente, nome utente, utente, codice (cliente|utente), utilizador,
   nome de (utilizador|usuario), gebruiker(snaam)?, klantnummer, anvandar(namn|id)?, kundnummer, bruger(navn|id)?,
   bruker(navn|id)?, kundenummer, kayttaja(tunnus|nimi)?, tunnus, asiakasnumero, uzytkownik(a)?, nazwa uzytkownika,
   uzivatel(ske jmeno)?, uzivatelske, prihlasovaci( jmeno)?, pouzivatel(ske meno)?, pouzivatelske,
   felhasznalo(nev)?, utilizator, nume( de)? utilizator, kullanici( adi)?, korisnicko ime, uporabnisko ime,
   kasutajanimi, lietotajvards, ten dang nhap, nama pengguna, usuari, enw defnyddiwr, dni, nif, personnummer, cpf,
   codice fiscale, matricola, matricule,
   vartotojo vardas, vartotojas, prisijungimo vardas, kasutaja, notandanafn, nom d usuari, uporabnik, korisnik, nume de utilizator, gebruikers?, benutzerw*, anmelde(name|kennung), nutzer(name|kennung)?, zakaznicke cislo, login name, personal ?number, konto(nummer)?,
   erabiltzaile( izena)?, enw defnyddiwr, nama pengguna, nome de usuario
  parts: логин, имя пользователя, пользователь, логін, ім я користувача, користувач, потребител, корисничко,
   ονομα χρηστη, χρηστης, ユーザー?(名|id), ユーサー(名|id), ログインid, ロクインid, 会員番号, 利用者id, 아이디, 사용자, 用户名, 用戶名, 帐号, 账号, 帳號, 使用者,
   اسم المستخدم, نام کاربری, שם משתמש, תעודת זהות, ชื่อผู้ใช้, ชอผใช,
   उपयोगकर्ता नाम, यूज़र, ชื่อผู้ใช้, نام کاربری, потребителско,
   მომხმარებელი, օգտանուն
`);

export const EMAIL = said(`
  words: e ?mail( ?(address|id))?, mail( ?address)?, email, e ?mail adresse, mailadresse, courriel,
   adresse (e ?mail|mail|electronique), correo( electronico)?, posta elettronica, indirizzo e ?mail,
   e ?post( ?adress(e)?)?, sahkoposti(osoite)?, adres e ?mail, eposta, e posta, epost, emailova adresa, poczta,
   ebost,
   e posti( aadress)?, e pasta( adrese)?, e pasts, el pasto( adresas)?, el pastas, netfang, e postni( naslov)?, correu( electronic)?, surel, adresa de e ?mail, adresa de email, emailaddress, e mailova( adresa)?,
   e ?mailadres(se)?,
   e pos( ?adres)?, e posadres, helbide elektronikoa, cyfeiriad e bost, alamat e mel, e mel
  parts: почта, почты, пошта, имеил, имейл, email, メールアドレス, メールアトレス, 이메일, 邮箱, 電子郵件, 电子邮件, 信箱, البريد, ایمیل, אימייל,
   דוא ל, อีเมล, อเมล,
   ईमेल, आईडी ईमेल, דואר אלקטרוני, имеил, ел пошта, ηλεκτρονικ,
   имејл, ელფოსტა
`);

export const PHONE = said(`
  words: phone( number)?, mobile( number)?, telephone, tel, handy(nummer)?, telefon(nummer)?, telefonnummer,
   mobil(nummer)?, portable, movil, cellulare, telemovel, celular, telefoon(nummer)?, mobiel, puhelin(numero)?
  parts: телефон, 電話番号, 携帯, 휴대폰, 手机, 手機, الجوال, الهاتف, טלפון
`);

export const CODE = said(`
  words: otp, totp, one time( ?(pass)?(code|word)?)?, onetimecode, 2fa, mfa, two factor( code)?, two step( code)?,
   (verification|security|authentication|authenticator|auth|access|confirmation|login|passcode|sms|six digit|6 digit) ?code,
   code from, code sent, (enter|type)( the| your)? code, code (we|you)( \\w+)? (sent|received), authenticator, token( ?code)?, verification, einmal(code|passwort|kennwort), bestatigungscode,
   sicherheitscode, verifizierungscode, code( de)? (verification|securite|validation|confirmation),
   code (a usage unique|recu|unique),
   codigo( de)? (verificacion|verificacao|seguridad|seguranca|acceso|acesso|confirmacion|autenticacion),
   codice( di)? (verifica|sicurezza|conferma|accesso), verificatie ?code, beveiligingscode, eenmalige code,
   engangs(kod|kode), verifieringskod, sakerhetskod, bekreftelseskode, bekraeftelseskode, vahvistuskoodi,
   kertakayttokoodi, turvakoodi, kod (weryfikacyjny|jednorazowy|sms|z aplikacji|bezpieczenstwa), overovaci kod,
   jednorazovy kod, ellenorzo kod, egyszer hasznalatos, cod( de)? (verificare|securitate), dogrulama kodu,
   guvenlik kodu, tek kullanimlik, ma xac (minh|nhan|thuc), kode (verifikasi|otp), digit, verifycode, authcode,
   mfacode, otpcode,
   potrditven[ao] koda, kinnituskood, uhekordne kood, apstiprinajuma kods, vienreizejais kods, patvirtinimo kodas, vienkartinis kodas, codi( de)? (verificacio|seguretat), stadfestingarkodi, oryggiskodi, kontrolni kod, jednokratni kod, enkratna koda, kod bezpieczenstwa, bestatigungs ?code, zugangscode, verifiserw*kode, authenticatie ?code,
   verifikasiekode, egiaztapen kodea, cod dilysu, kod pengesahan, kode in wat
  parts: код подтверждения, код из, одноразовыи, код підтвердження, одноразовии, код за потвърждение,
   κωδικος (επαληθευσης|μιας χρησης), 認証コード, 認証コート, 確認コード, 確認コート, ワンタイム, 인증(번호| 코드|코드), 验证码, 驗證碼, 动态码, رمز التحقق,
   رمز التأكيد, קוד אימות, קוד חד, รหัสยืนยัน,
   คода подтв, कोड सत्यापन, सत्यापन कोड, ओटीपी, รหัสยืนยัน, รหัส otp, کد تایید, کد تأیید, کد یکبار, код від, 6桁, 確認番号, 暗証番号,
   код за потврду, код из поруке
`);

export const SEARCH = said(`
  words: search, query, q, s, find, suche(n)?, recherche(r)?, rechercher, buscar, busqueda, cerca, ricerca,
   pesquisar?, busca, zoek(en)?, sok, sog, haku, hae, szukaj, hledat, hladat, vyhledavani, kereses, cauta(re)?, ara,
   arama, keyword, keywords, tim kiem, cari,
   otsi, meklet, ieskoti, leita, isci, trazi, pretraga, traziti,
   soek, bilatu, chwilio
  parts: поиск, искать, пошук, наити, αναζητηση, 検索, 검색, 搜索, 搜尋, بحث, חיפוש,
   खोज, ค้นหา, جستجو, търсене, пошук,
   претрага, пребарај
`);

export const NEWSLETTER = said(`
  words: newsletter, news letter, subscribe, subscription, mailing list, stay (in touch|informed|up to date),
   get (our )?(news|updates|offers), keep me posted, sign ?up for (our )?(news|updates|offers|newsletter|emails?),
   abonnieren, s abonner, abonnez vous, infolettre, suscribirse, suscribete, suscripcion, boletin,
   iscriviti( alla newsletter)?, subscrever, assinar, nyhetsbrev, nyhedsbrev, prenumerera, tilmeld( nyhedsbrev)?,
   uutiskirje, tilaa, nieuwsbrief, abonneren, zapisz sie, subskrybuj, odebirat, odoberat, novinky, hirlevel,
   feliratkozas, abonare, buletin, bulten, abone ol, unsubscribe, notify me, waitlist, waiting list,
   news and offers, news letters?, our news, latest news, uudiskiri, telli, jaunumi, abonet, naujienlaiskis, prenumeruoti, frettabref, gerast askrifandi, butlleti, subscriu te, e novice, naroci se, pretplati se, ban tin, dang ky nhan tin, buletin( kami)?, berlangganan, receba novidades, novidades, immer informiert, news per mail, zum newsletter, zapis sie( do newslettera)?, prenumerera pa,
   nuusbrief, teken in op, cylchlythyr, tanysgrifio, surat berita, langgan, harpidetu
  parts: подписаться, подписка, рассылка, підписатися, ενημερωτικο, メールマガジン, 購読, 구독, 뉴스레터, 订阅, 訂閱, اشترك, الإخبارية,
   עלון, הצטרפו לניוזלטר,
   समाचार, सदस्यता, จดหมายข่าว, สมัครรับข่าว, خبرنامه, бюлетин, абонир, ניוזלטר, 電子報, 资讯, 訂閱, розсилк, подписат,
   билтен, претплати
`);

export const NEXT = said(`
  words: next, continue, proceed, weiter, fortfahren, suivant, continuer, siguiente, continuar, avanti, continua,
   prosegui, seguinte, avancar, proximo, volgende, verder, doorgaan, nasta, fortsatt, naste, naeste, fortsaet,
   neste, seuraava, jatka, dalej, kontynuuj, dalsi, pokracovat, dalsie, kovetkezo, tovabb, urmatorul, mai departe,
   continuati, ileri, devam( et)?, sonraki, tiep tuc, tiep theo, lanjut(kan)?, berikutnya, dalje, naprej,
   edasi, talak, toliau, seguent, afram, vidare, tovabb, nastavi, lanjut,
   seterusnya, nesaf, hurrengoa, volgende
  parts: далее, продолжить, далі, продовжити, напред, продължи, επομενο, συνεχεια, 次へ, 続ける, 다음, 계속, 下一步, 继续, 繼續,
   التالي, متابعة, הבא, המשך, ต่อไป,
   आगे, जारी रखें, ถัดไป, ادامه, بعدی, 続行, 進む,
   даље
`);

/** Buttons that send a form without saying what for. */
export const SEND = said(`
  words: go, ok, submit, send, save, verify, confirm, absenden, senden, speichern, envoyer, valider, enviar,
   guardar, invia, salva, verzenden, opslaan, spara, skicka, gem, lagre, tallenna, zapisz, wyslij, odeslat, ulozit,
   kuldes, mentes, trimite, gonder, kaydet, verifier, verificar, verifica, verifieren, weryfikuj, dogrula,
   bestatigen, confirmer, confirmar, conferma, bevestigen, bekrafta, bekraeft, bekreft, vahvista, potwierdz,
   potvrdit, unlock, enter, apply, done, finish, login, confirma, verificeer, verzend, versturen, stuur, bestatige,
   prufen, ubernehmen, aktualisieren, apstiprinat, nosutit, saglabat, patvirtinti, siusti, issaugoti, kinnita,
   saada, salvesta, stadfesta, senda, vista, potrdi, poslji, shrani, potvrdi, posalji, spremi, overit, odoslat,
   poslat, desa, envia, xac nhan, gui, luu, xac minh, kirim, simpan, konfirmasi, update, save changes, onayla,
   actualizar, salvar, mettre a jour, aggiorna, bijwerken, uppdatera, opdater, oppdater, paivita, aktualizuj,
   aktualizovat, frissites
  parts: отправить, подтвердить, сохранить, надіслати, підтвердити, зберегти, изпрати, потвърди, запази, υποβολη, αποστολη, επιβεβαιωση, αποθηκευση, 送信, 確認, 保存, 変更する, 更新, 확인, 저장, 보내기, 변경, 提交, 确定, 確定, 送出, 验证, 驗證, 儲存, 确认, إرسال, تأكيد, حفظ, تحقق, ارسال, تایید, ذخیره, שליחה, שמירה, אישור, אימות, शेजें, भेजें, सहेजें, सत्यापित, जमा करें, ส่ง, บันทึก, ยืนยัน, ตกลง
`);

/** Buttons that show or hide a password, clear a field, close or cancel: never the submit. */
export const ASIDE = said(`
  words: show( password)?, hide( password)?, toggle, reveal, clear, close, cancel, back, menu, dismiss, eye, help,
   language, resend( code)?, send again, anzeigen, ausblenden, abbrechen, schliessen, zuruck, afficher, masquer,
   annuler, fermer, retour, mostrar, ocultar, cancelar, cerrar, volver, mostra, nascondi, annulla, chiudi, indietro,
   tonen, verbergen, annuleren, sluiten, terug, visa, dolj, avbryt, vis, skjul, annuller, nayta, piilota, peruuta,
   pokaz, ukryj, anuluj, wroc, zobrazit, skryt, zrusit, zpet, goster, gizle, iptal
  parts: показать, скрыть, отмена, назад, 表示, キャンセル, 戻る, 显示, 取消, 返回, 보기, 취소, إلغاء, ביטול
`);

/** A box beside a sign-in that keeps its session beyond the visit. */
export const REMEMBER = said(`
  words: remember( me| my| this| login| device)?, rememberme, keep( me)?( signed| logged)? in, stay (signed|logged) in, persist(ent)?,
   trust this (device|browser|computer), angemeldet bleiben, eingeloggt bleiben, merken, se souvenir( de moi)?,
   rester connecte(e)?, rester identifie(e)?, recuerdame, recordarme, recordar, mantener(me)?( la)? (sesion|conectado)( iniciada)?,
   no cerrar sesion, ricordami, resta collegato, resta connesso, mantieni l accesso, lembrar( me)?, lembre( se)?( de mim)?,
   manter( me)? (conectado|ligado|sessao( iniciada)?), continuar conectado, onthoud( mij| me)?, ingelogd blijven,
   aangemeld blijven, kom ihag( mig)?, hall mig inloggad, husk( mig| meg)?, forbliv logget (ind|pa), hold meg innlogget,
   muista( minut)?, pysy kirjautuneena, zapamietaj( mnie)?, nie wylogowuj, zapamatovat( si)?( me)?, zapamatat( si)?( ma)?,
   zustat prihlasen, ostat prihlaseny, emlekezz( ram)?, maradjak bejelentkezve, tine( ma)? minte, ramai conectat,
   beni hatirla, oturumu acik tut, zapamti( me)?, zapomni( si)?( me)?, jata mind meelde, atceret(ies)?( mani)?,
   prisiminti( mane)?, recorda m, muna mig, ghi nho, ingat saya, cofio fi, gogoratu
  parts: запомнить, запомни, оставаться в системе, запам ятати, запам, не виходити, να με θυμασαι, απομνημονευση, ログイン状態を保存,
   ロクイン状態を保持, 次回から, 로그인 상태 유지, 자동 로그인, 记住, 記住, 保持登录, 保持登入, 自动登录, تذكرني, مرا به خاطر, זכור אותי, मुझे याद, จดจำฉัน,
   упамти
`);

/** Ways in that are another organisation's. */
export const ELSEWHERE = folded(
  /(?:^| )(?:sign in|log ?in|login|sign up|continue|connect|anmelden|einloggen|weiter|se connecter|connexion|continuer|accedi|continua|entrar|continuar|iniciar sesion|inloggen|doorgaan|logga in|fortsatt|zaloguj sie) (?:with|using|via|through|mit|uber|avec|con|com|met|med|przez|z) (?:a |an |your |my |din |ihrem )?(?!e ?mail|e ?post|mail|password|passwort|mot de passe|contrasena|user|account|member|customer|phone|code)|(?:^| )(?:sso|single sign ?on|passkey|magic link|qr code)(?= |$)/u
    .source,
);

/** Fields of a person's particulars: they belong to a registration or an order, not to a sign-in. */
export const PARTICULARS = said(`
  words: first ?name, last ?name, full ?name, your name, surname, given ?name, family ?name, fname, lname,
   birth(day|date)?, date of birth, dob, street, postcode, zip( code)?, city, country, company( name)?,
   organi[sz]ation( name)?, gender, vorname, nachname, geburtsdatum, strasse, plz, prenom, nom( de famille)?,
   date de naissance, code postal, nombre, apellidos?, fecha de nacimiento, cognome, nome, data di nascita, apelido,
   sobrenome, data de nascimento, voornaam, achternaam, geboortedatum, fornamn, efternamn, fornavn, etternavn,
   efternavn, etunimi, sukunimi, imie( i nazwisko)?, nazwisko, jmeno( a prijmeni)?, prijmeni, meno, priezvisko,
   keresztnev, vezeteknev, prenume, ad, soyad, adiniz, soyadiniz, ho ten, nama( lengkap)?, ime, prezime,
   forename, eesnimi, perekonnanimi, vards, uzvards, vardas, pavarde, nom, cognoms, nafn, fornafn, eftirnafn, ime, priimek, prezime, ho( va ten)?, ten, nama (depan|belakang), familienname, nume,
   izena, abizenak?, enw cyntaf, cyfenw, nama (pertama|keluarga)
  parts: имя(?! пользователя), фамилия, дата рождения, ім я(?! користувача), прізвище, ονομα(?! χρηστη), επωνυμο,
   氏名, お名前, 姓, 생년월일, 이름, 姓名, 生日, الاسم(?! المستخدم), שם פרטי, שם משפחה,
   पहला नाम, अंतिम नाम, उपनाम, ชื่อ(?!ผู้ใช้), นามสกุล, نام خانوادگی, фамилия, 名字,
   презиме, ^име(?! )
`);

/** Consent that is asked for once, when one registers. */
export const TERMS = folded(
  /(?:^| )(?:terms|conditions|privacy policy|i agree|i accept|agb|nutzungsbedingungen|datenschutz\w*|conditions generales|cgu|j accepte|terminos|condiciones|acepto|termini|accetto|termos|aceito|voorwaarden|akkoord|villkor|vilkar|betingelser|ehdot|regulamin|akceptuje|podmink\w*|souhlasim|szerzodesi|elfogadom|termenii|sartlar\w*|kosullar\w*)(?= |$)|услови|правил|соглас|правила|όρους|οροι|利用規約|同意|약관|동의|协议|条款|同意|الشروط|אני מסכימ|תנאי/u
    .source,
);

/** What a password must be: said where one is made, not where it is given. */
export const PASSWORD_RULE = folded(
  /(?:at least|minimum|mindestens|au moins|al menos|almeno|minimo|pelo menos|minstens|minst|mindst|vahintaan|co najmniej|alespon|aspon|legalabb|cel putin|en az|не менее|не менш)(?: of)? \d+|\d+ ?(?:文字以上|자 이상|位以上|个字符)/u
    .source,
);

/** Order forms, contact forms, comments. */
export const OTHER_PURPOSE = said(`
  words: contact( us)?, comment, message, enquiry, inquiry, feedback, checkout, donate, coupon, voucher,
   promo( code)?, gift ?card, discount, quote, track( your)?( order| parcel)?, kontakt, nachricht, kommentar,
   gutschein, commentaire, mensaje, comentario, messaggio, mensagem, bericht, melding, meddelande, viesti,
   wiadomosc, zprava, uzenet, mesaj
  parts: сообщение, коментар, комментарии, μηνυμα, お問い合わせ, 문의, 留言
`);
