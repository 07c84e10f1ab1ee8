import Papa from 'papaparse';
import { cellAsWritten, csvText } from '../../http/csv.js';
import { checkTable } from '../../http/check-table.js';
import { film as filmSchema, filmConstruction, filmKind, type Fault, type Film } from '@yellow-pane/contracts';

/** Columns of the film list, in order. Shares are per cent, as sheets have them. */
const columns = [
  'name', 'kind', 'construction', 'wound', 'linerSide', 'direction', 'machineDirection', 'mounting', 'hatch', 'thicknessUm', 'ratedOn',
  'visibleTPct', 'visibleRGlassPct', 'visibleRFreePct', 'solarTPct', 'solarRGlassPct', 'solarRFreePct', 'solarAPct', 'uvTPct',
  'hazePct', 'emissivity', 'shrinkAlongPct', 'growAcrossPct', 'patternRepeatMm', 'patternMatch',
  'applyMinC', 'applyMaxC', 'relaxC', 'postHeatC', 'limitC', 'stretchMaxPct', 'readAfterS', 'drying', 'offers', 'note',
] as const; // prettier-ignore
type Column = (typeof columns)[number];
type Row = Partial<Record<Column, string>>;

const pct = (share: number | null | undefined): string => (share === null || share === undefined ? '' : String(Math.round(share * 10_000) / 100));
const text = (v: number | string | null | undefined): string => (v === null || v === undefined ? '' : String(v));

/** Films as CSV, one a row; sizes for sale as `width x length @ price per roll / price per metre`, several by `;`. */
export function filmsToCsv(films: readonly Film[]): string {
  const rows = films.map((f): Record<Column, string> => ({
    name: f.name,
    kind: f.kind,
    construction: text(f.construction),
    wound: f.wound,
    linerSide: f.linerSide,
    direction: f.direction,
    machineDirection: f.machineDirection,
    mounting: f.mounting,
    hatch: f.hatch,
    thicknessUm: text(f.thicknessUm),
    ratedOn: text(f.optics?.ratedOn),
    visibleTPct: pct(f.optics?.visible.transmittanceFrac),
    visibleRGlassPct: pct(f.optics?.visible.reflectanceGlassSideFrac),
    visibleRFreePct: pct(f.optics?.visible.reflectanceFreeSideFrac),
    solarTPct: pct(f.optics?.solar.transmittanceFrac),
    solarRGlassPct: pct(f.optics?.solar.reflectanceGlassSideFrac),
    solarRFreePct: pct(f.optics?.solar.reflectanceFreeSideFrac),
    solarAPct: pct(f.optics?.solar.absorptanceGlassSideFrac),
    uvTPct: pct(f.optics?.uvTransmittanceFrac),
    hazePct: pct(f.hazeFrac),
    emissivity: text(f.emissivityFrac),
    shrinkAlongPct: text(f.shrink?.alongPct),
    growAcrossPct: text(f.shrink?.acrossPct),
    patternRepeatMm: text(f.patternRepeatMm),
    patternMatch: f.patternMatch,
    applyMinC: text(f.temps?.applyMinC),
    applyMaxC: text(f.temps?.applyMaxC),
    relaxC: text(f.temps?.relaxC),
    postHeatC: text(f.temps?.postHeatC),
    limitC: text(f.temps?.limitC),
    stretchMaxPct: text(f.stretchMaxPct),
    readAfterS: text(f.readAfterS),
    drying: text(f.drying),
    offers: f.offers.map((o) => `${o.widthMm} x ${o.lengthM} @ ${o.pricePerRoll} / ${o.pricePerM}`).join('; '),
    note: f.note,
  }));
  return csvText(rows, columns);
}

/** What a row needs besides its own columns. */
export interface Stamp {
  readonly id: () => string;
  readonly at: string;
}

/** @source house limits */
const MOST_ROWS = 1000;
const MOST_COLUMNS = 300;
const ENOUGH_FAULTS = 200;

/** Reads a film list; every row that does not read is named with its column, and then nothing comes in. */
export function filmsFromCsv(csv: string, stamp: Stamp): { films: Film[]; faults: Fault[] } {
  checkTable(csv, { rows: MOST_ROWS, columns: MOST_COLUMNS });
  const parsed = Papa.parse<Row>(csv.replace(/^\uFEFF/, ''), { header: true, skipEmptyLines: true, transform: cellAsWritten });
  const missing = (['name', 'kind', 'thicknessUm'] as const).filter((c) => !parsed.meta.fields?.includes(c));
  if (missing.length) return { films: [], faults: missing.map((c) => ({ path: `column ${c}`, message: 'This column is missing.' })) };
  const films: Film[] = [];
  const faults: Fault[] = [];
  for (const [i, row] of parsed.data.entries()) {
    if (faults.length >= ENOUGH_FAULTS) break;
    const reader = new RowReader(row, i + 2, faults);
    const before = faults.length;
    const draft = reader.film(stamp);
    if (faults.length > before) continue;
    const read = filmSchema.safeParse(draft);
    if (read.success) films.push(read.data);
    else for (const issue of read.error.issues) faults.push({ path: `row ${i + 2}, ${columnOf(issue.path)}`, message: issue.message });
  }
  return { films, faults };
}

/** The column that a field of the record came from. */
function columnOf(path: readonly PropertyKey[]): string {
  const at = path.join('.');
  const known: Record<string, string> = {
    'optics.visible': 'visibleTPct',
    'optics.solar': 'solarTPct',
    'optics.solar.absorptanceGlassSideFrac': 'solarAPct',
    'optics.ratedOn': 'ratedOn',
    'optics.uvTransmittanceFrac': 'uvTPct',
  };
  return known[at] ?? String(path.at(0) ?? 'row');
}

