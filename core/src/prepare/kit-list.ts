import type { Blades, Film, Surface, UnitSystem } from '@yellow-pane/contracts';
import { washRules } from './wash-mix.js';
import { workClassOf } from '../films/index.js';
import { formatInches, formatRough } from '../ground/index.js';

/** A pane as the van has to be loaded for it. */
export interface KitPane {
  readonly name: string;
  readonly widthMm: number;
  readonly heightMm: number;
  /** Of curved glass: how sharply it bends along an upright blade, 1/mm; null: nobody has measured it. Left out: flat. */
  readonly bendPerMm?: number | null | undefined;
  readonly areaM2: number;
  readonly perimeterMm: number;
  /** Lower edge above the floor; null: nobody said. */
  readonly heightAboveFloorMm: number | null;
  readonly frame: Surface['frame'];
  readonly film: Pick<Film, 'kind' | 'name' | 'drying'> | null;
  readonly place: string;
}

/** One line of the list. */
export interface KitLine {
  /** Stays the same when the figures change, so that a tick keeps its line. */
  readonly key: string;
  readonly what: string;
  readonly howMuch: string;
  readonly why: string;
  /** Where the work can hurt somebody. */
  readonly caution: string | null;
}
export interface KitInput {
  readonly panes: readonly KitPane[];
  /** What a person reaches from the floor. */
  readonly reachMm: number;
  readonly slipMl: number;
  readonly bottleMl: number;
  readonly additive: string;
  readonly units: UnitSystem;
  readonly blades: Blades;
}

/** A straight blade presses on bent glass where its rubber gives way by no more than this in the middle. @source house rule */
const RUBBER_GIVES_MM = 2;
/** Film stays this far from the edge on the first pass. @source common practice: ½ in (13 mm) */
const EDGE_STOP_MM = 13;
/** Two people for more than this. @source common practice ("two people for big pieces"); the sizes are a house rule */
const TWO_PEOPLE = { areaM2: 2, sideMm: 1800 };
/** Edges on one snap-off blade. @source common practice: about a dozen */
const EDGES_ON_A_BLADE = 12;
/** Long trims dull an edge earlier. @source house rule */
const TRIM_M_ON_AN_EDGE = 6;
/** Ladders come in steps of about this. @source common practice */
const STEP_MM = 250;
const LINT_FREE_M2_EACH = 3;
/** Slip bottles in hand at once; they are filled again. @source common practice: one for each hand and one in reserve */
const MOST_BOTTLES = 3;

const named = (panes: readonly KitPane[], most = 4): string =>
  panes.length <= most ? panes.map((p) => p.name).join(', ') : `${panes.slice(0, most - 1).map((p) => p.name).join(', ')} and ${panes.length - most + 1} more`; // prettier-ignore

/** The longest blade that lies on glass bent by so much: chord and sagitta, b² κ / 8. */
const bladeOnBend = (bendPerMm: number): number => (bendPerMm > 0 ? Math.sqrt((8 * RUBBER_GIVES_MM) / bendPerMm) : Infinity);

/** A blade longer than this is not put on bent glass that nobody has measured. @source house rule */
const UNMEASURED_BEND_MM = 150;

/** The widest of a list of blades that works across a pane without touching the frame on both sides, and that lies on it where it is bent; the narrowest where none does. */
export function bladeFor(pane: Pick<KitPane, 'widthMm' | 'heightMm' | 'bendPerMm'>, widthsMm: readonly number[]): number {
  const clear = Math.min(pane.widthMm, pane.heightMm) - 2 * EDGE_STOP_MM;
  const bend = pane.bendPerMm === undefined ? Infinity : pane.bendPerMm === null ? UNMEASURED_BEND_MM : bladeOnBend(pane.bendPerMm);
  const sorted = [...widthsMm].sort((a, b) => b - a);
  return sorted.find((b) => b <= Math.min(clear, bend)) ?? sorted.at(-1)!;
}

/** The blade that presses film onto a pane: of the narrow ones, of thick film those for thick film. @source common practice: the same hand presses a third as hard on three times the width */
export const pressingBladeFor = (pane: Pick<KitPane, 'widthMm' | 'heightMm' | 'bendPerMm'>, isThick: boolean, blades: Blades): number =>
  bladeFor(pane, isThick ? blades.thickMm : blades.pressingMm);

