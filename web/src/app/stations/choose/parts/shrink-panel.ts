import { ChangeDetectionStrategy, Component, computed, effect, inject, signal, untracked } from '@angular/core';
import type { AnchorChoice, FormingSchool, Lubrication, MeshStation, ShrinkInput, ShrinkPlan } from '@yellow-pane/contracts';
import { hrefOf } from '../../../record/api';
import { shrinkRequestOf } from '@yellow-pane/core';
import { formGradeWords, fromMiddle, percent, schoolNames, taped } from '@yellow-pane/core/form';
import { contentHash, formatFine, formatLength, formatRough, formatRoughRange, parseOffset } from '@yellow-pane/core/ground';
import { defaultLay } from '@yellow-pane/core/lay';
import { ShrinkSearch } from '../../../compute/shrink-search';
import { FlatFilm, type FilmPlace } from '../../../kit/flat-film';
import { Pane3d, type PointedAt } from '../../../kit/pane-3d';
import { fullScale, shrinkColor } from '../../../kit/shrink-colors';
import { SlackGraph } from '../../../kit/slack-graph';
import { Tabs } from '../../../kit/tabs';
import { Why } from '../../../kit/why';
import { RecordStore } from '../../../record/record.store';

/** So near to the balanced line a dragged one snaps to it, mm. */
const SNAP_MM = 5;
type Leaf = 'map' | 'ways' | 'table';
const gradeLook = {
  'lies-down': 'border-proof bg-proof-tint',
  easy: 'border-proof bg-proof-tint',
  care: 'border-ink bg-tint',
  beyond: 'border-harm bg-harm-tint',
} as const;

/** The shrink plan of a curved pane: can this film be formed on it, where does the line go, which fingers, by which way. */
@Component({
  selector: 'yp-shrink-panel',
  imports: [FlatFilm, Pane3d, SlackGraph, Tabs, Why],
  changeDetection: ChangeDetectionStrategy.OnPush,
  templateUrl: './shrink-panel.html',
  host: { class: 'block h-full' },
})
export class ShrinkPanel {
  protected readonly record = inject(RecordStore);
  private readonly search = inject(ShrinkSearch);
  protected readonly leaf = signal<Leaf>('map');
  protected readonly leaves = [
    { id: 'map' as const, name: 'Glass and film' },
    { id: 'ways' as const, name: 'Ways of forming' },
    { id: 'table' as const, name: 'Fingers in figures' },
  ];
  private readonly made = signal<{ key: string; surfaceId: string; plan: ShrinkPlan | null; why: string } | null>(null);
  /** The line while it is dragged. */
  protected readonly tried = signal<{
    line: readonly { x: number; y: number }[];
    mesh: readonly MeshStation[];
    aboveMm: number;
    belowMm: number;
    text: string;
  } | null>(null);
  protected readonly pointedText = signal('');
  protected readonly gradeLook = gradeLook;
  protected readonly names = schoolNames;
  protected readonly percent = percent;
  protected readonly fromMiddle = fromMiddle;
  private asked = '';

  protected readonly surface = this.record.pane;
  protected readonly film = computed(() => this.record.doc()?.films.find((f) => f.id === this.surface()?.filmId) ?? null);
  private readonly request = computed(() => {
    const [doc, s, film] = [this.record.records(), this.surface(), this.film()];
    return doc && s?.curved && film ? shrinkRequestOf(s, { ...doc, job: { ...doc.job, units: this.record.units() } }, film) : null;
  });
  protected readonly blocked = computed(() => {
    const r = this.request();
    if (!this.film()) return 'Choose a film first: what it can shrink decides.';
    return r && 'blocked' in r ? r.blocked : null;
  });
  private readonly input = computed<ShrinkInput | null>(() => {
    const r = this.request();
    return r && 'input' in r ? r.input : null;
  });
  private readonly key = computed(() => (this.input() ? contentHash(this.input()) : ''));
  protected readonly plan = computed(() => (this.made()?.key === this.key() ? this.made()!.plan : null));
  protected readonly failed = computed(() => (this.made()?.key === this.key() ? this.made()!.why : ''));
  /** The plan of a moment ago stays on the screen while the next one is made. */
  protected readonly shown = computed(() => this.plan() ?? (this.input() && this.made()?.surfaceId === this.surface()?.id ? this.made()!.plan : null));
  protected readonly isStale = computed(() => this.shown() !== null && this.plan() === null && !this.failed());

