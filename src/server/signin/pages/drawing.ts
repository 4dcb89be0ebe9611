/** How the pages of the reader's test are drawn: fields, buttons, and what stands around a form and must not lead astray. */
import type { PageKind } from "../../../core/signin/page";
import type { Phrases } from "./phrases";

export interface MadePage {
  name: string;
  html: string;
  kind: PageKind;
  /** Ids of the elements that a right reading names; null where it names none. */
  form: string | null;
  userName: string | null;
  password: string | null;
  oneTimeCode: string | null;
  submit: string | null;
}

/** A small generator with a seed of its own: the same pages each time. */
export function dice(seed: number): (sides: number) => number {
  let state = seed;
  return (sides) => {
    state = (Math.imul(state, 1664525) + 1013904223) >>> 0;
    return Math.floor((state / 2 ** 32) * sides);
  };
}

export interface Draw {
  say: Phrases;
  roll: (sides: number) => number;
  pick: <T>(...choices: T[]) => T;
}

/** How a field and its label stand in the page. */
type Row = (id: string, label: string, attributes: string) => string;

const ROWS: Row[] = [
  (id, label, attributes) => `<label for="${id}">${label}</label><input id="${id}" ${attributes}>`,
  (id, label, attributes) => `<label>${label} <input id="${id}" ${attributes}></label>`,
  (id, label, attributes) => `<div class="row"><input id="${id}" placeholder="${label}" ${attributes}></div>`,
  (id, label, attributes) =>
    `<div class="form-group"><div class="caption">${label}:</div><div><input id="${id}" class="form-control" ${attributes}></div></div>`,
  (id, label, attributes) => `<p><span>${label}</span><br><input id="${id}" ${attributes}></p>`,
  (id, label, attributes) => `<div><input id="${id}" aria-label="${label}" ${attributes}></div>`,
  (id, label, attributes) =>
    `<div class="field"><span id="l-${id}">${label}</span><input aria-labelledby="l-${id}" id="${id}" ${attributes}></div>`,
  (id, label, attributes) => `<dl><dt>${label}</dt><dd><input id="${id}" ${attributes}></dd></dl>`,
];
const TABLE: Row = (id, label, attributes) =>
  `<tr><td align="right">${label}</td><td><input id="${id}" ${attributes}></td></tr>`;

/** Buttons that send a form; those without one are pressed by scripts. */
const button = ({ pick }: Draw, id: string, text: string, inForm: boolean): string =>
  inForm
    ? pick(
        `<button id="${id}" type="submit">${text}</button>`,
        `<button id="${id}">${text}</button>`,
        `<input type="submit" id="${id}" value="${text}">`,
        `<button id="${id}" type="submit" class="btn btn-primary"><span>${text}</span></button>`,
        `<input type="image" src="/i.png" id="${id}" alt="${text}">`,
      )
    : pick(
        `<button id="${id}" type="button">${text}</button>`,
        `<button id="${id}">${text}</button>`,
        `<div role="button" tabindex="0" id="${id}">${text}</div>`,
        `<input type="button" id="${id}" value="${text}">`,
      );

export const userNames = ({ pick, say }: Draw): [label: string, attributes: string] =>
  pick<[string, string]>(
    [say.userName, 'name="username" autocomplete="username"'],
    [say.userName, 'name="u"'],
    [say.email, 'type="email" name="email"'],
    [say.email, 'type="email" name="session[email]" autocomplete="email"'],
    [say.userName, 'name="ctl00$main$txt1" type="text"'],
    [say.email, 'name="field_7" type="text"'],
    [say.userName, 'name="q" autocapitalize="off"'],
  );
export const passwords = ({ pick }: Draw): string =>
  pick('name="password"', 'name="p" autocomplete="current-password"', 'name="x2"', 'name="ctl00$main$txt2"');

