import { ChangeDetectionStrategy, Component, computed, type ElementRef, inject, signal, viewChild } from '@angular/core';
import { RouterLink } from '@angular/router';
import { newRoll, roll as rollSchema, rollEdges, type LengthFrom, type Roll, type RollEdges, type RollForm } from '@yellow-pane/contracts';
import { figureOf, formatLength, measureOf, parseLength } from '@yellow-pane/core/ground';
import { v7 as uuidv7 } from 'uuid';
import { BenchBar } from '../../kit/bench-bar';
import { ApiProblem, Api, hrefOf } from '../../record/api';
import { BenchStore } from '../../record/bench.store';
import { Device } from '../../record/device';
import { readLabel } from './read-label';
import { countEntry, labelFrom, lengthPatches, stockRows, type StockRow } from './stock.updaters';

const edgeNames: Record<RollEdges, string> = {
  both: 'both edges the roll’s own',
  near: 'near edge the roll’s own',
  far: 'far edge the roll’s own',
  none: 'no edge the roll’s own: all cut',
};

/** What the person calls a field of a roll. */
const placeNames: Readonly<Record<string, string>> = {
  label: 'Label',
  lot: 'Lot',
  place: 'Place',
  widthMm: 'Width',
  lengthM: 'Length',
  pricePerM: 'Price',
  filmId: 'Film',
  edges: 'Own edges',
  wound: 'Comes off',
};

/** Stock: every roll and leftover with what is left, promised and free; counted, measured, labelled, in and out. */
@Component({
  selector: 'yp-stock-page',
  imports: [BenchBar, RouterLink],
  changeDetection: ChangeDetectionStrategy.OnPush,
  templateUrl: './stock-page.html',
})
export class StockPage {
  protected readonly bench = inject(BenchStore);
  private readonly device = inject(Device);
  private readonly api = inject(Api);
  protected readonly edgeNames = edgeNames;
  protected readonly edgeKinds = rollEdges.options;
  protected readonly search = signal('');
  protected readonly openId = signal<string | null>(null);
  protected readonly isAdding = signal(false);
  protected readonly form = signal<RollForm>('roll');
  protected readonly how = signal<LengthFrom['how']>('known');
  protected readonly note = signal('');
  protected readonly marked = signal<ReadonlySet<string>>(new Set());
  /** A stock take: what was scanned, in order, with what was counted. */
  protected readonly take = signal<readonly { id: string; countedMm: number | null }[] | null>(null);
  protected readonly known = signal<{ csv: string; labels: string } | null>(null);
  private readonly scan = viewChild<ElementRef<HTMLInputElement>>('scan');

  protected readonly rows = computed(() => {
    const doc = this.bench.doc();
    return doc ? stockRows(doc, this.search()) : [];
  });
  protected readonly groups = computed(() => {
    const out = new Map<string, StockRow[]>();
    for (const r of this.rows()) out.set(r.film, [...(out.get(r.film) ?? []), r]);
    return [...out].map(([film, rows]) => ({ film, rows, free: measureOf('roll', this.units).to(rows.filter((r) => r.roll.form === 'roll').reduce((s, r) => s + r.freeMm, 0) / 1000).toFixed(1), leftovers: rows.filter((r) => r.roll.form === 'leftover').length })); // prettier-ignore
  });
  protected readonly worth = computed(() => this.money(this.rows().reduce((s, r) => s + r.value, 0)));
  protected readonly takeRows = computed(() => {
    const all = new Map((this.bench.doc() ? stockRows(this.bench.doc()!, '') : []).map((r) => [r.roll.id, r]));
    return (this.take() ?? []).flatMap((t) => {
      const row = all.get(t.id);
      return row ? [{ ...t, row, off: t.countedMm === null ? 0 : t.countedMm - row.remainingMm }] : [];
    });
  });
  protected readonly notSeen = computed(() => {
    const seen = new Set((this.take() ?? []).map((t) => t.id));
    return this.rows().filter((r) => !seen.has(r.roll.id) && !r.roll.isToOrder && r.remainingMm > 0);
  });
  protected readonly labelsHref = computed(() => hrefOf('stockLabels', { query: this.marked().size ? { ids: [...this.marked()].join(',') } : {} }));

