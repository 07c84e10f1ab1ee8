import type { Groove, Panel, Recess } from '@yellow-pane/contracts';
import { capital, formatDifference, formatLength, type UnitSystem } from '../ground/index.js';
import type { EdgeDoubt } from './edge.js';
import type { PanelDoubt, PanelSurvey } from './panel.js';
import { surveyWhy, verdictText } from './words.js';

/** What a panel is called by what it is. */
export const panelNames: Readonly<Record<Panel['what'], string>> = { door: 'door', panel: 'wall panel', drawer: 'drawer front', 'lift-wall': 'wall of a lift' };
const wayNames: Readonly<Record<Groove['run']['way'], string>> = { upright: 'upright groove', level: 'level groove', frame: 'frame of grooves' };
/** A groove as it is spoken of: its way and its number among all. */
export const grooveName = (groove: Groove, all: readonly Pick<Groove, 'id'>[]): string => {
  const way = wayNames[groove.run.way];
  return `${groove.form === 'moulding' ? way.replace('groove', 'moulding') : way} ${all.findIndex((g) => g.id === groove.id) + 1}`;
};

/** A recess as it is spoken of. */
export const recessName = (recess: Pick<Recess, 'id'>, all: readonly Pick<Recess, 'id'>[]): string => `recess ${all.findIndex((r) => r.id === recess.id) + 1}`;

/** A string that is shorter than the straight way. */
export const edgeDoubtText = ({ byMm }: EdgeDoubt, system: UnitSystem): string =>
  `The string over the edge is ${formatDifference(Math.abs(byMm), system)} shorter than the edge is thick: no string is. Tape one of them again.`;

/** What does not fit, in plain words, and what would settle it. */
export function panelDoubtText(doubt: PanelDoubt, parts: Pick<Panel, 'grooves' | 'recesses' | 'hardware'>, system: UnitSystem): string {
  const f = (mm: number) => formatDifference(Math.abs(mm), system);
  const groove = parts.grooves.find((g) => g.id === doubt.part);
  const recess = parts.recesses.find((r) => r.id === doubt.part);
  const name = groove ? `The ${grooveName(groove, parts.grooves)}` : recess ? capital(recessName(recess, parts.recesses)) : '';
  const part = parts.hardware.find((h) => h.id === doubt.part);
  switch (doubt.is) {
    case 'groove-girth':
      return `${name}: the string is ${f(doubt.byMm)} ${doubt.byMm > 0 ? 'longer' : 'shorter'} than its width and depth make. Press it into the corners and read it again, or measure the depth again.`;
    case 'groove-sum':
      return `${name}: its places and what is left to the far edge come to ${f(doubt.byMm)} ${doubt.byMm > 0 ? 'more' : 'less'} than the face. Tape from the other edge again.`;
    case 'groove-outside':
    case 'recess-outside':
      return `${name} reaches ${f(doubt.byMm)} past the face. Tape its place again.`;
    case 'groove-through':
    case 'recess-through':
      return `${name} would be deeper than the edge is thick. Measure its depth again.`;
    case 'groove-narrow':
      return `${name} would be ${f(doubt.byMm)} narrower than its own two sides. Tape it from outside to outside.`;
    case 'recess-narrow':
      return `${name} would have no field: its walls or its round corners are wider than half of it. Tape its mouth, how far its walls lean in and its corners again.`;
    case 'recess-overlap':
      return `${name} would lie ${f(doubt.byMm)} over another one. Tape the place of both again.`;
    case 'hardware-outside':
      return `${part?.what ?? 'Hardware'} would stand ${f(doubt.byMm)} outside the face. Tape its place again.`;
    case 'ribs-none':
      return 'No sheet has such ribs: a wave is no deeper than half its pitch, and flats are no wider than it. Measure pitch, depth and flats again.';
    case 'ribs-girth':
      return `Ribs: the string is ${f(doubt.byMm)} ${doubt.byMm > 0 ? 'longer' : 'shorter'} than pitch and depth make. Lay it from crest to crest again, pressed into the valley, or measure them again.`;
    case 'ribs-hollows':
      return 'Grooves and recesses of a corrugated sheet are not reckoned with: enter it as a plain panel, or without them.';
    case 'dome-none':
      return 'It would be so round that its corners lie on no ball: lay the straightedge on its middle and measure both bows again.';
    case 'dome-hollows':
      return 'Grooves, recesses and ribs of a domed sheet are not reckoned with: enter it without them.';
    case 'edge-girth':
      return edgeDoubtText(doubt, system);
  }
}

/** Headline and body of the verdict on what was taped of a panel. */
export function panelVerdict(
  survey: PanelSurvey,
  parts: Pick<Panel, 'grooves' | 'recesses' | 'hardware' | 'wraps'>,
  system: UnitSystem,
): { headline: string; body: string } {
  const { face, doubts } = survey;
  if (face.status === 'nothing')
    return { headline: 'Nothing taped yet.', body: 'Tape a width and a height of its face, seen from the front. The others check them.' };
  if (face.status === 'impossible')
    return {
      headline: 'These tapes cannot belong to one face.',
      body: 'Tape the marked ones again: a diagonal is longer than two sides, or nothing was read.',
    };
  if (face.status === 'doubtful') return verdictText(face, system);
  if (doubts.length)
    return {
      headline: doubts.length === 1 ? 'One thing does not fit.' : `${doubts.length} things do not fit.`,
      body: panelDoubtText(doubts[0]!, parts, system),
    };
  const isWrapped = Object.values(parts.wraps).some((w) => w !== 'trimmed');
  const edge = isWrapped && !survey.edge ? ' Tape the thickness of its edge too: film is to go over it.' : '';
  if (face.status === 'two-tapes') return { headline: 'A width and a height: enough to cut.', body: `Two more widths, two heights and both diagonals say whether it is square.${edge}` }; // prettier-ignore
  const said = verdictText(face, system);
  return { ...said, body: `${said.body}${edge}` };
}

/** Figures of a panel, for the list beside its drawing. */
export function panelNumbers(survey: PanelSurvey, parts: Pick<Panel, 'grooves' | 'recesses'>, system: UnitSystem): { name: string; value: string }[] {
  const f = (mm: number) => formatLength(mm, system);
  return [
    ...(survey.edge ? [{ name: 'Film over its edge', value: f(survey.edge.girthMm) }] : []),
    ...survey.grooves.flatMap((g) =>
      g.girthMm === null ? [] : [{ name: `Girth of ${grooveName(g.groove, parts.grooves)}`, value: `${f(g.girthMm)}, ${f(g.slackMm)} more than it is wide` }],
    ),
    ...(survey.dome ? [{ name: 'Film over its middle', value: `${f(survey.dome.overMm.across)} across, ${f(survey.dome.overMm.up)} upwards` }] : []),
    ...(survey.ribs
      ? [{ name: 'Film from crest to crest', value: `${f(survey.ribs.girthMm)}, ${Math.round(100 * survey.ribs.moreFrac)} % more than it is wide` }]
      : []),
    ...survey.recesses.map((r) => ({ name: `Film in ${recessName(r.recess, parts.recesses)}`, value: `${f(2 * r.slackMm)} more than it is wide and high` })),
  ];
}

/** How the verdict on a panel came about. */
export const panelWhy = (survey: PanelSurvey): string[] => [
  ...surveyWhy(survey.face),
  'A groove’s string is weighed against its width and depth (±0.5 mm, string ±1 mm, 1 σ: house rule), its places from both edges against the face. Two claims are told apart at 1 %; the piece takes the longer of both (docs/models/panels.md).',
];
