import type { Film, Ground, Hardware, LaySettings, PaneTrait, StepRule, StepSet, SurfaceKind } from '@yellow-pane/contracts';
import { verdictOnGround } from '../choose/index.js';
import { formedAt, type DrySurface } from '../measure/index.js';
import { roomOf, wantedFor } from '../prepare/index.js';
import type { LayRecords } from './lay-records.js';
import { filledSteps, isForKind, type Step, type StepFigures } from './run-sheet.js';
import { shippedSteps } from './shipped-steps.js';

/** What has to be asked or waited for before film goes on a ground. @source common practice */
export function askedOfGround(g: Ground): string | null {
  if (g.state === 'peeling' || g.state === 'chalking') return 'The paint lets go: no film until it is prepared. Old paint may hold lead: have it tested first.';
  if (g.isDamp) return 'It was found damp: no film until it is dry.';
  return null;
}

/** How two wrapped edges meet, by the school of the corner. */
export const cornerWords = {
  relief: 'The side goes round first with its tab of {tab} on to the end, the end is laid over it and trimmed at the arris.',
  mitre: 'The side goes round first, its 45° tip on to the end; the end is laid over it and trimmed along the tip.',
  envelope: 'The side goes round first; what stands out at the corner is folded flat behind the end, like a parcel, and the end laid over it.',
} as const;

/** What comes off a face before film goes on, and what film is cut round. */
export function hardwareFigures(hardware: readonly Hardware[]): { readonly off: string; readonly round: string } {
  const named = (...how: Hardware['handling'][]) => hardware.filter((h) => how.includes(h.handling)).map((h) => h.what);
  const [off, round] = [named('off'), named('round', 'open')];
  return { off: off.length ? `Off: ${off.join(', ')}.` : 'Nothing comes off.', round: round.length ? `Stays and is cut round: ${round.join(', ')}.` : '' };
}

/** Whether paint is fresh is a matter of the day, and no patch answers it. */
const FAR_OFF = '9999-12-31';
/** What of a ground asks for steps of its own: one in doubt is tried with a patch of this film first. */
export const groundTraits = (ground: Ground, film: Film, isLetters = false): PaneTrait[] =>
  verdictOnGround(film, ground, FAR_OFF, isLetters).needsPatch ? ['patch'] : [];

/** What was colder than its film wants it: it is warmed first, its hollows by themselves, and what was pressed is tried. */
export function coldTraits(surface: DrySurface, film: Film, { job }: Pick<LayRecords, 'job'>): PaneTrait[] {
  const isCold = (surface.ground.surfaceTempC ?? roomOf(job.prepare).airC) < wantedFor(film, surface).leastC;
  return isCold ? ['cold', ...(formedAt(surface).hollows ? (['cold-hollows'] as const) : [])] : [];
}

/** What is known of a surface for laying film on it dry, and what of it asks for steps of its own. */
export type DryFigures = StepFigures & { readonly has: readonly PaneTrait[] };

/** Steps that take off what comes off, and isolate what is electric. */
const TAKES_OFF: readonly string[] = ['panel-hardware', 'wall-covers', 'counter-clear', 'sign-clear'];

/** What was stretched is heated through before it is trimmed, as the steps ship, or after: then it need not cool before the knife comes. */
function bySchool(rules: readonly StepRule[], postHeat: LaySettings['postHeat']): readonly StepRule[] {
  const heat = rules.find((r) => r.key.endsWith('-post-heat'));
  const trim = heat && rules.findIndex((r) => r.key === heat.key.replace('post-heat', 'trim'));
  if (postHeat === 'before-trim' || !heat || trim === undefined || trim < rules.indexOf(heat)) return rules;
  const late = { ...heat, text: heat.text.replace(' Let it cool before it is cut.', ''), wait: null };
  return [...rules.slice(0, trim + 1).filter((r) => r !== heat), late, ...rules.slice(trim + 1)];
}

/** The steps of what is laid dry, of its kind, after what its ground needs. A version of before there were any has those that ship. */
export function stepsOfDry(
  set: StepSet,
  kind: SurfaceKind,
  known: DryFigures,
  ground: readonly StepRule[],
  postHeat: LaySettings['postHeat'] = 'before-trim',
): Step[] {
  const ofKind = (s: StepSet) => s.steps.filter((r) => isForKind(r, kind));
  const own = ofKind(set);
  const rules = bySchool(own.length ? own : ofKind(shippedSteps(set.firmId)), postHeat);
  const isThere = (t: PaneTrait) => known.has.includes(t);
  const asked = rules.filter(({ when: { has, without } }) => (!has?.length || has.some(isThere)) && !without?.some(isThere));
  // what comes off does so before anything is washed or sanded
  const off = ground.length ? asked.filter((r) => TAKES_OFF.includes(r.key)) : [];
  return filledSteps([...off, ...ground, ...asked.filter((r) => !off.includes(r))], known);
}
