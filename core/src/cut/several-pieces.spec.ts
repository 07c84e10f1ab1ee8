import fc from 'fast-check';
import { defaultAllowances, defaultCutSettings, type Design, type Piece, type Pane } from '@yellow-pane/contracts';
import { lanternStreet, panesIn } from '../../../demo/src/index.js';
import { boundingBox, regionArea, ringsOf, vec, type Polygon } from '../geometry/index.js';
import { file, film, pane, records } from './demo-job.testing.js';
import { designOnPane, openBetween, lightThroughDesign, zonesOfMarking } from './design/pattern.js';
import { hpglFile, HPGL_UNITS_PER_MM } from './design/hpgl.js';
import { plotLengths } from './design/plot-paths.js';
import { filmPlanInput, repeatLossMm } from './film-plan.js';
import { cutOfSurface } from './cut-of-kind.js';
import { cutOfPane, paneToPiece, resolveAllowances } from './job-pieces.js';
import { checkLayout, layPiecesOnRolls } from './layout/index.js';
import { plotOfPiece } from './pane-pieces.js';
import { matchPattern } from './repeat.js';
import { planSeams, seamLinesBeside, stripsOf, type SeamRequest } from './seams.js';

const cutOf = (name: string) =>
  cutOfSurface(
    pane(name),
    records,
    file.films.find((f) => f.id === pane(name).filmId)!,
  );
const box = (w: number, h: number): Polygon => [vec(0, 0), vec(w, 0), vec(w, h), vec(0, h)];