/** What the day needs in the van, in the order one packs: safety and access first, then tools, then liquids. */
export function kitList(input: KitInput): KitLine[] {
  const { panes } = input;
  if (panes.length === 0) return [];
  const lines: KitLine[] = [];
  const metres = (mm: number, digits = 1): string =>
    input.units === 'in' ? formatInches(mm, { denominator: 1, feet: true }) : `${(mm / 1000).toFixed(digits)} m`;
  const add = (key: string, what: string, howMuch: string, why: string, caution: string | null = null) => void lines.push({ key, what, howMuch, why, caution });
  const area = panes.reduce((s, p) => s + p.areaM2, 0);
  const wetM2 = panes.filter((p) => p.film?.drying !== 'dry-applied').reduce((s, p) => s + p.areaM2, 0);
  const high = panes.filter((p) => (p.heightAboveFloorMm ?? 0) + p.heightMm > input.reachMm);
  const unknown = panes.filter((p) => p.heightAboveFloorMm === null);
  if (high.length) {
    const top = Math.max(...high.map((p) => (p.heightAboveFloorMm ?? 0) + p.heightMm));
    const stand = Math.ceil((top - input.reachMm) / STEP_MM) * STEP_MM;
    add('ladder', 'Ladder or platform', `to stand at ${metres(stand, 2)}`, `${named(high)}: top edge up to ${metres(top, 2)}, your reach is ${metres(input.reachMm, 2)}.`,
      'Wet liner and slip make rungs and floor slippery. Local rules and the maker’s instructions say when a platform or a second person is required.'); // prettier-ignore
  }
  if (unknown.length)
    add(
      'height-unknown',
      'Ask how high it is',
      `${unknown.length} ${unknown.length === 1 ? 'pane' : 'panes'}`,
      `Nobody has said how high ${named(unknown)} ${unknown.length === 1 ? 'sits' : 'sit'}.`,
    );
  const big = panes.filter((p) => p.areaM2 > TWO_PEOPLE.areaM2 || Math.max(p.widthMm, p.heightMm) > TWO_PEOPLE.sideMm);
  if (big.length)
    add('second-person', 'A second person', `for ${big.length} ${big.length === 1 ? 'pane' : 'panes'}`, `${named(big)}: more than ${TWO_PEOPLE.areaM2} m² or ${metres(TWO_PEOPLE.sideMm)} on a side.`,
      'A big wet film pulls itself off the glass by its own weight, and pulls a person on a ladder with it.'); // prettier-ignore
  add(
    'blade-tin',
    'Safety glasses, tin for snapped-off blades',
    '1 set',
    'Blades are broken off at every window.',
    'Trim with the point only, without pressure: a scored pane cracks later.',
  );
  const places = new Map<string, KitPane[]>();
  for (const p of panes) places.set(p.place, [...(places.get(p.place) ?? []), p]);
  const longest = [...places.values()].reduce(
    (most, list) =>
      Math.max(
        most,
        list.reduce((s, p) => s + p.widthMm, 0),
      ),
    0,
  );
  add('dust-sheet', 'Dust sheet', metres(Math.ceil(longest / 500) * 500), `The longest row of panes in one place is ${metres(longest)}.`);
  const isThick = (p: KitPane) => p.film !== null && workClassOf(p.film) === 'security';
  const uses: { use: string; name: string; of: (p: KitPane) => number }[] = [
    { use: 'clean', name: 'Cleaning squeegee', of: (p) => bladeFor(p, input.blades.cleaningMm) },
    { use: 'press', name: 'Pressing blade', of: (p) => pressingBladeFor(p, isThick(p), input.blades) },
  ];
  for (const { use, name, of } of uses)
    for (const blade of [...new Set(panes.map(of))].sort((a, b) => a - b)) {
      const mine = panes.filter((p) => of(p) === blade);
      const why = mine.some((p) => p.bendPerMm !== undefined) ? 'clears the frame and lies on the glass' : 'clears the frame on both sides';
      const narrow = use === 'press' ? '; a wider one presses less hard' : '';
      add(`squeegee-${use}-${blade}`, `${name} ${formatRough(blade, input.units)}`, '1', `${named(mine)}: ${why}${narrow}.`);
    }
  add('card', 'Hard card and paper towels', `${Math.ceil(area / LINT_FREE_M2_EACH)}`, 'To bump every edge once the film is trimmed.');
  const perimeter = panes.reduce((s, p) => s + p.perimeterMm, 0);
  const edges = Math.max(panes.length, Math.ceil(perimeter / 1000 / TRIM_M_ON_AN_EDGE));
  add(
    'blades',
    'Snap-off blades',
    `${Math.ceil(edges / EDGES_ON_A_BLADE)}`,
    `${metres(perimeter)} of edges, a new edge for every window: ${edges} edges, ${EDGES_ON_A_BLADE} on a blade.`,
  );
  add('scraper', 'Scraper blades, non-scratch pad', `${panes.length}`, 'A new one for each pane, held lightly.',
    'Find the tempered stamp and feel a corner first. Never scrape coated or plastic glazing.'); // prettier-ignore
  const silicone = panes.filter((p) => p.frame === 'silicone');
  if (silicone.length)
    add(
      'silicone',
      'Silicone, cutter and gun',
      metres(silicone.reduce((s, p) => s + p.perimeterMm, 0)),
      `${named(silicone)}: what stands proud is cut out and run again 1 to 2 days after.`,
    );
  const security = panes.filter((p) => p.film?.kind === 'security');
  if (security.length) add('hard-squeegee', 'Hard squeegee for the second pass', '1', `${named(security)}: thick film holds its water.`);
  if (wetM2 > 0) {
    add('slip', `Slip: water and ${input.additive}`, `${(input.slipMl / 1000).toFixed(1)} l`, `${wetM2.toFixed(1)} m² of glass.`);
    const fillings = Math.ceil(input.slipMl / input.bottleMl);
    add(
      'sprayers',
      'Spray bottles',
      `${Math.min(MOST_BOTTLES, fillings) + 1}`,
      `${Math.round(input.bottleMl)} ml each, ${fillings} ${fillings === 1 ? 'filling' : 'fillings'} of slip; one bottle is the cleaner’s.`,
    );
    add(
      'cleaner',
      'Cleaner, alcohol-based',
      `${((wetM2 * washRules.cleaner.mlPerM2) / 1000).toFixed(1)} l`,
      'About 1 part of concentrate to 2 of water. It is not slip: it goes first.',
      'Alcohol and its vapour burn: air the room, no flame, gloves.',
    );
  }
  add('cloths', 'Lint-free cloths', `${Math.ceil(area / LINT_FREE_M2_EACH)}`, 'Edges and frames are dried before the film goes on.');
  return lines;
}
