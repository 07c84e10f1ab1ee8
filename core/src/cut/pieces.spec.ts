import type { MeasureKey } from '@yellow-pane/contracts';
import fc from 'fast-check';
import { surveyOpening, tapeOrder, trueReading, type Shape } from '../measure/index.js';
import { handySize, roundUpToMark } from './handy-size.js';
import { pieceForPane, preCutOutline, toLinerView, type PieceAnswer, type PieceRequest } from './piece.js';

const survey = (tapes: Partial<Record<MeasureKey, number>>, crooked = false) =>
  surveyOpening(
    Object.entries(tapes).map(([measure, lengthMm]) => ({ measure: measure as MeasureKey, lengthMm })),
    { calledCrooked: crooked },
  );
const tapesOf = (shape: Shape) => Object.fromEntries(tapeOrder.map((k) => [k, trueReading(shape, k)]));
const taped = (shape: Shape) => survey(tapesOf(shape));
const id = '00000000-0000-7000-8000-000000000001';

const ask = (more: Partial<PieceRequest>): PieceAnswer =>
  pieceForPane({
    surface: { id, name: 'W1', seenFrom: 'room', filmFace: 'room', signed: null, cutOuts: [] },
    survey: survey({ widthLargest: 1000, heightLargest: 1200 }),
    method: 'overhang',
    allowances: { overhangMm: 25, overhangTopMm: 25, edgeGapMm: 1.5 },
    film: { id, direction: 'none' },
    rollWidthsMm: [1524],
    units: 'mm',
    isSigned: false,
    ...more,
  });
const piece = (answer: PieceAnswer) => {
  if ('blocked' in answer) throw new Error(answer.blocked);
  return answer.piece;
};
const blocked = (answer: PieceAnswer) => ('blocked' in answer ? answer.blocked : null);

describe('overhang and trim', () => {
  // common practice: 1 in (25 mm) all round
  test('two tapes plus 25 mm on each side plus 2σ of the tape, rounded up to whole mm', () => {
    const p = piece(ask({}));
    expect(p.widthMm).toBe(Math.ceil(1000 + 50 + 2 * 1.1));
    expect(p.heightMm).toBe(Math.ceil(1200 + 50 + 2 * 1.12));
    expect(p.trimmedEdges).toHaveLength(4);
  });
  test('in inches it rounds up to the next sixteenth', () => {
    const p = piece(ask({ units: 'in' }));
    expect((p.widthMm / 25.4) * 16).toBeCloseTo(Math.round((p.widthMm / 25.4) * 16), 9);
    expect(roundUpToMark(25.4, 'in')).toBeCloseTo(25.4, 9);
  });
  test('a leaning opening needs more than its largest tape', () => {
    const p = piece(ask({ survey: taped([800, 30, 1200, 830, 1200]) }));
    expect(p.widthMm).toBeGreaterThanOrEqual(830 + 50);
  });
  describe('handy sizes', () => {
    const fine = { overhangMm: 25, overhangTopMm: 25, edgeGapMm: 1.5, sizeStep: 'fine' as const };
    test('nobody cuts 1053 × 1253: the next 5 mm, the next ¼ in; what has to fit stays to the mark (common practice)', () => {
      const p = piece(ask({ allowances: fine }));
      expect([p.widthMm, p.heightMm]).toEqual([1055, 1255]);
      expect(p.why.join(' ')).toContain('A handy size instead of 1053 × 1253');
      const inch = piece(ask({ allowances: fine, units: 'in' }));
      expect((inch.widthMm / 25.4) * 4).toBeCloseTo(Math.round((inch.widthMm / 25.4) * 4), 9);
      const cut = (allowances: PieceRequest['allowances']) => piece(ask({ allowances, method: 'pre-cut', survey: taped([900, 0, 1200, 900, 1200]) }));
      const { sizeStep: _, ...plain } = fine;
      expect(cut(fine)).toEqual(cut(plain));
    });
    test('never smaller than asked for, less than a step more, and never out of a roll or a pull that it just goes into', () => {
      fc.assert(
        fc.property(
          fc.double({ min: 50, max: 4000, noNaN: true }),
          fc.constantFrom('mm' as const, 'in' as const),
          fc.constantFrom('none' as const, 'fine' as const, 'coarse' as const),
          fc.array(fc.double({ min: 50, max: 4000, noNaN: true }), { maxLength: 4 }),
          (mm, units, step, limitsMm) => {
            const size = handySize(mm, { units, step, limitsMm });
            expect(size).toBeGreaterThanOrEqual(mm - 1e-3);
            expect(size - mm).toBeLessThanOrEqual(step === 'none' ? 1.6 : step === 'fine' ? 6.4 : 12.8);
            for (const limit of limitsMm) if (roundUpToMark(mm, units) <= limit) expect(size).toBeLessThanOrEqual(limit + 1e-6);
            expect(handySize(size, { units, step, limitsMm })).toBeCloseTo(size, 6);
          },
        ),
      );
      expect(handySize(1522, { units: 'mm', step: 'fine', limitsMm: [1524] })).toBe(1522);
      expect(handySize(1522, { units: 'mm', step: 'fine', limitsMm: [1524, 1830] })).toBe(1522);
      expect(handySize(1522, { units: 'mm', step: 'fine', limitsMm: [1220, 1830] })).toBe(1525);
    });
  });
  test('more at the top where tape tabs hang', () => {
    expect(piece(ask({ allowances: { overhangMm: 25, overhangTopMm: 60, edgeGapMm: 1.5 } })).heightMm - piece(ask({})).heightMm).toBe(35);
  });
  test('a doubt does not stop it: the cut covers every explanation and says so', () => {
    const answer = ask({
      survey: survey({
        widthTop: 612,
        widthMiddle: 605,
        widthBottom: 619,
        heightLeft: 669,
        heightMiddle: 668,
        heightRight: 668,
        diagonalDown: 903,
        diagonalUp: 900,
      }),
    });
    expect('note' in answer && answer.note).toContain('covers every explanation');
    expect(piece(answer).widthMm).toBeGreaterThanOrEqual(619 + 50);
  });
  test('tapes that cannot close block the cut', () => {
    expect(
      blocked(ask({ survey: survey({ widthTop: 900, widthBottom: 900, heightLeft: 1200, heightRight: 1200, diagonalDown: 2500, diagonalUp: 1500 }) })),
    ).toContain('cannot belong to one opening');
  });
  test('a film with one direction is not turned', () => {
    expect(piece(ask({ film: { id, direction: 'one-way' } })).turns).toEqual([0]);
    expect(piece(ask({ film: { id, direction: 'two-way' } })).turns).toEqual([0, 180]);
  });
});

