import type { CornerLetter, CornerPlace, MeasureKey, PaneShape } from '@yellow-pane/contracts';
import type { Numbers, TapedModel, Usual } from './taped-model.js';
import { anticlockwise, crossingSides, distance, middle, vec, type ArcPath, type Vec } from '../geometry/index.js';

/**
 * A kind of outline whose every measure is the distance between two points of it, so one definition serves the adjustment,
 * the drawing and the words.
 */
export interface ShapeModel extends TapedModel {
  outline(p: Numbers): ArcPath;
  /** Where the tape lies. */
  ends(p: Numbers, key: MeasureKey): readonly [Vec, Vec];
  /** The name of a measure where it differs from an opening's. */
  readonly names: Partial<Record<MeasureKey, string>>;
  /** What these tapes can never say. */
  readonly blindTo: readonly string[];
}
type Outlined = Omit<ShapeModel, 'reading'>;

const straight = (...corners: Vec[]): ArcPath => corners.map((c) => ({ ...c, bulge: 0 }));
/** How far from plumb, level or parallel builders leave it, 1 σ. @source house rule, as for four-sided openings */
const USUAL_MM = 6;
/** How far a made arch is from its true curve, 1 σ. @source house rule */
const USUAL_CURVE_MM = 3;
const usual = (offMm: number, sigmaMm = USUAL_MM): Usual => ({ offMm, sigmaMm });
const ZERO = vec(0, 0);

/** The third corner over a base from (0,0) to (b,0), left of it, from its distances to both. */
function over(base: number, fromStart: number, fromEnd: number): Vec {
  const x = (base ** 2 + fromStart ** 2 - fromEnd ** 2) / (2 * base);
  return vec(x, Math.sqrt(Math.max(1, fromStart ** 2 - x ** 2)));
}

/** Level sill, two uprights of different height, a sloping top: stairs, gables, dormers. Numbers: B.x, C.x, C.y, D.x, D.y. */
const rake: Outlined = {
  keys: ['widthBottom', 'heightLeft', 'heightRight', 'widthTop', 'diagonalDown', 'diagonalUp'],
  start(t) {
    const w = t.get('widthBottom');
    const [left, right, top] = [t.get('heightLeft'), t.get('heightRight'), t.get('widthTop')];
    if (!w) return null;
    const rise = top && top > w ? Math.sqrt(top ** 2 - w ** 2) : null;
    const l = left ?? (right && rise !== null ? right + rise : null);
    const r = right ?? (left && rise !== null ? Math.max(1, left - rise) : null);
    return l && r ? [w, w, r, 0, l] : null;
  },
  outline: (p) => straight(ZERO, vec(p[0]!, 0), vec(p[1]!, p[2]!), vec(p[3]!, p[4]!)),
  ends: (p, key) => quadEnds(ZERO, vec(p[0]!, 0), vec(p[1]!, p[2]!), vec(p[3]!, p[4]!), key),
  usual: (p) => [usual(p[3]!), usual(p[1]! - p[0]!)],
  names: { widthTop: 'sloping top', widthBottom: 'sill', heightLeft: 'left upright', heightRight: 'right upright' },
  blindTo: ['Whether the sill is level: only a spirit level tells.'],
};

/** Two plumb sides between two parallel slopes: stair glazing. Numbers: B.x, B.y, C.x, C.y, D.y; D stands plumb over A. */
const parallelogram: Outlined = {
  keys: ['widthBottom', 'heightLeft', 'heightRight', 'widthTop', 'diagonalDown', 'diagonalUp'],
  start(t) {
    const base = t.get('widthBottom') ?? t.get('widthTop');
    const side = t.get('heightLeft') ?? t.get('heightRight');
    const [down, up] = [t.get('diagonalDown'), t.get('diagonalUp')];
    if (!base || !side || (!down && !up)) return null;
    // AC² = base² + side² + 2·side·B.y ; BD² = base² + side² − 2·side·B.y
    const rise = up ? (up ** 2 - base ** 2 - side ** 2) / (2 * side) : (base ** 2 + side ** 2 - down! ** 2) / (2 * side);
    const y = Math.max(-0.99 * base, Math.min(0.99 * base, rise));
    const x = Math.sqrt(base ** 2 - y ** 2);
    return [x, y, x, y + side, side];
  },
  outline: (p) => straight(ZERO, vec(p[0]!, p[1]!), vec(p[2]!, p[3]!), vec(0, p[4]!)),
  ends: (p, key) => quadEnds(ZERO, vec(p[0]!, p[1]!), vec(p[2]!, p[3]!), vec(0, p[4]!), key),
  usual: (p) => [usual(p[2]! - p[0]!), usual(p[3]! - p[1]! - p[4]!)],
  names: { widthTop: 'upper slope', widthBottom: 'lower slope', heightLeft: 'left upright', heightRight: 'right upright' },
  blindTo: ['Whether the uprights are plumb: only a spirit level tells.'],
};

