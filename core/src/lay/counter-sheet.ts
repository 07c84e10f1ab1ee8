import type { Counter, CounterSide, PaneTrait } from '@yellow-pane/contracts';
import { counterDepth, cutOfCounter, OFF_ARRIS_MM, resolveDry, stripRuns, tackedFirst, tightWords, wrappedRounds } from '../cut/index.js';
import { isLaidDry } from '../films/index.js';
import { pathArea, pathLength } from '../geometry/index.js';
import { capital, formatLength, formatRough, listed } from '../ground/index.js';
import { counterCornerNames, counterCorners, counterNames, counterSideNames, counterSides, coverOfCounter, surveyCounter } from '../measure/index.js';
import { askedOfGround, coldTraits, cornerWords, groundTraits, hardwareFigures, type DryFigures } from './dry-sheet.js';
import type { LayRecords } from './lay-records.js';

/** What is known of a top for laying; null: it has no size, or no film that is laid dry. */
export function counterFigures(surface: Counter, records: LayRecords): DryFigures | null {
  const film = records.films.find((f) => f.id === surface.filmId);
  const { survey } = surveyCounter(surface, records);
  const cover = coverOfCounter(survey);
  const { body } = survey;
  if (!film || !isLaidDry(film) || !cover || !body) return null;
  const units = records.job.units;
  const dry = resolveDry(records, surface);
  const cut = cutOfCounter(surface, records, film);
  const f = (mm: number) => `${formatLength(mm, units)}${units === 'mm' ? ' mm' : ''}`;
  const about = (mm: number) => formatRough(mm, units);
  const { sides } = surface;
  const of = (...is: CounterSide[]) => counterSides.filter((s) => is.includes(sides[s]));
  const names = (...is: CounterSide[]) => listed(of(...is).map((s) => counterSideNames[s]));
  const wrapped = of('edge', 'return');
  const girthMm = survey.edge?.girthMm ?? 0;
  const rounds = wrappedRounds(body, sides, girthMm, dry, film);
  // a strip is laid before its top
  const tops = cut.pieces.length - stripRuns(sides).length;
  const sharp = counterCorners.filter((c, i) => body.radiusMm[c] <= 0 && [counterSides[(i + 3) % 4]!, counterSides[i]!].every((s) => wrapped.includes(s)));
  const post = film.temps?.postHeatC ?? null;
  const open = surface.hardware.length > 0;
  const asked = [askedOfGround(surface.ground), 'blocked' in cut.answer && cut.answer.blocked, tightWords(rounds, girthMm, (mm) => formatLength(mm, units))];
  const has: readonly [PaneTrait, boolean][] = [
    ['wraps', wrapped.length > 0],
    ['corners-wrapped', sharp.length > 0],
    ['corners-round', rounds.length > 0],
    ['edge-strip', of('strip').length > 0],
    ['at-wall', of('wall').length > 0],
    ['at-joint', of('joint').length > 0],
    ['hardware', surface.hardware.some((h) => h.handling !== 'open')],
    ['openings', open],
    ['seam-dry', tops > 1 && surface.seam === 'overlap'],
    ['double-cut', tops > 1 && surface.seam === 'double-cut'],
  ];
  return {
    figures: {
      film: film.name,
      panel: counterNames[surface.what],
      size: `${f(cover.widthMm)} × ${f(cover.heightMm)}`,
      grain: film.direction === 'none' ? 'This film has no direction.' : `Its direction runs ${surface.grain} it.`,
      liner: about(dry.endLinerMm),
      first: counterSideNames[tackedFirst(sides)],
      lap: about(surface.seam === 'double-cut' && tops > 1 ? dry.doubleCutMm : dry.lapMm),
      under: about(dry.returnMm),
      ruler: f(OFF_ARRIS_MM),
      walls: names('wall'),
      strips: names('strip'),
      sides: listed(wrapped.map((s) => counterSideNames[s])),
      wrap: f(Math.max(0, ...wrapped.map((s) => counterDepth(sides[s], girthMm, dry)))),
      rounds: rounds.map((r) => `${capital(counterCornerNames[r.corner])}: radius ${f(r.radiusMm)}${r.vs > 0 ? `, ${r.vs} Vs` : ''}.`).join(' '),
      corner: cornerWords[dry.corner].replace('{tab}', about(dry.cornerTabMm)),
      holes: surface.hardware.length ? `${capital(listed(surface.hardware.map((h) => h.what)))}.` : '',
      ...hardwareFigures(surface.hardware),
      postHeat: post === null ? 'the film maker’s own figure' : `${post} °C`,
    },
    areaM2: pathArea(body.path) / 1e6,
    edgeM: pathLength(body.path) / 1000,
    units,
    ask: asked.filter(Boolean).join(' ') || null,
    has: [...groundTraits(surface.ground, film), ...coldTraits(surface, film, records), ...has.flatMap(([trait, is]) => (is ? [trait] : []))],
  };
}
