import Papa from 'papaparse';
import { cellAsWritten, csvText } from '../../http/csv.js';
import { v7 as uuidv7 } from 'uuid';
import type * as z from 'zod';
import {
  newCurvedPane,
  newSurface,
  measureKey,
  measuresOfKind,
  surfaceKindNames,
  type Bow,
  type BowPlace,
  type Fault,
  type JobDocument,
  type Lettering,
  type letteringInput,
  type MeasureKey,
  type Patch,
  type Reading,
  type Surface,
  type SurfaceKind,
  type SurveyResult,
  type TapedInput,
  type TapedResult,
} from '@yellow-pane/contracts';
import { bowName, bowPlaceOf, isBow, isPane, panesOf, parseLength, parseOffset, readingsInForce } from '@yellow-pane/core';
import { checkTable } from '../../http/check-table.js';
import { breathe } from '../../breathe.js';
import { missingIn, setLetters } from '../../compute/lettering.js';
import { Refusal } from '../../problem.js';
import type { Compute, SurveyAsked } from '../../compute/runners.js';
import type { JobsService } from '../jobs/jobs.service.js';

type LetteringAsked = z.output<typeof letteringInput>;

const columns = ['place', 'surface', 'measure', 'value', 'lengthMm'] as const;

/** More rows than a tower has tapes, and more columns than a spreadsheet of them. @source house limits */
const MOST_ROWS = 20_000;
const MOST_COLUMNS = 60;
/** After so many rows others get a turn; after so many faults the rest is not looked at. */
const ROWS_IN_A_ROW = 200;
const ENOUGH_FAULTS = 200;

/** Deeper than this is a slip of the pen; the record takes none. */
const DEEPEST_MM = 500;

/** The survey as a call, and measures as CSV in and out. */
export class MeasureService {
  constructor(
    private readonly jobs: JobsService,
    private readonly compute: Compute,
    private readonly now: () => Date,
  ) {}

  /** @throws Refusal bad-input that names the signs which the face has no letter for */
  async letters({ text, face, spacing }: LetteringAsked): Promise<Lettering> {
    const missing = await missingIn(text, face);
    if (missing.length)
      throw new Refusal('bad-input', `This face has no ${missing.map((m) => `“${m}”`).join(', ')}. Write it another way, or put it in as a figure.`);
    const set = await setLetters(text, face, spacing);
    if (!set.svgPath) throw new Refusal('bad-input', 'There is nothing to cut in it: write at least one letter.');
    return set;
  }

  /** @throws Refusal bad-input where a surface of this kind has no such measure */
  async taped(asked: TapedInput): Promise<TapedResult> {
    const { kind } = asked.surface;
    const faults = asked.readings.flatMap(({ measure }, i): Fault[] =>
      measuresOfKind[kind].includes(measure) ? [] : [{ path: `body.readings.${i}.measure`, message: `A ${surfaceKindNames[kind]} has no ${measure}.` }],
    );
    if (faults.length) throw new Refusal('bad-input', faults[0]!.message, faults);
    return this.compute.run('taped', asked);
  }

  survey(asked: SurveyAsked): Promise<SurveyResult> {
    return this.compute.run('survey', asked);
  }

  /** One line per reading in force, bows of curved glass among them. `value` is what was typed; `lengthMm` is what it means. */
  async toCsv(jobId: string): Promise<{ name: string; bytes: string }> {
    const doc = await this.jobs.open(jobId);
    const place = new Map(doc.places.map((p) => [p.id, p.name]));
    const rows = doc.surfaces.flatMap((s) =>
      readingsInForce(s, doc.surfaces, doc.readings)
        .filter((r) => r.surfaceId === s.id)
        .map((r) => ({ measure: r.measure as string, value: r.typed, lengthMm: r.lengthMm }))
        .concat(((isPane(s) ? s.curved?.bows : null) ?? []).map((b) => ({ measure: bowName(b), value: b.typed, lengthMm: b.depthMm })))
        .map((r) => ({ place: place.get(s.placeId) ?? '', surface: s.name, ...r })),
    );
    return { name: `${doc.job.name} measures.csv`, bytes: csvText(rows, columns) };
  }

