import type { BreakRisk, Climate, Exposure, Glazing, Grade } from '@yellow-pane/contracts';
import { edgeStrengthMPa, edgeStressMPa } from './edge-strength.js';
import { outsideC, STEP_S, summerShare, type Facade, type FacadeDay } from './facade.js';
import { UNKNOWN_COVER_MM, type DefiniteCavity, type DefinitePane, type FilmOnFace } from './glass.js';
import { centreToCentre, conductances, insideCoefficient } from './heat-flow.js';
import { throughGlazing, type BandResult } from './light-through.js';
import { edgeC, frameHeat, stepPanes, type PaneNetwork } from './pane-temperature.js';

/** Calm air on the street side, W/(m² K): the rating value of 23–25 is for wind and would flatter the glass. @source common practice of glazing rules for thermal breakage (11–13), from memory */
const CALM_OUTSIDE = 11;
/** A blind close behind the glass: less air moves, and part of what came through comes back. @source house rule */
const BLIND_INSIDE = 0.6;
const BLIND_RETURN = 0.4;
/** The model may be off by this much either way; the grade is asked at both ends. @source house rule, from the spread of contact, lag and absorption */
export const MODEL_SPREAD = 0.2;
/** Share of the sun that a pane soaks up by itself from which on any film more is asked about. @source house rule: about 10 mm of grey float */
const HEAVILY_TINTED = 0.55;
/** Sealants of insulating units are made for about this much for short times. @source common practice, from memory */
const SEAL_LIMIT_C = 60;

/** Everything that decides whether heat may break this pane. */
export interface BreakInput {
  readonly panes: readonly DefinitePane[];
  readonly cavities: readonly DefiniteCavity[];
  readonly glazing: Pick<Glazing, 'frame' | 'edge' | 'edgeCoverMm' | 'ageYears'>;
  readonly exposure: Pick<Exposure, 'blind' | 'partialShadow'>;
  readonly facade: Facade;
  readonly climate: Climate;
  readonly year: readonly FacadeDay[];
}

interface WorstHour {
  readonly ratio: number;
  readonly dayIndex: number;
  readonly step: number;
  readonly pane: number;
  readonly centre: number;
  readonly edge: number;
}
interface YearRun {
  readonly worst: WorstHour;
  readonly hottestC: number;
  readonly soaked: BandResult;
  readonly strengths: readonly number[];
}

const isShadowed = (e: BreakInput['exposure']): boolean => e.partialShadow !== 'none';

function network(input: BreakInput, film: FilmOnFace | null): PaneNetwork {
  const { betweenPanesWPerM2K: betweenPanes, roomEmissivity } = conductances(input.panes, input.cavities, film);
  const inside = insideCoefficient(roomEmissivity) * (input.exposure.blind === 'none' ? 1 : BLIND_INSIDE);
  return {
    thicknessMm: input.panes.map((p) => p.thicknessMm),
    betweenWPerM2K: centreToCentre(input.panes, betweenPanes),
    outsideWPerM2K: CALM_OUTSIDE,
    insideWPerM2K: inside,
  };
}

/** Sun soaked up per unit of light, with what a blind throws back. */
function soaking(input: BreakInput, film: FilmOnFace | null): BandResult {
  const out = throughGlazing(input.panes, film, 'solar');
  if (input.exposure.blind === 'none') return out;
  const turnedFilm: FilmOnFace | null = film && {
    ...film,
    paneIndex: input.panes.length - 1 - film.paneIndex,
    face: film.face === 'inner' ? 'outer' : 'inner',
  };
  const turned = [...input.panes].reverse().map((p): DefinitePane => ({ ...p, coatingFace: p.coatingFace === 'inner' ? 'outer' : 'inner' }));
  const back = throughGlazing(turned, turnedFilm, 'solar').absorbedFrac;
  const returned = BLIND_RETURN * out.transmittanceFrac;
  return { ...out, absorbedFrac: out.absorbedFrac.map((a, i) => a + returned * back[back.length - 1 - i]!) };
}

