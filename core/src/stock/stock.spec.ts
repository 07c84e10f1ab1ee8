import fc from 'fast-check';
import type { Reservation, Roll, StockEntry } from '@yellow-pane/contracts';
import { availableForJobMm, bookFault, edgesOfRest, freeMm, isWorthKeeping, leftoverPricePerM, remainingMm, rollLength, takenByJobMm } from './index.js'; // prettier-ignore

const roll: Roll = {
  id: '00000000-0000-7000-8000-000000000001', filmId: '00000000-0000-7000-8000-000000000002', label: 'S-114', lot: 'A', widthMm: 1524, lengthM: 30, lengthSigmaM: 0,
  lengthFrom: { how: 'known' }, leadInMm: 150, pricePerM: '13.60', isToOrder: false, form: 'roll', place: '', edges: 'both', wound: null, fromRollId: null, fromPlanId: null, fromDrop: null, deletedAt: null,
}; // prettier-ignore
const entry = (n: number, lengthMm: number, jobId: string | null, kind: StockEntry['kind'] = 'cut'): StockEntry => ({
  id: `e${n}`, rollId: roll.id, kind, lengthMm, jobId, planId: null, personId: 'p', at: '2026-09-14T09:00:00Z', reason: '', deletedAt: null,
}); // prettier-ignore
const promise = (jobId: string, lengthMm: number): Reservation => ({
  id: `r${jobId}`, rollId: roll.id, jobId, filmId: roll.filmId, lengthMm, personId: 'p', at: '2026-09-14T09:00:00Z', deletedAt: null,
}); // prettier-ignore
const value = (a: ReturnType<typeof rollLength>) => {
  if (!a.ok) throw new Error(a.message);
  return a.value;
};

describe('length of film on a roll', () => {
  test('from diameters and thickness: D 100, core 80, 0.10 mm gives 28.274 m; 5 % in thickness is 1.41 m (closed form)', () => {
    const { lengthM, sigmaM } = value(rollLength({ how: 'diameter', outsideMm: 100, coreMm: 80, thicknessUm: 100 }, 0));
    expect(lengthM).toBeCloseTo(28.274, 3);
    expect(lengthM * 0.05).toBeCloseTo(1.41, 2);
    expect(sigmaM).toBeGreaterThan(1.41);
    expect(sigmaM).toBeLessThan(2);
  });
  test('calibrated with the full roll: 30 m at D 140 on a core of 90, now D 120: 16.435 m, thickness not needed (closed form)', () => {
    const { lengthM, sigmaM } = value(rollLength({ how: 'full-roll', outsideMm: 120, coreMm: 90, fullOutsideMm: 140, fullLengthM: 30 }, 0));
    expect(lengthM).toBeCloseTo(16.435, 3);
    expect(sigmaM).toBeLessThan(0.6);
    // the film of that ring lies 30 m long: its thickness, µm
    const thick = ((Math.PI / 4) * (140 ** 2 - 90 ** 2)) / 30;
    expect(value(rollLength({ how: 'diameter', outsideMm: 120, coreMm: 90, thicknessUm: thick }, 0)).lengthM).toBeCloseTo(lengthM, 9);
  });
  test('the stated doubt is what small slips of the callipers do, to first order', () => {
    const full = { how: 'full-roll' as const, outsideMm: 120, coreMm: 90, fullOutsideMm: 140, fullLengthM: 30 };
    const at = (d: Partial<typeof full>) => value(rollLength({ ...full, ...d }, 0)).lengthM;
    const slopes = [at({ outsideMm: 120.5 }) - at({}), at({ fullOutsideMm: 140.5 }) - at({}), at({ coreMm: 90.5 }) - at({})];
    expect(value(rollLength(full, 0)).sigmaM).toBeCloseTo(Math.hypot(...slopes), 2);
  });
  test('says in words when diameters cannot belong to one roll', () => {
    expect(rollLength({ how: 'diameter', outsideMm: 70, coreMm: 80, thicknessUm: 100 }, 0)).toMatchObject({
      ok: false,
      message: expect.stringContaining('thinner than its core'),
    });
    expect(rollLength({ how: 'full-roll', outsideMm: 150, coreMm: 90, fullOutsideMm: 140, fullLengthM: 30 }, 0)).toMatchObject({ ok: false });
    expect(value(rollLength({ how: 'diameter', outsideMm: 80, coreMm: 80, thicknessUm: 100 }, 0)).lengthM).toBe(0);
  });
  test('nothing is made up from what was not typed: a diameter or thickness of nothing is asked for, not divided by', () => {
    const by = (d: number, c: number, um: number) => rollLength({ how: 'diameter', outsideMm: d, coreMm: c, thicknessUm: um }, 0);
    for (const [d, c] of [[0, 80], [120, 0], [0, 0], [-1, 80], [Number.NaN, 80]] as const) expect(by(d, c, 100)).toMatchObject({ ok: false, message: expect.stringContaining('Both diameters') }); // prettier-ignore
    for (const um of [0, -5, Number.NaN]) expect(by(120, 80, um)).toMatchObject({ ok: false, message: expect.stringContaining('thickness') });
    expect(rollLength({ how: 'full-roll', outsideMm: 90, coreMm: 90, fullOutsideMm: 90, fullLengthM: 30 }, 0)).toMatchObject({ ok: false });
  });
  test('by diameter too: half a millimetre at the callipers and 5 % of the thickness, as slips to first order', () => {
    const at = (d: number, c: number, um: number) => value(rollLength({ how: 'diameter', outsideMm: d, coreMm: c, thicknessUm: um }, 0));
    const base = at(130, 85, 60);
    const slopes = [at(130.25, 85, 60).lengthM - at(129.75, 85, 60).lengthM, at(130, 85.25, 60).lengthM - at(130, 84.75, 60).lengthM, (at(130, 85, 58.5).lengthM - at(130, 85, 61.5).lengthM) / 1]; // prettier-ignore
    expect(base.sigmaM / Math.hypot(...slopes)).toBeCloseTo(1, 2);
    // of a thick film wound on little, the callipers count, not the thickness
    const few = at(86, 85, 400);
    expect(few.sigmaM).toBeGreaterThan(few.lengthM * 0.3);
  });
});

