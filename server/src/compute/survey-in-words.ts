import type { PaneShape, SurveyResult } from '@yellow-pane/contracts';
import { askText, suspectText, surveyOpening, surveyShape, verdictText, type TapeReading } from '@yellow-pane/core';

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
