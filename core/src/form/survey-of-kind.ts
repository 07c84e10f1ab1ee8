import type { Reading, Surface, SurfaceKind, SurfaceOf } from '@yellow-pane/contracts';
import type { Polygon } from '../geometry/index.js';
import {
  columnOutline,
  surveyColumn,
  surveyCounter,
  surveyPanel,
  surveySign,
  surveyWall,
  type ColumnSurvey,
  type Survey,
  type TapedRecords,
} from '../measure/index.js';
import { surveySurface } from './surface-survey.js';

/** What the tapes of a surface say, as far as every kind has it. */
export interface Surveyed {
  readonly status: (Survey | ColumnSurvey)['status'];
  readonly isSigned: boolean;
  readonly inForce: readonly Reading[];
  /** As it stands before one, mm: what it is drawn by in small; null: it has no size. */
  readonly outline: Polygon | null;
}
type SurveyOf<S extends Surface> = (surface: S, records: TapedRecords) => Surveyed;

/** How the tapes of each kind of surface are judged. */
const surveyOfKind: { readonly [K in SurfaceKind]: SurveyOf<SurfaceOf<K>> } = {
  pane(surface, records) {
    const { survey, isSigned, inForce } = surveySurface(surface, records);
    return { status: survey.status, isSigned, inForce, outline: survey.outline };
  },
  column(surface, records) {
    const { survey, isSigned, inForce } = surveyColumn(surface, records);
    return { status: survey.status, isSigned, inForce, outline: survey.body && columnOutline(survey.body) };
  },
  panel(surface, records) {
    const { survey, isSigned, inForce } = surveyPanel(surface, records);
    return { status: survey.status, isSigned, inForce, outline: survey.face.outline };
  },
  wall(surface, records) {
    const { survey, isSigned, inForce } = surveyWall(surface, records);
    return { status: survey.status, isSigned, inForce, outline: survey.body?.outline ?? null };
  },
  counter(surface, records) {
    const { survey, isSigned, inForce } = surveyCounter(surface, records);
    return { status: survey.status, isSigned, inForce, outline: survey.body?.outline ?? null };
  },
  sign(surface, records) {
    const { survey, isSigned, inForce } = surveySign(surface, records);
    return { status: survey.status, isSigned, inForce, outline: survey.ground };
  },
};

/** The survey of a surface, whatever its kind. */
export const surveyed = (surface: Surface, records: TapedRecords): Surveyed => (surveyOfKind[surface.kind] as SurveyOf<Surface>)(surface, records);
/** Whether a surface has a size that something can be cut to. */
export const isMeasured = ({ status }: Pick<Surveyed, 'status'>): boolean => status !== 'nothing' && status !== 'impossible';
