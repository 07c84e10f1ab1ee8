import fc from 'fast-check';
import highsLoader from 'highs';
import type { Piece } from '@yellow-pane/contracts';
import { randomInt, seededRandom } from '../../ground/index.js';
import { sampleOf } from '../../ground/sample.testing.js';
import { boundLayout } from './bound.js';
import { checkLayout } from './check-layout.js';
import { packOverSources } from './exact.js';
import { plainSettings, testPiece } from './instances.testing.js';
import { benchFor, groupPieces } from './model.js';
import { movePiece } from './move.js';
import { layPiecesOnRolls, type LayoutInput, type RollToCut } from './planner.js';

const rollOf = (n: number, widthMm: number, metres: number, pricePerM: number, more: Partial<RollToCut> = {}): RollToCut => ({
  id: `00000000-0000-7000-8000-0000000008${String(n).padStart(2, '0')}`,
  widthMm,
  availableMm: metres * 1000,
  pricePerM,
  fixedDrops: [],
  ...more,
});
const inputOf = (pieces: readonly Piece[], rolls: readonly RollToCut[], more: Partial<LayoutInput> = {}): LayoutInput => ({
  filmId: pieces[0]!.filmId,
  rolls,
  pieces,
  settings: plainSettings,
  seed: 1,
  ...more,
});
const faults = (input: LayoutInput, layout = layPiecesOnRolls(input, 20)) =>
  checkLayout(layout, { pieces: input.pieces, rolls: input.rolls, settings: input.settings });
const usedOn = (layout: ReturnType<typeof layPiecesOnRolls>, roll: RollToCut) => layout.rolls.find((r) => r.rollId === roll.id)!.usedMm;

