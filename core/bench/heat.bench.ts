import { filmHeatOf, groundHeatOf, heatMap, heatPass, lying, planHeat, type HeatCase } from '../src/lay/index.js';
import { blownHalfSpaceC } from '../src/physics/index.js';
import { timed } from './timed.js';

/**
 * Speed of the plan for a hot-air gun on one core: the plan at one distance (goal 50 ms), a chart of four hundred points, and the map of the card with both its bands (goals 1 s; the ends of a band are found by trial, about forty passes).
 * The reference in the same run is the closed form of a thick body under gas, so many times as a plan takes passes.
 */
const temps = { applyMinC: 15, applyMaxC: 25, relaxC: 60, postHeatC: 90, limitC: 70 };
const c: HeatCase = {
  film: filmHeatOf({ construction: 'cast-vinyl', thicknessUm: 180, temps }),
  ground: groundHeatOf({ material: 'wood-board' }),
  gun: { nozzleMm: 34, setC: 538, powerW: 2000 },
  distanceMm: 25,
  airC: 20,
  groundC: 20,
};
const block = { ...c, ground: groundHeatOf({ material: 'concrete' }, { texture: 'medium', jointDepthMm: 6 }) };

timed('reference: closed form, two hundred times', null, 20, (i) => {
  for (let k = 1; k <= 200; k++) blownHalfSpaceC(c.ground.layer, 44, 538, 20 + i, k / 50);
});
timed('one pass over one place', null, 40, (i) => heatPass(c, lying, 20 + i / 10));
timed('plan, film that lies on board', 50, 30, (i) => planHeat({ ...c, airC: 15 + i / 10 }, 'post-heat'));
timed('plan, block wall with joints', 50, 30, (i) => planHeat({ ...block, airC: 15 + i / 10 }, 'faces'));
timed('chart of four hundred points, speed against distance', 1000, 5, (i) => {
  for (let k = 0; k < 400; k++) heatPass({ ...c, airC: 18 + i, distanceMm: 10 + 12 * (k % 20) }, lying, 6 + 6 * Math.floor(k / 20));
});
timed('the map of the card: both bands at fifteen distances', 1000, 5, (i) =>
  heatMap(
    { ...c, airC: 18 + i },
    'post-heat',
    Array.from({ length: 15 }, (_, k) => 10 + 16 * k),
  ),
);
