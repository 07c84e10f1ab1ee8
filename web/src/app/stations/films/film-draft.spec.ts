import { demoLibrary } from '../../../../../demo/src/index';
import { draftOf, emptyOffer, filmFromDraft, offerDraftsOf } from './film-draft';

const id = '01930000-0000-7000-8000-0000000f0001';
const at = '2026-10-01T09:00:00Z';
const shade = demoLibrary.find((f) => f.name === 'Tern Shade 35')!;
const read = (part: Partial<ReturnType<typeof draftOf>>, old = shade) => filmFromDraft({ ...draftOf(old), ...part }, offerDraftsOf(old), old, id, at);
const faults = (r: ReturnType<typeof filmFromDraft>) => ('faults' in r ? r.faults.join(' ') : '');

describe('a film typed from its sheet', () => {
  test('untouched, the next version says the same as the one before, for every film of the library', () => {
    for (const f of demoLibrary) {
      const next = filmFromDraft(draftOf(f), offerDraftsOf(f), f, id, at);
      expect(
        'film' in next && { ...next.film, id: f.id, version: f.version, replacesId: f.replacesId, createdAt: f.createdAt, retiredAt: f.retiredAt },
      ).toEqual(f);
    }
  });
  test('a change makes version two of it; the first stays as it was', () => {
    const next = read({ visibleT: '33', note: 'New sheet.' });
    expect('film' in next && [next.film.version, next.film.replacesId, next.film.optics!.visible.transmittanceFrac, next.film.note]).toEqual([
      2,
      shade.id,
      0.33,
      'New sheet.',
    ]);
    expect(shade.optics!.visible.transmittanceFrac).toBe(0.35);
  });
  test('a new film needs a name and a thickness, its light values may wait', () => {
    const empty = draftOf(null);
    expect(faults(filmFromDraft(empty, [], null, id, at))).toContain('how thick');
    expect(faults(filmFromDraft({ ...empty, thicknessUm: '50' }, [], null, id, at))).toContain('A film needs a name.');
    const made = filmFromDraft({ ...empty, thicknessUm: '50', name: 'House tint' }, [], null, id, at);
    expect('film' in made && [made.film.version, made.film.optics, made.film.offers]).toEqual([1, null, []]);
  });
  test('every size it is sold in can be typed; an empty line is none', () => {
    const sizes = [...offerDraftsOf(shade), { widthMm: '2000', lengthM: '30,5', pricePerRoll: '600', pricePerM: '23,50' }, emptyOffer];
    const made = filmFromDraft(draftOf(shade), sizes, shade, id, at);
    expect('film' in made && made.film.offers.length).toBe(shade.offers.length + 1);
    expect('film' in made && made.film.offers.at(-1)).toEqual({ widthMm: 2000, lengthM: 30.5, pricePerRoll: '600', pricePerM: '23.50' });
  });
  test('half a sheet is no sheet: what is missing is named', () =>
    expect(faults(read({ uvT: '', solarRFree: '' }))).toContain('Sun back, free side, Ultraviolet through missing'));
  test('values that no film can have, and words for numbers, are refused in sentences', () => {
    expect(faults(read({ visibleT: '95' }))).toContain('more than 100 %');
    expect(faults(read({ haze: 'a lot' }))).toContain('Haze: “a lot” is no number.');
    const half = { widthMm: '1524', lengthM: '', pricePerM: '9', pricePerRoll: '' };
    expect(faults(filmFromDraft(draftOf(shade), [...offerDraftsOf(shade), half], shade, id, at))).toContain(`Sold as, line ${shade.offers.length + 1}:`);
  });
  describe('on a bench of inches', () => {
    test('untouched, every film of the library stays what it was, to the last digit', () => {
      for (const f of demoLibrary) {
        const next = filmFromDraft(draftOf(f, 'in'), offerDraftsOf(f, 'in'), f, id, at, 'in');
        expect(
          'film' in next && { ...next.film, id: f.id, version: f.version, replacesId: f.replacesId, createdAt: f.createdAt, retiredAt: f.retiredAt },
        ).toEqual(f);
      }
    });
    test('mil, °F, inches, feet and a price for a foot are kept as µm, °C, mm, m and a price for a metre', () => {
      const sheet = { ...draftOf(null, 'in'), name: 'House tint', thicknessUm: '2', applyMin: '40', limit: '150', patternRepeat: '18 1/2' };
      const made = filmFromDraft(sheet, [{ widthMm: '60', lengthM: '100', pricePerRoll: '400', pricePerM: '4' }], null, id, at, 'in');
      if (!('film' in made)) throw new Error(made.faults.join(' '));
      expect(made.film).toMatchObject({ thicknessUm: 50.8, patternRepeatMm: 469.9, temps: { applyMinC: 4.44, limitC: 65.56 } });
      expect(made.film.offers[0]).toEqual({ widthMm: 1524, lengthM: 30.48, pricePerRoll: '400', pricePerM: '13.12' });
      // and told again as they were typed
      expect(draftOf(made.film, 'in')).toMatchObject({ thicknessUm: '2', applyMin: '40', limit: '150', patternRepeat: '18 1/2' });
      expect(offerDraftsOf(made.film, 'in')[0]).toMatchObject({ widthMm: '60', lengthM: '100', pricePerM: '4' });
      expect(faults(filmFromDraft({ ...sheet, thicknessUm: '' }, [], null, id, at, 'in'))).toContain('in mil?');
    });
  });
});
