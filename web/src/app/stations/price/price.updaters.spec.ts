import { quote as quoteSchema } from '@yellow-pane/contracts';
import { demoFirm, demoLibrary, demoRates } from '../../../../../demo/src/index';
import { filmsByWish, newQuote, nextLine, offerable, quoteSummary, toggleFilm } from './price.updaters';

const id = '01930000-0000-7000-8000-0000000f0001';

describe('a price at the window', () => {
  test('starts empty by the firm’s newest rates and is a quote that can be kept', () => {
    const q = newQuote({ firm: demoFirm, rates: [demoRates, { ...demoRates, id, version: 2 }] }, id, '2026-10-01T09:00:00Z')!;
    expect(q.ratesId).toBe(id);
    expect(quoteSchema.parse(q)).toEqual(q);
    expect(newQuote({ firm: demoFirm, rates: [] }, id, '2026-10-01T09:00:00Z')).toBeNull();
  });
  test('the next window takes over where it is and what it stands on', () => {
    const first = { ...nextLine([], id, { widthMm: 900, heightMm: 1200, count: 2 }), place: 'Kitchen', reach: 'ladder' as const };
    expect(first.name).toBe('Window 1');
    expect(nextLine([first], id, { widthMm: 700, heightMm: 1900, count: 1 })).toMatchObject({
      place: 'Kitchen',
      reach: 'ladder',
      name: 'Window 2',
      widthMm: 700,
    });
    expect(quoteSummary({ lines: [first] }, 'mm')).toBe('2 panes, 2.2 m²');
    expect(quoteSummary({ lines: [first] }, 'in')).toBe('2 panes, 24 ft²');
    expect(quoteSummary({ lines: [] }, 'mm')).toBe('no window yet');
  });
  test('three films are the most; the oldest pick gives way', () => {
    expect(toggleFilm(['a', 'b', 'c'], 'd')).toEqual(['b', 'c', 'd']);
    expect(toggleFilm(['a', 'b'], 'a')).toEqual(['b']);
  });
  test('only films for glass with a size and a price are offered', () => {
    const names = offerable(demoLibrary).map((f) => f.name);
    expect(names).toContain('Tern Shade 35');
    for (const out of ['Ash Plank', 'Dawn Bronze 30']) expect(names).not.toContain(out);
  });
  test('every film that can be offered stands under exactly one wish', () => {
    const films = offerable(demoLibrary);
    const groups = filmsByWish(films);
    expect(
      groups
        .flatMap((g) => g.films)
        .map((f) => f.id)
        .sort(),
    ).toEqual(films.map((f) => f.id).sort());
    expect(groups.map((g) => g.name)).toEqual(['Against heat and glare', 'Against being seen', 'For safety', 'Others']);
  });
});
