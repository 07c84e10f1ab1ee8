import { panesOf } from '@yellow-pane/core';
import type { ChooseSettings, Exposure, FaceFound, Film, Glazing, JobDocument, Patch, Roll, Pane, VerdictInput, Want } from '@yellow-pane/contracts';
import { defaultChooseSettings, newRoll, unknownExposure } from '@yellow-pane/contracts';

/** Which panes an edit in Choose is for. */
export type Scope = 'pane' | 'group' | 'place' | 'facade';

/** The panes that a scope takes in, the selected one first in mind but in walking order. */
export function panesInScope(doc: Pick<JobDocument, 'surfaces'>, here: Pane, scope: Scope): Pane[] {
  const like = here.measuredLikeId ?? here.id;
  const same: Record<Scope, (s: Pane) => boolean> = {
    pane: (s) => s.id === here.id,
    group: (s) => (here.grid ? s.grid?.groupId === here.grid.groupId : s.id === like || s.measuredLikeId === like),
    place: (s) => s.placeId === here.placeId,
    facade: (s) =>
      here.exposure?.isIndoors
        ? s.placeId === here.placeId
        : here.exposure?.facadeDeg != null && s.exposure?.facadeDeg === here.exposure.facadeDeg && !s.exposure.isIndoors,
  };
  return panesOf(doc.surfaces).filter((s) => s.id === here.id || same[scope](s));
}

/** What is wanted at a pane: its own, or the job's. */
export const settingsOf = (doc: Pick<JobDocument, 'job'>, s: Pane): ChooseSettings => s.choose ?? doc.job.choose ?? defaultChooseSettings;

const set = (s: Pane, field: 'glazing' | 'workedFace' | 'exposure' | 'choose' | 'filmId' | 'filmFace', value: unknown): Patch => ({
  op: 'set',
  kind: 'surface',
  id: s.id,
  field,
  value,
});

export const glazingPatches = (panes: readonly Pane[], glazing: Glazing): Patch[] => panes.map((s) => set(s, 'glazing', glazing));
export const feltPatches = (panes: readonly Pane[], felt: FaceFound): Patch[] => panes.map((s) => set(s, 'workedFace', felt));
/** Only what was touched changes: other panes keep the rest of what they have. */
export const exposurePatches = (panes: readonly Pane[], part: Partial<Exposure>): Patch[] =>
  panes.map((s) => set(s, 'exposure', { ...(s.exposure ?? unknownExposure), ...part }));
export const settingsPatches = (doc: Pick<JobDocument, 'job'>, panes: readonly Pane[], part: Partial<ChooseSettings>): Patch[] =>
  panes.map((s) => set(s, 'choose', { ...settingsOf(doc, s), ...part }));

/** A want tapped goes to the end of the order; tapped again, it goes. */
export const tapWant = (wants: readonly Want[], want: Want): Want[] => (wants.includes(want) ? wants.filter((w) => w !== want) : [...wants, want]);

/** The face that a film goes on, if it is made for one only. */
const faceFor = (film: Pick<Film, 'mounting'>, now: Pane['filmFace']): Pane['filmFace'] =>
  film.mounting === 'inside' ? 'room' : film.mounting === 'outside' ? 'street' : now;

/**
 * A choice for some panes as one edit: film and face on each, and, where no roll of it is on the bench, a roll to order, so
 * that Cut can lay it out at once.
 */
export function choicePatches(panes: readonly Pane[], film: Film, rolls: readonly Roll[], orderId: () => string): Patch[] {
  const patches = panes.flatMap((s): Patch[] => {
    const face = faceFor(film, s.filmFace);
    return [...(s.filmId === film.id ? [] : [set(s, 'filmId', film.id)]), ...(s.filmFace === face ? [] : [set(s, 'filmFace', face)])];
  });
  const widest = [...film.offers].sort((a, b) => b.widthMm - a.widthMm)[0];
  if (patches.length && widest && !rolls.some((r) => r.filmId === film.id)) {
    const { widthMm, lengthM, pricePerM } = widest;
    const roll = newRoll({ id: orderId(), filmId: film.id, label: `to order ${Math.round(widthMm)}`, widthMm, lengthM, pricePerM, isToOrder: true });
    patches.push({ op: 'add', kind: 'roll', id: roll.id, value: roll });
  }
  return patches;
}

/** Films that may be chosen: newest versions that are not retired, and whatever is already on a pane here. */
export function filmsToOffer(doc: Pick<JobDocument, 'films' | 'surfaces'>): Film[] {
  const replaced = new Set(doc.films.map((f) => f.replacesId));
  const used = new Set(doc.surfaces.map((s) => s.filmId));
  return doc.films.filter((f) => used.has(f.id) || (!replaced.has(f.id) && f.retiredAt === null));
}

/** Place that is taken where the job has none: the middle of the temperate zone. */
const SOMEWHERE = { latDeg: 50, lonDeg: 10 };

/** Everything a verdict on this pane depends on; null while nobody has looked at the glass. */
export function verdictInputOf(
  doc: Pick<JobDocument, 'job'>,
  s: Pane,
  size: { widthMm: number; heightMm: number },
  year: number,
  zoneMinutes: number,
): VerdictInput | null {
  if (!s.glazing) return null;
  return {
    glazing: s.glazing,
    exposure: s.exposure ?? unknownExposure,
    filmFace: 'as-made',
    widthMm: size.widthMm,
    heightMm: size.heightMm,
    revealMm: s.revealMm ?? 0,
    latDeg: doc.job.latDeg ?? SOMEWHERE.latDeg,
    lonDeg: doc.job.lonDeg ?? SOMEWHERE.lonDeg,
    zoneMinutes,
    year,
    settings: settingsOf(doc, s),
  };
}