  /** Reads every row before anything is written; a pane that is not there yet is added. */
  async fromCsv(jobId: string, text: string, who: { personId: string; deviceId: string }): Promise<{ readings: number; surfaces: number }> {
    const doc = await this.jobs.open(jobId);
    checkTable(text, { rows: MOST_ROWS, columns: MOST_COLUMNS });
    const parsed = Papa.parse<Record<string, string>>(text.replace(/^\uFEFF/, ''), { header: true, skipEmptyLines: true, transform: cellAsWritten });
    const missing = ['surface', 'measure', 'value'].filter((c) => !parsed.meta.fields?.includes(c));
    if (missing.length)
      throw new Refusal(
        'bad-input',
        'The first row must name the columns place, surface, measure and value.',
        missing.map((c) => ({ path: `column ${c}`, message: 'This column is missing.' })),
      );
    const faults: Fault[] = [];
    const writer = new MeasureWriter(doc, who.personId, this.now().toISOString());
    const named = measuresByName(parsed.data);
    for (const [i, row] of parsed.data.entries()) {
      if (i > 0 && i % ROWS_IN_A_ROW === 0) await breathe();
      if (faults.length >= ENOUGH_FAULTS) break;
      readRow(row, i);
    }
    function readRow(row: Record<string, string>, i: number): void {
      const at = (field: string, message: string) => void faults.push({ path: `row ${i + 2}, ${field}`, message });
      const key = measureKey.safeParse(row['measure']);
      if (!row['surface']?.trim()) return at('surface', 'The pane has no name.');
      const bow = bowPlaceOf(row['measure'] ?? '');
      if (bow) {
        const depth = parseOffset(row['value'] ?? '', doc.job.units);
        if (!depth.ok) return at('value', depth.message);
        if (Math.abs(depth.value.lengthMm) > DEEPEST_MM) return at('value', `A bow of ${row['value']} is more than ${DEEPEST_MM} mm: read it again.`);
        if (!writer.isOf('pane', row['place']?.trim() ?? '', row['surface'].trim()))
          return at('measure', `${row['surface'].trim()} is no pane of glass: only curved glass has bows.`);
        return writer.addBow(row['place']?.trim() ?? '', row['surface'].trim(), bow, row['value']!.trim(), depth.value);
      }
      if (!key.success)
        return at(
          'measure',
          `“${row['measure']}” is no measure. Use one of ${measureKey.options.join(', ')}; or of curved glass “bow across 295”, “bow upright 660 from 309 long 260”, “bow down”, “bow up”.`,
        );
      const read = (isBow(key.data) ? parseOffset : parseLength)(row['value'] ?? '', doc.job.units);
      if (!read.ok) return at('value', read.message);
      const [place, name] = [row['place']?.trim() ?? '', row['surface'].trim()];
      const kind = writer.kindOf(place, name) ?? kindTapedBy([...(named.get(nameKey(place, name)) ?? [key.data])]);
      if (!measuresOfKind[kind].includes(key.data))
        return at('measure', `${name} is a ${surfaceKindNames[kind]}, and a ${surfaceKindNames[kind]} has no ${key.data}.`);
      writer.add(place, name, kind, key.data, row['value']!.trim(), read.value);
    }
    if (faults.length)
      throw new Refusal(
        'bad-input',
        `${faults.length >= ENOUGH_FAULTS ? 'Many' : faults.length} rows do not read. Nothing was brought in.`,
        faults.slice(0, 50),
      );
    writer.close();
    if (writer.patches.length === 0) throw new Refusal('bad-input', 'There is no measure in this file.');
    await this.jobs.change(jobId, who, `Bring in ${writer.readingCount} measures`, writer.patches);
    return { readings: writer.readingCount, surfaces: writer.surfaceCount };
  }
}

const nameKey = (place: string, name: string): string => JSON.stringify([place, name]);
/** What the rows of a file tape of each surface that they name. */
function measuresByName(rows: readonly Record<string, string>[]): ReadonlyMap<string, ReadonlySet<MeasureKey>> {
  const named = new Map<string, Set<MeasureKey>>();
  for (const row of rows) {
    const key = measureKey.safeParse(row['measure']);
    if (!key.success) continue;
    const of = nameKey(row['place']?.trim() ?? '', row['surface']?.trim() ?? '');
    const own = named.get(of) ?? new Set<MeasureKey>();
    named.set(of, own.add(key.data));
  }
  return named;
}
/** The first kind that all of these measures are of, panes first; where none has them all, the kind that the first is of. */
function kindTapedBy(measures: readonly MeasureKey[]): SurfaceKind {
  const kinds = Object.keys(measuresOfKind) as SurfaceKind[];
  const has = (k: SurfaceKind, list: readonly MeasureKey[]) => list.every((m) => measuresOfKind[k].includes(m));
  return kinds.find((k) => has(k, measures)) ?? kinds.find((k) => has(k, measures.slice(0, 1))) ?? 'pane';
}

/** Collects the patches of an import; names find panes and places, new ones are added. */
class MeasureWriter {
  readonly patches: Patch[] = [];
  readingCount = 0;
  surfaceCount = 0;
  private readonly surfaces: Surface[];
  private readonly places: { id: string; name: string; order: number }[];
  private readonly readingsOf = new Map<string, Reading[]>();
  private readonly inForce = new Map<string, Map<MeasureKey, Reading>>();
  private readonly byName = new Map<string, Surface[]>();
  private readonly placeNames: Map<string, string>;
  private lastOrder: number;
  private readonly bows = new Map<string, Bow[]>();

