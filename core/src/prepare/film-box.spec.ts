import { boxHours, boxOfFilm } from './film-box.js';

const film = { id: 'f', thicknessUm: 80 };
const roll = (lengthM: number, filmId = 'f', deletedAt: string | null = null) => ({ filmId, lengthM, deletedAt });

describe('how thick a roll is, and when it is warm through', () => {
  test('what is wound fills a ring round the core: 30 m of 0.19 mm are 5700 mm², 120 mm across with a core of 84', () => {
    expect(2 * boxOfFilm(film, [roll(30)])!.radiusMm).toBeCloseTo(2 * Math.sqrt(42 ** 2 + 5700 / Math.PI), 6);
    expect(2 * boxOfFilm(film, [roll(30)])!.radiusMm).toBeCloseTo(119.6, 1);
  });
  test('the longest roll of this film counts; none, or deleted ones: nobody knows', () => {
    expect(boxOfFilm(film, [roll(10), roll(45), roll(90, 'other'), roll(100, 'f', '2026-12-01')])).toEqual(boxOfFilm(film, [roll(45)]));
    expect(boxOfFilm(film, [roll(90, 'other')])).toBeNull();
  });
  test('a full roll from a cold van takes a night out of its box and longer in it (common practice: film comes in the evening before)', () => {
    const [open, closed] = boxHours(boxOfFilm(film, [roll(50)])!, 3, 20);
    expect(open).toBeGreaterThan(4);
    expect(open).toBeLessThan(12);
    expect(closed / open).toBeGreaterThan(1.3);
    expect(closed).toBeLessThan(22);
  });
  test('one that is as warm as the room is ready', () => expect(boxHours({ radiusMm: 70 }, 19, 20)).toEqual([0, 0]));
});