/** Runs the twelve clear days and finds the hour at which some edge comes nearest to its strength. */
function runYear(input: BreakInput, film: FilmOnFace | null): YearRun {
  const net = network(input, film);
  const soaked = soaking(input, film);
  const frame = frameHeat[input.glazing.frame === 'unknown' ? 'masonry' : input.glazing.frame];
  const cover = input.glazing.edgeCoverMm ?? UNKNOWN_COVER_MM;
  const perimeterM = (2 * (input.facade.widthMm + input.facade.heightMm)) / 1000;
  const strengths = input.panes.map((p) => edgeStrengthMPa(p.kind, input.glazing.edge, perimeterM, input.glazing.ageYears, p.thicknessMm));
  const losses = input.panes.map(
    (_, i) => (i === 0 ? net.outsideWPerM2K : net.betweenWPerM2K[i - 1]!) + (i === input.panes.length - 1 ? net.insideWPerM2K : net.betweenWPerM2K[i]!),
  );
  let worst: WorstHour = { ratio: -1, dayIndex: 0, step: 0, pane: 0, centre: 0, edge: 0 };
  let hottestC = -Infinity;
  input.year.forEach((_, dayIndex) =>
    eachMoment(input, net, soaked, frame, dayIndex, (step, lit, shaded, frameC) => {
      for (let i = 0; i < lit.length; i++) {
        const edge = edgeC(shaded ? shaded[i]! : lit[i]!, frameC, net.thicknessMm[i]!, cover, frame.contactWPerM2K, losses[i]!);
        const ratio = edgeStressMPa(lit[i]! - edge) / strengths[i]!;
        hottestC = Math.max(hottestC, lit[i]!);
        if (ratio > worst.ratio) worst = { ratio, dayIndex, step, pane: i, centre: lit[i]!, edge };
      }
    }),
  );
  return { worst, hottestC, soaked, strengths };
}

/** Walks one clear day, the night before it once through for the start. */
function eachMoment(
  input: BreakInput,
  net: PaneNetwork,
  soaked: BandResult,
  frame: { lagH: number; streetFrac: number },
  dayIndex: number,
  tell: (step: number, lit: readonly number[], shaded: readonly number[] | null, frameC: number) => void,
): void {
  const day = input.year[dayIndex]!;
  const { climate } = input;
  const dark = input.panes.map(() => 0);
  const air = (hour: number) => outsideC(climate, input.facade.latDeg, day.dayOfYear, hour);
  let lit = stepPanes(net, dark, dark, air(0), climate.insideC, Infinity);
  let shaded: number[] | null = isShadowed(input.exposure) ? [...lit] : null;
  const settles = (hour: number) => frame.streetFrac * air(hour) + (1 - frame.streetFrac) * climate.insideC;
  let frameC = 0;
  // the frame remembers the evening before
  frameC = settles(18);
  for (let h = 18; h < 24; h += STEP_S / 3600) frameC += ((settles(h) - frameC) * STEP_S) / 3600 / frame.lagH;
  day.moments.forEach((m, step) => {
    const diffuse = m.diffuseWPerM2;
    const sun = m.litFrac > 0 ? m.directWPerM2 : 0;
    const outside = air(m.hour);
    lit = stepPanes(
      net,
      lit,
      soaked.absorbedFrac.map((a) => a * (sun + diffuse)),
      outside,
      climate.insideC,
      STEP_S,
    );
    if (shaded)
      shaded = stepPanes(
        net,
        shaded,
        soaked.absorbedFrac.map((a) => a * diffuse),
        outside,
        climate.insideC,
        STEP_S,
      );
    frameC += ((settles(m.hour) - frameC) * STEP_S) / 3600 / frame.lagH;
    tell(step, lit, shaded, frameC);
  });
}

