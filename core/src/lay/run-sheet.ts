import type { CutMethod, Film, GlassForm, LayEntry, LaySettings, StepRule, StepSet, Surface, UnitSystem, WorkClass } from '@yellow-pane/contracts';
import { formatLength, formatRough, formatRoughRange } from '../ground/index.js';
import { workClassOf } from '../films/index.js';
import { shippedSteps } from './shipped-steps.js';
import { EDGE_STOP_MM } from './squeegee-plan.js';

/** A pane as its steps are made for it. */
export interface LayPane {
  readonly work: WorkClass;
  readonly glass: GlassForm;
  readonly frame: Surface['frame'];
  readonly method: CutMethod;
  readonly areaM2: number;
  readonly edgeM: number;
  readonly edgeGapMm: number;
  readonly overhangMm: number;
  readonly bladeMm: number;
  readonly filmName: string;
  /** What gun curved glass takes: full with a tempered stamp, low when it is laminated or chipped; unproven while nobody has said. */
  readonly gun?: 'full' | 'low' | 'unproven' | 'never';
  /** Why no film, or not this one, is laid on it at all. */
  readonly refusal?: string | null;
  /** Who has to be asked before it is laid. */
  readonly ask?: string | null;
  readonly units: UnitSystem;
}

/** One step of one pane, its figures filled in. */
export interface Step extends Omit<StepRule, 'minutes' | 'when'> {
  readonly minutes: number;
}

/** Gap that thick film keeps at least. @source common practice: 2–3 mm for security film, 1–2 mm else */
export const THICK_EDGE_GAP_MM = 2.5;

export const lockNames: Record<LaySettings['lock'], string> = {
  tee: 'a T from the top centre',
  cross: 'a cross through the middle',
  x: 'an X from the middle to the corners',
  'centre-line': 'one line down the middle',
};

/** How the gun is held to glass of a kind. @source common practice (TRADE §7): tempered only for the full gun; laminated or chipped low heat, constant movement, whole pane warmed first, or refuse */
export const gunWords: Record<NonNullable<LayPane['gun']>, string> = {
  full: 'Gun on full, 20 to 30 s to warm up.',
  low: 'No full gun on this glass: low heat, whole pane warmed first, never over a chip. Or refuse.',
  unproven: 'Tempered stamp seen: gun on full, 20 to 30 s to warm up. Not seen: low heat, whole pane warmed first, or not at all.',
  never: 'No heat gun on plastic, not even a low one.',
};

/** `{150 mm}` or `{25 to 50 mm}` in the words of a step: told in the units of the job. */
const LENGTH_IN_BRACES = /\{(\d+(?:\.\d+)?)(?: to (\d+(?:\.\d+)?))? mm\}/g;

/** Whether a list of conditions asks nothing or names this. */
const among = <T>(list: readonly T[], value: T): boolean => list.length === 0 || list.includes(value);

/** Whether a step belongs to a pane worked by these schools. */
export const stepApplies = (rule: StepRule, pane: LayPane, schools: LaySettings): boolean =>
  among(rule.when.film, pane.work) &&
  among(rule.when.glass, pane.glass) &&
  among(rule.when.frame, pane.frame) &&
  among(rule.when.method, pane.method) &&
  among(rule.when.liner, schools.liner) &&
  among(rule.when.lock, schools.lock) &&
  among(rule.when.trim, schools.trim) &&
  among(rule.when.silicone, schools.silicone) &&
  among(rule.when.stops, schools.stops) &&
  among(rule.when.edge, schools.edge);

/**
 * The steps of one pane in order, from a version of the firm’s steps: those whose conditions hold, with this pane’s figures in their words.
 * What forbids the whole of it is said at the first step and wherever there is heat; who has to be asked, at the first step.
 * @returns empty when no step of the version fits: then the firm’s conditions leave this pane out
 */
export function runSheetOf(set: StepSet, pane: LayPane, schools: LaySettings): Step[] {
  const f = (mm: number) => `${formatLength(mm, pane.units)}${pane.units === 'mm' ? ' mm' : ''}`;
  const figures: Record<string, string> = {
    edgeGap: f(pane.edgeGapMm),
    edgeStop: formatRough(EDGE_STOP_MM, pane.units),
    overhang: f(pane.overhangMm),
    blade: formatRough(pane.bladeMm, pane.units),
    lock: lockNames[schools.lock],
    film: pane.filmName,
    gun: gunWords[pane.gun ?? 'unproven'],
  };
  const filled = (text: string) =>
    text
      .replace(/\{(\w+)\}/g, (whole, name: string) => figures[name] ?? whole)
      .replace(LENGTH_IN_BRACES, (_, from: string, to?: string) =>
        to ? formatRoughRange(Number(from), Number(to), pane.units) : formatRough(Number(from), pane.units),
      );
  return set.steps
    .filter((rule) => stepApplies(rule, pane, schools))
    .map(({ when: _, minutes, ...rule }) => ({
      ...rule,
      title: filled(rule.title),
      text: filled(rule.text),
      purpose: filled(rule.purpose),
      good: filled(rule.good),
      tools: rule.tools.map(filled),
      minutes: minutes.fixed + minutes.perM2 * pane.areaM2 + minutes.perM * pane.edgeM,
    }))
    .map((s, i) => {
      const isHot = s.drawing === 'forming' || s.tools.includes('heat gun');
      const first = [(i === 0 || isHot) && pane.refusal, i === 0 && pane.ask].filter(Boolean);
      return first.length ? { ...s, caution: [...first, s.caution].filter(Boolean).join(' ') } : s;
    });
}

/** Names in braces that stand for nothing: a firm’s slip of the pen. */
export const unknownFigures = (rule: Pick<StepRule, 'title' | 'text' | 'purpose' | 'good'>): string[] =>
  [...`${rule.title} ${rule.text} ${rule.purpose} ${rule.good}`.matchAll(/\{(\w+)\}/g)]
    .map((m) => m[1]!)
    .filter((name) => !['edgeGap', 'edgeStop', 'overhang', 'blade', 'lock', 'film', 'gun'].includes(name));

/**
 * Which version a job is worked by: the one its first entry was logged with, so that a running job keeps it; before that the firm’s newest;
 * without any of its own, the shipped one.
 */
export function stepSetOf(firmId: string, sets: readonly StepSet[], entries: readonly Pick<LayEntry, 'stepSetId' | 'occurredAt'>[]): StepSet {
  const shipped = shippedSteps(firmId);
  const all = [shipped, ...sets];
  const first = [...entries].sort((a, b) => a.occurredAt.localeCompare(b.occurredAt))[0];
  const newest = [...sets].sort((a, b) => b.version - a.version)[0] ?? shipped;
  return (first && all.find((s) => s.id === first.stepSetId)) ?? newest;
}

/** Expected minutes of a pane: all its steps. */
export const sheetMinutes = (steps: readonly Step[]): number => steps.reduce((s, x) => s + x.minutes, 0);

/** Edge gap of a pane: what the job says, and for thick film not under its own. */
export const edgeGapFor = (film: Pick<Film, 'kind'>, jobGapMm: number): number =>
  workClassOf(film) === 'security' ? Math.max(jobGapMm, THICK_EDGE_GAP_MM) : jobGapMm;
