import type { Masonry } from '@yellow-pane/contracts';

/** One block or brick of a course, from joint to joint. Cut: shorter than its fellows by more than a joint; a half is one of them. */
export interface Unit {
  readonly fromMm: number;
  readonly toMm: number;
  readonly is: 'whole' | 'half' | 'cut';
}
/** One course between two bed joints, with the middles of its head joints. */
export interface Course {
  readonly lowMm: number;
  readonly highMm: number;
  readonly headsMm: readonly number[];
  readonly units: readonly Unit[];
  readonly isCut: boolean;
}
/** The joints of a wall, measured from its left end and its foot, mm. */
export interface Joints {
  readonly bedsMm: readonly number[];
  readonly courses: readonly Course[];
  /** All of them together, m. */
  readonly lengthM: number;
}

/** A unit within so much of half its fellows is a half. @source house rule: a joint’s width, about */
const HALF_WITHIN = 0.06;
/** Shorter at an end is a smear of mortar, no unit, mm. @source house rule */
const NOTHING_MM = 2;
/** By how much of the pitch each course stands aside from the one below. @source common practice: running bond breaks joints by half, third bond by a third */
const shifts: Readonly<Record<Masonry['bond'], (course: number) => number>> = {
  stack: () => 0,
  running: (course) => (course % 2) / 2,
  thirds: (course) => (course % 3) / 3,
};

/** Places from one on, each a pitch farther, that lie inside a length. */
function placesIn(firstMm: number, pitchMm: number, lengthMm: number): number[] {
  const first = firstMm - Math.floor((firstMm - NOTHING_MM) / pitchMm) * pitchMm;
  const count = Math.max(0, Math.ceil((lengthMm - NOTHING_MM - first) / pitchMm));
  return Array.from({ length: count }, (_, i) => first + i * pitchMm);
}

/** Where the joints of a wall run, by its pitch, its bond, its first bed and its first head joint. */
export function jointsOf(m: Masonry, size: { readonly widthMm: number; readonly heightMm: number }): Joints {
  // below the first bed lies the first course; what the pitch would put below it is floor
  const bedsMm = placesIn(m.firstBedMm, m.pitchUpMm, size.heightMm);
  const levels = [0, ...bedsMm, size.heightMm];
  // the first head joint was taped in the lowest course that is there
  const courses = levels.slice(1).map((highMm, course): Course => {
    const lowMm = levels[course]!;
    const headsMm = placesIn(m.firstHeadMm + shifts[m.bond](course) * m.pitchAcrossMm, m.pitchAcrossMm, size.widthMm);
    const ends = [0, ...headsMm, size.widthMm];
    const units = ends.slice(1).map((toMm, i): Unit => {
      const share = (toMm - ends[i]!) / m.pitchAcrossMm;
      return { fromMm: ends[i]!, toMm, is: share > 1 - HALF_WITHIN ? 'whole' : Math.abs(share - 0.5) <= HALF_WITHIN ? 'half' : 'cut' };
    });
    return { lowMm, highMm, headsMm, units, isCut: highMm - lowMm < (1 - HALF_WITHIN) * m.pitchUpMm };
  });
  const lengthMm = bedsMm.length * size.widthMm + courses.reduce((sum, c) => sum + c.headsMm.length * (c.highMm - c.lowMm), 0);
  return { bedsMm, courses, lengthM: lengthMm / 1000 };
}
