import type { PaneZone, ZoneKind } from '@yellow-pane/contracts';
import fc from 'fast-check';
import { dishOver, idOf, inputOf, readBows, sheet } from './curved-panes.testing.js';
import { edgeLosses, FINGER, fingersAlong, LIES_DOWN_FRAC } from './fingers.js';
import { barringBoxes, keptBox, LED_MM, minding } from './keep-clear.js';
import { shrinkField } from './shrink-field.js';
import { shrinkPlan } from './shrink-plan.js';
import { dishByBows, heightSurface } from './surface.js';

const [w, h] = [1200, 560];
const outline = sheet(w, h);
const dish = dishByBows(w, -60, h, -14);
const surface = heightSurface((x, y) => dish.height!(x - w / 2, y - h / 2));
const { stations } = shrinkField(surface, outline, { through: { u: w / 2, v: h / 2 }, way: { du: 1, dv: 0 } }, { stepMm: 20 });
const zone = (kind: ZoneKind, leftMm: number, lowMm: number, widthMm: number, heightMm: number): PaneZone => ({
  id: idOf(77),
  kind,
  leftMm,
  lowMm,
  widthMm,
  heightMm,
});
const boxesOf = (...zones: PaneZone[]) => barringBoxes({ zones, seat: 'fixed' });
const sumOf = (places: readonly { alongMm: number; lossFrac: number }[]) =>
  places.slice(1).reduce((s, p, i) => s + ((p.lossFrac + places[i]!.lossFrac) / 2) * (p.alongMm - places[i]!.alongMm), 0);

describe('film led past what heat has to keep away from', () => {
  test('wherever a zone lies and however wide it is: what has to go along the edge is the same, only elsewhere', () =>
    fc.assert(
      fc.property(
        fc.integer({ min: -100, max: 1250 }),
        fc.integer({ min: 10, max: 500 }),
        fc.constantFrom('above' as const, 'below' as const),
        (left, wide, side) => {
          const boxes = boxesOf(zone('sensor', left, side === 'above' ? h - 40 : 0, wide, 40));
          const [plain, led] = [edgeLosses(stations, side).places, edgeLosses(stations, side, boxes)];
          expect(sumOf(led.places)).toBeCloseTo(sumOf(plain), 9);
          const aside = led.led.reduce((s, l) => s + l.ledMm + l.stuckMm, 0);
          const before = led.places.filter((p) => p.barred.length > 0).length;
          expect(aside > 0).toBe(before > 0);
        },
      ),
      { numRuns: 60 },
    ));
  test('no foot of a finger comes nearer to a zone than its heat may (an airbag in the lower edge, 50 mm)', () => {
    const airbag = zone('airbag', 560, -10, 80, 50);
    const [plain, clear] = [fingersAlong(stations, 'below', 0.02), fingersAlong(stations, 'below', 0.02, boxesOf(airbag))];
    const { minX, maxX } = keptBox(airbag);
    expect([minX, maxX]).toEqual([510, 690]);
    const touches = (f: { foot: { u: number } }) => f.foot.u + FINGER.baseMm / 2 > minX + 3 && f.foot.u - FINGER.baseMm / 2 < maxX - 3;
    expect(plain.some(touches)).toBe(true);
    expect(clear.some(touches)).toBe(false);
    // and what they shrink together is what was there before
    const total = (list: typeof plain) => list.reduce((s, f) => s + f.slackMm, 0);
    expect(total(clear)).toBeCloseTo(total(plain), 1);
    expect(fingersAlong(stations, 'above', 0.02, boxesOf(airbag))).toEqual(fingersAlong(stations, 'above', 0.02));
  });
  test('a zone near the line, where film has nothing to lose, is in nobody’s way', () => {
    const boxes = boxesOf(zone('sensor', 500, 260, 120, 40));
    expect(edgeLosses(stations, 'below', boxes).led).toEqual([]);
  });
  test('film goes past by as much as it is gathered anyway; a wider zone leaves some that has no way round', () => {
    const { led, places } = edgeLosses(stations, 'below', boxesOf(zone('sensor', 350, -20, 500, 60)));
    expect(led).toHaveLength(1);
    expect(led[0]!.ledMm).toBeGreaterThan(0.5);
    expect(led[0]!.stuckMm).toBeGreaterThan(0.5);
    const stuck = places.filter((p) => p.barred.length > 0 && p.lossFrac > LIES_DOWN_FRAC);
    expect(stuck.every((p) => p.alongMm - led[0]!.fromMm > LED_MM && led[0]!.toMm - p.alongMm > LED_MM)).toBe(true);
    // none of the fingers stands there either
    expect(fingersAlong(stations, 'below', 0.02, boxesOf(zone('sensor', 350, -20, 500, 60))).some((f) => f.foot.u > 320 && f.foot.u < 880)).toBe(false);
  });
  test('a seal is shielded, an aerial minds no heat: neither keeps a finger away (common practice)', () => {
    expect(boxesOf(zone('seal', 0, 0, w, 20), zone('antenna', 0, 0, w, 20))).toEqual([]);
    expect(minding.seal.what).toContain('shield');
  });
  test('film of drop glass is formed higher up than it will lie: a zone meets it so much lower', () => {
    const [fixed] = barringBoxes({ zones: [zone('airbag', 0, 100, 60, 60)], seat: 'fixed' });
    const [drop] = barringBoxes({ zones: [zone('airbag', 0, 100, 60, 60)], seat: 'drop' });
    expect(fixed!.minY - drop!.minY).toBe(38);
  });
});

