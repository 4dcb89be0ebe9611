import type { Language } from "./language";

/** English. */
export const en: Language = {
  signIn: {
    words: `
      sign ?in, signin, sign ?on, signon, log ?in, login, log ?on, logon, logging in,
      members? (area|sign ?in|log ?in), sso, auth, authenticate, log in, sign into, log into
    `,
  },
  register: {
    words: `
      register, registration, sign ?up, signup, create( an| your| my| a)?( new| free)? (account|profile|login),
      new account, join( us| now| free)?, enrol, enroll, enrolment, get started, become a member, open an account,
      start( your)?( free)? trial, create account, make an account, new customer, new user,
      (create|open|make|set up)( \\w+)?( \\w+)? account
    `,
  },
  reset: {
    words: `
      forgot(ten)?( your| my| the)?( password| username| pin)?, reset( your| my| the)?( password)?,
      password (reset|recovery|help|reminder|assistance), recover( your| my)?( account| password| access)?,
      lost( your)? password, send( me)?( a)?( password)?( reset)?( the)? (link|instructions|email|e mail), remind,
      account recovery, trouble (signing|logging) in, retrieve password, email me( the)? instructions,
      send( me)?( the| a)? instructions, i forgot, lost password, help signing in, can t (sign|log) in,
      cannot (sign|log) in
    `,
  },
  change: {
    words: `
      change( your| my| the)?( account)? password,
      (update|set|choose|create|enter|pick)( your| a| my)?( new)? password, new password, password change,
      expired password, password( has)? expired
    `,
  },
  confirm: {
    words: `
      confirm( password)?, confirmation, repeat( password)?, again, retype, re enter, reenter, verify password,
      password ?2, pass2, pwd2
    `,
  },
  old: { words: "old, current, existing, present, oldpass(word)?" },
  new: { words: "new, newpass(word)?, choose, create" },
  password: { words: "password, passwd, pass, pwd, pword, passphrase, passcode" },
  userName: {
    words: `
      user ?(name|id)?, username, userid, uname, usr, login( ?(name|id))?, logon( ?id)?,
      account( ?(name|id|number|no))?, member( ?(id|number|no|name))?, customer( ?(id|number|no))?,
      client( ?(id|number|no))?, email or .*, handle, staff( ?(id|number|no)), employee( ?(id|number|no)),
      card ?number, reference( ?number)?, login name, personal ?number
    `,
  },
  email: {
    words: "e ?mail( ?(address|id))?, mail( ?address)?, email, emailaddress",
    parts: "email",
  },
  phone: { words: "phone( number)?, mobile( number)?, telephone, tel" },
  code: {
    words: `
      otp, totp, one time( ?(pass)?(code|word)?)?, onetimecode, 2fa, mfa, two factor( code)?, two step( code)?,
      (verification|security|authentication|authenticator|auth|access|confirmation|login|passcode|sms|six digit|6 digit) ?code,
      code from, code sent, (enter|type)( the| your)? code, code (we|you)( \\w+)? (sent|received), authenticator,
      token( ?code)?, verification, digit, verifycode, authcode, mfacode, otpcode
    `,
  },
  search: { words: "search, query, q, s, find, keyword, keywords" },
  newsletter: {
    words: `
      newsletter, news letter, subscribe, subscription, mailing list, stay (in touch|informed|up to date),
      get (our )?(news|updates|offers), keep me posted,
      sign ?up for (our )?(news|updates|offers|newsletter|emails?), unsubscribe, notify me, waitlist, waiting list,
      news and offers, news letters?, our news, latest news
    `,
  },
  next: { words: "next, continue, proceed" },
  send: {
    words: `
      go, ok, submit, send, save, verify, confirm, unlock, enter, apply, done, finish, login, update, save changes
    `,
  },
  aside: {
    words: `
      show( password)?, hide( password)?, toggle, reveal, clear, close, cancel, back, menu, dismiss, eye, help,
      language, resend( code)?, send again
    `,
  },
  remember: {
    words: `
      remember( me| my| this| login| device)?, rememberme, keep( me)?( signed| logged)? in, stay (signed|logged) in,
      persist(ent)?, trust this (device|browser|computer)
    `,
  },
  particulars: {
    words: `
      first ?name, last ?name, full ?name, your name, surname, given ?name, family ?name, fname, lname,
      birth(day|date)?, date of birth, dob, street, postcode, zip( code)?, city, country, company( name)?,
      organi[sz]ation( name)?, gender, forename
    `,
  },
  otherPurpose: {
    words: `
      contact( us)?, comment, message, enquiry, inquiry, feedback, checkout, donate, coupon, voucher, promo( code)?,
      gift ?card, discount, quote, (delete|close|deactivate|cancel)( your| my| this)? (account|profile),
      delete, decrypt, encrypt, back ?up, export, import, track( your)?( order| parcel)?
    `,
  },
  settings: {
    words: `
      host( ?name)?, server( ?(name|address))?, port( ?number)?, database( ?name)?, db ?(name|user|host|pass\\w*), smtp, imap, pop3?, ldap,
      ssid, wi ?fi, wireless, wpa\\w*, pppoe, router, gateway, proxy, dns, subnet, table prefix, quota, role, time ?zone,
      mail ?(server|box), mount, camera, device name, install(ation)?, set ?up, replica\\w*, bind dn, domain name,
      connection( type)?, add (a )?(user|account|server|member), new user, edit (user|account), network (key|name),
      display name, bio, signature, preferences, settings
    `,
  },
  payment: {
    words: `
      card ?(holder|holder name)?, card ?number, cc ?number, cvv, cvc, security number, gift ?card( number)?, balance,
      check (your |my )?balance, redeem, top ?up, iban, account holder, expiry( date)?, expiration( date)?, pay( now)?,
      payment, billing, amount, voucher( number| code)?, activate( card)?
    `,
  },
  secondSecret: {
    words: `
      memorable (word|information|name|place|date), date of birth, birth ?date, dob, mother s maiden name, maiden name,
      security (answer|question|word), secret (answer|question|word), pass ?phrase, pin( ?(code|number))?,
      (first|second|third|fourth|fifth|sixth|last|\\d+(st|nd|rd|th)) (letter|character|digit)
    `,
  },
};
