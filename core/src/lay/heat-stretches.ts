import type { Corrugation, Counter, Film, LayEntry, Panel, Surface, SurfaceKind, SurfaceOf, Wall } from '@yellow-pane/contracts';
import { distance, vec, type Polygon, type Vec } from '../geometry/index.js';
import { wrappedRounds, resolveDry } from '../cut/index.js';
import { planDome, stretchLimitOf } from '../form/index.js';
import { shownC } from '../instruments/index.js';
import {
  counterCornerNames,
  counterCorners,
  counterSideNames,
  counterSides,
  surveyCounter,
  surveyPanel,
  surveyWall,
  type JudgedDome,
} from '../measure/index.js';
import type { LayRecords } from './lay-records.js';
import { linesInForce } from './progress.js';

/** A hand’s length of what was stretched: heated at once, read at once. */
export interface HeatStretch {
  readonly key: string;
  /** From one end to the other; a corner is one place. */
  readonly path: readonly Vec[];
}
/** An edge, a corner, a groove, the walls of a recess: read stretch by stretch, or its coldest place for all of it. */
export interface HeatEdge {
  readonly key: string;
  readonly name: string;
  readonly stretches: readonly HeatStretch[];
}
/** What of a surface has to be heated through, on its outline. */
export interface HeatCover {
  readonly outline: Polygon;
  readonly edges: readonly HeatEdge[];
  /** Its film’s figure, °C; null: its maker’s is not in the library. */
  readonly dueC: number | null;
}

/** A hand’s length. @source house rule */
export const HAND_MM = 200;

const along = (path: readonly Vec[], mm: number): Vec => {
  let left = mm;
  for (let i = 1; i < path.length; i++) {
    const [a, b] = [path[i - 1]!, path[i]!];
    const long = distance(a, b);
    if (left <= long || i === path.length - 1) {
      const k = long > 0 ? Math.min(1, left / long) : 0;
      return vec(a.x + (b.x - a.x) * k, a.y + (b.y - a.y) * k);
    }
    left -= long;
  }
  return path[0]!;
};
/** A line in equal parts, none longer than a hand; bends of it stay in. */
function partsOf(key: string, path: readonly Vec[]): HeatStretch[] {
  const marks = path.reduce<number[]>((sums, p, i) => [...sums, i === 0 ? 0 : sums[i - 1]! + distance(path[i - 1]!, p)], []);
  const whole = marks.at(-1)!;
  const count = Math.max(1, Math.ceil(whole / HAND_MM - 1e-9));
  return Array.from({ length: count }, (_, i) => {
    const [from, to] = [(whole * i) / count, (whole * (i + 1)) / count];
    return { key: `${key}-${i + 1}`, path: [along(path, from), ...path.filter((_p, j) => marks[j]! > from + 1e-6 && marks[j]! < to - 1e-6), along(path, to)] };
  });
}
const edge = (key: string, name: string, path: readonly Vec[]): HeatEdge => ({ key, name, stretches: partsOf(key, path) });
const spot = (key: string, name: string, at: Vec): HeatEdge => ({ key, name, stretches: [{ key: `${key}-1`, path: [at, at] }] });

type Edges = { readonly outline: Polygon; readonly edges: readonly HeatEdge[] } | null;
const panelSides = [['bottom', 'foot'], ['right', 'right edge'], ['top', 'top edge'], ['left', 'left edge']] as const; // prettier-ignore

