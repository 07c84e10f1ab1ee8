import type { LayReading, Masonry, Sign, Surface } from '@yellow-pane/contracts';
import { defaultLay } from './default-lay.js';
import { filmHeatOf, groundHeatOf } from './heat-matter.js';
import { correctBy, unproven, type Corrected, type HeatAim, type HeatCase, type HeatFactor } from './heat-pass.js';
import type { LayRecords } from './lay-records.js';
import { linesInForce } from './progress.js';

/** What the gun is for at the steps that come with Yellow Pane. A firm’s own step by one of these names keeps it. */
const aims: Readonly<Record<string, HeatAim>> = {
  'wall-faces': 'faces',
  'wall-joints': 'joints',
  'wall-outside': 'relax',
  'wall-post-heat': 'post-heat',
  'panel-hollows': 'warm',
  'panel-groove': 'relax',
  'panel-recess': 'relax',
  'panel-corrugation': 'relax',
  'panel-dome': 'relax',
  'panel-edges': 'relax',
  'panel-corner': 'relax',
  'panel-corner-round': 'relax',
  'panel-post-heat': 'post-heat',
  'panel-tack': 'post-heat',
  'counter-strip': 'relax',
  'counter-edges': 'relax',
  'counter-round': 'relax',
  'counter-corner': 'relax',
  'counter-post-heat': 'post-heat',
  'counter-tack': 'post-heat',
  'sign-heat': 'faces',
  'panel-truth': 'relax',
  'wall-truth': 'relax',
  'counter-truth': 'relax',
  'sign-truth': 'relax',
};
/** What the gun is for at a step; null: no gun, or glass, which has a model of its own. */
export const heatAimOf = (stepKey: string): HeatAim | null => aims[stepKey] ?? null;

/** Rooms are worked in at this when nobody says otherwise, °C. @source common practice: interior film 15 to 25 °C */
const ROOM_C = 20;

/** A weave or grain by what was felt; nobody felt it: as a medium one. */
const grains = { smooth: 'glazed', fine: 'smooth', rough: 'rough', unknown: 'medium' } as const satisfies Record<Sign['texture'], Masonry['texture']>;

/** Film, ground, gun and air of a surface that is laid dry; null: it is glass, or has no film. */
export function heatCaseOf(surface: Surface, records: LayRecords): HeatCase | null {
  const film = records.films.find((f) => f.id === surface.filmId);
  if (!film || surface.kind === 'pane') return null;
  const { nozzleMm, setC, powerW, distanceMm, angleDeg } = records.job.lay?.gun ?? defaultLay.gun;
  const airC = records.job.prepare?.typed.roomC ?? ROOM_C;
  // letters bridge the weave or grain of their ground
  const grain = surface.kind === 'sign' ? { texture: grains[surface.texture], jointDepthMm: 0 } : null;
  const masonry = surface.kind === 'wall' ? surface.masonry : grain;
  return {
    film: filmHeatOf(film),
    ground: groundHeatOf(surface.ground, masonry, surface.kind === 'panel' || surface.kind === 'counter' ? 'wood-board' : 'concrete'),
    // a job of before says nothing of its angle
    gun: { nozzleMm, setC, powerW, angleDeg: angleDeg ?? defaultLay.gun.angleDeg },
    distanceMm,
    airC,
    groundC: surface.ground.surfaceTempC ?? airC,
  };
}

/** A trial of the gun, and what it says. */
export interface HeatTrial {
  readonly readC: number;
  readonly says: Corrected;
}
const isTrial = (r: LayReading | null): r is LayReading & { readonly gun: NonNullable<LayReading['gun']> } => r?.what === 'film' && r.gun !== undefined;

/** The newest trial of this gun with this film on this ground: of the surface itself or of another one of the job that is like it. */
export function heatTrialOf(surface: Surface, records: LayRecords): HeatTrial | null {
  const here = heatCaseOf(surface, records);
  if (!here || surface.kind === 'pane') return null;
  const isLike = (s: Surface) => s.kind !== 'pane' && s.filmId === surface.filmId && s.ground.material === surface.ground.material;
  const like = new Set(records.surfaces.filter(isLike).map((s) => s.id));
  const reading = linesInForce(records.layEntries).findLast((e) => e.surfaceId !== null && like.has(e.surfaceId) && isTrial(e.reading))?.reading ?? null;
  if (!isTrial(reading)) return null;
  const { gun, valueC } = reading;
  return { readC: valueC, says: correctBy({ ...here, distanceMm: gun.distanceMm }, { readC: valueC, afterS: gun.afterS, speedMmPerS: gun.speedMmPerS, passes: gun.passes }) }; // prettier-ignore
}
/** How well the convection under this gun is known. */
export const factorOf = (trial: HeatTrial | null): HeatFactor => (trial?.says.is === 'corrected' ? trial.says.factor : unproven);
