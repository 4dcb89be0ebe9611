/**
 * More pages for the reader's test: forms made of what is no form control, passwords that are none to the browser, and
 * the many pages that ask for a name and a password and are no sign-in.
 */
import { type Draw, type Maker, made, NOBODY, surroundings, userNames } from "./drawing";

const attributesOf = (draw: Draw) => userNames(draw)[1];

/** A form written out, with its button as given. */
function written(draw: Draw, inner: string, button: string, heading = draw.say.signIn): string {
  const head = draw.pick(`<h1>${heading}</h1>`, `<div class="caption">${heading}</div>`, "");
  return surroundings(
    draw,
    `${head}<form id="f" method="post" action="${draw.pick("/go", "/in", "")}">${inner}${button}</form>`,
    "Quillhaven",
  );
}

const twoFields = (draw: Draw, password = `<input id="p" type="password" name="pw">`): string =>
  draw.pick(
    `<label for="u">${draw.say.userName}</label><input id="u" ${attributesOf(draw)}><label for="p">${draw.say.password}</label>${password}`,
    `<div class="row"><input id="u" placeholder="${draw.say.email}" ${attributesOf(draw)}></div><div class="row">${password.replace("<input", `<input placeholder="${draw.say.password}"`)}</div>`,
    `<p>${draw.say.userName}<br><input id="u" ${attributesOf(draw)}></p><p>${draw.say.password}<br>${password}</p>`,
  );

const SIGN_IN = { kind: "sign-in" as const, form: "f", userName: "u", password: "p", oneTimeCode: null, submit: "go" };
const NONE = { kind: "none" as const, ...NOBODY };

/** What stands for a button: a link, a `div`, by its role, its class or its handler. */
const noButton = ({ pick }: Draw, text: string): string =>
  pick(
    `<a id="go" href="#" class="btn btn-primary">${text}</a>`,
    `<a id="go" href="javascript:void(0)" onclick="send()">${text}</a>`,
    `<a id="go" class="button">${text}</a>`,
    `<div id="go" role="button" tabindex="0">${text}</div>`,
    `<div id="go" class="login-btn">${text}</div>`,
    `<span id="go" onclick="send()">${text}</span>`,
    `<div id="go" class="submitButton"><span>${text}</span></div>`,
  );

/** One field of a form that is no sign-in, with a name by which programs call it. */
const field = (label: string, name: string, more = ""): string =>
  `<label>${label} <input name="${name}" ${more}></label>`;