  protected readonly mesh = computed(() => this.tried()?.mesh ?? this.shown()?.mesh ?? []);
  protected readonly line = computed(() => this.tried()?.line ?? this.shown()?.anchor.line ?? []);
  protected readonly fingers = computed(() => (this.tried() ? [] : [...(this.shown()?.below.fingers ?? []), ...(this.shown()?.above.fingers ?? [])]));
  /** Rings that heat keeps out of; while the line is dragged the film has none yet. */
  protected readonly kept = computed(() => {
    const all = (this.shown()?.keepClear ?? []).filter((k) => k.heatMm !== null && k.ring.length > 2);
    return { onGlass: all.map((k) => k.ring), onFilm: this.tried() ? [] : all.map((k) => k.flatRing) };
  });
  protected readonly numbers = computed(() => new Map((this.shown()?.order ?? []).map((o, i) => [`${o.side}${o.number}`, i + 1])));
  /** The most that any place of the film has to lose, or would have to stretch. */
  protected readonly full = computed(() => {
    const ends = this.mesh().flatMap((m) => [m.up.at(-1)?.[4] ?? 0, m.down.at(-1)?.[4] ?? 0]);
    return fullScale(Math.max(0, ...ends.map(Math.abs)));
  });
  protected readonly scale = computed(() => {
    const full = this.full();
    return [0, 0.25, 0.5, 0.75, 1].map((k) => ({ color: shrinkColor(k), text: `${(100 * k * full).toFixed(full < 0.004 ? 2 : 1)} %` }));
  });
  protected readonly stretches = computed(() => Math.min(this.shown()?.above.leastFrac ?? 0, this.shown()?.below.leastFrac ?? 0) < -0.001);
  protected readonly grade = computed(() => {
    const p = this.shown();
    return p ? { look: p.refused ? gradeLook.beyond : gradeLook[p.grade], text: formGradeWords(p.grade, p.gradeRange) } : null;
  });
  protected readonly card = computed(() => this.shown()?.methods.find((m) => m.school === this.shown()!.school) ?? null);
  protected readonly sheetLink = computed(() => {
    const [doc, s] = [this.record.doc(), this.surface()];
    return doc && s ? hrefOf('formingSheetPdf', { params: { jobId: doc.job.id }, query: { surfaceId: s.id } }) : null;
  });
  protected readonly rows = computed(() => {
    const n = this.numbers();
    return this.fingers()
      .map((f) => ({ ...f, order: n.get(`${f.side}${f.number}`) ?? 0 }))
      .sort((a, b) => a.order - b.order);
  });
  protected readonly why = computed(() => {
    const [p, i] = [this.shown(), this.input()];
    if (!p || !i) return [];
    const by = i.curved.cloud
      ? `${i.curved.cloud.pointCount} points of ${i.curved.cloud.fileName}, ${i.curved.cloud.strayCount} strays left out, noise ${this.exact(i.curved.cloud.noiseMm)}.`
      : `${i.curved.bows.length} bows at ±0.5 mm (1σ, common practice), a cubic spline whose curvature may change as much as they say.`;
    return [
      by,
      'Threads of film run straight on (geodesics) from the line; their width J follows J″ = −K·J with the curvature K of the glass, J = 1 at the line (do Carmo, Jacobi fields). The film has to lose 1 − J.',
      `Slack is that, summed along the edge over the real outline. Lower ${this.exact(p.below.slackMm)} (${this.exact(p.below.lowMm)} to ${this.exact(p.below.highMm)}), upper ${this.exact(p.above.slackMm)} (${this.exact(p.above.lowMm)} to ${this.exact(p.above.highMm)}): two sigma of what the measures leave.`,
      `${i.film.name} shrinks ${percent(p.capacityFrac)} along the roll${i.film.shrink ? '' : ' (taken as usual: its sheet does not say)'}. Easy up to a quarter of that at one place, with care up to eight tenths (house rules); 0.1 % lies down without heat (common practice).`,
      `A finger has a foot of ${formatRough(90, this.record.units())} at most and asks half of what the film can (house rules); its fold stands √(3·slack·foot/8) high.`,
    ];
  });

  constructor() {
    effect(() => {
      const [input, key] = [this.input(), this.key()];
      untracked(() => {
        this.tried.set(null);
        if (input) void this.make(input, key);
      });
    });
  }