test('a length that is known is taken as it is, without doubt', () =>
  expect(rollLength({ how: 'known' }, 22.5)).toEqual({ ok: true, value: { lengthM: 22.5, sigmaM: 0 } }));

describe('the book of a roll', () => {
  test('what others were promised is not there for this job; what its own plan holds is', () => {
    const book = { entries: [entry(1, -5150, 'mine')], reservations: [promise('other', 8000), promise('mine', 3000)] };
    expect(remainingMm(roll, book.entries)).toBe(24_850);
    expect(takenByJobMm(roll.id, book.entries, 'mine')).toBe(5150);
    // 30 m less the lead-in less the other's 8 m, whether or not mine is committed already
    expect(availableForJobMm(roll, book, 'mine')).toBe(30_000 - 150 - 8000);
    expect(availableForJobMm(roll, { ...book, entries: [] }, 'mine')).toBe(30_000 - 150 - 8000);
    expect(freeMm(roll, book)).toBe(24_850 - 11_000);
  });
  test('a promise counts on its own roll only, and not once it was taken back', () => {
    const elsewhere = { ...promise('other', 8000), rollId: 'another' };
    const lifted = { ...promise('third', 4000), deletedAt: '2026-09-15T09:00:00Z' };
    const book = { entries: [], reservations: [elsewhere, lifted] };
    expect([availableForJobMm(roll, book, 'mine'), freeMm(roll, book)]).toEqual([30_000 - 150, 30_000]);
    // 29 m of its own on top: neither of the two stands in its way, nor is it named
    expect(bookFault(roll, { entries: [], reservations: [elsewhere, lifted, promise('a', 29_000)] }, { a: 'Tern Point' })).toBeNull();
    expect(bookFault(roll, { entries: [], reservations: [elsewhere, lifted, promise('a', 31_000)] }, { a: 'Tern Point' })).toContain(
      '31.00 m would be promised (Tern Point 31.00 m)',
    );
  });
  test('the crooked start is lost once, by the first job at the roll', () => {
    expect(availableForJobMm(roll, { entries: [entry(1, -5150, 'first')], reservations: [] }, 'second')).toBe(24_850);
    // a cut that was undone, a count of the roll, or another roll’s cut has not taken it off
    const others = [
      { ...entry(1, -5150, 'first'), deletedAt: '2026-09-15T09:00:00Z' },
      entry(2, 0, 'first', 'count'),
      { ...entry(3, -5150, 'first'), rollId: 'another' },
    ];
    for (const e of others) expect(availableForJobMm(roll, { entries: [e], reservations: [] }, 'second')).toBe(30_000 - 150);
  });
  test('says who holds what when a metre would be promised twice, or cut that is not there', () => {
    const names = { a: 'Tern Point', b: 'Bakery' };
    expect(bookFault(roll, { entries: [], reservations: [promise('a', 20_000), promise('b', 9000)] }, names)).toBeNull();
    expect(bookFault(roll, { entries: [], reservations: [promise('a', 20_000), promise('b', 12_000)] }, names)).toMatch(
      /30.00 m left and 32.00 m.*Tern Point 20.00 m, Bakery 12.00 m/,
    );
    // to the last half millimetre, which is what rounding leaves, and no farther
    const promisedAll = (mm: number) => bookFault(roll, { entries: [], reservations: [promise('a', 20_000), promise('b', mm)] }, names);
    expect([promisedAll(10_000), promisedAll(10_000.5)]).toEqual([null, null]);
    expect(promisedAll(10_001)).toContain('No metre can be promised twice');
    expect(bookFault(roll, { entries: [entry(1, -30_000.4, 'a')], reservations: [] }, names)).toBeNull();
    expect(bookFault(roll, { entries: [entry(1, -31_000, 'a')], reservations: [] }, names)).toMatch(/S-114 has 30.00 m on it; 31.00 m cannot be cut/);
  });
  test('any order of cuts, counts and undos gives the same sum', () =>
    fc.assert(
      fc.property(fc.array(fc.tuple(fc.integer({ min: -4000, max: 1000 }), fc.boolean()), { maxLength: 30 }), fc.integer(), (moves, seed) => {
        const entries = moves.map(([mm, undone], i) => ({ ...entry(i, mm, 'j'), deletedAt: undone ? '2026-09-15T00:00:00Z' : null }));
        const shuffled = [...entries].sort((a, b) => ((seed ^ a.lengthMm) % 7) - ((seed ^ b.lengthMm) % 7));
        expect(remainingMm(roll, shuffled)).toBe(30_000 + moves.reduce((s, [mm, undone]) => s + (undone ? 0 : mm), 0));
      }),
      { seed: 4 },
    ));
});

