import type { Masonry, Wall } from '@yellow-pane/contracts';
import { capital, formatDifference, formatLength, type UnitSystem } from '../ground/index.js';
import { jointsOf } from './masonry.js';
import { CORNER_RULER_MM, type InsideReturn } from './inside-corner.js';
import { wallHeights } from './wall.js';
import type { WallBody, WallCorner, WallDoubt, WallSide, WallSurvey } from './wall.js';
import { adjustedWhy, slipVerdict } from './taped-words.js';

/** Less is nothing worth a word, mm. @source common practice: a tape is read within 2 mm, a line level within as much */
const NOTABLE_MM = 3;
const bondNames: Readonly<Record<Masonry['bond'], string>> = { running: 'running bond', thirds: 'third bond', stack: 'stack bond' };

/** What a wall is like, in plain words; empty: as level, plumb and straight as its tapes can tell. */
export function wallFacts(body: WallBody, system: UnitSystem): string[] {
  const f = (mm: number) => formatDifference(Math.abs(mm), system);
  const out: string[] = [];
  if (body.riseMm)
    for (const [name, rise] of [
      ['floor', body.riseMm.floor],
      ['ceiling', body.riseMm.ceiling],
    ] as const)
      // prettier-ignore
      if (Math.abs(rise) >= NOTABLE_MM && !body.isBroken[name]) out.push(`its ${name} ${rise > 0 ? 'rises' : 'falls'} by ${f(rise)} from left to right`);
  for (const [name, sag] of [
    ['floor', body.sagMm.floor],
    ['ceiling', body.sagMm.ceiling],
  ] as const)
    // prettier-ignore
    if (Math.abs(sag) >= NOTABLE_MM) out.push(`its ${name} ${sag > 0 ? 'lies' : 'stands'} ${f(sag)} ${sag > 0 ? 'lower' : 'higher'} in the middle`);
  for (const name of ['floor', 'ceiling'] as const) {
    const breaks = body[name].length - 2;
    if (body.isBroken[name]) out.push(`its ${name} breaks ${breaks === 1 ? 'once' : `${breaks} times`}`);
  }
  const taper = body.widthMm.top - body.widthMm.bottom;
  if (Math.abs(taper) >= NOTABLE_MM) out.push(`it is ${f(taper)} ${taper > 0 ? 'wider' : 'narrower'} at the top than at the foot`);
  const high = body.heightMm.left - body.heightMm.right;
  if (!body.riseMm && Math.abs(high) >= NOTABLE_MM) out.push(`it is ${f(high)} higher on the ${high > 0 ? 'left' : 'right'}`);
  if (body.rackMm !== null && Math.abs(body.rackMm) >= NOTABLE_MM) out.push(`its top stands ${f(body.rackMm)} to the ${body.rackMm > 0 ? 'right' : 'left'} of its foot`); // prettier-ignore
  return out.map((s) => `${capital(s)}.`);
}

/** What does not fit, in plain words, and what would settle it. */
export function wallDoubtText(doubt: WallDoubt, parts: Pick<Wall, 'hardware'> & Pick<WallSurvey, 'corners'>, system: UnitSystem): string {
  switch (doubt.is) {
    case 'outside':
      return `${parts.hardware.find((h) => h.id === doubt.part)?.what ?? 'Something'} would stand ${formatDifference(doubt.byMm, system)} outside the wall. Tape its place again.`;
    case 'corner-height': {
      const other = parts.corners[doubt.side].beside?.name ?? 'the wall beside it';
      return `The corner on its ${doubt.side} is ${formatDifference(Math.abs(doubt.byMm), system)} ${doubt.byMm > 0 ? 'higher' : 'lower'} here than from ${other}, and it is one corner. Tape its height again from both.`;
    }
    case 'break-outside':
      return `A break would stand ${formatDifference(doubt.byMm, system)} past the right end. Tape its place from the left end again.`;
    case 'break-crossed':
      return 'At a break the ceiling would lie under the floor. Tape it up and down from the line again; what lies on the other side of the line has a minus.';
    case 'break-untaped':
      return doubt.line === 'floor'
        ? 'Its floor breaks: tape down from the same level line at both ends too.'
        : 'Its ceiling breaks: tape up from the same level line at both ends too.';
    case 'courses':
      return `${doubt.counted} courses were counted, its height and pitch make ${doubt.expected}. Count again, or tape the pitch over ten courses again.`;
    case 'units':
      return `${doubt.counted} units were counted in the first course, its width and pitch make ${doubt.expected}. Count again, or tape the pitch over ten units again.`;
  }
}