describe('factory edge to the frame', () => {
  test('at the top where the pane’s height plus margin fits the roll: its width lies along the roll', () => {
    const p = piece(ask({ method: 'factory-edge' }));
    expect(p.factoryEdge).toBe('top');
    expect(p.turns).toEqual([90, 270]);
    expect(p.trimmedEdges).toEqual(['right', 'bottom', 'left']);
    expect(p.heightMm).toBe(Math.ceil(1200 + 25 - 1.5 + 2 * 1.12));
  });
  test('a taller pane gets it on a side, and the cut list sees that side from the liner', () => {
    const p = piece(ask({ method: 'factory-edge', survey: survey({ widthLargest: 1000, heightLargest: 2000 }) }));
    expect(p.factoryEdge).toBe('right');
    expect(p.trimmedEdges).toEqual(['top', 'bottom', 'right']);
    expect(p.turns).toEqual([0, 180]);
    // one side trimmed, the other off its frame by the gap; top and bottom trimmed: the gap is taken off, nothing is put on for it
    expect([p.widthMm, p.heightMm]).toEqual([Math.ceil(1000 + 25 - 1.5 + 2 * 1.1), Math.ceil(2000 + 50 + 2 * 1.2)]);
  });
  test('where no roll is wide enough it falls back to overhang, with the reason', () => {
    const p = piece(ask({ method: 'factory-edge', rollWidthsMm: [508] }));
    expect(p.method).toBe('overhang');
    expect(p.fallback).toContain('overhang instead');
  });
  test('a bowed side carries no factory edge', () => {
    const shape = {
      widthTop: 1000,
      widthMiddle: 1000,
      widthBottom: 1000,
      heightLeft: 1200,
      heightMiddle: 1206,
      heightRight: 1200,
      diagonalDown: Math.hypot(1000, 1200),
      diagonalUp: Math.hypot(1000, 1200),
      bowTop: 6,
    };
    expect(piece(ask({ method: 'factory-edge', survey: survey(shape) })).factoryEdge).not.toBe('top');
    // a side that bends in is no better than one that bends out, and the other side takes its place
    const tall = (bowLeft: number, bowRight = 0) => {
      // the width half way up knows of them
      const tapes = { ...tapesOf([1000, 0, 2000, 1000, 2000]), widthMiddle: 1000 + bowLeft + bowRight, bowLeft, bowRight };
      return piece(ask({ method: 'factory-edge', survey: survey(tapes) }));
    };
    expect([tall(0).factoryEdge, tall(1).factoryEdge, tall(6).factoryEdge, tall(-6).factoryEdge]).toEqual(['right', 'right', 'left', 'left']);
    const none = tall(6, -6);
    expect([none.method, none.fallback]).toEqual(['overhang', expect.stringContaining('No factory edge can lie on a straight side')]);
  });
});

