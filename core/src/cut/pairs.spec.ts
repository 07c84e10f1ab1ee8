import fc from 'fast-check';
import { defaultAllowances, newShape, type Film, type MeasureKey, type PaneShape, type Piece } from '@yellow-pane/contracts';
import { boundingBox, flatten, pathArea, signedArea, vec, type Polygon } from '../geometry/index.js';
import { shapeModel, surveyShape, typicalNumbers, type TapeReading } from '../measure/index.js';
import { plainSettings, testRoll } from './layout/instances.testing.js';
import { checkLayout, layPiecesOnRolls } from './layout/index.js';
import { knifeOrder } from './knife-order.js';
import { bestPair, checkParts, cutAcross, onRoll, pairUp, partingLine, touchingPlaces } from './pairs.js';
import { pieceForPane, type PieceRequest } from './piece.js';

const shape = newShape;
const id = (n: number) => `00000000-0000-7000-8000-${String(n).padStart(12, '0')}`;
const tapes = (s: PaneShape, p: readonly number[]): TapeReading[] =>
  shapeModel(s).keys.map((measure) => ({ measure, lengthMm: shapeModel(s).reading(p, measure) }));
const film: Pick<Film, 'id' | 'direction'> = { id: id(900), direction: 'none' };

const ask = (s: PaneShape, p: readonly number[], more: Partial<PieceRequest> = {}) =>
  pieceForPane({
    surface: { id: id(1), name: 'F1', seenFrom: 'room', filmFace: 'room', signed: null, cutOuts: [] },
    survey: surveyShape(s, tapes(s, p)),
    method: 'overhang',
    allowances: { ...defaultAllowances, overhangMm: 25, overhangTopMm: 25, edgeGapMm: 1.5 },
    film,
    rollWidthsMm: [1524],
    units: 'mm',
    isSigned: false,
    ...more,
  });
let count = 10;
const pieceOf = (s: PaneShape, p: readonly number[], more: Partial<PieceRequest> = {}): Piece => {
  const answer = ask(s, p, more);
  if (!('piece' in answer)) throw new Error(answer.blocked);
  const n = count++;
  return { ...answer.piece, id: id(n), label: `P${n}` };
};
const polygonOf = (p: Piece): Polygon => flatten(p.path!.map((q) => ({ x: q.xMm, y: q.yMm, bulge: q.bulge })));

describe('the piece of a shaped pane', () => {
  test('an arched fanlight with overhang: its outline moved out, in a rectangle 50 mm and the tapes larger', () => {
    const p = pieceOf(shape('arch-round'), [900, 450]);
    expect(p.widthMm).toBeGreaterThanOrEqual(950);
    expect(p.widthMm).toBeLessThan(960);
    expect(p.heightMm).toBeGreaterThanOrEqual(500);
    expect(p.trimmedEdges).toHaveLength(4);
  });
  test('pre-cut: the outline moved in by the edge gap and the tapes; its area by hand', () => {
    const p = pieceOf(shape('circle'), [700, 0, 0], { method: 'pre-cut' });
    const r = 350 - (700 - (Math.max(...p.path!.map((q) => q.xMm)) - Math.min(...p.path!.map((q) => q.xMm)))) / 2;
    expect(r).toBeLessThan(350 - 1.5);
    expect(r).toBeGreaterThan(350 - 3.5);
    expect(signedArea(polygonOf(p))).toBeCloseTo(Math.PI * r ** 2, -3);
  });
  test('a pre-cut rake is seen from the liner: taped in the room for the room face, it is mirrored once', () => {
    const p = [900, 900, 900, 0, 1400];
    const room = pieceOf(shape('rake'), p, { method: 'pre-cut' });
    const street = pieceOf(shape('rake'), p, {
      method: 'pre-cut',
      surface: { id: id(1), name: 'F1', seenFrom: 'room', filmFace: 'street', signed: null, cutOuts: [] },
    });
    const topX = (q: Piece) => q.path!.reduce((a, b) => (b.yMm > a.yMm ? b : a)).xMm;
    expect(topX(street)).toBeLessThan(10);
    expect(topX(room)).toBeGreaterThan(room.widthMm - 10);
    expect(signedArea(polygonOf(room))).toBeGreaterThan(0);
  });
  test('cut-outs: in the outline of a pre-cut piece, with the gap to spare; in words where it is cut on the glass', () => {
    const cutOuts = [
      { id: id(77), what: 'handle', isRound: false, widthMm: 60, heightMm: 180, fromSide: 'right', acrossMm: 40, fromEdge: 'bottom', upMm: 950 },
    ] as const;
    const surface = { id: id(1), name: 'Door', seenFrom: 'room', filmFace: 'street', signed: null, cutOuts: [...cutOuts] } satisfies PieceRequest['surface'];
    const cut = pieceOf(shape('polygon', { corners: 4 }), [800, 800, 2000, 0, 2000], { method: 'pre-cut', surface });
    const hole = cut.holes[0]!;
    const xs = hole.map((q) => q.xMm);
    expect(Math.max(...xs) - Math.min(...xs)).toBeCloseTo(63, 6);
    expect(pathArea(hole.map((q) => ({ x: q.xMm, y: q.yMm, bulge: q.bulge })))).toBeCloseTo(63 * 183 - (4 - Math.PI) * 6 ** 2, 3);
    const over = pieceOf(shape('polygon', { corners: 4 }), [800, 800, 2000, 0, 2000], { surface });
    expect(over.holes).toEqual([]);
    expect(over.why.join(' ')).toContain('handle 60 × 180, 40 from the right, 950 from the bottom');
    expect(over.why.join(' ')).toContain('nearest edge');
  });
  test('methods that need four sides fall back with the reason; doubtful tapes are covered by a rectangle', () => {
    const a = ask(shape('triangle'), [1100, 550, 800], { method: 'factory-edge' });
    expect('piece' in a && a.piece.fallback).toContain('four-sided');
    const s = shape('triangle');
    const bad = tapes(s, [1100, 550, 800]).map((t) => (t.measure === ('heightMiddle' as MeasureKey) ? { ...t, lengthMm: t.lengthMm - 60 } : t));
    const b = ask(s, [1100, 550, 800], { survey: surveyShape(s, bad) });
    expect('piece' in b && b.piece.path).toBeNull();
    expect('piece' in b && b.piece.heightMm).toBeGreaterThan(850);
    expect(ask(s, [1100, 550, 800], { survey: surveyShape(s, bad), method: 'pre-cut' })).toHaveProperty('blocked');
  });
});

