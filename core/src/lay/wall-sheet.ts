import type { PaneTrait, Piece, Wall } from '@yellow-pane/contracts';
import { cutOfWall, endReach, FOLD_BACK_MM, layoutOnWall, resolveDry } from '../cut/index.js';
import { isLaidDry } from '../films/index.js';
import { capital, formatDifference, formatLength, formatRough } from '../ground/index.js';
import { CORNER_RULER_MM, coverOfWall, insideReturnMm, surveyWall, wallBeside, wallFacts, type WallCorner, type WallSide } from '../measure/index.js';
import { askedOfGround, groundTraits, hardwareFigures, type DryFigures } from './dry-sheet.js';
import type { LayRecords } from './lay-records.js';

const SIDES = ['left', 'right'] as const;

/** What is known of a wall for laying; null: it has no size, or no film that is laid dry. */
export function wallFigures(surface: Wall, records: LayRecords): DryFigures | null {
  const film = records.films.find((f) => f.id === surface.filmId);
  const { survey } = surveyWall(surface, records);
  const cover = coverOfWall(survey);
  if (!film || !isLaidDry(film) || !cover || !survey.body) return null;
  const units = records.job.units;
  const dry = resolveDry(records, surface);
  const cut = cutOfWall(surface, records, film);
  const f = (mm: number) => `${formatLength(mm, units)}${units === 'mm' ? ' mm' : ''}`;
  const about = (mm: number) => formatRough(mm, units);
  const corners = SIDES.map((side) => ({ side, ...survey.corners[side] }));
  const of = (is: WallCorner['is']) => corners.filter((c) => c.is === is);
  const facts = wallFacts(survey.body, units).filter((s) => /floor|ceiling/.test(s));
  const dropOf = (q: Piece) => q.label.replace(`${surface.name} `, '').replace(/ (above|below)$/, '');
  const hungOf = (q: Piece) => (surface.hanging === 'book' && q.turns.every((t) => t === 180) ? `${dropOf(q)} turned` : dropOf(q));
  const drops = [...new Set(cut.pieces.map(hungOf))].filter((s) => /^(drop|length) /.test(s));
  const open = surface.hardware.filter((h) => h.handling !== 'off');
  const layout = layoutOnWall(surface, records, film);
  const first = layout?.levels[0];
  const post = film.temps?.postHeatC ?? null;
  const asked = [
    surface.fire === 'rated' && 'An escape route: no film without the written yes of whoever answers for fire safety.',
    surface.fire === 'unknown' && 'Ask first whether it stands in an escape route: then film needs a fire class and a written yes.',
    askedOfGround(surface.ground),
    'blocked' in cut.answer && cut.answer.blocked,
    ...of('inside').flatMap((c) => thinLap(c, dry.insideReturnMm, (mm) => formatDifference(mm, units))),
  ];
  const words = (is: 'inside' | 'outside', isFirst: boolean) =>
    of(is)
      .filter((c) => c.isFirst === isFirst)
      .map((c) =>
        is === 'inside'
          ? insideWords(c, insideReturnMm(dry.insideReturnMm, c.wanderMm).returnMm, f)
          : outsideWords(c, dry.outsideWrapMm, dry.lapMm, about) + jointsThere(c, surface, records),
      )
      .join(' ');
  const [inside, insideSecond, outside, outsideSecond] = [words('inside', true), words('inside', false), words('outside', true), words('outside', false)];
  const has: readonly [PaneTrait, boolean][] = [
    ['corner-inside', inside !== ''],
    ['corner-inside-second', insideSecond !== ''],
    ['corner-outside', outside !== ''],
    ['corner-outside-second', outsideSecond !== ''],
    ['hardware', surface.hardware.some((h) => h.handling === 'off')],
    ['openings', open.length > 0],
    ['seam-dry', drops.length > 1 && surface.seam === 'overlap'],
    ['double-cut', drops.length > 1 && surface.seam === 'double-cut'],
    ['masonry', surface.masonry !== null],
    ['lies-level', layout?.isLying ?? false],
  ];
  return {
    figures: {
      film: film.name,
      size: `${f(cover.widthMm)} × ${f(cover.heightMm)}`,
      fold: about(FOLD_BACK_MM),
      start: `the ${surface.hungFrom} end`,
      // where the inner edge of the first drop comes to lie
      drop: f(Math.max(0, (cut.pieces[0]?.widthMm ?? cover.widthMm) - endReach(surface.hungFrom, survey.corners[surface.hungFrom], dry, f).reachMm)),
      drops: drops.length ? drops.join(', ') : layout?.isLying ? 'one length' : 'one drop',
      // from the highest place of the floor
      levelLine: f((first?.highMm ?? cover.heightMm) - Math.max(...survey.body.floor.map((q) => q.y))),
      level: facts.length ? facts.join(' ') : 'They are seldom true.',
      lap: about(surface.seam === 'double-cut' ? dry.doubleCutMm : dry.lapMm),
      inside,
      insideSecond,
      outside,
      outsideSecond,
      ruler: f(CORNER_RULER_MM),
      ...hardwareFigures(surface.hardware),
      postHeat: post === null ? 'the film maker’s own figure' : `${post} °C`,
    },
    areaM2: (cover.widthMm * cover.heightMm) / 1e6,
    edgeM: ((first ? cover.widthMm : cover.heightMm) * (drops.length + 1)) / 1000,
    units,
    ask: asked.filter(Boolean).join(' ') || null,
    has: [...groundTraits(surface.ground, film), ...has.flatMap(([trait, is]) => (is ? [trait] : []))],
  };
}