/** What becomes of film at one end of a wall, in a sentence. */
export function cornerText(side: WallSide, c: WallCorner, system: UnitSystem, asked: InsideReturn): string {
  const end = `${capital(side)} end`;
  if (c.is === 'stop') return `${end}: film stops and is trimmed there.`;
  const angle = c.angleDeg === null ? '' : ` of ${Math.round(c.angleDeg)}°`;
  const other = c.beside ? ` with ${c.beside.name}` : '';
  const f = (mm: number) => formatDifference(mm, system);
  if (c.is === 'outside')
    return `${end}: outside corner${angle}${other}. ${c.isFirst ? 'This film goes round it.' : 'The other film comes round it; this one is laid over.'}`;
  const wander = c.wanderMm === null ? ' Lay a straightedge along it: how far it wanders decides the return.' : '';
  return c.isFirst
    ? `${end}: inside corner${angle}${other}. This film is first and turns ${f(asked.returnMm)} on to the other wall; ${f(asked.leastLapMm)} of lap are left at the narrowest.${wander}`
    : `${end}: inside corner${angle}${other}. The other film is first; this one goes into the corner and is trimmed along a ruler of ${f(CORNER_RULER_MM)}.${wander}`;
}

/** Headline and body of the verdict on what was taped of a wall. */
export function wallVerdict(survey: WallSurvey, parts: Pick<Wall, 'hardware'>, system: UnitSystem): { headline: string; body: string } {
  const facts = survey.body ? wallFacts(survey.body, system) : [];
  if (survey.status === 'nothing')
    return { headline: 'Nothing taped yet.', body: 'Tape a width at the foot and a height. A laser line, up and down at three places, says whether floor and ceiling are level.' }; // prettier-ignore
  if (survey.suspects.length > 0) return slipVerdict(survey, system);
  if (survey.doubts.length)
    return {
      headline: survey.doubts.length === 1 ? 'One thing does not fit.' : `${survey.doubts.length} things do not fit.`,
      body: wallDoubtText(survey.doubts[0]!, { ...parts, corners: survey.corners }, system),
    };
  if (survey.status === 'unchecked') return { headline: 'No tape here checks another yet.', body: [...facts, ...survey.cannotCheck].join(' ') };
  return { headline: 'The tapes agree.', body: [...facts, ...survey.cannotCheck].join(' ') || 'Level, plumb and straight, as far as these tapes can tell.' };
}

/** Figures of a wall, for the list beside its drawing. */
export function wallNumbers(survey: WallSurvey, masonry: Masonry | null, system: UnitSystem): { name: string; value: string }[] {
  const { body } = survey;
  if (!body) return [];
  const f = (mm: number) => formatLength(mm, system);
  const heights = wallHeights(body);
  const joints = masonry && jointsOf(masonry, { widthMm: body.widthMm.bottom, heightMm: Math.max(body.heightMm.left, body.heightMm.right) });
  const units = joints?.courses.flatMap((c) => c.units) ?? [];
  const cut = units.filter((u) => u.is === 'cut').length;
  return [
    { name: 'Width, foot × top', value: `${f(body.widthMm.bottom)} × ${f(body.widthMm.top)}` },
    { name: 'Height, least to most', value: `${f(Math.min(...heights))} to ${f(Math.max(...heights))}` },
    ...(joints && masonry
      ? [
          { name: 'Courses', value: `${joints.courses.length}, ${bondNames[masonry.bond]}` },
          { name: 'Units', value: `${units.length}, of them ${units.filter((u) => u.is === 'half').length} halves and ${cut} cut` },
          { name: 'Joints in all', value: system === 'mm' ? `${joints.lengthM.toFixed(1)} m` : `${(joints.lengthM / 0.3048).toFixed(0)} ft` },
        ]
      : []),
  ];
}

/** How the verdict on a wall came about. */
export const wallWhy = (survey: WallSurvey): string[] =>
  adjustedWhy(
    survey,
    'A tape is taken as ±(1 mm + 0.1 ‰), a drop from a laser line as ±1.5 mm, 1 σ: house rule.',
    'Width, height, plumb, and how floor and ceiling rise and hang through are the numbers that are sought; a corner that two walls share is one arris and has one height (docs/models/walls.md).',
  );
