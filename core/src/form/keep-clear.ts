import type { PaneZone, ShrinkInput, ZoneKind } from '@yellow-pane/contracts';
import { FORMING } from './flat-film.js';
import type { Station } from './shrink-field.js';
import { lossFrac } from './thread.js';

// Places on or behind a pane that heat has to keep away from, and how film is led past them.

/** How heat minds a zone. */
interface Minding {
  readonly name: string;
  /** Nearer than this no heat comes, mm; null: heat does not matter to it. */
  readonly heatMm: number | null;
  /** No finger stands in front of it; otherwise it is shielded. */
  readonly bars: boolean;
  readonly what: string;
}

/** @source house rules but for what the makers say: airbags and sensors are the vehicle maker's to judge, rubber and trim melt before glass is warm (common practice) */
export const minding: Record<ZoneKind, Minding> = {
  airbag: { name: 'Airbag', heatMm: 50, bars: true, what: 'no heat and no water; the maker of the vehicle says how near one may go, and that figure wins' },
  sensor: { name: 'Sensor', heatMm: 50, bars: true, what: 'no heat and no water; the maker of the vehicle says how near one may go, and that figure wins' },
  'brake-light': { name: 'Brake light', heatMm: 20, bars: true, what: 'its housing melts: take it off first or keep heat away; nothing may cover it' },
  wiper: { name: 'Wiper', heatMm: 20, bars: true, what: 'arm off before film is hung; no fold over its spindle' },
  seal: { name: 'Seal', heatMm: 25, bars: false, what: 'shield it with a hard card or a wet cloth while there is heat' },
  antenna: { name: 'Aerial', heatMm: null, bars: false, what: 'no metallised film over it, no blade across it' },
  other: { name: 'Marked place', heatMm: 20, bars: true, what: 'marked at the survey: no heat' },
};

/** A zone with the room that heat leaves round it, in the plane of the pane. */
export interface KeptBox {
  readonly zone: PaneZone;
  readonly minX: number;
  readonly minY: number;
  readonly maxX: number;
  readonly maxY: number;
}

/** The zone itself, grown by how far heat stays away. @param raisedMm film that is heated so much higher up than it will lie meets the zone so much lower */
export function keptBox(zone: PaneZone, raisedMm = 0): KeptBox {
  const by = minding[zone.kind].heatMm ?? 0;
  const low = zone.lowMm - raisedMm;
  return { zone, minX: zone.leftMm - by, minY: low - by, maxX: zone.leftMm + zone.widthMm + by, maxY: low + zone.heightMm + by };
}

/** Film of drop glass is formed higher up than it will lie. */
export const raisedMm = ({ seat }: Pick<ShrinkInput['curved'], 'seat'>): number => (seat === 'drop' ? FORMING.raiseMm : 0);

/** Those that no finger may stand in front of. */
export const barringBoxes = (curved: Pick<ShrinkInput['curved'], 'zones' | 'seat'>): KeptBox[] =>
  curved.zones.filter((z) => minding[z.kind].bars).map((z) => keptBox(z, raisedMm(curved)));

/**
 * The zones that a thread would be heated over on its way from where it first has to lose something to the edge.
 * @param fromLossFrac what lies down without heat
 */
export function barredBy(station: Station, side: 'above' | 'below', boxes: readonly KeptBox[], fromLossFrac: number): KeptBox[] {
  const { points, edge } = side === 'above' ? station.up : station.down;
  if (boxes.length === 0 || !edge || lossFrac(edge) <= fromLossFrac) return [];
  const heated = [...points.filter((p) => p.sMm < edge.sMm && lossFrac(p) > fromLossFrac), edge];
  return boxes.filter((b) => heated.some((p) => p.u >= b.minX && p.u <= b.maxX && p.v >= b.minY && p.v <= b.maxY));
}

/** Film is led sideways past a zone by so much at most: as far as it is gathered into a finger anyway. @source house rule: half the way between two fingers */
export const LED_MM = 110;
/** It then hangs in a stretch beside the zone, as wide as the foot of a finger. */
const BESIDE_MM = 90;

/** A place on an edge and what has to go there. */
export interface EdgePlace {
  readonly alongMm: number;
  readonly lossFrac: number;
  readonly station: Station;
  /** Zones that no finger may be heated over here. */
  readonly barred: readonly KeptBox[];
}
/** What was led past zones that bar one stretch of an edge, and what has no way round. */
export interface Led {
  /** From left to right as they begin to bar it. */
  readonly boxes: readonly KeptBox[];
  readonly ledMm: number;
  readonly stuckMm: number;
  /** From where to where along the edge no finger stands. */
  readonly fromMm: number;
  readonly toMm: number;
}

/** Film in front of zones led to the stretches beside them; what is too far from both stays where it is. The sum along the edge is the same. */
export function ledPast(places: readonly EdgePlace[]): { places: EdgePlace[]; led: Led[] } {
  const n = places.length;
  const loss = places.map((p) => p.lossFrac);
  // widths by which trapezoids weigh each place
  const weight = places.map((p, i) => ((places[i + 1]?.alongMm ?? p.alongMm) - (places[i - 1]?.alongMm ?? p.alongMm)) / 2);
  const led: Led[] = [];
  for (let from = 0; from < n; from++) {
    if (places[from]!.barred.length === 0) continue;
    let to = from;
    while (to + 1 < n && places[to + 1]!.barred.length > 0) to++;
    const beside = (first: number, step: -1 | 1): number[] => {
      const out: number[] = [];
      for (let k = first; k >= 0 && k < n && places[k]!.barred.length === 0 && Math.abs(places[k]!.alongMm - places[first]!.alongMm) <= BESIDE_MM; k += step)
        out.push(k);
      return out;
    };
    const [left, right] = [beside(from - 1, -1), beside(to + 1, 1)];
    const [fromMm, toMm] = [places[from]!.alongMm, places[to]!.alongMm];
    let [goesLeft, goesRight, stuckMm] = [0, 0, 0];
    for (let k = from; k <= to; k++) {
      const slack = Math.max(0, loss[k]!) * weight[k]!;
      const [far, near] = [left.length ? places[k]!.alongMm - fromMm : Infinity, right.length ? toMm - places[k]!.alongMm : Infinity];
      if (Math.min(far, near) > LED_MM) {
        stuckMm += slack;
        continue;
      }
      if (far <= near) goesLeft += slack;
      else goesRight += slack;
      loss[k] = 0;
    }
    const hang = (strip: readonly number[], slack: number): void => {
      const width = strip.reduce((s, k) => s + weight[k]!, 0);
      if (slack > 0) for (const k of strip) loss[k]! += slack / width;
    };
    hang(left, goesLeft);
    hang(right, goesRight);
    const boxes = [...new Set(places.slice(from, to + 1).flatMap((p) => p.barred))];
    led.push({ boxes, ledMm: goesLeft + goesRight, stuckMm, fromMm, toMm });
    from = to;
  }
  return { places: places.map((p, i) => ({ ...p, lossFrac: loss[i]! })), led };
}