  constructor() {
    void this.bench.load();
  }

  private get units() {
    return this.bench.doc()?.firm.units ?? 'mm';
  }
  protected f = (mm: number): string => formatLength(mm, this.units);
  /** Film on a roll: metres, or feet on a bench of inches. */
  protected readonly roll = computed(() => measureOf('roll', this.units));
  protected m = (mm: number): string =>
    this.roll()
      .to(mm / 1000)
      .toFixed(this.roll().digits);
  protected perLength = (pricePerM: string): string => (this.units === 'mm' ? pricePerM : figureOf(Number(pricePerM), 'perLength', 'in'));
  /** A price as typed, for a metre. */
  private perM(text: string): string {
    const typed = text.trim().replace(',', '.');
    return this.units === 'mm' || typed === '' || !Number.isFinite(Number(typed)) ? typed : measureOf('perLength', 'in').from(Number(typed)).toFixed(4);
  }
  protected readonly onIt = computed(() => (this.roll().unit === 'ft' ? 'Feet on it' : 'Metres on it'));
  protected readonly widthLike = computed(() => (this.roll().unit === 'ft' ? '60' : '1524'));
  protected readonly lengthLike = computed(() =>
    this.form() === 'roll' ? (this.roll().unit === 'ft' ? '100' : '30.5') : this.roll().unit === 'ft' ? '47 1/4' : '1200',
  );
  protected money(amount: number): string {
    return new Intl.NumberFormat('en-IE', { style: 'currency', currency: this.bench.doc()?.firm.currency ?? 'EUR', maximumFractionDigits: 0 }).format(amount);
  }
  protected sizeOf = (r: StockRow): string =>
    r.roll.form === 'leftover' ? `${this.f(r.roll.widthMm)} wide × ${this.f(r.remainingMm)} long` : `${this.f(r.roll.widthMm)} wide`;
  /** Share of a whole roll, for its bar. */
  protected share = (r: StockRow, mm: number): number => Math.max(0, Math.min(1, mm / Math.max(this.fullMm(r), r.remainingMm, 1)));
  /** Length that a whole roll of this width is sold in. */
  private fullMm(r: StockRow): number {
    const film = this.bench.doc()?.films.find((f) => f.id === r.roll.filmId);
    return ((film?.offers.find((o) => Math.abs(o.widthMm - r.roll.widthMm) < 1) ?? film?.offers[0])?.lengthM ?? 30.5) * 1000;
  }
  /** A leftover in its true proportions. */
  protected sheet(r: StockRow): { w: number; h: number } {
    const scale = Math.min(150 / Math.max(1, r.remainingMm), 22 / r.roll.widthMm);
    return { w: Math.max(2, r.remainingMm * scale), h: Math.max(2, r.roll.widthMm * scale) };
  }
  protected face(r: Roll): string {
    const wound = r.wound ?? this.bench.doc()?.films.find((f) => f.id === r.filmId)?.wound ?? 'unknown';
    return wound === 'liner-in' ? 'film up' : wound === 'liner-out' ? 'liner up' : 'face not known';
  }
  private who() {
    return { id: uuidv7(), personId: this.device.person()?.id ?? '', at: new Date().toISOString() };
  }

  protected toggle(id: string): void {
    this.openId.set(this.openId() === id ? null : id);
    this.how.set('known');
    this.note.set('');
  }
  protected mark(id: string): void {
    const next = new Set(this.marked());
    if (!next.delete(id)) next.add(id);
    this.marked.set(next);
  }

