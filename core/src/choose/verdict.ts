import type { BreakRisk, Film, FilmVerdict, GlazingFigures, Grade, PaneVerdict, VerdictInput } from '@yellow-pane/contracts';
import { filmBlock, type BandName, type FilmBlock } from '../films/index.js';
import { contentHash, Memo, shelf } from '../ground/index.js';
import { clearYear, type Facade, type FacadeDay } from './facade.js';
import { settleGlazing, type DefiniteCavity, type DefinitePane, type FilmOnFace } from './glass.js';
import { heatDayOf } from './heat-day.js';
import { centreToCentre, conductances, gValue, ratingForG, ratingForU, uValue } from './heat-flow.js';
import { humidityPctAt } from '../physics/index.js';
import { throughGlazing } from './light-through.js';
import { sightDayAndNight, tippingRatio } from './privacy.js';
import { scoreFilm } from './ranking.js';
import { kindCautions, rulings } from './suitability.js';
import { bareYear, MODEL_SPREAD, thermalBreak, worstRatio, type BareRun, type BreakInput } from './thermal-break.js';

/** Emissivity of a film's free face where its sheet says nothing: plain polyester. @source common practice */
const PLAIN_FILM_EMISSIVITY = 0.84;

/** Light and heat figures of a build-up with or without film. */
function glazingFigures(panes: readonly DefinitePane[], cavities: readonly DefiniteCavity[], film: FilmOnFace | null, hazeFrac: number): GlazingFigures {
  const [visible, solar, uv] = (['visible', 'solar', 'uv'] as BandName[]).map((band) => throughGlazing(panes, film, band));
  const { betweenPanesWPerM2K: betweenPanes, roomEmissivity } = conductances(panes, cavities, film);
  return {
    visibleTransmittanceFrac: visible!.transmittanceFrac,
    visibleReflectanceOutFrac: visible!.reflectanceOutFrac,
    visibleReflectanceInFrac: visible!.reflectanceInFrac,
    solarTransmittanceFrac: solar!.transmittanceFrac,
    solarReflectanceOutFrac: solar!.reflectanceOutFrac,
    absorbedFrac: [...solar!.absorbedFrac],
    uvTransmittanceFrac: uv!.transmittanceFrac,
    hazeFrac,
    uWPerM2K: uValue(panes, cavities, film),
    gFrac: gValue(solar!.transmittanceFrac, solar!.absorbedFrac, centreToCentre(panes, betweenPanes), ratingForG(roomEmissivity)),
  };
}

/** A film on its face of a build-up; null: nobody has entered its light and heat values, or they cannot be one film's. */
export function filmOnFace(film: Pick<Film, 'optics' | 'emissivityFrac'>, paneCount: number, face: 'room' | 'street'): FilmOnFace | null {
  const block = film.optics ? filmBlock(film.optics) : null;
  return block?.ok ? putOn(block.value, film, paneCount, face) : null;
}
const putOn = (block: FilmBlock, film: Pick<Film, 'emissivityFrac'>, paneCount: number, face: 'room' | 'street'): FilmOnFace => ({
  block,
  paneIndex: face === 'room' ? paneCount - 1 : 0,
  face: face === 'room' ? 'inner' : 'outer',
  emissivityFrac: film.emissivityFrac ?? PLAIN_FILM_EMISSIVITY,
});

/**
 * Visible light through a build-up, bare and with a film all over on its room face; null when the film's sheet has not been entered.
 * Unknown glass is taken unfavourably, as in the verdict.
 */
export function visibleThrough(glazing: VerdictInput['glazing'], film: Film): { bareFrac: number; filmedFrac: number } | null {
  const { panes } = settleGlazing(glazing);
  const put = filmOnFace(film, panes.length, 'room');
  if (!put) return null;
  return { bareFrac: throughGlazing(panes, null, 'visible').transmittanceFrac, filmedFrac: throughGlazing(panes, put, 'visible').transmittanceFrac };
}

/** Shares of what makes things fade; the room's own no film takes away. @source common practice */
export const FADING = { uvFrac: 0.4, lightFrac: 0.25, sunHeatFrac: 0.25, ownFrac: 0.1 } as const;
/** How fast things fade behind a pane, 1 = in the open. */
export const fadingOf = (f: Pick<GlazingFigures, 'uvTransmittanceFrac' | 'visibleTransmittanceFrac' | 'solarTransmittanceFrac'>): number =>
  FADING.uvFrac * f.uvTransmittanceFrac + FADING.lightFrac * f.visibleTransmittanceFrac + FADING.sunHeatFrac * f.solarTransmittanceFrac + FADING.ownFrac;

