import type { Reading, Surface } from '@yellow-pane/contracts';
import { contentHash } from '../ground/index.js';
import {
  readingsHash,
  readingsInForce,
  surveyBelieving,
  surveyOpening,
  surveyShape,
  tapesOf,
  type Survey,
  type TapedRecords,
  type TapeReading,
} from '../measure/index.js';
import { chordReadings } from './chord.js';

/** The survey of one surface and whether its size is signed for; where an explanation was signed for, by that. `judged`: what the tapes say by themselves. */
export function surveySurface(surface: Surface, records: TapedRecords): { survey: Survey; isSigned: boolean; inForce: Reading[]; judged: Survey } {
  const inForce = readingsInForce(surface, records.surfaces, records.readings);
  const hash = readingsHash(inForce);
  const bent = surface.curved?.taped === 'over' ? bowsFor(surface, records) : null;
  const taped = tapesOf(inForce, records.readings);
  const key = `${hash}/${surface.calledCrooked}/${taped
    .flatMap((t) => (t.times! > 1 ? [t.measure + t.times!] : []))
    .sort()
    .join()}/${surface.shape ? contentHash(surface.shape) : ''}/${bent ? contentHash(bent.bows.map((b) => [b.way, b.atMm, b.depthMm])) : ''}`;
  const tapes = bent ? chordReadings(bent, taped) : taped;
  const survey = known.get(key) ?? (surface.shape ? surveyShape(surface.shape, tapes) : surveyOpening(tapes, { calledCrooked: surface.calledCrooked }));
  if (known.size > 2000) known.clear();
  known.set(key, survey);
  const isSigned = surface.signed !== null && surface.signed.readingsHash === hash;
  return { survey: (isSigned && believedSurvey(survey, key, surface, tapes)) || survey, judged: survey, inForce, isSigned };
}

/** What the explanation that was signed for leaves; null: none was named, or what it leaves is no one opening. */
function believedSurvey(judged: Survey, key: string, surface: Surface, tapes: readonly TapeReading[]): Survey | null {
  const believes = surface.signed?.believes;
  if (!believes || judged.status !== 'doubtful') return null;
  const at = `${key}/${believes}`;
  const survey = knownBeliefs.get(at) ?? surveyBelieving(judged, believes, tapes, surface.calledCrooked);
  if (knownBeliefs.size > 500) knownBeliefs.clear();
  knownBeliefs.set(at, survey);
  return survey;
}
const knownBeliefs = new Map<string, Survey | null>();

/** The bows that bring tapes laid over the glass to their chords: of the pane itself, or of the one it is measured like (a mirrored bow is as deep). */
function bowsFor(surface: Surface, records: Pick<TapedRecords, 'surfaces'>): Surface['curved'] {
  const like = surface.curved?.bows.length ? undefined : records.surfaces.find((s) => s.id === surface.measuredLikeId && !s.deletedAt);
  return like?.curved ? { ...like.curved, taped: 'over' } : surface.curved;
}

/** The same tapes give the same survey: judged once. */
const known = new Map<string, Survey>();
