import type { DateRange } from '@yellow-pane/core/check';

/** A day as one says it, at the site. */
export const dayOf = (iso: string, zone: string): string => new Date(iso).toLocaleDateString('en-GB', { day: 'numeric', month: 'short', timeZone: zone });
/** From a day to a day, told once where both are the same. */
export function daysText({ from, to }: DateRange, zone: string): string {
  const [a, b] = [dayOf(from, zone), dayOf(to, zone)];
  return a === b ? a : `${a} to ${b}`;
}
/** How long until an instant, in days, or that it is over. */
export function untilText(iso: string, nowMs: number): string {
  const days = (Date.parse(iso) - nowMs) / 86_400_000;
  if (days <= 0) return 'now';
  const whole = Math.ceil(days);
  return whole === 1 ? 'in a day' : `in ${whole} days`;
}
