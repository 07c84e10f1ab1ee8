import type { Allowances, CutSettings, Edge, Piece, Seam, SeamKind, Pane, Turn } from '@yellow-pane/contracts';
import { formatLength, type UnitSystem } from '../ground/index.js';
import { layPiecesOnRolls, type RollToCut } from './layout/index.js';

/**
 * Film on film at a seam, mm. Overlap: 1 in, one piece lies on the other. Double cut: both reach 1 in past the line and are cut through
 * together, a strip of liner under the cut. Butt: none, straight edges meet.
 * @source common practice (overlap 1 in / 25 mm, double cut 2 in / 50 mm in all)
 */
export const seamLapMm: Readonly<Record<SeamKind, number>> = { overlap: 25, butt: 0, 'double-cut': 50 };

/** No level seam here above the floor, where eyes are. @source the brief of the trade: 1500–1700 mm */
const EYE_ZONE_MM = { bottomMm: 1500, topMm: 1700 } as const;

/** A strip narrower than this beside full ones looks like a mend. @source house rule */
const NARROW_STRIP_MM = 300;
/** Positions nearer together than this count as one line. @source house rule: what an eye takes for aligned */
const ALIGNED_MM = 6;
/** Minutes of seam work per metre: line taped, cut or pressed, edges looked at. @source house figures */
const seamMinutesPerM: Readonly<Record<SeamKind, number>> = { overlap: 3, butt: 4, 'double-cut': 6 };

/** One strip of a pieced pane, as the pane was seen when it was measured. */
export interface Strip {
  /** Counted from the left, or from the sill. */
  readonly index: number;
  readonly name: string;
  readonly widthMm: number;
  readonly heightMm: number;
  /** Its left and lower edge, from the left side and the sill of the opening; negative where it hangs over. */
  readonly leftMm: number;
  readonly lowMm: number;
  /** Edges that are trimmed on the frame: the others meet another strip. */
  readonly frameEdges: readonly Edge[];
  /** Edge that must be the roll's own so that two straight edges meet. */
  readonly factoryEdge: Edge | null;
}

export interface Opening {
  readonly widthMm: number;
  readonly heightMm: number;
}

const nameOf = (i: number, n: number, direction: Seam['direction']): string => {
  if (direction === 'upright') return n === 2 ? ['left', 'right'][i]! : i === 0 ? 'left' : i === n - 1 ? 'right' : n === 3 ? 'middle' : `${i + 1} from left`;
  return n === 2 ? ['lower', 'upper'][i]! : i === 0 ? 'lower' : i === n - 1 ? 'upper' : n === 3 ? 'middle' : `${i + 1} from sill`;
};

/**
 * The strips of a pane pieced together at given lines: overhang where they end at the frame, the lap where they meet. Where one piece
 * lies on the other, the right one (or the upper one, so that water runs off) carries the lap.
 */
export function stripsOf(opening: Opening, seam: Seam, a: Allowances): Strip[] {
  const upright = seam.direction === 'upright';
  const total = upright ? opening.widthMm : opening.heightMm;
  const lines = [0, ...[...seam.atMm].sort((x, y) => x - y), total];
  const lap = seamLapMm[seam.kind];
  return lines.slice(1).map((end, index) => {
    const start = lines[index]!;
    const isFirst = index === 0;
    const isLast = index === lines.length - 2;
    const inner = seam.kind === 'double-cut' ? lap / 2 : lap;
    const before = isFirst ? a.overhangMm : inner;
    const after = isLast ? (upright ? a.overhangMm : a.overhangTopMm) : seam.kind === 'double-cut' ? lap / 2 : 0;
    const across = end - start + before + after;
    const frame: Edge[] = upright
      ? ['top', ...(isLast ? (['right'] as const) : []), 'bottom', ...(isFirst ? (['left'] as const) : [])]
      : [...(isLast ? (['top'] as const) : []), 'right', ...(isFirst ? (['bottom'] as const) : []), 'left'];
    return {
      index,
      name: nameOf(index, lines.length - 1, seam.direction),
      widthMm: upright ? across : opening.widthMm + 2 * a.overhangMm,
      heightMm: upright ? opening.heightMm + a.overhangMm + a.overhangTopMm : across,
      leftMm: upright ? start - before : -a.overhangMm,
      lowMm: upright ? -a.overhangMm : start - before,
      frameEdges: frame,
      factoryEdge: seam.kind !== 'butt' ? null : upright ? (isFirst ? 'right' : isLast ? 'left' : null) : isFirst ? 'top' : isLast ? 'bottom' : null,
    };
  });
}

