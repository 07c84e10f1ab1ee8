import { barredBy, ledPast, type EdgePlace, type KeptBox, type Led } from './keep-clear.js';
import type { Station } from './shrink-field.js';
import { lossFrac, type At } from './thread.js';

/** What lies down under the squeegee without heat. @source common practice */
export const LIES_DOWN_FRAC = 0.001;
/** Widths of the foot of a finger that a person makes and heats at one go, and how far fingers lie apart when film is first laid. @source house rules */
export const FINGER = { baseMm: 90, leastBaseMm: 45, pitchMm: 220 };
/** So little in front of a zone, on a stretch as long as from finger to finger, lies down under the squeegee too. */
export const PRESSED_MM = LIES_DOWN_FRAC * FINGER.pitchMm;
/** Share of what a film can shrink that is asked of one finger, so that something is left for the next pass. @source house rule */
const ASKED_OF_FILM = 0.5;

/** A fold of film that has to be shrunk away. */
export interface Finger {
  /** Counted from the left along its edge, 1…. */
  readonly number: number;
  readonly side: 'above' | 'below';
  /** Where it stands on the edge, and where it begins towards the anchor. */
  readonly foot: At;
  readonly root: At;
  /** On the film, along the anchor from its middle. */
  readonly alongMm: number;
  readonly baseMm: number;
  readonly lengthMm: number;
  /** Film that has to go here. */
  readonly slackMm: number;
  /** Share of its width that the film under it has to lose. */
  readonly needFrac: number;
  /** How high the fold stands. */
  readonly foldMm: number;
  /** It comes of a bigger finger that was split in so many. */
  readonly partOf: number;
}

/** Height of a fold over a base that has so much film too many: e = 8 h² / 3 w. @source arc over chord of a flat parabola; CHECKS: chord and sagitta */
export const foldHeightMm = (slackMm: number, baseMm: number): number => Math.sqrt((3 * slackMm * baseMm) / 8);

/** Share to lose along one edge, left to right; where a thread never comes to the edge there is none. In front of zones that heat has to keep away from it is led aside. */
export function edgeLosses(stations: readonly Station[], side: 'above' | 'below', boxes: readonly KeptBox[] = []): { places: EdgePlace[]; led: Led[] } {
  const places = stations.flatMap((station): EdgePlace[] => {
    const { edge } = side === 'above' ? station.up : station.down;
    return edge ? [{ alongMm: station.alongMm, lossFrac: lossFrac(edge), station, barred: barredBy(station, side, boxes, LIES_DOWN_FRAC) }] : [];
  });
  return ledPast(places);
}

/** Slack from the left end of an edge up to each place; what stretches counts as none. */
function gathered(places: readonly EdgePlace[]): number[] {
  const out = [0];
  for (let i = 1; i < places.length; i++) {
    const [a, b] = [places[i - 1]!, places[i]!];
    out.push(out[i - 1]! + ((Math.max(0, a.lossFrac) + Math.max(0, b.lossFrac)) / 2) * (b.alongMm - a.alongMm));
  }
  return out;
}
const placeWhere = (places: readonly EdgePlace[], sums: readonly number[], slack: number): number => {
  const i = Math.max(1, sums.findIndex((s) => s >= slack - 1e-12)); // prettier-ignore
  if (i >= places.length) return places.at(-1)!.alongMm;
  const span = sums[i]! - sums[i - 1]!;
  const t = span > 0 ? (slack - sums[i - 1]!) / span : 0;
  return places[i - 1]!.alongMm + t * (places[i]!.alongMm - places[i - 1]!.alongMm);
};

/** The most that any stretch of an edge one finger wide has to lose on the average: no way of making fingers gets round it. */
export function peakLoss(places: readonly EdgePlace[], widthMm: number): { frac: number; alongMm: number } {
  // one thread alone has no width
  if (places.length < 2) return { frac: 0, alongMm: places[0]?.alongMm ?? 0 };
  const sums = gathered(places);
  const at = (mm: number): number => {
    const i = Math.min(places.length - 1, Math.max(1, places.findIndex((p) => p.alongMm >= mm))); // prettier-ignore
    const [a, b] = [places[i - 1]!, places[i]!];
    const t = Math.min(1, Math.max(0, (mm - a.alongMm) / (b.alongMm - a.alongMm)));
    return sums[i - 1]! + t * (sums[i]! - sums[i - 1]!);
  };
  const [first, last] = [places[0]!.alongMm, places.at(-1)!.alongMm];
  const width = Math.min(widthMm, Math.max(1, last - first));
  let best = { frac: 0, alongMm: (first + last) / 2 };
  for (const p of places) {
    const from = Math.min(last - width, Math.max(first, p.alongMm - width / 2));
    const frac = (at(from + width) - at(from)) / width;
    if (frac > best.frac) best = { frac, alongMm: from + width / 2 };
  }
  return best;
}

