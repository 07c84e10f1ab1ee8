/** How far the clocks of a zone are ahead of UTC at an instant, minutes. */
export function zoneMinutesAt(zone: string, at: Date): number {
  try {
    const text = new Intl.DateTimeFormat('en-US', { timeZone: zone, timeZoneName: 'longOffset' })
      .formatToParts(at)
      .find((p) => p.type === 'timeZoneName')!.value;
    const m = /GMT([+-])(\d{2}):(\d{2})/.exec(text);
    return m ? (m[1] === '-' ? -1 : 1) * (Number(m[2]) * 60 + Number(m[3])) : 0;
  } catch {
    return 0;
  }
}

/**
 * The instant from which the clock hours of a day are counted at a place, ms since 1970 UTC: its midnight by the clock that holds at noon, so
 * that the hours of work are right also on the days when clocks change at night.
 * @param on the date as YYYY-MM-DD
 */
export function dayStartMs(on: string, zone: string): number {
  const utcMs = Date.parse(`${on}T00:00:00Z`);
  return utcMs - zoneMinutesAt(zone, new Date(utcMs + 43_200_000)) * 60_000;
}

/** The date that the calendar shows at a place, as YYYY-MM-DD. */
export const dateAt = (ms: number, zone: string): string => new Date(ms + zoneMinutesAt(zone, new Date(ms)) * 60_000).toISOString().slice(0, 10);