const facadeOf = (input: VerdictInput, facadeDeg: number): Facade => ({
  latDeg: input.latDeg,
  lonDeg: input.lonDeg,
  zoneMinutes: input.zoneMinutes,
  year: input.year,
  facadeDeg,
  widthMm: input.widthMm,
  heightMm: input.heightMm,
  revealMm: input.revealMm,
  overhangMm: input.exposure.overhangMm ?? 0,
  overhangAboveMm: input.exposure.overhangAboveMm ?? 0,
  isIndoors: input.exposure.isIndoors,
});

/** A facade's year is the same for all its panes of one size: worked out once. */
const years = shelf<FacadeDay[]>(60);
const yearOf = (f: Facade, memo: Memo): FacadeDay[] => memo.once(years, contentHash(f), () => clearYear(f));

/** Everything about one pane that is the same for every film. */
export interface PreparedPane {
  readonly input: VerdictInput;
  readonly panes: readonly DefinitePane[];
  readonly cavities: readonly DefiniteCavity[];
  readonly facade: Facade;
  readonly breakInput: BreakInput;
  /** The same pane with one thing that nobody knows answered well; and with all of them. */
  readonly unknowns: readonly Unknown[];
  readonly atBest: BreakInput | null;
  readonly bareRun: BareRun;
  readonly bare: GlazingFigures;
  readonly open: PaneVerdict['open'];
}

/** Settles what is unknown, walks the facade's year, and judges the bare pane. An unknown bearing is taken as the one of eight that is hardest on the bare pane. */
export function preparePane(input: VerdictInput, memo = new Memo()): PreparedPane {
  const { panes, cavities, open } = settleGlazing(input.glazing);
  const say: PaneVerdict['open'] = [...open];
  const breakInputAt = (deg: number): BreakInput => {
    const facade = facadeOf(input, deg);
    const { climate } = input.settings;
    const indoors = { ...climate, hotC: climate.insideC, coldC: climate.insideC };
    return {
      panes,
      cavities,
      glazing: input.glazing,
      exposure: input.exposure,
      facade,
      climate: facade.isIndoors ? indoors : climate,
      year: yearOf(facade, memo),
    };
  };
  const isOpen = input.exposure.facadeDeg === null && !input.exposure.isIndoors;
  const bearings = isOpen ? [0, 45, 90, 135, 180, 225, 270, 315] : [input.exposure.facadeDeg ?? 0];
  const tried = bearings.map((deg) => {
    const breakInput = breakInputAt(deg);
    return { breakInput, run: bareYear(breakInput) };
  });
  const easiest = tried.reduce((a, b) => (b.run.worst.ratio < a.run.worst.ratio ? b : a));
  const hardest = tried.reduce((a, b) => (b.run.worst.ratio > a.run.worst.ratio ? b : a));
  if (isOpen)
    say.push({
      what: 'Which way the pane looks',
      settle: 'A compass, or the time when the sun leaves it.',
      assumed: `taken as ${hardest.breakInput.facade.facadeDeg}°, the hardest of eight`,
    });
  if (input.exposure.partialShadow === 'unknown' && !input.exposure.isIndoors)
    say.push({ what: 'Whether a shadow edge stays on it', settle: 'Look on a sunny day, or find what stands before it.', assumed: 'taken as shadowed' });
  if (input.exposure.blind === 'unknown')
    say.push({ what: 'Whether a blind hangs behind it', settle: 'Ask, or look for brackets.', assumed: 'taken as hanging' });
  const unknowns = unknownsOf(hardest.breakInput, input, isOpen ? easiest.breakInput : null);
  return {
    unknowns,
    atBest: unknowns.length ? unknowns.reduce((b, u) => u.answered(b), hardest.breakInput) : null,
    input,
    panes,
    cavities,
    facade: hardest.breakInput.facade,
    breakInput: hardest.breakInput,
    bareRun: hardest.run,
    bare: glazingFigures(panes, cavities, null, 0),
    open: say,
  };
}

