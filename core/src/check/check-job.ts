import type { AcceptanceRule, Film, LayEntry, Pane, Surface } from '@yellow-pane/contracts';
import { panesOf } from '../measure/index.js';
import { signedArea, type Polygon } from '../geometry/index.js';
import { workClassOf } from '../films/index.js';
import { surveySurface } from '../form/index.js';
import { defaultLay, layPaneOf, layProgress, linesInForce, sheetOfSurface, type LayRecords, type PaneProgress, type Step } from '../lay/index.js';
import { defaultAcceptance, holdToRule, isCounted, type Flaw, type FlawRuling } from './acceptance.js';
import {
  dayLossGPerM2,
  tellsOfFilm,
  toldOfFilm,
  dryingClock,
  HURRIED,
  waterLeftGPerM2,
  type DryingClock,
  type DryingPane,
  type LossOnDay,
  type Pressing,
  type WaterLook,
} from './cure.js';
import { diagnose, type Diagnosis } from './diagnosis.js';
import { isOpen, pinsOf, type PinLine } from './pins.js';

const DAY_MS = 86_400_000;

/** The records that checking looks at. */
export type CheckRecords = LayRecords & { readonly firm: LayRecords['firm'] & { readonly acceptance?: AcceptanceRule | undefined } };

/** Days of weather behind a pane’s drying: what leaves on each, and what was so when it was laid. */
export interface DryingDays {
  readonly losses: readonly LossOnDay[];
  /** What they were reckoned from, in words. */
  readonly basis: string;
  /** Glass over the limit or sun on it in the hour it was laid; null: nobody knows. */
  readonly wasWarm: boolean | null;
}
/** Glass where nobody knows the weather, °C, and the air of a heated room. @source house rule: a room face in a heated house */
const UNKNOWN = { glassC: 20, airC: 20, humidityPct: 50 } as const;
/** Drying of a pane of which no weather is known. */
const plainDays = (film: Pick<Film, 'construction' | 'thicknessUm'>): DryingDays => ({
  losses: [{ day: 0, gPerM2: dayLossGPerM2([UNKNOWN], film) }],
  basis: 'Weather and bearing are not known: reckoned with glass and room at 20 °C and 50 % humidity.',
  wasWarm: null,
});

/** Something that somebody has to come back for. */
export interface DueVisit {
  readonly key: string;
  readonly kind: 'look' | 'return' | 'watch' | 'decide';
  readonly title: string;
  /** From when on; what is due now has it in the past. */
  readonly dueAt: string;
}
/** How a laid pane stands. */
export type CheckState = 'drying' | 'due' | 'late' | 'seen' | 'clear';
/** What is known of anything that film was laid on, wet or dry. */
export interface Laid<S extends Surface> {
  readonly surface: S;
  readonly film: Film;
  readonly laidAt: string;
  readonly state: CheckState;
  /** Looks at the whole of it, oldest first. */
  readonly looks: readonly LayEntry[];
  readonly pins: readonly PinLine[];
  /** What log and survey say, by the keys of the facts of its table. */
  readonly facts: readonly string[];
  readonly due: readonly DueVisit[];
}
/** A laid pane with its drying clock. */
export interface CheckPane extends Laid<Pane> {
  readonly clock: DryingClock;
  readonly drying: DryingPane;
  readonly pressing: Pressing;
  readonly basis: string;
  /** Between these instants: the edge holds, it may be touched and drop windows go down, it is clear. */
  readonly holds: DateRange;
  readonly touch: DateRange;
  readonly clear: DateRange;
}
export interface DateRange {
  readonly from: string;
  readonly to: string;
}

/** Days until a film holds, until drop windows go down. @source common practice: 1–2 days (security film is left alone so long), drop windows up 3–5 days */
const HOLDS_DAYS = [1, 2] as const;
const TOUCH_DAYS = [3, 5] as const;
/** From here on glass is too warm for wet film. @source common practice: 90 °F */
export const WARM_GLASS_C = 32;
/** Strokes that overlap by less leave lines. @source house rule on 1 in (25 mm) */
const SMALL_OVERLAP_MM = 20;
/** Film that ends nearer to the frame than this stands on it. @source common practice: a gap of 1–2 mm */
const NO_GAP_MM = 0.8;

