import type { ComponentFixture } from '@angular/core/testing';
import type { MeshStation, PlannedFinger } from '@yellow-pane/contracts';
import { FlatFilm, type FilmPlace } from './flat-film';
import { fullScale, shrinkRgb } from './shrink-colors';
import { SlackGraph } from './slack-graph';
import { root, show } from './show.testing';

/** The element that a drawing stands in gets this wide. */
let grow: (width: number, height: number) => void;
beforeAll(() => {
  HTMLCanvasElement.prototype.getContext = () => null;
  (globalThis as Record<string, unknown>)['ResizeObserver'] = class {
    constructor(private readonly told: (entries: { contentRect: { width: number; height: number } }[]) => void) {}
    observe() {
      grow = (width, height) => this.told([{ contentRect: { width, height } }]);
    }
    disconnect() {}
  };
});

/** A film 1000 long whose threads lose a share that grows with the square of the way to an edge 250 mm off. */
const mesh = (edgeLoss: number): MeshStation[] =>
  [-500, -250, 0, 250, 500].map((alongMm) => {
    const thread = (sign: 1 | -1) => [0, 125, 250].map((s): [number, number, number, number, number] => [alongMm, sign * s, 0, s, edgeLoss * (s / 250) ** 2]);
    return { alongMm, up: thread(1), down: thread(-1) };
  });

describe('colours of the shrink map', () => {
  /** @source relative luminance, WCAG 2.2 */
  const luminance = (share: number) =>
    shrinkRgb(share)
      .map((v) => (v / 255 <= 0.04045 ? v / 255 / 12.92 : ((v / 255 + 0.055) / 1.055) ** 2.4))
      .reduce((sum, v, i) => sum + [0.2126, 0.7152, 0.0722][i]! * v, 0);
  test('can be told apart without hue: the more has to go the darker, and so on the side where film would have to stretch', () => {
    for (const sign of [1, -1]) {
      const steps = Array.from({ length: 41 }, (_, i) => luminance((sign * i) / 40));
      for (let i = 1; i < steps.length; i++) expect(steps[i]!).toBeLessThan(steps[i - 1]! + 1e-9);
      expect(steps[0]! - steps[40]!).toBeGreaterThan(0.8);
    }
  });
  test('stretching is blue, shrinking is not; beyond the scale it stays as it is at its end', () => {
    const [r, , b] = shrinkRgb(-0.6);
    expect(b).toBeGreaterThan(r);
    expect(shrinkRgb(0.6)[0]).toBeGreaterThan(shrinkRgb(0.6)[2]);
    expect([shrinkRgb(7), shrinkRgb(-7)]).toEqual([shrinkRgb(1), shrinkRgb(-1)]);
  });
  test('on nearly flat glass noise does not fill the scale', () => expect([fullScale(0.0001), fullScale(0.012)]).toEqual([0.002, 0.012]));
});

describe('the graph of both edges', () => {
  const points = (f: ComponentFixture<unknown>, n: number) =>
    root(f)
      .querySelectorAll('polyline')
      [n]!.getAttribute('points')!
      .split(' ')
      .map((p) => p.split(',').map(Number));
  test('more to lose stands higher, and a narrow screen gets a narrow graph with words as large as on a wide one', () => {
    const fixture = show(SlackGraph, { mesh: mesh(0.006) });
    grow(700, 118);
    fixture.detectChanges();
    const wide = points(fixture, 0);
    grow(350, 118);
    fixture.detectChanges();
    const narrow = points(fixture, 0);
    expect(Math.max(...narrow.map(([x]) => x!))).toBeLessThanOrEqual(350);
    expect(narrow.map(([, y]) => y)).toEqual(wide.map(([, y]) => y));
    expect(root(fixture).querySelector('svg')!.getAttribute('viewBox')).toBe('0 0 350 118');
    const [lower, upper] = [...root(fixture).querySelectorAll('g text')].map((t) => Number(t.getAttribute('x')));
    // their words do not run into one another: a letter is no wider than 8 px
    expect(upper! - lower!).toBeGreaterThan('lower edge'.length * 8 + 26);
    const height = (loss: number) => points(show(SlackGraph, { mesh: [...mesh(0.006), { ...mesh(loss)[0]!, alongMm: 600 }] }), 1).at(-1)![1]!;
    expect(height(0.004)).toBeLessThan(height(0.001));
  });
});

describe('the flat film', () => {
  const finger: PlannedFinger = { number: 2, side: 'below', foot: { x: 0, y: 0 }, root: { x: 0, y: 0 }, alongMm: 100, baseMm: 90, lengthMm: 120, slackMm: 1, needFrac: 0.011, foldMm: 6, partOf: 1 }; // prettier-ignore
  const outline = [[-500, -250], [500, -250], [500, 250], [-500, 250]].map(([x, y]) => ({ x: x!, y: y! })); // prettier-ignore
  test('a finger has its number in the order of work and points from its edge to the line', () => {
    const fixture = show(FlatFilm, { mesh: mesh(0.006), outline, fingers: [finger], numbers: new Map([['below2', 7]]), fullFrac: 0.006 });
    grow(600, 400);
    fixture.detectChanges();
    expect(root(fixture).querySelector('text')!.textContent).toBe('7');
    const wedge = [...root(fixture).querySelectorAll('polygon')].at(-1)!.getAttribute('points')!.split(' ').map((p) => p.split(',').map(Number)); // prettier-ignore
    const [left, right, tip] = wedge as [number[], number[], number[]];
    expect(left[1]).toBe(right[1]);
    // up the screen is towards the line
    expect(tip[1]!).toBeLessThan(left[1]!);
    const k = (right[0]! - left[0]!) / 90;
    expect(left[1]! - tip[1]!).toBeCloseTo(120 * k, 0);
  });
  test('arrow keys ask what has to go at a place, thread by thread; off the film the last place stays', () => {
    const fixture = show(FlatFilm, { mesh: mesh(0.006), outline, fullFrac: 0.006 });
    grow(600, 400);
    fixture.detectChanges();
    const told: (FilmPlace | null)[] = [];
    fixture.componentInstance.pointed.subscribe((p) => told.push(p));
    const press = (key: string) => root(fixture).querySelector('svg')!.dispatchEvent(new KeyboardEvent('keydown', { key }));
    press('ArrowUp');
    expect(told.at(-1)).toEqual({ alongMm: 0, fromLineMm: 0, lossFrac: 0 });
    const drawing = root(fixture).querySelector('svg')!;
    drawing.getBoundingClientRect = () => ({ left: 0, top: 0 }) as DOMRect;
    // a pointer at the upper edge, in the middle
    drawing.dispatchEvent(Object.assign(new Event('pointermove'), { clientX: 300, clientY: 200 - 250 * ((600 - 24) / 1000) + 2 }));
    expect(told.at(-1)).toMatchObject({ alongMm: 0, fromLineMm: 250, lossFrac: 0.006 });
    press('ArrowUp');
    expect(told.at(-1)).toMatchObject({ fromLineMm: 250 });
  });
});