/** Something nobody knows, and what the pane would be if it turned out well. */
export interface Unknown {
  readonly what: string;
  readonly settle: string;
  readonly answered: (input: BreakInput) => BreakInput;
}

/** What is unknown of a pane and its place that decides on breaking, each answered at its favourable end. */
function unknownsOf(base: BreakInput, input: VerdictInput, easiestBearing: BreakInput | null): Unknown[] {
  const out: Unknown[] = [];
  const add = (what: string, settle: string, answered: Unknown['answered']) => void out.push({ what, settle, answered });
  const { glazing, exposure } = input;
  const eachPane = (change: (own: VerdictInput['glazing']['panes'][number], settled: DefinitePane) => DefinitePane) => (b: BreakInput): BreakInput => ({ ...b, panes: b.panes.map((p, i) => change(glazing.panes[i]!, p)) }); // prettier-ignore
  if (glazing.panes.some((p) => p.kind === 'unknown'))
    add(
      'what kind of glass it is',
      'Look for a stamp in the corner.',
      eachPane((own, p) => (own.kind === 'unknown' ? { ...p, kind: 'tempered' } : p)),
    );
  if (glazing.panes.some((p) => p.thicknessMm === null))
    add('how thick it is', 'A thickness meter, or the two reflections of a lamp.', eachPane((own, p) => (own.thicknessMm === null ? { ...p, thicknessMm: BEST.thicknessMm } : p))); // prettier-ignore
  if (glazing.panes.some((p) => p.tint === 'unknown'))
    add(
      'whether it is tinted',
      'White paper behind it, beside an open window.',
      eachPane((own, p) => (own.tint === 'unknown' ? { ...p, tint: 'clear' } : p)),
    );
  if (glazing.panes.some((p) => p.coating === 'unknown'))
    add('whether it is coated', 'Count a lamp’s reflections: one of another colour is a coating.', eachPane((own, p) => (own.coating === 'unknown' ? { ...p, coating: 'none' } : p))); // prettier-ignore
  const put = (part: Partial<BreakInput['glazing']>) => (b: BreakInput): BreakInput => ({ ...b, glazing: { ...b.glazing, ...part } }); // prettier-ignore
  if (glazing.edge === 'hidden') add('how good its edge is', 'Take one bead off and look.', put({ edge: 'cut' }));
  if (glazing.edgeCoverMm === null) add('how deep the frame covers its edge', 'A feeler beside the gasket, or one bead off.', put({ edgeCoverMm: BEST.coverMm })); // prettier-ignore
  if (glazing.ageYears === null) add('how old it is', 'A date in the spacer bar, or ask.', put({ ageYears: 0 }));
  if (glazing.frame === 'unknown') add('what its frame is made of', 'Scratch it where nobody sees, or ask.', put({ frame: 'wood' }));
  if (exposure.isIndoors) return out;
  const stand = (part: Partial<BreakInput['exposure']>) => (b: BreakInput): BreakInput => ({ ...b, exposure: { ...b.exposure, ...part } }); // prettier-ignore
  if (exposure.partialShadow === 'unknown') add('whether a shadow edge stays on it', 'Look on a sunny day.', stand({ partialShadow: 'none' }));
  if (exposure.blind === 'unknown') add('whether a blind hangs behind it', 'Ask, or look for brackets.', stand({ blind: 'none' }));
  if (easiestBearing) add('which way it looks', 'A compass, or the time when the sun leaves it.', (b) => ({ ...b, facade: easiestBearing.facade, year: easiestBearing.year })); // prettier-ignore
  return out;
}
/** The favourable end of what nobody measured: thin glass soaks up little, a shallow rebate keeps the edge warm. @source house rules, beside the unfavourable ones of `settleGlazing` */
const BEST = { thicknessMm: 4, coverMm: 8 };

/**
 * What is unknown never forbids a film by itself: where the worst answers to open questions say *do not* and the best ones do not, it is asked,
 * both ends are said, and so is the one answer that decides most.
 * @returns null where no answer could change it
 */
