import fc from 'fast-check';
import type { BenchCut, DryAllowances, Piece } from '@yellow-pane/contracts';
import { demoFirm, ternInterior } from '../../../demo/src/index.js';
import { flatten } from '../geometry/index.js';
import { Memo, parseLength, type UnitSystem } from '../ground/index.js';
import { cutsForFilm, type JobRecords } from './index.js';

const file = ternInterior();
/** Every piece of the interior job that is laid dry, with what its job says of allowances. */
function pieces(dry: Partial<DryAllowances> = {}, units: UnitSystem = 'mm'): Piece[] {
  const records = { ...file, firm: demoFirm, memo: new Memo(), job: { ...file.job, units, dry } } as unknown as JobRecords;
  return file.films.flatMap((film) => cutsForFilm(records, film.id).flatMap((c) => c.pieces));
}

interface Place {
  readonly x: number;
  readonly y: number;
}
/** What somebody at the bench drew or cut: through what, and from where to where. */
interface Made {
  readonly layer: BenchCut['layer'];
  readonly places: readonly Place[];
}
const place = (x: number, y: number): Place => ({ x, y });

/**
 * A person at the bench with rule, pencil and knife, and no drawing: the piece lies liner up, its size is known from its label, and the words of one step are read.
 * @param before what was made on this piece so far
 */
