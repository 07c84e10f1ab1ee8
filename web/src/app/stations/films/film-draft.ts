import { film as filmSchema, type Film } from '@yellow-pane/contracts';
import { filmBlock } from '@yellow-pane/core/films';

/** What a person types of a film, as on its sheet: shares in per cent, empty = not known. */
export interface FilmDraft {
  name: string;
  kind: string;
  construction: string;
  wound: string;
  direction: string;
  machineDirection: string;
  linerSide: string;
  mounting: string;
  thicknessUm: string;
  ratedOn: string;
  visibleT: string;
  visibleRGlass: string;
  visibleRFree: string;
  solarT: string;
  solarRGlass: string;
  solarRFree: string;
  uvT: string;
  haze: string;
  emissivity: string;
  shrinkAlong: string;
  growAcross: string;
  patternRepeat: string;
  patternMatch: string;
  applyMin: string;
  applyMax: string;
  postHeat: string;
  limit: string;
  drying: string;
  note: string;
}

/** A size it is sold in, as typed. */
export interface OfferDraft {
  readonly widthMm: string;
  readonly lengthM: string;
  readonly pricePerRoll: string;
  readonly pricePerM: string;
}
export const emptyOffer: OfferDraft = { widthMm: '', lengthM: '', pricePerRoll: '', pricePerM: '' };

/** The sizes of a film as they would be typed; at least one line to fill in. */
export function offerDraftsOf(f: Film | null): OfferDraft[] {
  const lines = (f?.offers ?? []).map((o) => ({ ...o, widthMm: String(o.widthMm), lengthM: String(o.lengthM) }));
  return lines.length ? lines : [emptyOffer];
}

const pct = (share: number | null | undefined): string => (share === null || share === undefined ? '' : String(Math.round(share * 10_000) / 100));

const num = (n: number | null | undefined): string => (n === null || n === undefined ? '' : String(n));

/** The sheet of a film as it would be typed; null gives an empty one. */
export function draftOf(f: Film | null): FilmDraft {
  return {
    name: f?.name ?? '',
    kind: f?.kind ?? 'solar',
    construction: f?.construction ?? '',
    wound: f?.wound ?? 'unknown',
    direction: f?.direction ?? 'none',
    machineDirection: f?.machineDirection ?? 'along',
    linerSide: f?.linerSide ?? 'adhesive',
    mounting: f?.mounting ?? 'inside',
    thicknessUm: f ? String(f.thicknessUm) : '',
    ratedOn: f?.optics?.ratedOn ?? 'clear-3',
    visibleT: pct(f?.optics?.visible.transmittanceFrac),
    visibleRGlass: pct(f?.optics?.visible.reflectanceGlassSideFrac),
    visibleRFree: pct(f?.optics?.visible.reflectanceFreeSideFrac),
    solarT: pct(f?.optics?.solar.transmittanceFrac),
    solarRGlass: pct(f?.optics?.solar.reflectanceGlassSideFrac),
    solarRFree: pct(f?.optics?.solar.reflectanceFreeSideFrac),
    uvT: pct(f?.optics?.uvTransmittanceFrac),
    haze: pct(f?.hazeFrac),
    emissivity: f?.emissivityFrac === null || f?.emissivityFrac === undefined ? '' : String(f.emissivityFrac),
    shrinkAlong: num(f?.shrink?.alongPct),
    growAcross: num(f?.shrink?.acrossPct),
    patternRepeat: num(f?.patternRepeatMm),
    patternMatch: f?.patternMatch ?? 'straight',
    applyMin: num(f?.temps?.applyMinC),
    applyMax: num(f?.temps?.applyMaxC),
    postHeat: num(f?.temps?.postHeatC),
    limit: num(f?.temps?.limitC),
    drying: f?.drying ?? '',
    note: f?.note ?? '',
  };
}

const lightFields = ['visibleT', 'visibleRGlass', 'visibleRFree', 'solarT', 'solarRGlass', 'solarRFree', 'uvT'] as const;
const fieldNames: Partial<Record<keyof FilmDraft, string>> = {
  thicknessUm: 'Thickness',
  visibleT: 'Light through',
  visibleRGlass: 'Light back, glass side',
  visibleRFree: 'Light back, free side',
  solarT: 'Sun through',
  solarRGlass: 'Sun back, glass side',
  solarRFree: 'Sun back, free side',
  uvT: 'Ultraviolet through',
  haze: 'Haze',
  emissivity: 'Emissivity',
};

/**
 * A film from what was typed: a new one, or the next version of `old`, which keeps what is not on the form.
 * @returns the film, or sentences that say what does not read
 */
