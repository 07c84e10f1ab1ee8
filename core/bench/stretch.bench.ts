import { planCorrugation, planDome, planRecess, recessBy, tackedDome } from '../src/form/index.js';
import { jointGraph, planJoints, replayJoints, usualReach, type JointedPanel } from '../src/lay/index.js';
import { judgeDome, type Ribs } from '../src/measure/index.js';
import { timed } from './timed.js';

/**
 * Speed of what film that gives is reckoned by, on one core: the first answer for a recess (goal 2 s; the rest follows while it is read), a dome, ribs; and of the order in which
 * joints of a wall are pressed (goals: 10 × 3 m 1 s, 30 × 4 m 5 s, replay 50 ms). The reference in the same run is the same recess without a depth: a sheet that is at rest at once.
 */
const recess = { acrossMm: 560, upMm: 980, depthMm: 14, slopeMm: 10, cornerMm: 30 };
timed('reference: the same mesh with nothing to find', null, 5, () => recessBy({ ...recess, depthMm: 0.001 }, 'bridged'));
timed('recess of a door, first answer', 2000, 5, () => planRecess(recess, 0.3).next());
timed('recess of a door, every order and the finer mesh', null, 2, () => {
  const run = planRecess(recess, 0.3);
  while (!run.next().done);
});
const lid = judgeDome({ acrossBowMm: 50, upBowMm: 40 }, { widthMm: 600, heightMm: 450 }).dome;
timed('dome: laid, drawn on, tacked round first', 2000, 5, () => [planDome(lid, 0.3), tackedDome(lid)]);
const ribs: Ribs = { form: 'wave', pitchMm: 76, depthMm: 18, crestMm: 0, valleyMm: 0, bendMm: 0 };
timed('ribs', 50, 20, () => planCorrugation(ribs, 0.3));

const wall = (widthMm: number, heightMm: number): JointedPanel => ({
  masonry: { unit: 'block', pitchAcrossMm: 400, pitchUpMm: 200, jointMm: 10, jointDepthMm: 4, bond: 'running', firstBedMm: 200, firstHeadMm: 400, texture: 'medium', courses: null, unitsInFirstCourse: null },
  wall: { widthMm, heightMm },
  panel: { leftMm: 0, rightMm: widthMm, footMm: 0, topMm: heightMm },
  borders: { left: 'free', right: 'free', foot: 'closed', top: 'closed' },
  obstacles: [{ leftMm: 3000, footMm: 300, widthMm: 120, heightMm: 120, isOpen: false }],
}); // prettier-ignore
timed('joints of 10 × 3 m', 1000, 5, () => planJoints(jointGraph(wall(10_000, 3000))));
timed('joints of 30 × 4 m', 5000, 3, () => planJoints(jointGraph(wall(30_000, 4000))));
const long = jointGraph(wall(30_000, 4000));
const { strokes } = planJoints(long);
/** Course by course from left to right over the whole wall, as one would who has no plan: from the right end back each time, and up and down as the courses come. */
const sweepMm = (widthMm: number, heightMm: number): number => (2 * Math.ceil(heightMm / 200) - 1) * (widthMm - usualReach.acrossMm);
for (const [w, h] of [[10_000, 3000], [30_000, 4000]] as const) {
  const { walkMm, leastWalkMm, climbs } = planJoints(jointGraph(wall(w, h)));
  console.log(`walking ${w / 1000} × ${h / 1000} m: plan ${(walkMm / 1000).toFixed(1)} m and ${climbs} up or down, bound ${(leastWalkMm / 1000).toFixed(1)} m, courses from left to right ${(sweepMm(w, h) / 1000).toFixed(0)} m`);
} // prettier-ignore
timed(`replay of ${strokes.length} strokes`, 50, 20, () => replayJoints(long, strokes));
