import fc from 'fast-check';
import { pinKind, pinSpread, type PinKind } from '@yellow-pane/contracts';
import { diagnose, lookOdds, tableOf, tableRows, type Diagnosis, type DiagnosisAsked } from './diagnosis.js';

const patients = ['wet-on-glass', 'dry'] as const;
const table = tableOf('wet-on-glass')!;
const asked = (more: Partial<DiagnosisAsked> & Pick<DiagnosisAsked, 'kind'>): DiagnosisAsked => ({
  patient: 'wet-on-glass',
  spread: 'one',
  answers: {},
  facts: ['flat'],
  clearOdds: 0,
  isFresh: false,
  ...more,
});
const of = (more: Partial<DiagnosisAsked> & Pick<DiagnosisAsked, 'kind'>): Diagnosis => diagnose(asked(more))!;
const top = (d: Diagnosis): string => d.likely[0]!.cause.key;

describe('the table of causes', () => {
  test.each(patients)(
    '%s: every row of a question adds up to one, every figure says where it comes from, and nothing names a cause that is not there',
    (patient) => {
      const table = tableOf(patient)!;
      const keys = new Set(table.causes.map((c) => c.key));
      for (const q of [...table.questions, table.spread]) {
        for (const row of [q.usual, ...Object.values(q.under)]) {
          expect(row).toHaveLength(q.answers.length);
          expect(row.reduce((s, p) => s + p, 0)).toBeCloseTo(1, 9);
          expect(Math.min(...row)).toBeGreaterThan(0);
        }
        for (const key of Object.keys(q.under)) expect(keys).toContain(key);
      }
      for (const c of table.causes) {
        expect(pinKind.options.reduce((s, kind) => s + lookOdds(c, kind), 0)).toBeCloseTo(1, 9);
        expect(c.prior).toBeGreaterThan(0);
      }
      for (const f of table.facts) for (const key of Object.keys(f.times)) expect(keys).toContain(key);
      for (const x of [...table.causes, ...table.questions, ...table.facts]) expect(['common practice', 'house figure']).toContain(x.source);
    },
  );
  test('every drawing that can be picked is the usual look of at least one cause', () => {
    for (const kind of pinKind.options) expect(table.causes.some((c) => (c.looks[kind] ?? 0) >= 0.1)).toBe(true);
  });
  test('on glass nothing is pricked, heated or lifted to cure a bubble after the first day (common practice)', () => {
    for (const c of table.causes) {
      // what is left of the advice when the sentence that forbids it is taken out
      expect(c.set.text).not.toMatch(/prick|heat gun|warm it|lift it|lift,|lift from/i);
      if (['wait', 'judge'].includes(c.set.kind)) expect(c.set.caution).toContain('Never prick, heat or lift');
    }
  });
});

