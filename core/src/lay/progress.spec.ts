import fc from 'fast-check';
import type { LayEntry, LayKind } from '@yellow-pane/contracts';
import { defaultLay } from './default-lay.js';
import { learnMinutes, type TimedPane } from './learn.js';
import { adviceFor, problemNames, problemQuestions } from './mend.js';
import { linesInForce, minutesTaken, nextStep, paneProgress } from './progress.js';
import { runSheetOf, type LayPane } from './run-sheet.js';
import { SHIPPED_STEPS_ID, shippedSteps } from './shipped-steps.js';

const secure: LayPane = { work: 'tint', glass: 'flat', frame: 'gasket', method: 'overhang', areaM2: 1, edgeM: 4, edgeGapMm: 1.5, overhangMm: 25, bladeMm: 300, filmName: 'x', care: 'blade', careWhy: '', units: 'mm' }; // prettier-ignore
const steps = runSheetOf(shippedSteps('firm'), secure, defaultLay);
let count = 0;
const line = (kind: LayKind, time: string, more: Partial<LayEntry> = {}): LayEntry => ({
  id: `e${String(++count).padStart(4, '0')}`, jobId: 'job', surfaceId: 'W1', personId: 'Ana', occurredAt: `2026-12-03T${time}:00Z`, clockOffsetMs: 0, receivedAt: `2026-12-03T${time}:01Z`,
  stepSetId: SHIPPED_STEPS_ID, kind, stepKey: null, text: '', reading: null, found: null, photo: null, problem: null, roll: null, signature: null, correctsId: null, ...more,
}); // prettier-ignore
const trouble = { problem: { kind: 'speck' as const, at: { xFrac: 0.5, yFrac: 0.2 }, answers: {} } };