function quadEnds(a: Vec, b: Vec, c: Vec, d: Vec, key: MeasureKey): readonly [Vec, Vec] {
  const ends: Partial<Record<MeasureKey, readonly [Vec, Vec]>> = {
    widthBottom: [a, b],
    widthTop: [d, c],
    heightLeft: [d, a],
    heightRight: [c, b],
    diagonalDown: [d, b],
    diagonalUp: [a, c],
  };
  return ends[key] ?? [a, a];
}

/** Numbers: B.x, C.x, C.y. */
const triangle: Outlined = {
  keys: ['widthBottom', 'sideLeft', 'sideRight', 'heightMiddle'],
  start(t) {
    const base = t.get('widthBottom');
    const [left, right, high] = [t.get('sideLeft'), t.get('sideRight'), t.get('heightMiddle')];
    if (!base) return null;
    if (left && right) {
      const top = over(base, left, right);
      return [base, top.x, top.y];
    }
    if (left && high && left >= high) return [base, Math.sqrt(left ** 2 - high ** 2), high];
    if (right && high && right >= high) return [base, base - Math.sqrt(right ** 2 - high ** 2), high];
    return null;
  },
  outline: (p) => straight(ZERO, vec(p[0]!, 0), vec(p[1]!, p[2]!)),
  ends(p, key) {
    const [b, top] = [vec(p[0]!, 0), vec(p[1]!, p[2]!)];
    if (key === 'sideLeft') return [top, ZERO];
    if (key === 'sideRight') return [top, b];
    return key === 'heightMiddle' ? [top, vec(p[1]!, 0)] : [ZERO, b];
  },
  usual: () => [],
  names: { widthBottom: 'sill', heightMiddle: 'height of the tip over the sill' },
  blindTo: [],
};

/** Bulge of an arc over a chord with this rise. */
const bulgeOf = (chord: number, rise: number): number => rise / (chord / 2);

/**
 * Arches over a sill. Without legs: width, rise. With legs: width, left spring x, left height, right spring x beyond the width,
 * right height, rise over the spring line.
 */
