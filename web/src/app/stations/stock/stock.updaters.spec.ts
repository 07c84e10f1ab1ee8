import { emptyStock, newRoll, type BenchDocument, type StockEntry } from '@yellow-pane/contracts';
import { demoFirm, demoLibrary, demoPersons, demoRolls } from '../../../../../demo/src/index';
import { countEntry, labelFrom, lengthPatches, stockRows } from './stock.updaters';

const cut: StockEntry = {
  id: 'e',
  rollId: demoRolls[0]!.id,
  kind: 'cut',
  lengthMm: -5000,
  jobId: 'j',
  planId: 'p',
  personId: 'x',
  at: '2026-09-14T09:00:00Z',
  reason: '',
  deletedAt: null,
};
const doc: BenchDocument = {
  revision: 1,
  firm: demoFirm,
  persons: demoPersons,
  films: demoLibrary,
  rolls: demoRolls,
  stock: {
    ...emptyStock,
    entries: [cut],
    reservations: [{ id: 'r', rollId: demoRolls[0]!.id, jobId: 'j', filmId: demoRolls[0]!.filmId, lengthMm: 2000, personId: 'x', at: cut.at, deletedAt: null }],
    jobNames: { j: 'Tern Point' },
  },
  rates: [],
  quotes: [],
  stepSets: [],
  panesWithFilm: {},
  canUndo: null,
  canRedo: null,
};
const who = { id: 'new', personId: 'x', at: cut.at };
const row = (label: string) => stockRows(doc, '').find((r) => r.roll.label === label)!;

describe('the stock as it is listed', () => {
  test('what was cut and promised is told, with who holds it; films stand together, rolls before leftovers', () => {
    expect(row('S-114')).toMatchObject({
      remainingMm: 16_800,
      reservedMm: 2000,
      freeMm: 14_800,
      holders: [{ jobId: 'j', name: 'Tern Point', lengthMm: 2000 }],
    });
    const shade = stockRows(doc, 'Tern Shade 35');
    expect(shade.map((r) => r.roll.form)).toEqual(['roll', 'roll', 'roll', 'leftover', 'leftover', 'leftover']);
  });
  test('found by label, lot, film or place', () => {
    for (const [text, count] of [['s-102', 2], ['L2606-D', 3], ['leftover tube', 5], ['', demoRolls.length]] as const) expect([text, stockRows(doc, text).length]).toEqual([text, count]); // prettier-ignore
  });
  test('a scanned code and a typed label are the same', () =>
    expect([labelFrom('YP:S-114'), labelFrom(' S-114 '), labelFrom('yp:F-1/2')]).toEqual(['S-114', 'S-114', 'F-1/2']));
  test('a count books the difference to the book, with its reason; as booked is no entry', () => {
    expect(countEntry(row('S-114'), 16_500, 'count', 'stock take', who)).toMatchObject({ kind: 'stockEntry', value: { lengthMm: -300, reason: 'stock take' } });
    expect(countEntry(row('S-114'), 16_800, 'count', '', who)).toBeNull();
  });
  test('a length by diameter keeps how it was found and how sure it is; what cannot be is said', () => {
    const patches = lengthPatches(row('S-114'), { how: 'full-roll', outsideMm: 120, coreMm: 90, fullOutsideMm: 140, fullLengthM: 30 }, who);
    if (typeof patches === 'string') throw new Error(patches);
    expect(patches.map((p) => (p.op === 'set' ? p.field : p.kind))).toEqual(['lengthFrom', 'lengthSigmaM', 'stockEntry']);
    expect(lengthPatches(row('S-114'), { how: 'diameter', outsideMm: 70, coreMm: 80, thicknessUm: 100 }, who)).toContain('thinner than its core');
  });
  test('a roll of which nothing more is known is a whole one, wound as its film', () =>
    expect(newRoll({ id: 'i', filmId: 'f', label: 'x', widthMm: 1524, lengthM: 30, pricePerM: '1' })).toMatchObject({
      form: 'roll',
      edges: 'both',
      wound: null,
      isToOrder: false,
    }));
});