describe('a pane wider than its film is pieced together', () => {
  const opening = { widthMm: 2900, heightMm: 2200 };
  const ask = (more: Partial<SeamRequest> = {}): SeamRequest => ({
    opening, allowances: defaultAllowances, kinds: ['double-cut'], rolls: [{ id: 'r', widthMm: 1524, pricePerM: 13.6 }], settings: defaultCutSettings, turns: [0, 180],
    sillMm: 200, alignUprightMm: [], alignLevelMm: [], hourRate: 48, units: 'mm', ...more,
  }); // prettier-ignore

  test('strips cover the opening, overhang at the frame and the lap at the seam (common practice: 1 in over, 2 in double cut)', () =>
    fc.assert(
      fc.property(
        fc.constantFrom('overlap', 'butt', 'double-cut' as const),
        fc.constantFrom('upright', 'level' as const),
        fc.uniqueArray(fc.integer({ min: 200, max: 2000 }), { minLength: 1, maxLength: 4 }),
        (kind, direction, at) => {
          const seam = { kind: kind as 'overlap', direction: direction as 'upright', atMm: at };
          const strips = stripsOf(opening, seam, defaultAllowances);
          const across = strips.map((s) => (direction === 'upright' ? s.widthMm : s.heightMm));
          const total = direction === 'upright' ? 2900 : 2200;
          expect(across.reduce((s, x) => s + x, 0)).toBeCloseTo(total + 50 + at.length * { overlap: 25, butt: 0, 'double-cut': 50 }[kind as 'overlap'], 6);
          expect(strips.flatMap((s) => s.frameEdges)).toHaveLength(4 + 2 * at.length);
        },
      ),
      { seed: 2 },
    ));
  test('two equal strips look best where nothing stands beside; each fits the roll', () => {
    const [best] = planSeams(ask());
    expect(best!.seam).toEqual({ kind: 'double-cut', direction: 'upright', atMm: [1450] });
    expect(best!.looks).toBe('good');
    expect(best!.strips.map((s) => s.widthMm)).toEqual([1450 + 25 + 25, 1450 + 25 + 25]);
    // both strips stand 2250 mm along the roll: 4.5 m and two cuts
    expect(best!.usedM).toBeCloseTo(4.506, 3);
  });
  test('a bar beside it decides where the seam goes, before a cheaper line does', () => {
    const best = planSeams(ask({ alignUprightMm: [1200, 1480] }))[0]!;
    expect(Math.abs(best.seam.atMm[0]! - 1480)).toBeLessThanOrEqual(6);
    expect(best.remarks.join()).toContain('In line with what stands beside it');
  });
  test('a seam finds the seams beside it: panes under one another between bars, and level ones by height above the floor', () => {
    const grid = (row: number, column: number) => ({ groupId: 'g', row, column });
    const at = (id: string, more: Partial<Pane>): Pane => ({ ...pane('T1'), id, seam: null, exposure: null, ...more });
    const seam = (direction: 'upright' | 'level', mm: number) => ({ kind: 'butt' as const, direction, atMm: [mm] });
    const height = (mm: number) => ({ ...pane('T1').exposure!, heightAboveFloorMm: mm });
    const own = at('own', { grid: grid(1, 0), exposure: height(200) });
    const others = [
      at('above', { grid: grid(0, 0), seam: seam('upright', 1480) }),
      at('next column', { grid: grid(1, 1), seam: seam('upright', 900) }),
      at('on a plinth', { grid: null, exposure: height(500), seam: seam('level', 700) }),
      at('elsewhere', { placeId: 'elsewhere', seam: seam('level', 333) }),
    ];
    // 700 above a glass that starts 300 higher is 1000 above this one
    expect(seamLinesBeside(own, [own, ...others])).toEqual({ uprightMm: [1480], levelMm: [1000] });
    expect(seamLinesBeside({ ...own, exposure: null }, others).levelMm).toEqual([700]);
  });
  describe('a level seam keeps out of eye level, 1500 to 1700 mm above the floor', () => {
    const wide = [{ id: 'r', widthMm: 1829, pricePerM: 16 }];
    /** The plan of two equal strips, level, of a pane so high whose sill is so far above the floor. */
    const halves = (heightMm: number, sillMm: number | null, more: Partial<SeamRequest> = {}) =>
      planSeams(ask({ opening: { widthMm: 2900, heightMm }, sillMm, rolls: wide, turns: [0, 90, 180, 270], ...more })).find(
        (p) => p.name === 'Level, two equal strips',
      )!;
    test('half way up would be 1590 above the floor: it moves down to 1500, the nearer end, and 1640 moves up to 1700', () => {
      expect(halves(2780, 200).seam.atMm).toEqual([1300]);
      expect(halves(2880, 200).seam.atMm).toEqual([1500]);
      for (const p of [halves(2780, 200), halves(2880, 200)])
        expect([p.looks, p.remarks.join(' ')]).toEqual(['fair', expect.not.stringContaining('eye level')]);
    });
    test('at 1490 or 1710 it stays where it is, and nothing is said', () => {
      expect([halves(2580, 200).seam.atMm, halves(3020, 200).seam.atMm]).toEqual([[1290], [1510]]);
      expect(halves(2580, 200).remarks.join(' ')).not.toContain('eye level');
    });
    test('the sill counts: the same pane standing on the floor has its line at 1390, where nobody minds', () =>
      expect(halves(2780, 0).seam.atMm).toEqual([1390]));
    test('where the strips would not fit the roll any more it stays, looks poor, and says why', () => {
      const tight = halves(2780, 200, { rolls: [{ id: 'r', widthMm: 1460, pricePerM: 13 }] });
      expect([tight.seam.atMm, tight.looks, tight.remarks.join(' ')]).toEqual([
        [1390],
        'poor',
        expect.stringContaining('The seam at 1590 above the floor runs through eye level, 1500 to 1700.'),
      ]);
      expect(halves(2780, 200, { rolls: [{ id: 'r', widthMm: 1460, pricePerM: 13 }], units: 'in' }).remarks.join(' ')).not.toMatch(/\d{4}|mm/);
    });
    test('nobody said how high the sill is: the line stays, and it is asked for', () => {
      const p = halves(2780, null);
      expect([p.seam.atMm, p.remarks.join(' ')]).toEqual([[1390], expect.stringContaining('Enter the height of the sill')]);
    });
  });
  test('butted strips bring the roll’s own edge to the seam; a middle strip must have two of them', () => {
    const butt = planSeams(ask({ kinds: ['butt'] }));
    expect(butt[0]!.strips.map((s) => s.factoryEdge)).toEqual(['right', 'left']);
    // 4.4 m want a strip in the middle: only as wide as the roll it has an edge on either side, so equal strips are not offered
    const three = planSeams(ask({ kinds: ['butt'], opening: { widthMm: 4400, heightMm: 2200 } })).filter(
      (p) => p.strips.length === 3 && p.seam.direction === 'upright',
    );
    expect(three.length).toBeGreaterThan(0);
    for (const p of three) expect([p.name, Math.abs(p.strips[1]!.widthMm - 1524) <= 1]).toEqual([expect.not.stringContaining('equal'), true]);
  });
  test('the hall pane: two strips on the roll from one lot, trimmed at the frame only', () => {
    const cut = cutOf('G1');
    expect(cut.pieces.map((p) => [p.label, p.trimmedEdges.length, p.meets])).toEqual([['G1 left', 3, pane('G1').id], ['G1 right', 3, pane('G1').id]]); // prettier-ignore
    expect(cut.pieces.every((p) => p.widthMm <= 1524)).toBe(true);
    const plan = filmPlanInput(records, file.job.cut, film('Tern Shade 35').id, undefined);
    const layout = layPiecesOnRolls(plan.layout, 20);
    expect(checkLayout(layout, { pieces: plan.pieces, rolls: plan.layout.rolls, settings: file.job.cut })).toEqual([]);
    // the one beside it is wider than any roll and has no seam yet: it says so
    expect(layout.unplaced.find((u) => u.pieceId === pane('G2').id)!.reason).toContain('needs a seam');
    // seams that a new tape has moved outside the pane are not cut
    const small = { ...pane('G1'), seam: { ...pane('G1').seam!, atMm: [9000] } };
    expect(cutOfSurface(small, records, film('Tern Shade 35')).answer).toMatchObject({ blocked: expect.stringContaining('outside this pane') });
  });
});