function arch(kind: 'arch-round' | 'arch-flat' | 'arch-pointed', hasLegs: boolean): Outlined {
  const spring = (p: Numbers): { left: Vec; right: Vec; rise: number } =>
    hasLegs ? { left: vec(p[1]!, p[2]!), right: vec(p[0]! + p[3]!, p[4]!), rise: p[5]! } : { left: ZERO, right: vec(p[0]!, 0), rise: p[1]! };
  const crownOf = (p: Numbers): Vec => {
    const { left, right, rise } = spring(p);
    const m = middle(left, right);
    const c = distance(left, right);
    return vec(m.x - ((right.y - left.y) / c) * rise, m.y + ((right.x - left.x) / c) * rise);
  };
  /** Half the width of the arch at a share of its rise. */
  const halfWidthAt = (chord: number, rise: number, share: number): number => {
    if (kind === 'arch-pointed') {
      const r = (chord ** 2 / 4 + rise ** 2) / chord;
      return Math.sqrt(Math.max(0, r ** 2 - (share * rise) ** 2)) - (r - chord / 2);
    }
    const r = (chord ** 2 / 4 + rise ** 2) / (2 * rise);
    return Math.sqrt(Math.max(0, r ** 2 - (share * rise - (rise - r)) ** 2));
  };
  const crowns = ['crownLeft', 'crownRight', 'widthHalfRise'] as const;
  return {
    keys: hasLegs
      ? ['widthBottom', 'widthSpring', 'heightLeft', 'heightRight', 'heightMiddle', 'diagonalDown', 'diagonalUp', ...crowns]
      : ['widthBottom', 'heightMiddle', ...crowns],
    start(t) {
      const w = t.get('widthBottom') ?? t.get('widthSpring');
      if (!w) return null;
      const slant = t.get('crownLeft') ?? t.get('crownRight');
      const fromSlant = slant && slant > w / 2 ? Math.sqrt(slant ** 2 - (w / 2) ** 2) : null;
      const high = t.get('heightMiddle');
      if (!hasLegs) {
        const rise = high ?? fromSlant ?? (kind === 'arch-round' ? w / 2 : null);
        return rise ? [w, rise] : null;
      }
      const l =
        t.get('heightLeft') ?? t.get('heightRight') ?? (high && fromSlant ? high - fromSlant : null) ?? (high && kind === 'arch-round' ? high - w / 2 : null);
      if (!l || l <= 0) return null;
      const r = t.get('heightRight') ?? l;
      const rise = high ? high - (l + r) / 2 : (fromSlant ?? (kind === 'arch-round' ? w / 2 : null));
      return rise && rise > 0 ? [w, 0, l, 0, r, rise] : null;
    },
    outline(p) {
      const { left, right, rise } = spring(p);
      const chord = distance(left, right);
      const legs = hasLegs ? straight(ZERO, vec(p[0]!, 0)) : [];
      if (kind !== 'arch-pointed') return [...legs, { ...right, bulge: bulgeOf(chord, rise) }, { ...left, bulge: 0 }];
      const r = (chord ** 2 / 4 + rise ** 2) / chord;
      const side = Math.hypot(chord / 2, rise);
      const bulge = bulgeOf(side, r - Math.sqrt(Math.max(0, r ** 2 - (side / 2) ** 2)));
      return [...legs, { ...right, bulge }, { ...crownOf(p), bulge }, { ...left, bulge: 0 }];
    },
    ends(p, key) {
      const { left, right, rise } = spring(p);
      const b = vec(p[0]!, 0);
      const crown = crownOf(p);
      const m = middle(middle(left, right), crown);
      const half = halfWidthAt(distance(left, right), rise, 0.5);
      const taped: Partial<Record<MeasureKey, readonly [Vec, Vec]>> = {
        widthBottom: [ZERO, b],
        widthSpring: [left, right],
        heightLeft: [left, ZERO],
        heightRight: [right, b],
        heightMiddle: [crown, vec(crown.x, 0)],
        diagonalDown: [left, b],
        diagonalUp: [ZERO, right],
        crownLeft: [left, crown],
        crownRight: [right, crown],
        widthHalfRise: [vec(m.x - half, m.y), vec(m.x + half, m.y)],
      };
      const ends = taped[key];
      if (!ends) throw new RangeError(`An arch has no ${key}.`);
      return ends;
    },
    usual(p) {
      const { left, right, rise } = spring(p);
      const round = kind === 'arch-round' ? [usual(rise - distance(left, right) / 2, USUAL_CURVE_MM)] : [];
      return hasLegs ? [usual(p[1]!), usual(p[3]!), usual(p[2]! - p[4]!), ...round] : round;
    },
    names: {
      widthBottom: 'sill',
      widthSpring: 'width where the arch begins',
      heightLeft: 'left upright',
      heightRight: 'right upright',
      heightMiddle: 'height at the crown',
      diagonalDown: 'diagonal from the left spring',
      diagonalUp: 'diagonal to the right spring',
      widthHalfRise: 'width at half the rise',
    },
    blindTo: ['Whether the crown sits in the middle beyond what its two slants say, and any flat spot between the taped points: hold up the paper template.'],
  };
}

