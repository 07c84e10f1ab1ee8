import type { PinKind, PinSpread } from '@yellow-pane/contracts';
import { diagnose, tableOf, type DiagnosisAsked } from './diagnosis.js';
import { kindsOf, pinNamesOf } from './words.js';

const table = tableOf('dry');
const of = (kind: PinKind, spread: PinSpread = 'one', answers: Record<string, string> = {}, more: Partial<DiagnosisAsked> = {}) =>
  diagnose({ patient: 'dry', kind, spread, answers, facts: [], clearOdds: null, isFresh: false, ...more });
const top = (...asked: Parameters<typeof of>) => {
  const d = of(...asked);
  return [d.likely[0]!.cause.key, d.mend.kind];
};

describe('what is seen on film that was laid dry', () => {
  // common practice: what is seen, the likely cause, what to do
  test.each<[string, PinKind, PinSpread, Record<string, string>, string, string]>([
    ['many small bubbles over a field a day later in the sun: pressure too soft', 'bubble-field', 'field', {}, 'soft', 'mend'],
    ['patches of bubbles with no line pattern: laid by hand only', 'bubble-field', 'field', { pattern: 'no', heat: 'yes', bigger: 'no' }, 'hand-only', 'mend'],
    ['one straight squiggly line of bubbles: strokes did not overlap', 'bubble-line', 'line', { 'in-joint': 'no' }, 'no-overlap', 'mend'],
    ['film lifts out of recesses and edges: no or too cool post-heat', 'edge-up', 'edge', { formed: 'yes', 'on-film': 'no' }, 'not-heated', 'mend'],
    ['specks, hairs, lint: contamination', 'speck', 'one', { hard: 'yes' }, 'dirt', 'judge'],
    ['crease: film kinked', 'crease', 'one', {}, 'kink', 'replace'],
    ['long thin straight air line in a joint: closed before its crossings', 'bubble-line', 'line', { 'in-joint': 'yes' }, 'joint', 'mend'],
    ['tight lines in formed film: overheated', 'fine-lines', 'one', {}, 'overheated', 'replace'],
    ['white haze at rough tops only: not softened into the texture', 'haze', 'field', {}, 'not-softened', 'mend'],
    ['a lap that lifts: promoter', 'edge-up', 'edge', { 'on-film': 'yes', formed: 'no' }, 'no-promoter', 'mend'],
    ['paint on its glue: the ground lets go', 'edge-up', 'edge', { glue: 'ground' }, 'lets-go', 'stop'],
    ['wet behind it: damp', 'bubble-field', 'field', { glue: 'wet' }, 'damp', 'stop'],
    ['on the photos of before: the ground', 'streak', 'one', { before: 'yes' }, 'ground-shows', 'judge'],
    ['it comes again along the roll: a fault of the film', 'streak', 'line', { again: 'yes' }, 'film-fault', 'stop'],
    ['it wipes off', 'haze', 'one', { wipes: 'yes' }, 'on-top', 'wipe'],
    ['a cut', 'crack', 'line', {}, 'cut-through', 'replace'],
    ['a scratch', 'scratch', 'one', { before: 'no' }, 'scratched', 'judge'],
  ])('%s', (_, kind, spread, answers, cause, mend) => expect(top(kind, spread, answers)).toEqual([cause, mend]));

  test('wet film and dry film are different patients: here it is pricked and heated, and nobody waits for water', () => {
    expect(of('bubble-field', 'field').mend.text).toContain('pricked');
    expect(table.causes.some((c) => c.fresh.kind === 'wait' || c.set.kind === 'wait')).toBe(false);
    expect(table.causes.map((c) => c.key)).not.toContain('drying');
  });
  test('wherever there is a gun, what it can do harm to is said', () => {
    for (const c of table.causes)
      for (const m of [c.fresh, c.set]) if (/heat|warm/i.test(m.text) && m.kind === 'mend') expect(m.caution).toMatch(/Hot: gloves|flame/);
  });
  test('while it is fresh a speck is peeled back to; after that it is judged', () => {
    expect(of('speck', 'one', { hard: 'yes' }, { isFresh: true }).mend.kind).toBe('mend');
    expect(of('speck', 'one', { hard: 'yes' }).mend.kind).toBe('judge');
  });
  test('what cannot be is not claimed: no joints on a smooth door, no creeping out of grooves where there are none', () => {
    const every = (facts: string[]) => kindsOf('dry').flatMap((k) => of(k, 'line', {}, { facts }).likely.map((l) => l.cause.key));
    expect(every([])).toEqual(expect.arrayContaining(['joint', 'not-heated']));
    expect(every(['smooth', 'flat'])).not.toEqual(expect.arrayContaining(['joint']));
    expect(every(['smooth', 'flat'])).not.toEqual(expect.arrayContaining(['not-heated']));
  });
  test.each<[string, PinKind, PinSpread, string, string]>([
    ['the log', 'edge-up', 'edge', 'not-post-heated', 'not-heated'],
    ['the log', 'edge-up', 'edge', 'promoter-left-out', 'no-promoter'],
    ['the survey', 'edge-up', 'edge', 'ground-loose', 'lets-go'],
    ['the survey', 'bubble-field', 'field', 'ground-damp', 'damp'],
  ])('what %s says counts: %s, %s, %s makes %s likelier', (_, kind, spread, fact, cause) => {
    const share = (facts: string[]) => of(kind, spread, {}, { facts }).likely.find((l) => l.cause.key === cause)?.odds ?? 0;
    expect(share([fact])).toBeGreaterThan(share([]) + 0.1);
    expect(of(kind, spread, {}, { facts: [fact] }).counted).toHaveLength(1);
  });
  test('an edge that stands up is asked about until it is known what to do', () => {
    const d = of('edge-up', 'edge');
    expect(d.next!.question.key).toBe('glue');
    expect(of('edge-up', 'edge', { glue: 'ground', bigger: 'yes' }).next).toBeNull();
  });
  test('what is picked from are drawings of what dry film can have, in its own words', () => {
    expect(kindsOf('dry')).not.toEqual(expect.arrayContaining(['pockets']));
    expect(kindsOf('dry')).not.toEqual(expect.arrayContaining(['fog']));
    expect(kindsOf('wet-on-glass')).toHaveLength(16);
    expect(pinNamesOf('dry').crack).toBe('A cut or tear');
    expect(pinNamesOf('wet-on-glass').crack).toBe('A crack');
  });
});