class RowReader {
  constructor(
    private readonly row: Row,
    private readonly line: number,
    private readonly faults: Fault[],
  ) {}

  private say(column: Column, message: string): null {
    this.faults.push({ path: `row ${this.line}, ${column}`, message });
    return null;
  }
  private cell = (c: Column): string => this.row[c]?.trim() ?? '';
  private number(c: Column): number | null {
    if (this.cell(c) === '') return null;
    const n = Number(this.cell(c).replace(',', '.'));
    return Number.isFinite(n) ? n : this.say(c, `“${this.cell(c)}” is no number.`);
  }
  private share(c: Column): number | null {
    const n = this.number(c);
    if (n === null) return null;
    return n >= 0 && n <= 100 ? Math.round(n * 100) / 10_000 : this.say(c, `${n} is not between 0 and 100 %.`);
  }
  private one<T extends string>(c: Column, options: readonly T[], fallback: T): T {
    if (this.cell(c) === '') return fallback;
    const found = options.find((o) => o === this.cell(c));
    if (!found) this.say(c, `“${this.cell(c)}” is none of ${options.join(', ')}.`);
    return found ?? fallback;
  }

  private optics(): unknown {
    if (this.cell('visibleTPct') === '' && this.cell('solarTPct') === '') return null;
    const need = (c: Column): number => {
      if (this.cell(c) === '') this.say(c, 'This value is needed beside the others; leave all of them empty when the sheet is not at hand.');
      return this.share(c) ?? 0;
    };
    const [t, r] = [need('solarTPct'), need('solarRGlassPct')];
    return {
      ratedOn: this.one('ratedOn', ['none', 'clear-3', 'clear-6'] as const, 'clear-3'),
      visible: { transmittanceFrac: need('visibleTPct'), reflectanceGlassSideFrac: need('visibleRGlassPct'), reflectanceFreeSideFrac: need('visibleRFreePct') },
      solar: {
        transmittanceFrac: t,
        reflectanceGlassSideFrac: r,
        reflectanceFreeSideFrac: need('solarRFreePct'),
        absorptanceGlassSideFrac: this.cell('solarAPct') === '' ? Math.max(0, Math.round((1 - t - r) * 10_000) / 10_000) : (this.share('solarAPct') ?? 0),
      },
      uvTransmittanceFrac: need('uvTPct'),
    };
  }

  private offers(): unknown[] {
    return this.cell('offers')
      .split(';')
      .map((o) => o.trim())
      .filter((o) => o !== '')
      .flatMap((o) => {
        const m = /^(\d+(?:\.\d+)?) *x *(\d+(?:\.\d+)?) *@ *(\d+(?:\.\d+)?) *\/ *(\d+(?:\.\d+)?)$/.exec(o);
        if (!m) {
          this.say('offers', `“${o}” does not read. Write it as 1524 x 30.5 @ 413.70 / 16.27 (mm, m, per roll, per metre).`);
          return [];
        }
        return [{ widthMm: Number(m[1]), lengthM: Number(m[2]), pricePerRoll: m[3], pricePerM: m[4] }];
      });
  }

  film(stamp: Stamp): unknown {
    const temps = (['applyMinC', 'applyMaxC', 'relaxC', 'postHeatC', 'limitC'] as const).map((c) => [c, this.number(c)] as const);
    const along = this.number('shrinkAlongPct');
    return {
      id: stamp.id(),
      name: this.cell('name') || (this.say('name', 'A film needs a name.') ?? ''),
      version: 1,
      kind: this.cell('kind') === '' ? this.say('kind', `Say what it is: one of ${filmKind.options.join(', ')}.`) : this.one('kind', filmKind.options, 'solar'),
      construction: this.cell('construction') === '' ? null : this.one('construction', filmConstruction.options, 'clear'),
      wound: this.one('wound', ['liner-in', 'liner-out', 'unknown'] as const, 'unknown'),
      linerSide: this.one('linerSide', ['adhesive', 'face', 'none'] as const, 'adhesive'),
      machineDirection: this.one('machineDirection', ['along', 'across', 'both', 'none'] as const, 'along'),
      direction: this.one('direction', ['none', 'one-way', 'two-way'] as const, 'none'),
      mounting: this.one('mounting', ['inside', 'outside', 'either', 'not-on-glass'] as const, 'inside'),
      hatch: this.one('hatch', ['slant', 'dots', 'cross', 'lines'] as const, 'slant'),
      thicknessUm: this.number('thicknessUm') ?? this.say('thicknessUm', 'How thick is it, in µm?'),
      optics: this.optics(),
      hazeFrac: this.share('hazePct'),
      emissivityFrac: this.number('emissivity'),
      shrink: along === null ? null : { alongPct: along, acrossPct: this.number('growAcrossPct') ?? 0 },
      stretchMaxPct: this.number('stretchMaxPct'),
      readAfterS: this.number('readAfterS'),
      patternRepeatMm: this.number('patternRepeatMm'),
      patternMatch: this.one('patternMatch', ['straight', 'half-drop'] as const, 'straight'),
      temps: temps.every(([, v]) => v === null) ? null : Object.fromEntries(temps),
      drying: this.cell('drying') === '' ? null : this.one('drying', ['fast', 'medium', 'slow', 'dry-applied'] as const, 'medium'),
      offers: this.offers(),
      note: this.cell('note').slice(0, 400),
      createdAt: stamp.at,
    };
  }
}