function hangsOn(pane: PreparedPane, film: FilmOnFace, worst: BreakRisk): { reason: string; change: string } | null {
  if (worst.grade !== 'do-not' || !pane.atBest) return null;
  const best = worstRatio(pane.atBest, film);
  if (best * (1 - MODEL_SPREAD) > 1) return null;
  const byOne = pane.unknowns.map((u) => ({ u, ratio: worstRatio(u.answered(pane.breakInput), film) }));
  const decides = byOne.reduce((a, b) => (b.ratio < a.ratio ? b : a)).u;
  const share = (ratio: number) => `${Math.round(100 * ratio)} %`;
  const ratio = worst.stressMPa / worst.strengthMPa;
  return {
    reason: `Not known enough to say: with every open answer at its worst the edge would bear ${share(ratio)} of what it stands, at its best ${share(best)}. Most hangs on ${decides.what}.`,
    change: decides.settle,
  };
}

/** What a film that keeps heat in does to the face that people sit by, in the year's coldest hour; null: nothing worth saying. @source EN 673 coefficients, ISO 13788 idea of the inner surface; docs/models/heat.md */
function coldFace(pane: PreparedPane, film: FilmOnFace): string | null {
  const { panes, cavities, input } = pane;
  if (input.exposure.isIndoors || film.face !== 'inner' || film.paneIndex !== panes.length - 1 || film.emissivityFrac > KEEPS_HEAT_BELOW) return null;
  const { insideC, coldC } = input.settings.climate;
  const face = (f: FilmOnFace | null) => {
    const { roomEmissivity } = conductances(panes, cavities, f);
    return insideC - (uValue(panes, cavities, f) / ratingForU(roomEmissivity).insideWPerM2K) * (insideC - coldC);
  };
  const [before, after] = [face(null), face(film)];
  if (uValue(panes, cavities, null) < POOR_U && before - after < 1) return null;
  const sweats = humidityPctAt(insideC, Math.max(-44, after));
  return `Keeps heat in the room and off its own face: in the coldest hour (${Math.round(coldC)} °C) that face gets to ${Math.round(after)} °C instead of ${Math.round(before)} °C and sweats from ${Math.round(sweats)} % humidity on. Sills and frames get wet: say so.`;
}
/** @source EN 12898: plain polyester and glass 0.84; film sold as keeping heat in is below this (house rule) */
const KEEPS_HEAT_BELOW = 0.5;
/** Glass that loses so much and more is poor: single panes and old uncoated units. @source house rule, EN 673 values of 2.7 and more */
const POOR_U = 2;

const worse = (a: Grade, b: Grade): Grade => (a === 'do-not' || b === 'do-not' ? 'do-not' : a === 'ask' || b === 'ask' ? 'ask' : 'go');

/** What one film does to a prepared pane. */
export function judgeFilm(pane: PreparedPane, film: Film): FilmVerdict {
  const { input, bare } = pane;
  const face = input.filmFace !== 'as-made' ? input.filmFace : film.mounting === 'outside' ? 'street' : 'room';
  const rules = rulings(film, input.glazing, face, input.exposure.isIndoors);
  const block = film.optics ? filmBlock(film.optics) : null;
  const base = {
    filmId: film.id,
    face,
    grade: rules.reduce<Grade>((g, r) => worse(g, r.grade), 'go'),
    reasons: rules.map((r) => r.reason),
    wouldChange: rules.flatMap((r) => r.change ?? []),
  };
  if (!block?.ok)
    return {
      ...base,
      grade: worse(base.grade, 'ask'),
      reasons: [...base.reasons, block ? block.message : 'Its light and heat values have not been entered: nobody can say what it does to this glass.'],
      ...nothingKnown,
    };
  const put = putOn(block.value, film, pane.panes.length, face);
  const figures = glazingFigures(pane.panes, pane.cavities, put, film.hazeFrac ?? 0);
  const risk = thermalBreak(pane.breakInput, put, pane.bareRun);
  const least = input.settings.leastVisibleFrac;
  const keepsLimit = least === null ? null : figures.visibleTransmittanceFrac >= least;
  const limitC = film.temps?.limitC ?? null;
  const tooHot = limitC !== null && risk.hottestPaneC > limitC;
  const sight = sightOf(figures, input);
  const open = hangsOn(pane, put, risk);
  const riskGrade: Grade = open ? 'ask' : risk.grade;
  const cold = coldFace(pane, put);
  const reasons = [
    ...base.reasons,
    ...(keepsLimit === false
      ? [`Keeps ${Math.round(figures.visibleTransmittanceFrac * 100)} % of the light; ${Math.round(least! * 100)} % are asked for.`]
      : []),
    ...(open ? [open.reason] : []),
    ...(risk.grade === 'go' ? [] : risk.reasons),
    ...(cold ? [cold] : []),
    ...(tooHot ? [`The pane gets to ${Math.round(risk.hottestPaneC)} °C; the film is made for ${limitC} °C.`] : []),
  ];
  return {
    filmId: film.id,
    face,
    grade: [
      riskGrade,
      cold ? ('ask' as const) : ('go' as const),
      keepsLimit === false ? ('do-not' as const) : ('go' as const),
      tooHot ? ('ask' as const) : ('go' as const),
    ].reduce(worse, base.grade),
    reasons,
    wouldChange: [...(open ? [open.change] : []), ...base.wouldChange, ...risk.wouldChange.filter((w) => w !== open?.change)],
    figures,
    glareLessFrac: 1 - figures.visibleTransmittanceFrac / bare.visibleTransmittanceFrac,
    heatLessFrac: 1 - figures.gFrac / bare.gFrac,
    fadingLessFrac: 1 - fadingOf(figures) / fadingOf(bare),
    keepsLimit,
    breakRisk: { ...risk, grade: riskGrade },
    ...sight,
    ...scoreFilm(input.settings.wants, { film, figures, bare, day: sight.day, night: sight.night }),
  };
}