describe('what is likely, by the looks of the trade', () => {
  // common practice: what is seen, the likely cause, what to do
  test.each<[PinKind, Partial<DiagnosisAsked>, string, string]>([
    ['pockets', { spread: 'field' }, 'drying', 'wait'],
    ['speck', { answers: { hard: 'yes' } }, 'dirt', 'judge'],
    ['speck', { answers: { wipes: 'yes' } }, 'on-top', 'wipe'],
    ['bubble', { answers: { moves: 'no', hard: 'no', smaller: 'no' }, clearOdds: 0.9 }, 'air', 'judge'],
    ['bubble', { answers: { hard: 'yes' } }, 'dirt', 'judge'],
    ['bubble-line', { spread: 'line' }, 'missed-overlap', 'wait'],
    ['bubble-line', { spread: 'line', clearOdds: 0.95 }, 'missed-overlap', 'judge'],
    ['fingers', { spread: 'edge', clearOdds: 0.95 }, 'water-back', 'judge'],
    ['fingers', { spread: 'edge' }, 'water-back', 'wait'],
    ['fingers', { spread: 'edge', facts: [], answers: { moves: 'no' }, clearOdds: 0.9 }, 'shrink-small', 'replace'],
    ['fine-lines', { facts: [] }, 'overheated', 'replace'],
    ['crease', {}, 'kink', 'replace'],
    ['edge-up', { spread: 'edge' }, 'edge-touches', 'mend'],
    ['light-line', { spread: 'edge' }, 'cut-small', 'judge'],
    ['scratch', { answers: { before: 'yes' } }, 'glass-fault', 'leave'],
    ['scratch', { answers: { before: 'no', felt: 'film' } }, 'film-scratched', 'judge'],
    ['streak', { answers: { again: 'yes', wipes: 'no' } }, 'film-fault', 'stop'],
    ['fog', { spread: 'field' }, 'unit-fog', 'stop'],
    ['crack', {}, 'crack', 'stop'],
  ])('%s, %j: %s, so %s', (kind, more, cause, mend) => {
    const d = of({ kind, ...more });
    expect([top(d), d.mend.kind]).toEqual([cause, mend]);
  });
  test('the same water pockets after the drying is over are no longer put down to it as before', () => {
    const pockets = (clearOdds: number) => of({ kind: 'pockets', spread: 'field', clearOdds }).likely.find((l) => l.cause.key === 'drying')?.odds ?? 0;
    expect(pockets(0)).toBeGreaterThan(0.7);
    expect(pockets(1)).toBeLessThan(0.5);
  });
  test('what was logged counts: a hurried hard pass, warm glass, strong slip, edges not bumped, strokes that hardly overlap', () => {
    const share = (kind: PinKind, cause: string, facts: string[], spread: DiagnosisAsked['spread'] = 'field') => {
      const before = of({ kind, spread, answers: {} }).likely.find((l) => l.cause.key === cause)?.odds ?? 0;
      const with_ = of({ kind, spread, facts: ['flat', ...facts] }).likely.find((l) => l.cause.key === cause)?.odds ?? 0;
      return with_ - before;
    };
    expect(share('pockets', 'pressed-soft', ['hard-pass-hurried'])).toBeGreaterThan(0.1);
    expect(share('streak', 'hot-glass', ['glass-warm'])).toBeGreaterThan(0.2);
    expect(share('haze', 'residue', ['slip-strong'])).toBeGreaterThan(0.1);
    expect(share('fingers', 'water-back', ['edge-not-bumped'], 'edge')).toBeGreaterThan(0.02);
    expect(share('streak', 'missed-overlap', ['overlap-small'], 'line')).toBeGreaterThan(0.05);
  });
  test('a fault noted before the work, film without a gap at the frame: three times as likely what they lead to', () => {
    const ratio = (kind: PinKind, fact: string, a: string, b: string) => {
      const of2 = (facts: string[]) => of({ kind, facts, spread: 'one' }).likely;
      const share = (facts: string[], key: string) => of2(facts).find((l) => l.cause.key === key)!.odds;
      return share([fact], a) / share([fact], b) / (share([], a) / share([], b));
    };
    expect(ratio('scratch', 'fault-noted', 'glass-fault', 'film-scratched')).toBeCloseTo(3, 6);
    expect(ratio('edge-up', 'no-gap', 'edge-touches', 'water-back')).toBeCloseTo(3, 6);
  });
  test('three causes are shown at the most, however many are likely', () => {
    for (const kind of pinKind.options) expect(of({ kind, facts: [], clearOdds: 0.7 }).likely.length).toBeLessThanOrEqual(3);
    expect(of({ kind: 'streak', facts: [] }).likely).toHaveLength(3);
  });
  test('a picture that says itself how the thing lies is not counted twice: beads along a line, told to lie along a line', () => {
    for (const kind of ['bubble-line', 'fingers', 'bubble-field', 'light-line', 'edge-up', 'crack'] as const) {
      const [first, ...others] = pinSpread.options.map((spread) => of({ kind, spread }).likely);
      for (const other of others) expect(other).toEqual(first);
    }
    // by hand: 5 of missed overlap (0.8 of 0.95 look so) against 6 of kinks (0.03 of 0.98)
    const d = of({ kind: 'bubble-line', spread: 'line', facts: ['flat'] });
    expect(d.likely[0]!.odds).toBeGreaterThan(0.9);
    expect(d.likely[0]!.odds).toBeLessThan(0.97);
  });
  test('a flat pane was never shrunk, a single pane has no unit that could fail', () => {
    const every = (facts: string[]) => pinKind.options.flatMap((kind) => of({ kind, facts }).likely.map((l) => l.cause.key));
    expect(every(['flat'])).not.toContain('shrink-small');
    expect(every([])).toContain('shrink-small');
    expect(every(['flat', 'single'])).not.toContain('unit-fog');
  });
  test('while it still slides a speck is flushed out; tacked, it is held to the rule', () => {
    expect(of({ kind: 'speck', isFresh: true, answers: { hard: 'yes' } }).mend.kind).toBe('mend');
    expect(of({ kind: 'speck', isFresh: false, answers: { hard: 'yes' } }).mend.kind).toBe('judge');
  });
  test('nobody is told to wait for a drying that is over: what is left is judged, and of water that should have gone it is said that it is late', () => {
    for (const c of table.causes.filter((x) => x.set.kind === 'wait')) {
      expect(c.over).toBeDefined();
      expect(c.over!.text).not.toContain('drying clock says until when');
    }
    const pockets = (clearOdds: number) => of({ kind: 'pockets', spread: 'field', answers: { moves: 'yes', smaller: 'yes' }, clearOdds }).mend;
    expect([pockets(0.89).text.includes('by now'), pockets(0.9).text.includes('It should be clear by now')]).toEqual([false, true]);
    // on the first day nothing is late, whatever was reckoned
    expect(of({ kind: 'bubble-line', spread: 'line', clearOdds: 0.95, isFresh: true }).mend.kind).toBe('mend');
  });
});

