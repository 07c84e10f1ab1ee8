import type { CounterSide, Groove, Piece, Sign } from '@yellow-pane/contracts';
import { cutOfSurface, stripRuns } from '../cut/index.js';
import { filmText } from '../ground/index.js';
import {
  counterSides,
  coverOfColumn,
  coverOfCounter,
  coverOfPanel,
  coverOfWall,
  dryAreaM2,
  surveyColumn,
  surveyCounter,
  surveyPanel,
  surveySign,
  surveyWall,
  type DrySurface,
  type WallSide,
} from '../measure/index.js';
import { groundPlan, roomOf, wantedFor, type GroundPlan, type KitLine } from '../prepare/index.js';
import type { LayRecords } from './lay-records.js';

/** Alcohol for wiping a square metre twice, promoter for a square metre of strip, as it is put on thin, ml. @source house figures */
const ALCOHOL_ML_PER_M2 = 60;
const PROMOTER_ML_PER_M2 = 100;
/** Ladders come in steps of about this, mm. @source common practice */
const LADDER_STEP_MM = 250;
/** A strip of promoter is about so wide. @source common practice: the inch of a lap */
const PROMOTER_WIDE_MM = 25;

function piecesOf(surface: DrySurface, records: LayRecords): readonly Piece[] {
  const film = records.films.find((f) => f.id === surface.filmId);
  return film ? cutOfSurface(surface, records, film).pieces : [];
}
/** Seams between the pieces of a surface. */
const seamsOf = (surface: DrySurface, records: LayRecords, faces = 1): number => Math.max(0, piecesOf(surface, records).length - faces);
const grooveMm = ({ run }: Groove, face: { readonly widthMm: number; readonly heightMm: number }): number =>
  run.way === 'upright' ? face.heightMm : run.way === 'level' ? face.widthMm : 2 * (run.acrossMm + run.upMm);

type PromoterOf<S extends DrySurface> = (surface: S, records: LayRecords) => number;
/** How long the strips of promoter are: both layers of every seam; edges that film goes over, grooves, and walls of recesses. */
const promoterOfKind: { readonly [K in DrySurface['kind']]: PromoterOf<Extract<DrySurface, { kind: K }>> } = {
  column(surface, records) {
    const cover = coverOfColumn(surveyColumn(surface, records).survey);
    return cover ? 2 * cover.heightMm * (seamsOf(surface, records) + 1) : 0;
  },
  panel(surface, records) {
    const face = coverOfPanel(surveyPanel(surface, records).survey);
    if (!face) return 0;
    const { wraps, grooves, recesses, grain } = surface;
    const edges = (['left', 'right'] as const).filter((s) => wraps[s] !== 'trimmed').length * face.heightMm + (['top', 'bottom'] as const).filter((s) => wraps[s] !== 'trimmed').length * face.widthMm; // prettier-ignore
    const faces = surface.faces === 'both' ? 2 : 1;
    const seam = grain === 'upright' ? face.heightMm : face.widthMm;
    const hollows = grooves.reduce((sum, g) => sum + grooveMm(g, face), 0) + recesses.reduce((sum, r) => sum + 2 * (r.acrossMm + r.upMm), 0);
    return edges + faces * hollows + 2 * seam * seamsOf(surface, records, faces);
  },
  wall(surface, records) {
    const { survey } = surveyWall(surface, records);
    const high = coverOfWall(survey)?.heightMm ?? 0;
    const dropNames = new Set(piecesOf(surface, records).map((q) => q.label.replace(/ (above|below)$/, '')));
    // an inside corner: both walls, then the return once more; what two walls share is counted by the one on its left
    const ofEnd = (side: WallSide): number => {
      const c = survey.corners[side];
      if (c.is === 'stop' || (side === 'left' && c.beside)) return 0;
      return (c.is === 'inside' ? 3 : 2) * high;
    };
    return 2 * high * Math.max(0, dropNames.size - 1) + ofEnd('left') + ofEnd('right');
  },
  counter(surface, records) {
    const { survey } = surveyCounter(surface, records);
    if (!survey.body) return 0;
    // a strip has the film of the top on it besides its own edge
    const layers: Readonly<Record<CounterSide, number>> = { trimmed: 0, wall: 0, joint: 0, edge: 1, return: 1, strip: 2 };
    const edges = counterSides.reduce((sum, side) => sum + layers[surface.sides[side]] * Math.max(0, survey.body!.straightMm[side]), 0);
    const seam = surface.grain === 'along' ? (coverOfCounter(survey)?.widthMm ?? 0) : (coverOfCounter(survey)?.heightMm ?? 0);
    return edges + 2 * seam * seamsOf(surface, records, 1 + stripRuns(surface.sides).length);
  },
  // letters hold by their own glue
  sign: () => 0,
};
/** How long the strips of promoter on a surface are, mm. */
export const promoterMm = (surface: DrySurface, records: LayRecords): number => (promoterOfKind[surface.kind] as PromoterOf<DrySurface>)(surface, records);

