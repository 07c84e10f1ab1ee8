import { dateAt, dayStartMs, zoneMinutesAt } from './zone.js';

test('clocks: Lisbon is an hour ahead in July, none in January; an unknown zone is UTC', () => {
  expect(zoneMinutesAt('Europe/Lisbon', new Date('2026-07-01T12:00:00Z'))).toBe(60);
  expect(zoneMinutesAt('Europe/Lisbon', new Date('2026-01-01T12:00:00Z'))).toBe(0);
  expect(zoneMinutesAt('Asia/Kolkata', new Date('2026-01-01T12:00:00Z'))).toBe(330);
  expect(zoneMinutesAt('Nowhere/None', new Date())).toBe(0);
});
test('hours of a day are counted from its midnight; on days when clocks change, by the clock of its noon', () => {
  const at = (on: string, zone: string, hour: number) => new Date(dayStartMs(on, zone) + hour * 3_600_000).toISOString();
  expect(at('2026-07-01', 'Europe/Lisbon', 0)).toBe('2026-06-30T23:00:00.000Z');
  // clocks went forward, and back, in that night: nine in the morning is nine in the morning
  expect(at('2026-03-29', 'Europe/Lisbon', 9)).toBe('2026-03-29T08:00:00.000Z');
  expect(at('2026-10-25', 'Europe/Lisbon', 9)).toBe('2026-10-25T09:00:00.000Z');
  expect(at('2026-11-01', 'America/New_York', 9)).toBe('2026-11-01T14:00:00.000Z');
});
test('the date at a place is that of its own calendar', () => {
  const at = Date.parse('2026-12-03T23:30:00Z');
  expect([dateAt(at, 'Europe/Lisbon'), dateAt(at, 'Europe/Athens'), dateAt(at, 'America/New_York')]).toEqual(['2026-12-03', '2026-12-04', '2026-12-03']);
});