describe('shaped pieces out of one rectangle', () => {
  const right = [vec(0, 0), vec(800, 0), vec(0, 600)];
  test('two right triangles make the rectangle of both sides', () => {
    const pair = bestPair(right, right, [0, 180], () => true)!;
    expect(pair.isSecondTurned).toBe(true);
    expect(pair.widthMm * pair.heightMm).toBeCloseTo(800 * 600, 3);
  });
  test('two rakes head to foot: as wide as one, as high as its two uprights together', () => {
    const rake = [vec(0, 0), vec(900, 0), vec(900, 900), vec(0, 1400)];
    const pair = bestPair(rake, rake, [0, 180], () => true)!;
    expect([pair.widthMm, pair.heightMm]).toEqual([expect.closeTo(900, 6), expect.closeTo(2300, 6)]);
  });
  test('a film with one direction is not turned: triangles may then only stand side by side', () => {
    const pair = bestPair(right, right, [0], () => true)!;
    expect(pair.isSecondTurned).toBe(false);
    expect(pair.widthMm * pair.heightMm).toBeGreaterThan(800 * 600 * 1.2);
  });
  test('the places at which one square touches another are a square of twice the side', () => {
    const square = [vec(0, 0), vec(10, 0), vec(10, 10), vec(0, 10)];
    expect(signedArea(touchingPlaces(square, square))).toBeCloseTo(400, 9);
    expect(boundingBox(touchingPlaces(square, square))).toEqual({ minX: -10, minY: -10, maxX: 10, maxY: 10 });
  });
  test('whatever convex outlines: both inside their rectangle, parted by a straight cut, no larger than two boxes side by side', () =>
    fc.assert(
      fc.property(
        fc.tuple(
          fc.array(fc.double({ min: 0, max: 6.28, noNaN: true }), { minLength: 3, maxLength: 8 }),
          fc.array(fc.double({ min: 0, max: 6.28, noNaN: true }), { minLength: 3, maxLength: 8 }),
        ),
        (angles) => {
          const [a, b] = angles.map((list, k) => [...new Set(list)].sort((x, y) => x - y).map((t) => vec((k ? 300 : 500) * Math.cos(t), 400 * Math.sin(t))));
          if (a!.length < 3 || b!.length < 3 || signedArea(a!) < 2e4 || signedArea(b!) < 2e4) return;
          const pair = bestPair(a!, b!, [0, 180], () => true)!;
          const [ba, bb] = [boundingBox(a!), boundingBox(b!)];
          for (const q of [...pair.first, ...pair.second]) {
            expect(q.x).toBeGreaterThan(-1e-6);
            expect(q.y).toBeGreaterThan(-1e-6);
            expect(q.x).toBeLessThan(pair.widthMm + 1e-6);
            expect(q.y).toBeLessThan(pair.heightMm + 1e-6);
          }
          expect(partingLine(pair.first, pair.second)).not.toBeNull();
          const beside = (ba.maxX - ba.minX + bb.maxX - bb.minX) * Math.max(ba.maxY - ba.minY, bb.maxY - bb.minY);
          expect(pair.widthMm * pair.heightMm).toBeLessThanOrEqual(beside + 1);
        },
      ),
      { seed: 4, numRuns: 120 },
    ));
  test('outlines that overlap are not parted by any line', () =>
    expect(
      partingLine(
        right,
        right.map((p) => vec(p.x + 50, p.y + 50)),
      ),
    ).toBeNull());

  const rakes = () => Array.from({ length: 6 }, () => pieceOf(shape('rake'), [900, 900, 900, 0, 1400]));
  test('six rakes become three rectangles; the plan passes the independent check and is shorter', () => {
    const pieces = rakes();
    const joined = pairUp(pieces, 1000, 6000);
    expect(joined).toHaveLength(3);
    expect(joined.flatMap((p) => p.parts.map((q) => q.id)).sort()).toEqual(pieces.map((p) => p.id).sort());
    const lay = (list: Piece[]) => layPiecesOnRolls({ filmId: list[0]!.filmId, rolls: [testRoll(1000)], pieces: list, settings: plainSettings, seed: 1 }, 60);
    const [apart, together] = [lay(pieces), lay(joined)];
    expect(together.usedMm).toBeLessThan(0.93 * apart.usedMm);
    expect(checkLayout(together, { pieces: joined, rolls: [testRoll(1000)], settings: plainSettings })).toEqual([]);
  });
  test('a joined piece that lies is found out by the check', () => {
    const [first, ...rest] = pairUp(rakes(), 1524, 6000);
    const lie = { ...first!, parts: first!.parts.map((p, i) => (i ? { ...p, path: first!.parts[0]!.path } : p)) };
    expect(checkParts(lie).join(' ')).toContain('No straight cut parts');
    expect(checkParts({ ...first!, heightMm: 1000 }).join(' ')).toContain('reaches out');
    expect(rest.flatMap(checkParts)).toEqual([]);
  });
  test('arches and triangles pair too; rectangles, pre-cut outlines and outlines with an inward corner do not', () => {
    const arches = pairUp([pieceOf(shape('arch-pointed'), [900, 760]), pieceOf(shape('arch-pointed'), [900, 760])], 1524, 6000);
    expect(arches).toHaveLength(1);
    expect(checkParts(arches[0]!)).toEqual([]);
    const cut = [1, 2].map(() => pieceOf(shape('triangle'), [1100, 550, 800], { method: 'pre-cut' }));
    expect(pairUp(cut, 1524, 6000)).toHaveLength(2);
    const inward = [1, 2].map(() => pieceOf(shape('polygon', { corners: 6, inward: ['D'] }), typicalNumbers(shape('polygon', { corners: 6, inward: ['D'] }))));
    expect(pairUp(inward, 1524, 6000)).toHaveLength(2);
  });
  test('the knife order parts them last, and its words are enough: following them leaves both pieces whole', () => {
    const joined = pairUp(rakes().slice(0, 2), 1524, 6000);
    for (const isFilmUp of [false, true]) {
      const layout = layPiecesOnRolls({ filmId: joined[0]!.filmId, rolls: [testRoll(1524)], pieces: joined, settings: plainSettings, seed: 1 }, 10);
      const steps = knifeOrder(
        layout,
        joined,
        () => 1524,
        'mm',
        () => isFilmUp,
      );
      const last = steps.at(-1)!;
      expect(last.kind).toBe('part');
      expect([...last.finishes].sort()).toEqual(joined[0]!.parts.map((p) => p.id).sort());
      const placed = layout.rolls[0]!.drops[0]!.columns[0]!.rows[0]!.pieces[0]!;
      const [edge, far] = isFilmUp ? ['far', 'near'] : ['near', 'far'];
      const marks = [...last.text.matchAll(/([\d.]+) (along|up) its (\w+) (?:side|end)/g)].map(([, mm, , where]) =>
        where === edge
          ? vec(Number(mm), 0)
          : where === far && last.text.includes(`${mm} along its ${far} side`)
            ? vec(Number(mm), placed.acrossMm)
            : where === 'start'
              ? vec(0, Number(mm))
              : vec(placed.alongMm, Number(mm)),
      );
      expect(marks).toHaveLength(2);
      // both parts as they lie on the bench, each on its own side of the line through the two marks
      const sides = joined[0]!.parts.map((part) =>
        part.path.map((q) => {
          const on = onRoll(vec(q.xMm, q.yMm), joined[0]!, { ...placed, xMm: 0, yMm: 0 });
          const p = vec(on.x, isFilmUp ? placed.acrossMm - on.y : on.y);
          const [m, n] = marks as [{ x: number; y: number }, { x: number; y: number }];
          return ((n.x - m.x) * (p.y - m.y) - (n.y - m.y) * (p.x - m.x)) / Math.hypot(n.x - m.x, n.y - m.y);
        }),
      );
      const within = sides.map((d) => [Math.min(...d), Math.max(...d)]);
      // marks are told in whole millimetres
      expect(Math.min(within[0]![1]!, within[1]![1]!)).toBeLessThan(1.5);
      expect(Math.max(within[0]![0]!, within[1]![0]!)).toBeGreaterThan(-1.5);
    }
  });
  test('a parting line crosses its rectangle from side to side', () => {
    const [p, q] = cutAcross([vec(100, 100), vec(200, 150)], 800, 600);
    expect([p, q].map((v) => [v.x, v.y]).sort((a, b) => a[0]! - b[0]!)).toEqual([[0, 50], [800, 450]]); // prettier-ignore
  });
});