describe('leftovers', () => {
  const rule = { smallestSideMm: 250, smallestAreaM2: 0.15, worthFrac: 0.4 };
  test('a strip too narrow or too small is waste, whatever its length', () => {
    expect(isWorthKeeping({ alongMm: 2000, acrossMm: 240 }, rule)).toBe(false);
    expect(isWorthKeeping({ alongMm: 400, acrossMm: 300 }, rule)).toBe(false);
    expect(isWorthKeeping({ alongMm: 600, acrossMm: 300 }, rule)).toBe(true);
    // what is just as large as the firm says is kept
    expect(isWorthKeeping({ alongMm: 600, acrossMm: 250 }, rule)).toBe(true);
    expect(isWorthKeeping({ alongMm: 500, acrossMm: 300 }, rule)).toBe(true);
    expect(isWorthKeeping({ alongMm: 250, acrossMm: 599 }, rule)).toBe(false);
  });
  test('knows which of its edges are still the roll’s own', () => {
    expect(edgesOfRest({ yMm: 0, alongMm: 900, acrossMm: 300 }, roll)).toBe('near');
    expect(edgesOfRest({ yMm: 1224, alongMm: 900, acrossMm: 300 }, roll)).toBe('far');
    expect(edgesOfRest({ yMm: 500, alongMm: 900, acrossMm: 300 }, roll)).toBe('none');
    expect(edgesOfRest({ yMm: 0, alongMm: 900, acrossMm: 1524 }, roll)).toBe('both');
    expect(edgesOfRest({ yMm: 0, alongMm: 900, acrossMm: 300 }, { ...roll, edges: 'far' })).toBe('none');
    expect(edgesOfRest({ yMm: 0, alongMm: 900, acrossMm: 300 }, { ...roll, edges: 'near' })).toBe('near');
    expect(edgesOfRest({ yMm: 1224, alongMm: 900, acrossMm: 300 }, { ...roll, edges: 'near' })).toBe('none');
    expect(edgesOfRest({ yMm: 1224, alongMm: 900, acrossMm: 300 }, { ...roll, edges: 'far' })).toBe('far');
    // a knife’s half millimetre from the edge is a cut edge, what is nearer is the roll’s own
    expect([0.4, 0.5].map((yMm) => edgesOfRest({ yMm, alongMm: 900, acrossMm: 300 }, roll))).toEqual(['near', 'none']);
    expect([1223.6, 1223.5].map((yMm) => edgesOfRest({ yMm, alongMm: 900, acrossMm: 300 }, roll))).toEqual(['far', 'none']);
  });
  test('counts for its share of new film by area: half the width, 40 %', () =>
    expect(Number(leftoverPricePerM(roll, 762, rule))).toBeCloseTo(13.6 * 0.5 * 0.4, 6));
});