/** Round glass, perhaps a little out of round. Numbers: mean diameter, upright against level, one slant against the other; centre at the origin. */
const circle: Outlined = {
  keys: ['widthMiddle', 'heightMiddle', 'diagonalDown', 'diagonalUp'],
  start(t) {
    const all = [...t].filter(([k]) => circle.keys.includes(k)).map(([, v]) => v);
    return all.length ? [all.reduce((s, v) => s + v, 0) / all.length, 0, 0] : null;
  },
  outline(p) {
    // closed arcs through points 5° apart: within a hundredth of a millimetre of the curve up to 2 m
    const n = 72;
    const at = (i: number) => polar(p, (2 * Math.PI * i) / n);
    return Array.from({ length: n }, (_, i) => ({ ...at(i), bulge: Math.tan(Math.PI / (2 * n)) }));
  },
  ends(p, key) {
    const deg = { heightMiddle: 90, diagonalDown: 135, diagonalUp: 45 }[key as string] ?? 180;
    const t = (deg * Math.PI) / 180;
    return [polar(p, t), polar(p, t + Math.PI)];
  },
  usual: (p) => [usual(p[1]!, USUAL_CURVE_MM), usual(p[2]!, USUAL_CURVE_MM)],
  names: { widthMiddle: 'across', heightMiddle: 'up', diagonalDown: 'slanting down', diagonalUp: 'slanting up' },
  blindTo: [],
};
function polar(p: Numbers, t: number): Vec {
  const r = (p[0]! + p[1]! * Math.cos(2 * t) + p[2]! * Math.sin(2 * t)) / 2;
  return vec(r * Math.cos(t), r * Math.sin(t));
}

/**
 * A quarter with its corner at one of four places. Numbers: level side, upright, angle of the corner. The curve is the quarter of a circle
 * drawn over these two sides; it is reckoned with the corner at the lower left and turned over to where it is.
 */
function quarter(corner: CornerPlace): Outlined {
  const [isRight, isUpper] = [corner.endsWith('right'), corner.startsWith('upper')];
  /** Into the opening's frame: the sill, or the lower tip of the curve, at y = 0; the left side at x = 0. */
  const place = (p: Numbers, v: Vec): Vec => vec(isRight ? p[0]! - v.x : v.x, isUpper ? p[1]! - v.y : v.y);
  const on = (p: Numbers, t: number): Vec => place(p, vec(p[0]! * Math.cos(t) + p[1]! * Math.sin(t) * Math.cos(p[2]!), p[1]! * Math.sin(t) * Math.sin(p[2]!)));
  const [level, upright] = [isUpper ? 'widthTop' : 'widthBottom', isRight ? 'heightRight' : 'heightLeft'] as const;
  return {
    keys: [level, upright, 'chord', 'cornerToArc'],
    start(t) {
      const [w, h] = [t.get(level) ?? t.get(upright), t.get(upright) ?? t.get(level)];
      return w && h ? [w, h, Math.PI / 2] : null;
    },
    outline(p) {
      const n = 18;
      const turn = isRight === isUpper ? 1 : -1;
      // arcs of 5°: exact for a true quarter, within a hundredth of a millimetre for one a little out of it
      const curve = Array.from({ length: n + 1 }, (_, i) => ({ ...on(p, (i * Math.PI) / 2 / n), bulge: i < n ? turn * Math.tan(Math.PI / 8 / n) : 0 }));
      return anticlockwise([...straight(place(p, ZERO)), ...curve]);
    },
    ends(p, key) {
      const [a, b, root] = [on(p, 0), on(p, Math.PI / 2), place(p, ZERO)];
      if (key === upright) return [b, root];
      if (key === 'chord') return [b, a];
      return key === 'cornerToArc' ? [root, on(p, Math.PI / 4)] : [root, a];
    },
    usual: (p) => [usual((p[2]! - Math.PI / 2) * Math.max(p[0]!, p[1]!))],
    names: { [level]: isUpper ? 'top' : 'sill', [upright]: 'upright', chord: 'from tip to tip', cornerToArc: 'corner to the middle of the arc' },
    blindTo: ['A flat spot between the taped points: hold up the paper template.'],
  };
}

const letters: readonly CornerLetter[] = ['A', 'B', 'C', 'D', 'E', 'F', 'G', 'H'];

/**
 * A polygon triangulated by tape: sides, then diagonals. Numbers: B.x, then x and y of each further corner.
 * A first shape is built corner by corner from two known distances each; of the mirror choices, the one whose inward corners are
 * those that the person named.
 */