const after = (iso: string, days: number): string => new Date(Date.parse(iso) + days * DAY_MS).toISOString();
const range = (iso: string, [from, to]: readonly [number, number]): DateRange => ({ from: after(iso, from), to: after(iso, to) });

const HARD = ['hard', 'hard-twice'];

/** Minutes from the line before it to that step’s; null: it was not ticked by itself. */
function minutesOfStep(lines: readonly LayEntry[], key: string): number | null {
  const at = lines.findIndex((e) => e.kind === 'step-done' && e.stepKey === key);
  const before = lines.slice(0, Math.max(0, at)).findLast((e) => e.kind === 'step-done' || e.kind === 'begin' || e.kind === 'mended');
  return at >= 0 && before ? (Date.parse(lines[at]!.occurredAt) - Date.parse(before.occurredAt)) / 60_000 : null;
}

/** How a pane was pressed, by the steps that were ticked. Tapped done at once, the log does not say. */
export function pressingOf(lines: readonly LayEntry[], steps: readonly Step[], isThick: boolean, bladeMm: number): Pressing {
  const step = steps.find((s) => HARD.includes(s.key));
  const ticked = new Set(lines.flatMap((e) => (e.kind === 'step-done' && e.stepKey ? [e.stepKey] : [])));
  const wasStepwise = steps.some((s) => s.key !== step?.key && s.mood === 'wet' && ticked.has(s.key));
  if (!step || !wasStepwise) return { isThick, bladeMm, hardPasses: null };
  const due = isThick ? 2 : 1;
  if (!ticked.has(step.key)) return { isThick, bladeMm, hardPasses: 0 };
  const minutes = minutesOfStep(lines, step.key);
  return { isThick, bladeMm, hardPasses: minutes !== null && minutes < HURRIED * step.minutes ? due / 2 : due };
}

/** What the log and the settings say that may have done harm. */
function factsOf(
  surface: Pane,
  lines: readonly LayEntry[],
  pressing: Pressing,
  steps: readonly Step[],
  edgeGapMm: number,
  records: CheckRecords,
  wasWarm: boolean | null,
): string[] {
  const ticked = new Set(lines.flatMap((e) => (e.kind === 'step-done' && e.stepKey ? [e.stepKey] : [])));
  const problems = new Set(lines.flatMap((e) => e.problem?.kind ?? []));
  const isWarm = wasWarm === true || lines.some((e) => e.reading?.what === 'glass' && e.reading.valueC > WARM_GLASS_C);
  const said: readonly [string, boolean][] = [
    ['hard-pass-hurried', pressing.hardPasses !== null && pressing.hardPasses < (pressing.isThick ? 2 : 1)],
    ['glass-warm', isWarm],
    ['slip-strong', problems.has('slides-off')],
    ['edge-not-bumped', pressing.hardPasses !== null && steps.some((s) => s.key === 'bump') && !ticked.has('bump')],
    ['overlap-small', (records.job.lay ?? defaultLay).overlapMm < SMALL_OVERLAP_MM],
    ['flat', surface.curved === null],
    ['single', surface.glazing?.panes.length === 1],
    ['no-gap', edgeGapMm < NO_GAP_MM],
    ['fault-noted', problems.has('glass-scratch')],
  ];
  return said.flatMap(([key, is]) => (is ? [key] : []));
}

const byPaneOf = (entries: readonly LayEntry[]): Map<string, LayEntry[]> => {
  const out = new Map<string, LayEntry[]>();
  for (const e of linesInForce(entries)) if (e.surfaceId) out.set(e.surfaceId, [...(out.get(e.surfaceId) ?? []), e]);
  return out;
};

interface Half {
  readonly surface: Pane;
  readonly film: Film;
  readonly laidAt: string;
  readonly progress: PaneProgress;
  readonly lines: readonly LayEntry[];
  readonly looks: readonly LayEntry[];
  readonly pressing: Pressing;
  readonly steps: readonly Step[];
  readonly edgeGapMm: number;
  readonly days: DryingDays;
  readonly drying: DryingPane;
}

