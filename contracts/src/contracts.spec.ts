import * as z from 'zod';
import { lanternStreet, ternPoint } from '../../demo/src/index.js';
import { errorTable } from './errors.js';
import { jobFile } from './job-document.js';
import { lengthMm } from './quantities.js';
import { routes, type RouteDefinition } from './routes.js';
import { roll } from './stock/roll.js';

describe('the job file', () => {
  test.each([
    ['Tern Point', ternPoint()],
    ['Lantern Street', lanternStreet()],
  ])('of %s is read and written without loss', (_name, file) => expect(jobFile.parse(JSON.parse(JSON.stringify(file)))).toEqual(file));

  test('is refused with the path of what is wrong', () => {
    const file = ternPoint();
    const bad = { ...file, readings: [{ ...file.readings[0], lengthMm: 'wide' }] };
    const read = jobFile.safeParse(bad);
    expect(read.success).toBe(false);
    expect(read.error!.issues[0]!.path).toEqual(['readings', 0, 'lengthMm']);
  });

  test('has a published schema with units', () => {
    const schema = z.toJSONSchema(jobFile, { unrepresentable: 'any' }) as { properties: Record<string, unknown> };
    expect(Object.keys(schema.properties)).toContain('surfaces');
    expect(z.toJSONSchema(lengthMm)).toMatchObject({ unit: 'mm', minimum: 0 });
  });
});

test('a price is an exact decimal, never a float', () => {
  const one = ternPoint().rolls[0]!;
  expect(roll.safeParse({ ...one, pricePerM: '13.60' }).success).toBe(true);
  expect(roll.safeParse({ ...one, pricePerM: 13.6 }).success).toBe(false);
  expect(roll.safeParse({ ...one, pricePerM: '13,60' }).success).toBe(false);
});

test('every refusal a call can answer stands in the error table', () => {
  for (const r of Object.values(routes) as RouteDefinition[]) for (const code of r.errors) expect(errorTable[code].sentence.length).toBeGreaterThan(20);
});
