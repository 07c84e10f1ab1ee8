import type {
  CutMethod,
  GlassForm,
  LayEntry,
  LaySettings,
  PaneTrait,
  StepRule,
  StepSet,
  SurfaceKind,
  Pane,
  UnitSystem,
  WorkClass,
} from '@yellow-pane/contracts';
import { formatLength, formatRough, formatRoughRange } from '../ground/index.js';
import type { FaceCare } from '../choose/index.js';
import { EDGE_STOP_MM } from '../prepare/index.js';
import { shippedSteps } from './shipped-steps.js';

/** A pane as its steps are made for it. */
export interface LayPane {
  readonly work: WorkClass;
  readonly glass: GlassForm;
  readonly frame: Pane['frame'];
  readonly method: CutMethod;
  readonly areaM2: number;
  readonly edgeM: number;
  readonly edgeGapMm: number;
  readonly overhangMm: number;
  readonly bladeMm: number;
  readonly filmName: string;
  /** What gun curved glass takes: full with a tempered stamp, low when it is laminated or chipped; unproven while nobody has said. */
  readonly gun?: 'full' | 'low' | 'unproven' | 'never';
  /** What of it asks for steps of its own. */
  readonly has?: readonly PaneTrait[];
  /** How film is laid on curved glass before it is formed. */
  readonly anchor?: 'h' | 'arch' | 'own';
  /** What may touch its face, and what decides it. */
  readonly care: FaceCare;
  readonly careWhy: string;
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

export const lockNames: Record<LaySettings['lock'], string> = {
  tee: 'a T from the top centre',
  cross: 'a cross through the middle',
  x: 'an X from the middle to the corners',
  'centre-line': 'one line down the middle',
};

/** How the gun is held to glass of a kind. @source common practice: tempered only for the full gun; laminated or chipped low heat, constant movement, whole pane warmed first, or refuse */
const gunWords: Record<NonNullable<LayPane['gun']>, string> = {
  full: 'Gun on full, 20 to 30 s to warm up.',
  low: 'No full gun on this glass: low heat, whole pane warmed first, never over a chip. Or refuse.',
  unproven: 'Tempered stamp seen: gun on full, 20 to 30 s to warm up. Not seen: low heat, whole pane warmed first, or not at all.',
  never: 'No heat gun on plastic, not even a low one.',
};

/** How film is first laid on curved glass. @source common practice */
const anchorWords: Record<NonNullable<LayPane['anchor']>, string> = {
  h: 'A level stroke across at the heights on the drawing, then down both sides: an H. The slack now stands in fingers above and below.',
  arch: 'Card across the top, which is a finished edge, then down both sides: an arch. {13 mm} of glass stay free at the long side, film rests over the other. All slack is brought to the bottom, nothing stays above. Too few fingers there: push the film together.',
  own: 'A stroke across along the line on the drawing, then down both sides. The slack now stands in fingers above and below.',
};

/** `{150 mm}` or `{25 to 50 mm}` in the words of a step: told in the units of the job. */
const LENGTH_IN_BRACES = /\{(\d+(?:\.\d+)?)(?: to (\d+(?:\.\d+)?))? mm\}/g;

/** Whether a list of conditions asks nothing or names this. */
const among = <T>(list: readonly T[], value: T): boolean => list.length === 0 || list.includes(value);

/** Whether a step is for surfaces of this kind; those of before anybody asked are for panes. */
export const isForKind = (rule: Pick<StepRule, 'when'>, kind: SurfaceKind): boolean => (rule.when.surface ?? ['pane']).includes(kind);

/** Whether a step belongs to a pane worked by these schools. */
const stepApplies = (rule: StepRule, pane: LayPane, schools: LaySettings): boolean =>
  isForKind(rule, 'pane') &&
  among(rule.when.film, pane.work) &&
  among(rule.when.glass, pane.glass) &&
  among(rule.when.frame, pane.frame) &&
  among(rule.when.method, pane.method) &&
  among(rule.when.liner, schools.liner) &&
  among(rule.when.lock, schools.lock) &&
  among(rule.when.trim, schools.trim) &&
  among(rule.when.silicone, schools.silicone) &&
  among(rule.when.stops, schools.stops) &&
  among(rule.when.edge, schools.edge) &&
  among(rule.when.care ?? [], pane.care) &&
  ((rule.when.has ?? []).length === 0 || rule.when.has!.some((trait) => (pane.has ?? usualTraits).includes(trait)));

/** A pane of which nothing is said has corners, is laid in one piece, and nothing is cut out of it. */
const usualTraits: readonly PaneTrait[] = ['corners'];

/** Steps that put a blade flat on the face, whoever wrote them. */
const scrapes = (rule: Pick<StepRule, 'key' | 'tools'>): boolean => rule.key.startsWith('scrape') || rule.tools.some((t) => /scraper/i.test(t));

/** The rules of a set for a pane. Where no blade may touch the face, a step that scrapes gives way to the soft pad, also in steps that a firm wrote before anybody asked. */
function rulesFor(set: StepSet, pane: LayPane, schools: LaySettings): StepRule[] {
  const rules = set.steps.filter((rule) => stepApplies(rule, pane, schools));
  if (pane.care === 'blade' || pane.care === 'one-way' || !rules.some(scrapes)) return rules;
  const soft = shippedSteps(set.firmId).steps.find((s) => s.key === 'pad')!;
  const hasPad = rules.some((r) => r.key === soft.key);
  return rules.flatMap((r) => (!scrapes(r) ? [r] : hasPad ? [] : [soft])).filter((r, i, all) => all.findIndex((x) => x.key === r.key) === i);
}

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
    anchor: anchorWords[pane.anchor ?? 'h'],
    care: pane.careWhy,
  };
  // the words of before there was an arch told drop glass to be laid as an H
  const laid = (rule: StepRule): string =>
    rule.key === 'form-line' && pane.anchor === 'arch' && !rule.text.includes('{anchor}') ? `{anchor} ${rule.text.replace(H_OF_BEFORE, '')}`.trim() : rule.text;
  return filledSteps(
    rulesFor(set, pane, schools).map((rule) => ({ ...rule, text: laid(rule) })),
    { ...pane, figures },
  );
}