function ofPanel(surface: Panel, records: LayRecords): Edges {
  const { face, grooves, recesses, ribs, dome } = surveyPanel(surface, records).survey;
  if (face.outline?.length !== 4) return null;
  const corners = face.outline;
  const [wide, high] = [Math.max(...corners.map((c) => c.x)), Math.max(...corners.map((c) => c.y))];
  const isWrapped = (i: number) => surface.wraps[panelSides[(i + 4) % 4]![0]] !== 'trimmed';
  const cornerNames = ['foot, left', 'foot, right', 'top, right', 'top, left'];
  const edges = panelSides.flatMap(([side, name], i) => (isWrapped(i) ? [edge(side, name, [corners[i]!, corners[(i + 1) % 4]!])] : []));
  const spots = corners.flatMap((c, i) => (isWrapped(i) && isWrapped(i - 1) ? [spot(`corner-${i + 1}`, `corner ${cornerNames[i]}`, c)] : []));
  const pressed = grooves.filter((g) => g.slackMm >= 0.5).map(({ groove: { run, widthMm } }, i) => {
    const [key, name, half] = [`groove-${i + 1}`, `groove ${i + 1}`, widthMm / 2];
    if (run.way === 'upright') return edge(key, name, [vec(run.fromLeftMm + half, 0), vec(run.fromLeftMm + half, high)]);
    if (run.way === 'level') return edge(key, name, [vec(0, run.fromFootMm + half), vec(wide, run.fromFootMm + half)]);
    const [l, b, r, t] = [run.fromLeftMm + half, run.fromFootMm + half, run.fromLeftMm + run.acrossMm - half, run.fromFootMm + run.upMm - half];
    return edge(key, name, [vec(l, b), vec(r, b), vec(r, t), vec(l, t), vec(l, b)]);
  }); // prettier-ignore
  const walls = recesses.map(({ recess: { fromLeftMm: l, fromFootMm: b, acrossMm, upMm, slopeMm } }, i) => {
    const [x0, y0, x1, y1] = [l + slopeMm / 2, b + slopeMm / 2, l + acrossMm - slopeMm / 2, b + upMm - slopeMm / 2];
    return edge(`recess-${i + 1}`, `recess ${i + 1}`, [vec(x0, y0), vec(x1, y0), vec(x1, y1), vec(x0, y1), vec(x0, y0)]);
  });
  return {
    outline: corners,
    edges: [...edges, ...spots, ...pressed, ...walls, ...valleysOf(ribs?.corrugation ?? null, wide, high), ...rimOf(dome, surface, records, corners)],
  };
}

/** The border of a dome that film was drawn on over; where it lies by itself, or is slit, nothing was stretched. */
function rimOf(dome: JudgedDome | null, { filmId, wraps }: Panel, { films }: LayRecords, corners: Polygon): HeatEdge[] {
  const plan = dome && planDome(dome, stretchLimitOf(films.find((f) => f.id === filmId)));
  if (!plan || plan.is === 'lies' || plan.is === 'darts') return [];
  // what goes over an edge is read there
  return panelSides.flatMap(([side, name], i) =>
    wraps[side] === 'trimmed' ? [edge(`rim-${side}`, `border, ${name}`, [corners[i]!, corners[(i + 1) % 4]!])] : [],
  );
}

/** Valleys that film was formed into, the first of them half a pitch from the edge; fed in it was not stretched. */
function valleysOf(c: Corrugation | null, wide: number, high: number): HeatEdge[] {
  if (c?.way !== 'bridged') return [];
  const across = c.run === 'upright' ? wide : high;
  return Array.from({ length: Math.max(1, Math.round(across / c.pitchMm)) }, (_, i) => {
    const at = Math.min(across, (i + 0.5) * c.pitchMm);
    return edge(`valley-${i + 1}`, `valley ${i + 1}`, c.run === 'upright' ? [vec(at, 0), vec(at, high)] : [vec(0, at), vec(wide, at)]);
  });
}

function ofCounter(surface: Counter, records: LayRecords): Edges {
  const { body, edge: taped } = surveyCounter(surface, records).survey;
  if (!body) return null;
  const isWrapped = (side: Counter['sides']['front']) => side === 'edge' || side === 'return';
  const toward = (from: Vec, to: Vec, mm: number): Vec => {
    const k = mm / Math.max(1e-9, distance(from, to));
    return vec(from.x + (to.x - from.x) * k, from.y + (to.y - from.y) * k);
  };
  const setback = (i: number) => body.radiusMm[counterCorners[i]!] * Math.tan(body.turnRad[counterCorners[i]!] / 2);
  const straight = counterSides.flatMap((side, i) => {
    if (!isWrapped(surface.sides[side]) || body.straightMm[side] < 1) return [];
    const [from, to] = [body.corners[counterCorners[i]!], body.corners[counterCorners[(i + 1) % 4]!]];
    return [edge(side, counterSideNames[side], [toward(from, to, setback(i)), toward(to, from, setback((i + 1) % 4))])];
  });
  const rounds = wrappedRounds(body, surface.sides, taped?.girthMm ?? 0, resolveDry(records, surface), null).map(({ corner }) => {
    const i = counterCorners.indexOf(corner);
    const [before, here, after] = [body.corners[counterCorners[(i + 3) % 4]!], body.corners[corner], body.corners[counterCorners[(i + 1) % 4]!]];
    const [a, b] = [toward(here, before, setback(i)), toward(here, after, setback(i))];
    const near = body.outline.filter((p) => distance(p, here) <= Math.max(distance(a, here), distance(b, here)) + 1e-6);
    const way = near.sort((p, q) => distance(p, a) - distance(q, a));
    return edge(`round-${corner.toLowerCase()}`, `round ${counterCornerNames[corner]}`, way.length > 1 ? way : [a, b]);
  });
  const sharp = counterCorners.flatMap((corner, i) => {
    const sides = [counterSides[(i + 3) % 4]!, counterSides[i]!];
    return body.radiusMm[corner] === 0 && sides.every((s) => isWrapped(surface.sides[s])) ? [spot(`corner-${corner.toLowerCase()}`, `corner ${counterCornerNames[corner]}`, body.corners[corner])] : []; // prettier-ignore
  });
  return { outline: body.outline, edges: [...straight, ...rounds, ...sharp] };
}

