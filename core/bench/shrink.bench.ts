import { panesIn } from '../../demo/src/index.js';
import { launchAndShuttle } from '../../demo/src/index.js';
import { demoFirm } from '../../demo/src/firm.js';
import { shrinkRequestOf } from '../src/cut/index.js';
import { dishOver, strewn } from '../src/form/curved-panes.testing.js';
import { dishByBows, formedPane, heightSurface, meshOf, placeCloud, practicePane, shrinkField, shrinkPlan, tryLine } from '../src/form/index.js';
import { Memo } from '../src/ground/index.js';
import { timed } from './timed.js';

/**
 * Speed of the shrink plan on one core: from bows (goal 300 ms; also the first one of a process that has practised, as the pages' worker does), from a cloud of 50 000 points (goal 3 s, placing and plan together), one step of a dragged line
 * (goal 33 ms, thirty a second). The reference in the same run is one field of threads on a plain dish of the same size.
 */
const file = launchAndShuttle();
const records = { firm: demoFirm, ...file, memo: new Memo() };
const rear = shrinkRequestOf(panesIn(file)[0]!, records, file.films[0]!)!;
if ('blocked' in rear) throw new Error(rear.blocked);
const { input } = rear;

// what the pages' worker does before anybody asks
for (let round = 0; round < 3; round++) timed(`practice, round ${round + 1}`, null, 1, () => shrinkPlan(practicePane(round)));
const dish = dishByBows(1320, -60, 560, -20);
const plain = heightSurface((x, y) => dish.height!(x - 660, y - 280));
timed('reference: one field of threads on a plain dish', null, 20, () =>
  shrinkField(plain, input.outline, { through: { u: 660, v: 280 }, way: { du: 1, dv: 0 } }, { stepMm: 20 }),
);
// another gap each time, so that nothing is kept from the one before
timed('plan of the rear window from eleven bows', 300, 15, (i) => shrinkPlan({ ...input, edgeGapMm: 1.5 + i * 1e-6 }));
const points = strewn(1320, 560, dishOver(1320, 560, 62, 12), { count: 50_000 });
timed('50 000 points brought to their plane, thinned, planned', 3000, 4, (i) => {
  const cloud = placeCloud(points, `run-${i}`, 'mm');
  if (!cloud.ok) throw new Error(cloud.message);
  return shrinkPlan({ ...input, curved: { ...input.curved, cloud: cloud.value } });
});
const pane = formedPane(input);
timed('one step of a dragged line, with its map', 33, 60, (i) => {
  const { field } = tryLine(pane, { curved: { ...input.curved, anchor: { kind: 'through', leftMm: 200 + i, rightMm: 210 + i } }, stepMm: 30 });
  return meshOf(pane.fit, field);
});
