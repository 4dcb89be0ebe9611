/** The codes of a field of the form "codes": one a line, blank lines and spaces around them left out. */
export const codeLines = (value: string): string[] =>
  value
    .split(/\r?\n/)
    .map((line) => line.trim())
    .filter((line) => line !== "");
