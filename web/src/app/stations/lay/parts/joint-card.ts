import { ChangeDetectionStrategy, Component, computed, DestroyRef, effect, inject, input, signal, untracked } from '@angular/core';
import type { Wall } from '@yellow-pane/contracts';
import { stretchLimitOf } from '@yellow-pane/core/form';
import { formatRough, uncapital } from '@yellow-pane/core/ground';
import {
  airWay,
  beforePanelWords,
  defaultLay,
  factorOf,
  fitWords,
  heatCaseOf,
  heatTrialOf,
  jointFit,
  jointName,
  mindsOfPanel,
  minutesOfPlaces,
  planHeat,
  plainStroke,
  replayJoints,
  setFirstWords,
  texturedWallOf,
  usualTools,
  verdictWords,
  walkWords,
  zoneDoing,
  otherEndWords,
  panelName,
  panelShort,
  zoneName,
  type HeatAim,
  type JointStroke,
  type PanelZones,
  type WallZone,
} from '@yellow-pane/core/lay';
import { JointsSearch } from '../../../compute/joints-search';
import { Why } from '../../../kit/why';
import { RecordStore } from '../../../record/record.store';
import { LayStore } from '../lay.store';
import { JointDrawing } from './joint-drawing';

/** Strokes a second while an order is shown by itself. */
const SPEEDS = [1, 4, 12] as const;

