import type { Film, Ground, PrepareSettings, PrimerSchool } from '@yellow-pane/contracts';
import { formedAt, type DrySurface } from '../measure/index.js';
import { saturationHPa } from '../physics/index.js';
import { boxHours, type FilmBox } from './film-box.js';

/** The air in the room while a ground is made ready. */
export interface RoomAir {
  readonly airC: number;
  readonly humidityPct: number;
}

/** One piece of work on a ground before film goes on, and the wait that it begins. */
export interface GroundTask {
  readonly key: 'putty' | 'sand' | 'degrease' | 'rinse' | 'primer' | 'sand-primer' | 'dust' | 'wipe' | 'warm';
  readonly title: string;
  readonly text: string;
  /** How long one waits after it, hours, from the soonest to the longest; null: not at all. */
  readonly waitHours: readonly [number, number] | null;
  /** What the hand has to find before the wait is over, whatever the clock says. */
  readonly proof: string | null;
  readonly caution: string | null;
}

/** Room air where nobody measured: °C and %. @source common practice: a heated room */
export const ROOM: RoomAir = { airC: 21, humidityPct: 50 };
/** The room as it was read or typed, or as it is taken for. */
export const roomOf = (settings: Pick<PrepareSettings, 'typed'> | null | undefined): RoomAir => ({
  airC: settings?.typed.roomC ?? ROOM.airC,
  humidityPct: settings?.typed.roomHumidityPct ?? ROOM.humidityPct,
});

/** What has to be done to a ground, in its order. */
export interface GroundPlan {
  readonly tasks: readonly GroundTask[];
  /** All waits together, hours. */
  readonly waitHours: readonly [number, number];
  readonly coats: number;
  /** Primer as it is thinned, litres; 0: none. */
  readonly primerL: number;
}

/** Least drying at 20 °C and 50 %, hours. @source common practice: over 2 h (water-based), over 1 h (solvent-based) */
const LEAST_HOURS: Readonly<Record<PrimerSchool, number>> = { water: 2, solvent: 1 };
const REFERENCE: RoomAir = { airC: 20, humidityPct: 50 };
/** "Over two hours" is taken as up to one and a half times as long. @source house rule */
const AT_MOST = 1.5;
/** A solvent dries twice as fast when it is 10 °C warmer, as vapour pressures of common solvents go. @source rule of thumb, from memory */
const SOLVENT_DOUBLES_EVERY_C = 10;
/** No air so damp or cold is reckoned with. @source house rule: beyond it one heats or waits for another day */
const SLOWEST = 8;
/** Thinned primer for a square metre and coat, litres. @source house figure */
const PRIMER_L_PER_M2 = 0.12;
const COATS: Partial<Record<Ground['material'], number>> = { 'wood-board': 2, wood: 2, plasterboard: 1, plaster: 1, concrete: 1, brick: 2 };

/**
 * How much longer than at 20 °C and 50 % something dries.
 * @param airC 5 … 40, @param humidityPct 0 … 95
 * @source water: evaporation goes with the deficit of vapour pressure (Dalton 1802; docs/models/columns.md §5), over still air of this room
 */
export function dryingFactor(school: PrimerSchool, { airC, humidityPct }: RoomAir): number {
  if (school === 'solvent') return Math.min(SLOWEST, 2 ** ((REFERENCE.airC - airC) / SOLVENT_DOUBLES_EVERY_C));
  const deficit = (a: RoomAir) => saturationHPa(a.airC) * (1 - a.humidityPct / 100);
  return Math.min(SLOWEST, deficit(REFERENCE) / Math.max(1e-9, deficit({ airC, humidityPct })));
}

const range = (leastHours: number, factor: number): [number, number] => [leastHours * factor, leastHours * factor * AT_MOST];

/** How warm a ground and its film are wanted, °C. */
export interface WantedC {
  /** Colder than this it is warmed first. */
  readonly leastC: number;
  /** A room is heated to this for it. */
  readonly heatedC: number;
  readonly title: string;
}
/** @source common practice: interior film at 15 to 25 °C */
const INTERIOR: WantedC = { leastC: 15, heatedC: 20, title: 'Bring it to 15 to 25 °C' };
/** Cast film that has to give over edges and into hollows. @source common practice: surface and room at 70 °F (21 °C); two degrees below pass, house rule */
const STRETCHED: WantedC = { leastC: 19, heatedC: 21, title: 'Bring it, and the film, to 21 °C' };
/** How warm the ground of a film is wanted. */
export function wantedFor(film: Pick<Film, 'construction'> | undefined, surface: DrySurface): WantedC {
  const { edges, hollows } = formedAt(surface);
  return film?.construction === 'cast-vinyl' && (edges || hollows) ? STRETCHED : INTERIOR;
}

/**
 * What has to be done to a ground before film that is laid dry goes on, in the order of the trade: fill – dry by hand – sand, degrease – rinse twice, prime – dry – sand,
 * dust, wipe, bring to temperature.
 * @param areaM2 of film @param school of the primer @param box the thickest roll of its film; null: nobody knows it @param wanted how warm its film wants it
 * @source common practice
 */