describe('what is asked next', () => {
  test('a single bubble: whether it moves, is hard or gets smaller; never what was answered already', () => {
    const first = of({ kind: 'bubble', clearOdds: 0.3 }).next!;
    expect(['hard', 'moves', 'smaller', 'wipes']).toContain(first.question.key);
    expect(first.gainBits).toBeGreaterThan(0.05);
    const second = of({ kind: 'bubble', clearOdds: 0.3, answers: { [first.question.key]: 'no' } }).next;
    expect(second?.question.key).not.toBe(first.question.key);
  });
  test('nothing is asked when every answer leads to the same mend, and it is said that this is why', () => {
    expect(of({ kind: 'crease' })).toMatchObject({ next: null, whyDone: 'sure', mend: { kind: 'replace' } });
    expect(of({ kind: 'crack' })).toMatchObject({ next: null, whyDone: 'sure', mend: { kind: 'stop' } });
    expect(of({ kind: 'pockets' })).toMatchObject({ next: null, whyDone: 'no-change', mend: { kind: 'wait' } });
    const every = Object.fromEntries(table.questions.map((q) => [q.key, 'unknown']));
    expect(of({ kind: 'streak', answers: every })).toMatchObject({ next: null, whyDone: 'all-asked' });
  });
  test('“cannot tell” is an answer that tells nothing, and is not asked for twice', () => {
    const first = of({ kind: 'bubble', clearOdds: 0.3 });
    const key = first.next!.question.key;
    const then = of({ kind: 'bubble', clearOdds: 0.3, answers: { [key]: 'unknown' } });
    expect(then.likely).toEqual(first.likely);
    expect(then.next?.question.key).not.toBe(key);
  });
  test('whatever is answered, it comes to an end within the questions there are', () => {
    for (const kind of pinKind.options)
      for (let pick = 0; pick < 3; pick++) {
        const answers: Record<string, string> = {};
        for (let n = 0; ; n++) {
          const { next } = of({ kind, facts: [], clearOdds: 0.5, answers });
          if (!next) break;
          expect(n).toBeLessThan(table.questions.length);
          answers[next.question.key] = next.question.answers[pick % next.question.answers.length]!.key;
        }
      }
  });
});

