/**
 * What sign-in pages say, by language, for the pages of the reader's test. Written from how such pages speak, not from
 * the reader's own word lists: a word that stands only here is a word that the reader has to learn.
 */
export interface Phrases {
  userName: string;
  email: string;
  password: string;
  signIn: string;
  welcome: string;
  remember: string;
  forgot: string;
  register: string;
  makeAccount: string;
  firstName: string;
  lastName: string;
  repeat: string;
  oldPassword: string;
  newPassword: string;
  changePassword: string;
  save: string;
  resetTitle: string;
  resetText: string;
  resetSend: string;
  next: string;
  code: string;
  codeText: string;
  verify: string;
  newsletter: string;
  subscribe: string;
  search: string;
  message: string;
  send: string;
}

const KEYS = [
  "userName",
  "email",
  "password",
  "signIn",
  "welcome",
  "remember",
  "forgot",
  "register",
  "makeAccount",
  "firstName",
  "lastName",
  "repeat",
  "oldPassword",
  "newPassword",
  "changePassword",
  "save",
  "resetTitle",
  "resetText",
  "resetSend",
  "next",
  "code",
  "codeText",
  "verify",
  "newsletter",
  "subscribe",
  "search",
  "message",
  "send",
] as const satisfies (keyof Phrases)[];