/**
 * Every laid pane with its drying clock, what was seen on it, and what is due.
 * @param daysOf weather behind each pane’s drying; null: nobody knows it
 * @param at now, an instant
 */
export function checkPanes(records: CheckRecords, daysOf: (surfaceId: string) => DryingDays | null, at: string): CheckPane[] {
  const progress = layProgress(records);
  const byPane = byPaneOf(records.layEntries);
  const halves = panesOf(records.surfaces).flatMap((surface): Half[] => {
    const p = progress.get(surface.id);
    const film = records.films.find((f) => f.id === surface.filmId);
    const pane = p?.state === 'done' && film ? layPaneOf(surface, records) : null;
    if (!p?.doneAt || !film || !pane) return [];
    const lines = byPane.get(surface.id) ?? [];
    const steps = sheetOfSurface(surface, records)?.steps ?? [];
    const pressing = pressingOf(
      lines.filter((e) => e.occurredAt <= p.doneAt!),
      steps,
      workClassOf(film) === 'security',
      pane.bladeMm,
    );
    const looks = lines.filter((e) => e.kind === 'looked' && e.look && e.occurredAt > p.doneAt!);
    const days = daysOf(surface.id) ?? plainDays(film);
    const drying: DryingPane = {
      waterGPerM2: waterLeftGPerM2(pressing),
      losses: days.losses,
      looks: looks.map((e): WaterLook => ({ day: (Date.parse(e.occurredAt) - Date.parse(p.doneAt!)) / DAY_MS, seen: e.look!.water })),
      isPressingKnown: pressing.hardPasses !== null,
    };
    return [{ surface, film, laidAt: p.doneAt, progress: p, lines, looks, pressing, steps, edgeGapMm: pane.edgeGapMm, days, drying }];
  });
  const tells = new Map(halves.map((h) => [h, tellsOfFilm(h.drying)]));
  const films = new Map<string, readonly number[]>();
  for (const id of new Set(halves.map((h) => h.film.id))) films.set(id, toldOfFilm(halves.filter((h) => h.film.id === id).map((h) => tells.get(h)!)));
  // a pane does not learn from itself
  return halves.map((h) => whole(h, tells.get(h) ? films.get(h.film.id)!.map((t, i) => t - tells.get(h)![i]!) : films.get(h.film.id)!, records, at));
}

/** Later visits of its steps, and what was pinned and has to be decided or looked at again. */
export const visitsOf = ({ returns }: Pick<PaneProgress, 'returns'>, open: readonly PinLine[]): DueVisit[] => [
  ...returns.map((r): DueVisit => ({ key: `return/${r.key}`, kind: 'return', title: r.title, dueAt: r.dueAt })),
  ...open.map((s): DueVisit =>
    s.state === 'watched' && s.watchUntil
      ? { key: `watch/${s.entry.id}`, kind: 'watch', title: 'Look again at what was pinned', dueAt: `${s.watchUntil}T06:00:00.000Z` }
      : { key: `decide/${s.entry.id}`, kind: 'decide', title: 'Decide what was pinned', dueAt: s.entry.occurredAt },
  ),
];