  private async make(input: ShrinkInput, key: string): Promise<void> {
    if (this.asked === key) return;
    this.asked = key;
    const surfaceId = this.surface()!.id;
    const made = await this.search.plan(input);
    if (this.asked === key) this.made.set({ key, surfaceId, plan: made.ok ? made.value : null, why: made.ok ? '' : made.message });
  }

  protected f = (mm: number): string => taped(mm, this.record.units());
  /** As the sum has it, finer than any rule. */
  private exact = (mm: number): string => (this.record.units() === 'in' ? `${(mm / 25.4).toFixed(3)}"` : `${mm.toFixed(2)} mm`);
  protected fine = (mm: number): string => formatFine(mm, this.record.units());
  protected roughly = (fromMm: number, toMm: number): string => formatRoughRange(fromMm, toMm, this.record.units());
  protected shownLoss(at: PointedAt | FilmPlace | null): void {
    this.pointedText.set(!at ? '' : at.lossFrac >= 0 ? `here: has to lose ${percent(at.lossFrac)}` : `here: would have to stretch ${percent(-at.lossFrac)}`);
  }

  private chosen(by: number): AnchorChoice | null {
    const p = this.shown();
    if (!p) return null;
    const at = { leftMm: p.anchor.leftMm + by, rightMm: p.anchor.rightMm + by };
    const b = p.balanced;
    if (b && Math.abs(p.anchor.middleMm + by - b.middleMm) < SNAP_MM) return { kind: 'h' };
    return { kind: 'through', ...at };
  }
  /** The line under the hand: tried at once, written down when it is let go. */
  protected async drag({ byMm, isDone }: { byMm: number; isDone: boolean }): Promise<void> {
    const input = this.input();
    const choice = this.chosen(byMm);
    if (!input || !choice) return;
    if (isDone) return this.put(choice);
    const tried = await this.search.drag({ ...input, stepMm: 30, curved: { ...input.curved, anchor: choice } });
    if (!tried?.ok || !this.input()) return;
    const { line, mesh, aboveMm, belowMm } = tried.value;
    const height = this.shown()!.anchor.middleMm + byMm;
    const text =
      choice.kind === 'h' ? `balanced: ${this.fine(belowMm)} from each edge` : `${this.f(height)}: ${this.fine(belowMm)} below, ${this.fine(aboveMm)} above`;
    this.tried.set({ line, mesh, aboveMm, belowMm, text });
  }
  protected put(anchor: AnchorChoice): void {
    const s = this.surface();
    if (!s?.curved) return;
    const round = (mm: number) => Math.round(mm * 10) / 10;
    const kept: AnchorChoice =
      anchor.kind === 'through'
        ? { kind: 'through', leftMm: round(anchor.leftMm), rightMm: round(anchor.rightMm) }
        : anchor.kind === 'forced'
          ? { kind: 'forced', leftMm: round(anchor.leftMm), middleMm: round(anchor.middleMm), rightMm: round(anchor.rightMm) }
          : anchor;
    void this.record.set(`Line of ${s.name}`, 'surface', s.id, { curved: { ...s.curved, anchor: kept } });
  }
  protected setKind(kind: string): void {
    const p = this.shown();
    if (!p) return;
    // from an arch on: at its own height a line of somebody's own would hardly lie on the pane
    const half = { leftMm: p.halfWay.heightMm, middleMm: p.halfWay.heightMm, rightMm: p.halfWay.heightMm };
    const { leftMm, middleMm, rightMm } = p.anchor.kind === 'arch' ? (p.balanced ?? half) : p.anchor;
    if (kind === 'arch' || kind === 'h') this.put({ kind });
    else if (kind === 'through') this.put({ kind: 'through', leftMm, rightMm });
    else if (kind === 'level') this.put({ kind: 'forced', leftMm: middleMm, middleMm, rightMm: middleMm });
    else if (kind.startsWith('wire')) {
      const at = Number(kind.slice(5));
      this.put({ kind: 'forced', leftMm: at, middleMm: at, rightMm: at });
    }
  }
  /** Heating lines that run across, as heights a line may follow. */
  protected readonly wires = computed(() => {
    const d = this.input()?.curved.defroster;
    return d?.way === 'across' ? Array.from({ length: d.count }, (_, i) => d.firstMm + i * d.spacingMm) : [];
  });
  protected readonly kind = computed(() => {
    const a = this.input()?.curved.anchor;
    if (!a || a.kind === 'balanced') return this.input()?.curved.seat === 'drop' ? 'arch' : 'h';
    if (a.kind !== 'forced') return a.kind;
    const wire = this.wires().find((w) => [a.leftMm, a.middleMm, a.rightMm].every((v) => Math.abs(v - w) < 0.5));
    return wire === undefined ? 'level' : `wire ${wire}`;
  });
  protected setHeight(side: 'leftMm' | 'middleMm' | 'rightMm', box: HTMLInputElement): void {
    const p = this.shown();
    const read = parseOffset(box.value, this.record.units());
    const ys = p?.finished.map((q) => q.y) ?? [];
    const [low, high] = [Math.min(...ys), Math.max(...ys)];
    const isOff = read.ok && (read.value.lengthMm < low || read.value.lengthMm > high);
    const message = !read.ok ? read.message : isOff ? `Between ${this.f(low)} and ${this.f(high)}: elsewhere there is no film.` : '';
    box.setCustomValidity(message);
    if (!read.ok || isOff || !p) return void box.reportValidity();
    const a = this.input()!.curved.anchor;
    const now = { leftMm: p.anchor.leftMm, middleMm: p.anchor.middleMm, rightMm: p.anchor.rightMm, [side]: read.value.lengthMm };
    if (side === 'middleMm') {
      const by = read.value.lengthMm - p.anchor.middleMm;
      if (a.kind === 'forced') this.put({ kind: 'forced', leftMm: now.leftMm + by, middleMm: now.middleMm, rightMm: now.rightMm + by });
      else void this.putThroughMiddle(read.value.lengthMm, p.anchor);
    } else
      this.put(
        a.kind === 'forced'
          ? { kind: 'forced', leftMm: now.leftMm, middleMm: now.middleMm, rightMm: now.rightMm }
          : { kind: 'through', leftMm: now.leftMm, rightMm: now.rightMm },
      );
  }
  /** A straight line sags between its ends, more or less as it is moved: its ends are set so that its middle lies where it was asked for. */
  private async putThroughMiddle(middleMm: number, from: ShrinkPlan['anchor']): Promise<void> {
    const input = this.input();
    if (!input) return;
    let [leftMm, rightMm] = [from.leftMm + middleMm - from.middleMm, from.rightMm + middleMm - from.middleMm];
    for (let i = 0; i < 2; i++) {
      const tried = await this.search.drag({ ...input, curved: { ...input.curved, anchor: { kind: 'through', leftMm, rightMm } } });
      if (!tried?.ok) break;
      const xs = input.outline.map((q) => q.x);
      const mid = (Math.min(...xs) + Math.max(...xs)) / 2;
      const near = tried.value.line.reduce((best, q) => (Math.abs(q.x - mid) < Math.abs(best.x - mid) ? q : best));
      [leftMm, rightMm] = [leftMm + middleMm - near.y, rightMm + middleMm - near.y];
    }
    this.put({ kind: 'through', leftMm, rightMm });
  }
  protected useSchool(school: FormingSchool): void {
    const s = this.surface();
    if (s?.curved) void this.record.set(`Forming of ${s.name}`, 'surface', s.id, { curved: { ...s.curved, school } });
  }
  protected useLubrication(lubrication: Lubrication): void {
    const s = this.surface();
    if (s?.curved) void this.record.set(`Forming of ${s.name}`, 'surface', s.id, { curved: { ...s.curved, lubrication } });
  }
  protected makeJobWay(forming: FormingSchool): void {
    const doc = this.record.doc();
    if (doc) void this.record.set('Forming of the job', 'job', doc.job.id, { lay: { ...(doc.job.lay ?? defaultLay), forming } });
  }
  protected readonly lubrication = computed<Lubrication>(
    () => this.input()?.curved.lubrication ?? this.record.doc()?.job.lay?.lubrication ?? this.shown()?.lubrications.find((l) => l.isRecommended)?.kind ?? 'wet',
  );
  protected readonly heights = computed(() => {
    const a = this.shown()?.anchor;
    const text = (mm: number) => formatLength(mm, this.record.units());
    if (!a) return [];
    return [
      { field: 'leftMm' as const, name: 'left', text: text(a.leftMm) },
      { field: 'middleMm' as const, name: 'middle', text: text(a.middleMm) },
      { field: 'rightMm' as const, name: 'right', text: text(a.rightMm) },
    ];
  });
}
