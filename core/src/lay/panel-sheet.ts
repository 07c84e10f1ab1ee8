import type { Panel } from '@yellow-pane/contracts';
import { cornersOfPanel, cutOfPanel, FOLD_BACK_MM, hasWrappedCorner, resolveDry, starvedWords, wrapDepth } from '../cut/index.js';
import { isLaidDry } from '../films/index.js';
import { planDome, stretchLimitOf, stretchPct, type DomePlan } from '../form/index.js';
import { formatLength, formatRough } from '../ground/index.js';
import { coverOfPanel, panelNames, surveyPanel, type PanelSurvey } from '../measure/index.js';
import { askedOfGround, coldTraits, cornerWords, groundTraits, hardwareFigures, type DryFigures } from './dry-sheet.js';
import type { LayRecords } from './lay-records.js';

/** How film goes over ribs, by the way that was chosen. */
const ribWords = {
  fed: 'Tack it on one crest in the middle, from end to end, {fold} of liner at a time; all else hangs free. Then valley by valley outwards, to both sides: the glove into the valley, film comes in from the free side, up over the next crest. Nothing is pulled across.',
  bridged:
    'From crest to crest without a pull, pressed on the crests only, border tacked. Relax it all over: wrinkles appear, then vanish. Then valley by valley from the middle outwards: hot over all its length, formed in with the glove, pressed when it is in, its foot last; let it cool before the next.',
} as const;
/** How film goes over a dome, by what it stands. */
const domeStep: Readonly<Record<DomePlan['is'], string>> = {
  lies: 'Fold the liner out at the middle and tack it there, a palm’s width; from there outwards to all sides, strokes like spokes. What gathers at the border is warmed and pressed outwards.',
  draw: 'Tack it in the middle, a palm’s width. A ring a hand wide at a time: heat it, draw the film outwards just so far that nothing gathers, press it, let it cool; corners last of each ring.',
  darts:
    'Tack it in the middle, a palm’s width; from there outwards without a pull until folds begin to stand. Slit each from the border to where it begins; promoter beneath, one side over the other.',
  unknown:
    'Tack it in the middle, a palm’s width. A ring a hand wide at a time, drawn outwards just so far that nothing gathers; try it first where nobody sees it.',
};
/** Recesses as a step tells them: the deepest first. */
const recessFigure = ({ recesses }: Pick<PanelSurvey, 'recesses'>, f: (mm: number) => string): string =>
  [
    ...new Set(
      [...recesses].sort((a, b) => b.recess.depthMm - a.recess.depthMm).map(({ recess: r }) => `${f(r.acrossMm)} × ${f(r.upMm)}, ${f(r.depthMm)} deep`),
    ),
  ].join('; ');

/** What is known of a panel for laying; null: it has no size, or no film that is laid dry. */
export function panelFigures(surface: Panel, records: LayRecords): DryFigures | null {
  const film = records.films.find((f) => f.id === surface.filmId);
  const { survey } = surveyPanel(surface, records);
  const cover = coverOfPanel(survey);
  if (!film || !isLaidDry(film) || !cover || survey.face.status === 'impossible') return null;
  const units = records.job.units;
  const dry = resolveDry(records, surface);
  const cut = cutOfPanel(surface, records, film);
  const f = (mm: number) => `${formatLength(mm, units)}${units === 'mm' ? ' mm' : ''}`;
  const faces = surface.faces === 'both' ? 2 : 1;
  const wraps = Object.entries(surface.wraps).filter(([, w]) => w !== 'trimmed');
  const depths = wraps.map(([, w]) => wrapDepth(w, survey.edge?.girthMm ?? 0, faces === 2, dry));
  const grooves = survey.grooves.filter((g) => g.slackMm >= 0.5);
  const domed = survey.dome && planDome(survey.dome, stretchLimitOf(film));
  const corners = cornersOfPanel({ surface, survey, allowances: dry, film });
  const isDrawn = corners?.is === 'draws';
  const post = film.temps?.postHeatC ?? null;
  const asked = [
    surface.fire === 'rated' && 'Fire door or escape route: no film without the written yes of its maker and of whoever answers for fire safety.',
    surface.fire === 'unknown' &&
      surface.what !== 'drawer' &&
      'Ask first whether it is a fire door or stands in an escape route: then film needs a written yes.',
    askedOfGround(surface.ground),
    'blocked' in cut.answer && cut.answer.blocked,
    starvedWords(survey, film),
  ];
  return {
    figures: {
      film: film.name,
      panel: panelNames[surface.what],
      size: `${f(cover.widthMm)} × ${f(cover.heightMm)}`,
      fold: formatRough(FOLD_BACK_MM, units),
      grain: film.direction === 'none' ? 'This film has no direction.' : `Its direction runs ${surface.grain}.`,
      recess: recessFigure(survey, f),
      ribs: survey.ribs ? ribWords[survey.ribs.corrugation.way].replace('{fold}', formatRough(FOLD_BACK_MM, units)) : '',
      dome: domed ? domeStep[domed.is] : '',
      slack: [...new Set(grooves.map((g) => f(g.slackMm)))].join(', '),
      wrap: f(Math.max(0, ...depths)),
      sides: wraps.map(([side]) => (side === 'bottom' ? 'foot' : side)).join(', '),
      tab: formatRough(dry.cornerTabMm, units),
      corner: cornerWords[dry.corner].replace('{tab}', formatRough(dry.cornerTabMm, units)),
      cornerRound: corners
        ? `Warm film a palm’s width round each corner, take it on the middle of the corner and draw it straight down, along the diagonal: ${stretchPct(corners.largestFrac)} at its end, nothing left over. Press from the arris down, from the middle to both edges.`
        : '',
      lap: formatRough(dry.lapMm, units),
      ...hardwareFigures(surface.hardware),
      postHeat: post === null ? 'the film maker’s own figure' : `${post} °C`,
    },
    // hands go over all of the film, its ribs with it
    areaM2: ((cover.widthMm * cover.heightMm) / 1e6) * faces * (1 + (survey.ribs?.moreFrac ?? 0)),
    edgeM: ((cover.widthMm + cover.heightMm) * 2 * faces) / 1000,
    units,
    ask: asked.filter(Boolean).join(' ') || null,
    has: [
      ...groundTraits(surface.ground, film),
      ...coldTraits(surface, film, records),
      ...(grooves.length ? ['grooves' as const] : []),
      ...(survey.recesses.length ? ['recesses' as const] : []),
      ...(survey.ribs ? ['corrugated' as const] : []),
      ...(survey.dome ? ['domed' as const] : []),
      ...(survey.ribs?.corrugation.way === 'bridged' || (domed && domed.is !== 'lies' && domed.is !== 'darts') ? ['formed-in' as const] : []),
      ...(wraps.length ? ['wraps' as const] : []),
      ...(hasWrappedCorner(surface) ? [isDrawn ? ('corners-round' as const) : ('corners-wrapped' as const)] : []),
      ...(surface.hardware.length ? ['hardware' as const] : []),
      ...(surface.hinges !== 'none' ? ['swings' as const] : []),
      ...(faces === 2 ? ['both-faces' as const] : []),
      ...(cut.pieces.length > faces ? ['seam-dry' as const] : []),
    ],
  };
}