/** What is told of one corner of a wall, as it is drawn from above. */
export interface CornerFigures {
  readonly side: WallSide;
  readonly is: 'inside' | 'outside';
  readonly isFirst: boolean;
  readonly own: string;
  readonly other: string;
  /** On to the other wall: the return, or the way round the arris. */
  readonly returned: string;
  readonly lap: string;
  readonly ruler: string;
}
/** The corners that film of a wall goes into or round. */
export function cornersToLay(surface: Wall, records: LayRecords): CornerFigures[] {
  const { corners } = surveyWall(surface, records).survey;
  const dry = resolveDry(records, surface);
  const f = (mm: number) => formatLength(mm, records.job.units);
  return SIDES.flatMap((side): CornerFigures[] => {
    const { is, isFirst, beside, wanderMm } = corners[side];
    if (is === 'stop') return [];
    const returnedMm = is === 'inside' ? insideReturnMm(dry.insideReturnMm, wanderMm).returnMm : dry.outsideWrapMm;
    return [
      {
        side,
        is,
        isFirst,
        own: surface.name,
        other: beside?.name ?? 'the other wall',
        returned: f(returnedMm),
        lap: f(Math.min(dry.lapMm, dry.outsideWrapMm)),
        ruler: f(CORNER_RULER_MM),
      },
    ];
  });
}

type At = WallCorner & { readonly side: WallSide };
function insideWords(c: At, returnMm: number, f: (mm: number) => string): string {
  const other = c.beside?.name ?? 'the other wall';
  return c.isFirst
    ? `${capital(c.side)} corner: this film is first. Press it into the corner, trim it on ${other} along the guide to a return of ${f(returnMm)}; then promoter over the return and on to the wall.`
    : `${capital(c.side)} corner: the film of ${other} lies and its return is tacky. Press this one into the corner and trim it along the ruler of ${f(CORNER_RULER_MM)}, over the return.`;
}
const outsideWords = (c: At, wrapMm: number, lapMm: number, f: (mm: number) => string): string =>
  c.isFirst
    ? `${capital(c.side)} arris: warm the film, lay it round without a fold, ${f(wrapMm)} on to ${c.beside?.name ?? 'the other wall'}.`
    : `${capital(c.side)} arris: the film of ${c.beside?.name ?? 'the other wall'} comes round it: promoter and a tape line on it, where this one is laid ${f(Math.min(lapMm, wrapMm))} over.`;

/** Film lies on joints round the arris too, as far as it goes: they are pressed like the others. */
const jointsThere = (c: At, surface: Wall, records: LayRecords): string =>
  c.isFirst && surface.masonry && wallBeside(surface, c.side, records)?.masonry
    ? ' Its joints there from the arris outwards: “Then the joints” has them place by place.'
    : '';

/** A corner that wanders too far for the usual return. */
function thinLap(c: At, usualMm: number, f: (mm: number) => string): string[] {
  const { isWidened, returnMm } = insideReturnMm(usualMm, c.wanderMm);
  if (c.wanderMm === null) return [`Lay a straightedge along the ${c.side} corner: how far it wanders decides the return.`];
  return isWidened ? [`The ${c.side} corner wanders by ${f(c.wanderMm)}: its return is ${f(returnMm)}, not the usual ${f(usualMm)}.`] : [];
}
