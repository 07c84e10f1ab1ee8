import Papa from 'papaparse';
import { cellAsWritten, csvText } from '../../http/csv.js';
import { checkTable } from '../../http/check-table.js';
import { roll as rollSchema, type Fault, type Film, type Roll, type StockLine } from '@yellow-pane/contracts';

/** @source house limits: no shop has more rolls at once */
const MOST_ROWS = 5000;
const MOST_COLUMNS = 60;
const ENOUGH_FAULTS = 200;

/** Columns of the stock list, in order. */
const columns = ['label', 'film', 'form', 'lot', 'widthMm', 'lengthM', 'place', 'edges', 'leadInMm', 'pricePerM'] as const;
type Column = (typeof columns)[number];

/** What is there now, one roll or leftover a row. */
export const stockToCsv = (lines: readonly StockLine[], films: readonly Film[]): string =>
  csvText(
    lines.map(({ roll, remainingMm }): Record<Column, string> => ({
      label: roll.label,
      film: films.find((f) => f.id === roll.filmId)?.name ?? '',
      form: roll.form,
      lot: roll.lot,
      widthMm: String(roll.widthMm),
      lengthM: (remainingMm / 1000).toFixed(3),
      place: roll.place,
      edges: roll.edges,
      leadInMm: String(roll.leadInMm),
      pricePerM: roll.pricePerM,
    })),
    columns,
  );

/** Rolls out of a CSV text; every fault names its row and says how to mend it. @param films the library, newest versions */
export function stockFromCsv(text: string, films: readonly Film[], newId: () => string): { rolls: Roll[]; faults: Fault[] } {
  checkTable(text, { rows: MOST_ROWS, columns: MOST_COLUMNS });
  const filmsByName = new Map(films.map((f) => [f.name, f]));
  const parsed = Papa.parse<Partial<Record<Column, string>>>(text.trim(), {
    header: true,
    skipEmptyLines: true,
    transformHeader: (h) => h.trim(),
    transform: cellAsWritten,
  });
  const faults: Fault[] = [];
  const missing = (['label', 'film', 'widthMm', 'lengthM'] as const).filter((c) => !parsed.meta.fields?.includes(c));
  if (missing.length)
    return { rolls: [], faults: [{ path: 'first row', message: `These columns are missing: ${missing.join(', ')}. The columns are ${columns.join(', ')}.` }] };
  const rolls: Roll[] = [];
  for (const [i, row] of parsed.data.entries()) {
    if (faults.length >= ENOUGH_FAULTS) break;
    const at = `row ${i + 2}`;
    const own = new Set<string>();
    const say = (column: Column, message: string) => {
      own.add(column);
      faults.push({ path: `${at}, ${column}`, message });
    };
    const name = (row.film ?? '').trim();
    const film = filmsByName.get(name);
    if (!film) say('film', name ? `There is no film “${name}” in the library.` : 'Name the film as it stands in the library.');
    const number = (column: 'widthMm' | 'lengthM' | 'leadInMm', text_: string | undefined, fallback: number | null): number => {
      const v = (text_ ?? '').trim().replace(',', '.');
      if (v === '' && fallback !== null) return fallback;
      const n = Number(v);
      if (v === '' || !Number.isFinite(n)) say(column, `“${v}” is not a number.`);
      return n;
    };
    const form = (row.form ?? '').trim() || 'roll';
    const widthMm = number('widthMm', row.widthMm, null);
    const offer = film?.offers.find((o) => Math.abs(o.widthMm - widthMm) < 1);
    const draft = {
      id: newId(),
      filmId: film?.id ?? newId(),
      label: row.label ?? '',
      lot: row.lot ?? '',
      widthMm,
      lengthM: number('lengthM', row.lengthM, null),
      leadInMm: number('leadInMm', row.leadInMm, 0),
      pricePerM: (row.pricePerM ?? '').trim().replace(',', '.') || (offer ? (Number(offer.pricePerRoll) / offer.lengthM).toFixed(2) : '0'),
      form,
      place: row.place ?? '',
      edges: (row.edges ?? '').trim() || (form === 'leftover' ? 'none' : 'both'),
      deletedAt: null,
    };
    const read = rollSchema.safeParse(draft);
    if (read.success) rolls.push(read.data);
    else for (const issue of read.error.issues) if (!own.has(String(issue.path[0]))) say(String(issue.path[0]) as Column, issue.message);
  }
  const seen = new Set<string>();
  for (const r of rolls) {
    if (seen.has(r.label)) faults.push({ path: r.label, message: 'This label stands twice in the file.' });
    seen.add(r.label);
  }
  return { rolls, faults };
}