/** Things that stand around a form and must not lead astray. */
export function surroundings(draw: Draw, inner: string, title: string, extras: { register?: boolean } = {}): string {
  const { say, roll, pick } = draw;
  const search = pick(
    "",
    `<form action="/search" role="search"><input name="s" type="search" placeholder="${say.search}"><button>${say.search}</button></form>`,
    `<form action="/find" id="searchform"><input name="query" placeholder="${say.search}"><input type="submit" value="${say.search}"></form>`,
    `<div class="top"><input name="suche" aria-label="${say.search}"><a href="#">${say.search}</a></div>`,
  );
  const newsletter = pick(
    "",
    "",
    `<footer><form action="/letters" method="post"><h4>${say.newsletter}</h4><input type="email" name="nl" placeholder="${say.email}"><button>${say.subscribe}</button></form></footer>`,
    `<aside><h3>${say.newsletter}</h3><form><label>${say.email} <input name="news_email"></label><input type="submit" value="${say.subscribe}"></form></aside>`,
  );
  const hidden = pick(
    "",
    "",
    `<div style="display:none"><form action="/join"><input name="r1" placeholder="${say.firstName}"><input type="password" name="r2" placeholder="${say.password}"><input type="password" name="r3" placeholder="${say.repeat}"><button>${say.register}</button></form></div>`,
    `<template><form><input name="tt"><input type="password" name="tp"><button>${say.signIn}</button></form></template>`,
    `<style>.off{display:none}</style><section class="off"><form><input type="password" name="h"><input type="password" name="h2"><button>${say.changePassword}</button></form></section>`,
    `<dialog><form><input type="email" name="d1"><button>${say.resetSend}</button></form></dialog>`,
  );
  const links = extras.register
    ? `<p><a href="/in">${say.signIn}</a></p>`
    : `<p><a href="/lost">${say.forgot}</a> <a href="/join">${say.register}</a></p>`;
  const body =
    roll(2) === 0
      ? `${search}<main>${inner}${links}</main>${newsletter}${hidden}`
      : `${hidden}<header>${search}</header><div id="page"><div class="panel">${inner}</div>${links}</div>${newsletter}`;
  return `<!doctype html><html><head><meta charset="utf-8"><title>${title}</title></head><body>${body}</body></html>`;
}

interface Fields {
  heading: string;
  text?: string;
  rows: [id: string, label: string, attributes: string][];
  extra?: string;
  submit: string;
  /** Words in the form's address. */
  action: string;
}

/** Lays fields out in a form, a table in a form, or with no form at all; says whether there is one. */
export function layOut(
  draw: Draw,
  { heading, text = "", rows, extra = "", submit, action }: Fields,
): [string, boolean] {
  const { roll, pick } = draw;
  const shape = roll(6);
  const inForm = shape !== 0;
  const head = heading ? pick(`<h1>${heading}</h1>`, `<h2>${heading}</h2>`, `<div class="title">${heading}</div>`) : "";
  const says = text ? `<p>${text}</p>` : "";
  const send = button(draw, "go", submit, inForm);
  if (shape === 1) {
    const cells = rows.map(([id, label, attributes]) => TABLE(id, label, attributes)).join("");
    const form = `<form id="f" method="post" action="${action}"><table><tbody>${cells}<tr><td></td><td>${extra}${send}</td></tr></tbody></table></form>`;
    return [`${head}${says}${form}`, true];
  }
  const row = ROWS[roll(ROWS.length)]!;
  const body = `${rows.map(([id, label, attributes]) => row(id, label, attributes)).join("\n")}${extra}<div class="actions">${send}</div>`;
  if (!inForm) return [`<div class="box">${head}${says}${body}</div>`, false];
  return pick(
    [`${head}${says}<form id="f" method="post" action="${action}">${body}</form>`, true] as [string, boolean],
    [`<form id="f" action="${action}" method="POST" novalidate>${head}${says}${body}</form>`, true] as [
      string,
      boolean,
    ],
    [
      `<form id="f" method="post"><input type="hidden" name="token" value="a1"><fieldset><legend>${heading}</legend>${says}${body}</fieldset></form>`,
      true,
    ] as [string, boolean],
  );
}

export type Maker = (draw: Draw) => Omit<MadePage, "name">;
export const NOBODY = { form: null, userName: null, password: null, oneTimeCode: null, submit: null };

export function made(
  draw: Draw,
  kind: PageKind,
  fields: Fields,
  named: Partial<MadePage>,
  title: string,
  register = false,
): Omit<MadePage, "name"> {
  const [inner, inForm] = layOut(draw, fields);
  return {
    html: surroundings(draw, inner, title, { register }),
    kind,
    ...NOBODY,
    form: inForm ? "f" : null,
    submit: "go",
    ...named,
  };
}

export const remember = ({ say, pick }: Draw) =>
  pick("", "", `<label><input type="checkbox" name="keep"> ${say.remember}</label>`);