/** How near the weakest edge comes to its strength in the worst hour of the year, 1 = at it. */
export const worstRatio = (input: BreakInput, film: FilmOnFace | null): number => runYear(input, film).worst.ratio;

/** A bare pane on a facade is asked once for all films. */
export type BareRun = ReturnType<typeof runYear>;
export const bareYear = (input: BreakInput): BareRun => runYear(input, null);

/**
 * Whether sun may break this pane with this film: pane and edge temperatures over twelve clear days, stress at the edge
 * against its strength, and the cases where no computation may say go.
 * @source docs/models/thermal-break.md: the edge procedure of this house
 */
export function thermalBreak(input: BreakInput, film: FilmOnFace | null, bare: BareRun): BreakRisk {
  const run = film ? runYear(input, film) : bare;
  const { worst } = run;
  const difference = worst.centre - worst.edge;
  const strength = run.strengths[worst.pane]!;
  const added = run.soaked.absorbedFrac[worst.pane]! - bare.soaked.absorbedFrac[worst.pane]!;
  const computed: Grade = worst.ratio * (1 + MODEL_SPREAD) <= 1 ? 'go' : worst.ratio * (1 - MODEL_SPREAD) > 1 ? 'do-not' : 'ask';
  const standing = film ? standingRules(input, run, bare) : [];
  const grade: Grade = computed === 'do-not' ? 'do-not' : computed === 'ask' || standing.length ? 'ask' : 'go';
  const day = input.year[worst.dayIndex]!;
  const summer = summerShare(day.dayOfYear, input.facade.latDeg);
  const pane = input.panes.length > 1 ? `Pane ${worst.pane + 1} from the street` : 'The pane';
  const sentence = `${pane} gets to ${Math.round(worst.centre)} °C in the middle and ${Math.round(worst.edge)} °C at its edge: ${Math.round(difference)} K apart, ${edgeStressMPa(difference).toFixed(0)} of ${strength.toFixed(0)} MPa that this edge stands.`;
  const reasons = [...(computed === 'go' && standing.length ? [] : [sentence]), ...standing];
  if (film && computed !== 'go' && added > 0.05) reasons.push(`The film soaks up ${Math.round(added * 100)} % more of the sun in that pane.`);
  return {
    grade,
    reasons: (reasons.length ? reasons : [sentence]).slice(0, 4),
    wouldChange: grade === 'go' ? [] : whatWouldChange(input, film),
    season: summer > 0.66 ? 'hot' : summer < 0.34 ? 'cold' : 'between',
    month: day.month,
    hour: day.moments[worst.step]!.hour,
    paneIndex: worst.pane,
    centreC: worst.centre,
    edgeC: worst.edge,
    differenceK: difference,
    stressMPa: edgeStressMPa(difference),
    strengthMPa: strength,
    bareDifferenceK: bare.worst.centre - bare.worst.edge,
    hottestPaneC: run.hottestC,
    day: worstDay(input, film, run),
  };
}