describe('what the plan says of zones', () => {
  const bows = readBows(outline, dishOver(w, h, 60, 14));
  const planWith = (...zones: PaneZone[]) => shrinkPlan(inputOf(outline, { bows, zones }));
  test('which zone, how far heat stays away, how much film is led past it and to which fingers', () => {
    const plan = planWith(zone('brake-light', 520, 500, 160, 40));
    const [light] = plan.keepClear;
    expect(light).toMatchObject({ kind: 'brake-light', name: 'Brake light', heatMm: 20, stuckMm: 0 });
    expect(light!.ledMm).toBeGreaterThan(0.3);
    expect(light!.beside.length).toBeGreaterThanOrEqual(1);
    expect(light!.text).toMatch(/Heat stays 20 mm away\. \d\.\d mm of film is led past it to fingers? [\d, and]+\./);
    expect(plan.cautions).toContain(light!.text);
    expect(plan.summary.join(' ')).toContain('Fingers stand clear of the brake light: film led past has to lose more beside it than the map shows.');
    expect(planWith().summary.join(' ')).not.toContain('stand clear');
    // the fingers told of are those beside it in the order of work
    for (const n of light!.beside) {
      const at = plan.order[n - 1]!;
      const finger = plan[at.side].fingers.find((f) => f.number === at.number)!;
      expect(finger.side).toBe('above');
      expect(finger.foot.x < 500 || finger.foot.x > 700).toBe(true);
    }
    // drawn on the pane and on the flat film, with the room round it
    expect(Math.min(...light!.ring.map((p) => p[0]))).toBeCloseTo(500, 0);
    expect(Math.max(...light!.ring.map((p) => p[1]))).toBeCloseTo(560, 0);
    expect(light!.flatRing.length).toBeGreaterThan(4);
  });
  test('two zones side by side bar one stretch: of both it is said that film goes past them together', () => {
    const plan = planWith(zone('brake-light', 520, 500, 80, 40), { ...zone('sensor', 610, 500, 60, 40), id: idOf(78) });
    const [light, sensor] = plan.keepClear;
    expect(light!.ledMm).toBeGreaterThan(0.3);
    expect(sensor!.ledMm).toBe(light!.ledMm);
    expect(sensor!.beside).toEqual(light!.beside);
    expect(light!.text).toMatch(/is led past it and the sensor to fingers?/);
    expect(sensor!.text).toMatch(/is led past it and the brake light to fingers?/);
    expect(plan.summary.join(' ')).toContain('clear of the brake light and the sensor');
  });
  test('a stretch that heat may not touch and that film cannot get round is beyond this film, and the advice says what helps', () => {
    const plan = planWith(zone('sensor', 300, -20, 600, 60));
    expect(plan.grade).toBe('beyond');
    expect(plan.advice.join(' ')).toContain('has no way round it. Another line, a seam there, or film that ends before it.');
    expect(planWith().grade).not.toBe('beyond');
  });
});
