import type { BreakRisk, Film, FilmVerdict, GlazingFigures, PaneVerdict, Sight, UnitSystem } from '@yellow-pane/contracts';
import { filmBlock, referenceName } from '../films/index.js';
import { measureOf } from '../ground/index.js';
import { FACE_M, HIDDEN_BELOW, PERSON_M, SCATTER_HALF_ANGLE_DEG, SCENE_CONTRAST, SHAPES_BELOW } from './privacy.js';
import { FADING } from './verdict.js';
import { wantWords } from './words.js';

// What the verdict on a pane says, in the words of whoever stands before the customer, and how its figures came about.

const whole = (frac: number): string => `${Math.round(frac * 100)} %`;
const tenths = (frac: number): string => `${(100 * frac).toFixed(1)} %`;
const monthNames = ['January', 'February', 'March', 'April', 'May', 'June', 'July', 'August', 'September', 'October', 'November', 'December'];
const clock = (hour: number): string => `${Math.floor(hour)}:${String(Math.round((hour % 1) * 60)).padStart(2, '0')}`;

/** Light, g and U in one line; where nobody stated them: no values. */
export const figuresLine = (f: GlazingFigures | null): string =>
  f ? `light ${whole(f.visibleTransmittanceFrac)} · g ${f.gFrac.toFixed(2)} · U ${f.uWPerM2K.toFixed(1)}` : 'no values';

/** How the figures of a film on a pane came about, from what its maker rates. Empty for a film without values. */
export function figuresWhy(film: Pick<Film, 'optics'>, f: GlazingFigures | null): string[] {
  const o = film.optics;
  if (!o || !f) return [];
  const alone = filmBlock(o);
  const inwards = f.gFrac - f.solarTransmittanceFrac;
  return [
    `Rated ${tenths(o.visible.transmittanceFrac)} through and ${tenths(o.visible.reflectanceGlassSideFrac)} back on ${referenceName[o.ratedOn]}${
      alone.ok ? `; that glass taken off: ${tenths(alone.value.visible.t)} through, ${tenths(alone.value.visible.rFront)} back` : ''
    }.`,
    `On this glass: light ${tenths(f.visibleTransmittanceFrac)} through, ${tenths(f.visibleReflectanceOutFrac)} back; sun ${tenths(f.solarTransmittanceFrac)} through, soaked up pane by pane ${f.absorbedFrac.map(tenths).join(' and ')}. Layer formulas of EN 410, one value for each band: ±3 %.`,
    `g = ${f.solarTransmittanceFrac.toFixed(3)} let through + ${inwards.toFixed(3)} of what is soaked up and comes inwards = ${f.gFrac.toFixed(3)} (EN 410: he 23, hi by the room face).`,
    `U = ${f.uWPerM2K.toFixed(2)} W/m²K at the middle of the pane (EN 673: he 25, hi by the room face, 15 K).`,
    `Ultraviolet ${tenths(f.uvTransmittanceFrac)} through. Fading counts ${whole(FADING.uvFrac)} ultraviolet, ${whole(FADING.lightFrac)} light, ${whole(FADING.sunHeatFrac)} sun heat, ${whole(FADING.ownFrac)} the room’s own (common practice).`,
  ];
}

/** Sun heat of a clear day through bare glass, and with a film. @param film null: none is looked at */
export function heatDayText(
  day: PaneVerdict['heatDay'],
  isIndoors: boolean,
  film: { readonly name: string; readonly heatLessFrac: number | null } | null,
): string {
  if (isIndoors) return 'Between two rooms: no sun comes in here.';
  const kwh = (wh: number) => `${(wh / 1000).toFixed(1)} kWh`;
  const less = film?.heatLessFrac ?? null;
  const withFilm = less === null ? '' : `, ${kwh(day.bareWhPerM2 * (1 - less))} with ${film!.name}: ${whole(less)} less`;
  return `A clear day in ${monthNames[day.month - 1]}: ${kwh(day.bareWhPerM2)} of sun heat through each m² of bare glass${withFilm}.`;
}

/** When the edge has most to bear. Temperatures in °C and K. */
export const worstHourText = (r: Pick<BreakRisk, 'hour' | 'month' | 'bareDifferenceK'>): string =>
  `Worst at ${clock(r.hour)} on a clear day in ${monthNames[r.month - 1]}; without film ${Math.round(r.bareDifferenceK)} K.`;

