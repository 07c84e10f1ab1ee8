import { Memo, shelf } from './memo.js';

const areas = shelf<number | null>(2);
const girths = shelf<number>(2);

describe('what was worked out is kept by whoever asks', () => {
  test('the same question is worked out once, another one anew, also where the answer is that there is none', () => {
    const memo = new Memo();
    const worked: number[] = [];
    const ask = (n: number) => memo.once(areas, String(n), () => (worked.push(n), n > 0 ? n * n : null));
    expect([ask(3), ask(3), ask(-1), ask(-1)]).toEqual([9, 9, null, null]);
    expect(worked).toEqual([3, -1]);
  });

  test('where it is full, what was asked for longest ago goes, not what came in first', () => {
    const memo = new Memo();
    const made: string[] = [];
    const ask = (key: string) => memo.once(areas, key, () => made.push(key));
    for (const key of ['a', 'b', 'a', 'c', 'a', 'b']) ask(key);
    expect(made).toEqual(['a', 'b', 'c', 'b']);
  });

  test('two kinds of results never meet, not even under one key; nor do two memos', () => {
    const [memo, other] = [new Memo(), new Memo()];
    expect([memo.once(areas, 'W1', () => 6), memo.once(girths, 'W1', () => 10), other.once(areas, 'W1', () => 7)]).toEqual([6, 10, 7]);
  });

  test('what could not be worked out is tried again', () => {
    const memo = new Memo();
    const fails = () => memo.once(areas, 'W1', () => { throw new RangeError('Too few bows.'); }); // prettier-ignore
    expect(fails).toThrow('Too few bows.');
    expect(memo.once(areas, 'W1', () => 4)).toBe(4);
  });

  test('by the records themselves: as long as not one of them was replaced', () => {
    const memo = new Memo();
    const [pane, films, rolls] = [{ id: 'W1' }, ['frost'], ['F-207']];
    let worked = 0;
    const work = () => ++worked;
    const ask = (...from: unknown[]) => memo.onceFor(girths, pane, from, work);
    ask(films, rolls);
    ask(films, rolls);
    expect(worked).toBe(1);
    ask(films, [...rolls]);
    expect(worked).toBe(2);
    ask(films);
    expect(worked).toBe(3);
    memo.onceFor(girths, { ...pane }, [films], work);
    expect(worked).toBe(4);
  });

  test('it is not sent to a worker by mistake: the message is refused', () => {
    expect(() => structuredClone({ memo: new Memo() })).toThrow(/could not be cloned/);
  });
});
