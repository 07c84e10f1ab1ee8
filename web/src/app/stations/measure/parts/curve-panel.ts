import { panesOf } from '@yellow-pane/core';
import { ChangeDetectionStrategy, Component, computed, inject, input, output, signal } from '@angular/core';
import {
  zoneKind,
  type BowPlace,
  type BowWay,
  type CurvedPane,
  type Defroster,
  type PaneCloud,
  type PaneZone,
  type ShrinkPlan,
  type Pane,
} from '@yellow-pane/contracts';
import { bowPlaceWords } from '@yellow-pane/core/form';
import { formatDoubt, formatFine, formatLength, formatLong, parseOffset } from '@yellow-pane/core/ground';
import { v7 as uuidv7 } from 'uuid';
import { readNumber } from '../../../kit/read-number';
import { Why } from '../../../kit/why';
import { RecordStore } from '../../../record/record.store';
import { mirrorOf, withoutBow } from '../curve.updaters';
import { CloudPlacer } from './cloud-placer';

const corners = ['lower left', 'lower right', 'upper right', 'upper left'] as const;

/** Numbers beside the curve of a pane: what its bows say to each other, where one more would help, and what else is known of it. */
@Component({
  selector: 'yp-curve-panel',
  imports: [CloudPlacer, Why],
  changeDetection: ChangeDetectionStrategy.OnPush,
  templateUrl: './curve-panel.html',
  host: { class: 'block' },
})
export class CurvePanel {
  readonly surface = input.required<Pane>();
  /** The curve as it counts here: its own, or that of the pane it is measured like. */
  readonly curved = input.required<CurvedPane>();
  readonly plan = input.required<ShrinkPlan | null>();
  readonly missing = input.required<string | null>();
  readonly asked = output<BowPlace>();
  protected readonly record = inject(RecordStore);
  protected readonly corners = corners;
  protected readonly edges = ['lower', 'upper'] as const;
  protected readonly zoneKinds = zoneKind.options;
  protected readonly fresh = signal(false);
  protected readonly inherits = computed(() => this.surface().curved?.bows.length === 0 && !this.surface().curved?.cloud && this.curved().bows.length > 0);
  protected f = (mm: number): string => formatLength(mm, this.record.units());
  protected long = (radiusM: number | null): string => (radiusM === null ? 'nothing' : formatLong(1000 * radiusM, this.record.units()));
  protected words = (p: BowPlace): string => bowPlaceWords(p, this.record.units());

