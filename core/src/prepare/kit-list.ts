import type { Blades, Film, Pane, UnitSystem } from '@yellow-pane/contracts';
import { workClassOf } from '../films/index.js';
import { formatInches, formatRough } from '../ground/index.js';
import { bladeFor, pressingBladeFor, type BladedPane } from './blades.js';
import { washRules } from './wash-mix.js';

/** A pane as the van has to be loaded for it. */
export interface KitPane extends BladedPane {
  readonly name: string;
  readonly areaM2: number;
  readonly perimeterMm: number;
  /** Lower edge above the floor; null: nobody said. */
  readonly heightAboveFloorMm: number | null;
  readonly frame: Pane['frame'];
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

/** Lengths of the list in the units of the job. */
type Metres = (mm: number, digits?: number) => string;
const metresIn = (units: UnitSystem): Metres =>
  units === 'in' ? (mm) => formatInches(mm, { denominator: 1, feet: true }) : (mm, digits = 1) => `${(mm / 1000).toFixed(digits)} m`;

const line = (key: string, what: string, howMuch: string, why: string, caution: string | null = null): KitLine => ({ key, what, howMuch, why, caution });
const sumOf = (panes: readonly KitPane[], of: (p: KitPane) => number): number => panes.reduce((sum, p) => sum + of(p), 0);
const counted = (panes: readonly KitPane[]): string => `${panes.length} ${panes.length === 1 ? 'pane' : 'panes'}`;
const topMm = (p: KitPane): number => (p.heightAboveFloorMm ?? 0) + p.heightMm;

/** What is stood on, and who holds the other end. */
function access({ panes, reachMm }: KitInput, metres: Metres): KitLine[] {
  const high = panes.filter((p) => topMm(p) > reachMm);
  const unknown = panes.filter((p) => p.heightAboveFloorMm === null);
  const big = panes.filter((p) => p.areaM2 > TWO_PEOPLE.areaM2 || Math.max(p.widthMm, p.heightMm) > TWO_PEOPLE.sideMm);
  const out: KitLine[] = [];
  if (high.length) {
    const top = Math.max(...high.map(topMm));
    const stand = Math.ceil((top - reachMm) / STEP_MM) * STEP_MM;
    const why = `${named(high)}: top edge up to ${metres(top, 2)}, your reach is ${metres(reachMm, 2)}.`;
    const caution =
      'Wet liner and slip make rungs and floor slippery. Local rules and the maker’s instructions say when a platform or a second person is required.';
    out.push(line('ladder', 'Ladder or platform', `to stand at ${metres(stand, 2)}`, why, caution));
  }
  if (unknown.length) {
    const why = `Nobody has said how high ${named(unknown)} ${unknown.length === 1 ? 'sits' : 'sit'}.`;
    out.push(line('height-unknown', 'Ask how high it is', counted(unknown), why));
  }
  if (big.length) {
    const why = `${named(big)}: more than ${TWO_PEOPLE.areaM2} m² or ${metres(TWO_PEOPLE.sideMm)} on a side.`;
    const caution = 'A big wet film pulls itself off the glass by its own weight, and pulls a person on a ladder with it.';
    out.push(line('second-person', 'A second person', `for ${counted(big)}`, why, caution));
  }
  return out;
}

/** What keeps eyes and floor whole. */
function protection({ panes }: KitInput, metres: Metres): KitLine[] {
  const rowMm = new Map<string, number>();
  for (const p of panes) rowMm.set(p.place, (rowMm.get(p.place) ?? 0) + p.widthMm);
  const longestMm = Math.max(...rowMm.values());
  return [
    line(
      'blade-tin',
      'Safety glasses, tin for snapped-off blades',
      '1 set',
      'Blades are broken off at every window.',
      'Trim with the point only, without pressure: a scored pane cracks later.',
    ),
    line('dust-sheet', 'Dust sheet', metres(Math.ceil(longestMm / 500) * 500), `The longest row of panes in one place is ${metres(longestMm)}.`),
  ];
}

/** Squeegees by the panes that they suit. */
function squeegees({ panes, blades, units }: KitInput): KitLine[] {
  const isThick = (p: KitPane) => p.film !== null && workClassOf(p.film) === 'security';
  const uses: { use: string; name: string; of: (p: KitPane) => number }[] = [
    { use: 'clean', name: 'Cleaning squeegee', of: (p) => bladeFor(p, blades.cleaningMm) },
    { use: 'press', name: 'Pressing blade', of: (p) => pressingBladeFor(p, isThick(p), blades) },
  ];
  return uses.flatMap(({ use, name, of }) =>
    [...new Set(panes.map(of))]
      .sort((a, b) => a - b)
      .map((bladeMm) => {
        const mine = panes.filter((p) => of(p) === bladeMm);
        const why = mine.some((p) => p.bendPerMm !== undefined) ? 'clears the frame and lies on the glass' : 'clears the frame on both sides';
        const narrow = use === 'press' ? '; a wider one presses less hard' : '';
        return line(`squeegee-${use}-${bladeMm}`, `${name} ${formatRough(bladeMm, units)}`, '1', `${named(mine)}: ${why}${narrow}.`);
      }),
  );
}

/** What is used up or cuts. */
function edges({ panes }: KitInput, metres: Metres): KitLine[] {
  const areaM2 = sumOf(panes, (p) => p.areaM2);
  const perimeterMm = sumOf(panes, (p) => p.perimeterMm);
  const edgeCount = Math.max(panes.length, Math.ceil(perimeterMm / 1000 / TRIM_M_ON_AN_EDGE));
  const bladesWhy = `${metres(perimeterMm)} of edges, a new edge for every window: ${edgeCount} edges, ${EDGES_ON_A_BLADE} on a blade.`;
  const silicone = panes.filter((p) => p.frame === 'silicone');
  const security = panes.filter((p) => p.film?.kind === 'security');
  const out = [
    line('card', 'Hard card and paper towels', `${Math.ceil(areaM2 / LINT_FREE_M2_EACH)}`, 'To bump every edge once the film is trimmed.'),
    line('blades', 'Snap-off blades', `${Math.ceil(edgeCount / EDGES_ON_A_BLADE)}`, bladesWhy),
    line(
      'scraper',
      'Scraper blades, non-scratch pad',
      `${panes.length}`,
      'A new one for each pane, held lightly.',
      'Find the tempered stamp and feel a corner first. Never scrape coated or plastic glazing.',
    ),
  ];
  if (silicone.length) {
    const why = `${named(silicone)}: what stands proud is cut out and run again 1 to 2 days after.`;
    out.push(line('silicone', 'Silicone, cutter and gun', metres(sumOf(silicone, (p) => p.perimeterMm)), why));
  }
  if (security.length) out.push(line('hard-squeegee', 'Hard squeegee for the second pass', '1', `${named(security)}: thick film holds its water.`));
  return out;
}

/** Bottles, and what is in them; nothing where all film goes on dry. */
function liquids({ panes, slipMl, bottleMl, additive }: KitInput): KitLine[] {
  const wetM2 = sumOf(
    panes.filter((p) => p.film?.drying !== 'dry-applied'),
    (p) => p.areaM2,
  );
  if (wetM2 === 0) return [];
  const fillings = Math.ceil(slipMl / bottleMl);
  const bottlesWhy = `${Math.round(bottleMl)} ml each, ${fillings} ${fillings === 1 ? 'filling' : 'fillings'} of slip; one bottle is the cleaner’s.`;
  return [
    line('slip', `Slip: water and ${additive}`, `${(slipMl / 1000).toFixed(1)} l`, `${wetM2.toFixed(1)} m² of glass.`),
    line('sprayers', 'Spray bottles', `${Math.min(MOST_BOTTLES, fillings) + 1}`, bottlesWhy),
    line(
      'cleaner',
      'Cleaner, alcohol-based',
      `${((wetM2 * washRules.cleaner.mlPerM2) / 1000).toFixed(1)} l`,
      'About 1 part of concentrate to 2 of water. It is not slip: it goes first.',
      'Alcohol and its vapour burn: air the room, no flame, gloves.',
    ),
  ];
}

const cloths = ({ panes }: KitInput): KitLine[] => [
  line('cloths', 'Lint-free cloths', `${Math.ceil(sumOf(panes, (p) => p.areaM2) / LINT_FREE_M2_EACH)}`, 'Edges and frames are dried before the film goes on.'),
];

/** What the day needs in the van, in the order one packs: safety and access first, then tools, then liquids. */
export function kitList(input: KitInput): KitLine[] {
  if (input.panes.length === 0) return [];
  const metres = metresIn(input.units);
  return [access, protection, squeegees, edges, liquids, cloths].flatMap((chapter) => chapter(input, metres));
}