describe('patterned film over drops and neighbours', () => {
  const piece = (n: number, heightMm: number): Piece => ({ ...cutOf('O4').pieces[0]!, id: `p${n}`, widthMm: 600, heightMm, turns: [0, 90, 180, 270] });
  const start = (match: 'straight' | 'half-drop', heights: number[]) =>
    matchPattern(heights.map((h, i) => ({ piece: piece(i, h), row: 'r', place: i })), { patternRepeatMm: 64, patternMatch: match }).map((p) => [p.repeat!.startMm, p.turns]); // prettier-ignore
  test('straight match: heads at one height, so a piece 10 mm shorter begins 10 mm farther into the repeat', () =>
    expect(start('straight', [1000, 990, 1000])).toEqual([[0, [0]], [10, [0]], [0, [0]]])); // prettier-ignore
  test('half drop: every second one half a repeat on', () => expect(start('half-drop', [1000, 1000, 990]).map((x) => x[0])).toEqual([0, 32, 10]));
  test('heads of one row come from the same mark of the roll, and what that costs is told', () => {
    const input = filmPlanInput(records, file.job.cut, film('Reed Lines').id, undefined);
    expect(input.pieces).toHaveLength(2);
    const layout = layPiecesOnRolls(input.layout, 10);
    const heads = layout.rolls.flatMap((r) =>
      r.drops.flatMap((d) => d.columns.flatMap((c) => c.rows.flatMap((w) => w.pieces.map((p) => (p.xMm + p.alongMm) % 18)))),
    );
    expect(Math.abs(heads[0]! - heads[1]!)).toBeLessThan(0.01);
    // the same pieces without a pattern lie so much closer: at most a repeat for each
    const free = layPiecesOnRolls({ ...input.layout, pieces: input.pieces.map((p) => ({ ...p, repeat: null })) }, 0);
    const bound = layPiecesOnRolls(input.layout, 0);
    expect(repeatLossMm(input.layout)).toBeCloseTo(bound.usedMm - free.usedMm, 6);
    expect(repeatLossMm(input.layout)).toBeLessThan(2 * 18);
    // a repeat that no piece fits into costs film
    const coarse = input.pieces.map((p, i) => ({ ...p, repeat: { repeatMm: 700, startMm: i ? 350 : 0 } }));
    expect(repeatLossMm({ ...input.layout, pieces: coarse })).toBeGreaterThan(50);
  });
  test('a piece that would fit turned is left out by that setting, and the reason names it; switched off, it lies on the roll', () => {
    const input = (oneDirection: boolean) => filmPlanInput(crossed, { ...file.job.cut, oneDirection }, film('Tern Shade 35').id, undefined);
    // one too wide for the roll lying, one standing: whichever way all lie, one of them is out
    const [a, b] = ['W1', 'W2'].map(pane) as [Pane, Pane];
    const size = (s: Pane, widthMm: number, heightMm: number) =>
      ([['widthLargest', widthMm], ['heightLargest', heightMm]] as const).map(([measure, lengthMm], i) => ({ ...file.readings[0]!, id: `018f0000-0000-7000-8000-0000000${s.name.slice(1)}00${i}0`, surfaceId: s.id, measure, lengthMm, instrument: 'tape' as const, supersedesId: null, withdrawnAt: null })); // prettier-ignore
    const crossed = { ...records, surfaces: [a, b].map((s) => ({ ...s, measuredLikeId: null })), readings: [...size(a, 1900, 1200), ...size(b, 1200, 1900)] };
    const out = layPiecesOnRolls(input(true).layout, 0).unplaced;
    expect(out).toHaveLength(1);
    expect(out[0]!.reason).toContain('all pieces of this film lie one way round: let them lie any way round');
    expect(layPiecesOnRolls(input(false).layout, 0).unplaced).toEqual([]);
  });
  test('metallised film lies one way round for all pieces, unless that is switched off', () => {
    const ways = (oneDirection: boolean) => {
      const input = filmPlanInput(records, { ...file.job.cut, oneDirection }, film('Tern Shade 35').id, undefined);
      const layout = layPiecesOnRolls(input.layout, 5);
      return new Set(
        layout.rolls.flatMap((r) =>
          r.drops.flatMap((d) =>
            d.columns.flatMap((c) =>
              c.rows.flatMap((w) => w.pieces.filter((p) => !input.pieces.find((x) => x.id === p.pieceId)!.factoryEdge).map((p) => p.turn % 180)),
            ),
          ),
        ),
      );
    };
    expect(ways(true).size).toBe(1);
    expect(ways(false).size).toBe(2);
  });
});