  /** What all the others say a bow should be; bare figures in the column. */
  private told(c: { readonly expectedMm: number; readonly sigmaMm: number }): string {
    const units = this.record.units();
    return `${formatFine(c.expectedMm, units)} ± ${formatDoubt(c.sigmaMm, units)}`.replace(/ mm|"/g, '');
  }

  /** Where a straightedge lies, in two words. */
  private short(p: BowPlace): string {
    const at = p.way === 'down' ? 'diagonal ↘' : p.way === 'up' ? 'diagonal ↗' : `${p.way} ${this.f(p.atMm)}`;
    return p.span ? `${at}, ${this.f(p.span.lengthMm)} long` : at;
  }

  protected readonly rows = computed(() =>
    this.curved().bows.map((b) => {
      const c = this.plan()?.checks.find((x) => x.bowId === b.id);
      return {
        bow: b,
        name: this.short(b),
        full: this.words(b),
        typed: b.unit === this.record.units() ? b.typed : this.f(b.depthMm),
        expected: c ? this.told(c) : '',
        isOut: this.plan()?.suspects.some((x) => x.bowId === b.id && x.isOut) ?? false,
      };
    }),
  );
  protected readonly look = computed(() => {
    const p = this.plan();
    if (this.missing()) return { box: 'border-hair bg-paper', text: this.missing()! };
    if (!p) return { box: 'border-hair bg-paper', text: 'Weighing the bows …' };
    if (p.suspects.length) return { box: 'border-ink bg-tint', text: p.suspects.map((s) => s.text).join(' ') };
    const c = this.curved();
    if (c.cloud) return { box: 'border-proof bg-proof-tint', text: 'The points lie on one smooth pane.' };
    return { box: 'border-proof bg-proof-tint', text: `${c.bows.length} bows go together on one smooth pane.` };
  });
  protected readonly why = [
    'A bow read with straightedge and rule is taken as ±0.5 mm, 1 σ: common practice.',
    'All bows together are fitted by one smooth pane (cubic splines; how fast its curvature may change comes from the bows). Level, upright and diagonal bows close: the middle lies as deep under the corners whichever way it is added up. A bow is called a slip when that is four times likelier than not.',
  ];

  private put(label: string, part: Partial<CurvedPane>): void {
    const s = this.surface();
    if (s.curved) void this.record.set(`${label} of ${s.name}`, 'surface', s.id, { curved: { ...s.curved, ...part } });
  }
  protected set = (label: string, part: Partial<CurvedPane>): void => this.put(label, part);
  protected dropBow(id: string): void {
    const s = this.surface();
    if (s.curved) this.put('No bow', { bows: withoutBow(s.curved, id).bows });
  }
  protected turnsIn = (side: 'lower' | 'upper'): boolean => this.surface().curved?.turnsIn?.includes(side) ?? false;
  protected setTurnsIn(side: 'lower' | 'upper'): void {
    const others = (this.surface().curved?.turnsIn ?? []).filter((x) => x !== side);
    const where = side === 'lower' ? 'below' : 'above';
    const isOn = this.turnsIn(side);
    this.put(isOn ? `Does not turn in sharply ${where}` : `Turns in sharply ${where}`, { turnsIn: isOn ? others : [...others, side] });
  }
  private mm(box: HTMLInputElement, low = 0, high = 5000): number | null | undefined {
    if (box.value.trim() === '') {
      box.setCustomValidity('');
      return null;
    }
    const read = parseOffset(box.value, this.record.units());
    const message = !read.ok ? read.message : read.value.lengthMm < low || read.value.lengthMm > high ? `Between ${this.f(low)} and ${this.f(high)}.` : '';
    box.setCustomValidity(message);
    if (message || !read.ok) return void box.reportValidity();
    return read.value.lengthMm;
  }
  protected setRadius(i: number, box: HTMLInputElement): void {
    const mm = this.mm(box, 0, 600);
    if (mm === undefined) return;
    const radii = [...this.surface().curved!.cornerRadiiMm] as [number, number, number, number];
    radii[i] = mm ?? 0;
    this.put('Corner radius', { cornerRadiiMm: radii });
  }
  protected setDots(box: HTMLInputElement): void {
    const mm = this.mm(box, 0, 300);
    if (mm !== undefined) this.put('Dot border', { dotBorderMm: mm });
  }
  protected setWires(part: Partial<Defroster> | null): void {
    const now = this.surface().curved!.defroster ?? { way: 'across' as const, firstMm: 100, spacingMm: 30, count: 10 };
    this.put('Heating lines', { defroster: part && { ...now, ...part } });
  }
  protected wire(field: 'firstMm' | 'spacingMm', box: HTMLInputElement): void {
    const mm = this.mm(box, field === 'spacingMm' ? 5 : 0);
    if (mm) this.setWires({ [field]: mm });
  }
  protected wireCount(box: HTMLInputElement): void {
    const n = readNumber(box, { low: 1, high: 60, message: 'From 1 to 60 lines.' });
    if (n) this.setWires({ count: Math.round(n) });
  }
  protected addZone(box: HTMLSelectElement): void {
    const kind = this.zoneKinds.find((k) => k === box.value);
    box.value = '';
    if (kind) this.put('Zone', { zones: [...this.surface().curved!.zones, { id: uuidv7(), kind, leftMm: 50, lowMm: 50, widthMm: 120, heightMm: 60 }] });
  }
  protected zone(z: PaneZone, field: 'leftMm' | 'lowMm' | 'widthMm' | 'heightMm', box: HTMLInputElement): void {
    const mm = this.mm(box, field === 'widthMm' || field === 'heightMm' ? 1 : -500);
    if (mm !== null && mm !== undefined) this.put('Zone', { zones: this.surface().curved!.zones.map((x) => (x.id === z.id ? { ...x, [field]: mm } : x)) });
  }
  protected dropZone(z: PaneZone): void {
    this.put('No zone', { zones: this.surface().curved!.zones.filter((x) => x.id !== z.id) });
  }
  protected setCloud(cloud: PaneCloud | null): void {
    const s = this.surface();
    if (!s.curved) return;
    const shape = cloud
      ? {
          kind: 'drawn' as const,
          hasLegs: false,
          corner: 'lower-left' as const,
          corners: 4,
          inward: [],
          path: cloud.outline.map((p) => ({ xMm: p.x, yMm: p.y, bulge: 0 })),
        }
      : null;
    void this.record.set(cloud ? `Point cloud of ${s.name}` : `No point cloud of ${s.name}`, 'surface', s.id, { curved: { ...s.curved, cloud }, shape });
  }
  protected addBow(way: string, at: HTMLInputElement, from: HTMLInputElement, length: HTMLInputElement): void {
    const [atMm, fromMm, lengthMm] = [this.mm(at, -200), this.mm(from), this.mm(length, 40)];
    if (atMm === undefined || fromMm === undefined || lengthMm === undefined) return;
    this.asked.emit({ way: way as BowWay, atMm: way === 'down' || way === 'up' ? 0 : (atMm ?? 0), span: lengthMm ? { fromMm: fromMm ?? 0, lengthMm } : null });
    this.fresh.set(false);
  }
  protected async mirror(): Promise<void> {
    const [doc, s] = [this.record.doc(), this.surface()];
    if (!doc) return;
    const like = s.measuredLikeId && this.inherits() ? panesOf(doc.surfaces).find((x) => x.id === s.measuredLikeId) : s;
    if (!like?.curved) return;
    const other = mirrorOf(like, uuidv7(), Math.max(...doc.surfaces.map((x) => x.order)) + 1);
    await this.record.change(`${other.name}, mirror of ${like.name}`, [{ op: 'add', kind: 'surface', id: other.id, value: other }]);
    this.record.select(other.id);
  }
}