/** Where a thread first has to lose more than what lies down without heat; the edge itself if never. */
function rootOf(station: Station, side: 'above' | 'below'): { at: At; fromEdgeMm: number } {
  const { points, edge } = side === 'above' ? station.up : station.down;
  const last = edge!;
  let before = points[0]!;
  for (const p of points) {
    if (p.sMm > last.sMm) break;
    if (lossFrac(p) > LIES_DOWN_FRAC) {
      const [a, b] = [lossFrac(before), lossFrac(p)];
      const t = b > a ? Math.min(1, Math.max(0, (LIES_DOWN_FRAC - a) / (b - a))) : 1;
      const s = before.sMm + t * (p.sMm - before.sMm);
      return { at: { u: before.u + t * (p.u - before.u), v: before.v + t * (p.v - before.v) }, fromEdgeMm: last.sMm - s };
    }
    before = p;
  }
  return { at: last, fromEdgeMm: 0 };
}

/** The nearest place to a wish where half a foot is clear of every zone; the wish itself where nothing is in the way or nowhere is clear. */
function besideZones(places: readonly EdgePlace[], alongMm: number): number {
  const barred = places.filter((p) => p.barred.length > 0).map((p) => p.alongMm);
  // a zone may begin anywhere between the last thread that it bars and the next
  const apart = FINGER.baseMm / 2 + Math.abs(places[1]!.alongMm - places[0]!.alongMm);
  const isClear = (mm: number): boolean => barred.every((b) => Math.abs(b - mm) >= apart);
  if (isClear(alongMm)) return alongMm;
  const clear = places.map((p) => p.alongMm).filter(isClear);
  return clear.length === 0 ? alongMm : clear.reduce((a, b) => (Math.abs(b - alongMm) < Math.abs(a - alongMm) ? b : a));
}

/**
 * Fingers along one edge, left to right, all with the same slack. Film gathers in as many as lie a hand apart; where it could not shrink one over its foot, extra ones are
 * made, and where those would be too many, each is split while it is heated, as long as there is room for their feet.
 * @param capacityFrac what the film can shrink along the roll, 0 … 1 @param boxes zones that no finger stands in front of
 * @returns none where all of it lies down without heat
 */
export function fingersAlong(stations: readonly Station[], side: 'above' | 'below', capacityFrac: number, boxes: readonly KeptBox[] = []): Finger[] {
  // what has no way round a zone makes no finger
  const places = edgeLosses(stations, side, boxes).places.map((p) => (p.barred.length > 0 ? { ...p, lossFrac: Math.min(0, p.lossFrac) } : p));
  const peak = peakLoss(places, FINGER.baseMm);
  if (peak.frac <= LIES_DOWN_FRAC) return [];
  const sums = gathered(places);
  const total = sums.at(-1)!;
  const busy = places.filter((p) => p.lossFrac > LIES_DOWN_FRAC);
  const busyMm = busy.length > 1 ? busy.at(-1)!.alongMm - busy[0]!.alongMm : FINGER.baseMm;
  const natural = Math.max(1, Math.round(busyMm / FINGER.pitchMm));
  const asked = Math.max(1e-6, ASKED_OF_FILM * capacityFrac);
  const needed = Math.max(natural, Math.ceil(total / (asked * FINGER.baseMm) - 1e-9));
  // half as many again can be made by hand when the film is laid; beyond that each is split as it is heated
  const parts = Math.max(1, Math.ceil(needed / Math.ceil(1.5 * natural)));
  const room = Math.max(1, Math.floor(busyMm / FINGER.leastBaseMm));
  const count = Math.min(Math.ceil(needed / parts) * parts, Math.max(natural, Math.floor(room / parts) * parts));
  return Array.from({ length: count }, (_, i): Finger => {
    const [from, to] = [placeWhere(places, sums, (i / count) * total), placeWhere(places, sums, ((i + 1) / count) * total)];
    const alongMm = besideZones(places, placeWhere(places, sums, ((i + 0.5) / count) * total));
    const near = places.reduce((a, p) => (Math.abs(p.alongMm - alongMm) < Math.abs(a.alongMm - alongMm) ? p : a));
    const baseMm = Math.min(FINGER.baseMm, Math.max(1, to - from));
    const slackMm = total / count;
    const root = rootOf(near.station, side);
    const { edge } = side === 'above' ? near.station.up : near.station.down;
    return {
      number: i + 1,
      side,
      foot: { u: edge!.u, v: edge!.v },
      root: root.at,
      alongMm,
      baseMm,
      lengthMm: root.fromEdgeMm,
      slackMm,
      needFrac: slackMm / baseMm,
      foldMm: foldHeightMm(slackMm, baseMm),
      partOf: parts,
    };
  });
}
