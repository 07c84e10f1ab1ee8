import ical, { ICalCalendarMethod } from 'ical-generator';
import type { CalendarDay } from '@yellow-pane/core';

/** Days as a calendar file: each is a whole day at the site, whatever the clock of who opens it. @source RFC 5545 */
export function calendarText(name: string, days: readonly CalendarDay[], now: Date): string {
  const calendar = ical({ name, prodId: { company: 'Yellow Pane', product: 'Bench' }, method: ICalCalendarMethod.PUBLISH });
  for (const d of days) {
    // at noon, so that no zone makes another day of it
    const start = new Date(`${d.on}T12:00:00Z`);
    calendar.createEvent({ id: d.uid, stamp: now, start, allDay: true, summary: d.title, description: d.text });
  }
  return calendar.toString();
}
