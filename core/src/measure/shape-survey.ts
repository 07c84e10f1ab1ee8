import type { PaneShape } from '@yellow-pane/contracts';
import { flatten } from '../geometry/index.js';
import { handTape, houseLevels, type TapeError, type TapeReading, type TestLevels } from './adjustment.js';
import { boxOf, shapeModel } from './shape-models.js';
import type { Survey } from './survey.js';
import { adjustTaped, nextTape, quadratic, slopeOf, usable, weighSlips, type Numbers } from './taped-model.js';

const noBows: Survey['bowsMm'] = { bowTop: 0, bowRight: 0, bowBottom: 0, bowLeft: 0 };
const nothing = { crookedness: null, suspects: [], next: null, disagreeMm: 0, possibleOutlines: [], cannotCheck: [], impossible: [], bowsMm: noBows } as const;

/** Judges the tapes of one pane that is not four-sided, as a four-sided one is judged. @param readings in force, at most one per measure, mm */
export function surveyShape(
  shape: PaneShape,
  readings: readonly TapeReading[],
  { tape = handTape, levels = houseLevels }: { tape?: TapeError; levels?: TestLevels } = {},
): Survey {
  const model = shapeModel(shape);
  const used = usable(model, readings);
  const fit = adjustTaped(model, used, { tape, levels });
  const isBroken = !fit && shape.kind === 'polygon' && used.length >= 2 * shape.corners - 3;
  if (!fit)
    return {
      ...nothing,
      shape,
      status: isBroken ? 'impossible' : 'nothing',
      adjustment: null,
      outline: null,
      path: null,
      boxSigmaMm: null,
      impossible: isBroken ? used.map((r) => r.measure) : [],
    };
  const path = model.outline(fit.shape);
  const box = (p: Numbers) => boxOf(model.outline(p));
  const spread = (f: (p: Numbers) => number) => Math.sqrt(Math.max(0, quadratic(slopeOf(f, fit.shape), fit.covariance)));
  const outline = flatten(path);
  const base = {
    shape,
    adjustment: fit,
    outline,
    path,
    crookedness: null,
    bowsMm: noBows,
    boxSigmaMm: { width: spread((p) => box(p).maxX - box(p).minX), height: spread((p) => box(p).maxY - box(p).minY) },
  };
  const cannotCheck = [...(fit.redundancy === 0 ? ['No tape here checks another: a slip would pass unseen.'] : []), ...model.blindTo];
  if (fit.passes) return { ...nothing, ...base, status: fit.redundancy === 0 ? 'unchecked' : 'agreeing', possibleOutlines: [outline], cannotCheck };
  const explained = weighSlips(model, used, tape);
  const blamed = explained.map((x) => x.suspect).filter((s) => s.hypothesis.kind !== 'no-slip');
  const outlines = explained.filter((x) => x.suspect.probability >= 0.02).map((x) => flatten(model.outline(x.fit.shape)));
  return {
    ...nothing,
    ...base,
    status: 'doubtful',
    suspects: explained.map((x) => x.suspect),
    next: nextTape(model, explained, used, tape),
    disagreeMm: blamed.length ? Math.min(...blamed.filter((s) => s.probability > 0.05 * blamed[0]!.probability).map((s) => Math.abs(s.slipMm))) : 0,
    possibleOutlines: outlines.length ? outlines : [outline],
    cannotCheck,
  };
}