function whole(h: Half, told: readonly number[], records: CheckRecords, at: string): CheckPane {
  const clock = dryingClock(h.drying, told, Math.max(0, (Date.parse(at) - Date.parse(h.laidAt)) / DAY_MS));
  const clear = range(h.laidAt, [clock.clear.fromDay, clock.clear.toDay]);
  const pins = pinsOf(h.lines, h.laidAt);
  const last = h.looks.at(-1);
  const isClear = last?.look?.water === 'none';
  const open = pins.filter(isOpen);
  const due: DueVisit[] = [
    ...visitsOf(h.progress, open),
    ...(isClear
      ? []
      : [
          {
            key: 'look',
            kind: 'look' as const,
            title: 'Look whether it is clear',
            dueAt: last && last.occurredAt > clear.to ? after(last.occurredAt, RELOOK_DAYS) : clear.to,
          },
        ]),
  ].sort((a, b) => a.dueAt.localeCompare(b.dueAt));
  const isDue = due.some((d) => d.dueAt <= at);
  const isLate = !isClear && at >= clear.to && last !== undefined && last.occurredAt >= clear.to;
  const isUndecided = open.some((s) => s.state === 'open');
  const state: CheckState = isUndecided ? 'seen' : isLate ? 'late' : isDue ? 'due' : isClear ? 'clear' : 'drying';
  return {
    surface: h.surface, film: h.film, laidAt: h.laidAt, state, clock, drying: h.drying, pressing: h.pressing, basis: h.days.basis, looks: h.looks, pins,
    facts: factsOf(h.surface, h.lines, h.pressing, h.steps, h.edgeGapMm, records, h.days.wasWarm), due,
    holds: range(h.laidAt, HOLDS_DAYS), touch: range(h.laidAt, TOUCH_DAYS), clear,
  }; // prettier-ignore
}
/** A pane that was still wet at the end of its range is looked at again after so long. @source house rule */
const RELOOK_DAYS = 7;

/** Hours for which film can still be lifted. @source common practice: the first day */
const FRESH_HOURS = 24;

/** What is likely behind a pin, and what to ask. */
export function diagnosePin(pane: CheckPane, line: PinLine, at: string): Diagnosis {
  return diagnose({
    patient: 'wet-on-glass',
    kind: line.pin.kind,
    spread: line.pin.spread,
    answers: line.answers,
    facts: pane.facts,
    clearOdds: pane.clock.clearOdds,
    isFresh: Date.parse(at) - Date.parse(pane.laidAt) < FRESH_HOURS * 3_600_000,
  });
}

/** Distance of a point from the nearest edge of a ring. */
function edgeDistance(ring: Polygon, x: number, y: number): number {
  return Math.min(
    ...ring.map((a, i) => {
      const b = ring[(i + 1) % ring.length]!;
      const [ux, uy] = [b.x - a.x, b.y - a.y];
      const t = Math.max(0, Math.min(1, ((x - a.x) * ux + (y - a.y) * uy) / (ux * ux + uy * uy || 1)));
      return Math.hypot(x - a.x - t * ux, y - a.y - t * uy);
    }),
  );
}

/** Key of the answer whether a thing is seen from the agreed distance. */
export const SEEN_FROM_THERE = 'seen-from-there';

/** Holds the pins of a pane that still count to the firm’s rule. */
export function holdPaneToRule(pane: CheckPane, records: CheckRecords): FlawRuling[] {
  const { outline } = surveySurface(pane.surface, records).survey;
  if (!outline) return [];
  const xs = outline.map((p) => p.x);
  const ys = outline.map((p) => p.y);
  const [minX, maxX, minY, maxY] = [Math.min(...xs), Math.max(...xs), Math.min(...ys), Math.max(...ys)];
  const flaws = pane.pins
    .filter((s) => isOpen(s) || s.state === 'left')
    .filter((s) => isCounted(s.pin.kind))
    .map((s): Flaw => {
      // the outline lies as it was taped; pins lie as seen from the room
      const xFrac = pane.surface.seenFrom === 'room' ? s.pin.at.xFrac : 1 - s.pin.at.xFrac;
      const [x, y] = [minX + xFrac * (maxX - minX), minY + s.pin.at.yFrac * (maxY - minY)];
      const seen = s.answers[SEEN_FROM_THERE];
      return {
        id: s.entry.id,
        kind: s.pin.kind,
        sizeMm: s.pin.sizeMm,
        at: { xMm: x, yMm: y },
        edgeMm: edgeDistance(outline, x, y),
        isSeenFromThere: seen === 'yes' ? true : seen === 'no' ? false : null,
      };
    });
  return holdToRule(flaws, Math.abs(signedArea(outline)) / 1e6, records.firm.acceptance ?? defaultAcceptance, records.job.units);
}
