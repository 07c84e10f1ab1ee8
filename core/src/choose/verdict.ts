import type { Film, FilmVerdict, GlazingFigures, Grade, PaneVerdict, VerdictInput } from '@yellow-pane/contracts';
import { filmBlock, type BandName } from '../films/index.js';
import { contentHash } from '../ground/index.js';
import { clearYear, type Facade, type FacadeDay } from './facade.js';
import { settleGlazing, type DefiniteCavity, type DefinitePane, type FilmOnFace } from './glass.js';
import { heatDayOf } from './heat-day.js';
import { centreToCentre, conductances, gValue, ratingForG, uValue } from './heat-flow.js';
import { throughGlazing } from './light-through.js';
import { sightDayAndNight, tippingRatio } from './privacy.js';
import { scoreFilm } from './ranking.js';
import { kindCautions, rulings } from './suitability.js';
import { bareYear, thermalBreak, type BareRun, type BreakInput } from './thermal-break.js';

/** Emissivity of a film's free face where its sheet says nothing: plain polyester. @source common practice */
const PLAIN_FILM_EMISSIVITY = 0.84;

/** Light and heat figures of a build-up with or without film. */
export function glazingFigures(panes: readonly DefinitePane[], cavities: readonly DefiniteCavity[], film: FilmOnFace | null, hazeFrac: number): GlazingFigures {
  const [visible, solar, uv] = (['visible', 'solar', 'uv'] as BandName[]).map((band) => throughGlazing(panes, film, band));
  const { betweenPanes, roomEmissivity } = conductances(panes, cavities, film);
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

/**
 * Visible light through a build-up, bare and with a film all over on its room face; null when the film's sheet has not been entered.
 * Unknown glass is taken unfavourably, as in the verdict.
 */
export function visibleThrough(glazing: VerdictInput['glazing'], film: Film): { bareFrac: number; filmedFrac: number } | null {
  const block = film.optics ? filmBlock(film.optics) : null;
  if (!block?.ok) return null;
  const { panes } = settleGlazing(glazing);
  const put: FilmOnFace = { block: block.value, paneIndex: panes.length - 1, face: 'inner', emissivityFrac: film.emissivityFrac ?? PLAIN_FILM_EMISSIVITY };
  return { bareFrac: throughGlazing(panes, null, 'visible').transmittanceFrac, filmedFrac: throughGlazing(panes, put, 'visible').transmittanceFrac };
}

/** Fading: part ultraviolet, part light, part warmth. @source common practice: 40 % UV, 25 % visible, 25 % heat, 10 % the room's own; the last stays */
const fadingOf = (f: GlazingFigures): number => 0.4 * f.uvTransmittanceFrac + 0.25 * f.visibleTransmittanceFrac + 0.25 * f.solarTransmittanceFrac;

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
const knownYears = new Map<string, FacadeDay[]>();
function yearOf(f: Facade): FacadeDay[] {
  const key = contentHash(f);
  const year = knownYears.get(key) ?? clearYear(f);
  if (knownYears.size > 60) knownYears.clear();
  knownYears.set(key, year);
  return year;
}

/** Everything about one pane that is the same for every film. */
export interface PreparedPane {
  readonly input: VerdictInput;
  readonly panes: readonly DefinitePane[];
  readonly cavities: readonly DefiniteCavity[];
  readonly facade: Facade;
  readonly breakInput: BreakInput;
  readonly bareRun: BareRun;
  readonly bare: GlazingFigures;
  readonly open: PaneVerdict['open'];
}

/** Settles what is unknown, walks the facade's year, and judges the bare pane. An unknown bearing is taken as the one of eight that is hardest on the bare pane. */
export function preparePane(input: VerdictInput): PreparedPane {
  const { panes, cavities, open } = settleGlazing(input.glazing);
  const say: PaneVerdict['open'] = [...open];
  const breakInputAt = (deg: number): BreakInput => {
    const facade = facadeOf(input, deg);
    const { climate } = input.settings;
    const indoors = { ...climate, hotC: climate.insideC, coldC: climate.insideC };
    return { panes, cavities, glazing: input.glazing, exposure: input.exposure, facade, climate: facade.isIndoors ? indoors : climate, year: yearOf(facade) };
  };
  const isOpen = input.exposure.facadeDeg === null && !input.exposure.isIndoors;
  const bearings = isOpen ? [0, 45, 90, 135, 180, 225, 270, 315] : [input.exposure.facadeDeg ?? 0];
  const tried = bearings.map((deg) => {
    const breakInput = breakInputAt(deg);
    return { breakInput, run: bareYear(breakInput) };
  });
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
  return {
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
  const put: FilmOnFace = {
    block: block.value,
    paneIndex: face === 'room' ? pane.panes.length - 1 : 0,
    face: face === 'room' ? 'inner' : 'outer',
    emissivityFrac: film.emissivityFrac ?? PLAIN_FILM_EMISSIVITY,
  };
  const figures = glazingFigures(pane.panes, pane.cavities, put, film.hazeFrac ?? 0);
  const risk = thermalBreak(pane.breakInput, put, pane.bareRun);
  const least = input.settings.leastVisibleFrac;
  const keepsLimit = least === null ? null : figures.visibleTransmittanceFrac >= least;
  const limitC = film.temps?.limitC ?? null;
  const tooHot = limitC !== null && risk.hottestPaneC > limitC;
  const sight = sightOf(figures, input);
  const reasons = [
    ...base.reasons,
    ...(keepsLimit === false
      ? [`Keeps ${Math.round(figures.visibleTransmittanceFrac * 100)} % of the light; ${Math.round(least! * 100)} % are asked for.`]
      : []),
    ...(risk.grade === 'go' ? [] : risk.reasons),
    ...(tooHot ? [`The pane gets to ${Math.round(risk.hottestPaneC)} °C; the film is made for ${limitC} °C.`] : []),
  ];
  return {
    filmId: film.id,
    face,
    grade: [risk.grade, keepsLimit === false ? ('do-not' as const) : ('go' as const), tooHot ? ('ask' as const) : ('go' as const)].reduce(worse, base.grade),
    reasons,
    wouldChange: [...base.wouldChange, ...risk.wouldChange],
    figures,
    glareLessFrac: 1 - figures.visibleTransmittanceFrac / bare.visibleTransmittanceFrac,
    heatLessFrac: 1 - figures.gFrac / bare.gFrac,
    fadingLessFrac: 1 - fadingOf(figures) / fadingOf(bare),
    keepsLimit,
    breakRisk: risk,
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
export function judgePane(input: VerdictInput, films: readonly Film[], prepared: PreparedPane = preparePane(input)): PaneVerdict {
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