/** A textured wall place by place: lanes over faces, joints in an order in which air always has a way out, the border last; the order shown, judged, made by hand. */
@Component({
  selector: 'yp-joint-card',
  imports: [JointDrawing, Why],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    @if (wall(); as w) {
      <section class="my-2 border-2 border-ink bg-card p-2.5" aria-label="Faces and joints" data-joint-card>
        <div class="flex flex-wrap items-center gap-1.5">
          <p class="cap mr-auto">Faces and joints</p>
          @if (w.panels.length > 1) {
            @for (p of w.panels; track p.number) {
              <button
                type="button"
                class="btn min-h-11 px-3! md:min-h-8"
                [class.bg-hand!]="p.number === number()"
                [attr.aria-pressed]="p.number === number()"
                [attr.aria-label]="panelName(p.number) + (isDone(p.number) ? ', done' : '')"
                (click)="picked.set(p.number)"
              >
                {{ panelShort(p.number) }}{{ isDone(p.number) ? ' ✓' : '' }}
              </button>
            }
          }
        </div>
        @if (here(); as p) {
          <div class="mt-1.5 grid grid-cols-3 gap-1.5" role="group" aria-label="What is shown">
            @for (m of modes; track m.id) {
              <button
                type="button"
                class="btn min-h-11 md:min-h-8"
                [class.bg-hand!]="mode() === m.id"
                [attr.aria-pressed]="mode() === m.id"
                (click)="mode.set(m.id)"
              >
                {{ m.name }}
              </button>
            }
          </div>
          @switch (mode()) {
            @case ('place') {
              @if (next(); as z) {
                <p class="mt-2 text-xl leading-tight font-bold" data-zone>{{ name(z) }}</p>
                <p class="text-sm text-soft">{{ placeText() }}</p>
                @if (isPair()) {
                  <div class="mt-1 grid grid-cols-2 gap-1.5" role="group" aria-label="Which of the two you are" data-pair>
                    @for (h of people; track h) {
                      <button
                        type="button"
                        class="btn min-h-11 md:min-h-8"
                        [class.bg-hand!]="hand() === h"
                        [attr.aria-pressed]="hand() === h"
                        (click)="hand.set(h)"
                      >
                        I am on the {{ h }}
                      </button>
                    }
                  </div>
                }
                @if (isAlone()) {
                  <p class="mt-1 border-l-4 border-ink bg-tint px-2 py-1 text-[15px]">
                    One person here: however this one is parted, one of two would shut the other’s air in.
                  </p>
                }
                @if (over(); as words) {
                  <p class="mt-1 border-l-4 border-ink bg-tint px-2 py-1 text-[15px]">{{ words }}</p>
                }
                <yp-joint-drawing
                  class="mx-auto mt-1 max-w-[420px] [&_svg]:max-h-[330px]"
                  [panel]="p.panel"
                  [box]="z"
                  [done]="p.done"
                  [strokes]="z.strokes"
                  [lanes]="z.lanes"
                  [rollerMm]="rollerMm"
                  [trapped]="trappedHere()"
                  [pierces]="p.pierces"
                  [label]="name(z)"
                />
                <ol class="mt-1 list-decimal pl-6 text-[17px] leading-snug">
                  @for (d of doing(); track $index) {
                    <li>{{ d }}</li>
                  }
                </ol>
                @for (m of minds(); track $index) {
                  <p class="mt-1 border-l-4 border-harm bg-harm-tint px-2 py-1 text-[15px]" data-mind>{{ m }}</p>
                }
              } @else {
                <p class="mt-2 text-xl leading-tight font-bold" role="status" data-zone>
                  {{ w.panels.length > 1 ? panelName(p.panel.number) + ' is pressed' : 'All of it is pressed' }}
                </p>
                @for (m of minds(); track $index) {
                  <p class="mt-1 border-l-4 border-harm bg-harm-tint px-2 py-1 text-[15px]" data-mind>{{ m }}</p>
                }
                @if (nextDrop(); as n) {
                  <button type="button" class="btn mt-2 min-h-12 w-full text-lg" (click)="picked.set(n)">On to {{ uncapital(panelName(n)) }}</button>
                }
              }
              <details class="mt-2">
                <summary class="cap min-h-11 cursor-pointer py-2.5 md:min-h-9 md:py-1.5">
                  All places{{ p.left.length ? ', ' + p.left.length + ' left' : '' }}
                </summary>
                <ol class="grid gap-1 text-[15px]">
                  @for (z of p.left; track $index) {
                    <li class="flex min-h-11 items-center gap-2 border px-2 md:min-h-9" [class]="z === next() ? 'border-ink bg-tint' : 'border-hair'">
                      <span class="min-w-0 flex-1 leading-tight">{{ name(z) }}</span>
                      <span class="figure text-sm text-soft">{{ minutesText(z) }}</span>
                      @if (z !== next()) {
                        <button type="button" class="btn px-2! text-sm" [attr.data-already]="$index" (click)="zoneDone(z)">I did this one already</button>
                      }
                    </li>
                  }
                </ol>
              </details>
            }
            @case ('replay') {
              <yp-joint-drawing
                class="mx-auto mt-2 max-w-[420px] [&_svg]:max-h-[330px]"
                [panel]="p.panel"
                [done]="replayed()"
                [strokes]="inHand()"
                [firstNumber]="at()"
                [now]="at()"
                [trapped]="trappedSoFar()"
                [air]="air()"
                [label]="replayText()"
              />
              <p class="text-[15px]" role="status" data-replay>{{ replayText() }}</p>
              <input
                type="range"
                class="mt-1 h-11 w-full md:h-8"
                min="0"
                [max]="order().length"
                step="1"
                [value]="at()"
                aria-label="Strokes done"
                #bar
                (input)="scrub(bar.valueAsNumber)"
              />
              <div class="flex flex-wrap gap-1.5">
                <button type="button" class="btn min-h-11 flex-1 md:min-h-9" (click)="play()">{{ isPlaying() ? 'Stop' : 'Play' }}</button>
                <button type="button" class="btn min-h-11 md:min-h-9" [disabled]="at() === 0" (click)="scrub(at() - 1)">One back</button>
                <button type="button" class="btn min-h-11 md:min-h-9" [disabled]="at() === order().length" (click)="scrub(at() + 1)">One on</button>
                <label class="flex items-center gap-1 text-sm"
                  >Strokes a second
                  <select class="field min-h-11 md:min-h-9" #fast (change)="speed.set(+fast.value)">
                    @for (v of speeds; track v) {
                      <option [value]="v" [selected]="v === speed()">{{ v }}</option>
                    }
                  </select></label
                >
              </div>
            }
            @case ('own') {
              <yp-joint-drawing
                class="mx-auto mt-2 max-w-[420px] [&_svg]:max-h-[330px]"
                [panel]="p.panel"
                [done]="own()"
                [strokes]="own()"
                [now]="own().length"
                [trapped]="ownTrapped()"
                [pickable]="true"
                [label]="'Joints to press in an order of your own. Arrows go from joint to joint, Enter presses, Shift and Enter the other way, Backspace takes back.'"
                (pressed)="pressOwn($event)"
                (takenBack)="ownBack()"
              />
              <p class="text-[15px]" role="status" [class]="ownTrapped().length ? 'border-l-4 border-harm bg-harm-tint px-2 py-1' : ''" data-own-verdict>
                {{ ownText() }}
              </p>
              <div class="mt-1 flex gap-1.5">
                <button type="button" class="btn min-h-11 flex-1 md:min-h-9" [disabled]="own().length === 0" (click)="ownBack()">Take one back</button>
                <button type="button" class="btn min-h-11 flex-1 md:min-h-9" [disabled]="own().length === 0" (click)="own.set([])">Begin anew</button>
              </div>
            }
          }
          <yp-why [lines]="why()" />
        } @else {
          <p class="mt-2 text-lg" role="status">Looking for an order in which air always has a way out …</p>
        }
      </section>
    }
  `,
})
export class JointCard {
  readonly surface = input.required<Wall>();
  private readonly record = inject(RecordStore);
  private readonly lay = inject(LayStore);
  private readonly search = inject(JointsSearch);
  protected readonly modes = [
    { id: 'place', name: 'Place by place' },
    { id: 'replay', name: 'See the order' },
    { id: 'own', name: 'Try your own' },
  ] as const;
  protected readonly mode = signal<(typeof this.modes)[number]['id']>('place');
  protected readonly speeds = SPEEDS;
  protected readonly people = ['left', 'right'] as const;
  protected readonly rollerMm = usualTools.rollerMm;

  protected readonly wall = computed(() => {
    const doc = this.record.records();
    return doc ? texturedWallOf(this.surface(), doc) : null;
  });
  protected panelName(number: number): string {
    return panelName(this.wall()?.panels ?? [], number);
  }
  protected panelShort(number: number): string {
    return panelShort(this.wall()?.panels ?? [], number);
  }
  protected readonly uncapital = uncapital;
  private readonly logged = computed(() => this.lay.lines().flatMap((e) => (e.kind === 'zone-done' && e.zone ? [e.zone] : [])).reverse()); // prettier-ignore
  /** Speeds of the gun by its own plan for this film and wall, where there is one. */
  private readonly tools = computed(() => {
    const doc = this.record.records();
    const c = doc ? heatCaseOf(this.surface(), doc) : null;
    const factor = factorOf(doc ? heatTrialOf(this.surface(), doc) : null);
    const speedOf = (aim: HeatAim, usual: number) => {
      const plan = c && planHeat(c, aim, factor);
      return plan?.speedMmPerS ? Math.round(plan.speedMmPerS / Math.max(1, plan.passes ?? 1)) : usual;
    };
    return {
      ...usualTools,
      gunW: (doc?.job.lay?.gun ?? defaultLay.gun).powerW,
      faceMmPerS: speedOf('faces', usualTools.faceMmPerS),
      jointMmPerS: speedOf('joints', usualTools.jointMmPerS),
    };
  });
  private readonly border = computed(() => this.lay.settings().jointBorder ?? defaultLay.jointBorder);
  private readonly hands = computed(() => this.lay.settings().jointHands ?? defaultLay.jointHands);
  private readonly asked = computed(
    () => ({ panels: this.wall()?.panels ?? [], logged: this.logged(), how: { border: this.border(), tools: this.tools(), hands: this.hands() } }),
    {
      equal: (a, b) => JSON.stringify([a.panels.map((p) => p.asked), a.logged, a.how]) === JSON.stringify([b.panels.map((p) => p.asked), b.logged, b.how]),
    },
  );
  private readonly came = signal<readonly PanelZones[]>([]);
  protected readonly picked = signal<number | null>(null);
  /** The drop one chose, or the first that is not done. */
  protected readonly number = computed(() => this.picked() ?? this.came().find((p) => p.left.length > 0)?.panel.number ?? this.came()[0]?.panel.number ?? 1);
  protected readonly here = computed(() => this.came().find((p) => p.panel.number === this.number()) ?? null);
  /** Of two people the one at this phone. */
  protected readonly hand = signal<'left' | 'right'>('left');
  protected readonly isPair = computed(() => this.here()?.left.some((z) => z.hand) ?? false);
  /** The next place of whoever holds the phone; done with one's own, one helps the other. */
  protected readonly next = computed(() => {
    const left = this.here()?.left ?? [];
    return left.find((z) => z.hand === this.hand()) ?? left[0] ?? null;
  });
  /** Two were asked for, and this panel has no split that leaves both a way out. */
  protected readonly isAlone = computed(
    () => this.hands() === 'two' && this.border() === 'left-open' && !this.isPair() && !this.here()?.panel.round && (this.here()?.left.length ?? 0) > 1,
  );
  protected readonly nextDrop = computed(() => this.came().find((p) => p.left.length > 0)?.panel.number ?? null);
  protected isDone(number: number): boolean {
    return this.came().some((p) => p.panel.number === number && p.left.length === 0);
  }
  private readonly fit = computed(() => {
    const w = this.wall();
    return w ? jointFit(this.here()?.panel.asked.masonry ?? w.masonry, stretchLimitOf(w.film)) : null;
  });
  protected name(z: WallZone): string {
    return zoneName(z, this.wall()?.panels ?? [], this.record.units());
  }
  private shortName(z: WallZone): string {
    const [drop, place] = this.name(z).split(', ');
    return `${(this.wall()?.panels.length ?? 1) > 1 ? `${drop}, ${place}` : drop!}${z.hand ? `, ${z.hand}` : ''}`;
  }
  protected minutesText = (z: WallZone): string => `${Math.max(1, Math.round(z.minutes))} min`;
  protected readonly placeText = computed(() => {
    const [p, z] = [this.here(), this.next()];
    if (!p || !z) return '';
    const places = p.placesDone + p.left.length;
    const both = this.isPair() ? ` · both done in about ${Math.round(minutesOfPlaces(p.left))} min` : '';
    return `Place ${p.placesDone + 1} of ${places}${p.isPlannedAnew ? ', planned anew from what was done' : ''} · about ${this.minutesText(z)} · gun ${z.gunKwh.toFixed(1)} kWh${both}`;
  });
  /** A drop is laid over the one before it before its own places come. */
  protected readonly over = computed(() => {
    const p = this.here();
    return p?.placesDone === 0 ? beforePanelWords(this.wall()?.panels ?? [], p.panel.number, this.record.units()) : null;
  });
  protected readonly doing = computed(() => {
    const [p, z, fit, w] = [this.here(), this.next(), this.fit(), this.wall()];
    return p && z && fit && w ? zoneDoing(z, p.panel, { fit, border: this.border(), isFirst: p.placesDone === 0, units: this.record.units() }) : [];
  });
  private readonly otherEnd = signal<string | null>(null);
  protected readonly minds = computed(() => [
    ...(this.here() ? mindsOfPanel(this.here()!, this.record.units()) : []),
    ...(this.otherEnd() ? [this.otherEnd()!] : []),
  ]);
  protected readonly trappedHere = computed(() => [...new Set([...(this.here()?.trapped ?? []).map((t) => t.segment)])]);
  protected readonly why = computed(() => {
    const [p, fit, w, units] = [this.here(), this.fit(), this.wall(), this.record.units()];
    if (!p || !fit || !w) return [];
    const f = (mm: number) => formatRough(mm, units);
    return [
      fitWords(fit, p.panel.asked.masonry, units),
      `${walkWords(p.plan, units)} From the floor ${f(2000)} are reached, a platform lifts that by ${f(1000)}, both hands reach ${f(1600)} across: house figures.`,
      'A stroke drives its air ahead; it and every joint not pressed yet keep a way over unpressed joints to an edge that is open. Rolled straight through, a crossing is shut (docs/models/joints.md). The order is replayed by a second reckoning that knows nothing of the plan.',
      setFirstWords(p.panel.graph, units),
      `Lanes ${f(usualTools.rollerMm)} wide, ${f(usualTools.overlapMm)} over each other, gun and roller at ${f(this.tools().faceMmPerS)} a second over faces, ${f(this.tools().jointMmPerS)} in joints.`,
    ]; // prettier-ignore
  });
  protected async zoneDone(z: WallZone): Promise<void> {
    const p = this.came().find((x) => x.panel.number === z.panel);
    if (!p) return;
    const zone = { panel: z.panel, graph: p.graph, strokes: z.strokes.map(plainStroke) };
    await this.lay.write('zone-done', `${this.surface().name}: ${this.name(z)}`, { zone, text: this.name(z), stepKey: this.lay.step()?.key ?? null });
  }

  // the order, stroke by stroke
  protected readonly order = computed<readonly JointStroke[]>(() => {
    const p = this.here();
    return p ? [...p.done, ...p.left.flatMap((z) => z.strokes)] : [];
  });
  private readonly asAt = signal(0);
  protected readonly at = computed(() => Math.min(this.asAt(), this.order().length));
  protected readonly speed = signal<number>(4);
  protected readonly isPlaying = signal(false);
  protected readonly replayed = computed(() => this.order().slice(0, this.at()));
  protected readonly inHand = computed(() => this.order().slice(Math.max(0, this.at() - 1), this.at()));
  private readonly verdict = computed(() => {
    const p = this.here();
    return p ? replayJoints(p.panel.graph, this.order()) : null;
  });
  protected readonly trappedSoFar = computed(() => (this.verdict()?.trapped ?? []).flatMap((t) => (t.atStroke < this.at() ? [t.segment] : [])));
  protected readonly air = computed(() => {
    const p = this.here();
    return p && this.at() > 0 ? airWay(p.panel.graph, this.order(), this.at() - 1) : null;
  });
  protected readonly replayText = computed(() => {
    const [p, at, n] = [this.here(), this.at(), this.order().length];
    const last = this.order()[at - 1];
    if (!p || !last) return `${n} strokes. Hollow: it breathes. Full: pressed. Dashed at the border: sealed.`;
    const what =
      last.does === 'seal'
        ? `the border is sealed, ${p.panel.graph.nodes[last.exits[0]!]!.side}`
        : jointName(p.panel.graph, last.segments[0]!, this.record.units());
    const shut = this.verdict()?.trapped.filter((t) => t.atStroke === at - 1) ?? [];
    return `Stroke ${at} of ${n}: ${what}.${shut.length ? ` ${verdictWords(p.panel.graph, { isClean: false, trapped: shut, left: [], broken: [] }, this.record.units())}` : ''}`;
  });
  protected scrub(to: number): void {
    this.asAt.set(Math.max(0, Math.min(this.order().length, to)));
  }
  protected play(): void {
    if (this.at() === this.order().length) this.asAt.set(0);
    this.isPlaying.update((on) => !on);
  }

  // an order of one's own
  protected readonly own = signal<readonly JointStroke[]>([]);
  private readonly ownVerdict = computed(() => {
    const p = this.here();
    return p && this.own().length ? replayJoints(p.panel.graph, this.own()) : null;
  });
  protected readonly ownTrapped = computed(() => (this.ownVerdict()?.trapped ?? []).map((t) => t.segment));
  protected readonly ownText = computed(() => {
    const [p, v] = [this.here(), this.ownVerdict()];
    if (!p) return '';
    if (!v) return 'Tap a joint near the end you roll it to; or arrows, Enter, Shift and Enter for the other way, Backspace. Each is judged.';
    return verdictWords(p.panel.graph, v, this.record.units());
  });
  protected pressOwn({ segment, to }: { readonly segment: number; readonly to: number }): void {
    const p = this.here();
    if (!p || this.own().some((s) => s.does === 'press' && s.segments.includes(segment))) return;
    const { a, b } = p.panel.graph.segments[segment]!;
    this.own.update((list) => [...list, { does: 'press', from: to === b ? a : b, segments: [segment] }]);
  }
  protected ownBack(): void {
    this.own.update((list) => list.slice(0, -1));
  }

  constructor() {
    effect(() => {
      const asked = this.asked();
      untracked(() => void this.find(asked));
    });
    // another drop: its own order, from its beginning
    effect(() => {
      this.number();
      untracked(() => {
        this.own.set([]);
        this.asAt.set(0);
        this.isPlaying.set(false);
      });
    });
    // the big button at the foot of the page is for the place in hand
    effect(() => {
      const z = this.mode() === 'place' ? this.next() : null;
      const place = z && { name: this.shortName(z), done: () => void this.zoneDone(z) };
      untracked(() => this.lay.placeInHand.set(place));
    });
    inject(DestroyRef).onDestroy(() => this.lay.placeInHand.set(null));
    let timer: ReturnType<typeof setInterval> | null = null;
    effect(() => {
      const [on, a] = [this.isPlaying(), this.speed()];
      if (timer) clearInterval(timer);
      timer = on ? setInterval(() => this.step(), 1000 / a) : null;
    });
    inject(DestroyRef).onDestroy(() => timer && clearInterval(timer));
  }
  private step(): void {
    if (this.at() >= this.order().length) return this.isPlaying.set(false);
    this.asAt.update((n) => n + 1);
  }
  private async find(asked: ReturnType<typeof this.asked>): Promise<void> {
    const isNow = () => this.asked() === asked;
    const found = await this.search.zones(asked.panels, asked.logged, asked.how, (p) => {
      // while nothing stands there yet the first drop is shown as soon as it is there
      if (isNow() && (this.came().length === 0 || this.came()[0]!.panel.asked !== p.panel.asked)) this.came.update((list) => [...list.filter((x) => x.panel.number !== p.panel.number), p].sort((a, b) => a.panel.number - b.panel.number)); // prettier-ignore
    });
    if (!isNow()) return;
    this.came.set(found);
    this.otherEnd.set(null);
    const doc = this.record.records();
    if (!doc || found.length < 2 || found.every((p) => p.pierces.length === 0)) return;
    // what is shut in between a lap and something cut round may breathe where laps lie elsewhere
    const { hungFrom } = this.surface();
    const turned = texturedWallOf({ ...this.surface(), hungFrom: hungFrom === 'left' ? 'right' : 'left' }, doc);
    const other = await this.search.zones(turned?.panels ?? [], [], asked.how, () => undefined);
    if (isNow() && turned) this.otherEnd.set(otherEndWords(found, other, hungFrom));
  }
}