function polygon(count: number, inward: readonly CornerLetter[]): Outlined {
  const pair = (i: number, j: number) => (letters[Math.min(i, j)]! + letters[Math.max(i, j)]!) as MeasureKey;
  const sides = Array.from({ length: count }, (_, i) => pair(i, (i + 1) % count));
  const diagonals: MeasureKey[] = [];
  for (let i = 0; i < count; i++) for (let j = i + 2; j < count; j++) if (!(i === 0 && j === count - 1)) diagonals.push(pair(i, j));
  const corners = (p: Numbers): Vec[] => [ZERO, vec(p[0]!, 0), ...Array.from({ length: count - 2 }, (_, k) => vec(p[1 + 2 * k]!, p[2 + 2 * k]!))];
  const isAsNamed = (c: readonly Vec[]) =>
    !crossingSides(c) &&
    c.every((_, i) => {
      const [a, b, d] = [c[(i + count - 1) % count]!, c[i]!, c[(i + 1) % count]!];
      return (b.x - a.x) * (d.y - b.y) - (b.y - a.y) * (d.x - b.x) > 0 !== inward.includes(letters[i]!);
    });
  return {
    keys: [...sides, ...diagonals],
    start(t) {
      const base = t.get('AB');
      if (!base) return null;
      /** Places corners one by one, left or right of the line between two that are placed; gives up a branch that does not end as named. */
      const place = (known: ReadonlyMap<number, Vec>): Vec[] | null => {
        if (known.size === count) {
          const c = letters.slice(0, count).map((_, i) => known.get(i)!);
          return isAsNamed(c) ? c : null;
        }
        for (let k = 2; k < count; k++) {
          if (known.has(k)) continue;
          const to = [...known].filter(([i]) => t.get(pair(i, k)));
          if (to.length < 2) continue;
          const [[i, a], [j, b]] = [to[0]!, to[1]!];
          const d = distance(a, b);
          const [ra, rb] = [t.get(pair(i, k))!, t.get(pair(j, k))!];
          const u = (d ** 2 + ra ** 2 - rb ** 2) / (2 * d);
          const v = Math.sqrt(Math.max(0, ra ** 2 - u ** 2));
          const [ex, ey] = [(b.x - a.x) / d, (b.y - a.y) / d];
          for (const s of [1, -1]) {
            const found = place(new Map([...known, [k, vec(a.x + ex * u - ey * v * s, a.y + ey * u + ex * v * s)]]));
            if (found) return found;
          }
          return null;
        }
        return null;
      };
      const found = place(new Map([[0, ZERO], [1, vec(base, 0)]])); // prettier-ignore
      return found && [found[1]!.x, ...found.slice(2).flatMap((c) => [c.x, c.y])];
    },
    outline: (p) => straight(...corners(p)),
    ends(p, key) {
      const c = corners(p);
      return [c[letters.indexOf(key[0] as CornerLetter)] ?? ZERO, c[letters.indexOf(key[1] as CornerLetter)] ?? ZERO];
    },
    usual: () => [],
    slope(p, key) {
      const [i, j] = [letters.indexOf(key[0] as CornerLetter), letters.indexOf(key[1] as CornerLetter)];
      const c = corners(p);
      const [a, b] = [c[i]!, c[j]!];
      const d = distance(a, b) || 1;
      const out = new Array<number>(p.length).fill(0);
      // A stands still, B moves along the sill only
      const put = (k: number, ex: number, ey: number) => {
        if (k === 1) out[0] = ex;
        else if (k > 1) [out[2 * k - 3], out[2 * k - 2]] = [ex, ey];
      };
      put(i, (a.x - b.x) / d, (a.y - b.y) / d);
      put(j, (b.x - a.x) / d, (b.y - a.y) / d);
      return out;
    },
    names: Object.fromEntries([...sides, ...diagonals].map((k) => [k, `${k[0]} to ${k[1]}`])) as ShapeModel['names'],
    blindTo: inward.length ? [] : ['Whether a corner points inwards: say so, the tapes cannot.'],
  };
}

/** An outline from a drawing: nothing to adjust, but two tapes can check it. No numbers. */
function drawn(path: ArcPath): Outlined {
  const outline = anticlockwise(path);
  const xs = (p: Vec) => p.x;
  const low = outline.reduce((a, b) => (b.x < a.x ? b : a), outline[0]!);
  const box = boxOf(outline);
  return {
    keys: ['widthLargest', 'heightLargest'],
    start: () => [],
    outline: () => outline,
    ends: (_, key) => (key === 'heightLargest' ? [vec(xs(low), box.maxY), vec(xs(low), box.minY)] : [vec(box.minX, box.maxY), vec(box.maxX, box.maxY)]),
    usual: () => [],
    names: {},
    blindTo: ['The outline is from a drawing: two tapes check its size, nothing checks its shape. Hold the printed template to the glass.'],
  };
}

