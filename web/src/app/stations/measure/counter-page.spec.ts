import type { Counter } from '@yellow-pane/contracts';
import { CounterPage } from './counter-page';
import { OpenedInterior } from './interior.testing';

let on: OpenedInterior<CounterPage>;
beforeEach(async () => {
  on = await OpenedInterior.at(CounterPage, 'Reception counter');
});
const kept = (name = 'Reception counter') => on.kept<Counter>(name);
const drawn = () => on.drawn('yp-counter-drawing');
const press = async (selector: string) => {
  on.root.querySelector<HTMLButtonElement>(selector)!.click();
  await on.settle();
};
const side = (name: string, value: string) => on.change(on.root.querySelector<HTMLSelectElement>(`[data-side="${name}"]`)!, value);

describe('Measure, of a counter', () => {
  test('shows its top from above with its tapes and its round, and marks the one that is suspected', () => {
    expect(['widthFront', 'depthRight', 'fromBackLeft', 'setbackFrontRight', 'gapFrontRight', 'edgeGirth'].map((k) => on.field(k).value)).toEqual(['2401', '701', '2397', '250', '130', '31']); // prettier-ignore
    expect(on.verdict()).toContain('way to the round, front right would be 104 (looks like digits swapped)');
    expect(on.field('gapFrontRight').className).toContain('bg-tint');
    expect(drawn()).toEqual(expect.arrayContaining(['2401', 'ends 250', 'round 130', 'Hand basin', 'from above; you stand at its front, below']));
    // its outline has one arc
    expect(on.root.querySelector('yp-counter-drawing path[stroke="#1C2226"][d*="A"]')).not.toBeNull();
  });
  test('taped again it is settled; what no top has is asked about first', async () => {
    await on.type(on.field('gapFrontRight'), '104');
    expect(on.verdict()).toContain('The tapes agree.');
    await on.type(on.field('depthLeft'), '7');
    expect(on.root.textContent).toContain('That is a top of 7 mm.');
  });
  test('a corner is round or sharp by one press: its fields come and go, what was taped of it stays in the record', async () => {
    expect(on.field('setbackFrontLeft')).toBeNull();
    await press('[data-round="frontLeft"]');
    expect(kept().round).toEqual(['frontRight', 'frontLeft']);
    expect(on.root.textContent).toContain('Its front left corner is round, and nobody taped it');
    await on.type(on.field('setbackFrontLeft'), '0');
    await press('[data-round="frontRight"]');
    expect(on.field('gapFrontRight')).toBeNull();
    expect(drawn().some((t) => t.startsWith('round '))).toBe(false);
    expect(on.api.doc.readings.filter((r) => r.surfaceId === kept().id && r.measure === 'gapFrontRight' && !r.withdrawnAt)).toHaveLength(1);
  });
  test('round all over by one press: every corner, the same on every side, at no wall; the next press makes its corners sharp', async () => {
    expect(Object.values(kept().sides)).toContain('wall');
    await press('[data-round-all]');
    expect(kept().round).toHaveLength(4);
    expect(new Set(Object.values(kept().sides)).size).toBe(1);
    expect(Object.values(kept().sides)).not.toContain('wall');
    expect(on.root.querySelector('[data-round-hint]')!.textContent).toContain('its ends are half circles');
    expect(on.field('setbackBackLeft')).not.toBeNull();
    await press('[data-round-all]');
    expect(kept().round).toEqual([]);
    expect(on.root.querySelector('[data-round-hint]')).toBeNull();
  });
  test('a table that is round all over is known by its widths: its rounds are asked for on request only', async () => {
    await on.pick('Round table');
    expect(on.field('widthFront').value).toBe('900');
    expect(on.field('setbackFrontLeft')).toBeNull();
    await press('[data-tape-rounds]');
    await on.type(on.field('setbackFrontLeft'), '448');
    // what was taped stays in sight
    expect(on.root.querySelector('[data-tape-rounds]')).toBeNull();
    expect(on.field('setbackFrontLeft').value).toBe('448');
  });
  test('each side says what film does there; a round that is too tight is told with what helps', async () => {
    await on.pick('Waiting table');
    expect(on.root.querySelector('[data-cut-note]')).toBeNull();
    for (const s of ['front', 'right', 'back', 'left']) await side(s, 'return');
    expect(kept('Waiting table').sides).toEqual({ front: 'return', right: 'return', back: 'return', left: 'return' });
    expect(on.root.querySelector('[data-cut-note]')!.textContent).toContain('Give these sides a strip of their own.');
    await side('back', 'wall');
    expect(on.root.querySelectorAll('yp-counter-drawing path[stroke-width="2"]')).toHaveLength(1);
  });
  test('what stands on it has places from its left side and its front; a round thing is said to be one', async () => {
    const holes = () => [...on.root.querySelectorAll<HTMLElement>('[data-hardware]')];
    expect(holes().map((h) => h.getAttribute('aria-label'))).toEqual(['Cable outlet', 'Hand basin', 'Bell']);
    expect(holes()[0]!.textContent).toContain('From the front');
    // electric, then round
    [...holes()[1]!.querySelectorAll<HTMLInputElement>('input[type="checkbox"]')][1]!.click();
    await on.settle();
    expect(kept().hardware[1]).toMatchObject({ what: 'Hand basin', isRound: true });
    on.button('+ Something on it').click();
    await on.settle();
    expect(kept().hardware[3]).toMatchObject({ isRound: true, handling: 'off', widthMm: 80 });
  });
  test('what it is, its direction and its seam are choices of it; in inches it is told in inches', async () => {
    on.button('table top').click();
    await on.settle();
    expect(kept().what).toBe('table');
    await on.choose('grain', 'across');
    await on.choose('seam', 'double-cut');
    await on.choose('seam', 'glued');
    expect(kept()).toMatchObject({ grain: 'across', seam: 'double-cut' });
    on.store.toggleUnits();
    await on.settle();
    expect(on.field('widthFront').value).toMatch(/"$/);
  });
});
