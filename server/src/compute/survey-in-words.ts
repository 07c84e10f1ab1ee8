import type { PaneShape, Reading, SurveyResult, TapedInput, TapedResult } from '@yellow-pane/contracts';
import { askText, suspectText, surveyOpening, surveyShape, toldOf, verdictText, type Memo, type TapeReading } from '@yellow-pane/core';

/** The verdict on the tapes of one opening, in figures and words. */
export function surveyInWords(readings: readonly TapeReading[], calledCrooked: boolean, shape: PaneShape | null): SurveyResult {
  const s = shape ? surveyShape(shape, readings) : surveyOpening(readings, { calledCrooked });
  return {
    status: s.status,
    ...verdictText(s, 'mm'),
    outline: s.outline ? s.outline.map((p) => ({ x: p.x, y: p.y })) : null,
    chiSquare: s.adjustment?.chiSquare ?? null,
    limit: s.adjustment && Number.isFinite(s.adjustment.limit) ? s.adjustment.limit : null,
    redundancy: s.adjustment?.redundancy ?? null,
    suspects: s.suspects.map((x) => ({ text: suspectText(x, 'mm', shape), probability: x.probability })),
    ask: s.next ? { measure: s.next.measure, text: askText(s.next.measure, s.next.isRetape, shape), gainBits: s.next.gainBits } : null,
    cannotCheck: [...s.cannotCheck],
  };
}

/** The verdict on the tapes of anything that is no pane of glass. What stands beside it nobody knows here. */
export function tapedInWords({ surface, readings, units }: TapedInput, memo: Memo): TapedResult {
  const alone = { ...surface, measuredLikeId: null };
  const taken = readings.map(({ measure, lengthMm }, i): Reading => ({
    id: `${surface.id}.${i}`,
    jobId: surface.jobId,
    surfaceId: surface.id,
    measure,
    typed: String(lengthMm),
    unit: 'mm',
    lengthMm,
    instrument: 'tape',
    personId: surface.jobId,
    at: new Date(i).toISOString(),
    supersedesId: null,
    withdrawnAt: null,
    deletedAt: null,
  }));
  const told = toldOf(alone, { surfaces: [alone], readings: taken, memo }, units);
  return {
    status: told.status,
    ...told.words,
    outline: told.outline?.map((p) => ({ x: p.x, y: p.y })) ?? null,
    suspects: told.suspects.map((x) => ({ text: suspectText(x, units), probability: x.probability })),
    ask: told.next ? { measure: told.next.measure, text: askText(told.next.measure, told.next.isRetape), gainBits: told.next.gainBits } : null,
    doubts: told.doubts.map((d) => ({ ...d })),
    numbers: told.numbers.map((n) => ({ ...n })),
    why: [...told.why],
  };
}