  /** Field by field, as a person writes it onto the label. */
  protected setField(row: StockRow, field: 'place' | 'lot' | 'label' | 'pricePerM' | 'edges' | 'wound', value: string): void {
    const next = field === 'wound' ? (value === '' ? null : value) : field === 'pricePerM' ? this.perM(value) : value.trim();
    const read = rollSchema.safeParse({ ...row.roll, [field]: next });
    if (!read.success) return this.note.set(`${placeNames[field] ?? field}: ${read.error.issues[0]!.message}`);
    if (field === 'label' && this.bench.doc()!.rolls.some((r) => r.id !== row.roll.id && r.label === next))
      return this.note.set(`There is another roll called ${next}.`);
    this.note.set('');
    void this.bench.change(`${row.roll.label}: ${field}`, [{ op: 'set', kind: 'roll', id: row.roll.id, field, value: next }]);
  }
  /** Counted by unrolling, or put right with a reason. */
  protected count(row: StockRow, metres: string, reason: string): void {
    const n = this.roll().from(Number(metres.trim().replace(',', '.')));
    if (metres.trim() === '' || !(n >= 0 && n <= 1000))
      return this.note.set(`On it: a number of ${this.roll().unit} between 0 and ${Math.floor(this.roll().to(1000))}.`);
    if (!reason.trim()) return this.note.set('Say why: counted, damaged, cut for a sample …');
    const patch = countEntry(row, n * 1000, 'correction', reason.trim(), this.who());
    this.note.set('');
    if (patch) void this.bench.change(`${row.roll.label} has ${this.m(n * 1000)} ${this.roll().unit}`, [patch]);
  }
  protected measure(row: StockRow, boxes: { outside: string; core: string; thickness: string; full: string; fullM: string }): void {
    const number = (t: string) => Number(t.trim().replace(',', '.'));
    const mm = (t: string) => {
      const read = parseLength(t, this.units);
      return read.ok ? read.value.lengthMm : NaN;
    };
    const from: LengthFrom =
      this.how() === 'full-roll'
        ? {
            how: 'full-roll',
            outsideMm: mm(boxes.outside),
            coreMm: mm(boxes.core),
            fullOutsideMm: mm(boxes.full),
            fullLengthM: this.roll().from(number(boxes.fullM)),
          }
        : {
            how: 'diameter',
            outsideMm: mm(boxes.outside),
            coreMm: mm(boxes.core),
            thicknessUm: measureOf('thickness', this.units).from(number(boxes.thickness)),
          };
    const patches = lengthPatches(row, from, this.who());
    if (typeof patches === 'string') return this.note.set(patches.replace('µm', measureOf('thickness', this.units).unit));
    this.note.set('');
    void this.bench.change(`${row.roll.label} measured by diameter`, patches);
  }
  /** A roll that was to be ordered is on the rack. */
  protected hasCome(row: StockRow): void {
    void this.bench.change(`${row.roll.label} has come`, [{ op: 'set', kind: 'roll', id: row.roll.id, field: 'isToOrder', value: false }]);
  }
  protected async away(row: StockRow): Promise<void> {
    const done = await this.bench.change(`${row.roll.label} is gone`, [
      { op: 'set', kind: 'roll', id: row.roll.id, field: 'deletedAt', value: new Date().toISOString() },
    ]);
    if (done) this.openId.set(null);
  }

  protected add(f: { film: string; label: string; lot: string; width: string; length: string; price: string; place: string; edges: string }): void {
    const doc = this.bench.doc();
    if (!doc) return;
    const width = parseLength(f.width, this.units);
    if (!width.ok) return this.note.set(`Width: ${width.message}`);
    const length = this.form() === 'leftover' ? parseLength(f.length, this.units) : null;
    if (length && !length.ok) return this.note.set(`Length: ${length.message}`);
    const lengthM = length?.ok ? length.value.lengthMm / 1000 : this.roll().from(Number(f.length.trim().replace(',', '.')));
    if (!(lengthM > 0)) return this.note.set(`Length: how many ${this.units === 'in' ? 'feet' : 'metres'} are on it?`);
    if (doc.rolls.some((r) => r.label === f.label.trim())) return this.note.set(`There is already a roll called ${f.label.trim()}.`);
    const film = doc.films.find((x) => x.id === f.film);
    const offer = film?.offers.find((o) => Math.abs(o.widthMm - width.value.lengthMm) < 1) ?? film?.offers[0];
    const bought = offer ? (Number(offer.pricePerRoll) / offer.lengthM / offer.widthMm) * width.value.lengthMm : 0;
    const own = this.perM(f.price);
    const read = rollSchema.safeParse(
      newRoll({
        id: uuidv7(),
        filmId: f.film,
        label: f.label,
        lot: f.lot,
        widthMm: width.value.lengthMm,
        lengthM,
        pricePerM: own || (bought * (this.form() === 'leftover' ? doc.firm.leftovers.worthFrac : 1)).toFixed(4),
        form: this.form(),
        place: f.place,
        edges: this.form() === 'leftover' ? (f.edges as RollEdges) : 'both',
      }),
    );
    if (!read.success) return this.note.set(`${placeNames[String(read.error.issues[0]!.path[0])] ?? 'Roll'}: ${read.error.issues[0]!.message}`);
    this.note.set('');
    this.isAdding.set(false);
    void this.bench.change(`${this.form() === 'roll' ? 'Roll' : 'Leftover'} ${read.data.label}`, [
      { op: 'add', kind: 'roll', id: read.data.id, value: read.data },
    ]);
  }

