import type { Masonry } from '@yellow-pane/contracts';
import { jointsOf } from '../measure/index.js';

/** Sides of a panel of film on a wall. */
export const panelBorders = ['left', 'right', 'foot', 'top'] as const;
export type PanelBorder = (typeof panelBorders)[number];

/** A panel of film on a wall of blocks or bricks, as far as its joints are asked: places in mm from the left end and the foot of the wall. */
export interface JointedPanel {
  readonly masonry: Masonry;
  readonly wall: { readonly widthMm: number; readonly heightMm: number };
  readonly panel: { readonly leftMm: number; readonly rightMm: number; readonly footMm: number; readonly topMm: number };
  /** Where a joint leaves beneath an edge that is free, its air can go; a panel that is up already beside it shuts it. */
  readonly borders: Readonly<Record<PanelBorder, 'free' | 'closed'>>;
  /** What stands in the wall: film is cut round it. Open: its hole is a way out for air until its cover is on. */
  readonly obstacles: readonly JointObstacle[];
  /** The panel goes round a column and meets itself. */
  readonly goesRound?: boolean;
}
export interface JointObstacle {
  /** What it is; left out: nobody says. */
  readonly what?: string;
  readonly leftMm: number;
  readonly footMm: number;
  readonly widthMm: number;
  readonly heightMm: number;
  readonly isOpen: boolean;
}

/** Where joints meet, leave the panel, or end. */
export interface JointNode {
  readonly xMm: number;
  readonly yMm: number;
  /** Exit: air can leave there until its edge is sealed. End: it cannot. */
  readonly is: 'crossing' | 'exit' | 'end';
  /** Of an exit: the border it leaves beneath, or the hole of an outlet. */
  readonly side: PanelBorder | 'hole' | null;
  /** Segments that meet here, by where they lie from it. */
  readonly at: { readonly east: number | null; readonly west: number | null; readonly north: number | null; readonly south: number | null };
}
/** A joint between two nodes: of a bed from left to right, of a head upwards. */
export interface JointSegment {
  readonly way: 'bed' | 'head';
  readonly a: number;
  readonly b: number;
  readonly lengthMm: number;
  /** The bed joint, or the course, it belongs to, from the foot of the wall. */
  readonly level: number;
}
export interface JointGraph {
  readonly nodes: readonly JointNode[];
  readonly segments: readonly JointSegment[];
}
/** The other end of a segment. */
export const otherEnd = ({ a, b }: JointSegment, node: number): number => (node === a ? b : a);

/** Places nearer than this are one, mm. @source house figure: no tape tells them apart */
const SAME_MM = 0.5;

/** What of a straight line is left where obstacles are taken out, with what ends each part. */
interface Run {
  readonly fromMm: number;
  readonly toMm: number;
  readonly fromIs: JointNode['is'];
  readonly toIs: JointNode['is'];
}
function runsOf(
  fromMm: number,
  toMm: number,
  ends: readonly [JointNode['is'], JointNode['is']],
  holes: readonly { fromMm: number; toMm: number; isOpen: boolean }[],
): Run[] {
  const out: Run[] = [];
  let [at, is] = [fromMm, ends[0]];
  for (const h of [...holes].sort((p, q) => p.fromMm - q.fromMm)) {
    const end = h.isOpen ? 'exit' : 'end';
    if (h.toMm <= at) continue;
    if (h.fromMm >= toMm) break;
    if (h.fromMm > at + SAME_MM) out.push({ fromMm: at, toMm: h.fromMm, fromIs: is, toIs: end });
    [at, is] = [Math.max(at, h.toMm), end];
  }
  if (toMm > at + SAME_MM) out.push({ fromMm: at, toMm, fromIs: is, toIs: ends[1] });
  return out;
}

/**
 * The joints of a wall beneath one panel of film as a graph.
 * A joint that runs along the border of the panel, within half its width, is that border: what ends in it leaves the panel there.
 */
