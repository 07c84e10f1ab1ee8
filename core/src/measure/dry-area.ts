import { pathArea } from '../geometry/index.js';
import { surveyCounter } from './counter-survey.js';
import { coverOfColumn } from './column.js';
import { surveyColumn } from './column-survey.js';
import type { DrySurface } from './kinds.js';
import { coverOfPanel } from './panel.js';
import { surveyPanel } from './panel-survey.js';
import { areaOfMarksM2 } from './sign.js';
import { surveySign } from './sign-survey.js';
import type { TapedRecords } from './readings.js';
import { wallFaceMm2 } from './wall.js';
import { surveyWall } from './wall-survey.js';

type AreaOf<S extends DrySurface> = (surface: S, records: TapedRecords) => number | null;
/** What film covers of each kind that it is laid on dry, m²; null: it has no size. */
const areaOfKind: { readonly [K in DrySurface['kind']]: AreaOf<Extract<DrySurface, { kind: K }>> } = {
  column(surface, records) {
    const cover = coverOfColumn(surveyColumn(surface, records).survey);
    return cover && (cover.girthMm * cover.heightMm) / 1e6;
  },
  panel(surface, records) {
    const cover = coverOfPanel(surveyPanel(surface, records).survey);
    return cover && ((cover.widthMm * cover.heightMm) / 1e6) * (surface.faces === 'both' ? 2 : 1);
  },
  wall(surface, records) {
    const { survey } = surveyWall(surface, records);
    const face = wallFaceMm2(survey);
    const open = surface.hardware.filter((h) => h.handling === 'open').reduce((sum, h) => sum + h.widthMm * h.heightMm, 0);
    return face && Math.max(0, face - open) / 1e6;
  },
  counter(surface, records) {
    const { body } = surveyCounter(surface, records).survey;
    return body && pathArea(body.path) / 1e6;
  },
  sign(surface, records) {
    const { marks } = surveySign(surface, records).survey;
    return marks.length ? areaOfMarksM2(marks) : null;
  },
};
/** What film covers of a surface that it is laid on dry, m²; null: it has no size. */
export const dryAreaM2 = (surface: DrySurface, records: TapedRecords): number | null => (areaOfKind[surface.kind] as AreaOf<DrySurface>)(surface, records);
