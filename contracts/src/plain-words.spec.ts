import * as z from 'zod';
import { job, roll } from './index.js';

const said = (schema: z.ZodType, value: unknown): string => {
  const read = schema.safeParse(value);
  return read.success ? '' : read.error.issues[0]!.message;
};

describe('what does not fit is said in plain words', () => {
  test.each<[string, z.ZodType, unknown, string]>([
    ['nothing where a number belongs', z.number(), NaN, 'A number is needed.'],
    ['words for a number', z.number(), 'wide', 'A number is needed.'],
    ['nothing at all', z.object({ a: z.string() }), {}, 'This is missing.'],
    ['half a thing', z.int(), 2.5, 'A whole number is needed.'],
    ['too little', z.number().min(100), 5, 'At least 100.'],
    ['nothing of it', z.number().positive(), 0, 'More than 0.'],
    ['too much', z.number().max(100_000), 2e6, 'At most 100 000.'],
    ['no name', z.string().min(1), '', 'This may not be empty.'],
    ['a long one', z.string().max(40), 'x'.repeat(41), 'At most 40 letters.'],
    ['no date', z.iso.date(), 'tomorrow', 'A date is needed, such as 2026-09-14.'],
    ['none of these', z.enum(['mm', 'in']), 'cubits', 'One of: mm, in.'],
    ['too many of them', z.array(z.number()).max(2), [1, 2, 3], 'At most 2 of them.'],
    ['something unknown', z.strictObject({}), { colour: 1 }, 'Nobody knows “colour”.'],
  ])('%s', (_, schema, value, words) => expect(said(schema, value)).toBe(words));
  test('a sentence of a schema’s own comes first', () => {
    expect(said(z.string().min(1, 'A job needs a name.'), '')).toBe('A job needs a name.');
    expect(job.shape.name.safeParse('').error!.issues[0]!.message).toBe('A job needs a name.');
  });
  test('whatever is wrong with a roll, no machine speaks', () => {
    for (const wrong of [{}, { widthMm: 'x' }, { widthMm: -1, lengthM: 1e9, label: '', edges: 'round', pricePerM: '12,5' }])
      for (const issue of roll.safeParse(wrong).error!.issues) expect(issue.message).not.toMatch(/expected|received|too (small|big)|invalid|>=|<=|string|NaN/i);
  });
});