export function jointGraph({ masonry, wall, panel, borders, obstacles, goesRound = false }: JointedPanel): JointGraph {
  const { bedsMm, courses } = jointsOf(masonry, wall);
  const near = Math.max(SAME_MM, masonry.jointMm / 2);
  const nodes: {
    xMm: number;
    yMm: number;
    is: JointNode['is'];
    side: JointNode['side'];
    at: { east: number | null; west: number | null; north: number | null; south: number | null };
  }[] = [];
  const byPlace = new Map<string, number>();
  const sideOf = (xMm: number, yMm: number): PanelBorder | 'hole' => {
    if (!goesRound && Math.abs(xMm - panel.leftMm) < SAME_MM) return 'left';
    if (!goesRound && Math.abs(xMm - panel.rightMm) < SAME_MM) return 'right';
    return yMm <= panel.footMm + near ? 'foot' : yMm >= panel.topMm - near ? 'top' : 'hole';
  };
  const nodeAt = (xMm: number, yMm: number, is: JointNode['is']): number => {
    // round a column the two ends are one place
    const x = goesRound && Math.abs(xMm - panel.rightMm) < SAME_MM ? panel.leftMm : xMm;
    const key = `${Math.round(x / SAME_MM)}/${Math.round(yMm / SAME_MM)}`;
    const known = byPlace.get(key);
    if (known !== undefined) return known;
    nodes.push({ xMm: x, yMm, is, side: is === 'exit' ? sideOf(xMm, yMm) : null, at: { east: null, west: null, north: null, south: null } });
    byPlace.set(key, nodes.length - 1);
    return nodes.length - 1;
  };
  const segments: JointSegment[] = [];
  const join = (way: JointSegment['way'], a: number, b: number, lengthMm: number, level: number) => {
    const id = segments.length;
    segments.push({ way, a, b, lengthMm, level });
    if (way === 'bed') [nodes[a]!.at.east, nodes[b]!.at.west] = [id, id];
    else [nodes[a]!.at.north, nodes[b]!.at.south] = [id, id];
  };
  const border = (side: PanelBorder): JointNode['is'] => (borders[side] === 'free' ? 'exit' : 'end');
  const beds = bedsMm.map((y, level) => ({ y, level })).filter(({ y }) => y > panel.footMm + near && y < panel.topMm - near);
  const heads = courses.flatMap((c, level) =>
    c.headsMm
      .filter((x) => (goesRound ? x >= panel.leftMm - SAME_MM && x < panel.rightMm - SAME_MM : x > panel.leftMm + near && x < panel.rightMm - near))
      .flatMap((x) => {
        const [low, high] = [Math.max(c.lowMm, panel.footMm), Math.min(c.highMm, panel.topMm)];
        if (high - low < near) return [];
        const endAt = (y: number): JointNode['is'] => (y <= panel.footMm + near ? border('foot') : y >= panel.topMm - near ? border('top') : 'crossing');
        const holes = obstacles
          .filter((o) => x > o.leftMm && x < o.leftMm + o.widthMm)
          .map((o) => ({ fromMm: o.footMm, toMm: o.footMm + o.heightMm, isOpen: o.isOpen }));
        return runsOf(low, high, [endAt(low), endAt(high)], holes).map((r) => ({ x, level, ...r }));
      }),
  );
  for (const { y, level } of beds) {
    const holes = obstacles
      .filter((o) => y > o.footMm && y < o.footMm + o.heightMm)
      .map((o) => ({ fromMm: o.leftMm, toMm: o.leftMm + o.widthMm, isOpen: o.isOpen }));
    const ends = goesRound ? (['crossing', 'crossing'] as const) : ([border('left'), border('right')] as const);
    const met = heads.filter((h) => Math.abs(h.fromMm - y) < SAME_MM || Math.abs(h.toMm - y) < SAME_MM).map((h) => h.x);
    for (const r of runsOf(panel.leftMm, panel.rightMm, ends, holes)) {
      const places = [...new Set(met)].filter((x) => x > r.fromMm + SAME_MM && x < r.toMm - SAME_MM).sort((p, q) => p - q);
      const stops = [{ x: r.fromMm, is: r.fromIs }, ...places.map((x) => ({ x, is: 'crossing' as const })), { x: r.toMm, is: r.toIs }];
      stops.slice(1).forEach((s, i) => join('bed', nodeAt(stops[i]!.x, y, stops[i]!.is), nodeAt(s.x, y, s.is), s.x - stops[i]!.x, level));
    }
  }
  for (const h of heads) join('head', nodeAt(h.x, h.fromMm, h.fromIs), nodeAt(h.x, h.toMm, h.toIs), h.toMm - h.fromMm, h.level);
  return { nodes, segments };
}
