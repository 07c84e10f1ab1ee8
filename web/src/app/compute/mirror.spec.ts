import { ternPointDocument } from '../record/fake-api.testing';
import { heard, toldSince } from './mirror';

const doc = ternPointDocument();
const { job, firm, surfaces, readings, films, rolls } = doc;
const now = { job, firm, surfaces, readings, films, rolls };
/** As it comes out of a message. */
const posted = <T>(x: T): T => JSON.parse(JSON.stringify(x)) as T;

describe('the records of a job in a worker', () => {
  test('told for the first time they are all told', () => {
    expect(heard(null, posted(toldSince(null, now)))).toEqual(now);
  });
  test('after one tape more only this one travels, and all others are the very same as before there', () => {
    const there = heard(null, posted(toldSince(null, now)));
    const again = { ...readings[3]!, id: 'again', lengthMm: 640 };
    const next = { ...now, readings: [...readings, again] };
    const told = toldSince(now, next);
    expect(Object.keys(told.lists)).toEqual(['readings']);
    expect(told.lists['readings']!.others).toEqual([again]);
    expect(told.alone).toEqual({});
    const then = heard(there, posted(told));
    expect(then).toEqual(next);
    expect(then['surfaces']).toBe(there['surfaces']);
    expect((then['readings'] as unknown[])[0]).toBe((there['readings'] as unknown[])[0]);
  });
  test('what is changed, deleted, brought back or put in another order is so there too', () => {
    let [here, there] = [now, heard(null, posted(toldSince(null, now)))];
    const tell = (next: typeof now) => {
      there = heard(there, posted(toldSince(here, next)));
      here = next;
      expect(there).toEqual(next);
    };
    tell({ ...here, surfaces: here.surfaces.map((s, i) => (i === 2 ? { ...s, name: 'Another' } : s)) });
    tell({ ...here, surfaces: here.surfaces.slice(1), job: { ...job, method: 'pre-cut' } });
    tell({ ...here, surfaces: [surfaces[0]!, ...here.surfaces].reverse() });
    tell({ ...here, surfaces: [], readings: [] });
    tell(now);
  });
  test('another job is told whole where it differs', () => {
    const there = heard(null, posted(toldSince(null, now)));
    const other = { ...now, job: { ...job, id: 'other' }, surfaces: [], readings: [] };
    expect(heard(there, posted(toldSince(now, other)))).toEqual(other);
  });
});