describe('frosted designs', () => {
  const on = (design: Design, outline = box(826, 2210), offsetMm = 0, sillMm: number | null = 0) => {
    const read = designOnPane(design, { outline, offsetMm, sillMm });
    if (!read.ok) throw new Error(read.message);
    return read.value;
  };
  const bands = (list: [number, number][], heightsFrom: 'floor' | 'sill' = 'floor'): Design => ({ kind: 'bands', heightsFrom, gapMm: 0, bands: list.map(([bottomMm, topMm]) => ({ bottomMm, topMm })) }); // prettier-ignore

  test('bands: area and open share by hand; heights from the floor need the sill', () => {
    const d = on(bands([[600, 1600]]), box(800, 2000), 0, 100);
    expect(regionArea(d.frosted)).toBeCloseTo(800 * 1000, 3);
    expect(d.openFrac).toBeCloseTo(0.5, 9);
    expect(openBetween({ outline: box(800, 2000), offsetMm: 0, sillMm: 100 }, d, 1500, 1700)).toBeCloseTo(0.5, 9);
    expect(designOnPane(bands([[600, 1600]]), { outline: box(800, 2000), offsetMm: 0, sillMm: null })).toMatchObject({
      ok: false,
      message: expect.stringContaining('from the floor'),
    });
    expect(designOnPane(bands([[600, 1600], [1500, 1700]]), { outline: box(800, 2000), offsetMm: 0, sillMm: 0 })).toMatchObject({ ok: false, message: expect.stringContaining('over one another') }); // prettier-ignore
  });
  test('door marks at the heights of UK Approved Document K (850–1000 and 1400–1600 mm; from memory): every dot lies in one of the two', () => {
    const marks = pane('Door').design as Extract<Design, { kind: 'marking' }>;
    expect(zonesOfMarking(marks)).toEqual([{ bottomMm: 850, topMm: 1000 }, { bottomMm: 1400, topMm: 1600 }]); // prettier-ignore
    for (const ring of ringsOf(on(marks, box(738, 1990)).frosted)) {
      const b = boundingBox(ring);
      expect((b.minY >= 850 && b.maxY <= 1000) || (b.minY >= 1400 && b.maxY <= 1600)).toBe(true);
      // a dot is round, a square is not
      if (marks.motif === 'dots' && b.minX > 1 && b.maxX < 737) expect(ring.length).toBeGreaterThan(8);
    }
  });
  test('in a zone lower than a mark the mark is as high as the zone; dots have many corners, squares four', () => {
    const low = (motif: 'dots' | 'squares') => ringsOf(on({ kind: 'marking', heightsFrom: 'sill', gapMm: 0, rule: 'own', zones: [{ bottomMm: 900, topMm: 930 }], motif, sizeMm: 45, pitchMm: 75 }, box(1500, 2000)).frosted); // prettier-ignore
    for (const motif of ['dots', 'squares'] as const)
      for (const ring of low(motif)) {
        const b = boundingBox(ring);
        expect([b.minY >= 900 - 1e-6, b.maxY <= 930 + 1e-6]).toEqual([true, true]);
      }
    expect(Math.max(...low('dots').map((r) => r.length))).toBeGreaterThan(8);
    expect(Math.max(...low('squares').map((r) => r.length))).toBe(4);
  });
  test('marks of squares: 45 mm wide, 75 mm apart, in rows one over the other, inside their zone', () => {
    const marks: Design = {
      kind: 'marking',
      heightsFrom: 'sill',
      gapMm: 0,
      rule: 'own',
      zones: [{ bottomMm: 900, topMm: 1050 }],
      motif: 'squares',
      sizeMm: 45,
      pitchMm: 75,
    };
    const boxes = ringsOf(on(marks, box(1500, 2000)).frosted).map((ring) => boundingBox(ring));
    const whole = boxes.filter((b) => b.minX > 1 && b.maxX < 1499);
    // 150 mm take two rows; twenty columns on a metre and a half
    expect(whole).toHaveLength(40);
    for (const b of whole) {
      expect([b.maxX - b.minX, b.maxY - b.minY].map((x) => Math.round(x * 100) / 100)).toEqual([45, 45]);
      expect([b.minY >= 900, b.maxY <= 1050]).toEqual([true, true]);
    }
    const columns = new Set(whole.map((b) => b.minX.toFixed(1)));
    expect([columns.size, new Set(whole.map((b) => b.minY.toFixed(1))).size]).toEqual([20, 2]);
  });
  test('graded dots: dense at the bottom, open at the top, and as open as their circles say', () => {
    const d = pane('Desk').design!;
    const outline = box(1150, 720);
    const at = on(d, outline);
    const low = openBetween({ outline, offsetMm: 0, sillMm: 0 }, at, 20, 200)!;
    const high = openBetween({ outline, offsetMm: 0, sillMm: 0 }, at, 500, 690)!;
    expect(low).toBeLessThan(0.6);
    expect(high).toBeGreaterThan(0.85);
    expect(lightThroughDesign(at.openFrac, 0.6, 0.9)).toBeCloseTo(0.9 - 0.3 * (1 - at.openFrac), 9);
  });
  test('runs on over neighbouring panes at true spacing: the dots of two panes with a bar between them are those of one wide pane', () => {
    const design: Design = { kind: 'graded', heightsFrom: 'sill', gapMm: 40, motif: 'dots', zone: { bottomMm: 0, topMm: 900 }, denseAt: 'bottom', pitchMm: 30, largestMm: 20, smallestMm: 6 }; // prettier-ignore
    const [first, second, whole] = [on(design, box(600, 900)), on(design, box(600, 900), 640), on(design, box(1240, 900))];
    const centres = (d: typeof first, dx: number) => ringsOf(d.frosted).filter((r) => r.length === 36).map((r) => boundingBox(r)).map((b) => `${((b.minX + b.maxX) / 2 + dx).toFixed(3)}/${((b.minY + b.maxY) / 2).toFixed(3)}`); // prettier-ignore
    const all = new Set(centres(whole, 0));
    for (const c of [...centres(first, 0), ...centres(second, 640)]) expect(all.has(c)).toBe(true);
    expect(centres(second, 640).length).toBeGreaterThan(300);
  });
  test('a figure leaves the field: open by the area of the bird, and nothing is cut where the film only meets the frame', () => {
    const d = on(pane('M7').design!, box(826, 2212));
    expect(d.openFrac).toBeGreaterThan(0.01);
    expect(d.openFrac).toBeLessThan(0.1);
    const sheet = plotOfPiece(paneToPiece(pane('M7'), records, film('Quay Frost plain')), pane('M7').id, { weeding: true, registration: true })!;
    const cut = sheet.paths.filter((p) => p.kind === 'cut');
    for (const path of cut) for (const p of path.points) expect(Math.min(p.x, sheet.widthMm - p.x)).toBeGreaterThan(100);
  });
  test('bands cost no film where the glass stays clear: a strip each, as high as the band', () => {
    const cut = cutOf('M2');
    expect(cut.pieces.map((p) => p.heightMm)).toEqual([70, 110, 1150, 70]);
    expect(cut.pieces.every((p) => p.trimmedEdges.join() === 'right,left')).toBe(true);
    expect(new Set(cut.pieces.map((p) => p.meets)).size).toBe(1);
  });
  test('marks touching one another, or a path that encloses nothing, are refused in words', () => {
    const d = pane('Desk').design as Extract<Design, { kind: 'graded' }>;
    expect(designOnPane({ ...d, largestMm: 40 }, { outline: box(500, 500), offsetMm: 0, sillMm: 0 })).toMatchObject({
      ok: false,
      message: expect.stringContaining('would touch'),
    });
    expect(designOnPane({ ...(pane('M7').design as Extract<Design, { kind: 'figure' }>), svgPath: 'M0 0 L5 5' }, { outline: box(500, 500), offsetMm: 0, sillMm: 0 })).toMatchObject({ ok: false }); // prettier-ignore
  });
});

