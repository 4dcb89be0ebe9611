/** What a page makes its buttons of besides `button` and `input`. */

/** Elements that pages use for buttons. */
export const STANDS_FOR_BUTTON = /^(a|div|span|li|p|b|i|em|strong|label|img|svg|td)$/i;

/** A class or an id that calls the element a button: "btn-primary", "loginButton", "form__submit". */
export const LOOKS_LIKE_BUTTON = /(?:^|[-_\s])(?:btn|button|submit)(?:[-_\s]|$)|(?:Btn|Button|Submit)(?![a-z])/;
