import { ChangeDetectionStrategy, Component, computed, type ElementRef, inject, signal, viewChild } from '@angular/core';
import {
  newPane,
  newSurface,
  surfaceKindNames,
  type Pane,
  type Patch,
  type Place,
  type Surface,
  type SurfaceKind,
  type SurfaceOf,
} from '@yellow-pane/contracts';
import { boundingBox, type Polygon } from '@yellow-pane/core/geometry';
import { v7 as uuidv7 } from 'uuid';
import { JobProgress } from '../record/progress';
import { RecordStore } from '../record/record.store';
import { DragRow } from './drag-row';

interface DrawnPane {
  readonly surface: Surface;
  readonly widthPx: number;
  readonly heightPx: number;
  readonly look: string;
  readonly label: string;
  readonly mark: string;
  /** Of a pane that is not four-sided: its silhouette as a clip and as points. */
  readonly clip: string | null;
  readonly outline: string | null;
  /** On which side of a door its handle is drawn. */
  readonly handle: 'left' | 'right' | null;
  /** Lines of a sign as bars, in shares of its ground from its top left. */
  readonly bars: readonly Bar[];
}
interface Bar {
  readonly left: number;
  readonly top: number;
  readonly wide: number;
  readonly high: number;
}
interface DrawnPlace {
  readonly place: Place;
  readonly rows: readonly (readonly DrawnPane[])[];
  readonly count: number;
}

/** Room the widest elevation may take, px. */
const STRIP_PX = 202;
const TALLEST_PX = 74;
/** So many panes a hand can tell apart beside one another. */
const IN_LINE = 8;

