import type { LayRecords } from './lay-records.js';
import { panesIn } from '../../../demo/src/index.js';
import type { Film, Job, LayEntry, StepSet, Pane } from '@yellow-pane/contracts';
import { demoFilms, demoFirm, demoId, launchAndShuttle, lanternStreet, ternPoint } from '../../../demo/src/index.js';
import { cutsForFilm, filmPlanInput } from '../cut/index.js';
import { Memo } from '../ground/index.js';
import { defaultLay } from './default-lay.js';
import { layPaneOf, layProgress, sheetOfSurface, squeegeeOfSurface } from './lay-job.js';
import { shippedSteps } from './shipped-steps.js';

type Visited = LayRecords & { readonly job: Job };
type Edit = (of: Visited) => Visited;
const everyPane =
  (change: (s: Pane) => Partial<Pane>): Edit =>
  (of) => ({ ...of, surfaces: panesIn(of).map((s) => ({ ...s, ...change(s) })) });
const everyCurve = (change: (c: NonNullable<Pane['curved']>) => object): Edit =>
  everyPane((s) => (s.curved ? { curved: { ...s.curved, ...change(s.curved) } } : {}));

/** All that somebody may say of a job and that decides a size, a piece, a plan or a stroke: each kind of it once, for every pane at once. */
const edits: Record<string, Edit> = {
  'tapes are longer': (of) => ({ ...of, readings: of.readings.map((r) => ({ ...r, lengthMm: r.lengthMm + 4 })) }),
  'half of the tapes are withdrawn': (of) => ({ ...of, readings: of.readings.filter((_, i) => i % 2 === 0) }),
  'every tape was laid twice': (of) => ({ ...of, readings: of.readings.flatMap((r, i) => [r, { ...r, id: demoId(70_000 + i), supersedesId: r.id }]) }),
  'panes are called crooked': everyPane((s) => ({ calledCrooked: !s.calledCrooked })),
  'worked from the other side': everyPane((s) => ({ filmFace: s.filmFace === 'room' ? 'street' : 'room' })),
  'shapes are rounder': everyPane((s) => (s.shape && 'radiusMm' in s.shape ? { shape: { ...s.shape, radiusMm: 80 } } : {})),
  'tapes lay over the curve': everyCurve((c) => ({ taped: c.taped === 'over' ? 'chord' : 'over' })),
  'bows are deeper': everyCurve((c) => ({ bows: c.bows.map((b) => ({ ...b, depthMm: b.depthMm + 4 })) })),
  'tapes lay over a deeper curve': everyCurve((c) => ({ taped: 'over' as const, bows: c.bows.map((b) => ({ ...b, depthMm: b.depthMm + 9 })) })),
  'the dots are wider': everyCurve((c) => ({ dotBorderMm: (c.dotBorderMm ?? 0) + 5 })),
  'glass on its belt line': everyCurve((c) => ({ seat: c.seat === 'fixed' ? 'drop' : 'fixed' })),
  'bands stand higher': everyPane((s) => (s.design?.kind === 'bands' ? { design: { ...s.design, bands: s.design.bands.map((b) => ({ bottomMm: b.bottomMm, topMm: b.topMm + 20 })) } } : {})), // prettier-ignore
  'sills are higher': everyPane((s) => (s.exposure ? { exposure: { ...s.exposure, heightAboveFloorMm: 600 } } : {})),
  'another overhang and edge gap': everyPane((s) => ({ allowances: { ...s.allowances, overhangMm: 35, edgeGapMm: 3 } })),
  'a metallised film instead': everyPane((s) => (s.filmId && !s.curved && !s.design ? { filmId: demoFilms.shade.id } : {})),
  'rolls are shorter and narrower': (of) => ({ ...of, rolls: of.rolls.map((r) => ({ ...r, lengthM: r.lengthM / 2, widthMm: Math.min(r.widthMm, 1220) })) }),
  'no pull over 1.5 m': (of) => ({ ...of, job: { ...of.job, cut: { ...of.job.cut!, longestPullMm: 1500 } } }),
  'another school of laying': (of) => ({
    ...of,
    job: { ...of.job, lay: { ...(of.job.lay ?? defaultLay), trim: 'centre', silicone: 'cut-out', edge: 'anchored' } },
  }),
  'the firm has steps of its own': (of) => ({ ...of, stepSets: [{ ...shippedSteps(of.job.firmId), id: demoId(69_000), version: 2, steps: shippedSteps(of.job.firmId).steps.slice(0, 6) }] }), // prettier-ignore
  'faces were felt': (of) => ({ ...of, layEntries: panesIn(of).map((s, i) => ({ id: demoId(68_000 + i), surfaceId: s.id, kind: 'found', found: 'coated', occurredAt: '2026-12-03T09:00:00Z' })) as LayEntry[] }), // prettier-ignore
  'both ways round': (of) => ({ ...of, job: { ...of.job, cut: { ...of.job.cut!, oneDirection: false } } }),
};

/** Everything that is asked of these records, in one heap. */
const answers = (of: Visited) => ({
  cuts: of.films.map((f) => cutsForFilm(of, f.id)),
  plans: of.films.map((f) => filmPlanInput({ ...of, entries: [] }, of.job.cut!, f.id, undefined).hash),
  panes: panesIn(of).map((s) => layPaneOf(s, of)),
  sheets: panesIn(of).map((s) => sheetOfSurface(s, of)),
  progress: [...layProgress(of)],
  strokes: panesIn(of)
    .filter((s) => !s.shape)
    .slice(0, 1)
    .map((s) => squeegeeOfSurface(s, of)),
});

describe.each([
  ['curved glass', launchAndShuttle()],
  ['shaped panes and designs', lanternStreet()],
  ['a harbour', ternPoint()],
])('What was worked out before changes no answer: %s', (_, file) => {
  const films: Film[] = [...file.films, ...(file.films.some((f) => f.id === demoFilms.shade.id) ? [] : [demoFilms.shade])];
  // one pane of each kind is enough
  const kind = (s: Pane) =>
    [
      s.curved?.seat,
      s.curved?.isMirror,
      s.design?.kind,
      s.shape?.kind,
      s.seam?.kind,
      s.filmId,
      s.measuredLikeId !== null,
      file.readings.filter((r) => r.surfaceId === s.id).length > 4,
      s.name === 'Toilet 2',
    ].join();
  const surfaces = panesIn(file).filter(
    (s) => !['marking', 'graded', 'figure'].includes(s.design?.kind ?? '') && s === panesIn(file).find((x) => kind(x) === kind(s)),
  );
  const job: Visited = { ...file, surfaces, firm: demoFirm, films, stepSets: [] as StepSet[], layEntries: [] as LayEntry[], memo: new Memo() };
  const before = JSON.stringify(answers(job));

  const told = Object.entries(edits).filter(([, edit]) => JSON.stringify(edit(job)) !== JSON.stringify(job));
  test.each(told)('%s', (_name, edit) => {
    // this memo has seen the job as it was, and every edit before
    const edited = edit(job);
    expect(JSON.stringify(answers(edited))).toBe(JSON.stringify(answers({ ...edited, memo: new Memo() })));
    expect(JSON.stringify(answers(job))).toBe(before);
  });
});