/** Light levels to start from, lux outside and inside. @source common practice for lighting: overcast to bright day, office 300–500, street at night 10 */
export const lightPresets = [
  { name: 'bright day, lit office', time: 'day', outsideLux: 30_000, insideLux: 500 },
  { name: 'grey day, lit office', time: 'day', outsideLux: 5_000, insideLux: 500 },
  { name: 'grey day, dark room', time: 'day', outsideLux: 5_000, insideLux: 50 },
  { name: 'corridor by day, lit room', time: 'day', outsideLux: 200, insideLux: 500 },
  { name: 'lit street, lit room', time: 'night', outsideLux: 10, insideLux: 300 },
  { name: 'dark garden, lit room', time: 'night', outsideLux: 0.5, insideLux: 150 },
  { name: 'lit street, dark room', time: 'night', outsideLux: 10, insideLux: 1 },
] as const;

/** Who sees whom through a pane. @param isIndoors between two rooms */
export const sightText = (s: Sight, isIndoors: boolean): { inwards: string; outwards: string } => ({
  inwards: `From ${isIndoors ? 'the other side' : 'the street'}: ${{ clear: 'people inside are seen clearly', shapes: 'shapes inside show, no faces', hidden: 'nothing inside is seen' }[s.inwards]}.`,
  outwards: `From the room: ${{ clear: 'the view is clear', shapes: 'shapes outside show', hidden: 'nothing outside is seen' }[s.outwards]}.`,
});

/** Light and dark once over twice the width of a thing. */
const periods = (sizeM: number): string => `${Math.round(1 / (2 * sizeM))} per metre`;

/** How sight through a film is judged. */
export const sightWhy: readonly string[] = [
  `Contrast left = ${SCENE_CONTRAST} × straight share × transmission × far light ÷ (transmission × far light + reflection × near light).`,
  `Scattered light blurs the more, the farther a thing stands behind the film: contrast × (1 − haze + haze × e^(−2π²s²f²)), s = distance × spread (${SCATTER_HALF_ANGLE_DEG}° to half, from memory), f ${periods(PERSON_M)} for a person, ${periods(FACE_M)} for a face.`,
  `Hidden under ${HIDDEN_BELOW}, the contrast threshold of the WMO Guide for visibility (from memory); shapes under ${SHAPES_BELOW}, a house rule.`,
];

const INCHES_BELOW_M = 0.9;
/** How near somebody stands, as one says it. */
function nearness(m: number, units: UnitSystem): string {
  if (units === 'in') return m < INCHES_BELOW_M ? `${Math.round((1000 * m) / 25.4)} in` : `${Math.round(measureOf('roll', 'in').to(m))} ft`;
  return m < 1 ? `${Math.round(m * 20) * 5} cm` : `${m.toFixed(1)} m`;
}

/** How close behind frost one must stand to show. */
function frostText(s: Sight, when: string, units: UnitSystem): string {
  if (s.personWithinM === null) return `${when} a person shows at any distance.`;
  if (s.personWithinM === 0) return `${when} nobody shows, not even close to it.`;
  const face = s.faceWithinM ? `within ${nearness(s.faceWithinM, units)}` : 'never';
  return `${when} a person shows as a shape within ${nearness(s.personWithinM, units)} of it, a face ${face}.`;
}

/** Under which light a film hides the room; empty for one that never does. */
export function hidingText(v: Pick<FilmVerdict, 'tipsAtRatio' | 'day' | 'night'>, units: UnitSystem): string {
  if (v.tipsAtRatio === null) return '';
  if (v.tipsAtRatio === 0)
    return `It hides at any light: it scatters what comes through. ${frostText(v.day!, 'By day', units)} ${frostText(v.night!, 'At night', units)}`;
  return `It hides the room while it is at least ${v.tipsAtRatio < 10 ? v.tipsAtRatio.toFixed(1) : Math.round(v.tipsAtRatio)} times brighter outside than inside; under that it turns.`;
}

/** How the place of a film in the list came about. */
export const scoreWhy = (v: Pick<FilmVerdict, 'wants' | 'score'>): string[] => [
  ...v.wants.map((w) => `${wantWords[w.want]}, weight ${whole(w.weightFrac)}: ${whole(w.metFrac)} met; ${w.rule}.`),
  ...(v.wants.length ? [`Score ${v.score.toFixed(2)}: the sum of weight × met. What must be asked stands after what may be laid.`] : []),
];