describe('several rolls and leftovers', () => {
  test('every random plan over them can be cut: nothing over its length, factory edges only where there are any, lots kept together', () =>
    fc.assert(
      fc.property(fc.integer({ min: 1, max: 1e6 }), (seed) => {
        const random = seededRandom(seed);
        const rolls = Array.from({ length: 1 + randomInt(random, 5) }, (_, i) =>
          rollOf(i, 400 + randomInt(random, 1400), 0.5 + randomInt(random, 60) / 10, 4 + randomInt(random, 12), {
            edges: (['both', 'near', 'far', 'none'] as const)[randomInt(random, 4)]!,
            lot: ['A', 'B'][randomInt(random, 2)]!,
          }),
        );
        const pieces = Array.from({ length: 1 + randomInt(random, 14) }, (_, i): Piece => {
          const edge = random() < 0.2 ? (['left', 'right'] as const)[randomInt(random, 2)]! : null;
          return { ...testPiece(i + 1, 200 + randomInt(random, 900), 200 + randomInt(random, 1300), { factoryEdge: edge, turns: edge ? [0, 180] : [0, 90, 180, 270] }), meets: random() < 0.5 ? `g${randomInt(random, 3)}` : null }; // prettier-ignore
        });
        const input = inputOf(pieces, rolls, { settings: { ...plainSettings, crosscutAllowanceMm: randomInt(random, 4) }, cutPrice: 0.8 });
        expect(faults(input)).toEqual([]);
      }),
      { seed: 21, numRuns: sampleOf(150, 60) },
    ));

  test('as cheap as an integer programme over all drops of all sources says (solved with highs)', async () => {
    const highs = await highsLoader();
    for (let seed = 1; seed <= 5; seed++) {
      const random = seededRandom(900 + seed);
      const pieces = Array.from({ length: 5 }, (_, i) => testPiece(i + 1, 300 + randomInt(random, 500), 300 + randomInt(random, 900)));
      const rolls = [rollOf(1, 1524, 30, 13.6), rollOf(2, 905, 1.34, 3.2), rollOf(3, 720, 1.1, 2.6)];
      const types = groupPieces(pieces, plainSettings);
      // length of each set on each source, by the single-roll programme that has its own test against highs
      const terms: string[] = [];
      const binaries: string[] = [];
      const covers: string[][] = pieces.map(() => []);
      const rooms: string[][] = rolls.map(() => []);
      for (let set = 1; set < 1 << pieces.length; set++)
        rolls.forEach((roll, r) => {
          const some = pieces.filter((_, i) => (set >> i) & 1);
          const alone = layPiecesOnRolls(inputOf(some, [{ ...roll, availableMm: 500_000 }]), 0);
          const drops = alone.rolls[0]!.drops;
          if (alone.unplaced.length > 0 || drops.length !== 1) return;
          const name = `d${r}_${set}`;
          terms.push(`${((alone.usedMm / 1000) * roll.pricePerM).toFixed(6)} ${name}`);
          rooms[r]!.push(`${alone.usedMm} ${name}`);
          binaries.push(name);
          pieces.forEach((_, i) => (set >> i) & 1 && covers[i]!.push(name));
        });
      const solved = highs.solve(
        `Minimize\n obj: ${terms.join(' + ')}\nSubject To\n${covers.map((c, i) => ` p${i}: ${c.join(' + ')} = 1`).join('\n')}\n${rooms
          .flatMap((c, r) => (c.length ? [` r${r}: ${c.join(' + ')} <= ${rolls[r]!.availableMm}`] : []))
          .join('\n')}\nBinary\n ${binaries.join(' ')}\nEnd`,
      );
      const layout = layPiecesOnRolls(inputOf(pieces, rolls), 60);
      expect(layout.cost).toBeCloseTo(solved.ObjectiveValue, 2);
      const bound = boundLayout(
        types,
        types.map((t) => t.pieces.length),
        rolls.map((r) => ({ bench: benchFor(r.widthMm, plainSettings), costPerGrain: r.pricePerM / 320_000, room: r.availableMm * 320 })),
      );
      expect(bound.cost).toBeLessThanOrEqual(layout.cost + 1e-6);
    }
  });

  test('a leftover that holds a piece is used before new film is cut, where that is cheaper', () => {
    const piece = testPiece(1, 700, 900);
    const [roll, sheet] = [rollOf(1, 1524, 20, 13.6), rollOf(2, 760, 1.2, 2.7)];
    const layout = layPiecesOnRolls(inputOf([piece, testPiece(2, 1500, 1000)], [roll, sheet]), 20);
    expect(usedOn(layout, sheet)).toBe(900);
    expect(usedOn(layout, roll)).toBe(1000);
    // but not when it fits beside the other one for nothing
    const free = layPiecesOnRolls(inputOf([piece, testPiece(2, 800, 1000, { turns: [0] })], [roll, sheet]), 20);
    expect(usedOn(free, sheet)).toBe(0);
  });

  test('a wide and a narrow roll at one price for the area: each takes what fits it best', () => {
    const pieces = [...Array.from({ length: 4 }, (_, i) => testPiece(i + 1, 1500, 1000, { turns: [0] })), ...Array.from({ length: 4 }, (_, i) => testPiece(i + 9, 1200, 1000, { turns: [0] }))]; // prettier-ignore
    const rolls = [rollOf(1, 1524, 30, 13.6), rollOf(2, 1220, 30, 10.9)];
    const layout = layPiecesOnRolls(inputOf(pieces, rolls), 60);
    expect(rolls.map((r) => usedOn(layout, r))).toEqual([4000, 4000]);
  });

  test('film and minutes are weighed together: cuts that cost more than the film they save are not made', () => {
    const pieces = Array.from({ length: 24 }, (_, i) => testPiece(i + 1, 480 + (i % 5) * 7, 700 + (i % 7) * 90));
    const at = (cutPrice: number) => layPiecesOnRolls(inputOf(pieces, [rollOf(1, 1524, 60, 2)], { cutPrice }), 60);
    const [film, both] = [at(0), at(5)];
    expect(both.cost + both.cutCount * 5).toBeLessThanOrEqual(film.cost + film.cutCount * 5);
    expect(film.cost).toBeLessThanOrEqual(both.cost);
  });

  test('what is short is said as film to order: how many metres, how wide', () => {
    const pieces = Array.from({ length: 10 }, (_, i) => testPiece(i + 1, 1500, 1000));
    const layout = layPiecesOnRolls(inputOf(pieces, [rollOf(1, 1524, 4.5, 13)]), 20);
    expect([layout.unplaced.length, layout.shortMm, layout.shortWidthMm]).toEqual([6, 6000, 1524]);
    expect(layout.unplaced[0]!.reason).toContain('6.0 m more of 1524 mm');
  });

  test('panes that meet come from one lot, unless that is allowed', () => {
    const pieces = Array.from({ length: 6 }, (_, i) => ({ ...testPiece(i + 1, 1400, 1000), meets: 'front' }));
    const rolls = [rollOf(1, 1524, 4, 13, { lot: 'A' }), rollOf(2, 1524, 9, 13, { lot: 'B' })];
    const layout = layPiecesOnRolls(inputOf(pieces, rolls), 40);
    expect([usedOn(layout, rolls[0]!), usedOn(layout, rolls[1]!)]).toEqual([0, 6000]);
    const mixed = { ...plainSettings, mixLots: true };
    const both = layPiecesOnRolls(inputOf(pieces, [rolls[0]!, { ...rolls[1]!, availableMm: 3000 }], { settings: mixed }), 40);
    expect(both.unplaced).toEqual([]);
    expect(checkLayout(both, { pieces, rolls, settings: plainSettings }).join(' ')).toContain('meet and come from different lots');
  });

  test('no plan beats the bound that knows how long each roll is', () => {
    for (const seed of [61, 62, 63]) {
      const random = seededRandom(seed);
      const pieces = Array.from({ length: 30 }, (_, i) => testPiece(i + 1, 300 + randomInt(random, 4) * 140, 400 + randomInt(random, 5) * 170));
      const rolls = [rollOf(1, 1524, 40, 13.6), rollOf(2, 1220, 3.2, 7), rollOf(3, 905, 1.3, 3)];
      const types = groupPieces(pieces, plainSettings);
      const counts = types.map((t) => t.pieces.length);
      const sources = rolls.map((r) => ({ bench: benchFor(r.widthMm, plainSettings), costPerGrain: r.pricePerM / 320_000, room: r.availableMm * 320 }));
      const bound = boundLayout(types, counts, sources).cost;
      const unlimited = boundLayout(types, counts, sources.map(({ room: _room, ...s }) => s)).cost; // prettier-ignore
      const layout = layPiecesOnRolls(inputOf(pieces, rolls), 60);
      expect(layout.cost).toBeGreaterThanOrEqual(bound - 1e-6);
      expect(bound).toBeGreaterThan(unlimited);
      expect(layout.cost).toBeLessThan(1.12 * bound);
    }
  });

  test('asked for nothing dearer than nothing, the exact cut over sources finds nothing', () => {
    const types = groupPieces([testPiece(1, 700, 900)], plainSettings);
    const source = { bench: benchFor(1524, plainSettings), pricePerGrain: 1, room: 1e9, start: 0, lot: '', isShort: false };
    expect(packOverSources(types, [1], [{ index: 0, source, room: 1e9 }], 10)).toBeNull();
    expect(packOverSources(types, [1], [{ index: 0, source, room: 1e9 }], 1e6)).toHaveLength(1);
  });
});