const litres = (ml: number): string => (ml < 950 ? `${Math.max(50, Math.ceil(ml / 50) * 50)} ml` : `${(Math.ceil(ml / 100) / 10).toFixed(1)} l`);

/** How high film goes up on it, mm: what is no glass stands on the floor. */
const topOfKind: { readonly [K in DrySurface['kind']]: PromoterOf<Extract<DrySurface, { kind: K }>> } = {
  column: (surface, records) => coverOfColumn(surveyColumn(surface, records).survey)?.heightMm ?? 0,
  panel: (surface, records) => coverOfPanel(surveyPanel(surface, records).survey)?.heightMm ?? 0,
  wall: (surface, records) => coverOfWall(surveyWall(surface, records).survey)?.heightMm ?? 0,
  // a top is reached from the floor
  counter: () => 0,
  sign: (surface, records) => Math.max(0, ...surveySign(surface, records).survey.marks.map((m) => m.box.maxY)),
};
const topMm = (surface: DrySurface, records: LayRecords): number => (topOfKind[surface.kind] as PromoterOf<DrySurface>)(surface, records);

/**
 * What is used up where film is laid dry, counted by faces, edges, seams and grounds, and what is stood on.
 * @param reachMm of a person from the floor
 * @returns lines in the order one packs; those that glass asks for too have the same keys
 */