function ofWall(surface: Wall, records: LayRecords): Edges {
  const { body, corners } = surveyWall(surface, records).survey;
  if (!body) return null;
  // film that only ends at an arris is not bent there
  const isBent = (side: 'left' | 'right') => corners[side].is === 'inside' || (corners[side].is === 'outside' && corners[side].isFirst);
  const ends = { left: [body.floor[0]!, body.ceiling[0]!], right: [body.floor.at(-1)!, body.ceiling.at(-1)!] };
  return { outline: body.outline, edges: (['left', 'right'] as const).flatMap((side) => (isBent(side) ? [edge(side, `${side} corner`, ends[side])] : [])) };
}

/** Where film was stretched on each kind of surface, so that it wants its figure. */
const stretchedOf: { readonly [K in SurfaceKind]: (surface: SurfaceOf<K>, records: LayRecords) => Edges } = {
  pane: () => null,
  column: () => null,
  panel: ofPanel,
  wall: ofWall,
  counter: ofCounter,
  sign: () => null,
};

/** What of a surface has to be heated through and read; null: nothing was stretched there. */
export function heatCoverOf(surface: Surface, records: LayRecords): HeatCover | null {
  const made = (stretchedOf[surface.kind] as (surface: Surface, records: LayRecords) => Edges)(surface, records);
  if (!made || made.edges.length === 0) return null;
  return { ...made, dueC: records.films.find((f) => f.id === surface.filmId)?.temps?.postHeatC ?? null };
}

/** What the newest reading says of a stretch. */
export interface HeatProof {
  readonly readC: number;
  readonly isProven: boolean;
}
/** What is proven of a surface, by stretch; one without a reading is not in it. @param entries lines about it */
export function heatProofs({ edges, dueC }: HeatCover, entries: readonly LayEntry[]): Map<string, HeatProof> {
  const out = new Map<string, HeatProof>();
  for (const { reading } of linesInForce(entries)) {
    if (reading?.what !== 'film' || reading.stretch === undefined) continue;
    for (const e of edges)
      for (const s of e.stretches)
        if (reading.stretch === s.key || reading.stretch === e.key)
          out.set(s.key, { readC: reading.valueC, isProven: dueC !== null && reading.valueC >= dueC });
  }
  return out;
}
/** Edges on which something is not proven hot, in words of their own. */
export const unprovenEdges = ({ edges }: HeatCover, proofs: ReadonlyMap<string, HeatProof>): string[] =>
  edges.filter((e) => e.stretches.some((s) => !proofs.get(s.key)?.isProven)).map((e) => e.name);

/** For so long after the gun hot air stands before the film, where its maker says nothing of it, s. @source house rule */
const GUN_AWAY_S = 1.5;
/** For so long the gun has to be away before film is read, s: its maker's own moment, or the usual one. */
export const gunAwayS = (film: Pick<Film, 'readAfterS'> | null): number => film?.readAfterS ?? GUN_AWAY_S;
/** What pocket thermometers are set to. @source from memory */
const SET_EMISSIVITY = 0.95;
/** Film that radiates less looks colder than it is; above this the thermometer errs by less than it is read. @source house rule */
const PLAIN_EMISSIVITY = 0.8;
/** How hot film is that an instrument set to 0.95 shows at so much, °C: plain film as shown, metallic film corrected. @source Stefan & Boltzmann, instruments/infrared-thermometer */
export function filmUnderThermometer(film: Pick<Film, 'emissivityFrac'> | null, readC: number, surroundingsC: number): number {
  const emissivityFrac = film?.emissivityFrac ?? 1;
  return emissivityFrac >= PLAIN_EMISSIVITY ? readC : shownC({ surfaceC: readC, emissivityFrac: SET_EMISSIVITY, surroundingsC }, Math.max(0.1, emissivityFrac));
}