/** What decides where a pane is pieced together. */
export interface SeamRequest {
  readonly opening: Opening;
  readonly allowances: Allowances;
  readonly kinds: readonly SeamKind[];
  readonly rolls: readonly Pick<RollToCut, 'id' | 'widthMm' | 'pricePerM'>[];
  readonly settings: CutSettings;
  readonly turns: readonly Turn[];
  /** Lower edge of the glass above the floor; null = not said. */
  readonly sillMm: number | null;
  /** Bars and seams of neighbours, from the left side of this opening. */
  readonly alignUprightMm: readonly number[];
  /** The same for level lines, from the sill. */
  readonly alignLevelMm: readonly number[];
  readonly hourRate: number;
  readonly units: UnitSystem;
}

/** One way to piece a pane together, with what it costs and how it looks. */
export interface SeamPlan {
  readonly seam: Seam;
  readonly strips: readonly Strip[];
  readonly usedM: number;
  readonly filmCost: number;
  readonly wasteM2: number;
  readonly seamM: number;
  readonly minutes: number;
  readonly money: number;
  readonly looks: 'good' | 'fair' | 'poor';
  readonly name: string;
  readonly remarks: readonly string[];
}

/**
 * Where the seams of its neighbours meet a pane, in mm from its own left side (upright) and its own lower edge (level).
 * Upright: panes above or below it between the same bars, whose columns are equally wide. Level: panes of the same place, moved by the
 * difference of their heights above the floor where both are known; taken to stand level where one is not.
 */
export function seamLinesBeside(surface: Pane, surfaces: readonly Pane[]): { uprightMm: number[]; levelMm: number[] } {
  const uprightMm: number[] = [];
  const levelMm: number[] = [];
  for (const other of surfaces) {
    if (other.id === surface.id || other.placeId !== surface.placeId || !other.seam) continue;
    if (other.seam.direction === 'level') {
      const own = surface.exposure?.heightAboveFloorMm ?? null;
      const theirs = other.exposure?.heightAboveFloorMm ?? null;
      const liftMm = own === null || theirs === null ? 0 : theirs - own;
      levelMm.push(...other.seam.atMm.map((at) => at + liftMm));
    } else if (surface.grid && other.grid?.groupId === surface.grid.groupId && other.grid.column === surface.grid.column) {
      uprightMm.push(...other.seam.atMm);
    }
  }
  return { uprightMm, levelMm };
}

/** Lines of n equal strips, of full-width strips and a rest on either side, and on bars. */
function linesFor(total: number, most: { first: number; last: number; inner: number }, n: number, align: readonly number[]): { name: string; at: number[] }[] {
  const equal = Array.from({ length: n - 1 }, (_, i) => (total * (i + 1)) / n);
  const from = (outer: number) => Array.from({ length: n - 1 }, (_, i) => outer + i * most.inner);
  const out = [{ name: n === 2 ? 'two equal strips' : `${n} equal strips`, at: equal }];
  if (from(most.first).at(-1)! < total) out.push({ name: 'full width, the rest last', at: from(most.first) });
  if (from(most.last).at(-1)! < total) out.push({ name: 'full width, the rest first', at: from(most.last).map((x) => total - x).reverse() }); // prettier-ignore
  if (n === 3 && most.inner < total) out.push({ name: 'full width in the middle', at: [(total - most.inner) / 2, (total + most.inner) / 2] });
  const bars = [...new Set(align.filter((x) => x > 60 && x < total - 60))].sort((a, b) => a - b);
  const onBars = bars.filter((_, i) => i < 12);
  const choose = (from: number, left: number, at: number[]): void => {
    if (left === 0) out.push({ name: 'on the lines beside it', at });
    else for (let i = from; i < onBars.length; i++) choose(i + 1, left - 1, [...at, onBars[i]!]);
  };
  if (onBars.length >= n - 1) choose(0, n - 1, []);
  return out;
}

