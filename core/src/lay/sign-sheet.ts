import type { PaneTrait, Sign } from '@yellow-pane/contracts';
import { cutOfSign, HINGE_MIDDLE_MM, sheetsOfSign, type LetterSheet } from '../cut/index.js';
import { isLaidDry } from '../films/index.js';
import { boundingBox } from '../geometry/index.js';
import { filmText, formatLength, formatRough } from '../ground/index.js';
import { areaOfMarksM2, lineName, readFromM, surveySign } from '../measure/index.js';
import { letterOrder, orderText } from './letter-order.js';
import { askedOfGround, groundTraits, hardwareFigures, type DryFigures } from './dry-sheet.js';
import type { LayRecords } from './lay-records.js';

/** Read from farther than this nobody steps back, m. @source house rule */
const STEP_BACK_M = 10;

/** The gaps at which a line was parted into sheets, as they are on the drawing. */
function gapsOf(sheets: readonly LetterSheet[], f: (mm: number) => string): string {
  const gaps = sheets.flatMap((s, i) => {
    const next = sheets[i + 1];
    if (!next || next.mark !== s.mark) return [];
    const right = Math.max(...s.region.map((part) => boundingBox(part[0]!).maxX));
    const left = Math.min(...next.region.map((part) => boundingBox(part[0]!).minX));
    return [f(left - right)];
  });
  return gaps.join(', ');
}

/** What is known of a sign for laying; null: it has no size, nothing is written on it, or there is no film that is laid dry. */
export function signFigures(surface: Sign, records: LayRecords): DryFigures | null {
  const film = records.films.find((f) => f.id === surface.filmId);
  const { survey } = surveySign(surface, records);
  if (!film || !isLaidDry(film) || !survey.ground || survey.face.status === 'impossible' || survey.marks.length === 0) return null;
  const units = records.job.units;
  const f = (mm: number) => `${formatLength(mm, units)}${units === 'mm' ? ' mm' : ''}`;
  const sheets = sheetsOfSign(surface, records, film);
  const cut = cutOfSign(surface, records, film);
  const isSmooth = surface.texture === 'smooth';
  const tallest = Math.max(...survey.marks.map((m) => m.line.heightMm));
  const keptOff = [...new Set(surface.hardware.filter((h) => h.handling !== 'off').map((h) => h.what))];
  const limit = film.temps?.limitC ?? null;
  const asked = [
    askedOfGround(surface.ground),
    surface.texture === 'unknown' && 'Feel the ground first: letters on texture need heat, on a smooth one none.',
    'blocked' in cut.answer && cut.answer.blocked,
  ];
  const has: readonly [PaneTrait, boolean][] = [
    ['canvas', surface.what === 'canvas'],
    ['smooth-ground', isSmooth],
    ['textured', !isSmooth],
    ['hinge-top', sheets.some((s) => s.hinge === 'top')],
    ['hinge-middle', sheets.some((s) => s.hinge === 'middle')],
    ['more-sheets', sheets.some((s) => s.of > 1)],
    ['hardware', surface.hardware.length > 0],
  ];
  return {
    figures: {
      film: film.name,
      lettering: `${survey.marks.map((m) => lineName(m.line)).join(', ')}: ${sheets.length} ${sheets.length === 1 ? 'sheet' : 'sheets'}.`,
      places: survey.marks
        .map(
          (m) =>
            `${lineName(m.line)}: ${f(m.line.is === 'letters' ? m.line.baselineMm : m.box.minY)} above the foot, from ${f(m.box.minX)} to ${f(m.box.maxX)} from the left.`,
        )
        .join(' '),
      far: filmText(1000 * Math.min(STEP_BACK_M, Math.max(2, readFromM(tallest))), units, 0),
      hinge: formatRough(HINGE_MIDDLE_MM, units),
      gaps: gapsOf(sheets, f) || 'none',
      airOrder: orderText(letterOrder(survey.marks)),
      limit: limit === null ? '' : `This film takes no more than ${limit} °C.`,
      ...hardwareFigures(surface.hardware),
      round: keptOff.length ? `Letters keep off: ${keptOff.join(', ')}.` : '',
    },
    areaM2: areaOfMarksM2(survey.marks),
    edgeM: survey.marks.reduce((s, m) => s + (m.box.maxX - m.box.minX), 0) / 1000,
    units,
    ask: asked.filter(Boolean).join(' ') || null,
    has: [...groundTraits(surface.ground, film, true), ...has.flatMap(([trait, is]) => (is ? [trait] : []))],
  };
}
