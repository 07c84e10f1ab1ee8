import { panesIn } from '../../../demo/src/index.js';
import { defaultCutSettings, type Quote, type Reading, type Pane } from '@yellow-pane/contracts';
import { demoFirm, demoId, demoLibrary, demoRates, ternPoint } from '../../../demo/src/index.js';
import { resurvey } from './moved.js';
import { Memo } from '../ground/index.js';

const film = demoLibrary[0]!;
const base = ternPoint();
const line = { place: 'Kitchen', reach: 'ladder', hasOldFilm: false, hasProudSilicone: false } as const;
const quote: Quote = {
  id: demoId(900),
  firmId: demoFirm.id,
  customer: 'Harbour kiosk',
  site: '',
  lines: [{ ...line, id: demoId(901), name: 'Window', widthMm: 900, heightMm: 1200, count: 2 }],
  kmThere: 5,
  filmIds: [film.id],
  ratesId: demoRates.id,
  photo: null,
  currency: 'EUR',
  status: 'accepted',
  acceptedFilmId: film.id,
  jobId: base.job.id,
  createdAt: '2026-10-01T09:00:00Z',
  deletedAt: null,
};
const places = [{ id: demoId(910), jobId: base.job.id, name: 'Kitchen', order: 1, deletedAt: null }];
const pane = (n: number, name: string, likeId: string | null): Pane => ({
  ...panesIn(base)[0]!,
  shape: null,
  id: demoId(920 + n),
  placeId: demoId(910),
  name,
  grid: null,
  measuredLikeId: likeId,
});
const tape = (n: number, surfaceId: string, measure: Reading['measure'], lengthMm: number): Reading => ({
  ...base.readings[0]!,
  id: demoId(930 + n),
  surfaceId,
  measure,
  lengthMm,
  typed: String(lengthMm),
});
const one = pane(1, 'Window 1', null);
const two = pane(2, 'Window 2', one.id);
const tapes = [tape(1, one.id, 'widthLargest', 900), tape(2, one.id, 'heightLargest', 1200)];
const ask = (surfaces: Pane[], readings: Reading[]) =>
  resurvey(quote, film, demoRates, demoFirm, { job: { cut: defaultCutSettings }, places, surfaces, readings, memo: new Memo() });

describe('a later survey of what was quoted', () => {
  test('the same sizes: nothing moved, the same price', () => {
    const r = ask([one, two], tapes);
    expect(r.moved).toEqual([]);
    expect(r.now.totalMinor).toBe(r.quoted.totalMinor);
  });
  test('a pane that grew is named with both sizes, and the price follows by the same rates', () => {
    const r = ask([one, two], [...tapes, tape(3, two.id, 'widthLargest', 1240)]);
    expect(r.moved).toEqual([
      { name: 'Window 2', kind: 'size', fromMm: { widthMm: 900, heightMm: 1200 }, toMm: { widthMm: 1240, heightMm: expect.closeTo(1200, 6) } },
    ]);
    expect(r.now.netMinor).toBeGreaterThan(r.quoted.netMinor);
  });
  test('panes that came and went are told apart', () => {
    const r = ask([one, pane(3, 'Door', one.id)], tapes);
    expect(r.moved.map((m) => [m.name, m.kind])).toEqual([
      ['Door', 'new'],
      ['Window 2', 'gone'],
    ]);
  });
  test('a pane known by its room and its name only: one of the same name in another room is another pane', () => {
    const elsewhere = { ...pane(4, 'Window 2', null), placeId: demoId(911) };
    expect(
      ask([one, elsewhere], [...tapes, tape(5, elsewhere.id, 'widthLargest', 900), tape(6, elsewhere.id, 'heightLargest', 1200)]).moved.map((m) => [
        m.name,
        m.kind,
      ]),
    ).toEqual([
      ['Window 2', 'new'],
      ['Window 2', 'gone'],
    ]);
  });
  test('a pane not taped yet counts in the price at the size it was quoted at, and has not moved', () => {
    const r = ask([one, pane(2, 'Window 2', null)], tapes);
    expect(r.moved).toEqual([]);
    expect(r.now.totalMinor).toBe(r.quoted.totalMinor);
  });
  test('a new pane that nobody taped has no size and no price yet, and is named all the same', () => {
    const r = ask([one, two, pane(5, 'Door', null)], tapes);
    expect(r.moved).toEqual([{ name: 'Door', kind: 'new', fromMm: null, toMm: null }]);
    expect(r.now.totalMinor).toBe(r.quoted.totalMinor);
  });
  test('what a new pane needs by hand is reckoned from the floor, with no old film and no silicone: nobody said otherwise', () => {
    const dear = { ...quote, lines: [{ ...quote.lines[0]!, reach: 'tower' as const, hasOldFilm: true, hasProudSilicone: true }] };
    const job = { job: { cut: defaultCutSettings }, places, readings: tapes, memo: new Memo() };
    const minutes = (surfaces: Pane[]) =>
      resurvey(dear, film, demoRates, demoFirm, { ...job, surfaces }).now.makeUp.find((l) => l.name === 'Old film off')!.amountMinor;
    expect(minutes([one, two, pane(6, 'Door', one.id)])).toBe(minutes([one, two]));
  });
  test('a height that shrank is told like a width that grew; 3 mm are within a tape of a first visit, 4 are not', () => {
    const at = (heightMm: number) =>
      ask([one, pane(2, 'Window 2', null)], [...tapes, tape(7, two.id, 'widthLargest', 900), tape(8, two.id, 'heightLargest', heightMm)]).moved.length;
    expect([1196, 1197.5, 1202.5, 1204].map(at)).toEqual([1, 0, 0, 1]);
  });
  test('a millimetre or two of a rounded tape is no movement', () =>
    expect(ask([one, two], [...tapes, tape(4, two.id, 'widthLargest', 902)]).moved).toEqual([]));
});