const nothingKnown = {
  figures: null,
  glareLessFrac: null,
  heatLessFrac: null,
  fadingLessFrac: null,
  keepsLimit: null,
  breakRisk: null,
  day: null,
  night: null,
  tipsAtRatio: null,
  score: 0,
  wants: [],
};

function sightOf(f: GlazingFigures, input: VerdictInput) {
  return {
    ...sightDayAndNight(f.visibleTransmittanceFrac, f.visibleReflectanceOutFrac, f.visibleReflectanceInFrac, f.hazeFrac, input.settings.light),
    tipsAtRatio: tippingRatio({ transmittanceFrac: f.visibleTransmittanceFrac, reflectanceNearFrac: f.visibleReflectanceOutFrac, hazeFrac: f.hazeFrac }),
  };
}

const order: Record<Grade, number> = { go: 0, ask: 1, 'do-not': 2 };

/**
 * All films on one pane, best first: what may be laid before what must be asked before what must not, each by its score.
 * @source docs/models: light, heat, thermal-break, privacy, ranking
 */
export function judgePane(input: VerdictInput, films: readonly Film[], memo = new Memo()): PaneVerdict {
  const prepared = preparePane(input, memo);
  const { bare } = prepared;
  const bareRisk = thermalBreak(prepared.breakInput, null, prepared.bareRun);
  const judged = films.map((f) => judgeFilm(prepared, f));
  judged.sort((a, b) => order[a.grade] - order[b.grade] || b.score - a.score);
  const kinds = new Set(films.map((f) => f.kind));
  return {
    bare: {
      ...nothingKnown,
      filmId: null,
      face: 'room',
      grade: bareRisk.grade,
      reasons: bareRisk.grade === 'go' ? [] : bareRisk.reasons,
      wouldChange: [],
      figures: bare,
      breakRisk: bareRisk,
      ...sightOf(bare, input),
    },
    films: judged,
    heatDay: heatDayOf(prepared.breakInput.year, prepared.facade, bare.gFrac, prepared.panes.length),
    open: [...prepared.open],
    cautions: [
      'Broad-band values: every share is ±0.03. A glazier and the glass maker’s chart decide where this says ask.',
      ...Object.entries(kindCautions).flatMap(([kind, text]) => (kinds.has(kind as Film['kind']) ? [text] : [])),
    ],
  };
}

/** A pane of a job with the film chosen for it. */
export interface PaneToJudge {
  readonly id: string;
  readonly input: VerdictInput;
  readonly film: Film;
}
/** What a whole job has to be told of one pane. */
export interface PaneJudged {
  readonly id: string;
  readonly grade: Grade;
  /** The first of what is said against it; empty: nothing is. */
  readonly reason: string;
}
const judgedFilms = shelf<FilmVerdict>(500);

/** The film chosen for a pane, judged; a tower’s panes that are alike in everything that counts are judged once. */
export function judgeChosen({ id, input, film }: PaneToJudge, memo: Memo): PaneJudged {
  const { grade, reasons } = memo.once(judgedFilms, contentHash([input, film]), () => judgeFilm(preparePane(input, memo), film));
  return { id, grade, reason: reasons[0] ?? '' };
}