/** In the order of KEYS, parted by " / ". */
const SAID: Record<string, string> = {
  en: "Username / Email address / Password / Sign in / Welcome back / Keep me signed in / Forgot your password? / Create account / Create your account / First name / Last name / Confirm password / Current password / New password / Change password / Save changes / Reset your password / Enter your email address and we will send you a link. / Send reset link / Continue / Verification code / We sent a 6-digit code to your phone. / Verify / Our newsletter / Subscribe / Search / Message / Send message",
  "en-GB":
    "Your user ID / E-mail / Your password / Log in / Customer login / Remember me on this computer / Lost password? / Register / New here? Register / Forename / Surname / Repeat password / Old password / Choose a new password / Update password / Update / Forgotten password / Tell us your e-mail and we'll send instructions. / Email me instructions / Next / Security code / Enter the code from your authenticator app. / Confirm / News and offers / Sign up / Search this site / Your enquiry / Send",
  de: "Benutzername / E-Mail-Adresse / Passwort / Anmelden / Willkommen zurück / Angemeldet bleiben / Passwort vergessen? / Konto erstellen / Neues Kundenkonto / Vorname / Nachname / Passwort wiederholen / Aktuelles Passwort / Neues Passwort / Passwort ändern / Speichern / Passwort zurücksetzen / Geben Sie Ihre E-Mail-Adresse ein, wir senden Ihnen einen Link. / Link anfordern / Weiter / Bestätigungscode / Wir haben Ihnen einen sechsstelligen Code gesendet. / Bestätigen / Unser Newsletter / Abonnieren / Suchen / Ihre Nachricht / Absenden",
  "de-AT":
    "Kundennummer / E-Mail / Kennwort / Einloggen / Login für Kunden / Eingeloggt bleiben / Kennwort vergessen / Registrieren / Jetzt registrieren / Vorname / Familienname / Kennwort bestätigen / Bisheriges Kennwort / Neues Kennwort / Kennwort ändern / Übernehmen / Kennwort vergessen / Wir schicken Ihnen ein neues Kennwort zu. / Kennwort anfordern / Fortfahren / Einmalcode / Öffnen Sie Ihre Authenticator-App und geben Sie den Code ein. / Prüfen / Immer informiert / Anmelden zum Newsletter / Suche / Nachricht / Senden",
  fr: "Identifiant / Adresse e-mail / Mot de passe / Se connecter / Connexion à votre espace / Rester connecté / Mot de passe oublié ? / Créer un compte / Créer mon compte / Prénom / Nom de famille / Confirmer le mot de passe / Mot de passe actuel / Nouveau mot de passe / Modifier le mot de passe / Enregistrer / Réinitialiser le mot de passe / Indiquez votre adresse, nous vous enverrons un lien. / Envoyer le lien / Suivant / Code de vérification / Saisissez le code reçu par SMS. / Vérifier / Notre lettre d'information / S'abonner / Rechercher / Votre message / Envoyer",
  es: "Nombre de usuario / Correo electrónico / Contraseña / Iniciar sesión / Bienvenido de nuevo / Recordarme / ¿Olvidaste tu contraseña? / Crear cuenta / Crea tu cuenta / Nombre / Apellidos / Confirmar contraseña / Contraseña actual / Nueva contraseña / Cambiar contraseña / Guardar cambios / Restablecer contraseña / Escribe tu correo y te enviaremos un enlace. / Enviar enlace / Siguiente / Código de verificación / Te hemos enviado un código por SMS. / Verificar / Nuestro boletín / Suscribirse / Buscar / Mensaje / Enviar",
  it: "Nome utente / Indirizzo email / Password / Accedi / Bentornato / Ricordami / Password dimenticata? / Registrati / Crea un account / Nome / Cognome / Conferma password / Password attuale / Nuova password / Cambia password / Salva / Recupera la password / Inserisci la tua email, ti invieremo un link. / Invia link / Avanti / Codice di verifica / Inserisci il codice che ti abbiamo inviato. / Verifica / La nostra newsletter / Iscriviti / Cerca / Messaggio / Invia",
  pt: "Nome de utilizador / E-mail / Palavra-passe / Iniciar sessão / Bem-vindo de volta / Manter sessão iniciada / Esqueceu-se da palavra-passe? / Criar conta / Crie a sua conta / Nome próprio / Apelido / Confirmar palavra-passe / Palavra-passe atual / Nova palavra-passe / Alterar palavra-passe / Guardar / Recuperar palavra-passe / Indique o seu e-mail e enviaremos uma ligação. / Enviar / Seguinte / Código de verificação / Introduza o código que recebeu. / Verificar / A nossa newsletter / Subscrever / Pesquisar / Mensagem / Enviar mensagem",
  "pt-BR":
    "Usuário / E-mail / Senha / Entrar / Acesse sua conta / Lembrar de mim / Esqueci minha senha / Cadastre-se / Crie sua conta / Nome / Sobrenome / Confirme a senha / Senha atual / Nova senha / Alterar senha / Salvar / Redefinir senha / Informe seu e-mail para receber o link. / Enviar link / Continuar / Código de acesso / Digite o código enviado para o seu celular. / Confirmar / Receba novidades / Assinar / Buscar / Mensagem / Enviar",
  nl: "Gebruikersnaam / E-mailadres / Wachtwoord / Inloggen / Welkom terug / Ingelogd blijven / Wachtwoord vergeten? / Account aanmaken / Maak een account aan / Voornaam / Achternaam / Bevestig wachtwoord / Huidig wachtwoord / Nieuw wachtwoord / Wachtwoord wijzigen / Opslaan / Wachtwoord opnieuw instellen / Vul uw e-mailadres in, dan sturen wij een link. / Verstuur link / Volgende / Verificatiecode / Vul de code uit uw authenticator-app in. / Bevestigen / Onze nieuwsbrief / Aanmelden voor de nieuwsbrief / Zoeken / Bericht / Versturen",
  sv: "Användarnamn / E-postadress / Lösenord / Logga in / Välkommen tillbaka / Kom ihåg mig / Glömt lösenordet? / Skapa konto / Skapa ett konto / Förnamn / Efternamn / Bekräfta lösenord / Nuvarande lösenord / Nytt lösenord / Byt lösenord / Spara / Återställ lösenord / Ange din e-postadress så skickar vi en länk. / Skicka länk / Nästa / Verifieringskod / Vi har skickat en engångskod till din telefon. / Verifiera / Vårt nyhetsbrev / Prenumerera / Sök / Meddelande / Skicka",
  da: "Brugernavn / E-mailadresse / Adgangskode / Log ind / Velkommen tilbage / Forbliv logget ind / Glemt adgangskode? / Opret konto / Opret en konto / Fornavn / Efternavn / Bekræft adgangskode / Nuværende adgangskode / Ny adgangskode / Skift adgangskode / Gem / Nulstil adgangskode / Indtast din e-mail, så sender vi et link. / Send linket / Næste / Bekræftelseskode / Indtast den kode, vi har sendt. / Bekræft / Vores nyhedsbrev / Tilmeld / Søg / Besked / Send besked",
  nb: "Brukernavn / E-postadresse / Passord / Logg inn / Velkommen tilbake / Husk meg / Glemt passord? / Opprett konto / Opprett ny bruker / Fornavn / Etternavn / Gjenta passord / Nåværende passord / Nytt passord / Endre passord / Lagre / Tilbakestill passord / Skriv inn e-postadressen din, så sender vi en lenke. / Send lenke / Neste / Engangskode / Skriv inn koden fra kodebrikken. / Bekreft / Vårt nyhetsbrev / Meld meg på / Søk / Melding / Send",
  fi: "Käyttäjätunnus / Sähköpostiosoite / Salasana / Kirjaudu sisään / Tervetuloa takaisin / Muista minut / Unohditko salasanasi? / Luo tili / Luo uusi tili / Etunimi / Sukunimi / Vahvista salasana / Nykyinen salasana / Uusi salasana / Vaihda salasana / Tallenna / Palauta salasana / Anna sähköpostiosoitteesi, niin lähetämme linkin. / Lähetä linkki / Seuraava / Vahvistuskoodi / Syötä puhelimeesi lähetetty koodi. / Vahvista / Uutiskirje / Tilaa / Haku / Viesti / Lähetä",
  pl: "Nazwa użytkownika / Adres e-mail / Hasło / Zaloguj się / Witaj ponownie / Zapamiętaj mnie / Nie pamiętasz hasła? / Zarejestruj się / Załóż konto / Imię / Nazwisko / Powtórz hasło / Obecne hasło / Nowe hasło / Zmień hasło / Zapisz / Odzyskiwanie hasła / Podaj adres e-mail, a wyślemy link. / Wyślij link / Dalej / Kod weryfikacyjny / Wpisz kod z SMS-a. / Potwierdź / Nasz newsletter / Zapisz się / Szukaj / Wiadomość / Wyślij",
  cs: "Uživatelské jméno / E-mailová adresa / Heslo / Přihlásit se / Vítejte zpět / Zůstat přihlášen / Zapomněli jste heslo? / Vytvořit účet / Registrace nového zákazníka / Jméno / Příjmení / Heslo znovu / Současné heslo / Nové heslo / Změnit heslo / Uložit / Obnovení hesla / Zadejte e-mail a pošleme vám odkaz. / Odeslat odkaz / Další / Ověřovací kód / Zadejte kód z SMS. / Ověřit / Novinky e-mailem / Odebírat / Hledat / Zpráva / Odeslat",
  sk: "Používateľské meno / E-mailová adresa / Heslo / Prihlásiť sa / Vitajte späť / Zapamätať si ma / Zabudli ste heslo? / Vytvoriť účet / Nová registrácia / Meno / Priezvisko / Zopakujte heslo / Súčasné heslo / Nové heslo / Zmeniť heslo / Uložiť / Obnova hesla / Zadajte e-mail a pošleme vám odkaz. / Poslať odkaz / Ďalej / Overovací kód / Zadajte kód, ktorý sme vám poslali. / Overiť / Novinky / Odoberať / Hľadať / Správa / Odoslať",
  hu: "Felhasználónév / E-mail cím / Jelszó / Bejelentkezés / Üdvözöljük újra / Emlékezz rám / Elfelejtette a jelszavát? / Regisztráció / Fiók létrehozása / Keresztnév / Vezetéknév / Jelszó megerősítése / Jelenlegi jelszó / Új jelszó / Jelszó módosítása / Mentés / Elfelejtett jelszó / Adja meg e-mail címét, és küldünk egy linket. / Link küldése / Tovább / Ellenőrző kód / Írja be a telefonjára küldött kódot. / Megerősítés / Hírlevelünk / Feliratkozás / Keresés / Üzenet / Küldés",
  ro: "Nume de utilizator / Adresă de e-mail / Parolă / Autentificare / Bine ați revenit / Ține-mă minte / Ați uitat parola? / Creează cont / Creează un cont nou / Prenume / Nume / Confirmă parola / Parola actuală / Parola nouă / Schimbă parola / Salvează / Resetare parolă / Introduceți adresa și vă trimitem un link. / Trimite linkul / Continuă / Cod de verificare / Introduceți codul primit prin SMS. / Verifică / Newsletterul nostru / Abonează-te / Caută / Mesaj / Trimite",
  hr: "Korisničko ime / E-mail adresa / Lozinka / Prijavi se / Dobro došli natrag / Zapamti me / Zaboravili ste lozinku? / Registriraj se / Otvorite račun / Ime / Prezime / Ponovite lozinku / Trenutna lozinka / Nova lozinka / Promijeni lozinku / Spremi / Zaboravljena lozinka / Upišite e-mail adresu i poslat ćemo vam poveznicu. / Pošalji poveznicu / Dalje / Kontrolni kod / Unesite kod iz SMS poruke. / Potvrdi / Naš newsletter / Pretplati se / Traži / Poruka / Pošalji",
  sl: "Uporabniško ime / E-poštni naslov / Geslo / Prijava / Dobrodošli nazaj / Zapomni si me / Ste pozabili geslo? / Registracija / Ustvarite račun / Ime / Priimek / Ponovite geslo / Trenutno geslo / Novo geslo / Spremeni geslo / Shrani / Pozabljeno geslo / Vpišite e-poštni naslov in poslali vam bomo povezavo. / Pošlji povezavo / Naprej / Potrditvena koda / Vnesite kodo, ki smo jo poslali. / Potrdi / E-novice / Naroči se / Išči / Sporočilo / Pošlji",
  bg: "Потребителско име / Имейл адрес / Парола / Вход / Добре дошли отново / Запомни ме / Забравена парола? / Регистрация / Създайте профил / Име / Фамилия / Повторете паролата / Текуща парола / Нова парола / Смяна на парола / Запази / Забравена парола / Въведете имейл и ще ви изпратим връзка. / Изпрати / Напред / Код за потвърждение / Въведете кода от SMS. / Потвърди / Бюлетин / Абонирай се / Търсене / Съобщение / Изпрати съобщение",
  ru: "Имя пользователя / Электронная почта / Пароль / Войти / С возвращением / Запомнить меня / Забыли пароль? / Зарегистрироваться / Создание учётной записи / Имя / Фамилия / Повторите пароль / Текущий пароль / Новый пароль / Изменить пароль / Сохранить / Восстановление пароля / Укажите почту, и мы пришлём ссылку. / Отправить ссылку / Далее / Код подтверждения / Введите код из СМС. / Подтвердить / Наша рассылка / Подписаться / Поиск / Сообщение / Отправить",
  uk: "Ім'я користувача / Електронна пошта / Пароль / Увійти / З поверненням / Запам'ятати мене / Забули пароль? / Зареєструватися / Створення облікового запису / Ім'я / Прізвище / Повторіть пароль / Поточний пароль / Новий пароль / Змінити пароль / Зберегти / Відновлення пароля / Вкажіть пошту, і ми надішлемо посилання. / Надіслати посилання / Далі / Код підтвердження / Введіть код із СМС. / Підтвердити / Наша розсилка / Підписатися / Пошук / Повідомлення / Надіслати",
  el: "Όνομα χρήστη / Διεύθυνση email / Κωδικός πρόσβασης / Σύνδεση / Καλώς ήρθατε ξανά / Να με θυμάσαι / Ξεχάσατε τον κωδικό; / Εγγραφή / Δημιουργία λογαριασμού / Όνομα / Επώνυμο / Επιβεβαίωση κωδικού / Τρέχων κωδικός / Νέος κωδικός / Αλλαγή κωδικού / Αποθήκευση / Επαναφορά κωδικού / Δώστε το email σας και θα στείλουμε σύνδεσμο. / Αποστολή συνδέσμου / Συνέχεια / Κωδικός επαλήθευσης / Πληκτρολογήστε τον κωδικό μιας χρήσης. / Επαλήθευση / Ενημερωτικό δελτίο / Εγγραφή στο δελτίο / Αναζήτηση / Μήνυμα / Αποστολή",
  tr: "Kullanıcı adı / E-posta adresi / Şifre / Giriş yap / Tekrar hoş geldiniz / Beni hatırla / Şifremi unuttum / Üye ol / Hesap oluştur / Ad / Soyad / Şifre tekrar / Mevcut şifre / Yeni şifre / Şifre değiştir / Kaydet / Şifre sıfırlama / E-posta adresinizi girin, bağlantı gönderelim. / Bağlantı gönder / İleri / Doğrulama kodu / Telefonunuza gelen kodu girin. / Doğrula / Bültenimiz / Abone ol / Ara / Mesaj / Gönder",
  et: "Kasutajanimi / E-posti aadress / Parool / Logi sisse / Tere tulemast tagasi / Jäta mind meelde / Unustasid parooli? / Registreeru / Loo konto / Eesnimi / Perekonnanimi / Korda parooli / Praegune parool / Uus parool / Muuda parooli / Salvesta / Parooli taastamine / Sisesta e-posti aadress ja saadame lingi. / Saada link / Edasi / Kinnituskood / Sisesta telefonile saadetud kood. / Kinnita / Uudiskiri / Telli / Otsi / Sõnum / Saada",
  lv: "Lietotājvārds / E-pasta adrese / Parole / Pieslēgties / Laipni lūgti / Atcerēties mani / Aizmirsāt paroli? / Reģistrēties / Izveidot kontu / Vārds / Uzvārds / Atkārtot paroli / Pašreizējā parole / Jaunā parole / Mainīt paroli / Saglabāt / Paroles atjaunošana / Ievadiet e-pastu, un mēs nosūtīsim saiti. / Nosūtīt saiti / Tālāk / Apstiprinājuma kods / Ievadiet SMS saņemto kodu. / Apstiprināt / Jaunumi e-pastā / Abonēt / Meklēt / Ziņa / Nosūtīt",
  lt: "Vartotojo vardas / El. pašto adresas / Slaptažodis / Prisijungti / Sveiki sugrįžę / Prisiminti mane / Pamiršote slaptažodį? / Registruotis / Sukurti paskyrą / Vardas / Pavardė / Pakartokite slaptažodį / Dabartinis slaptažodis / Naujas slaptažodis / Keisti slaptažodį / Išsaugoti / Slaptažodžio atkūrimas / Įveskite el. paštą ir atsiųsime nuorodą. / Siųsti nuorodą / Toliau / Patvirtinimo kodas / Įveskite SMS žinute gautą kodą. / Patvirtinti / Naujienlaiškis / Prenumeruoti / Ieškoti / Žinutė / Siųsti",
  ja: "ユーザー名 / メールアドレス / パスワード / ログイン / おかえりなさい / ログイン状態を保持する / パスワードをお忘れですか? / 新規登録 / アカウントを作成 / 名 / 姓 / パスワード(確認) / 現在のパスワード / 新しいパスワード / パスワードを変更 / 保存 / パスワードの再設定 / メールアドレスを入力してください。再設定用のリンクをお送りします。 / 送信 / 次へ / 認証コード / 携帯電話に届いた6桁の数字を入力してください。 / 確認 / メールマガジン / 購読する / 検索 / お問い合わせ内容 / 送信する",
  ko: "아이디 / 이메일 / 비밀번호 / 로그인 / 다시 오신 것을 환영합니다 / 로그인 상태 유지 / 비밀번호를 잊으셨나요? / 회원가입 / 계정 만들기 / 이름 / 성 / 비밀번호 확인 / 현재 비밀번호 / 새 비밀번호 / 비밀번호 변경 / 저장 / 비밀번호 재설정 / 이메일을 입력하시면 링크를 보내드립니다. / 링크 보내기 / 다음 / 인증번호 / 휴대폰으로 전송된 인증번호를 입력하세요. / 확인 / 뉴스레터 / 구독하기 / 검색 / 문의 내용 / 보내기",
  zh: "用户名 / 电子邮箱 / 密码 / 登录 / 欢迎回来 / 记住我 / 忘记密码? / 注册 / 创建账号 / 名字 / 姓氏 / 确认密码 / 当前密码 / 新密码 / 修改密码 / 保存 / 找回密码 / 请输入邮箱,我们会发送链接。 / 发送链接 / 下一步 / 验证码 / 请输入发送到您手机的验证码。 / 验证 / 订阅资讯 / 订阅 / 搜索 / 留言 / 提交",
  "zh-TW":
    "使用者名稱 / 電子郵件 / 密碼 / 登入 / 歡迎回來 / 保持登入 / 忘記密碼? / 註冊 / 建立帳號 / 名字 / 姓氏 / 確認密碼 / 目前密碼 / 新密碼 / 變更密碼 / 儲存 / 重設密碼 / 請輸入電子郵件,我們會寄送連結。 / 寄送連結 / 下一步 / 驗證碼 / 請輸入傳送到您手機的驗證碼。 / 驗證 / 電子報 / 訂閱 / 搜尋 / 訊息內容 / 送出",
  ar: "اسم المستخدم / البريد الإلكتروني / كلمة المرور / تسجيل الدخول / مرحبًا بعودتك / تذكرني / هل نسيت كلمة المرور؟ / إنشاء حساب / إنشاء حساب جديد / الاسم الأول / اسم العائلة / تأكيد كلمة المرور / كلمة المرور الحالية / كلمة المرور الجديدة / تغيير كلمة المرور / حفظ / إعادة تعيين كلمة المرور / أدخل بريدك وسنرسل لك رابطًا. / إرسال الرابط / التالي / رمز التحقق / أدخل الرمز المرسل إلى هاتفك. / تحقق / النشرة الإخبارية / اشترك / بحث / رسالتك / إرسال",
  he: "שם משתמש / כתובת דוא״ל / סיסמה / התחברות / ברוכים השבים / זכור אותי / שכחתי סיסמה / הרשמה / יצירת חשבון / שם פרטי / שם משפחה / אימות סיסמה / סיסמה נוכחית / סיסמה חדשה / שינוי סיסמה / שמירה / איפוס סיסמה / הזינו כתובת ונשלח קישור. / שליחת קישור / הבא / קוד אימות / הזינו את הקוד שנשלח לטלפון. / אימות / הניוזלטר שלנו / הרשמה לניוזלטר / חיפוש / הודעה / שליחה",
  fa: "نام کاربری / ایمیل / رمز عبور / ورود / خوش آمدید / مرا به خاطر بسپار / رمز عبور را فراموش کرده‌اید؟ / ثبت نام / ساخت حساب کاربری / نام / نام خانوادگی / تکرار رمز عبور / رمز عبور فعلی / رمز عبور جدید / تغییر رمز عبور / ذخیره / بازیابی رمز عبور / ایمیل خود را وارد کنید تا پیوند را بفرستیم. / ارسال پیوند / ادامه / کد تایید / کد ارسال شده به تلفن خود را وارد کنید. / تایید / خبرنامه / عضویت / جستجو / پیام / ارسال",
  hi: "उपयोगकर्ता नाम / ईमेल पता / पासवर्ड / लॉग इन करें / वापसी पर स्वागत है / मुझे याद रखें / पासवर्ड भूल गए? / पंजीकरण करें / खाता बनाएँ / पहला नाम / अंतिम नाम / पासवर्ड की पुष्टि करें / वर्तमान पासवर्ड / नया पासवर्ड / पासवर्ड बदलें / सहेजें / पासवर्ड रीसेट करें / अपना ईमेल दें, हम लिंक भेजेंगे। / लिंक भेजें / आगे बढ़ें / सत्यापन कोड / अपने फ़ोन पर भेजा गया कोड दर्ज करें। / सत्यापित करें / समाचार पत्रिका / सदस्यता लें / खोजें / संदेश / भेजें",
  th: "ชื่อผู้ใช้ / อีเมล / รหัสผ่าน / เข้าสู่ระบบ / ยินดีต้อนรับกลับ / จดจำฉัน / ลืมรหัสผ่าน? / สมัครสมาชิก / สร้างบัญชี / ชื่อ / นามสกุล / ยืนยันรหัสผ่าน / รหัสผ่านปัจจุบัน / รหัสผ่านใหม่ / เปลี่ยนรหัสผ่าน / บันทึก / รีเซ็ตรหัสผ่าน / กรอกอีเมลแล้วเราจะส่งลิงก์ให้ / ส่งลิงก์ / ถัดไป / รหัสยืนยัน / กรอกรหัสที่ส่งไปยังโทรศัพท์ของคุณ / ยืนยัน / จดหมายข่าว / สมัครรับข่าวสาร / ค้นหา / ข้อความ / ส่ง",
  vi: "Tên đăng nhập / Địa chỉ email / Mật khẩu / Đăng nhập / Chào mừng trở lại / Ghi nhớ đăng nhập / Quên mật khẩu? / Đăng ký / Tạo tài khoản / Tên / Họ / Nhập lại mật khẩu / Mật khẩu hiện tại / Mật khẩu mới / Đổi mật khẩu / Lưu / Đặt lại mật khẩu / Nhập email, chúng tôi sẽ gửi liên kết. / Gửi liên kết / Tiếp theo / Mã xác minh / Nhập mã gửi đến điện thoại của bạn. / Xác nhận / Bản tin / Đăng ký nhận tin / Tìm kiếm / Tin nhắn / Gửi",
  id: "Nama pengguna / Alamat email / Kata sandi / Masuk / Selamat datang kembali / Ingat saya / Lupa kata sandi? / Daftar / Buat akun / Nama depan / Nama belakang / Konfirmasi kata sandi / Kata sandi saat ini / Kata sandi baru / Ubah kata sandi / Simpan / Atur ulang kata sandi / Masukkan email dan kami kirim tautan. / Kirim tautan / Lanjutkan / Kode verifikasi / Masukkan kode yang dikirim ke ponsel Anda. / Verifikasi / Buletin kami / Berlangganan / Cari / Pesan / Kirim",
  ca: "Nom d'usuari / Correu electrònic / Contrasenya / Inicia sessió / Benvinguts de nou / Recorda'm / Has oblidat la contrasenya? / Registra't / Crea un compte / Nom / Cognoms / Confirma la contrasenya / Contrasenya actual / Contrasenya nova / Canvia la contrasenya / Desa / Restableix la contrasenya / Escriu el correu i t'enviarem un enllaç. / Envia l'enllaç / Següent / Codi de verificació / Introdueix el codi que t'hem enviat. / Verifica / El nostre butlletí / Subscriu-te / Cerca / Missatge / Envia",
  sr: "Корисничко име / Имејл адреса / Лозинка / Пријави се / Добро дошли назад / Запамти ме / Заборавили сте лозинку? / Региструј се / Направите налог / Име / Презиме / Поновите лозинку / Тренутна лозинка / Нова лозинка / Промени лозинку / Сачувај / Ресетовање лозинке / Унесите имејл и послаћемо вам везу. / Пошаљи везу / Даље / Код за потврду / Унесите код из поруке. / Потврди / Наш билтен / Претплати се / Претрага / Порука / Пошаљи",
  ms: "Nama pengguna / Alamat e-mel / Kata laluan / Log masuk / Selamat kembali / Ingat saya / Lupa kata laluan? / Daftar / Cipta akaun / Nama pertama / Nama keluarga / Sahkan kata laluan / Kata laluan semasa / Kata laluan baharu / Tukar kata laluan / Simpan / Tetapkan semula kata laluan / Masukkan e-mel dan kami akan hantar pautan. / Hantar pautan / Seterusnya / Kod pengesahan / Masukkan kod yang dihantar ke telefon anda. / Sahkan / Surat berita / Langgan / Cari / Mesej / Hantar",
  af: "Gebruikersnaam / E-posadres / Wagwoord / Meld aan / Welkom terug / Onthou my / Wagwoord vergeet? / Registreer / Skep 'n rekening / Voornaam / Van / Bevestig wagwoord / Huidige wagwoord / Nuwe wagwoord / Verander wagwoord / Stoor / Herstel wagwoord / Voer jou e-posadres in, dan stuur ons 'n skakel. / Stuur skakel / Volgende / Verifikasiekode / Voer die kode in wat ons gestuur het. / Bevestig / Ons nuusbrief / Teken in op die nuusbrief / Soek / Boodskap / Stuur",
  gl: "Nome de usuario / Correo electrónico / Contrasinal / Iniciar sesión / Benvido de novo / Lembrarme / Esqueciches o contrasinal? / Crear conta / Crea a túa conta / Nome / Apelidos / Confirmar contrasinal / Contrasinal actual / Novo contrasinal / Cambiar contrasinal / Gardar / Restablecer contrasinal / Escribe o teu correo e enviarémosche unha ligazón. / Enviar ligazón / Seguinte / Código de verificación / Introduce o código que recibiches. / Verificar / O noso boletín / Subscribirse / Buscar / Mensaxe / Enviar",
  cy: "Enw defnyddiwr / Cyfeiriad e-bost / Cyfrinair / Mewngofnodi / Croeso nôl / Cofiwch fi / Wedi anghofio'ch cyfrinair? / Cofrestru / Creu cyfrif / Enw cyntaf / Cyfenw / Cadarnhau cyfrinair / Cyfrinair presennol / Cyfrinair newydd / Newid cyfrinair / Cadw / Ailosod cyfrinair / Rhowch eich e-bost ac anfonwn ddolen. / Anfon dolen / Nesaf / Cod dilysu / Rhowch y cod a anfonwyd i'ch ffôn. / Dilysu / Ein cylchlythyr / Tanysgrifio / Chwilio / Neges / Anfon",
  eu: "Erabiltzaile-izena / Helbide elektronikoa / Pasahitza / Hasi saioa / Ongi etorri berriro / Gogora nazazu / Pasahitza ahaztu duzu? / Erregistratu / Sortu kontua / Izena / Abizenak / Berretsi pasahitza / Oraingo pasahitza / Pasahitz berria / Aldatu pasahitza / Gorde / Berrezarri pasahitza / Idatzi zure helbidea eta esteka bidaliko dizugu. / Bidali esteka / Hurrengoa / Egiaztapen-kodea / Idatzi bidali dizugun kodea. / Egiaztatu / Gure buletina / Harpidetu / Bilatu / Mezua / Bidali",
  is: "Notandanafn / Netfang / Lykilorð / Innskrá / Velkomin aftur / Muna eftir mér / Gleymt lykilorð? / Nýskráning / Stofna aðgang / Fornafn / Eftirnafn / Staðfesta lykilorð / Núverandi lykilorð / Nýtt lykilorð / Breyta lykilorði / Vista / Endurstilla lykilorð / Sláðu inn netfang og við sendum hlekk. / Senda hlekk / Áfram / Staðfestingarkóði / Sláðu inn kóðann sem við sendum í síma. / Staðfesta / Fréttabréf / Gerast áskrifandi / Leita / Skilaboð / Senda",
};

export const PHRASES: Record<string, Phrases> = Object.fromEntries(
  Object.entries(SAID).map(([language, said]) => {
    const parts = said.split(" / ");
    if (parts.length !== KEYS.length) throw new Error(`${language} says ${parts.length} of ${KEYS.length} things.`);
    return [language, Object.fromEntries(KEYS.map((key, i) => [key, parts[i]])) as unknown as Phrases];
  }),
);