describe('tucked corner', () => {
  // common practice: square within 2 mm over the side
  test('a square opening is tucked: two sides trimmed', () => {
    const p = piece(ask({ method: 'tucked-corner', survey: taped([900, 0, 1200, 900, 1200]) }));
    expect(p.method).toBe('tucked-corner');
    expect(p.trimmedEdges).toEqual(['right', 'bottom']);
  });
  test('a corner 5 mm out over the side is not tucked', () => {
    const p = piece(ask({ method: 'tucked-corner', survey: taped([900, 5, 1200, 905, 1200]) }));
    expect(p.method).toBe('overhang');
    expect(p.fallback).toMatch(/5\.0 mm out/);
  });
  test('two tapes do not say whether a corner is square', () => expect(piece(ask({ method: 'tucked-corner' })).fallback).toContain('both diagonals'));
  test('a doubt blocks it until it is settled; signing for no explanation settles nothing', () => {
    const doubtful = survey({
      widthTop: 612,
      widthMiddle: 605,
      widthBottom: 619,
      heightLeft: 669,
      heightMiddle: 668,
      heightRight: 668,
      diagonalDown: 903,
      diagonalUp: 900,
    });
    expect(blocked(ask({ method: 'tucked-corner', survey: doubtful }))).toContain('sign');
    expect(blocked(ask({ method: 'tucked-corner', survey: doubtful, isSigned: true }))).toContain('the explanation that you believe');
    expect(blocked(ask({ method: 'pre-cut', survey: doubtful, isSigned: true }))).toContain('the explanation that you believe');
  });
});

describe('pre-cut to size', () => {
  test('fits inside the outline by the edge gap and 2σ', () => {
    const request = { survey: taped([900, 6, 1200, 902, 1196]), allowances: { overhangMm: 25, overhangTopMm: 25, edgeGapMm: 1.5 } };
    const corners = preCutOutline(request)!;
    for (const c of corners) {
      expect(c.x).toBeGreaterThan(1.5);
      expect(c.y).toBeGreaterThan(1.5);
      expect(c.y).toBeLessThan(1200 - 1.5);
    }
    expect(piece(ask({ method: 'pre-cut', ...request })).widthMm).toBeLessThan(902);
  });
  test('a side that bends inwards takes as much off the piece, one that bends outwards takes nothing: it has to go in', () => {
    const plain = taped([900, 0, 1200, 900, 1200]);
    const size = (bowsMm: Partial<typeof plain.bowsMm>) => {
      const p = piece(ask({ method: 'pre-cut', survey: { ...plain, bowsMm: { ...plain.bowsMm, ...bowsMm } } }));
      return [p.widthMm, p.heightMm];
    };
    const [w, h] = size({}) as [number, number];
    expect(size({ bowTop: -4 })).toEqual([w, h - 4]);
    expect(size({ bowLeft: -4, bowRight: -3 })).toEqual([w - 7, h]);
    expect(size({ bowTop: 4, bowLeft: 5 })).toEqual([w, h]);
  });
  test('nobody pre-cuts from a number that nobody checked', () => expect(blocked(ask({ method: 'pre-cut' }))).toContain('check each other'));
});

describe('the mirror', () => {
  test('film on the face one stands at is mirrored once; taped from the other side it is not', () => {
    expect(toLinerView('left', 'room', 'room')).toBe('right');
    expect(toLinerView('left', 'street', 'room')).toBe('left');
    expect(toLinerView('top', 'room', 'room')).toBe('top');
    expect(toLinerView(toLinerView('left', 'room', 'room'), 'room', 'room')).toBe('left');
  });
});
