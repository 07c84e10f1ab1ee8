import { ChangeDetectionStrategy, Component, computed, input, output, signal, viewChildren, inject } from '@angular/core';
import type { MeasureKey, Reading, Pane } from '@yellow-pane/contracts';
import {
  bowKeys,
  cutLines,
  cutOutPath,
  designOnPane,
  flatten,
  isBow,
  measureTitle,
  oddLength,
  shapeModel,
  suspectText,
  tapeOrder,
  twoTapes,
  typicalNumbers,
  type Polygon,
  type Survey,
} from '@yellow-pane/core';
import { formatLength, type UnitSystem } from '@yellow-pane/core/ground';
import { hostSize } from '../../../kit/host-size';
import { LengthField, type TypedReading } from '../../../kit/length-field';
import { exaggerated, FIELD_W, layOpening, layShape } from './drawing-geometry';
import { PageMemo } from '../../../record/page-memo';

/** The opening true to scale with a field on every edge that is taped; Enter walks round as a person moves the tape. */
@Component({
  selector: 'yp-opening-drawing',
  imports: [LengthField],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <svg class="absolute inset-0 h-full w-full" role="img" [attr.aria-label]="description()">
      @if (!surface().shape) {
        <polygon [attr.points]="frame()" fill="#D8D2C2" />
      }
      <polygon
        [attr.points]="drawn().points"
        [attr.fill]="hasSize() ? '#FFF6DC' : '#FFFEFA'"
        stroke="#1C2226"
        [attr.stroke-width]="hasSize() ? 2 : 1"
        [attr.stroke-dasharray]="hasSize() ? null : '6 5'"
      />
      @if (designPath()) {
        <path [attr.d]="designPath()" fill="#B9CAD4" fill-opacity="0.75" fill-rule="evenodd" stroke="#3E6E8E" stroke-width="0.8" />
      }
      @for (c of cutOuts(); track $index) {
        <path [attr.d]="c" fill="#FFFEFA" stroke="#1C2226" stroke-width="1.5" />
      }
      @for (c of corners(); track c.name) {
        <text [attr.x]="c.x" [attr.y]="c.y" font-size="15" font-weight="700" text-anchor="middle">{{ c.name }}</text>
      }
      @for (alt of otherOutlines(); track $index) {
        <polygon [attr.points]="alt" fill="none" stroke="#1C2226" stroke-width="1.5" stroke-dasharray="2 5" />
      }
      @for (f of drawn().fields; track f.key) {
        @let active = f.key === activeKey();
        <line
          [attr.x1]="f.from.x"
          [attr.y1]="f.from.y"
          [attr.x2]="f.to.x"
          [attr.y2]="f.to.y"
          [attr.stroke]="active || isSuspect(f.key) ? '#1C2226' : f.isOutside ? '#56626A' : '#8B8672'"
          [attr.stroke-width]="active ? 2.5 : 1"
          [attr.stroke-dasharray]="f.isDiagonal ? '6 6' : null"
        />
        @if (f.isOutside) {
          <line
            [attr.x1]="f.from.x + tick(f).x"
            [attr.y1]="f.from.y + tick(f).y"
            [attr.x2]="f.from.x - tick(f).x"
            [attr.y2]="f.from.y - tick(f).y"
            stroke="#1C2226"
            stroke-width="1.5"
          />
          <line
            [attr.x1]="f.to.x + tick(f).x"
            [attr.y1]="f.to.y + tick(f).y"
            [attr.x2]="f.to.x - tick(f).x"
            [attr.y2]="f.to.y - tick(f).y"
            stroke="#1C2226"
            stroke-width="1.5"
          />
        }
      }
      @for (f of drawn().fields; track f.key) {
        @if (f.lead; as l) {
          <line data-lead [attr.x1]="f.x" [attr.y1]="f.y" [attr.x2]="l.x" [attr.y2]="l.y" stroke="#1C2226" stroke-width="1" />
          <circle [attr.cx]="l.x" [attr.cy]="l.y" r="2.5" fill="#1C2226" />
        }
      }
      <line [attr.x1]="24" [attr.x2]="24 + barPx()" [attr.y1]="size().h - 22" [attr.y2]="size().h - 22" stroke="#56626A" />
      <path [attr.d]="'M24 ' + (size().h - 27) + 'v10M' + (24 + barPx()) + ' ' + (size().h - 27) + 'v10'" stroke="#56626A" />
      <text [attr.x]="32 + barPx()" [attr.y]="size().h - 18" font-size="13" fill="#56626A" class="figure">{{ barText() }}</text>
      @if (otherOutlines().length) {
        <text [attr.x]="size().w - 16" [attr.y]="size().h - (size().w < 520 ? 3 : 18)" font-size="13" fill="#56626A" text-anchor="end">{{ otherText() }}</text>
      }
    </svg>
    @for (f of paneFields(); track f.id) {
      <yp-length-field
        class="absolute! -translate-x-1/2 -translate-y-1/2"
        [style.left.px]="f.x"
        [style.top.px]="f.y"
        [style.width.px]="fieldW"
        [attr.data-measure]="f.key"
        [label]="title(f.key)"
        [value]="textOf(f.key)"
        [units]="units()"
        [signed]="bow(f.key)"
        [doubtful]="isSuspect(f.key)"
        [inherited]="isInherited(f.key)"
        [placeholder]="bow(f.key) ? 'gap' : f.isOutside ? hintOf(f.key) : '–'"
        [hint]="typedHint(f.key)"
        [odd]="oddOf(f.key)"
        (focused)="activeKey.set(f.key)"
        (committed)="typed.emit({ key: f.key, reading: $event })"
        (cleared)="cleared.emit(f.key)"
        (next)="walk(f.key, $event)"
      />
    }
  `,
  host: { class: 'relative block h-full w-full overflow-hidden' },
})
export class OpeningDrawing {
  private readonly memo = inject(PageMemo);
  readonly surface = input.required<Pane>();
  readonly survey = input.required<Survey>();
  readonly readings = input.required<readonly Reading[]>();
  readonly keys = input.required<readonly MeasureKey[]>();
  readonly units = input.required<UnitSystem>();
  readonly mirrored = input(false);
  readonly times = input(1);
  /** Left side of this pane from the left side of the first of its row: a design runs on over them. */
  readonly offsetMm = input(0);
  readonly typed = output<{ key: MeasureKey; reading: TypedReading }>();
  readonly cleared = output<MeasureKey>();
  /** Enter on the last measure. */
  readonly finished = output<void>();

  readonly activeKey = signal<MeasureKey | null>(null);
  protected readonly size = hostSize({ w: 720, h: 560 });
  protected readonly fieldW = FIELD_W;
  private readonly fields = viewChildren(LengthField);

  /** Each field belongs to its pane: the next pane gets fields of its own, so that nothing typed here shows there. */
  protected readonly paneFields = computed(() => this.drawn().fields.map((f) => ({ ...f, id: `${this.surface().id}/${f.key}` })));
  protected readonly hasSize = computed(() => this.survey().outline !== null);
  /** How a pane that is not four-sided is drawn; null for a four-sided one. */
  private readonly model = computed(() => {
    const { shape } = this.surface();
    return shape ? { shape: shapeModel(shape), numbers: this.survey().adjustment?.shape ?? typicalNumbers(shape) } : null;
  });
  private readonly base = computed<Polygon>(() => {
    const m = this.model();
    if (m) return this.survey().outline ?? flatten(m.shape.outline(m.numbers));
    return (
      this.survey().outline ?? [
        { x: 0, y: 0 },
        { x: 900, y: 0 },
        { x: 900, y: 1100 },
        { x: 0, y: 1100 },
      ]
    );
  });
  private readonly outline = computed(() => (this.times() > 1 && !this.model() ? exaggerated(this.base(), this.times()) : this.base()));
  protected readonly drawn = computed(() => {
    const m = this.model();
    return m
      ? layShape(this.outline(), m.shape, m.numbers, this.keys(), this.size().w, this.size().h, this.mirrored())
      : layOpening(this.outline(), this.keys(), this.size().w, this.size().h, this.mirrored());
  });
  /** Letters at the corners of a polygon, a little inside. */
  protected readonly corners = computed(() => {
    const m = this.model();
    if (!m || this.surface().shape!.kind !== 'polygon') return [];
    const path = m.shape.outline(m.numbers);
    const c = { x: path.reduce((s, p) => s + p.x, 0) / path.length, y: path.reduce((s, p) => s + p.y, 0) / path.length };
    return path.map((p, i) => {
      const [at, mid] = [this.drawn().toPx(p), this.drawn().toPx(c)];
      const l = Math.hypot(mid.x - at.x, mid.y - at.y) || 1;
      return { name: 'ABCDEFGH'[i]!, x: at.x + ((mid.x - at.x) / l) * 18, y: at.y + ((mid.y - at.y) / l) * 18 + 5 };
    });
  });
  /** Handles and holes as they are placed from the edges. */
  protected readonly cutOuts = computed(() => {
    const outline = this.base();
    return this.surface().cutOuts.map((c) => {
      const points = flatten(cutOutPath(c, outline, 0)).map((p) => this.drawn().toPx(p));
      return `M${points.map((p) => `${p.x.toFixed(1)} ${p.y.toFixed(1)}`).join('L')}Z`;
    });
  });
  /** The frosted design as it lies on this pane; empty where there is none. */
  protected readonly designPath = computed(() => {
    const s = this.surface();
    const outline = this.survey().outline;
    if (!s.design || !outline || this.times() > 1) return '';
    const read = designOnPane(s.design, { outline, offsetMm: this.offsetMm(), sillMm: s.exposure?.heightAboveFloorMm ?? null }, this.memo);
    if (!read.ok) return '';
    return cutLines(read.value).map((ring) => `M${ring.map((p) => this.drawn().toPx(p)).map((p) => `${p.x.toFixed(1)} ${p.y.toFixed(1)}`).join('L')}Z`).join(''); // prettier-ignore
  });
  protected readonly frame = computed(() => {
    const box = this.outline();
    const m = 14 / this.drawn().scale;
    const xs = box.map((p) => p.x);
    const ys = box.map((p) => p.y);
    const [a, b, c, d] = [Math.min(...xs) - m, Math.max(...xs) + m, Math.min(...ys) - m, Math.max(...ys) + m];
    return [
      { x: a, y: c },
      { x: b, y: c },
      { x: b, y: d },
      { x: a, y: d },
    ]
      .map((p) => this.drawn().toPx(p))
      .map((p) => `${p.x.toFixed(1)},${p.y.toFixed(1)}`)
      .join(' ');
  });
  /** The opening as the second explanation has it. */
  protected readonly otherOutlines = computed(() => {
    const first = this.survey().possibleOutlines[0];
    const second = this.survey().possibleOutlines[1];
    if (!first || !second) return [];
    const shown = this.times() > 1 && second.length === 4 ? exaggerated(second, this.times()) : second;
    return [
      shown
        .map((p) => this.drawn().toPx(p))
        .map((p) => `${p.x.toFixed(1)},${p.y.toFixed(1)}`)
        .join(' '),
    ];
  });
  protected readonly otherText = computed(() => {
    const second = this.survey().suspects.filter((s) => s.hypothesis.kind !== 'no-slip')[1];
    return second ? `dotted: ${suspectText(second, this.units(), this.surface().shape)}` : '';
  });
  private readonly barMm = computed(() => {
    const steps = this.units() === 'mm' ? [50, 100, 200, 500, 1000] : [50.8, 101.6, 203.2, 508, 1016];
    return steps.find((s) => s * this.drawn().scale > 70) ?? steps.at(-1)!;
  });
  protected readonly barPx = computed(() => this.barMm() * this.drawn().scale);
  protected readonly barText = computed(
    () => formatLength(this.barMm(), this.units()) + (this.units() === 'mm' ? ' mm' : '') + (this.times() > 1 ? `, crookedness ×${this.times()}` : ''),
  );
  protected readonly description = computed(() => `${this.surface().name}, drawn to scale${this.times() > 1 ? ', crookedness drawn larger' : ''}`);

  private of = (key: MeasureKey): Reading | undefined => this.readings().find((r) => r.measure === key);
  protected title = (key: MeasureKey): string => measureTitle(key, this.surface().shape);
  protected bow = isBow;
  protected hintOf = (key: MeasureKey): string => (this.model() ? (key.length === 2 ? key : '–') : key.startsWith('width') ? 'width' : 'height');
  /** What was typed stays as typed while it is in the shown unit. */
  protected textOf(key: MeasureKey): string {
    const r = this.of(key);
    if (!r) return '';
    return r.unit === this.units() ? r.typed : formatLength(r.lengthMm, this.units());
  }
  protected typedHint(key: MeasureKey): string | null {
    const r = this.of(key);
    return r ? `typed ${r.typed}${this.isInherited(key) ? ', taped at the pane it is like' : ''}` : null;
  }
  /** One question a measure, kept so that it stays the same one. */
  private readonly odds = computed(() => ({ system: this.units(), byKey: new Map<MeasureKey, (lengthMm: number) => string | null>() }));
  protected oddOf(key: MeasureKey): (lengthMm: number) => string | null {
    const { system, byKey } = this.odds();
    if (!byKey.has(key)) byKey.set(key, (mm) => oddLength(key, mm, system));
    return byKey.get(key)!;
  }
  protected isInherited = (key: MeasureKey): boolean => (this.of(key)?.surfaceId ?? this.surface().id) !== this.surface().id;
  protected isSuspect(key: MeasureKey): boolean {
    if (this.survey().impossible.includes(key)) return true;
    // left out by signature: what it says does not count
    const believed = this.survey().believed?.hypothesis;
    if (believed?.kind === 'slip' && believed.measure === key) return true;
    return this.survey()
      .suspects.slice(0, 3)
      .some((s) => (s.hypothesis.kind === 'slip' && s.hypothesis.measure === key) || (s.hypothesis.kind === 'swapped' && s.hypothesis.measures.includes(key)));
  }
  protected tick(f: { from: { x: number; y: number }; to: { x: number; y: number } }): { x: number; y: number } {
    const dx = f.to.x - f.from.x;
    const dy = f.to.y - f.from.y;
    const l = Math.hypot(dx, dy) || 1;
    return { x: (-dy / l) * 6, y: (dx / l) * 6 };
  }

  /** Puts the hand on a measure. */
  focusOn(key: MeasureKey): void {
    setTimeout(() => {
      const at = this.drawn().fields.findIndex((f) => f.key === key);
      this.fields()[at]?.focus();
    });
  }

  /** On to the next measure in walking order. */
  walk(from: MeasureKey, back: boolean): void {
    const m = this.model();
    const order: MeasureKey[] = (m ? [...m.shape.keys] : [...twoTapes, ...tapeOrder, ...bowKeys]).filter((k) => this.keys().includes(k));
    const next = order[order.indexOf(from) + (back ? -1 : 1)];
    if (next) this.focusOn(next);
    else if (!back) this.finished.emit();
  }
}