describe('a pattern that repeats', () => {
  test('each piece of a row begins at its place in the repeat, whatever lies before it', () => {
    const repeat = { repeatMm: 64, startMm: 0 };
    const pieces = Array.from({ length: 7 }, (_, i) => ({
      ...testPiece(i + 1, 450, 1010 + 30 * (i % 3), { turns: [0] }),
      repeat: { ...repeat, startMm: i % 2 ? 32 : 0 },
    }));
    const input = inputOf(pieces, [rollOf(1, 1524, 40, 10)], { settings: { ...plainSettings, crosscutAllowanceMm: 3 } });
    const layout = layPiecesOnRolls(input, 40);
    expect(faults(input, layout)).toEqual([]);
    for (const d of layout.rolls[0]!.drops)
      for (const c of d.columns) for (const r of c.rows) for (const p of r.pieces) {
        const { startMm } = pieces.find((x) => x.id === p.pieceId)!.repeat;
        expect(Math.abs(((p.xMm - startMm) % 64) - 0) % 64).toBeLessThan(0.01);
      } // prettier-ignore
    const moved = structuredClone(layout);
    moved.rolls[0]!.drops[0]!.columns[0]!.rows[0]!.pieces[0]!.xMm += 5;
    expect(checkLayout(moved, { pieces, rolls: input.rolls, settings: input.settings }).join(' ')).toContain('pattern would be 5.0 mm off');
  });
});

