import { panesIn } from '../../../../../../demo/src/index';
import type { ShrinkPlan, StepDrawing } from '@yellow-pane/contracts';
import { shrinkRequestOf, Memo } from '@yellow-pane/core';
import { shrinkPlan } from '@yellow-pane/core/form';
import { demoFirm, launchAndShuttle } from '../../../../../../demo/src/index';
import { root, show } from '../../../kit/show.testing';
import { FormingDrawing } from './forming-drawing';

let plan: ShrinkPlan;
beforeAll(() => {
  const van = launchAndShuttle();
  const rear = panesIn(van).find((s) => s.name === 'Rear window')!;
  const asked = shrinkRequestOf(
    rear,
    { ...van, firm: demoFirm, memo: new Memo() },
    van.films.find((f) => f.id === rear.filmId)!,
  )!;
  if ('blocked' in asked) throw new Error(asked.blocked);
  plan = shrinkPlan(asked.input);
});
const drawn = (drawing: StepDrawing, more: Record<string, unknown> = {}): HTMLElement => root(show(FormingDrawing, { plan, drawing, units: 'mm', ...more }));
const words = (e: HTMLElement) =>
  [...e.querySelectorAll('text')].map((t) => ({ text: t.textContent.trim(), x: Number(t.getAttribute('x')), y: Number(t.getAttribute('y')) }));
const at = (e: HTMLElement, text: string) => words(e).find((t) => t.text === text)!;

describe('the rear window in hand', () => {
  test('where the line goes: three heights over the lower corners, wholly inside the drawing', () => {
    const e = drawn('anchor-line');
    const heights = words(e).filter((t) => /^\d+ mm$/.test(t.text));
    expect(heights.map((t) => t.text)).toEqual([plan.anchor.leftMm, plan.anchor.middleMm, plan.anchor.rightMm].map((mm) => `${Math.round(mm)} mm`));
    const width = Number(e.querySelector('svg')!.getAttribute('viewBox')!.split(' ')[2]);
    // the left one ends at its x, the right one begins there; a figure at 15 px is no wider than 9 px
    expect(heights[0]!.x - 9 * heights[0]!.text.length).toBeGreaterThanOrEqual(0);
    expect(heights[2]!.x + 9 * heights[2]!.text.length).toBeLessThanOrEqual(width);
  });
  test('fingers have their numbers in the order of work, and places for no heat are named', () => {
    const e = drawn('forming');
    expect(words(e).flatMap((t) => (/^\d+$/.test(t.text) ? [Number(t.text)] : [])).sort((a, b) => a - b)).toEqual(plan.order.map((_, i) => i + 1)); // prettier-ignore
    expect(words(e).filter((t) => t.text === 'no heat')).toHaveLength(plan.keepClear.filter((z) => z.heatMm !== null).length);
    // circles of two fingers do not lie over one another by more than a rim
    const circles = [...e.querySelectorAll('circle')].map((c) => [Number(c.getAttribute('cx')), Number(c.getAttribute('cy'))] as const);
    circles.forEach((a, i) => circles.slice(i + 1).forEach((b) => expect(Math.hypot(a[0] - b[0], a[1] - b[1])).toBeGreaterThan(17)));
  });
  test('the first quarter is at the left of whoever works, whichever way round the pane is drawn', () => {
    for (const mirrored of [false, true]) {
      const e = drawn('quarters', { mirrored });
      expect(at(e, '1').x).toBeLessThan(at(e, '2').x);
      expect(at(e, '3').x).toBeLessThan(at(e, '4').x);
      expect(at(e, '1').y).toBeLessThan(at(e, '3').y);
    }
  });
  test('a stroke is drawn where it goes, mirrored with the pane; those along an edge are only hinted at', () => {
    const strokes = [
      { path: [{ x: 600, y: 200 }, { x: 100, y: 200 }], isLane: true },
      { path: [{ x: 100, y: 20 }, { x: 1100, y: 20 }], isLane: false },
    ]; // prettier-ignore
    const end = (mirrored: boolean) => {
      const e = drawn('quarters', { strokes, mirrored });
      const dots = [...e.querySelectorAll('circle')].filter((c) => c.getAttribute('r') === '3');
      expect(dots).toHaveLength(1);
      expect(e.querySelectorAll('path[stroke-dasharray]')).toHaveLength(1);
      return Number(dots[0]!.getAttribute('cx'));
    };
    expect(end(false)).toBeLessThan(180);
    expect(end(true)).toBeCloseTo(360 - end(false), 0);
  });
});