describe('to the plotter', () => {
  const sheetOf = (name: string, more = { weeding: true, registration: true }) => plotOfPiece(paneToPiece(pane(name), records, film('Quay Frost plain')), pane(name).id, more)!; // prettier-ignore
  const settings = { forceG: 90, speedMmPerS: 400, scaleX: 1, scaleY: 1, weeding: true, registration: true };

  test('every path lies on the sheet; closed cuts come back to their start and a little farther', () => {
    const sheet = sheetOf('Desk');
    for (const path of sheet.paths) for (const p of path.points) expect(p.x >= 0 && p.x <= sheet.widthMm && p.y >= 0 && p.y <= sheet.heightMm).toBe(true);
    const dot = sheet.paths.find((p) => p.kind === 'cut')!;
    expect(dot.points.at(-2)).toEqual(dot.points[0]);
    expect(Math.hypot(dot.points.at(-1)!.x - dot.points[0]!.x, dot.points.at(-1)!.y - dot.points[0]!.y)).toBeCloseTo(0.5, 6);
    expect(sheet.paths.filter((p) => p.kind === 'register')).toHaveLength(3);
    expect(plotLengths(sheet).cutMm).toBeGreaterThan(10_000);
  });
  test('weeding lines part the waste and never cut film that stays', () => {
    const sheet = sheetOf('Desk');
    const dots = sheet.paths.filter((p) => p.kind === 'cut').map((p) => boundingBox(p.points.slice(0, -2)));
    const weed = sheet.paths.filter((p) => p.kind === 'weed');
    expect(weed.length).toBeGreaterThan(0);
    for (const { points: [a, b] } of weed) for (const d of dots) expect(a!.y <= d.minY || a!.y >= d.maxY || b!.x <= d.minX || a!.x >= d.maxX).toBe(true); // prettier-ignore
    expect(sheetOf('Desk', { weeding: false, registration: false }).paths.every((p) => p.kind === 'cut')).toBe(true);
  });
  test('the sheet is seen from the film side: film on the room face of a pane measured from the street comes out mirrored', () => {
    const left = { ...pane('M7'), design: { ...pane('M7').design!, acrossMm: 300 } as Design };
    const street = { ...left, seenFrom: 'street' as const };
    const middleOf = (s: typeof left) => {
      const sheet = plotOfPiece(paneToPiece(s, records, film('Quay Frost plain')), s.id, { weeding: false, registration: false })!;
      const b = boundingBox(sheet.paths.flatMap((p) => [...p.points]));
      return (b.minX + b.maxX) / 2 / sheet.widthMm;
    };
    expect(middleOf(left)).toBeLessThan(0.4);
    expect(middleOf(street)).toBeCloseTo(1 - middleOf(left), 2);
  });
  test('as HP-GL read again token by token: 40 units a millimetre, scale applied, knife up between paths, as many paths as planned', () => {
    const sheet = sheetOf('Desk');
    const text = hpglFile(sheet, { ...settings, scaleX: 1.002 });
    const tokens = text.split(';').filter(Boolean);
    expect(tokens.slice(0, 5)).toEqual(['IN', 'PA', 'SP1', 'VS40', 'FS90']);
    const downs = tokens.filter((t) => /^PD\d/.test(t));
    expect(downs).toHaveLength(sheet.paths.length);
    const xs = downs.flatMap((t) => t.slice(2).split(',').map(Number).filter((_, i) => i % 2 === 0)); // prettier-ignore
    const most = Math.max(...sheet.paths.flatMap((p) => p.points.slice(1).map((q) => q.x)));
    expect(Math.max(...xs)).toBe(Math.round(most * 1.002 * HPGL_UNITS_PER_MM));
    tokens.forEach((t, i) => /^PD\d/.test(t) && expect([tokens[i - 1]!.slice(0, 2), tokens[i + 1]]).toEqual(['PU', 'PU']));
  });
});