describe('moved by hand', () => {
  const pieces = [testPiece(1, 700, 900), testPiece(2, 700, 900), testPiece(3, 600, 400), testPiece(4, 1500, 1200), testPiece(5, 400, 1200)];
  const rolls = [rollOf(1, 1524, 20, 10), rollOf(2, 905, 3, 4)];
  const input = inputOf(pieces, rolls, { cutPrice: 0.5 });
  const layout = layPiecesOnRolls(input, 60);
  const dropOf = (l: typeof layout, id: string) => l.rolls.flatMap((r) => r.drops.map((d, i) => ({ rollId: r.rollId, i, d }))).find(({ d }) => d.columns.some((c) => c.rows.some((r) => r.pieces.some((p) => p.pieceId === id))))!; // prettier-ignore

  test('to a drop of its own: the plan stays cuttable, and says what it costs', () => {
    const moved = movePiece(layout, pieces[2]!.id, { rollId: rolls[0]!.id, dropIndex: null }, input, new Map());
    if (!moved.ok) throw new Error(moved.message);
    expect(checkLayout(moved.layout, { pieces, rolls, settings: plainSettings })).toEqual([]);
    expect(moved.usedDeltaMm).toBeCloseTo(moved.layout.usedMm - layout.usedMm, 6);
    expect(dropOf(moved.layout, pieces[2]!.id).i).toBe(moved.layout.rolls[0]!.drops.length - 1);
  });
  test('to a drop where nothing is left beside the others: the drop is cut anew, long enough for all of them', () => {
    const big = dropOf(layout, pieces[3]!.id);
    const moved = movePiece(layout, pieces[0]!.id, { rollId: big.rollId, dropIndex: big.i }, input, new Map());
    if (!moved.ok) throw new Error(moved.message);
    expect(checkLayout(moved.layout, { pieces, rolls, settings: plainSettings })).toEqual([]);
    const [a, b] = [dropOf(moved.layout, pieces[0]!.id), dropOf(moved.layout, pieces[3]!.id)];
    expect([a.rollId, a.i]).toEqual([b.rollId, b.i]);
    expect(a.d.alongMm).toBeGreaterThanOrEqual(1200 + 700);
  });
  test('where it cannot lie it says why, and nothing changes', () => {
    const big = dropOf(layout, pieces[3]!.id);
    const target = { rollId: big.rollId, dropIndex: big.i };
    expect(movePiece(layout, pieces[3]!.id, { rollId: rolls[1]!.id, dropIndex: null }, input, new Map())).toMatchObject({
      ok: false,
      message: expect.stringContaining('does not fit this roll'),
    });
    const held = new Map([[big.rollId, new Set([big.i])]]);
    expect(movePiece(layout, pieces[3]!.id, { rollId: rolls[0]!.id, dropIndex: null }, input, held)).toMatchObject({
      ok: false,
      message: expect.stringContaining('The knife has been at'),
    });
    expect(movePiece(layout, pieces[0]!.id, target, input, held)).toMatchObject({ ok: false });
  });
  test('any moves after one another leave a plan that can be cut', () =>
    fc.assert(
      fc.property(fc.array(fc.tuple(fc.nat(4), fc.nat(1), fc.option(fc.nat(3)), fc.boolean()), { maxLength: 12 }), (moves) => {
        let now = layout;
        for (const [p, r, drop, isTurned] of moves) {
          const moved = movePiece(now, pieces[p]!.id, { rollId: rolls[r]!.id, dropIndex: drop, isTurned }, input, new Map());
          if (moved.ok) now = moved.layout;
        }
        expect(checkLayout(now, { pieces, rolls, settings: plainSettings })).toEqual([]);
      }),
      { seed: 8, numRuns: 150 },
    ));
});