describe('what the log says of a pane', () => {
  test('begun, step after step, done', () => {
    const first = [line('begin', '09:00'), line('step-done', '09:02', { stepKey: 'check-piece' })];
    const p = paneProgress(first, steps);
    expect([p.state, p.beganAt, nextStep(steps, p.done)!.key]).toEqual(['in-hand', '2026-12-03T09:00:00Z', steps[1]!.key]);
    const q = paneProgress([...first, line('pane-done', '09:31')], steps);
    expect([q.state, q.doneAt, nextStep(steps, q.done)]).toEqual(['done', '2026-12-03T09:31:00Z', null]);
  });
  test('one tap is enough, and the waits of its steps begin with it', () => {
    const p = paneProgress([line('pane-done', '09:31')], steps);
    expect(p.state).toBe('done');
    expect(p.waits).toEqual([{ what: 'water comes back to the edges', until: '2026-12-03T09:41:00.000Z' }]);
  });
  test('one tap does not swallow a return visit: the pane is laid, the bead is due two days on, and its clock starts when the bead is in', () => {
    const security = runSheetOf(shippedSteps('firm'), { ...secure, work: 'security' }, { ...defaultLay, edge: 'anchored' });
    const laid = paneProgress([line('pane-done', '09:31')], security);
    expect(laid.state).toBe('done');
    expect(laid.returns).toEqual([{ key: 'anchor', title: 'Anchor the edge', dueAt: '2026-12-05T09:31:00.000Z' }]);
    expect(laid.done.has('anchor')).toBe(false);
    expect(laid.waits.map((w) => w.what)).not.toContain('the anchor bead cures; not to be touched');
    expect(nextStep(security, laid.done)).toBeNull();
    const bead = { ...line('step-done', '00:00', { stepKey: 'anchor' }), occurredAt: '2026-12-06T10:00:00Z' };
    const held = paneProgress([line('pane-done', '09:31'), bead], security);
    expect([held.state, held.returns]).toEqual(['done', []]);
    expect(held.waits).toContainEqual({ what: 'the anchor bead cures; not to be touched', until: '2026-12-13T10:00:00.000Z' });
  });
  test('silicone and stops come back a day later, the first visit first; taken back, nothing is due', () => {
    const sheet = runSheetOf(shippedSteps('firm'), { ...secure, work: 'security', frame: 'bead' }, { ...defaultLay, edge: 'anchored', stops: 'off' });
    const done = line('pane-done', '09:31');
    expect(paneProgress([done], sheet).returns.map((r) => r.key)).toEqual(['stops-back', 'anchor']);
    expect(paneProgress([done, line('correction', '09:40', { correctsId: done.id })], sheet).returns).toEqual([]);
    const silicone = runSheetOf(shippedSteps('firm'), { ...secure, frame: 'silicone' }, { ...defaultLay, silicone: 'cut-out' });
    expect(paneProgress([done], silicone).returns).toEqual([{ key: 'silicone-again', title: 'Run the silicone again', dueAt: '2026-12-04T09:31:00.000Z' }]);
  });
  test('a trouble stops it until it is mended or the pane is done after all', () => {
    const stopped = [line('begin', '09:00'), line('problem', '09:10', trouble)];
    expect(paneProgress(stopped, steps).state).toBe('stopped');
    expect(paneProgress([...stopped, line('mended', '09:15')], steps).state).toBe('in-hand');
    expect(paneProgress([...stopped, line('pane-done', '09:20')], steps)).toMatchObject({ state: 'done', problem: null });
  });
  test('lines are never edited: a correction takes one back, and can itself be taken back', () => {
    const done = line('pane-done', '09:31');
    const oops = line('correction', '09:32', { correctsId: done.id });
    const back = line('correction', '09:33', { correctsId: oops.id });
    expect(paneProgress([done, oops], steps).state).toBe('not-begun');
    expect(paneProgress([done, oops, back], steps).state).toBe('done');
    expect(linesInForce([done, oops, back]).map((e) => e.id)).toEqual([done.id, back.id]);
  });
  test('the order in which lines come in does not matter: what counts is when it happened', () =>
    fc.assert(
      fc.property(fc.shuffledSubarray([0, 1, 2, 3, 4], { minLength: 5 }), (order) => {
        count = 0;
        const all = [
          line('begin', '09:00'),
          line('step-done', '09:02', { stepKey: 'stamp' }),
          line('problem', '09:04', trouble),
          line('mended', '09:06'),
          line('pane-done', '09:31'),
        ];
        expect(paneProgress(order.map((i) => all[i]!), steps)).toEqual(paneProgress(all, steps)); // prettier-ignore
      }),
      { seed: 4 },
    ));
  test('two people who could not know of each other both say done: that is shown, not settled', () => {
    const ana = line('pane-done', '09:31', { receivedAt: '2026-12-03T09:50:00Z' });
    const ben = line('pane-done', '09:40', { personId: 'Ben', receivedAt: '2026-12-03T09:41:00Z' });
    expect(paneProgress([ana, ben], steps).conflict).toMatchObject({ first: { id: ana.id }, second: { id: ben.id } });
    // had Ana’s been at the bench before Ben tapped, he knew
    expect(paneProgress([{ ...ana, receivedAt: '2026-12-03T09:32:00Z' }, ben], steps).conflict).toBeNull();
    // one of them is taken back: settled
    expect(paneProgress([ana, ben, line('correction', '10:00', { correctsId: ben.id })], steps).conflict).toBeNull();
  });
  test('one says done while the other, out of reach, says something is wrong', () => {
    const bad = line('problem', '09:35', { ...trouble, personId: 'Ben', receivedAt: '2026-12-03T09:50:00Z' });
    expect(paneProgress([bad, line('pane-done', '09:40')], steps).conflict).not.toBeNull();
  });
  test('somebody else is on it too', () => {
    expect(paneProgress([line('begin', '09:00'), line('begin', '09:05', { personId: 'Ben' })], steps).alsoPersonId).toBe('Ben');
  });
});

describe('times from the taps', () => {
  test('from begin to done; or, with one tap a pane, from the same person’s tap before', () => {
    const all = [
      line('begin', '09:00', { surfaceId: 'W1' }),
      line('pane-done', '09:25', { surfaceId: 'W1' }),
      line('pane-done', '09:30', { surfaceId: 'X', personId: 'Ben' }),
      line('pane-done', '09:48', { surfaceId: 'W2' }),
    ];
    expect(minutesTaken('W1', all)).toBe(25);
    expect(minutesTaken('W2', all)).toBe(23);
    expect(minutesTaken('X', all)).toBeNull();
  });
  test('a night between two taps is no work', () => {
    const all = [line('pane-done', '09:00', { surfaceId: 'W1' }), { ...line('pane-done', '09:00', { surfaceId: 'W2' }), occurredAt: '2026-12-04T09:00:00Z' }];
    expect(minutesTaken('W2', all)).toBeNull();
  });
});