/** Box round a path, arcs included. */
export function boxOf(path: ArcPath): { minX: number; minY: number; maxX: number; maxY: number } {
  const points: Vec[] = path.flatMap((p, i) => {
    const next = path[(i + 1) % path.length]!;
    if (Math.abs(p.bulge) < 1e-9) return [p];
    const angle = 4 * Math.atan(p.bulge);
    const k = (1 - p.bulge ** 2) / (4 * p.bulge);
    const c = vec((p.x + next.x) / 2 - (next.y - p.y) * k, (p.y + next.y) / 2 + (next.x - p.x) * k);
    const r = distance(p, c);
    const start = Math.atan2(p.y - c.y, p.x - c.x);
    const turned = (q: number) => (((q - start) * Math.sign(angle)) % (2 * Math.PI) + 2 * Math.PI) % (2 * Math.PI); // prettier-ignore
    const poles = [0, 1, 2, 3].map((i4) => (i4 * Math.PI) / 2).filter((q) => turned(q) <= Math.abs(angle));
    return [p, ...poles.map((q) => vec(c.x + r * Math.cos(q), c.y + r * Math.sin(q)))];
  });
  const xs = points.map((p) => p.x);
  const ys = points.map((p) => p.y);
  return { minX: Math.min(...xs), minY: Math.min(...ys), maxX: Math.max(...xs), maxY: Math.max(...ys) };
}

/** The model of a pane's shape: every measure is the distance between its two ends. */
export function shapeModel(shape: PaneShape): ShapeModel {
  const model = outlined(shape);
  return { ...model, reading: (p, key) => distance(...model.ends(p, key)) };
}

function outlined(shape: PaneShape): Outlined {
  switch (shape.kind) {
    case 'rake':
      return rake;
    case 'parallelogram':
      return parallelogram;
    case 'triangle':
      return triangle;
    case 'circle':
      return circle;
    case 'quarter':
      return quarter(shape.corner);
    case 'polygon':
      return polygon(shape.corners, shape.inward);
    case 'drawn':
      return drawn((shape.path ?? []).map((p) => ({ x: p.xMm, y: p.yMm, bulge: p.bulge })));
    case 'arch-round':
    case 'arch-flat':
    case 'arch-pointed':
      return arch(shape.kind, shape.hasLegs);
  }
}

/** A typical pane of each kind, to draw before anything is taped. */
export function typicalNumbers(shape: PaneShape): Numbers {
  const typical: Record<Exclude<PaneShape['kind'], 'polygon' | 'drawn'>, Numbers> = {
    rake: [900, 900, 900, 0, 1400],
    parallelogram: [800, 500, 800, 1500, 1000],
    triangle: [1100, 550, 800],
    'arch-round': shape.hasLegs ? [900, 0, 900, 0, 900, 450] : [900, 450],
    'arch-flat': shape.hasLegs ? [900, 0, 1000, 0, 1000, 220] : [900, 250],
    'arch-pointed': shape.hasLegs ? [900, 0, 800, 0, 800, 760] : [900, 760],
    circle: [700, 0, 0],
    quarter: [800, 800, Math.PI / 2],
  };
  if (shape.kind === 'drawn') return [];
  if (shape.kind !== 'polygon') return typical[shape.kind];
  const n = shape.corners;
  const at = (i: number) => {
    const t = -Math.PI / 2 - Math.PI / n + (2 * Math.PI * i) / n;
    const r = shape.inward.includes(letters[i]!) ? 200 : 600;
    return vec(r * Math.cos(t), r * Math.sin(t));
  };
  const [a, b] = [at(0), at(1)];
  const turn = Math.atan2(b.y - a.y, b.x - a.x);
  const own = (p: Vec) => vec((p.x - a.x) * Math.cos(turn) + (p.y - a.y) * Math.sin(turn), (p.y - a.y) * Math.cos(turn) - (p.x - a.x) * Math.sin(turn));
  return [distance(a, b), ...Array.from({ length: n - 2 }, (_, k) => own(at(k + 2))).flatMap((c) => [c.x, c.y])];
}