  protected startTake(): void {
    this.take.set(this.take() ? null : []);
    this.note.set('');
    setTimeout(() => this.scan()?.nativeElement.focus());
  }
  /** A label scanned, typed or read off a picture. */
  protected seen(text: string): void {
    const label = labelFrom(text);
    if (!label) return;
    const row = this.bench.doc() ? stockRows(this.bench.doc()!, '').find((r) => r.roll.label.toLowerCase() === label.toLowerCase()) : undefined;
    if (!row) return this.note.set(`No roll or leftover is called ${label}. Enter it as a new one, or look at its label.`);
    this.note.set('');
    if (!this.take()!.some((t) => t.id === row.roll.id)) this.take.set([...this.take()!, { id: row.roll.id, countedMm: null }]);
  }
  protected async shoot(box: HTMLInputElement): Promise<void> {
    const file = box.files?.[0];
    box.value = '';
    if (!file) return;
    const text = await readLabel(file);
    if (text === null) return this.note.set('There is no label code to be read in this picture. Hold still, fill the picture with the code.');
    this.seen(text);
  }
  protected counted(id: string, box: HTMLInputElement): void {
    const n = this.roll().from(Number(box.value.trim().replace(',', '.')));
    if (box.value.trim() !== '' && !(n >= 0 && n <= 1000))
      return this.note.set(`A number of ${this.roll().unit} between 0 and ${Math.floor(this.roll().to(1000))}.`);
    this.take.set(this.take()!.map((t) => (t.id === id ? { ...t, countedMm: box.value.trim() === '' ? null : n * 1000 } : t)));
  }
  /** Differences are booked with their reason; what was not seen stays as it is. */
  protected async book(reason: string): Promise<void> {
    const patches = this.takeRows().flatMap((t) =>
      t.countedMm === null ? [] : (countEntry(t.row, t.countedMm, 'count', reason.trim() || 'Stock take', this.who()) ?? []),
    );
    if (patches.length === 0) return this.note.set('Everything that was counted is as the book says.');
    if (await this.bench.change(`Stock take: ${patches.length} differences`, patches)) this.take.set(null);
  }

  protected async bringIn(box: HTMLInputElement): Promise<void> {
    const csv = await box.files?.[0]?.text();
    box.value = '';
    if (csv) await this.send(csv, 'ask');
  }
  protected async send(csv: string, same: 'ask' | 'skip' | 'count'): Promise<void> {
    const person = this.device.person();
    if (!person) return;
    try {
      const done = await this.api.importStock({ query: { personId: person.id, deviceId: this.device.id, same }, body: csv });
      await this.device.connect();
      await this.bench.load();
      this.known.set(null);
      this.note.set(`${done.added} came in, ${done.counted} were counted, ${done.skipped} left as they are.`);
    } catch (error) {
      if (!(error instanceof ApiProblem)) throw error;
      if (error.code === 'rolls-known') return this.known.set({ csv, labels: error.faults.map((f) => f.path).join(', ') });
      this.note.set([error.message, ...error.faults.map((f) => `${f.path}: ${f.message}`)].join('\n'));
    }
  }
}
