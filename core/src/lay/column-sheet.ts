import type { Column, Film } from '@yellow-pane/contracts';
import { NOTABLE_TAPER_MM, piecesOfColumn, resolveDry } from '../cut/index.js';
import { isLaidDry } from '../films/index.js';
import { formatLength, formatRough } from '../ground/index.js';
import { coverOfColumn, surveyColumn } from '../measure/index.js';
import { askedOfGround, groundTraits, type DryFigures } from './dry-sheet.js';
import type { LayRecords } from './lay-records.js';

/** Width that is worked at a time on a column, mm. @source common practice: 2 in */
const COLUMN_BAND_MM = 50;

/** What is known of a column for laying; null: it has no size, or no film that is laid dry. */
export function columnFigures(surface: Column, records: LayRecords): DryFigures | null {
  const film = records.films.find((f) => f.id === surface.filmId);
  const { survey } = surveyColumn(surface, records);
  const cover = coverOfColumn(survey);
  if (!film || !isLaidDry(film) || !cover) return null;
  const units = records.job.units;
  const dry = resolveDry(records, surface);
  const f = (mm: number) => `${formatLength(mm, units)}${units === 'mm' ? ' mm' : ''}`;
  const grows = cover.narrowsByMm >= NOTABLE_TAPER_MM;
  return {
    figures: {
      film: film.name,
      girth: f(cover.girthMm),
      height: f(cover.heightMm),
      lap: formatRough(dry.lapMm, units),
      notch: formatRough(dry.notchMm, units),
      strip: formatRough(dry.linerStripMm, units),
      bands: String(Math.ceil(cover.girthMm / COLUMN_BAND_MM)),
      seam: grows && dry.taper === 'trim' ? 'It grows towards the thin end: straightedge on the lap, cut the top layer only, lift the wedge.' : '',
    },
    areaM2: (cover.girthMm * cover.heightMm) / 1e6,
    edgeM: (2 * cover.girthMm + cover.heightMm) / 1000,
    units,
    has: groundTraits(surface.ground, film),
    ask: [askedOfGround(surface.ground), askedOfPiece(surface, records, film)].filter(Boolean).join(' ') || null,
  };
}

function askedOfPiece(surface: Column, records: LayRecords, film: Film): string | null {
  const rollWidthsMm = records.rolls.filter((r) => r.filmId === film.id && !r.deletedAt).map((r) => r.widthMm);
  const made = piecesOfColumn({ surface, survey: surveyColumn(surface, records).survey, allowances: resolveDry(records, surface), film, rollWidthsMm, units: records.job.units }); // prettier-ignore
  return 'blocked' in made ? made.blocked : null;
}
