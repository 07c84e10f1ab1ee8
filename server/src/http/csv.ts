import Papa from 'papaparse';

/**
 * What a spreadsheet would run as a formula: such a cell gets an apostrophe before it. Figures with a sign stay figures.
 * @source common practice against formula injection in CSV files
 */
const FORMULA = /^(?:[=@\t\r]|[+-](?![\d.,]+$))/;

/** Rows as CSV text, lines ended as RFC 4180 asks. */
export const csvText = (rows: readonly object[], columns?: readonly string[]): string =>
  Papa.unparse([...rows], { newline: '\r\n', escapeFormulae: FORMULA, ...(columns ? { columns: [...columns] } : {}) }) + '\r\n';

/** A cell as it was before `csvText` kept a spreadsheet from running it. */
export const cellAsWritten = (cell: string): string => (cell.startsWith("'") && FORMULA.test(cell.slice(1)) ? cell.slice(1) : cell);

/** Words as one line without control signs: names stand in drawings whose formats know no others. */
// eslint-disable-next-line no-control-regex
export const oneLine = (s: string): string => s.replace(/[\u0000-\u001f\u007f-\u009f\u2028\u2029]+/g, ' ').trim();