/** Cases in which a glass maker is asked, whatever the sum says. @source common practice; docs/models/thermal-break.md §5 */
function standingRules(input: BreakInput, run: YearRun, bare: YearRun): string[] {
  // where no sun comes there is nothing to soak up
  if (input.facade.isIndoors) return [];
  const added = Math.max(...run.soaked.absorbedFrac.map((a, i) => a - bare.soaked.absorbedFrac[i]!));
  if (added < 0.05) return [];
  const out: string[] = [];
  const has = (test: (p: DefinitePane) => boolean) => input.panes.some(test);
  if (has((p) => p.kind === 'wired')) out.push('Wired glass: the cut wires weaken the edge in a way no sum shows.');
  if (input.glazing.edge === 'damaged') out.push('The edge is damaged: a crack may start there at any difference.');
  if (input.glazing.edge === 'patched')
    out.push('The edge was patched: filling closes a chip to the eye, not to stress, and keeps that spot warmer or colder than the rest.');
  if (input.cavities.length > 0 && has((p) => p.coating === 'low-e-soft' || p.coating === 'solar-control') && added > 0.1)
    out.push('Coated double glazing keeps the heat in: the film adds to it.');
  if (has((p) => p.kind === 'laminated') && added > 0.15) out.push('Laminated glass: two cut edges, and the interlayer keeps the warmth.');
  if (has((p) => !['clear', 'low-iron'].includes(p.tint) && p.kind !== 'tempered') && added > 0.1)
    out.push('The glass is already tinted and soaks up sun by itself.');
  const heavy = input.panes.findIndex(
    (p, i) => !['clear', 'low-iron'].includes(p.tint) && p.kind !== 'tempered' && bare.soaked.absorbedFrac[i]! > HEAVILY_TINTED,
  );
  if (heavy >= 0 && added <= 0.1)
    out.push(`Heavily tinted glass: it soaks up ${Math.round(bare.soaked.absorbedFrac[heavy]! * 100)} % of the sun before any film.`);
  if (input.exposure.partialShadow === 'permanent' && added > 0.1) out.push('A shadow edge stays on the pane for hours.');
  const areaM2 = (input.facade.widthMm * input.facade.heightMm) / 1e6;
  if (areaM2 > 5 && has((p) => !['tempered', 'heat-strengthened'].includes(p.kind)) && added > 0.1)
    out.push(`A big pane of ${areaM2.toFixed(1)} m² that is not hardened.`);
  if (input.cavities.length > 0 && run.hottestC > SEAL_LIMIT_C)
    out.push(`The unit gets to ${Math.round(run.hottestC)} °C; its seal is made for about ${SEAL_LIMIT_C} °C.`);
  return out;
}

function whatWouldChange(input: BreakInput, film: FilmOnFace | null): string[] {
  const out: string[] = [];
  if (film && film.face === 'inner' && input.panes.length > 1) out.push('A film for the street face soaks up its heat outside the unit.');
  if (film) out.push('A lighter or more reflecting film soaks up less.');
  if (input.panes.some((p) => p.kind === 'float' || p.kind === 'unknown')) out.push('Tempered or heat-strengthened glass stands far more.');
  if (input.glazing.edge === 'hidden') out.push('A look at the edge under one bead: a clean cut is worth a quarter more.');
  if (input.glazing.frame === 'unknown') out.push('Knowing the frame: masonry was taken, the coldest.');
  if (input.exposure.partialShadow === 'unknown') out.push('Knowing that no shadow stays on the pane.');
  if (input.exposure.blind !== 'none') out.push('Blinds kept away from the glass.');
  return out.slice(0, 4);
}

/** The day of the worst hour, every half hour, for the chart. */
function worstDay(input: BreakInput, film: FilmOnFace | null, run: YearRun): BreakRisk['day'] {
  const net = network(input, film);
  const frame = frameHeat[input.glazing.frame === 'unknown' ? 'masonry' : input.glazing.frame];
  const cover = input.glazing.edgeCoverMm ?? UNKNOWN_COVER_MM;
  const i = run.worst.pane;
  const loss = (i === 0 ? net.outsideWPerM2K : net.betweenWPerM2K[i - 1]!) + (i === input.panes.length - 1 ? net.insideWPerM2K : net.betweenWPerM2K[i]!);
  const allowed = run.strengths[i]! / edgeStressMPa(1);
  const out: BreakRisk['day'] = [];
  eachMoment(input, net, run.soaked, frame, run.worst.dayIndex, (step, lit, shaded, frameC) => {
    if (step % 6) return;
    const edge = edgeC(shaded ? shaded[i]! : lit[i]!, frameC, net.thicknessMm[i]!, cover, frame.contactWPerM2K, loss);
    out.push({ hour: input.year[run.worst.dayIndex]!.moments[step]!.hour, centreC: lit[i]!, edgeC: edge, limitC: edge + allowed });
  });
  return out;
}