/** The job's surfaces in walking order, each place as a small elevation: this is the navigation. */
@Component({
  selector: 'yp-rooms',
  imports: [DragRow],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <nav aria-label="Rooms" class="flex h-full w-full flex-col">
      <div class="min-h-0 flex-1 overflow-y-auto px-3.5 pt-3 pb-4" tabindex="-1">
        @if (findOpen()) {
          <input
            #find
            class="field mb-2"
            type="search"
            placeholder="Find a pane"
            aria-label="Find a pane"
            (input)="query.set(find.value)"
            (keydown.enter)="pickFirst()"
            (keydown.escape)="closeFind()"
          />
        }
        @for (p of drawn(); track p.place.id) {
          <section class="mb-3">
            <h2 class="mb-1 flex items-baseline justify-between gap-2 text-sm font-bold text-soft">
              @if (renaming() === p.place.id) {
                <input
                  #newName
                  class="field"
                  maxlength="80"
                  aria-label="Name of the room"
                  [value]="p.place.name"
                  (keydown.enter)="rename(p.place, newName.value)"
                  (keydown.escape)="$event.stopPropagation(); renaming.set(null)"
                  (blur)="rename(p.place, newName.value)"
                />
              } @else {
                <button type="button" class="truncate text-left" (click)="startRename(p.place)" title="Rename this room">{{ p.place.name }}</button>
              }
              <span class="figure font-normal">{{ p.count }}</span>
            </h2>
            <div class="border border-hair bg-card p-1.5">
              @for (row of p.rows; track $index) {
                <div class="flex flex-wrap items-end gap-px pb-[2px]" ypDragRow (moved)="reorder(p, row, $event)">
                  @for (d of row; track d.surface.id) {
                    <button
                      type="button"
                      class="flex min-h-6 min-w-6 items-end justify-center"
                      [attr.data-surface]="d.surface.name"
                      [attr.aria-label]="d.label"
                      [attr.aria-current]="d.surface.id === record.selectedId() ? 'true' : null"
                      [attr.title]="d.label"
                      (click)="record.select(d.surface.id)"
                    >
                      <span
                        class="relative block border text-center text-xs leading-none font-bold"
                        [class]="d.look"
                        [style.width.px]="d.widthPx"
                        [style.height.px]="d.heightPx"
                        [style.clip-path]="d.clip"
                        [style.border-color]="d.clip ? 'transparent' : null"
                        >{{ d.mark }}
                        @if (d.handle) {
                          <span class="absolute top-[48%] size-[5px] rounded-full bg-ink" [class]="d.handle === 'left' ? 'left-[2px]' : 'right-[2px]'"></span>
                        }
                        @for (b of d.bars; track $index) {
                          <span
                            class="absolute bg-ink/40"
                            data-bar
                            [style.left.%]="100 * b.left"
                            [style.top.%]="100 * b.top"
                            [style.width.%]="100 * b.wide"
                            [style.height.%]="100 * b.high"
                          ></span>
                        }
                        @if (d.outline) {
                          <svg
                            class="absolute -inset-px"
                            [attr.viewBox]="'0 0 ' + d.widthPx + ' ' + d.heightPx"
                            [attr.width]="d.widthPx"
                            [attr.height]="d.heightPx"
                            aria-hidden="true"
                          >
                            <polygon
                              [attr.points]="d.outline"
                              fill="none"
                              stroke="#1C2226"
                              [attr.stroke-width]="d.surface.id === record.selectedId() ? 3.5 : 2"
                            />
                          </svg>
                        }
                      </span>
                    </button>
                  }
                </div>
              }
              @if (p.count === 0) {
                <p class="p-1 text-sm text-soft">No pane yet. Press n.</p>
              }
            </div>
          </section>
        }
      </div>
      <div class="grid grid-cols-2 gap-1.5 border-t border-hair p-2 text-sm">
        <button type="button" class="btn px-1!" (click)="addPane()">New pane</button>
        <button type="button" class="btn px-1!" [disabled]="!record.surface()" (click)="addLike()">One like it</button>
        <button type="button" class="btn px-1!" [disabled]="!record.pane()" (click)="gridOpen.set(!gridOpen())" [attr.aria-expanded]="gridOpen()">
          Bars r × c
        </button>
        <button type="button" class="btn px-1!" (click)="addPlace()">New room</button>
        <button type="button" class="btn px-1!" (click)="addKind('column')">New column</button>
        <button type="button" class="btn px-1!" (click)="addKind('panel')">New door</button>
        <button type="button" class="btn px-1!" (click)="addKind('wall')">New wall</button>
        <button type="button" class="btn px-1!" (click)="addKind('counter')">New counter</button>
        <button type="button" class="btn px-1!" (click)="addKind('sign')">New sign</button>
        @if (gridOpen()) {
          <form class="col-span-2 flex items-center gap-1" (submit)="$event.preventDefault(); addGrid(+rows.value, +columns.value)">
            <input #rows class="field figure" type="number" min="1" max="12" value="2" aria-label="Rows of panes" /> ×
            <input #columns class="field figure" type="number" min="1" max="20" value="3" aria-label="Panes in a row" />
            <button class="btn btn-ink px-2!">Make</button>
          </form>
        }
      </div>
    </nav>
  `,
})
export class Rooms {
  protected readonly record = inject(RecordStore);
  private readonly progress = inject(JobProgress);
  protected readonly gridOpen = signal(false);
  protected readonly findOpen = signal(false);
  protected readonly query = signal('');
  protected readonly renaming = signal<string | null>(null);
  private readonly newName = viewChild<ElementRef<HTMLInputElement>>('newName');
  private readonly find = viewChild<ElementRef<HTMLInputElement>>('find');

  protected readonly drawn = computed<DrawnPlace[]>(() => {
    const doc = this.record.doc();
    if (!doc) return [];
    const query = this.query().trim().toLowerCase();
    const hit = (s: Surface) => query === '' || s.name.toLowerCase().includes(query);
    return doc.places.map((place) => {
      const own = doc.surfaces.filter((s) => s.placeId === place.id && hit(s));
      const rows: Surface[][] = [];
      for (const s of own) {
        const last = rows.at(-1);
        const before = last?.at(-1);
        const sameRow = before && isOneRow(before, s);
        if (last && sameRow) last.push(s);
        else rows.push([s]);
      }
      const sizes = new Map(own.map((s) => [s.id, this.sizeOf(s)]));
      // a long row goes on in the next line: it is the widest line that has to fit
      const lines = rows.flatMap((r) => Array.from({ length: Math.ceil(r.length / IN_LINE) }, (_, i) => r.slice(IN_LINE * i, IN_LINE * (i + 1))));
      const widest = Math.max(1, ...lines.map((r) => r.reduce((w, s) => w + sizes.get(s.id)!.w, 0)));
      const most = Math.max(1, ...lines.map((r) => r.length));
      const tallest = Math.max(1, ...own.map((s) => sizes.get(s.id)!.h));
      let scale = Math.min((STRIP_PX - most) / widest, TALLEST_PX / tallest);
      // a hand needs 24 px to hit a narrow pane: the others give way
      const taken = (r: Surface[]) => r.reduce((w, s) => w + Math.max(24, sizes.get(s.id)!.w * scale) + 1, 0);
      for (let i = 0; i < 40 && lines.some((r) => taken(r) > STRIP_PX); i++) scale *= 0.95;
      return { place, count: own.length, rows: rows.map((r) => r.map((s) => this.drawPane(s, sizes.get(s.id)!, scale))) };
    });
  });

  private sizeOf(s: Surface): { w: number; h: number } {
    const outline = this.progress.bySurface().get(s.id)?.survey.outline;
    if (!outline) return untaped[s.kind];
    const xs = outline.map((p) => p.x);
    const ys = outline.map((p) => p.y);
    return { w: Math.max(...xs) - Math.min(...xs), h: Math.max(...ys) - Math.min(...ys) };
  }

  private drawPane(surface: Surface, size: { w: number; h: number }, scale: number): DrawnPane {
    const p = this.progress.bySurface().get(surface.id);
    const selected = surface.id === this.record.selectedId();
    const film = this.record.doc()?.films.find((f) => f.id === surface.filmId);
    const state = p?.isLaid
      ? 'laid'
      : p?.isCut
        ? 'cut'
        : p?.isDoubtful
          ? 'tapes disagree'
          : p?.isMeasured
            ? 'measured'
            : p
              ? 'not measured'
              : 'being worked out';
    const fill = selected
      ? 'bg-hand border-ink border-2'
      : p?.isLaid
        ? 'bg-proof border-proof text-card'
        : p?.isCut
          ? 'bg-proof-tint border-proof'
          : p?.isDoubtful
            ? 'bg-tint border-ink'
            : p?.isMeasured
              ? `border-ink bg-card ${film ? `hatch-${film.hatch}` : ''}`
              : p
                ? 'border-dashed border-field bg-card'
                : 'border-hair bg-card';
    const [widthPx, heightPx] = [Math.max(5, size.w * scale), Math.max(5, size.h * scale)];
    const shape = hasOwnOutline[surface.kind](surface) ? silhouette(p?.survey.outline ?? null) : null;
    return {
      surface,
      widthPx,
      heightPx,
      clip: shape && `polygon(${shape.map((q) => `${(q.x * 100).toFixed(1)}% ${(q.y * 100).toFixed(1)}%`).join(',')})`,
      outline: shape && shape.map((q) => `${(q.x * widthPx).toFixed(1)},${(q.y * heightPx).toFixed(1)}`).join(' '),
      look: fill,
      handle: handleOf[surface.kind](surface),
      bars: barsOf[surface.kind](surface, size),
      label: `${surface.name}, ${state}${film ? '' : ', no film'}`,
      mark: p?.isDoubtful ? '?' : p?.isLaid || p?.isCut ? '✓' : '',
    };
  }

  focusFind(): void {
    this.findOpen.set(true);
    setTimeout(() => this.find()?.nativeElement.focus());
  }
  protected closeFind(): void {
    this.findOpen.set(false);
    this.query.set('');
  }
  protected pickFirst(): void {
    const first = this.drawn().flatMap((p) => p.rows.flat())[0];
    if (first) this.record.select(first.surface.id);
    this.closeFind();
  }

  private freshPane(more: Partial<Omit<Pane, 'kind'>>, name: string): Pane {
    const doc = this.record.doc()!;
    const here = this.record.pane();
    const alike: Partial<Pane> = here
      ? {
          sizeKind: here.sizeKind,
          frame: here.frame,
          seenFrom: here.seenFrom,
          filmFace: here.filmFace,
          filmId: here.filmId,
          glazing: here.glazing,
          exposure: here.exposure,
        }
      : {};
    return newPane({ id: uuidv7(), jobId: doc.job.id, placeId: this.placeHere(), name, order: this.lastOrder() + 1, ...alike, ...more });
  }

  private lastOrder(): number {
    return Math.max(0, ...this.record.doc()!.surfaces.map((s) => s.order));
  }
  private placeHere(): string {
    return this.record.surface()?.placeId ?? this.record.doc()!.places[0]!.id;
  }
  private nextName(kind: SurfaceKind = 'pane'): string {
    const names = new Set(this.record.doc()?.surfaces.map((s) => s.name));
    const word = firstNames[kind];
    for (let n = kind === 'pane' ? names.size + 1 : 1; ; n++) if (!names.has(`${word} ${n}`)) return `${word} ${n}`;
  }

  /** A surface that is no pane of glass. */
  protected async addKind(kind: SurfaceKind): Promise<void> {
    if (!this.record.doc()?.places.length) await this.addPlace();
    const s = newSurface(kind, {
      id: uuidv7(),
      jobId: this.record.doc()!.job.id,
      placeId: this.placeHere(),
      name: this.nextName(kind),
      order: this.lastOrder() + 1,
    });
    await this.add(`New ${surfaceKindNames[kind]}`, [s]);
  }

  async addPane(): Promise<void> {
    if (!this.record.doc()?.places.length) await this.addPlace();
    await this.add('New pane', [this.freshPane({}, this.nextName())]);
  }

  async addLike(): Promise<void> {
    const like = this.record.surface();
    if (!like) return;
    const own = {
      id: uuidv7(),
      name: this.nextName(like.kind),
      measuredLikeId: like.measuredLikeId ?? like.id,
      extraPieces: [],
      servedById: null,
      signed: null,
      order: this.lastOrder() + 1,
    };
    // neither the bars nor the corner of the one it is like are its own
    await this.add('One like it', [{ ...like, ...own, ...standsAlone[like.kind] } as Surface]);
  }

  /** Turns the selected pane into the first of a field of equal panes between glazing bars. */
  protected async addGrid(rows: number, columns: number): Promise<void> {
    const like = this.record.pane();
    const doc = this.record.doc();
    if (!like || !doc || !(rows * columns > 1) || rows * columns > 200) return;
    const groupId = uuidv7();
    const patches: Patch[] = [{ op: 'set', kind: 'surface', id: like.id, field: 'grid', value: { groupId, row: 0, column: 0 } }];
    for (let i = 1; i < rows * columns; i++) {
      const s = this.freshPane(
        {
          ...like,
          id: uuidv7(),
          name: `${like.name}.${i + 1}`,
          grid: { groupId, row: Math.floor(i / columns), column: i % columns },
          measuredLikeId: like.id,
          extraPieces: [],
          signed: null,
          order: like.order + i / 1000,
        },
        '',
      );
      patches.push({ op: 'add', kind: 'surface', id: s.id, value: s });
    }
    this.gridOpen.set(false);
    await this.record.change(`${rows} × ${columns} panes between bars`, patches);
  }

  protected async addPlace(): Promise<void> {
    const doc = this.record.doc()!;
    const place: Place = {
      id: uuidv7(),
      jobId: doc.job.id,
      name: `Room ${doc.places.length + 1}`,
      order: Math.max(0, ...doc.places.map((p) => p.order)) + 1,
      deletedAt: null,
    };
    await this.record.change('New room', [{ op: 'add', kind: 'place', id: place.id, value: place }]);
    const s = this.freshPane({ placeId: place.id }, this.nextName());
    await this.add('New pane', [s]);
  }

  protected startRename(place: Place): void {
    this.renaming.set(place.id);
    setTimeout(() => this.newName()?.nativeElement.select());
  }
  /** Enter or leaving the field takes the name; an empty one leaves the old. */
  protected rename(place: Place, typed: string): void {
    if (this.renaming() !== place.id) return;
    this.renaming.set(null);
    const name = typed.trim().slice(0, 80);
    if (name && name !== place.name) void this.record.set('Rename a room', 'place', place.id, { name });
  }

  private async add(label: string, surfaces: Surface[]): Promise<void> {
    const done = this.record.change(
      label,
      surfaces.map((s): Patch => ({ op: 'add', kind: 'surface', id: s.id, value: s })),
    );
    this.record.select(surfaces[0]!.id);
    await done;
  }

  /** Puts the dragged pane where it was dropped in the walk. */
  protected async reorder(place: DrawnPlace, panes: readonly DrawnPane[], { from, to }: { from: number; to: number }): Promise<void> {
    const row = panes.map((d) => d.surface);
    if (from === to) return;
    const orders = row.map((s) => s.order);
    const moved = [...row];
    moved.splice(to, 0, ...moved.splice(from, 1));
    const patches = moved.flatMap((s, i): Patch[] =>
      s.order === orders[i] ? [] : [{ op: 'set', kind: 'surface', id: s.id, field: 'order', value: orders[i] }],
    );
    await this.record.change(`Another order in ${place.place.name}`.slice(0, 120), patches);
  }
}

/** Where what swings has its handle: on the side that its hinges are not. */
const handleOf: { readonly [K in SurfaceKind]: (s: Surface) => 'left' | 'right' | null } = {
  pane: () => null,
  column: () => null,
  panel: (s) => (s.kind !== 'panel' || s.hinges === 'none' ? null : s.hinges === 'left' ? 'right' : 'left'),
  wall: () => null,
  counter: () => null,
  sign: () => null,
};
/** A letter is about so wide for its height; at this size a line of letters is a bar. @source house figure */
const LETTER_WIDE = 0.7;
/** Lines of a sign as they are seen from far off. */
function barsOfSign({ lines }: SurfaceOf<'sign'>, size: { readonly w: number; readonly h: number }): Bar[] {
  return lines.map((line) => {
    const widthMm = line.heightMm * (line.is === 'letters' ? LETTER_WIDE * line.text.length : 1);
    const leftMm = line.atMm - widthMm * { left: 0, middle: 0.5, right: 1 }[line.align];
    const [left, top] = [Math.max(0, leftMm / size.w), Math.max(0, 1 - (line.baselineMm + line.heightMm) / size.h)];
    return { left, top, wide: Math.min(1 - left, widthMm / size.w), high: Math.min(1 - top, line.heightMm / size.h) };
  });
}

const noBars = (): Bar[] => [];
/** What stands on a surface, as bars. */
const barsOf: { readonly [K in SurfaceKind]: (s: Surface, size: { readonly w: number; readonly h: number }) => Bar[] } = {
  pane: noBars,
  column: noBars,
  panel: noBars,
  wall: noBars,
  counter: noBars,
  sign: (s, size) => (s.kind === 'sign' ? barsOfSign(s, size) : []),
};
/** How large what nobody has taped yet is drawn, mm. */
const untaped: { readonly [K in SurfaceKind]: { readonly w: number; readonly h: number } } = {
  pane: { w: 800, h: 1000 },
  column: { w: 400, h: 2500 },
  panel: { w: 860, h: 2040 },
  wall: { w: 3000, h: 2500 },
  counter: { w: 2000, h: 650 },
  sign: { w: 2000, h: 600 },
};

/** What a new surface of each kind is called, with a number. */
/** One like another belongs to no row of its neighbours yet. */
const standsAlone: { readonly [K in SurfaceKind]: Partial<SurfaceOf<K>> } = { pane: { grid: null }, column: {}, panel: { besideId: null }, wall: { nextId: null }, counter: { besideId: null }, sign: {} }; // prettier-ignore
const firstNames: { readonly [K in SurfaceKind]: string } = { pane: 'Pane', column: 'Column', panel: 'Door', wall: 'Wall', counter: 'Counter', sign: 'Sign' };

/** Whether a surface is drawn by its own outline; four-sided panes are boxes. */
const hasOwnOutline: { readonly [K in SurfaceKind]: (s: Surface) => boolean } = {
  pane: (s) => s.kind === 'pane' && s.shape !== null,
  column: () => true,
  panel: () => false,
  wall: () => true,
  counter: () => true,
  sign: () => false,
};

/** Whether two neighbours stand in one row: panes between glazing bars in theirs, anything else beside anything. */
function isOneRow(a: Surface, b: Surface): boolean {
  const [one, other] = [a.kind === 'pane' ? a.grid : null, b.kind === 'pane' ? b.grid : null];
  return !one || !other || (one.groupId === other.groupId && one.row === other.row);
}

/** An outline as shares of its box, y down. */
function silhouette(outline: Polygon | null): Polygon | null {
  if (!outline) return null;
  const box = boundingBox(outline);
  return outline.map((p) => ({ x: (p.x - box.minX) / (box.maxX - box.minX), y: (box.maxY - p.y) / (box.maxY - box.minY) }));
}
