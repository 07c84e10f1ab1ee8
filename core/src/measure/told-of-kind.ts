import type { Reading, SurfaceOf } from '@yellow-pane/contracts';
import { boundingBox, vec, type Polygon } from '../geometry/index.js';
import type { UnitSystem } from '../ground/index.js';
import { columnOutline } from './column.js';
import { surveyColumn } from './column-survey.js';
import { columnNumbers, columnVerdict, columnWhy } from './column-words.js';
import { surveyCounter } from './counter-survey.js';
import { counterDoubtText, counterNumbers, counterVerdict, counterWhy } from './counter-words.js';
import type { NextTape, Suspect } from './hypotheses.js';
import type { DrySurface } from './kinds.js';
import { surveyPanel } from './panel-survey.js';
import { panelDoubtText, panelNumbers, panelVerdict, panelWhy } from './panel-words.js';
import type { TapedRecords } from './readings.js';
import { surveySign } from './sign-survey.js';
import { signDoubtText, signNumbers, signVerdict, signWhy } from './sign-words.js';
import type { Survey } from './survey.js';
import { surveyWall } from './wall-survey.js';
import { wallDoubtText, wallNumbers, wallVerdict, wallWhy } from './wall-words.js';

/** What the tapes of a surface that film is laid on dry say, in words, whatever its kind. */
export interface Told {
  readonly status: Survey['status'];
  readonly isSigned: boolean;
  readonly inForce: readonly Reading[];
  readonly words: { readonly headline: string; readonly body: string };
  readonly suspects: readonly Suspect<readonly number[]>[];
  readonly next: NextTape | null;
  /** What else does not fit; `part`: the groove, thing or line that it is about. */
  readonly doubts: readonly { readonly part: string | null; readonly text: string }[];
  readonly numbers: readonly { readonly name: string; readonly value: string }[];
  readonly why: readonly string[];
  /** As it stands before one, its lower left corner at 0, 0; null: it has no size. */
  readonly outline: Polygon | null;
}

const atNought = (outline: Polygon | null | undefined): Polygon | null => {
  if (!outline) return null;
  const box = boundingBox(outline);
  return outline.map((p) => vec(p.x - box.minX, p.y - box.minY));
};

type ToldOf<S extends DrySurface> = (surface: S, records: TapedRecords, units: UnitSystem) => Told;
/** How the survey of each kind is told. */
const toldOfKind: { readonly [K in DrySurface['kind']]: ToldOf<SurfaceOf<K>> } = {
  column(surface, records, units) {
    const { survey, ...taken } = surveyColumn(surface, records);
    const { status, suspects, next, body } = survey;
    return { ...taken, status, suspects, next, doubts: [], words: columnVerdict(survey, units), numbers: body ? columnNumbers(body, units) : [], why: columnWhy(survey), outline: atNought(body && columnOutline(body)) }; // prettier-ignore
  },
  panel(surface, records, units) {
    const { survey, ...taken } = surveyPanel(surface, records);
    const { status, face } = survey;
    const doubts = survey.doubts.map((d) => ({ part: d.part, text: panelDoubtText(d, surface, units) }));
    return { ...taken, status, suspects: face.suspects, next: face.next, doubts, words: panelVerdict(survey, surface, units), numbers: panelNumbers(survey, surface, units), why: panelWhy(survey), outline: atNought(face.outline) }; // prettier-ignore
  },
  wall(surface, records, units) {
    const { survey, ...taken } = surveyWall(surface, records);
    const { status, suspects, next } = survey;
    const doubts = survey.doubts.map((d) => ({ part: d.part, text: wallDoubtText(d, { hardware: surface.hardware, corners: survey.corners }, units) }));
    return { ...taken, status, suspects, next, doubts, words: wallVerdict(survey, surface, units), numbers: wallNumbers(survey, surface.masonry, units), why: wallWhy(survey), outline: atNought(survey.body?.outline) }; // prettier-ignore
  },
  counter(surface, records, units) {
    const { survey, ...taken } = surveyCounter(surface, records);
    const { status, suspects, next } = survey;
    const doubts = survey.doubts.map((d) => ({ part: d.part, text: counterDoubtText(d, surface, units) }));
    return { ...taken, status, suspects, next, doubts, words: counterVerdict(survey, surface, units), numbers: counterNumbers(survey, units), why: counterWhy(survey), outline: atNought(survey.body?.outline) }; // prettier-ignore
  },
  sign(surface, records, units) {
    const { survey, ...taken } = surveySign(surface, records);
    const { status, face, ground } = survey;
    const doubts = survey.doubts.map((d) => ({ part: d.part, text: signDoubtText(d, surface, units) }));
    return { ...taken, status, suspects: face.suspects, next: face.next, doubts, words: signVerdict(survey, surface, units), numbers: signNumbers(survey, units), why: signWhy(survey), outline: ground }; // prettier-ignore
  },
};

/** What the tapes of a surface say, in the words of its kind. */
export const toldOf = (surface: DrySurface, records: TapedRecords, units: UnitSystem): Told =>
  (toldOfKind[surface.kind] as ToldOf<DrySurface>)(surface, records, units);
