/**
 * Makes the pages of the reader's test: every kind, in every language of `phrases.ts`, in the shapes that pages come
 * in. What a page is known to hold is written beside it as it is made; nothing here asks the reader.
 */
import {
  type Draw,
  dice,
  layOut,
  type MadePage,
  type Maker,
  made,
  NOBODY,
  passwords,
  remember,
  surroundings,
  userNames,
} from "./drawing";
import { HARD_MAKERS } from "./hardPages";
import { PHRASES } from "./phrases";

const MAKERS: Record<string, Maker> = {
  "sign-in": (draw) => {
    const { say, pick } = draw;
    const [label, attributes] = userNames(draw);
    return made(
      draw,
      "sign-in",
      {
        heading: pick(say.signIn, say.welcome, ""),
        rows: [
          ["u", label, attributes],
          ["p", say.password, `type="password" ${passwords(draw)}`],
        ],
        extra: pick("", remember(draw), '<button type="button" aria-label="Show">👁</button>'),
        submit: pick(say.signIn, say.signIn, say.next),
        action: pick("/login", "/session", "", "/account/check"),
      },
      { userName: "u", password: "p" },
      pick(say.signIn, "Quillhaven", `Quillhaven | ${say.welcome}`),
    );
  },
  "sign-in with a code": (draw) => {
    const { say } = draw;
    const [label, attributes] = userNames(draw);
    return made(
      draw,
      "sign-in",
      {
        heading: say.signIn,
        rows: [
          ["u", label, attributes],
          ["p", say.password, `type="password" ${passwords(draw)}`],
          ["c", say.code, 'name="c3" inputmode="numeric" maxlength="6"'],
        ],
        submit: say.signIn,
        action: "/login",
      },
      { userName: "u", password: "p", oneTimeCode: "c" },
      say.signIn,
    );
  },
  "sign-in beside a registration": (draw) => {
    const { say, roll } = draw;
    const [label, attributes] = userNames(draw);
    const [inner, inForm] = layOut(draw, {
      heading: say.signIn,
      rows: [
        ["u", label, attributes],
        ["p", say.password, `type="password" ${passwords(draw)}`],
      ],
      submit: say.signIn,
      action: "/in",
    });
    const other = `<form action="/join" method="post"><h2>${say.makeAccount}</h2><label>${say.firstName} <input name="fn"></label><label>${say.email} <input type="email" name="em"></label><label>${say.password} <input type="password" name="pw"></label><button>${say.register}</button></form>`;
    const both = roll(2) === 0 ? `<div>${inner}</div><div>${other}</div>` : `<div>${other}</div><div>${inner}</div>`;
    return {
      html: surroundings(draw, both, "Quillhaven"),
      kind: "sign-in",
      form: inForm ? "f" : null,
      userName: "u",
      password: "p",
      oneTimeCode: null,
      submit: "go",
    };
  },
  "identifier-first": (draw) => {
    const { say, pick } = draw;
    const [label, attributes] = userNames(draw);
    return made(
      draw,
      "identifier-first",
      {
        heading: say.signIn,
        rows: [["u", label, attributes]],
        submit: pick(say.next, say.signIn),
        action: pick("/login", "", "/identify"),
      },
      { userName: "u" },
      pick(say.signIn, "Quillhaven"),
    );
  },
  "password-only-step": (draw) => {
    const { say, pick } = draw;
    return made(
      draw,
      "password-only-step",
      {
        heading: pick(say.welcome, say.signIn, ""),
        text: "ada@quillhaven.example",
        rows: [["p", say.password, `type="password" ${passwords(draw)}`]],
        extra: pick("", '<input type="hidden" name="login" value="ada">', remember(draw)),
        submit: pick(say.signIn, say.next),
        action: pick("/login/password", ""),
      },
      { password: "p" },
      pick(say.signIn, "Quillhaven"),
    );
  },
  "one-time-code-step": (draw) => {
    const { say, pick } = draw;
    return made(
      draw,
      "one-time-code-step",
      {
        heading: pick(say.code, say.verify, say.signIn),
        text: pick(say.codeText, ""),
        rows: [
          [
            "c",
            say.code,
            pick(
              'name="code" inputmode="numeric" maxlength="6"',
              'name="otp"',
              'name="t" autocomplete="one-time-code"',
              'name="answer"',
            ),
          ],
        ],
        submit: pick(say.verify, say.next, say.signIn),
        action: pick("/verify", "/mfa", ""),
      },
      { oneTimeCode: "c" },
      pick(say.code, "Quillhaven"),
    );
  },
  "one-time-code-step in boxes": (draw) => {
    const { say, pick } = draw;
    const boxes = Array.from(
      { length: 6 },
      (_, i) =>
        `<input id="${i === 0 ? "c" : `c${i}`}" maxlength="1" inputmode="numeric" name="d${i}" aria-label="${i + 1}">`,
    ).join("");
    const page = made(
      draw,
      "one-time-code-step",
      {
        heading: say.code,
        text: say.codeText,
        rows: [],
        extra: `<div class="boxes">${boxes}</div>`,
        submit: pick(say.verify, say.next),
        action: "/verify",
      },
      { oneTimeCode: "c" },
      "Quillhaven",
    );
    return page;
  },
  "change-password": (draw) => {
    const { say, pick } = draw;
    return made(
      draw,
      "change-password",
      {
        heading: say.changePassword,
        rows: [
          [
            "o",
            say.oldPassword,
            `type="password" ${pick('name="old"', 'name="a" autocomplete="current-password"', 'name="p1"')}`,
          ],
          [
            "n",
            say.newPassword,
            `type="password" ${pick('name="new"', 'name="b" autocomplete="new-password"', 'name="p2"')}`,
          ],
          [
            "r",
            say.repeat,
            `type="password" ${pick('name="again"', 'name="c" autocomplete="new-password"', 'name="p3"')}`,
          ],
        ],
        submit: pick(say.changePassword, say.save),
        action: pick("/account/password", ""),
      },
      { password: "o" },
      pick(say.changePassword, "Quillhaven"),
      true,
    );
  },
  "change-password after a reset": (draw) => {
    const { say, pick } = draw;
    return made(
      draw,
      "change-password",
      {
        heading: pick(say.resetTitle, say.newPassword, say.changePassword),
        rows: [
          ["n", say.newPassword, 'type="password" name="pw1"'],
          ["r", say.repeat, 'type="password" name="pw2"'],
        ],
        submit: pick(say.save, say.changePassword),
        action: "/reset/finish",
      },
      { password: "n" },
      "Quillhaven",
    );
  },
  register: (draw) => {
    const { say, pick } = draw;
    return made(
      draw,
      "register",
      {
        heading: pick(say.makeAccount, say.register),
        rows: [
          ["fn", say.firstName, 'name="given"'],
          ["ln", say.lastName, 'name="family"'],
          ["u", say.email, pick('type="email" name="email"', 'name="mail"')],
          ["p", say.password, `type="password" ${pick('name="password"', 'name="p" autocomplete="new-password"')}`],
        ],
        submit: pick(say.register, say.makeAccount),
        action: pick("/join", "/users", ""),
      },
      { userName: "u", password: "p" },
      pick(say.register, say.makeAccount, "Quillhaven"),
      true,
    );
  },
  "register with a repeat": (draw) => {
    const { say, pick } = draw;
    const [label, attributes] = userNames(draw);
    return made(
      draw,
      "register",
      {
        heading: pick(say.makeAccount, say.register),
        rows: [
          ["u", label, attributes],
          ["p", say.password, 'type="password" name="password"'],
          ["r", say.repeat, 'type="password" name="password2"'],
        ],
        submit: say.register,
        action: pick("/join", ""),
      },
      { userName: "u", password: "p" },
      "Quillhaven",
      true,
    );
  },
  "register, two fields": (draw) => {
    const { say, pick } = draw;
    return made(
      draw,
      "register",
      {
        heading: pick(say.makeAccount, say.register),
        rows: [
          ["u", say.email, 'type="email" name="email"'],
          ["p", say.password, `type="password" ${pick('name="password"', 'name="p" autocomplete="new-password"')}`],
        ],
        submit: pick(say.register, say.makeAccount),
        action: pick("/signup", "/join", ""),
      },
      { userName: "u", password: "p" },
      pick(say.makeAccount, "Quillhaven"),
      true,
    );
  },
  "reset-request": (draw) => {
    const { say, pick } = draw;
    const [label, attributes] = userNames(draw);
    return made(
      draw,
      "reset-request",
      {
        heading: say.resetTitle,
        text: pick(say.resetText, ""),
        rows: [["u", label, attributes]],
        submit: pick(say.resetSend, say.next, say.send),
        action: pick("/lost", "/password/reset", ""),
      },
      { userName: "u" },
      pick(say.resetTitle, say.forgot, "Quillhaven"),
      true,
    );
  },
  "sign-in with a hidden registration behind a tab": (draw) => {
    const { say, pick } = draw;
    const hide = pick('style="display: none"', "hidden", 'class="pane"', 'style="visibility:hidden"', 'class="sr"');
    return {
      html: `<html><head><style>.pane { display: none } .pane.on { display: block } .sr { position: absolute; left: -9999px }</style></head><body><div class="tabs"><button type="button">${say.signIn}</button><button type="button">${say.register}</button></div><div class="pane on"><form id="f" method="post"><label for="u">${say.email}</label><input type="email" id="u" name="l"><label for="p">${say.password}</label><input type="password" id="p" name="m"><input type="submit" id="go" value="${say.signIn}"></form></div><div ${hide}><form method="post"><input name="n1" placeholder="${say.firstName}"><input name="n2" type="email" placeholder="${say.email}"><input type="password" name="n3" placeholder="${say.password}"><input type="password" name="n4" placeholder="${say.repeat}"><input type="submit" value="${say.register}"></form></div></body></html>`,
      kind: "sign-in",
      form: "f",
      userName: "u",
      password: "p",
      oneTimeCode: null,
      submit: "go",
    };
  },
  "sign-in with ways in elsewhere": (draw) => {
    const { say, pick } = draw;
    const [label, attributes] = userNames(draw);
    const others = `<div class="others"><button type="button">${say.signIn} · Bramblegate</button><a href="#" role="button">Tillerman</a></div>`;
    const [inner, inForm] = layOut(draw, {
      heading: say.signIn,
      rows: [
        ["u", label, attributes],
        ["p", say.password, `type="password" ${passwords(draw)}`],
      ],
      submit: say.signIn,
      action: "/in",
    });
    return {
      html: surroundings(draw, pick(`${others}${inner}`, `${inner}${others}`), "Quillhaven"),
      kind: "sign-in",
      form: inForm ? "f" : null,
      userName: "u",
      password: "p",
      oneTimeCode: null,
      submit: "go",
    };
  },
  "sign-in with a trap for machines, a branch and a captcha": (draw) => {
    const { say, pick } = draw;
    const [label, attributes] = userNames(draw);
    return made(
      draw,
      "sign-in",
      {
        heading: say.signIn,
        rows: [
          ["u", label, attributes],
          ["p", say.password, `type="password" ${passwords(draw)}`],
        ],
        extra: pick(
          '<div style="position:absolute;left:-5000px" aria-hidden="true"><input name="email2" tabindex="-1"></div>',
          '<select name="branch"><option value="1">North</option><option value="2">South</option></select>',
          '<img src="/c.png" alt=""><label>Captcha <input name="captcha" maxlength="5"></label>',
          '<select name="lang"><option>English</option></select><input type="text" name="website" style="display:none">',
        ),
        submit: say.signIn,
        action: "/in",
      },
      { userName: "u", password: "p" },
      "Quillhaven",
    );
  },
  "sign-in whose parts stand outside their form": (draw) => {
    const { say, pick } = draw;
    return {
      html: `<HTML><BODY><FORM ID=f METHOD=POST ACTION="${pick("/in", "/cgi-bin/check")}"></FORM><TABLE><TR><TD>${say.userName}<TD><INPUT FORM=f ID=u NAME=${pick("a1", "email", "query")}><TR><TD>${say.password}<TD><INPUT FORM=f TYPE=PASSWORD ID=p NAME=a2><TR><TD><TD><INPUT TYPE=SUBMIT FORM=f ID=go VALUE="${say.signIn}"></TABLE></BODY></HTML>`,
      kind: "sign-in",
      form: "f",
      userName: "u",
      password: "p",
      oneTimeCode: null,
      submit: "go",
    };
  },
  "identifier-first that hides the password's field": (draw) => {
    const { say, pick } = draw;
    const hide = pick('style="display:none"', "hidden", 'class="step2"');
    return {
      html: surroundings(
        draw,
        `<style>.step2{display:none}</style><form id="f" method="post"><h1>${say.signIn}</h1><label for="u">${say.email}</label><input id="u" type="email" name="identifier"><div ${hide}><label>${say.password} <input type="password" name="pw"></label></div><button id="go">${say.next}</button></form>`,
        "Quillhaven",
      ),
      kind: "identifier-first",
      ...NOBODY,
      form: "f",
      userName: "u",
      submit: "go",
    };
  },
  "password-only-step that shows the user name": (draw) => {
    const { say, pick } = draw;
    return made(
      draw,
      "password-only-step",
      {
        heading: pick(say.welcome, say.signIn),
        rows: [["p", say.password, 'type="password" name="password" autocomplete="current-password"']],
        extra: pick(
          '<input name="shown" value="ada@quillhaven.example" readonly>',
          '<input type="email" name="username" value="ada@quillhaven.example" style="display:none">',
          "<span>ada@quillhaven.example</span>",
        ),
        submit: say.signIn,
        action: "",
      },
      { password: "p" },
      "Quillhaven",
    );
  },
  "one-time-code-step typed unseen": (draw) => {
    const { say, pick } = draw;
    return made(
      draw,
      "one-time-code-step",
      {
        heading: say.verify,
        text: say.codeText,
        rows: [
          [
            "c",
            say.code,
            pick('type="tel" name="x" maxlength="6"', 'type="number" name="num"', 'type="text" name="totp"'),
          ],
        ],
        extra: pick(
          "",
          `<label><input type="checkbox" name="trust"> ${say.remember}</label>`,
          '<button type="button">↻</button>',
        ),
        submit: pick(say.verify, say.next),
        action: "/second",
      },
      { oneTimeCode: "c" },
      "Quillhaven",
    );
  },
  "change-password within an account's page": (draw) => {
    const { say } = draw;
    return {
      html: surroundings(
        draw,
        `<form action="/profile" method="post"><label>${say.firstName} <input name="a"></label><label>${say.email} <input type="email" name="b"></label><button>${say.save}</button></form><form id="f" action="/pw" method="post"><h3>${say.changePassword}</h3><label>${say.oldPassword} <input id="o" type="password" name="c"></label><label>${say.newPassword} <input type="password" name="d"></label><label>${say.repeat} <input type="password" name="e"></label><button id="go">${say.save}</button></form>`,
        "Quillhaven",
        { register: true },
      ),
      kind: "change-password",
      ...NOBODY,
      form: "f",
      password: "o",
      submit: "go",
    };
  },
  "change-password, two fields": (draw) => {
    const { say, pick } = draw;
    return made(
      draw,
      "change-password",
      {
        heading: pick(say.changePassword, ""),
        rows: [
          ["o", say.oldPassword, 'type="password" name="x"'],
          ["n", say.newPassword, 'type="password" name="y"'],
        ],
        submit: pick(say.changePassword, say.save),
        action: "",
      },
      { password: "o" },
      "Quillhaven",
      true,
    );
  },
  "register with terms": (draw) => {
    const { say, pick } = draw;
    return made(
      draw,
      "register",
      {
        heading: pick(say.makeAccount, say.register, ""),
        rows: [
          ["fn", `${say.firstName} ${say.lastName}`, 'name="fullname"'],
          ["u", say.email, 'type="email" name="email"'],
          ["p", say.password, 'type="password" name="password" autocomplete="new-password"'],
        ],
        extra: '<label><input type="checkbox" name="agree"> ✓</label>',
        submit: pick(say.register, say.makeAccount, say.next),
        action: pick("/join", "/checkout/account"),
      },
      { userName: "u", password: "p" },
      pick(say.makeAccount, "Quillhaven"),
      true,
    );
  },
  "reset-request with no form": (draw) => {
    const { say, pick } = draw;
    return {
      html: `<html><head><title>${pick(say.resetTitle, say.forgot)}</title></head><body><div id="root"><div class="card"><h2>${say.resetTitle}</h2><p>${say.resetText}</p><input id="u" placeholder="${say.email}" type="email"><button id="go" type="button">${pick(say.resetSend, say.next, say.send)}</button><a href="/in">${say.signIn}</a></div></div></body></html>`,
      kind: "reset-request",
      ...NOBODY,
      userName: "u",
      submit: "go",
    };
  },
  "none: a signed-in page with a search, a newsletter and words of signing in": (draw) => {
    const { say } = draw;
    return {
      html: surroundings(
        draw,
        `<h1>${say.welcome}</h1><p>${say.changePassword}? ${say.forgot}</p><a href="/in">${say.signIn}</a><a href="/join">${say.register}</a>`,
        "Quillhaven",
      ),
      kind: "none",
      ...NOBODY,
    };
  },
  "none: an order": (draw) => {
    const { say } = draw;
    const [inner] = layOut(draw, {
      heading: "",
      rows: [
        ["a", say.firstName, 'name="first" autocomplete="given-name"'],
        ["b", say.lastName, 'name="last" autocomplete="family-name"'],
        ["c", say.email, 'type="email" name="email" autocomplete="email"'],
        ["d", "IBAN", 'name="iban"'],
      ],
      submit: say.next,
      action: "/order",
    });
    return { html: surroundings(draw, inner, "Quillhaven"), kind: "none", ...NOBODY };
  },
  "none: a contact form": (draw) => {
    const { say } = draw;
    const [inner] = layOut(draw, {
      heading: "",
      rows: [
        ["a", say.firstName, 'name="name"'],
        ["b", say.email, 'type="email" name="email"'],
      ],
      extra: `<label>${say.message} <textarea name="m"></textarea></label>`,
      submit: say.send,
      action: "/contact",
    });
    return { html: surroundings(draw, inner, "Quillhaven", {}), kind: "none", ...NOBODY };
  },
  "none: a newsletter": (draw) => {
    const { say } = draw;
    const [inner] = layOut(draw, {
      heading: say.newsletter,
      rows: [["a", say.email, 'type="email" name="email"']],
      submit: say.subscribe,
      action: "/letters",
    });
    return { html: surroundings(draw, inner, "Quillhaven"), kind: "none", ...NOBODY };
  },
  "none: a search": (draw) => {
    const { say } = draw;
    const [inner] = layOut(draw, {
      heading: "",
      rows: [["a", say.search, 'name="q"']],
      submit: say.search,
      action: "/search",
    });
    return { html: surroundings(draw, inner, "Quillhaven"), kind: "none", ...NOBODY };
  },
};

const ALL: Record<string, Maker> = { ...MAKERS, ...HARD_MAKERS };

/** @param rounds how many of each kind in each language, each laid out another way */
export function makePages(rounds: number): MadePage[] {
  const pages: MadePage[] = [];
  for (const [language, say] of Object.entries(PHRASES))
    for (const [name, make] of Object.entries(ALL))
      for (let round = 0; round < rounds; round++) {
        const roll = dice(
          Buffer.from(`${language} ${name} ${round}`).reduce((sum, byte) => (sum * 33 + byte) >>> 0, 5381),
        );
        for (let warm = 0; warm < 5; warm++) roll(2);
        const draw: Draw = { say, roll, pick: (...choices) => choices[roll(choices.length)]! };
        pages.push({ name: `${language}: ${name}, ${round + 1}`, ...make(draw) });
      }
  return pages;
}
