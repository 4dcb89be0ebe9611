/** Comma-separated values (RFC 4180, and what programs make of it), by papaparse. */
import Papa from "papaparse";

export interface Table {
  separator: string;
  /** The first row; names are made for columns without one. */
  header: string[];
  /** As long as the header; what a row lacks is empty. */
  rows: string[][];
  /** Rows, from 0, that had more or fewer cells than the header: a comma too many moves every value. */
  ragged: ReadonlyMap<number, number>;
}

export const MOST_ROWS = 100_000;
export const MOST_COLUMNS = 100;

/** @throws RangeError with a sentence for people when it is no table, or one too large */
export function readCsv(text: string): Table {
  const { data, meta, errors } = Papa.parse<string[]>(text.replace(/^\uFEFF/, ""), {
    skipEmptyLines: "greedy",
    delimitersToGuess: [",", ";", "\t", "|"],
  });
  const open = errors.find((error) => error.code === "MissingQuotes");
  if (open) throw new RangeError(`A quotation mark that opens in row ${(open.row ?? 0) + 1} is never closed.`);
  if (data.length < 2)
    throw new RangeError("The file is empty. It needs a first row with column names, then a row for each entry.");
  if (data.length - 1 > MOST_ROWS)
    throw new RangeError(
      `It has ${(data.length - 1).toLocaleString("en-GB")} rows; at most 100,000 can be imported at once. Split the file.`,
    );
  const width = data.reduce((most, row) => Math.max(most, row.length), 0);
  if (width > MOST_COLUMNS) throw new RangeError(`It has ${width} columns; at most ${MOST_COLUMNS} can be read.`);
  const [first, ...rows] = data;
  const whole = (row: string[]) =>
    row.length === width ? row : [...row, ...new Array<string>(width - row.length).fill("")];
  return {
    separator: meta.delimiter,
    header: whole(first!).map((name, i) => name.trim() || `Column ${i + 1}`),
    rows: rows.map(whole),
    ragged: new Map(rows.flatMap((row, i) => (row.length === first!.length ? [] : [[i, row.length]]))),
  };
}

/**
 * Writes a table. A cell that a spreadsheet would take for a formula is led by an apostrophe, as OWASP advises: it is
 * text there, and reading it back by `readCell` gives the value again.
 */
export function writeCsv(header: readonly string[], rows: readonly (readonly string[])[]): string {
  return Papa.unparse({ fields: [...header], data: rows.map((row) => row.map(harmless)) }, { newline: "\r\n" });
}

const FORMULA = /^[=+\-@\t\r']/;
export const harmless = (cell: string): string => (FORMULA.test(cell) ? `'${cell}` : cell);
export const readCell = (cell: string): string => (/^'[=+\-@\t\r']/.test(cell) ? cell.slice(1) : cell);