/**
 * Ways to piece a pane together that is wider and higher than its film: how many strips, upright or level, equal or full width and rest,
 * on the lines of the bars beside it; each with length, waste, minutes and looks. The best looking first, then the cheapest.
 */
export function planSeams(request: SeamRequest): SeamPlan[] {
  const { opening, allowances: a, rolls, settings } = request;
  if (rolls.length === 0) return [];
  const widest = Math.max(...rolls.map((r) => r.widthMm));
  const out: SeamPlan[] = [];
  for (const kind of request.kinds)
    for (const direction of ['upright', 'level'] as const) {
      const upright = direction === 'upright';
      const total = upright ? opening.widthMm : opening.heightMm;
      const lap = seamLapMm[kind];
      const end = upright ? a.overhangMm : a.overhangTopMm;
      const share = kind === 'double-cut' ? lap / 2 : 0;
      const most = { first: widest - a.overhangMm - share, last: widest - end - (kind === 'double-cut' ? share : lap), inner: widest - lap };
      const least = Math.max(2, Math.ceil((total - most.first - most.last) / Math.max(1, most.inner)) + 2);
      for (let n = Math.min(least, 20); n <= Math.min(least + 1, 20); n++)
        for (const { name, at } of linesFor(total, most, n, upright ? request.alignUprightMm : request.alignLevelMm)) {
          const moved = upright ? at : clearOfEyes(at, request.sillMm, total, widest, a);
          const plan = judged(request, { kind, direction, atMm: moved.map((x) => Math.round(x * 10) / 10) }, name, widest, settings);
          if (plan) out.push(plan);
        }
    }
  const rank = { good: 0, fair: 1, poor: 2 } as const;
  const seen = new Set<string>();
  return out
    .sort((x, y) => rank[x.looks] - rank[y.looks] || x.money - y.money || x.seam.atMm.length - y.seam.atMm.length)
    .filter((p) => {
      const key = JSON.stringify(p.seam);
      return !seen.has(key) && (seen.add(key), true);
    })
    .slice(0, 12);
}

/** A level seam at eye level moves just below or above it where the strips still fit. */
function clearOfEyes(at: readonly number[], sillMm: number | null, total: number, widest: number, a: Allowances): number[] {
  if (sillMm === null) return [...at];
  const hit = (x: number) => sillMm + x > EYE_ZONE_MM.bottomMm && sillMm + x < EYE_ZONE_MM.topMm;
  const moved = at.map((x) => {
    if (!hit(x)) return x;
    const [low, high] = [EYE_ZONE_MM.bottomMm - sillMm, EYE_ZONE_MM.topMm - sillMm];
    return Math.abs(x - low) <= Math.abs(x - high) ? low : high;
  });
  const lines = [0, ...moved, total];
  const fits = lines.slice(1).every((x, i) => x - lines[i]! > 60 && x - lines[i]! + 2 * a.overhangMm + 50 <= widest);
  return fits ? moved : [...at];
}

