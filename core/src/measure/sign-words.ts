import type { Sign, SignLine } from '@yellow-pane/contracts';
import { formatDifference, formatLength, type UnitSystem } from '../ground/index.js';
import { leastStrokeMm, readFromM, type SignDoubt, type SignSurvey } from './sign.js';
import { surveyWhy, verdictText } from './words.js';

/** What a sign is called by what it is on. */
export const signNames: Readonly<Record<Sign['what'], string>> = { canvas: 'canvas sign', board: 'sign board', wall: 'wall lettering', door: 'door lettering' };
export const textureNames: Readonly<Record<Sign['texture'], string>> = {
  smooth: 'smooth',
  fine: 'fine weave or grain',
  rough: 'rough',
  unknown: 'nobody felt it',
};

/** A line as it is spoken of: what is written, or what the figure is. */
export const lineName = (line: SignLine): string => (line.is === 'letters' ? `“${line.text}”` : line.what);

/** What does not fit, in plain words, and what would settle it. */
export function signDoubtText(doubt: SignDoubt, parts: Pick<Sign, 'lines' | 'hardware' | 'texture'>, system: UnitSystem): string {
  const f = (mm: number) => formatDifference(Math.abs(mm), system);
  const named = (id: string) => {
    const line = parts.lines.find((l) => l.id === id);
    return line ? lineName(line) : (parts.hardware.find((h) => h.id === id)?.what ?? 'Something');
  };
  switch (doubt.is) {
    case 'outside':
      return `${named(doubt.part)} would reach ${f(doubt.byMm)} past the edge of its ground. Make it smaller, or move it.`;
    case 'on-hardware':
      return `${named(doubt.part)} would lie on “${named(doubt.other)}”. Move it, or say that this comes off.`;
    case 'overlap':
      return `${named(doubt.part)} and ${named(doubt.other)} would lie on each other. Move one of them.`;
    case 'thin':
      return `${named(doubt.part)} has strokes of about ${f(doubt.byMm)}; under ${f(leastStrokeMm[parts.texture])} they are lost ${parts.texture === 'smooth' ? 'at weeding' : 'on this ground'}. Make it taller, or set it heavier.`;
    case 'hardware-outside':
      return `${named(doubt.part)} would stand ${f(doubt.byMm)} outside the ground. Tape its place again.`;
    case 'unread':
      return `${named(doubt.part)} cannot be drawn. ${doubt.message}`;
  }
}

/** Headline and body of the verdict on what was taped of a sign. */
export function signVerdict(survey: SignSurvey, parts: Pick<Sign, 'lines' | 'hardware' | 'texture'>, system: UnitSystem): { headline: string; body: string } {
  const { face, doubts } = survey;
  if (face.status === 'nothing')
    return { headline: 'Nothing taped yet.', body: 'Tape a width and a height of its ground, seen from the front. The others check them.' };
  if (face.status === 'impossible')
    return {
      headline: 'These tapes cannot belong to one ground.',
      body: 'Tape the marked ones again: a diagonal is longer than two sides, or nothing was read.',
    };
  if (face.status === 'doubtful') return verdictText(face, system);
  if (doubts.length)
    return {
      headline: doubts.length === 1 ? 'One thing does not fit.' : `${doubts.length} things do not fit.`,
      body: signDoubtText(doubts[0]!, parts, system),
    };
  const letters = parts.lines.length ? '' : ' Now write what stands on it.';
  if (face.status === 'two-tapes') return { headline: 'A width and a height: enough to place letters.', body: `More widths and heights and both diagonals say whether it is square.${letters}` }; // prettier-ignore
  const said = verdictText(face, system);
  return { ...said, body: `${said.body}${letters}` };
}

/** Figures of a sign, for the list beside its drawing. */
export function signNumbers(survey: SignSurvey, system: UnitSystem): { name: string; value: string }[] {
  const f = (mm: number) => formatLength(mm, system);
  const far = (m: number) => (system === 'mm' ? `${Math.round(m)} m` : `${Math.round(m / 0.3048)} ft`);
  return [
    ...survey.marks.map((m) => ({
      name: lineName(m.line),
      value: `${f(m.box.maxX - m.box.minX)} wide, strokes about ${formatDifference(m.strokeMm, system)}`,
    })),
    ...survey.marks
      .filter((m) => m.line.is === 'letters')
      .map((m) => ({ name: `${lineName(m.line)} is read`, value: `from about ${far(readFromM(m.line.heightMm))} at a glance` })),
    ...(survey.clearMm !== null && survey.clearMm >= 0 ? [{ name: 'Nearest to an edge', value: f(survey.clearMm) }] : []),
  ];
}

/** How the verdict on a sign came about. */
export const signWhy = (survey: SignSurvey): string[] => [
  ...surveyWhy(survey.face),
  'Letters stand where their baseline and their left end, middle or right end are said to be; their widths are what is drawn, not the space a face leaves beside them. Strokes: area by half the outline (docs/models/signs.md). Read at a glance: four times the five minutes of arc that sight of 6/6 tells apart.',
];
