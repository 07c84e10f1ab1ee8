import type { Piece } from '@yellow-pane/contracts';
import { boundLayout } from '../src/cut/layout/bound.js';
import { checkLayout } from '../src/cut/layout/check-layout.js';
import { deepDissection, dissection, jobOfRepeatedSizes, plainSettings, testRoll, type Dissected } from '../src/cut/layout/instances.testing.js';
import { LayoutPlanner } from '../src/cut/layout/index.js';
import { benchFor, groupPieces } from '../src/cut/layout/model.js';
import { surveyOpening } from '../src/measure/index.js';
import { maxRects, shelf } from './references.js';

/**
 * Speed and goodness of the layout, against references run in the same breath on one core. Allowances 0.
 * `npm run bench` runs 1 s per instance; `npm run bench -- 10` runs 10 s.
 */
const seconds = Number(process.argv[2] ?? 1);
const mean = (v: number[]) => v.reduce((s, x) => s + x, 0) / v.length;
const f = (v: number) => v.toFixed(4);

function timed(
  pieces: readonly Piece[],
  widthMm: number,
  seed: number,
  settings = plainSettings,
): { usedMm: number; firstMs: number; worstStepMs: number; faults: number } {
  const rolls = [testRoll(widthMm)];
  const start = performance.now();
  const planner = new LayoutPlanner({ filmId: pieces[0]!.filmId, rolls, pieces, settings, seed });
  planner.result();
  const firstMs = performance.now() - start;
  let worstStepMs = 0;
  while (performance.now() - start < seconds * 1000 && !planner.isDone) {
    const at = performance.now();
    planner.step();
    worstStepMs = Math.max(worstStepMs, performance.now() - at);
  }
  const layout = planner.result();
  return { usedMm: layout.usedMm, firstMs, worstStepMs, faults: checkLayout(layout, { pieces, rolls, settings }).length };
}

function repeatedSizes(): void {
  console.log(`\nJobs of 100 pieces in repeated sizes, ${seconds} s each, three seeds; ratios to the bound`);
  console.log('instance  roll   ours(mean)  ours(worst)  maxrects  shelf');
  const ours: number[] = [];
  const theirs: number[] = [];
  const shelves: number[] = [];
  for (let i = 0; i < 15; i++) {
    const widthMm = [1524, 1829, 1220][i % 3]!;
    const pieces = jobOfRepeatedSizes(500 + i, widthMm);
    const types = groupPieces(pieces, plainSettings);
    const bound =
      boundLayout(
        types,
        types.map((t) => t.pieces.length),
        [{ bench: benchFor(widthMm, plainSettings), costPerGrain: 1 }],
        100,
      ).cost / 320;
    const runs = [1, 2, 3].map((seed) => timed(pieces, widthMm, seed));
    if (runs.some((r) => r.faults > 0)) throw new Error('A plan does not pass the check.');
    const ratios = runs.map((r) => r.usedMm / bound);
    ours.push(...ratios);
    theirs.push(maxRects(pieces, widthMm) / bound);
    shelves.push(shelf(pieces, widthMm) / bound);
    console.log(`${String(i).padStart(8)}  ${widthMm}  ${f(mean(ratios))}      ${f(Math.max(...ratios))}       ${f(theirs.at(-1)!)}    ${f(shelves.at(-1)!)}`);
  }
  const [goalMean, goalWorst] = seconds >= 10 ? [1.004, 1.015] : [1.008, 1.03];
  console.log(
    `mean ${f(mean(ours))} (goal ${goalMean}), worst ${f(Math.max(...ours))} (goal ${goalWorst}); maxrects ${f(mean(theirs))}, shelf ${f(mean(shelves))}`,
  );
}

/** One family of dissections: sizes of instance, three seeds each. */
function family(name: string, sizes: readonly number[], make: (seed: number, count: number) => Dissected, stages: 3 | 4 = 3): void {
  const ratios: number[] = [];
  const firsts: number[] = [];
  let worstStepMs = 0;
  for (const n of sizes)
    for (const seed of [1, 2, 3]) {
      const { pieces, optimumMm } = make(seed * 100 + n, n);
      const run = timed(pieces, 1524, seed, { ...plainSettings, stages });
      if (run.faults > 0) throw new Error('A plan does not pass the check.');
      ratios.push(run.usedMm / optimumMm);
      firsts.push(run.firstMs);
      worstStepMs = Math.max(worstStepMs, run.worstStepMs);
    }
  console.log(
    `${name.padEnd(52)} mean ${f(mean(ratios))}  worst ${f(Math.max(...ratios))}  first answer at most ${Math.max(...firsts).toFixed(0)} ms  worst step ${worstStepMs.toFixed(0)} ms`,
  );
}

