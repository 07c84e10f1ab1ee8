import { defaultCutSettings, newCurvedPane, newPane, type Film, type Reading } from '@yellow-pane/contracts';
import { demoFilms, demoFirm, launchAndShuttle, panesIn } from '@yellow-pane/demo';
import { chordOfArc, chordReadings, surveySurface } from '../form/index.js';
import { mirroredReading } from '../measure/index.js';
import { curvedOf, missingBows, shrinkInputOf } from './curved-pane.js';
import { filmPlanInput } from './film-plan.js';
import { layPiecesOnRolls } from './layout/index.js';
import { movePiece } from './layout/move.js';
import { cutOfSurface } from './cut-of-kind.js';
import { shrinkRequestOf, shrinkSourceOf, type JobRecords } from './job-pieces.js';
import { Memo } from '../ground/index.js';

const file = launchAndShuttle();
const records: JobRecords = { firm: demoFirm, ...file, memo: new Memo() };
const film = file.films[0]!;
const pane = (name: string) => panesIn(file).find((s) => s.name === name)!;
const survey = (s: Parameters<typeof surveySurface>[0]) => surveySurface(s, records).survey;

describe('the piece of a curved pane', () => {
  test('its width lies along the roll and nothing else: tint shrinks that way only (common practice)', () => {
    const { answer, pieces } = cutOfSurface(pane('Rear window'), records, film);
    if ('blocked' in answer) throw new Error(answer.blocked);
    expect(pieces).toHaveLength(1);
    expect(pieces[0]!.turns).toEqual([90, 270]);
    expect(pieces[0]!.why.join(' ')).toContain('Turned by 90° it could not be formed');
    // past the clear glass on every side: wider than its dots leave, less than its outline and room
    expect(pieces[0]!.widthMm).toBeGreaterThan(1320 - 2 * 27 + 26);
    expect(pieces[0]!.heightMm).toBeGreaterThan(561 - 2 * 27 + 50);
  });
  test('a film that gives way to a pull may lie any way; one that must lie upright cannot be formed here at all', () => {
    const soft: Film = { ...film, construction: 'urethane', shrink: { alongPct: 6, acrossPct: 4 } };
    expect(cutOfSurface(pane('Cabin port'), records, soft).pieces[0]!.turns).toEqual([0, 90, 180, 270]);
    const upright = cutOfSurface(pane('Cabin port'), records, { ...film, direction: 'two-way' }).answer;
    expect('blocked' in upright && upright.blocked).toContain('it cannot be both');
  });
  test('nothing is cut for lookout glass, for plastic, or before a level and an upright bow were read', () => {
    const blocked = (s: Parameters<typeof cutOfSurface>[0]) => {
      const { answer } = cutOfSurface(s, records, film);
      return 'blocked' in answer ? answer.blocked : 'a piece';
    };
    expect(blocked(pane('Wheelhouse windscreen'))).toContain('Lookout glass');
    // clear film may be cut: there the authority is asked first
    const lookout = { ...pane('Cabin port'), glazing: pane('Wheelhouse windscreen').glazing };
    const clear = cutOfSurface(lookout, records, { ...film, kind: 'windscreen-protection', mounting: 'outside' }).answer;
    expect([blocked(lookout), 'piece' in clear]).toEqual([expect.stringContaining('Lookout glass'), true]);
    const cabin = pane('Cabin port');
    expect(blocked({ ...cabin, curved: { ...cabin.curved!, stamp: 'plastic' } })).toContain('no heat gun');
    expect(blocked({ ...cabin, curved: { ...cabin.curved!, bows: [] } })).toContain('No bow yet');
    expect(missingBows({ cloud: null, bows: cabin.curved!.bows.filter((b) => b.way === 'across') })).toContain('No upright bow yet');
    expect(missingBows({ cloud: null, bows: cabin.curved!.bows.filter((b) => b.way === 'upright') })).toContain('No level bow yet');
  });
});

test('turned by hand on the roll, tint for curved glass is refused with the reason', () => {
  const { layout: input } = filmPlanInput({ ...records, entries: [] }, defaultCutSettings, film.id, undefined);
  const layout = layPiecesOnRolls(input, 100, 60);
  const moved = movePiece(layout, pane('Cabin port').id, { rollId: input.rolls[0]!.id, dropIndex: null, isTurned: false }, input, new Map());
  expect(moved.ok ? '' : moved.message).toContain('does not fit this roll that way round. Ebb Grey 35 shrinks along the roll only');
});