export function dryKit(surfaces: readonly DrySurface[], records: LayRecords, reachMm: number): KitLine[] {
  if (surfaces.length === 0) return [];
  const { prepare } = records.job;
  const plans = surfaces.map((surface) => ({
    surface,
    areaM2: dryAreaM2(surface, records) ?? 0,
    plan: groundPlan(
      surface.ground,
      dryAreaM2(surface, records) ?? 0,
      prepare?.primer ?? 'water',
      roomOf(prepare),
      null,
      wantedFor(
        records.films.find((f) => f.id === surface.filmId),
        surface,
      ),
    ),
  }));
  const has = (key: GroundPlan['tasks'][number]['key']) => plans.filter((p) => p.plan.tasks.some((t) => t.key === key));
  const names = (list: readonly { readonly surface: DrySurface }[]) => list.map((p) => p.surface.name).join(', ');
  const out: KitLine[] = [];
  const add = (key: string, what: string, howMuch: string, why: string, caution: string | null = null) => void out.push({ key, what, howMuch, why, caution });
  const [damaged, greasy, primed] = [has('putty'), has('degrease'), has('primer')];
  const high = surfaces.filter((s) => topMm(s, records) > reachMm);
  if (high.length) {
    const top = Math.max(...high.map((s) => topMm(s, records)));
    add('ladder', 'Ladder or platform', `to stand at ${filmText(Math.ceil((top - reachMm) / LADDER_STEP_MM) * LADDER_STEP_MM, records.job.units)}`, `${high.map((s) => s.name).join(', ')}: up to ${filmText(top, records.job.units)}, your reach is ${filmText(reachMm, records.job.units)}.`, 'Both hands are on the film: a platform rather than rungs. Local rules and the maker’s instructions say when a platform or a second person is required.'); // prettier-ignore
  }
  add(
    'blade-tin',
    'Safety glasses, tin for snapped-off blades',
    '1 set',
    'Blades are broken off at every seam and edge.',
    'Cut film only: a scored board or wall shows for ever.',
  );
  if (damaged.length) add('dry-putty', 'Putty and a filling knife', '1', `${names(damaged)}: holes and edges, a little proud.`);
  if (damaged.length + primed.length)
    add('dry-sand', 'Sanding block, fine paper, vacuum, dust masks', '1 set', `${names([...new Set([...damaged, ...primed])])}: flush, and lightly between.`, 'Paint of unknown age may hold lead, old render asbestos: tested before it is sanded.'); // prettier-ignore
  if (greasy.length)
    add('dry-degreaser', 'Detergent or trisodium phosphate, clear water, brush', litres(1000 * greasy.reduce((s, p) => s + p.areaM2, 0)), `${names(greasy)}: washed once, rinsed twice, dry overnight.`, 'Trisodium phosphate: gloves and glasses.'); // prettier-ignore
  if (primed.length) {
    const ml = 1000 * primed.reduce((s, p) => s + p.plan.primerL, 0);
    add('dry-primer', 'Primer, and as much of its thinner', litres(ml / 2), `${names(primed)}: ${litres(ml)} as it is put on, half of it thinner, all coats; rollers and trays with it.`, 'Solvent-based: air the room, no flame and no gun.'); // prettier-ignore
  }
  add('dry-alcohol', 'Alcohol 70/30', litres(ALCOHOL_ML_PER_M2 * plans.reduce((s, p) => s + p.areaM2, 0)), `${plans.length === 1 ? names(plans) : `${plans.length} faces`}: the last wipe.`, 'It burns: doors open, no flame, no gun until nothing is smelt.'); // prettier-ignore
  const strips = surfaces.reduce((s, x) => s + promoterMm(x, records), 0);
  if (strips > 0)
    add('dry-promoter', 'Adhesion promoter', litres((strips * PROMOTER_WIDE_MM * PROMOTER_ML_PER_M2) / 1e6), `${filmText(strips, records.job.units, 1)} of strip: seams, edges, grooves. Applicators with it.`, 'Solvent: gloves, air, no flame and no gun until nothing is smelt.'); // prettier-ignore
  out.push(
    ...signKit(
      surfaces.filter((s) => s.kind === 'sign'),
      records,
    ),
  );
  return out;
}

/** What letters are carried over and heated with. */
function signKit(signs: readonly Sign[], records: LayRecords): KitLine[] {
  if (signs.length === 0) return [];
  const names = (list: readonly Sign[]) => list.map((s) => s.name).join(', ');
  const m2 = signs.flatMap((s) => piecesOf(s, records)).reduce((sum, p) => sum + (p.widthMm * p.heightMm) / 1e6, 0);
  const textured = signs.filter((s) => s.texture !== 'smooth');
  const canvas = signs.filter((s) => s.what === 'canvas');
  const line = (key: string, what: string, howMuch: string, why: string, caution: string | null = null): KitLine => ({ key, what, howMuch, why, caution });
  return [
    line(
      'sign-tape',
      'Transfer tape, masking tape, weeding knife',
      `${Math.max(0.1, Math.ceil(m2 * 10) / 10).toFixed(1)} m²`,
      `${names(signs)}: over every sheet of letters.`,
    ),
    line('sign-mark', 'Level, chalk line, pencil', '1 set', 'Baselines are marked at both ends.'),
    ...(textured.length
      ? [line('sign-heat', 'Heat gun, soft pad, heat glove, infrared thermometer', '1 set', `${names(textured)}: letters are patted into the texture warm.`, 'Too hot to touch burns; canvas scorches: an extinguisher at hand.')] // prettier-ignore
      : []),
    ...(canvas.length ? [line('sign-board', 'Hard board, clamps', '1', `${names(canvas)}: behind the canvas while it is worked.`, 'Overhead: nobody stands beneath it.')] : []), // prettier-ignore
  ];
}
