import { capital, formatDifference, formatLength, type UnitSystem } from '../ground/index.js';
import type { ColumnBody, ColumnSurvey } from './column.js';
import { adjustedWhy, slipVerdict } from './taped-words.js';

/** Less is no taper, no oval, no lean worth a word, mm. @source common practice: a tape round a column is read within 2 mm */
const NOTABLE_MM = 2;

/** How a column is shaped, in plain words; empty: as straight and round as its tapes can tell. */
export function columnFacts(body: ColumnBody, system: UnitSystem): string[] {
  const f = (mm: number) => formatDifference(Math.abs(mm), system);
  const out: string[] = [];
  const girth = body.girthMm.top - body.girthMm.foot;
  if (Math.abs(girth) >= NOTABLE_MM) out.push(`it gets ${girth < 0 ? 'thinner' : 'thicker'} towards the top: ${f(girth)} of girth, ${f(body.taperMm)} across`);
  const oval = body.acrossMm.front - body.acrossMm.side;
  if (Math.abs(oval) >= NOTABLE_MM)
    out.push(
      `${body.section === 'round' ? 'it is oval' : 'it is no square'}: ${f(oval)} ${oval > 0 ? 'wider' : 'narrower'} seen from the front than from the side`,
    );
  const heights = Object.entries(body.heightMm);
  const [low, high] = [heights.reduce((a, b) => (b[1] < a[1] ? b : a)), heights.reduce((a, b) => (b[1] > a[1] ? b : a))];
  if (high[1] - low[1] >= NOTABLE_MM) out.push(`floor or ceiling is not level: ${f(high[1] - low[1])} more at the ${high[0]} than at the ${low[0]}`);
  const lean = body.leanMm;
  if (lean && Math.hypot(lean.front, lean.right) >= NOTABLE_MM) {
    const ways = [
      ...(Math.abs(lean.front) >= NOTABLE_MM ? [`${f(lean.front)} to the ${lean.front > 0 ? 'back' : 'front'}`] : []),
      ...(Math.abs(lean.right) >= NOTABLE_MM ? [`${f(lean.right)} to the ${lean.right > 0 ? 'left' : 'right'}`] : []),
    ];
    if (ways.length) out.push(`its top leans ${ways.join(' and ')}`);
  }
  return out.map((s) => `${capital(s)}.`);
}

/** Headline and body of the verdict on the tapes of a column. */
export function columnVerdict(survey: ColumnSurvey, system: UnitSystem): { headline: string; body: string } {
  const facts = survey.body ? columnFacts(survey.body, system) : [];
  switch (survey.status) {
    case 'nothing':
      return {
        headline: 'Nothing taped yet.',
        body: 'Pull the tape round its foot, and tape its height at the front. Two more girths, three more heights and two widths check them.',
      };
    case 'unchecked':
      return { headline: 'No tape here checks another yet.', body: survey.cannotCheck.join(' ') };
    case 'agreeing':
      return {
        headline: 'The tapes agree.',
        body: facts.join(' ') || `Straight and ${survey.body?.section === 'square' ? 'even' : 'round'}, as far as these tapes can tell.`,
      };
    case 'doubtful':
      return slipVerdict(survey, system);
  }
}

/** Figures of a column, for the list beside its drawing. */
export function columnNumbers(body: ColumnBody, system: UnitSystem): { name: string; value: string }[] {
  const f = (mm: number) => formatLength(mm, system);
  return [
    { name: 'Largest girth', value: f(Math.max(...Object.values(body.girthMm))) },
    { name: 'Smallest girth', value: f(Math.min(...Object.values(body.girthMm))) },
    { name: 'Tallest height', value: f(Math.max(...Object.values(body.heightMm))) },
    { name: 'Across, front × side', value: `${f(body.acrossMm.front)} × ${f(body.acrossMm.side)}` },
    ...(body.section === 'square' ? [{ name: 'Corner radius', value: f(body.cornerRadiusMm) }] : []),
  ];
}

/** How the verdict on a column came about. */
export const columnWhy = (survey: ColumnSurvey): string[] =>
  adjustedWhy(
    survey,
    'A tape round it is taken as ±1.5 mm, a width between two straightedges as ±2 mm, a gap to a hanging line as ±1.5 mm, a height as ±(1 mm + 0.1 ‰), 1 σ: house rule.',
    'Girth of an oval by Ramanujan’s second approximation; width, taper, oval, height, tilt of the ends and lean are the numbers that are sought (docs/models/columns.md).',
  );