export const HARD_MAKERS: Record<string, Maker> = {
  "sign-in sent by what is no button": (draw) => ({
    ...SIGN_IN,
    html: written(draw, twoFields(draw), `<div class="row">${noButton(draw, draw.say.signIn)}</div>`),
  }),
  "sign-in whose password is a field of text": (draw) => ({
    ...SIGN_IN,
    html: written(
      draw,
      twoFields(
        draw,
        draw.pick(
          `<input id="p" type="text" name="password">`,
          `<input id="p" type="text" name="pwd" style="-webkit-text-security: disc">`,
          `<style>.dots { -webkit-text-security: disc; }</style><input id="p" class="dots" name="pass" autocomplete="off">`,
        ),
      ),
      draw.pick(
        `<button id="go">${draw.say.signIn}</button>`,
        `<input id="go" type="submit" value="${draw.say.signIn}">`,
      ),
    ),
  }),
  "sign-in with a button that says only to go on": (draw) => ({
    ...SIGN_IN,
    html: written(
      draw,
      `${twoFields(draw)}<label><input type="checkbox" name="k"> ${draw.say.remember}</label>`,
      draw.pick(
        `<button id="go">${draw.say.next}</button>`,
        `<button id="go">OK</button>`,
        `<button id="go">${draw.say.send}</button>`,
      ),
    ),
  }),
  "sign-in whose password is asked for letter by letter": (draw) => ({
    ...SIGN_IN,
    html: written(
      draw,
      `<label for="u">${draw.say.userName}</label><input id="u" ${attributesOf(draw)}><fieldset><legend>${draw.say.password}</legend>${[
        2, 5, 8,
      ]
        .map(
          (n) => `<input id="${n === 2 ? "p" : `p${n}`}" type="password" maxlength="1" name="l${n}" aria-label="${n}">`,
        )
        .join("")}</fieldset>`,
      `<button id="go">${draw.say.signIn}</button>`,
    ),
  }),
  "sign-in by phone number": (draw) => ({
    ...SIGN_IN,
    html: written(
      draw,
      `<select name="cc"><option>+44</option><option>+49</option></select><input id="u" type="tel" name="${draw.pick("phone", "mobile", "msisdn")}" placeholder="${draw.pick("07700 900123", "Phone")}"><input id="p" type="password" name="pw" placeholder="${draw.say.password}">`,
      `<button id="go">${draw.say.signIn}</button>`,
    ),
  }),
  "identifier-first by phone number": (draw) => ({
    ...SIGN_IN,
    ...{ kind: "identifier-first", password: null },
    html: written(
      draw,
      `<input id="u" type="tel" name="phone" autocomplete="${draw.pick("tel", "username", "off")}">`,
      `<button id="go">${draw.pick(draw.say.signIn, draw.say.next)}</button>`,
    ),
  }),
  "sign-in with an organisation's number": (draw) => ({
    ...SIGN_IN,
    html: written(
      draw,
      `${field("Tenant", draw.pick("tenant", "mandant", "company"), 'value=""')}${twoFields(draw)}`,
      `<button id="go">${draw.say.signIn}</button>`,
    ),
  }),
  "register whose button says to sign in or nothing": (draw) => {
    const { say, pick } = draw;
    return {
      ...{ kind: "register" as const, form: "f", userName: "u", password: "p", oneTimeCode: null, submit: "go" },
      html: surroundings(
        draw,
        `<h1>${pick(say.makeAccount, say.register)}</h1><form id="f" method="post" action="${pick("/join", "")}"><label>${say.firstName} <input name="fn"></label><label>${say.email} <input id="u" type="email" name="mail"></label><label>${say.password} <input id="p" type="password" name="pw"></label><label>${say.repeat} <input type="password" name="pw2"></label><button id="go">${pick(say.signIn, "OK", say.next, say.send)}</button></form>`,
        pick("Quillhaven", say.register),
        { register: true },
      ),
    };
  },
  "change-password that carries only the new one": (draw) => {
    const { say, pick } = draw;
    return made(
      draw,
      "change-password",
      {
        heading: pick(say.changePassword, say.newPassword, say.resetTitle),
        rows: [
          [
            "n",
            say.newPassword,
            `type="password" ${pick('name="new"', 'name="password"', 'autocomplete="new-password" name="x"')}`,
          ],
        ],
        submit: pick(say.save, say.changePassword, say.next),
        action: pick("/account/password", ""),
      },
      { password: "n" },
      pick(say.changePassword, "Quillhaven"),
      true,
    );
  },
  "none: settings of a profile": (draw) => ({
    ...NONE,
    html: surroundings(
      draw,
      `<h1>${draw.pick("Profile", "Settings", "Account settings")}</h1><form id="f" method="post" action="/profile">${field(draw.say.firstName, "first", 'value="Ada"')}${field(draw.say.lastName, "last", 'value="Quill"')}${field(draw.say.userName, "username", 'value="ada"')}${field(draw.say.email, "email", 'type="email" value="ada@quill.example"')}${draw.pick("", field(draw.say.password, "password", 'type="password"'), field(draw.say.newPassword, "password", 'type="password"'))}<button>${draw.say.save}</button></form>`,
      "Quillhaven",
    ),
  }),
  "none: settings of a router": (draw) => ({
    ...NONE,
    html: surroundings(
      draw,
      `<h2>${draw.pick("Internet", "PPPoE", "Wireless", "WAN")}</h2><form method="post" action="/apply">${draw.pick(
        `${field("SSID", "ssid", 'value="quill"')}${field(draw.pick("WPA key", draw.say.password), "wpa_psk", 'type="password"')}<select name="mode"><option>WPA2</option></select>`,
        `${field(draw.say.userName, "pppoe_user", 'value="dsl-44"')}${field(draw.say.password, "pppoe_pass", 'type="password"')}${field("MTU", "mtu", 'value="1492"')}${field("DNS", "dns1")}`,
        `${field("DDNS host", "ddns_host")}${field(draw.say.userName, "ddns_user")}${field(draw.say.password, "ddns_pw", 'type="password"')}`,
      )}<button>${draw.pick(draw.say.save, "Apply", "OK")}</button></form>`,
      "Quillhaven",
    ),
  }),
  "none: settings of a mail account": (draw) => ({
    ...NONE,
    html: surroundings(
      draw,
      `<h2>${draw.pick("Mail account", "IMAP", "SMTP")}</h2><form method="post" action="/accounts">${field(draw.pick("Server", "Host"), draw.pick("imap_host", "smtp_server", "host"))}${field("Port", "port", 'type="number" value="993"')}${field(draw.pick(draw.say.userName, draw.say.email), draw.pick("imap_user", "smtp_username", "user"))}${field(draw.say.password, draw.pick("imap_pass", "smtp_password", "password"), 'type="password"')}<label><input type="checkbox" name="tls" checked> TLS</label><button>${draw.pick(draw.say.save, draw.say.next, "Test connection")}</button></form>`,
      "Quillhaven",
    ),
  }),
  "none: a database to set up": (draw) => ({
    ...NONE,
    html: surroundings(
      draw,
      `<h1>${draw.pick("Installation", "Database", "Setup")}</h1><form method="post" action="/setup">${field("Database host", "db_host", 'value="localhost"')}${field("Database name", "db_name")}${field(draw.say.userName, "db_user")}${field(draw.say.password, "db_pass", 'type="password"')}${draw.pick("", field("Table prefix", "prefix"))}<button>${draw.say.next}</button></form>`,
      "Quillhaven",
    ),
  }),
  "none: a gift card": (draw) => ({
    ...NONE,
    html: surroundings(
      draw,
      `<h2>${draw.pick("Gift card", "Check your balance", "Redeem a voucher")}</h2><form method="post" action="/balance">${field("Card number", draw.pick("card", "giftcard", "number"))}${field("PIN", "pin", `type="${draw.pick("password", "text")}" maxlength="4"`)}<button>${draw.pick("Check balance", "Redeem", "Apply", draw.say.next)}</button></form>`,
      "Quillhaven",
    ),
  }),
  "none: a payment card": (draw) => ({
    ...NONE,
    html: surroundings(
      draw,
      `<h2>${draw.pick("Payment", "Checkout")}</h2><form method="post" action="/pay">${field("Name on card", "cc-name", 'autocomplete="cc-name"')}${field("Card number", "cc", 'autocomplete="cc-number" inputmode="numeric"')}${field("Expiry date", "exp", 'autocomplete="cc-exp"')}${field("CVC", "cvc", `type="${draw.pick("password", "text")}" maxlength="4" autocomplete="cc-csc"`)}<button>${draw.pick("Pay now", "Pay", draw.say.next)}</button></form>`,
      "Quillhaven",
    ),
  }),
  "none: a PIN to be set": (draw) => ({
    ...NONE,
    html: surroundings(
      draw,
      `<h2>${draw.pick("Parental control", "Set a PIN", "Voicemail PIN")}</h2><form method="post" action="/pin">${field("PIN", "pin", 'type="password" maxlength="4" inputmode="numeric"')}${draw.pick("", field("Confirm PIN", "pin2", 'type="password" maxlength="4" inputmode="numeric"'))}<button>${draw.say.save}</button></form>`,
      "Quillhaven",
    ),
  }),
  "none: a person added by an administrator": (draw) => ({
    ...NONE,
    html: surroundings(
      draw,
      `<h2>${draw.pick("Add user", "New user", "Edit user")}</h2><form method="post" action="/admin/users">${field(draw.say.userName, "new_user[name]")}${field(draw.say.password, "new_user[password]", 'type="password"')}<select name="role"><option>Reader</option><option>Editor</option></select><label><input type="checkbox" name="admin"> Administrator</label><button>${draw.pick(draw.say.save, "Add user", "Create user")}</button></form>`,
      "Quillhaven",
    ),
  }),
  "none: a new address, with the password": (draw) => ({
    ...NONE,
    html: surroundings(
      draw,
      `<h2>${draw.pick("Change your email address", "Delete your account", "Close account")}</h2><form method="post" action="/account/email">${draw.pick(field(draw.say.email, "new_email", 'type="email"'), "")}${field(draw.say.oldPassword, "current_password", 'type="password"')}<button>${draw.pick(draw.say.save, "Delete account")}</button></form>`,
      "Quillhaven",
    ),
  }),
  "none: a protected page or file": (draw) => ({
    ...NONE,
    html: surroundings(
      draw,
      `<form method="post" action="/export">${field("File", "file", 'type="file"')}${field("Passphrase", "passphrase", 'type="password"')}<button>${draw.pick("Import", "Export", "Decrypt")}</button></form>`,
      "Quillhaven",
    ),
  }),
  "sign-in with a second secret": (draw) => {
    const { say, pick } = draw;
    const second = pick(
      `<label>Date of birth <input name="dob" type="${pick("date", "text")}" placeholder="DD/MM/YYYY"></label>`,
      `<label>Memorable word <input name="memorable" type="password"></label>`,
      `<label>Security number <input name="secnum" type="password" maxlength="6"></label>`,
      `<label>${pick("Customer PIN", "PIN")} <input name="pin" type="password" maxlength="4" inputmode="numeric"></label>`,
    );
    return {
      ...SIGN_IN,
      html: written(draw, `${twoFields(draw)}${second}`, `<button id="go">${say.signIn}</button>`),
    };
  },
  "identifier-first by OpenID": (draw) => ({
    ...SIGN_IN,
    ...{ kind: "identifier-first", password: null },
    html: written(
      draw,
      `<label for="u">${draw.pick("OpenID", "OpenID URL", "Your OpenID")}</label><input id="u" name="${draw.pick("openid_identifier", "openid_url", "openid")}" type="${draw.pick("text", "url")}">`,
      `<button id="go">${draw.say.signIn}</button>`,
    ),
  }),
  "register without a password": (draw) => {
    const { say, pick } = draw;
    return {
      ...{ kind: "register" as const, form: "f", userName: "u", password: null, oneTimeCode: null, submit: "go" },
      html: surroundings(
        draw,
        `<h1>${pick(say.makeAccount, say.register)}</h1><form id="f" method="post" action="${pick("/signup", "")}"><label>${say.userName} <input id="u" name="login" autocomplete="username"></label><label>${say.email} <input type="text" name="mail"></label>${pick("", '<label>2 + 3 = <input name="answer"></label>')}<button id="go">${pick(say.register, say.next, say.makeAccount)}</button></form>`,
        pick("Quillhaven", say.register),
        { register: true },
      ),
    };
  },
  "password-only-step that unlocks": (draw) => ({
    ...SIGN_IN,
    ...{ kind: "password-only-step", userName: null },
    html: `<html><head><title>${draw.pick("Locked", draw.say.welcome, "Quillhaven")}</title></head><body><div class="card"><img alt="" src="/a.png"><h3>Ada Quill</h3><form id="f" method="post"><input id="p" type="password" name="pw" placeholder="${draw.say.password}"><button id="go">${draw.pick("Unlock", draw.say.signIn, draw.say.next)}</button></form><a href="/out">${draw.pick("Not you?", "Switch user", draw.say.signIn)}</a></div></body></html>`,
  }),
  "one-time-code-step in boxes of text": (draw) => {
    const { say, pick } = draw;
    const box = (n: number) =>
      `<input ${n === 0 ? 'id="c" ' : ""}type="${pick("text", "tel")}" class="form-control" maxlength="1"${pick("", ' inputmode="numeric" pattern="[0-9]*"')}>`;
    return {
      ...SIGN_IN,
      ...{ kind: "one-time-code-step", userName: null, password: null, oneTimeCode: "c" },
      html: surroundings(
        draw,
        `<form id="f" method="post"><h2>${pick(say.verify, say.code, "2-Step Verification")}</h2><p>${pick(say.codeText, say.code)}</p><div class="row">${Array.from({ length: pick(4, 6, 8) }, (_, n) => box(n)).join("")}</div><button id="go">${pick(say.verify, say.next)}</button></form>`,
        "Quillhaven",
      ),
    };
  },
  "none: a token to make": (draw) => ({
    ...NONE,
    html: surroundings(
      draw,
      `<h2>${draw.pick("API tokens", "Access tokens", "Applications")}</h2><form method="post" action="/tokens">${field(draw.pick("Note", "Description", "Token name"), draw.pick("note", "token-note", "description"))}<select name="ends"><option>30</option><option>90</option></select><button>${draw.pick("Request new API token", "Create token", draw.say.save)}</button></form>`,
      "Quillhaven",
    ),
  }),
  "register sent by a link": (draw) => {
    const { say, pick } = draw;
    return {
      ...{ kind: "register" as const, form: "f", userName: "u", password: "p", oneTimeCode: null, submit: "go" },
      html: surroundings(
        draw,
        `<h1>${say.makeAccount}</h1><form id="f" class="user"><div><input id="a" placeholder="${say.firstName}"></div><div><input id="b" placeholder="${say.lastName}"></div><div><input id="u" type="email" placeholder="${say.email}"></div><div><input id="p" type="password" placeholder="${say.password}"></div><div><input id="r" type="password" placeholder="${say.repeat}"></div><a id="go" href="${pick("/in", "login.html", "#")}" class="btn btn-primary">${pick(say.register, say.makeAccount)}</a></form>`,
        pick("Quillhaven", say.register),
        { register: true },
      ),
    };
  },
  "sign-in with a realm and a button without a word": (draw) => {
    const { say, pick } = draw;
    return {
      ...SIGN_IN,
      html: surroundings(
        draw,
        `<form id="f" method="post" name="${pick("login", "auth", "f")}"><h2>${pick(say.signIn, say.welcome)}</h2>${twoFields(draw)}${pick('<label>Realm <select name="realm"><option>Local</option><option>Directory</option></select></label>', '<select name="server"><option>one</option></select>')}<label><input type="checkbox" name="keep"> ${say.remember}</label>${pick('<input id="go" type="submit">', `<button id="go">${say.send}</button>`, '<button id="go" type="submit">→</button>')}</form>`,
        pick(say.signIn, "Quillhaven"),
      ),
    };
  },
  "reset-request with a button without a word": (draw) => {
    const { say, pick } = draw;
    return {
      ...{ kind: "reset-request" as const, form: "f", userName: "u", password: null, oneTimeCode: null, submit: "go" },
      html: surroundings(
        draw,
        `<form id="f" method="post"><h3>${pick(say.resetTitle, say.forgot)}</h3><label>${pick(say.email, say.userName)} <input id="u" name="${pick("email", "user", "fUsername")}" type="${pick("email", "text")}"></label>${pick('<input id="go" type="submit">', `<button id="go">${say.send}</button>`, `<button id="go">${say.next}</button>`)}</form>`,
        pick(say.resetTitle, "Quillhaven"),
        { register: true },
      ),
    };
  },
  "sign-in whose fields are all of text, told by their labels": (draw) => ({
    ...SIGN_IN,
    html: written(
      draw,
      draw.pick(
        `<div><label>${draw.say.userName} *</label><input id="u" type="text" class="form-control"></div><div><label>${draw.say.password} *</label><input id="p" type="text" class="form-control"></div>`,
        `<input id="u" type="text" placeholder="${draw.say.email}"><input id="p" type="text" placeholder="${draw.say.password}">`,
        `<input id="u" type="email" placeholder="${draw.say.email}" aria-label="Email"><input id="p" type="email" placeholder="${draw.say.password}" aria-label="Password">`,
      ),
      draw.pick(
        `<button id="go">${draw.say.signIn}</button>`,
        `<button id="go" type="button">${draw.say.signIn}</button>`,
      ),
    ),
  }),
};
