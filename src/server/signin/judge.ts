/** Signs on a page by which success and the failures are told apart. */
import type { CheerioAPI } from "cheerio";
import type { AnyNode } from "domhandler";
import { plain } from "../../core/signin/words";

const ERROR_PLACES =
  "[role=alert], [aria-live=assertive], .error, .errors, .alert-danger, .alert-error, .is-error, .errorlist, .validation-summary-errors, .message-error, .flash-error, #error, #errors, .login-error";

const WRONG =
  /(?:incorrect|invalid|wrong|not recogni[sz]ed|did not match|does not match|don t match|unknown user|failed|falsch|ungultig|fehlgeschlagen|stimmt nicht|incorrecte?s?|invalide|errone|non valid|incorrect[ao]s?|invalid[ao]|no valid|errat|sbagliat|onjuist|ongeldig|felaktig|forkert|feil |vaar|nieprawidlow|bledn|nespravn|hibas|gresit|hatali|yanlis|неверн|невірн|λανθασμεν|正しくありません|違います|잘못|错误|錯誤|غير صحيح|שגוי)/u;

const LOCKED =
  /(?:account|access|user|konto|compte|cuenta|conto|zugang).{0,40}(?:locked|blocked|suspended|disabled|gesperrt|bloque|bloquead|bloccat|geblokkeerd)|too many (?:attempts|tries|failed)|locked out/u;

const CODE_WRONG =
  /(?:code|kod|codigo|codice|token|otp).{0,40}(?:incorrect|invalid|wrong|expired|falsch|ungultig|abgelaufen|invalide|expire|non valid|ongeldig)|(?:incorrect|invalid|wrong|expired|falsch\w*|ungultig\w*).{0,20}(?:code|kod|codigo|codice|token|otp)/u;

/** An error told in a place made for errors, not merely in the running text. */
export function saysWrong($: CheerioAPI): boolean {
  const text = plain($(ERROR_PLACES).text());
  return text !== "" && WRONG.test(text);
}

export const saysLocked = (text: string): boolean => LOCKED.test(plain(text));
export const saysCodeWrong = (text: string): boolean => CODE_WRONG.test(plain(text));

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
