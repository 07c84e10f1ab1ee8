import type { WorkCause, WorkGrade, WorkWindow } from '@yellow-pane/core/prepare';

/** A cause in as few letters as a band has room for. */
export const causeWords: Record<WorkCause, string> = {
  sun: 'sun',
  warm: 'warm glass',
  cold: 'too cold',
  dew: 'damp',
  frost: 'frost at night',
  wind: 'wind',
  rain: 'rain',
};
export const gradeWords: Record<WorkGrade, string> = { good: 'good', marginal: 'marginal', wrong: 'wrong' };

/** An hour of the clock: 12.6667 is 12:40. */
export function clockText(hour: number): string {
  const minutes = Math.round(hour * 60);
  return `${Math.floor(minutes / 60)}:${String(minutes % 60).padStart(2, '0')}`;
}

export const windowText = (w: WorkWindow): string => `${clockText(w.fromHour)}–${clockText(w.toHour)} ${gradeWords[w.grade]}${w.why ? `: ${w.why}` : ''}`;

/** What to do about a day, in a sentence. */
export function adviceText(windows: readonly WorkWindow[], best: WorkWindow | null): string {
  if (!best) return 'No hour of this day is good for wet work here. Shade the glass from outside, warm the room, or take another day.';
  const hours = `${clockText(best.fromHour)} to ${clockText(best.toHour)}`;
  if (best.grade === 'marginal') return `Nothing is quite right on this day. Least wrong: ${hours} (${best.why}).`;
  if (windows.length === 1) return 'The whole day is good.';
  const after = windows.find((w) => w.fromHour >= best.toHour - 1e-9);
  return `Best from ${hours}.${after?.why ? ` Then: ${after.why}.` : ''}`;
}
