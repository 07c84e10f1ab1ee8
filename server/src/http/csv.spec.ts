import Papa from 'papaparse';
import { cellAsWritten, csvText, oneLine } from './csv.js';

describe('tables out and in', () => {
  test('a name that a spreadsheet would run is kept from it and read back as it was; figures stay figures', () => {
    const rows = ['=1+1', '@sum', '+49 151', '-2+3', '\tx', '-3.5', '+12', 'W1', "it's", '-'].map((a) => ({ a }));
    const text = csvText(rows, ['a']);
    const cells = Papa.parse<{ a: string }>(text, { header: true, skipEmptyLines: true }).data.map((r) => r.a);
    expect(cells.slice(0, 5).every((c) => c.startsWith("'"))).toBe(true);
    expect(cells.slice(5)).toEqual(['-3.5', '+12', 'W1', "it's", "'-"]);
    expect(cells.map(cellAsWritten)).toEqual(rows.map((r) => r.a));
    expect(text.endsWith('\r\n')).toBe(true);
  });
  test('a name in a drawing is one line without control signs', () => expect(oneLine('W1\r\n0\nLINE\u0007\u2028x')).toBe('W1 0 LINE x'));
});
