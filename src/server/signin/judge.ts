/** Signs on a page by which success and the failures are told apart. */
import type { CheerioAPI } from "cheerio";
import type { AnyNode } from "domhandler";
import { ERROR_PLACES, saysWrongIn } from "../../core/signin/saysWrong";
import { plain } from "../../core/signin/words";

const LOCKED =
  /(?:account|access|user|konto|compte|cuenta|conto|zugang).{0,40}(?:locked|blocked|suspended|disabled|gesperrt|bloque|bloquead|bloccat|geblokkeerd)|too many (?:attempts|tries|failed)|locked out/u;

const CODE_WRONG =
  /(?:code|kod|codigo|codice|token|otp).{0,40}(?:incorrect|invalid|wrong|expired|falsch|ungultig|abgelaufen|invalide|expire|non valid|ongeldig)|(?:incorrect|invalid|wrong|expired|falsch\w*|ungultig\w*).{0,20}(?:code|kod|codigo|codice|token|otp)/u;

/** An error told in a place made for errors, not merely in the running text. */
export function saysWrong($: CheerioAPI): boolean {
  return saysWrongIn($(ERROR_PLACES).text());
}

export const saysLocked = (text: string): boolean => LOCKED.test(plain(text));
export const saysCodeWrong = (text: string): boolean => CODE_WRONG.test(plain(text));

/** Sent, or to be sent, and a letter or its link beside it: in this order or the other. */
const MAILS =
  /\b(?:sen[dt]|emailed|mailed|envoy\w+|enviad\w|enviaremos|inviat\w|invieremo|gestuurd|verzonden)\b.{0,60}\b(?:link|e ?mail|inbox|lien|courriel|enlace|correo)\b|\b(?:link|e ?mail|mail|courriel|correo)\b.{0,60}\b(?:sent|gesendet|geschickt|versandt|senden|schicken|zusenden|envoye|enviado|inviat\w|gestuurd|verzonden|verstuurd)\b|\bcheck your (?:e ?mail|inbox|mail)\b/u;

/** It has sent a letter, or sends one when asked. */
export const saysMails = (text: string): boolean => MAILS.test(plain(text));

const SIGN_OUT =
  /^(?:(?:log|sign)(?:ed)? ?(?:out|off)\b.{0,30}|(?:ab|aus)melden|ausloggen|(?:se )?deconnexion|se deconnecter|cerrar (?:la )?sesion|salir|esci|disconnetti|terminar sessao|sair|uitloggen|afmelden|logga ut|logg (?:ut|av)|log ud|kirjaudu ulos|wyloguj(?: sie)?|odhlasit(?: se)?|kijelentkezes|deconectare|cikis(?: yap)?|выйти|выход|вийти|αποσυνδεση|ログアウト|로그아웃|退出(?:登录)?|登出|تسجيل الخروج|התנתק(?:ות)?)$/u;
const SIGN_OUT_AT = /(?:^|[/?&=_.-])(?:log|sign)[-_]?(?:out|off)(?:$|[/?&=_.#-])/i;
const MOST_LINKS = 400;

/** Whoever is offered to sign out is signed in, whatever else the page reports. */
export function offersSignOut($: CheerioAPI): boolean {
  return $("a[href], button, input[type=submit], input[type=button], form[action]")
    .toArray()
    .slice(0, MOST_LINKS)
    .some((element) => {
      const one = $(element);
      const at = one.attr("href") ?? one.attr("action") ?? "";
      if (SIGN_OUT_AT.test(at.slice(0, 300))) return true;
      if (element.tagName === "form") return false;
      return [one.text(), one.attr("value"), one.attr("title"), one.attr("aria-label")].some(
        (said) => said !== undefined && said.length < 80 && SIGN_OUT.test(plain(said)),
      );
    });
}

const CHALLENGE =
  "[class*=captcha i], [id*=captcha i], [name*=captcha i], iframe[src*=captcha i], iframe[src*=challenge i], [data-sitekey], [class*=puzzle i], img[alt*=captcha i], form[action*=challenge i]";

/** A puzzle for people, or a page that waits until a browser has proved itself. */
export function isChallenge({ $, html, text }: { $: CheerioAPI; html: string; text: string }): boolean {
  const seen = (_: number, element: AnyNode) =>
    $(element).attr("type") !== "hidden" && !/display:\s*none/.test($(element).attr("style") ?? "");
  if (/captcha|challenge|sitekey|puzzle/i.test(html) && $(CHALLENGE).filter(seen).length > 0) return true;
  return /checking your browser|verify (that )?you are (a )?human|are you a robot|prove you are human/.test(
    plain(text.slice(0, 4000)),
  );
}

/** Scripts and nearly nothing else: the form comes into being in the browser only. */
export function isDrawnByScripts($: CheerioAPI): boolean {
  if ($("script").length === 0) return false;
  return $("input:not([type=hidden])").length === 0 || $("form").length === 0;
}
