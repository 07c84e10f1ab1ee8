import { panesIn } from '../../demo/src/index.js';
import { defaultChooseSettings, type VerdictInput } from '@yellow-pane/contracts';
import { demoLibrary, ternPoint } from '../../demo/src/index.js';
import { judgeChosen, judgeFilm, judgePane, preparePane } from '../src/choose/index.js';
import { Memo } from '../src/ground/index.js';
import { timed } from './timed.js';

/**
 * Speed of the verdict on one core: all films on one pane (goal 200 ms), one film (goal 20 ms), 300 panes with one film each.
 * The reference in the same run is the bare pane alone: what the walk round the year costs without any film.
 */
const surfaces = panesIn(ternPoint()).filter((s) => s.glazing);
const inputOf = (i: number): VerdictInput => {
  const s = surfaces[i % surfaces.length]!;
  // every pane another size, so that no facade year is kept from the one before
  const size = { widthMm: 600 + i, heightMm: 900 + 2 * i };
  return {
    glazing: s.glazing!,
    exposure: s.exposure!,
    filmFace: 'as-made',
    ...size,
    revealMm: 40,
    latDeg: 38.6,
    lonDeg: -9.1,
    zoneMinutes: 60,
    year: 2026,
    settings: defaultChooseSettings,
  };
};

timed('reference: the bare pane', null, 40, (i) => preparePane(inputOf(i)));
timed(`all ${demoLibrary.length} films on one pane`, 200, 40, (i) => judgePane(inputOf(100 + i), demoLibrary));
const prepared = preparePane(inputOf(0));
timed('one film more on a pane already walked round', 20, 60, (i) => judgeFilm(prepared, demoLibrary[i % demoLibrary.length]!));
const start = performance.now();
for (let i = 0; i < 300; i++) judgePane(inputOf(1000 + i), [demoLibrary[i % demoLibrary.length]!]);
console.log(`a job of 300 panes, one film each${' '.repeat(12)} ${((performance.now() - start) / 1000).toFixed(2)} s in all`);
const memo = new Memo();
const again = performance.now();
for (let i = 0; i < 300; i++) judgeChosen({ id: String(i), input: inputOf(2000 + (i % 32)), film: demoLibrary[i % 2]! }, memo);
console.log(`the same job with 32 different panes in it${' '.repeat(3)} ${((performance.now() - again) / 1000).toFixed(2)} s in all (goal 2 s)`);