describe('the window across', () => {
  test('is measured by the other one: heights, diagonals and side bows change places, and back again', () => {
    const r = { measure: 'heightLeft', lengthMm: 481 } as Reading;
    expect(mirroredReading(r).measure).toBe('heightRight');
    expect(mirroredReading(mirroredReading(r))).toEqual(r);
    const [right, left] = [survey(pane('Door glass right')), survey(pane('Door glass left'))];
    expect(left.outline![1]!.x).toBeCloseTo(right.outline![1]!.x, 6);
    // what leans to the left there leans to the right here
    expect(left.outline![3]!.x).toBeCloseTo(right.outline![1]!.x - right.outline![2]!.x, 1);
  });
  test('asks for a piece of the same size, and keeps its own stamp and chip', () => {
    const [a, b] = [pane('Door glass right'), pane('Door glass left')].map((s) => cutOfSurface(s, records, film).pieces[0]!);
    expect([b!.widthMm, b!.heightMm]).toEqual([a!.widthMm, a!.heightMm]);
    const chipped = { ...pane('Door glass left'), curved: newCurvedPane({ isMirror: true, isChipped: true, stamp: 'laminated' }) };
    expect(curvedOf(chipped, records, survey)).toMatchObject({ isChipped: true, stamp: 'laminated' });
  });
});

describe('tapes laid over the glass', () => {
  test('arc 801.3327 over a sagitta of 20 is a chord of 800 (CHECKS)', () => expect(chordOfArc(801.3327, 20)).toBeCloseTo(800, 1));
  test('each width and height is brought to its chord by the bow that lies nearest; bows of the edges stay', () => {
    const { bows } = pane('Rear window').curved!;
    const over = newCurvedPane({ taped: 'over', bows });
    const arcs = [
      { measure: 'widthTop' as const, lengthMm: 1246 },
      { measure: 'heightMiddle' as const, lengthMm: 560 },
      { measure: 'bowTop' as const, lengthMm: 46 },
    ];
    const [top, height, crown] = chordReadings(over, arcs);
    expect(top!.lengthMm).toBeCloseTo(chordOfArc(1246, 55.5), 6);
    expect(height!.lengthMm).toBeCloseTo(chordOfArc(560, 28), 6);
    expect(crown!.lengthMm).toBe(46);
    expect(chordReadings({ ...over, taped: 'chord' }, arcs)).toEqual(arcs);
    // a bow ten times too deep is left out of the plan, and shortens no tape either: the one next to it stands in
    const misread = { ...over, bows: over.bows.map((b) => (b.depthMm === 55.5 ? { ...b, depthMm: 555 } : b)) };
    const nearest = over.bows
      .filter((b) => b.way === 'across' && !b.span && b.depthMm !== 55.5)
      .sort((a, b) => a.atMm - b.atMm)
      .at(-1)!;
    expect(chordReadings(misread, arcs)[0]!.lengthMm).toBeCloseTo(chordOfArc(1246, nearest.depthMm), 6);
  });
});

describe('what a plan is made from', () => {
  test('flat glass has none; a curved pane without an outline says what to do', () => {
    const flat = newPane({ id: pane('Cabin port').id, jobId: file.job.id, placeId: file.places[0]!.id, name: 'F', order: 99 });
    expect(shrinkRequestOf(flat, records, film)).toBeNull();
    const bare = shrinkSourceOf({ ...flat, curved: newCurvedPane() }, { ...records, readings: [] }, film)!;
    expect(shrinkInputOf(bare)).toMatchObject({ blocked: expect.stringContaining('No outline yet') });
  });
  test('films of the same kind that could be taken instead come along; the job’s way comes before the firm’s', () => {
    const asked = shrinkRequestOf(
      pane('Cabin port'),
      { ...records, films: [film, demoFilms.shade, demoFilms.guard], firm: { ...demoFirm, forming: 'tug-and-heat' } },
      film,
    )!;
    if ('blocked' in asked) throw new Error(asked.blocked);
    expect(asked.input.others.map((o) => o.name)).toEqual(['Tern Shade 35']);
    expect(asked.input.firmSchool).toBe('tug-and-heat');
    expect(asked.input.widestRollMm).toBe(1829);
  });
});
