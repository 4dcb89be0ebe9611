/** Templates of other programs made into the pages they would show, as far as that can be told without running them. */

/** The words inside a template's own signs, where they are to be translated and shown; nothing otherwise. */
function spoken(code: string): string {
  const call =
    /(?:\b_|__|_e|_x|esc_html_e|esc_attr_e|esc_html__|esc_attr__|gettext|trans|translate|locate|lang|label|loc|t|l|i18n)\s*\(?\s*["']([^"'\n]{1,160})["']/;
  const filter = /["']([^"'\n]{1,160})["']\s*\|\s*(?:trans|translate|loc|t|_)\b/;
  return (call.exec(code) ?? filter.exec(code))?.[1] ?? "";
}

/** HTML with every sign of a template language taken out, or replaced by the words it shows. */
export function withoutTemplateSigns(text: string): string {
  return text
    .replace(/\{#[\s\S]*?#\}|\{\{!--[\s\S]*?--\}\}|<!--[\s\S]*?-->/g, "")
    .replace(/\{%-?\s*comment\s*%\}[\s\S]*?\{%-?\s*endcomment\s*%\}/g, "")
    .replace(/<\?(?:php|=)?([\s\S]*?)(?:\?>|$)/g, (_, code: string) => spoken(code))
    .replace(/<%[-=#]?([\s\S]*?)%>/g, (_, code: string) => spoken(code))
    .replace(/\[%[-=#]?([\s\S]*?)%\]/g, (_, code: string) => spoken(code))
    .replace(/\{%-?([\s\S]*?)-?%\}/g, (_, code: string) =>
      /^\s*(trans|translate|blocktrans)\b/.test(code) ? spoken(` _(${code}`) : "",
    )
    .replace(/\{\{([\s\S]*?)\}\}/g, (_, code: string) => spoken(code))
    .replace(/\{'([^'{}\n]{1,160})'\s*\|\s*t\}/g, "$1")
    .replace(/<&\|\/l&>|<\/&>/g, "");
}
