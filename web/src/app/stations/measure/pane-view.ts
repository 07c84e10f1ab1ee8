import type { MeasureKey, Reading, Pane, UnitSystem } from '@yellow-pane/contracts';
import {
  panesOf,
  askText,
  cutOfPane,
  enclosingRectangle,
  explanationKey,
  measureTitle,
  oddsText,
  offsetsInRow,
  pathArea,
  quotedSize,
  quotedWords,
  signable,
  suspectText,
  surveySurface,
  surveyWhy,
  tapesOf,
  verdictText,
} from '@yellow-pane/core';
import type { OpenJob } from '../../record/record.store';
import { formatDifference, formatLength, told } from '@yellow-pane/core/ground';
import { methodNames } from '@yellow-pane/core/cut';
import { keysToShow, shapeKeysToShow } from './measure.updaters';

type Method = keyof typeof methodNames;
type Answer = ReturnType<typeof cutOfPane>['answer'] | null;
type Surveyed = ReturnType<typeof surveySurface>;

/** How far a tape is from the adjusted shape, mm, with its sign. */
const residualText = (mm: number): string => (Math.abs(mm) < 0.05 ? '0' : `${mm > 0 ? '+' : '−'}${Math.abs(mm).toFixed(1)}`);

/** Overhang covers every explanation; what must fit is cut to one. */
const mustFit = (method: Method): boolean => method !== 'overhang' && method !== 'dry-template';

/** Tapes that contradict each other and nobody has signed for. */
const isBad = ({ survey, isSigned }: Surveyed): boolean => survey.status === 'impossible' || (survey.status === 'doubtful' && !isSigned);
const blamedOf = ({ survey }: Surveyed) => survey.suspects.filter((s) => s.hypothesis.kind !== 'no-slip');

/** What a piece of this pane has against it, or what is worth knowing of it. */
function cutNote(answer: Answer, method: Method): { text: string; isBlocked: boolean } | null {
  if (!answer) return { text: 'No film chosen for this pane: it is not on the roll.', isBlocked: false };
  if ('blocked' in answer) return { text: `${methodNames[method]}: ${answer.blocked}`, isBlocked: true };
  return answer.note ? { text: answer.note, isBlocked: false } : null;
}

/** What may have happened, the likeliest first; one of them may be signed for where the piece must fit. */
function suspectsOf(surveyed: Surveyed, surface: Pane, doc: OpenJob, method: Method, units: UnitSystem) {
  const { survey, judged, inForce } = surveyed;
  if (!isBad(surveyed) || survey.status === 'impossible') return [];
  const toSign = survey.status === 'doubtful' && mustFit(method) ? signable(judged, tapesOf(inForce, doc.readings), surface.calledCrooked) : [];
  return blamedOf(surveyed).map((s) => ({
    text: suspectText(s, units, surface.shape),
    slip: s.hypothesis.kind === 'slip' ? `${s.slipMm >= 0 ? '+' : '−'}${formatDifference(Math.abs(s.slipMm), units)}, ` : '',
    odds: oddsText(s.probability),
    key: explanationKey(s.hypothesis),
    canSign: toSign.includes(s),
  }));
}

/** Readings in force, as they were typed where that is in the units shown, and how far each is off. */
function rowsOf(surveyed: Surveyed, surface: Pane, units: UnitSystem) {
  const { adjustment } = surveyed.survey;
  if (!adjustment) return [];
  const shown = (r: Reading, mm: number) => (r.unit === units ? r.typed : formatLength(mm, units));
  const blamed = isBad(surveyed) ? blamedOf(surveyed) : [];
  return adjustment.readings.map((r) => ({
    key: r.measure,
    name: measureTitle(r.measure, surface.shape),
    typed: shown(
      surveyed.inForce.find((x) => x.measure === r.measure)!,
      r.readMm,
    ),
    residual: adjustment.redundancy > 0 ? residualText(r.residualMm) : '',
    isSuspect: blamed.some((s) => s.hypothesis.kind === 'slip' && s.hypothesis.measure === r.measure),
  }));
}

/** Box, area, lean and piece of an opening that is known well enough to have them. */
function factsOf({ survey }: Surveyed, surface: Pane, answer: Answer, keyCount: number, units: UnitSystem): { name: string; value: string }[] {
  const f = (mm: number) => formatLength(mm, units);
  const [box, lean] = [enclosingRectangle(survey), survey.crookedness];
  const piece = answer && 'piece' in answer ? answer.piece : null;
  const facts: { name: string; value: string }[] = [];
  if (box && keyCount > 2) facts.push({ name: 'Its outer box, wide × high', value: `${f(box.widthMm)} × ${f(box.heightMm)}` });
  if (surface.shape && survey.path) facts.push({ name: 'Glass', value: told(`${(pathArea(survey.path) / 1e6).toFixed(3)} m²`, units) });
  if (lean && survey.adjustment?.isDetermined && Math.abs(lean.rackMm) >= 1)
    facts.push({ name: lean.rackMm > 0 ? 'Top leans right by' : 'Top leans left by', value: formatDifference(Math.abs(lean.rackMm), units) });
  if (piece) {
    facts.push({ name: 'Piece, wide × high', value: `${f(piece.widthMm)} × ${f(piece.heightMm)}` });
    facts.push({ name: 'Method', value: methodNames[piece.method] });
  }
  return facts;
}

/**
 * What Measure shows of a pane: the fields of its drawing, what its tapes say to each other, and what a piece of it would be.
 * @param asksAll all eight tapes were asked for
 */
export function paneView(surface: Pane, doc: OpenJob, units: UnitSystem, asksAll: boolean) {
  const surveyed = surveySurface(surface, doc);
  const { survey, inForce, isSigned } = surveyed;
  const method = surface.method ?? doc.job.method;
  const needsAll = surface.calledCrooked || method === 'tucked-corner' || method === 'pre-cut' || asksAll;
  const next = survey.next;
  const keys: readonly MeasureKey[] = surface.shape
    ? shapeKeysToShow(surface.shape, inForce, next?.measure ?? null)
    : keysToShow(inForce, needsAll, next?.measure ?? null);
  const bad = isBad(surveyed);
  const film = doc.films.find((x) => x.id === surface.filmId);
  const answer = film ? cutOfPane(surface, doc, film).answer : null;
  const quoted = survey.status === 'nothing' ? quotedSize(surface, doc.surfaces, doc.readings) : null;
  const { design } = surface;
  return {
    surface,
    survey,
    inForce,
    quoted: quoted && quotedWords(quoted, units),
    isSigned,
    keys,
    isAll: keys.length > 2,
    offsetMm: design ? (offsetsInRow(surface, panesOf(doc.surfaces), (s) => surveySurface(s, doc).survey, design).get(surface.id) ?? 0) : 0,
    words: verdictText(survey, units),
    look: bad ? 'border-ink bg-tint' : survey.status === 'agreeing' ? 'border-proof bg-proof-tint' : 'border-hair bg-paper',
    ask: bad && next ? { measure: next.measure, isRetape: next.isRetape, text: askText(next.measure, next.isRetape, surface.shape) } : null,
    cut: cutNote(answer, method),
    suspects: suspectsOf(surveyed, surface, doc, method, units),
    rows: rowsOf(surveyed, surface, units),
    facts: factsOf(surveyed, surface, answer, keys.length, units),
    why: [...surveyWhy(survey), ...(survey.adjustment && answer && 'piece' in answer ? answer.piece.why : [])],
  };
}