describe('learned minutes', () => {
  const timed = (minutes: number, jobId = 'a', work: TimedPane['work'] = 'tint'): TimedPane => ({ work, jobId, minutes, areaM2: 1 });
  // 20 min for a pane of 1 m²
  const rates = { paneMinutes: 5, minutesPerM2: { tint: 10, frost: 10, security: 10 }, cleaningMinutesPerM2: 5 };
  test('the median stands where it is when one pane takes ten times as long', () => {
    const [calm] = learnMinutes(
      [24, 25, 26, 24, 25].map((m) => timed(m)),
      rates,
    );
    const [wild] = learnMinutes(
      [24, 25, 26, 24, 250].map((m) => timed(m)),
      rates,
    );
    expect(calm!.factor).toBeCloseTo(1.25, 6);
    expect(wild!.factor).toBeCloseTo(1.25, 6);
  });
  test('few panes are believed a little, many nearly all: eight weigh half', () => {
    const [few] = learnMinutes([timed(40)], rates);
    const [eight] = learnMinutes(
      Array.from({ length: 8 }, () => timed(40)),
      rates,
    );
    const [many] = learnMinutes(
      Array.from({ length: 200 }, () => timed(40)),
      rates,
    );
    expect(few!.usedFactor).toBeLessThan(1.1);
    expect(eight!.usedFactor).toBeCloseTo(Math.SQRT2, 6);
    expect(many!.usedFactor).toBeGreaterThan(1.9);
    // 5 + (x + 5) · 1 = 20 · √2
    expect(eight!.suggestedPerM2).toBeCloseTo(20 * Math.SQRT2 - 10, 6);
  });
  test('by kind of film, with how many jobs it rests on', () => {
    const all = learnMinutes([timed(30, 'a'), timed(30, 'b'), timed(60, 'b', 'security')], rates);
    expect(all.map((l) => [l.work, l.paneCount, l.jobCount])).toEqual([
      ['tint', 2, 2],
      ['security', 1, 1],
    ]);
  });
});

describe('something is wrong (common practice)', () => {
  test('every kind has a name, at most two questions, and an answer for each', () => {
    for (const kind of Object.keys(problemNames) as (keyof typeof problemNames)[]) {
      const questions = problemQuestions[kind];
      expect(questions.length).toBeLessThanOrEqual(2);
      const ways = questions.reduce<Record<string, string>[]>((all, q) => all.flatMap((a) => q.answers.map((x) => ({ ...a, [q.key]: x.key }))), [{}]);
      for (const a of ways) expect(adviceFor(kind, a).text.length).toBeGreaterThan(20);
    }
  });
  test('film on glass is never pricked after it has tacked; fresh it is lifted and flushed', () => {
    expect(adviceFor('air', { hard: 'no', slides: 'yes' })).toMatchObject({ verdict: 'mend', text: expect.stringContaining('flush') });
    expect(adviceFor('air', { hard: 'no', slides: 'no' })).toMatchObject({ verdict: 'wait', caution: expect.stringContaining('Never prick') });
    expect(adviceFor('speck', { slides: 'no' }).verdict).toBe('replace');
  });
  test('water is normal drying; a crease stays; cracked glass is left alone and a glazier called', () => {
    expect(adviceFor('water', { hard: 'no' })).toMatchObject({ verdict: 'wait', text: expect.stringContaining('30 sunny days') });
    expect(adviceFor('crease', {}).verdict).toBe('replace');
    expect(adviceFor('glass-crack', {})).toMatchObject({ verdict: 'stop', text: expect.stringContaining('glazier') });
  });
  test('an unanswered question counts as the graver answer', () => {
    expect(adviceFor('speck', {}).verdict).toBe('replace');
    expect(adviceFor('water', {}).verdict).toBe('mend');
  });
});