  constructor(
    private readonly doc: JobDocument,
    private readonly personId: string,
    private readonly at: string,
  ) {
    this.surfaces = [...doc.surfaces];
    this.places = [...doc.places];
    for (const r of doc.readings) this.readingsOf.set(r.surfaceId, [...(this.readingsOf.get(r.surfaceId) ?? []), r]);
    for (const s of doc.surfaces) this.named(s);
    this.placeNames = new Map(doc.places.map((p) => [p.id, p.name]));
    this.lastOrder = doc.surfaces.reduce((most, s) => Math.max(most, s.order), 0);
  }

  private named(surface: Surface): void {
    const list = this.byName.get(surface.name) ?? [];
    list.push(surface);
    this.byName.set(surface.name, list);
  }

  /** @param kind of a surface that is not there yet */
  add(placeName: string, name: string, kind: SurfaceKind, measure: MeasureKey, typed: string, read: { lengthMm: number; unit: 'mm' | 'in' }): void {
    const surface = this.find(placeName, name, kind);
    const inForce = this.inForceOf(surface);
    const old = inForce.get(measure);
    const reading: Reading = {
      id: uuidv7(),
      jobId: this.doc.job.id,
      surfaceId: surface.id,
      measure,
      typed: typed.slice(0, 40),
      unit: read.unit,
      lengthMm: read.lengthMm,
      instrument: 'import',
      personId: this.personId,
      at: this.at,
      supersedesId: old?.id ?? null,
      withdrawnAt: null,
      deletedAt: null,
    };
    inForce.set(measure, reading);
    this.readingCount++;
    this.patches.push({ op: 'add', kind: 'reading', id: reading.id, value: reading });
  }

  /** A bow of curved glass; one read at the same place before is read again. */
  addBow(placeName: string, name: string, place: BowPlace, typed: string, read: { lengthMm: number; unit: 'mm' | 'in' }): void {
    const surface = this.find(placeName, name);
    if (!isPane(surface)) return;
    const bows = this.bows.get(surface.id) ?? [...(surface.curved?.bows ?? [])];
    const same = bows.findIndex((b) => bowName(b) === bowName(place));
    const bow: Bow = {
      ...place,
      id: bows[same]?.id ?? uuidv7(),
      typed: typed.slice(0, 40),
      unit: read.unit,
      depthMm: read.lengthMm,
      personId: this.personId,
      at: this.at,
    };
    if (same < 0) bows.push(bow);
    else bows[same] = bow;
    this.bows.set(surface.id, bows);
    this.readingCount++;
  }

  /** All that was read of a curve goes into the record as one change of its pane. */
  close(): void {
    for (const [id, bows] of this.bows) {
      const { curved } = panesOf(this.surfaces).find((s) => s.id === id)!;
      this.patches.push({ op: 'set', kind: 'surface', id, field: 'curved', value: { ...(curved ?? newCurvedPane()), bows } });
    }
  }

  /** The pane's own readings in force, by measure: looked up once, then kept up to date. */
  private inForceOf(surface: Surface): Map<MeasureKey, Reading> {
    const before = this.inForce.get(surface.id);
    if (before) return before;
    const own = readingsInForce(surface, this.surfaces, this.readingsOf.get(surface.id) ?? []).filter((r) => r.surfaceId === surface.id);
    const map = new Map(own.map((r) => [r.measure, r]));
    this.inForce.set(surface.id, map);
    return map;
  }

  /** Of what kind the surface of this name is; null: there is none yet. */
  kindOf = (placeName: string, name: string): SurfaceKind | null => this.known(placeName, name)?.kind ?? null;
  /** Whether a surface of this name is of this kind, or not there yet. */
  isOf = (kind: SurfaceKind, placeName: string, name: string): boolean => (this.kindOf(placeName, name) ?? kind) === kind;

  private known(placeName: string, name: string): Surface | undefined {
    return placeName === '' ? this.byName.get(name)?.[0] : this.byName.get(name)?.find((s) => this.placeNames.get(s.placeId) === placeName);
  }
  private find(placeName: string, name: string, kind: SurfaceKind = 'pane'): Surface {
    return this.known(placeName, name) ?? this.addSurface(placeName, name, kind);
  }

  private addSurface(placeName: string, name: string, kind: SurfaceKind): Surface {
    const place = this.places.find((p) => p.name === (placeName || this.places[0]?.name)) ?? this.addPlace(placeName || 'First room');
    const order = ++this.lastOrder;
    const surface = newSurface(kind, { id: uuidv7(), jobId: this.doc.job.id, placeId: place.id, name: name.slice(0, 60), order });
    this.surfaces.push(surface);
    this.named({ ...surface, name });
    this.surfaceCount++;
    this.patches.push({ op: 'add', kind: 'surface', id: surface.id, value: surface });
    return surface;
  }

  private addPlace(name: string) {
    const place = {
      id: uuidv7(),
      jobId: this.doc.job.id,
      name: name.slice(0, 80),
      order: Math.max(0, ...this.places.map((p) => p.order)) + 1,
      deletedAt: null,
    };
    this.places.push(place);
    this.placeNames.set(place.id, name);
    this.patches.push({ op: 'add', kind: 'place', id: place.id, value: place });
    return place;
  }
}