export function groundPlan(
  ground: Ground,
  areaM2: number,
  school: PrimerSchool,
  air: RoomAir,
  box: FilmBox | null = null,
  wanted: WantedC = INTERIOR,
): GroundPlan {
  const tasks: GroundTask[] = [];
  const drinks = ground.finish === 'bare' || ground.state === 'damaged';
  const coats = drinks ? (COATS[ground.material] ?? 0) : 0;
  const isOldPaint = ground.finish === 'painted' && ground.madeOn === null;
  const dustCaution = isOldPaint
    ? 'Paint of unknown age may hold lead, old render asbestos: have it tested before it is sanded. Mask, damp sanding, nobody else in the room.'
    : 'Dust mask; vacuum, do not sweep.';
  const factor = dryingFactor(school, air);
  if (ground.state === 'damaged')
    tasks.push(
      { key: 'putty', title: 'Fill it', text: 'Putty into holes and over edges, a little proud.', waitHours: range(2, dryingFactor('water', air)), proof: 'It takes no mark of a finger nail.', caution: null }, // prettier-ignore
      { key: 'sand', title: 'Sand it flush', text: 'Flat block, fine grain; feel it with closed eyes.', waitHours: null, proof: null, caution: dustCaution },
    );
  if (ground.isGreasy)
    tasks.push(
      { key: 'degrease', title: 'Degrease', text: 'Trisodium phosphate or detergent in water, from the foot upwards; brush what is grooved.', waitHours: null, proof: null, caution: 'Gloves and glasses: trisodium phosphate burns skin and eyes.' }, // prettier-ignore
      {
        key: 'rinse',
        title: 'Rinse twice',
        text: 'Clear water, twice: what is left of it is why film falls off.',
        waitHours: [10, 16],
        proof: 'Dry to the touch, no streak.',
        caution: null,
      },
    );
  if (coats > 0)
    tasks.push(
      {
        key: 'primer',
        title: coats === 1 ? 'Prime it' : `Prime it, ${coats} coats`,
        text: `One part primer to one part ${school === 'water' ? 'water' : 'of its thinner'}${air.airC < 15 ? ', a little richer in the cold' : ''}; along the grain, thin. Cut edges one coat more.`,
        waitHours: [range(LEAST_HOURS[school], factor)[0] * coats, range(LEAST_HOURS[school], factor)[1] * coats],
        proof: 'Dry to the back of the hand: not cool, not tacky.',
        caution: school === 'solvent' ? 'Solvent: air the room, gloves, no flame, no gun and no spark until nothing is smelt.' : null,
      },
      { key: 'sand-primer', title: 'Sand lightly', text: 'Only what stands up.', waitHours: null, proof: null, caution: 'Dust mask; vacuum, do not sweep.' },
    );
  tasks.push({
    key: 'dust',
    title: 'Dust off, feel by hand',
    text: 'Brush, vacuum, lint-free cloth; then the whole face with a clean hand.',
    waitHours: null,
    proof: 'Nothing is felt.',
    caution: null,
  });
  tasks.push({ key: 'wipe', title: 'Wipe with alcohol', text: 'Seventy parts alcohol, thirty water, last of all; dry it off.', waitHours: [0.1, 0.25], proof: 'Nothing comes off on the cloth.', caution: 'Alcohol burns: doors open, no flame, no gun until nothing is smelt.' }); // prettier-ignore
  const cold = ground.surfaceTempC ?? air.airC;
  if (cold < wanted.leastC)
    tasks.push({ key: 'warm', title: wanted.title, text: `Heat the room, not the spot; film in its opened box beside it, upright. Clean all of it while it warms.${ground.material === 'steel' ? ' Magnets hold the film on steel.' : ''}${boxWords(box, cold, air, wanted)}`, waitHours: warmHours(box, cold, air, wanted), proof: 'Read with the infrared thermometer at foot, middle and top.', caution: null }); // prettier-ignore
  const sum = (i: 0 | 1) => tasks.reduce((s, t) => s + (t.waitHours?.[i] ?? 0), 0);
  return { tasks, waitHours: [sum(0), sum(1)], coats, primerL: coats * areaM2 * PRIMER_L_PER_M2 };
}

/** For ground and things in the room. @source house rule */
const GROUND_HOURS = [2, 8] as const;
const rollHours = (box: FilmBox | null, coldC: number, { airC }: RoomAir, { heatedC }: WantedC) => box && boxHours(box, coldC, Math.max(heatedC, airC));
/** Until both are warm: from a roll out of its box to one that stayed in it, and never sooner than the ground. */
function warmHours(box: FilmBox | null, coldC: number, air: RoomAir, wanted: WantedC): [number, number] {
  const hours = rollHours(box, coldC, air, wanted);
  return hours ? [Math.max(GROUND_HOURS[0], hours[0]), Math.max(GROUND_HOURS[0], hours[1])] : [...GROUND_HOURS];
}
function boxWords(box: FilmBox | null, coldC: number, air: RoomAir, wanted: WantedC): string {
  const hours = rollHours(box, coldC, air, wanted);
  return hours && box
    ? ` As cold as this, its roll (${Math.round(2 * box.radiusMm)} mm thick) is warm through in about ${waitText([hours[0], hours[0]])} out of its box, ${waitText([hours[1], hours[1]])} in it.`
    : '';
}

/** A wait in hours, as it is said. */
export function waitText([from, to]: readonly [number, number]): string {
  const said = (h: number) => (h < 0.75 ? `${Math.max(5, Math.round((h * 60) / 5) * 5)} min` : `${Math.round(h * 2) / 2} h`);
  return said(from) === said(to) ? said(from) : `${said(from)} to ${said(to)}`;
}