/** What the words and minutes of steps are filled in from. */
export interface StepFigures {
  /** What stands for the names in braces. */
  readonly figures: Readonly<Record<string, string>>;
  readonly areaM2: number;
  readonly edgeM: number;
  readonly units: UnitSystem;
  readonly refusal?: string | null;
  readonly ask?: string | null;
}

/** Steps with the figures of one surface in their words. What forbids the work, who has to be asked, and air before the gun are said where they bite. */
export function filledSteps(rules: readonly StepRule[], { figures, areaM2, edgeM, units, refusal, ask }: StepFigures): Step[] {
  const filled = (text: string) =>
    text
      .replace(/\{(\w+)\}/g, (whole, name: string) => figures[name] ?? whole)
      .replace(LENGTH_IN_BRACES, (_, from: string, to?: string) => (to ? formatRoughRange(Number(from), Number(to), units) : formatRough(Number(from), units)));
  return rules
    .map(({ when: _, minutes, ...rule }) => ({
      ...rule,
      title: filled(rule.title),
      text: filled(rule.text),
      purpose: filled(rule.purpose),
      good: filled(rule.good),
      tools: rule.tools.map(filled),
      caution: rule.caution === null ? null : filled(rule.caution),
      returnAfterMinutes: rule.returnAfterMinutes ?? null,
      minutes: minutes.fixed + minutes.perM2 * areaM2 + minutes.perM * edgeM,
    }))
    .map((s, i, all) => {
      const hasGun = s.tools.some((t) => /heat gun/i.test(t));
      const isHot = s.drawing === 'forming' || hasGun;
      const vapour = hasGun && all.slice(0, i).some((b) => b.tools.some((t) => VAPOUR.test(t)));
      const first = [(i === 0 || isHot) && refusal, i === 0 && ask, vapour && AIR_FIRST].filter(Boolean);
      return first.length ? { ...s, caution: [...first, s.caution].filter(Boolean).join(' ') } : s;
    });
}

/** How the line was shipped before there was an arch; firms’ own versions may have kept it. */
const H_OF_BEFORE = 'A level stroke across at the heights on the drawing, then down both sides: an H. The slack now stands in fingers above and below.';

/** What leaves vapour that burns. */
const VAPOUR = /cleaner|alcohol|primer|solvent|promoter/i;
/** @source common practice: no gun while solvent or alcohol vapour is in the room */
const AIR_FIRST = 'Alcohol was used here: open all doors, air until nothing is smelt, then the gun.';

const knownFigures = new Set([
  'cornerRound',
  'levelLine',
  'edgeGap',
  'edgeStop',
  'overhang',
  'blade',
  'lock',
  'film',
  'gun',
  'anchor',
  'care',
  'girth',
  'height',
  'lap',
  'notch',
  'strip',
  'bands',
  'seam',
  'panel',
  'size',
  'fold',
  'grain',
  'recess',
  'ribs',
  'dome',
  'slack',
  'wrap',
  'sides',
  'tab',
  'corner',
  'off',
  'round',
  'postHeat',
  'start',
  'drop',
  'drops',
  'level',
  'inside',
  'insideSecond',
  'outside',
  'outsideSecond',
  'ruler',
  'liner',
  'first',
  'under',
  'walls',
  'strips',
  'rounds',
  'holes',
  'lettering',
  'places',
  'far',
  'gaps',
  'airOrder',
  'hinge',
  'limit',
]);
/** Names in braces that stand for nothing: a firm’s slip of the pen. */
export const unknownFigures = (rule: Pick<StepRule, 'title' | 'text' | 'purpose' | 'good' | 'caution'>): string[] =>
  [...`${rule.title} ${rule.text} ${rule.purpose} ${rule.good} ${rule.caution ?? ''}`.matchAll(/\{(\w+)\}/g)]
    .map((m) => m[1]!)
    .filter((name) => !knownFigures.has(name));

/**
 * Which version a job is worked by: the one its first entry was logged with, so that a running job keeps it; before that the firm’s newest;
 * without any of its own, the shipped one.
 */
export function stepSetOf(firmId: string, sets: readonly StepSet[], entries: readonly Pick<LayEntry, 'stepSetId' | 'occurredAt'>[]): StepSet {
  const shipped = shippedSteps(firmId);
  const all = [shipped, ...sets];
  const first = entries.reduce<(typeof entries)[number] | null>((a, b) => (a && a.occurredAt <= b.occurredAt ? a : b), null);
  const newest = [...sets].sort((a, b) => b.version - a.version)[0] ?? shipped;
  return (first && all.find((s) => s.id === first.stepSetId)) ?? newest;
}

/** Expected minutes of a pane: all its steps, later visits included. */
export const sheetMinutes = (steps: readonly Step[]): number => steps.reduce((s, x) => s + x.minutes, 0);