function dissections(): void {
  console.log(`\nGuillotine-made dissections with known optimum, ${seconds} s each; ratios to the optimum`);
  const plain = (seed: number, n: number) => dissection(seed, 1524, n);
  family('n ≤ 10', [6, 8, 10], plain);
  family('n ≤ 40', [20, 30, 40], plain);
  family('n 80–300', [80, 150, 300], plain);
  family('equal pieces repeated, n 40–160', [40, 160], (seed, n) => dissection(seed, 1524, n, { repeats: 4 }));
  family('no rotation, n 40–160', [40, 160], (seed, n) => dissection(seed, 1524, n, { isFixed: true }));
  family('factory edges here and there, n 40–160', [40, 160], (seed, n) => dissection(seed, 1524, n, { hasEdges: true }));
  family('two stages, n 40–160', [40, 160], (seed, n) => deepDissection(seed, 1524, n, 2));
  family('four stages, cut with four, n 40–160', [40, 160], (seed, n) => deepDissection(seed, 1524, n, 4), 4);
  for (const stages of [5, 7])
    family(`${stages} stages, of which four are cut here, n 40–160`, [40, 160], (seed, n) => deepDissection(seed, 1524, n, stages), 4);
}

function survey(): void {
  const readings = Object.entries({
    widthTop: 612,
    widthMiddle: 605,
    widthBottom: 619,
    heightLeft: 669,
    heightMiddle: 668,
    heightRight: 668,
    diagonalDown: 903,
    diagonalUp: 900,
  }).map(([measure, lengthMm]) => ({ measure: measure as 'widthTop', lengthMm }));
  const times = Array.from({ length: 15 }, () => {
    const start = performance.now();
    surveyOpening(readings);
    return performance.now() - start;
  }).sort((a, b) => a - b);
  console.log(`\nA doubtful survey of eight tapes, all explanations weighed: median ${times[7]!.toFixed(1)} ms`);
}

/** Rolls of different width and length, a tube of leftovers, two lots; against the proven bound. */
function overSources(): void {
  console.log(`\nThree rolls and a dozen leftovers, two lots, film and minutes together, ${seconds} s each; ratios of film cost to the bound`);
  const ratios: number[] = [];
  for (const count of [40, 100, 300])
    for (const seed of [1, 2]) {
      const pieces = jobOfRepeatedSizes(900 + count + seed, 1524, count).map((p, i) => ({ ...p, meets: i % 3 ? `g${Math.floor(i / 12)}` : null }));
      const area = pieces.reduce((s, p) => s + p.widthMm * p.heightMm, 0) / 1524 / 1000;
      const roll = (n: number, widthMm: number, metres: number, pricePerM: number, lot: string) => ({
        ...testRoll(widthMm, metres),
        id: `${testRoll(1).id.slice(0, -4)}${String(1000 + n)}`,
        pricePerM,
        lot,
      });
      const rolls = [
        roll(1, 1524, area * 0.9, 13.6, 'A'),
        roll(2, 1524, area * 0.5, 13.6, 'B'),
        roll(3, 1829, area * 0.4, 16.3, 'A'),
        ...Array.from({ length: 12 }, (_, i) => roll(10 + i, 420 + 60 * i, 0.9 + 0.12 * i, 1.5 + 0.22 * i, i % 2 ? 'A' : 'B')),
      ];
      const input = { filmId: pieces[0]!.filmId, rolls, pieces, settings: plainSettings, seed, cutPrice: 0.8 };
      const start = performance.now();
      const planner = new LayoutPlanner(input);
      planner.result();
      const firstMs = performance.now() - start;
      let worstStepMs = 0;
      while (performance.now() - start < seconds * 1000 + firstMs && !planner.isDone) {
        const at = performance.now();
        planner.step();
        worstStepMs = Math.max(worstStepMs, performance.now() - at);
      }
      planner.computeBound(60);
      const layout = planner.result();
      if (checkLayout(layout, { pieces, rolls, settings: plainSettings }).length > 0) throw new Error('A plan does not pass the check.');
      const ratio = layout.boundCost ? layout.cost / layout.boundCost : NaN;
      ratios.push(ratio);
      console.log(
        `${String(count).padStart(4)} pieces  first ${firstMs.toFixed(0)} ms  worst step ${worstStepMs.toFixed(0)} ms  ${f(ratio)}  ${layout.cutCount} cuts  unplaced ${layout.unplaced.length}`,
      );
    }
  console.log(`mean ${f(mean(ratios))}; first answer for 300 pieces under 2000 ms is the goal`);
}

survey();
repeatedSizes();
overSources();
dissections();