function judged(request: SeamRequest, seam: Seam, name: string, widest: number, settings: CutSettings): SeamPlan | null {
  const { opening, allowances, rolls, sillMm } = request;
  const upright = seam.direction === 'upright';
  const total = upright ? opening.widthMm : opening.heightMm;
  const lines = [0, ...seam.atMm, total];
  if (lines.some((x, i) => i > 0 && x <= lines[i - 1]!)) return null;
  const strips = stripsOf(opening, seam, allowances);
  const turns = [...request.turns];
  const pieces = strips.map((s): Piece => stripPiece(s, turns));
  if (pieces.some((p) => !canLie(p, widest, settings))) return null;
  // the middle strips of a butted pane need two straight edges: only a strip of the full width has them
  if (seam.kind === 'butt' && strips.slice(1, -1).some((s) => Math.abs((upright ? s.widthMm : s.heightMm) - widest) > 1)) return null;
  const layout = layPiecesOnRolls(
    { filmId: pieces[0]!.filmId, rolls: rolls.map((r) => ({ ...r, availableMm: 500_000, fixedDrops: [] })), pieces, settings, seed: 1 },
    20,
  );
  if (layout.unplaced.length > 0) return null;
  const usedM = layout.usedMm / 1000;
  const rollM2 = layout.rolls.reduce((s, r) => s + (r.usedMm * (rolls.find((x) => x.id === r.rollId)?.widthMm ?? 0)) / 1e6, 0);
  const glassM2 = (opening.widthMm * opening.heightMm) / 1e6;
  const seamM = (seam.atMm.length * (upright ? opening.heightMm : opening.widthMm)) / 1000;
  const minutes = seamM * seamMinutesPerM[seam.kind];
  const f = (mm: number) => formatLength(mm, request.units);
  const eyes = !upright && sillMm !== null ? seam.atMm.filter((x) => sillMm + x > EYE_ZONE_MM.bottomMm && sillMm + x < EYE_ZONE_MM.topMm) : [];
  const align = upright ? request.alignUprightMm : request.alignLevelMm;
  const offLine = align.length > 0 && seam.atMm.some((x) => !align.some((y) => Math.abs(x - y) <= ALIGNED_MM));
  const spans = lines.slice(1).map((x, i) => x - lines[i]!);
  const narrow = Math.min(...spans) < NARROW_STRIP_MM;
  const unequal = Math.max(...spans) - Math.min(...spans) > 0.25 * Math.max(...spans);
  const remarks = [
    ...eyes.map((x) => `The seam at ${f(sillMm! + x)} above the floor runs through eye level, ${f(EYE_ZONE_MM.bottomMm)} to ${f(EYE_ZONE_MM.topMm)}.`),
    ...(!upright && sillMm === null ? ['Enter the height of the sill above the floor: a level seam should not run through eye level.'] : []),
    ...(narrow ? [`A strip of ${f(Math.min(...spans))} beside full ones looks like a mend.`] : []),
    ...(offLine ? ['Not in line with the bars or seams beside it.'] : align.length ? ['In line with what stands beside it.'] : []),
    ...(unequal && !narrow ? [`Strips of ${spans.map((s) => f(s)).join(' and ')}: uneven.`] : []),
  ];
  const looks = eyes.length || narrow ? 'poor' : offLine || unequal || !upright ? 'fair' : 'good';
  return {
    seam,
    strips,
    usedM,
    filmCost: layout.cost,
    wasteM2: Math.max(0, rollM2 - glassM2),
    seamM,
    minutes,
    money: layout.cost + (minutes / 60) * request.hourRate,
    looks,
    name: `${upright ? 'Upright' : 'Level'}, ${name}`,
    remarks,
  };
}

const canLie = (p: Piece, widest: number, settings: CutSettings): boolean =>
  p.turns.some((t) =>
    t % 180 === 0 ? p.widthMm <= widest && p.heightMm <= settings.longestPullMm : p.heightMm <= widest && p.widthMm <= settings.longestPullMm,
  );

const stripPiece = (s: Strip, turns: Turn[]): Piece => ({
  id: `strip ${s.index}`,
  surfaceId: 'strip',
  label: s.name,
  filmId: 'film',
  method: 'overhang',
  widthMm: Math.ceil(s.widthMm - 1e-6),
  heightMm: Math.ceil(s.heightMm - 1e-6),
  turns: s.factoryEdge === null ? turns : turns.filter((t) => (s.factoryEdge === 'left' || s.factoryEdge === 'right' ? t % 180 === 0 : t % 180 === 90)),
  factoryEdge: s.factoryEdge,
  trimmedEdges: [...s.frameEdges],
  path: null,
  holes: [],
  meets: null,
  repeat: null,
  isPlotted: false,
  parts: [],
  why: [],
  fallback: null,
});
