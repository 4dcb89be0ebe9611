/** The words by which a page says that a user name or a password is wrong. */
import { plain } from "./words";

/** Where pages put what went wrong. */
export const ERROR_PLACES =
  "[role=alert], [aria-live=assertive], .error, .errors, .alert-danger, .alert-error, .is-error, .errorlist, .validation-summary-errors, .message-error, .flash-error, #error, #errors, .login-error";

const WRONG =
  /(?:incorrect|invalid|wrong|not recogni[sz]ed|did not match|does not match|don t match|unknown user|failed|falsch|ungultig|fehlgeschlagen|stimmt nicht|incorrecte?s?|invalide|errone|non valid|incorrect[ao]s?|invalid[ao]|no valid|errat|sbagliat|onjuist|ongeldig|felaktig|forkert|feil |vaar|nieprawidlow|bledn|nespravn|hibas|gresit|hatali|yanlis|неверн|невірн|λανθασμεν|正しくありません|違います|잘못|错误|錯誤|غير صحيح|שגוי)/u;

/** @param text of the places made for errors, not of the running text */
export function saysWrongIn(text: string): boolean {
  const folded = plain(text);
  return folded !== "" && WRONG.test(folded);
}