export function filmFromDraft(d: FilmDraft, sizes: readonly OfferDraft[], old: Film | null, id: string, at: string): { film: Film } | { faults: string[] } {
  const faults: string[] = [];
  const number = (field: keyof FilmDraft): number | null => {
    const text = d[field].trim().replace(',', '.');
    if (text === '') return null;
    const n = Number(text);
    if (Number.isFinite(n)) return n;
    faults.push(`${fieldNames[field] ?? field}: “${d[field]}” is no number.`);
    return null;
  };
  const share = (field: keyof FilmDraft): number => Math.round((number(field) ?? 0) * 100) / 10_000;
  const given = lightFields.filter((f) => d[f].trim() !== '');
  if (given.length > 0 && given.length < lightFields.length)
    faults.push(
      `Light and heat: ${lightFields
        .filter((f) => !given.includes(f))
        .map((f) => fieldNames[f])
        .join(', ')} missing. Enter all of them, or none.`,
    );
  const thicknessUm = number('thicknessUm');
  if (thicknessUm === null && faults.length === 0) faults.push('Thickness: how thick is it, in µm?');
  const [solarT, solarR] = [share('solarT'), share('solarRGlass')];
  const draft = {
    ...(old ?? {}),
    id,
    name: d.name.trim(),
    version: (old?.version ?? 0) + 1,
    replacesId: old?.id ?? null,
    kind: d.kind,
    construction: d.construction || null,
    wound: d.wound,
    direction: d.direction,
    machineDirection: d.machineDirection,
    linerSide: d.linerSide,
    mounting: d.mounting,
    hatch: old?.hatch ?? (d.kind === 'frosted' ? 'dots' : d.kind === 'security' ? 'cross' : 'slant'),
    thicknessUm,
    optics:
      given.length === lightFields.length
        ? {
            ratedOn: d.ratedOn,
            visible: { transmittanceFrac: share('visibleT'), reflectanceGlassSideFrac: share('visibleRGlass'), reflectanceFreeSideFrac: share('visibleRFree') },
            solar: {
              transmittanceFrac: solarT,
              reflectanceGlassSideFrac: solarR,
              reflectanceFreeSideFrac: share('solarRFree'),
              absorptanceGlassSideFrac: Math.max(0, Math.round((1 - solarT - solarR) * 10_000) / 10_000),
            },
            uvTransmittanceFrac: share('uvT'),
          }
        : null,
    hazeFrac: d.haze.trim() === '' ? null : share('haze'),
    emissivityFrac: number('emissivity'),
    shrink: d.shrinkAlong.trim() === '' ? null : { alongPct: number('shrinkAlong'), acrossPct: number('growAcross') ?? 0 },
    patternRepeatMm: number('patternRepeat'),
    patternMatch: d.patternMatch,
    temps: tempsOf({ applyMinC: number('applyMin'), applyMaxC: number('applyMax'), postHeatC: number('postHeat'), limitC: number('limit') }, old),
    drying: d.drying || null,
    offers: offersOf(sizes),
    note: d.note.trim(),
    createdAt: at,
    retiredAt: null,
  };
  if (faults.length) return { faults };
  const read = filmSchema.safeParse(draft);
  if (!read.success)
    return { faults: read.error.issues.map((i) => (i.path[0] === 'offers' ? `Sold as, line ${Number(i.path[1]) + 1}: ${i.message}` : i.message)) };
  const alone = read.data.optics ? filmBlock(read.data.optics) : null;
  return alone && !alone.ok ? { faults: [alone.message] } : { film: read.data };
}

/** Temperatures on the form; what relaxes the film is not asked here and stays. */
function tempsOf(typed: { applyMinC: number | null; applyMaxC: number | null; postHeatC: number | null; limitC: number | null }, old: Film | null): unknown {
  const temps = { relaxC: old?.temps?.relaxC ?? null, ...typed };
  return Object.values(temps).every((t) => t === null) ? null : temps;
}

/** Lines left empty are no sizes. */
function offersOf(sizes: readonly OfferDraft[]): unknown[] {
  const n = (text: string) => (text.trim() === '' ? undefined : Number(text.replace(',', '.')));
  const price = (text: string) => text.trim().replace(',', '.');
  return sizes
    .filter((o) => Object.values(o).some((x: string) => x.trim() !== ''))
    .map((o) => ({ widthMm: n(o.widthMm), lengthM: n(o.lengthM), pricePerRoll: price(o.pricePerRoll), pricePerM: price(o.pricePerM) }));
}