test('the pieces of every pane cover its opening, and go past it by the allowance on each side that is trimmed', () => {
  const seen = { whole: 0, pieced: 0 };
  for (const job of [file, lanternStreet()])
    for (const f of job.films)
      for (const cut of panesIn(job)
        .filter((s) => s.filmId === f.id)
        .map((s) => cutOfPane(s, { ...records, job: job.job, surfaces: job.surfaces, readings: job.readings }, f))) {
        if (cut.surface.design || cut.pieces.length === 0) continue;
        const b = boundingBox(cut.survey.outline!);
        const need = { across: b.maxX - b.minX, up: b.maxY - b.minY };
        const { overhangMm, overhangTopMm } = resolveAllowances({ firm: records.firm, job: job.job }, cut.surface);
        const { seam } = cut.surface;
        if (!seam) {
          const [piece] = cut.pieces;
          const trims = (e: 'left' | 'right' | 'top' | 'bottom') => piece!.trimmedEdges.includes(e);
          // a side that is not trimmed keeps the edge gap: 3 mm at most (common practice)
          const side = (e: 'left' | 'right' | 'bottom') => (trims(e) ? overhangMm : -3);
          expect(piece!.widthMm).toBeGreaterThanOrEqual(need.across + side('left') + side('right') - 0.01);
          expect(piece!.heightMm).toBeGreaterThanOrEqual(need.up + side('bottom') + (trims('top') ? overhangTopMm : -3) - 0.01);
          seen.whole++;
        } else {
          const extra = new Set(cut.surface.extraPieces.map((e) => e.id));
          const strips = cut.pieces.filter((p) => !extra.has(p.id));
          const across = seam.direction === 'upright';
          const sum = strips.reduce((s, p) => s + (across ? p.widthMm : p.heightMm), 0);
          expect(sum).toBeGreaterThanOrEqual((across ? need.across : need.up) + 2 * overhangMm);
          for (const p of strips) expect(across ? p.heightMm : p.widthMm).toBeGreaterThanOrEqual((across ? need.up : need.across) + 2 * overhangMm - 0.01);
          seen.pieced++;
        }
      }
  expect(seen.whole).toBeGreaterThan(40);
  expect(seen.pieced).toBeGreaterThan(0);
});
