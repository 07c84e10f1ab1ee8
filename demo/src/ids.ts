/** Fixed ids, so that the demo is the same on every machine. Version 7 shape; the number tells what it is. */
export const demoId = (n: number): string => `01930000-0000-7000-8000-${n.toString(16).padStart(12, '0')}`;
/** The hour in which the demo was measured. */
export const demoAt = (minute: number): string => new Date(Date.UTC(2026, 8, 14, 7, minute)).toISOString();
