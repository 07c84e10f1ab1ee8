import type { RecordKind } from './record-kinds.js';
import type { RecordOf } from './record-schemas.js';

/** A record that another one names. */
export interface Reference {
  /** Field that names it, from the record. */
  readonly path: string;
  readonly kind: RecordKind;
  readonly id: string;
  /** It may belong to another job than the record that names it. */
  readonly isOfAnyJob?: true;
  /** In a job that is brought in from another bench it may have stayed there: who worked, what a roll was cut from, what a version replaces. */
  readonly mayStayAbroad?: true;
}

const abroad = { mayStayAbroad: true } as const;
const ref = (path: string, kind: RecordKind, id: string | null | undefined, more: Partial<Reference> = {}): Reference[] =>
  id ? [{ path, kind, id, ...more }] : [];
const person = (id: string | null | undefined, path = 'personId') => ref(path, 'person', id, abroad);

/** What each kind of record names. A new kind says here what it points at, and is then checked like all others. */
const byKind: { readonly [K in RecordKind]: (r: RecordOf<K>) => Reference[] } = {
  firm: () => [],
  person: (r) => ref('firmId', 'firm', r.firmId),
  job: (r) => ref('firmId', 'firm', r.firmId),
  place: (r) => ref('jobId', 'job', r.jobId),
  surface: (r) => [
    ...ref('jobId', 'job', r.jobId),
    ...ref('placeId', 'place', r.placeId),
    ...ref('measuredLikeId', 'surface', r.measuredLikeId),
    ...(r.kind === 'wall' ? ref('nextId', 'surface', r.nextId) : []),
    ...(r.kind === 'panel' || r.kind === 'counter' ? ref('besideId', 'surface', r.besideId) : []),
    ...ref('filmId', 'film', r.filmId),
    ...person(r.signed?.personId, 'signed.personId'),
    ...((r.kind === 'pane' ? r.curved?.bows : null) ?? []).flatMap((b, i) => person(b.personId, `curved.bows.${i}.personId`)),
  ],
  reading: (r) => [
    ...ref('jobId', 'job', r.jobId),
    ...ref('surfaceId', 'surface', r.surfaceId),
    ...ref('supersedesId', 'reading', r.supersedesId),
    ...person(r.personId),
  ],
  film: (r) => ref('replacesId', 'film', r.replacesId, abroad),
  roll: (r) => [
    ...ref('filmId', 'film', r.filmId),
    ...ref('fromRollId', 'roll', r.fromRollId, abroad),
    ...ref('fromPlanId', 'plan', r.fromPlanId, { isOfAnyJob: true, ...abroad }),
  ],
  plan: (r) => [
    ...ref('jobId', 'job', r.jobId),
    ...ref('filmId', 'film', r.filmId),
    ...r.pieces.flatMap((p, i) => [
      ...ref(`pieces.${i}.surfaceId`, 'surface', p.surfaceId),
      ...ref(`pieces.${i}.filmId`, 'film', p.filmId),
      ...p.parts.flatMap((part, k) => ref(`pieces.${i}.parts.${k}.surfaceId`, 'surface', part.surfaceId)),
    ]),
    ...r.layout.rolls.flatMap((x, i) => ref(`layout.rolls.${i}.rollId`, 'roll', x.rollId, abroad)),
    ...r.takenRollIds.flatMap((id, i) => ref(`takenRollIds.${i}`, 'roll', id, abroad)),
  ],
  logEntry: (r) => [...ref('jobId', 'job', r.jobId), ...ref('planId', 'plan', r.planId), ...ref('surfaceId', 'surface', r.surfaceId), ...person(r.personId)],
  rates: (r) => ref('firmId', 'firm', r.firmId),
  quote: (r) => [
    ...ref('firmId', 'firm', r.firmId),
    ...ref('ratesId', 'rates', r.ratesId),
    ...r.filmIds.flatMap((id, i) => ref(`filmIds.${i}`, 'film', id)),
    ...ref('acceptedFilmId', 'film', r.acceptedFilmId),
    ...ref('jobId', 'job', r.jobId),
  ],
  stockEntry: (r) => [
    ...ref('rollId', 'roll', r.rollId, abroad),
    ...ref('jobId', 'job', r.jobId),
    ...ref('planId', 'plan', r.planId, { isOfAnyJob: true }),
    ...person(r.personId),
  ],
  reservation: (r) => [...ref('rollId', 'roll', r.rollId), ...ref('jobId', 'job', r.jobId), ...ref('filmId', 'film', r.filmId), ...person(r.personId)],
  plotRun: (r) => [...ref('jobId', 'job', r.jobId), ...person(r.personId)],
  stepSet: (r) => [...ref('firmId', 'firm', r.firmId), ...ref('replacesId', 'stepSet', r.replacesId, abroad)],
  layEntry: (r) => [
    ...ref('jobId', 'job', r.jobId),
    ...ref('surfaceId', 'surface', r.surfaceId),
    ...ref('stepSetId', 'stepSet', r.stepSetId),
    ...ref('correctsId', 'layEntry', r.correctsId),
    ...ref('news.pinId', 'layEntry', r.news?.pinId),
    ...(r.acceptance?.panes ?? []).flatMap((p, i) => ref(`acceptance.panes.${i}.surfaceId`, 'surface', p.surfaceId)),
    ...ref('erasure.entryId', 'layEntry', r.erasure?.what === 'line' ? r.erasure.entryId : null),
    ...ref('erased.byEntryId', 'layEntry', r.erased?.byEntryId),
    ...ref('roll.rollId', 'roll', r.roll?.rollId, abroad),
    ...person(r.personId),
  ],
};

/** Records that a record names, each with the field that does. @param record as its schema reads it */
export const referencesOf = <K extends RecordKind>(kind: K, record: RecordOf<K>): Reference[] => byKind[kind](record);