function followed(words: string, { widthMm: w, heightMm: h }: Pick<Piece, 'widthMm' | 'heightMm'>, units: UnitSystem, before: readonly Made[]): Made {
  const length = (text: string): number => {
    const read = parseLength(text.trim(), units);
    if (!read.ok) throw new Error(`No length: ${text} in ${words}`);
    return read.value.lengthMm;
  };
  /** The figure that stands before these words. */
  const figure = (after: RegExp): number | null => {
    const m = new RegExp(`(?:^|, |and |from |liner, |folded back here, )([\\d ./⁄½¼¾⅛⅜⅝⅞″"′]+?) ${after.source}`).exec(words);
    return m ? length(m[1]!) : null;
  };
  const level = (y: number) => [place(0, y), place(w, y)];
  const upright = (x: number) => [place(x, 0), place(x, h)];
  const fromSide = (): number | null => {
    const [left, right] = [figure(/from the left (?:edge|end)/), figure(/from the right (?:edge|end)/)];
    return left !== null ? left : right !== null ? w - right : null;
  };
  if (/^(Liner only|Slit the liner only|Slice the liner only)/.test(words)) return { layer: 'liner', places: upright(fromSide()!) };
  if (words.startsWith('Fold:')) {
    const side = fromSide();
    return { layer: 'mark', places: side === null ? level(h - figure(/from the top end/)!) : upright(side) };
  }
  const arrow = /^Pencil an arrow on the liner, (.+?) long over the middle, its barbs (.+?) back and out, its tip towards the top end/.exec(words);
  if (arrow) {
    const [long, head] = [length(arrow[1]!), length(arrow[2]!)];
    const tip = place(w / 2, (h + long) / 2);
    return { layer: 'mark', places: [place(w / 2, (h - long) / 2), tip, place(tip.x - head, tip.y - head), tip, place(tip.x + head, tip.y - head)] };
  }
  if (words.startsWith('Pencil on the liner: the arris')) return { layer: 'mark', places: upright(fromSide()!) };
  if (/^Pencil on the liner: the (face|top),/.test(words)) {
    const [top, foot, left, right] = [figure(/from the (?:top|back)/), figure(/from the (?:foot|front)/), figure(/from the left/), figure(/from the right/)];
    // an end that is a seam is not taped from: the face goes on there
    for (const [side, is] of Object.entries({ 'top|back': top, 'foot|front': foot, left, right }))
      expect([words, is === null]).toEqual([
        words,
        new RegExp(`its (?:.* and )?(?:${side})(?: and .*)? ends? (?:is|are) `).test(words.replace('are seams', 'are seams')),
      ]);
    const [x0, x1, y0, y1] = [left ?? 0, w - (right ?? 0), foot ?? 0, h - (top ?? 0)];
    const radii = Object.fromEntries(
      [...words.matchAll(/(front|back) (left|right) ([\d ./⁄½¼¾⅛⅜⅝⅞″"]+?)(?=,| and|\.)/g)].map((m) => [`${m[1]} ${m[2]}`, length(m[3]!)]),
    );
    const round = (name: string, cx: number, cy: number, sx: number, sy: number): Place[] => {
      const r = radii[name] ?? 0;
      return r
        ? Array.from({ length: 9 }, (_, i) => place(cx + sx * (r - r * Math.sin((i * Math.PI) / 16)), cy + sy * (r - r * Math.cos((i * Math.PI) / 16))))
        : [place(cx, cy)];
    };
    return {
      layer: 'mark',
      places: [
        ...round('front left', x0, y0, 1, 1),
        ...round('front right', x1, y0, -1, 1),
        ...round('back right', x1, y1, -1, -1),
        ...round('back left', x0, y1, 1, -1),
      ],
    };
  }
  if (words.startsWith('Pencil on the liner: the upper arris')) return { layer: 'mark', places: level(h - figure(/from the top/)!) };
  if (words.startsWith('Pencil on the liner: the lower arris')) return { layer: 'mark', places: level(before.at(-1)!.places[0]!.y - figure(/below it/)!) };
  if (words.startsWith('Pencil on the transfer tape'))
    return { layer: 'mark', places: level(length(/stands on, (.+?) above the lower edge/.exec(words)![1]!)) };
  if (words.startsWith('Hinge: masking tape along the upper edge')) return { layer: 'mark', places: level(h) };
  if (words.startsWith('Hinge: masking tape from top to bottom'))
    return { layer: 'mark', places: upright(length(/middle, (.+?) from either end/.exec(words)![1]!)) };
  const rough =
    /^Rough cut, .+? past the (ceiling|floor), as it lies: at the left edge (.+?) (?:below|above) the (?:top|foot) end((?:, .+? from the left edge .+?)*), at the right edge (.+?)\. Trimmed when it hangs\.$/.exec(
      words,
    );
  if (rough) {
    const y = (off: string) => (rough[1] === 'ceiling' ? h - length(off) : length(off));
    const between = [...rough[3]!.matchAll(/, (.+?) from the left edge (.+?)(?=, |$)/g)].map((m) => place(length(m[1]!), y(m[2]!)));
    return { layer: 'film', places: [place(0, y(rough[2]!)), ...between, place(w, y(rough[4]!))] };
  }
  const notch = /^(Foot|Top): 45° outwards from (.+?) (?:above|below) the end, and across between/.exec(words);
  if (notch) {
    // between the two slits of the liner
    const [l, r] = before.filter((b) => b.layer === 'liner').map((b) => b.places[0]!.x) as [number, number];
    const depth = length(notch[2]!);
    const [end, up] = notch[1] === 'Foot' ? [0, 1] : [h, -1];
    return { layer: 'film', places: [place(l - depth, end), place(l, end + up * depth), place(r, end + up * depth), place(r + depth, end)] };
  }
  throw new Error(`These words do not tell what to do: ${words}`);
}

const away = (p: Place, way: readonly Place[]): number =>
  Math.min(
    ...way.map((a, i) => {
      const b = way[Math.min(way.length - 1, i + 1)]!;
      const [dx, dy] = [b.x - a.x, b.y - a.y];
      const t = Math.max(0, Math.min(1, ((p.x - a.x) * dx + (p.y - a.y) * dy) / Math.max(1e-9, dx * dx + dy * dy)));
      return Math.hypot(p.x - a.x - t * dx, p.y - a.y - t * dy);
    }),
  );
/** How far two ways lie apart at most. */
const apart = (a: readonly Place[], b: readonly Place[]): number => Math.max(...a.map((p) => away(p, b)), ...b.map((p) => away(p, a)));

/** Follows all that is done at the bench, and holds it against what is drawn. @returns how many steps it were */
function follow(piece: Piece, units: UnitSystem): number {
  const before: Made[] = [];
  for (const cut of (piece.bench ?? []).filter((c) => !c.later)) {
    const made = followed(cut.words, piece, units, before);
    before.push(made);
    const drawn = flatten(cut.path.map((q) => ({ x: q.xMm, y: q.yMm, bulge: q.bulge })));
    const closed = cut.path.length > 4 && cut.layer === 'mark' ? [...made.places, made.places[0]!] : made.places;
    expect([cut.words, made.layer]).toEqual([cut.words, cut.layer]);
    // what goes through is as good as a rule is read; a pencilled face may be out of square by what the tapes of it say
    expect([piece.label, cut.words, apart(closed, drawn) <= (cut.layer === 'mark' ? 4 : units === 'in' ? 1.7 : 1.1)]).toEqual([piece.label, cut.words, true]);
  }
  return before.length;
}

describe('what is done at the bench, by its words alone', () => {
  test.each(['mm', 'in'] as const)('whoever has no drawing marks, slits and cuts every piece of the interior job as it is drawn, in %s', (units) => {
    const steps = pieces({}, units).map((p) => follow(p, units));
    expect(steps.length).toBeGreaterThan(25);
    expect(Math.min(...steps)).toBeGreaterThan(0);
  });
  test.each(['mm', 'in'] as const)('drops under a gable, beside stairs and round a beam, in %s', (units) => {
    const walls = file.surfaces.filter((s) => s.kind === 'wall').slice(0, 1);
    const at = (n: number, fromLeftMm: number, upMm: number | null, downMm: number | null = null) => ({
      id: `01930000-0000-7000-8000-0000000008${10 + n}`,
      fromLeftMm,
      upMm,
      downMm,
    });
    const tapes = (t: Record<string, number>) =>
      Object.entries(t).map(([measure, lengthMm], i) => ({
        ...file.readings[0]!,
        id: `01930000-0000-7000-8000-00000000${8300 + i}`,
        surfaceId: walls[0]!.id,
        measure,
        lengthMm,
        supersedesId: null,
      }));
    const gable = { widthBottom: 5000, heightLeft: 2400, heightRight: 2400, upLeft: 1400, downLeft: 1000, upRight: 1400, downRight: 1000 };
    const stairs = { widthBottom: 5000, upLeft: 2200, downLeft: 2000, upRight: 2200, downRight: 400 };
    const cases = [
      [gable, [at(1, 2100, 2900)]],
      [stairs, [at(1, 1500, null, 2000), at(2, 4200, null, 400)]],
      [gable, [at(1, 2000, 1400), at(2, 2000, 1000), at(3, 2300, 1000), at(4, 2300, 1400)]],
    ] as const;
    for (const [taped, breaks] of cases) {
      const surfaces = walls.map((s) => ({
        ...s,
        breaks,
        hardware: [],
        masonry: null,
        nextId: null,
        left: { is: 'stop', angleDeg: null, isFirst: true },
        right: { is: 'stop', angleDeg: null, isFirst: true },
      }));
      const records = { ...file, surfaces, readings: tapes(taped), firm: demoFirm, memo: new Memo(), job: { ...file.job, units } } as unknown as JobRecords;
      const made = cutsForFilm(records, walls[0]!.filmId!).flatMap((c) => c.pieces);
      expect(made.length).toBeGreaterThan(2);
      expect(made.flatMap((p) => p.bench ?? []).some((c) => c.words.startsWith('Rough cut'))).toBe(true);
      for (const p of made) follow(p, units);
    }
  });
  test('whatever the firm allows', () =>
    fc.assert(
      fc.property(
        fc.record({
          panelMm: fc.integer({ min: 20, max: 90 }), notchMm: fc.integer({ min: 5, max: 60 }), linerStripMm: fc.integer({ min: 40, max: 160 }), returnMm: fc.integer({ min: 10, max: 60 }),
          cornerLinerMm: fc.integer({ min: 25, max: 90 }), outsideWrapMm: fc.integer({ min: 30, max: 120 }), endLinerMm: fc.integer({ min: 25, max: 200 }), lapMm: fc.integer({ min: 10, max: 40 }),
          weedMm: fc.integer({ min: 5, max: 60 }),
        }), // prettier-ignore
        fc.constantFrom('mm' as const, 'in' as const),
        (dry, units) => {
          for (const p of pieces(dry, units)) follow(p, units);
        },
      ),
      { numRuns: 12 },
    ));
});