const anyAsked = fc.record({
  patient: fc.constant('wet-on-glass' as const),
  kind: fc.constantFrom(...pinKind.options),
  spread: fc.constantFrom(...pinSpread.options),
  facts: fc.subarray(table.facts.map((f) => f.key)),
  clearOdds: fc.option(fc.double({ min: 0, max: 1, noNaN: true })),
  isFresh: fc.boolean(),
  answers: fc.constant({}),
});
const anyAnswers = fc.array(fc.constantFrom(...table.questions.flatMap((q) => q.answers.map((a) => [q.key, a.key] as const))), { maxLength: 6 });

describe('odds', () => {
  test('the order of answers never changes them, and those shown are at most all there is', () =>
    fc.assert(
      fc.property(anyAsked, anyAnswers, (a, answers) => {
        const own = [...new Map(answers)];
        const [forth, back] = [own, own.toReversed()].map((list) => diagnose({ ...a, answers: Object.fromEntries(list) })!);
        expect(forth!.likely.map((l) => l.cause.key)).toEqual(back!.likely.map((l) => l.cause.key));
        forth!.likely.forEach((l, i) => expect(l.odds).toBeCloseTo(back!.likely[i]!.odds, 12));
        expect(forth!.likely.reduce((s, l) => s + l.odds, 0)).toBeLessThanOrEqual(1 + 1e-9);
        expect(forth!.mendOdds).toBeGreaterThan(0);
        expect(forth!.mendOdds).toBeLessThanOrEqual(1 + 1e-9);
      }),
    ));
  // certainty is tested like a figure: pins are drawn from the model itself, and what is said to hold seven times in ten does
  test.each(patients)('%s: a cause that is given odds of p is the true one in a share p of the cases', (patient) => {
    const table = tableOf(patient)!;
    let seed = 12345;
    const dice = () => (seed = (Math.imul(1664525, seed) + 1013904223) >>> 0) / 2 ** 32;
    const draw = (odds: readonly number[]) => {
      let left = dice() * odds.reduce((s, p) => s + p, 0);
      return Math.max(
        0,
        odds.findIndex((p) => (left -= p) < 0),
      );
    };
    const bins = Array.from({ length: 5 }, () => ({ said: 0, held: 0, n: 0 }));
    const kinds = pinKind.options;
    for (let i = 0; i < 3000; i++) {
      const cause = table.causes[draw(table.causes.map((c) => c.prior))]!;
      const kind = kinds[draw(kinds.map((k) => lookOdds(cause, k)))]!;
      const under = (q: (typeof table.questions)[number]) => q.answers[draw(q.under[cause.key] ?? q.usual)]!.key;
      const answers = Object.fromEntries(table.questions.filter(() => dice() < 0.4).map((q) => [q.key, under(q)]));
      const d = of({ patient, kind, spread: under(table.spread) as DiagnosisAsked['spread'], answers, facts: [], clearOdds: null });
      const first = d.likely[0]!;
      const bin = bins[Math.min(4, Math.floor(first.odds * 5))]!;
      bin.n++;
      bin.said += first.odds;
      if (first.cause.key === cause.key) bin.held++;
    }
    for (const b of bins.filter((x) => x.n > 60)) expect(Math.abs(b.held / b.n - b.said / b.n)).toBeLessThan(3.5 * Math.sqrt(0.25 / b.n));
    expect(bins[4]!.n).toBeGreaterThan(500);
  });
  test('each answer moves odds as its table says: by hand for a speck that is pressed', () => {
    const [before, hard] = [{}, { hard: 'no' }].map((answers) => of({ kind: 'speck', answers, facts: [] })) as [Diagnosis, Diagnosis];
    const ratio = (d: Diagnosis, a: string, b: string) => d.likely.find((l) => l.cause.key === a)!.odds / d.likely.find((l) => l.cause.key === b)!.odds;
    expect(ratio(hard, 'dirt', 'on-top') / ratio(before, 'dirt', 'on-top')).toBeCloseTo(0.2 / 0.6, 9);
    expect(
      tableRows(
        table.questions.find((q) => q.key === 'hard')!,
        table.causes,
      )[0]![table.causes.findIndex((c) => c.key === 'dirt')],
    ).toBe(0.8);
  });
});
