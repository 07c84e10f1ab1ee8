import { Refusal } from '../problem.js';

/**
 * Whether a table is of a size that is read at all, before any of it is taken apart.
 * @throws Refusal bad-input that says how many there are and how many are taken
 */
export function checkTable(text: string, most: { readonly rows: number; readonly columns: number }): void {
  const say = (message: string): never => {
    throw new Refusal('bad-input', `${message} Nothing was brought in.`, [{ path: 'file', message }]);
  };
  let rows = 0;
  let lineFrom = 0;
  let widest = 0;
  for (let i = 0; i <= text.length; i++) {
    const c = i < text.length ? text.charCodeAt(i) : 10;
    if (c !== 10) continue;
    if (i > lineFrom) rows++;
    // separators of one line, whatever they are; more than that many are no table of ours
    let separators = 0;
    for (let k = lineFrom; k < i && separators <= most.columns; k++) {
      const s = text.charCodeAt(k);
      if (s === 44 || s === 59 || s === 9 || s === 124) separators++;
    }
    widest = Math.max(widest, separators);
    if (widest > most.columns)
      say(`Row ${rows} has more than ${most.columns} columns: the first row names the columns of this table, and there are never so many.`);
    lineFrom = i + 1;
  }
  if (rows - 1 > most.rows) say(`This file has ${rows - 1} rows; ${most.rows} are the most at once. Part it.`);
}
