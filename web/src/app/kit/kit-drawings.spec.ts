import { demoLibrary } from '../../../../demo/src/index';
import { bearingName, Compass } from './compass';
import { FilmSwatch } from './film-swatch';
import { GlassSection } from './glass-section';
import { root, show } from './show.testing';

const film = (name: string) => demoLibrary.find((f) => f.name === name)!;

describe('a swatch', () => {
  const darkness = (name: string) =>
    Number(
      root(show(FilmSwatch, { film: film(name) }))
        .querySelectorAll('path')[2]!
        .getAttribute('opacity'),
    );
  test('is the darker, the less light comes through', () => {
    expect(darkness('Ebb Grey 5')).toBeGreaterThan(darkness('Tern Shade 35'));
    expect(darkness('Tern Shade 35')).toBeGreaterThan(darkness('Slack Water 70'));
  });
  test('of a film without its sheet pretends nothing', () => expect(root(show(FilmSwatch, { film: film('Ash Plank') })).querySelector('[opacity]')).toBeNull());
});

describe('the section through the glass', () => {
  const pane = { thicknessMm: 6, isTinted: false, isLaminated: false, isWired: false, coatedFace: null };
  const figures = {
    visibleTransmittanceFrac: 0.8,
    visibleReflectanceOutFrac: 0.14,
    visibleReflectanceInFrac: 0.14,
    solarTransmittanceFrac: 0.22,
    solarReflectanceOutFrac: 0.24,
    absorbedFrac: [0.13, 0.41],
    uvTransmittanceFrac: 0.01,
    hazeFrac: 0,
    uWPerM2K: 2.7,
    gFrac: 0.5,
  };
  const section = (more: Record<string, unknown> = {}) => root(show(GlassSection, { panes: [pane, pane], cavitiesMm: [16], figures, name: 'Shade', ...more }));
  test('tells in words where the sun goes', () =>
    expect(section().querySelector('svg')!.getAttribute('aria-label')).toBe(
      'Shade: of the sun 24 % is thrown back, 54 % soaked up, 22 % let through; 50 % reach the room in all',
    ));
  test('draws panes and cavity to one scale, the film on the face that it is on', () => {
    const filmAt = (filmFace: string) => Number(section({ filmFace }).querySelector('rect[fill="#F4B400"]')!.getAttribute('x'));
    const panes = [...section().querySelectorAll('rect[stroke-width="1"]')].map((r) => [Number(r.getAttribute('x')), Number(r.getAttribute('width'))] as const);
    expect(panes).toHaveLength(2);
    expect(panes[0]![1]).toBeCloseTo(panes[1]![1], 9);
    expect(panes[1]![0] - panes[0]![0] - panes[0]![1]).toBeCloseTo(16 * 1.5, 9);
    expect(filmAt('street')).toBeLessThan(panes[0]![0]);
    expect(filmAt('room')).toBeGreaterThanOrEqual(panes[1]![0] + panes[1]![1]);
  });
  test('between two rooms there is no street and no sun', () => {
    const words = section({ isIndoors: true }).textContent;
    expect(words).toContain('other side');
    expect(words).not.toContain('sun');
  });
});

describe('the compass', () => {
  test('names bearings', () => expect([0, 44, 91, 200, 262, 350].map(bearingName)).toEqual(['north', 'north-east', 'east', 'south', 'west', 'north']));
  test('turns by keys, round past north', () => {
    const fixture = show(Compass, { deg: 358 });
    const told: number[] = [];
    fixture.componentInstance.changed.subscribe((d) => told.push(d));
    const dial = root(fixture).querySelector('svg')!;
    dial.dispatchEvent(new KeyboardEvent('keydown', { key: 'ArrowRight' }));
    dial.dispatchEvent(new KeyboardEvent('keydown', { key: 'ArrowLeft' }));
    expect(told).toEqual([3, 353]);
    expect(dial.getAttribute('aria-valuetext')).toBe('358 degrees, north');
  });
  test('a bearing that nobody knows has no needle', () => {
    const dial = root(show(Compass, { deg: null }));
    expect(dial.querySelector('g')).toBeNull();
    expect(dial.querySelector('svg')!.getAttribute('aria-valuetext')).toBe('not known');
  });
});
