import { film as filmSchema, type Film, type UnitSystem } from '@yellow-pane/contracts';
import { filmBlock } from '@yellow-pane/core/films';
import { figureOf, formatInches, measureOf, parseLength, type MeasureKind } from '@yellow-pane/core/ground';

/** What a person types of a film, as on its sheet: shares in per cent, thickness, temperatures and repeat in the units of the bench; empty = not known. */
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
  stretchMax: string;
  readAfter: string;
  patternRepeat: string;
  patternMatch: string;
  applyMin: string;
  applyMax: string;
  postHeat: string;
  limit: string;
  drying: string;
  note: string;
}

/** A size it is sold in, as typed: mm, m and a price for a metre; on a bench of inches inches, feet and a price for a foot. */
export interface OfferDraft {
  readonly widthMm: string;
  readonly lengthM: string;
  readonly pricePerRoll: string;
  readonly pricePerM: string;
}
export const emptyOffer: OfferDraft = { widthMm: '', lengthM: '', pricePerRoll: '', pricePerM: '' };

/** A length of film and a price for it, on a bench of inches. */
const [feet, perFoot] = [measureOf('roll', 'in'), measureOf('perLength', 'in')];
/** A figure with no more decimals than say something. */
const short = (n: number, digits: number): string => String(Number(n.toFixed(digits)));
const inches = (mm: number): string => formatInches(mm).replace('"', '');

/** The sizes of a film as they would be typed; at least one line to fill in. */
export function offerDraftsOf(f: Film | null, units: UnitSystem = 'mm'): OfferDraft[] {
  const lines = (f?.offers ?? []).map((o) =>
    units === 'mm'
      ? { ...o, widthMm: String(o.widthMm), lengthM: String(o.lengthM) }
      : { ...o, widthMm: inches(o.widthMm), lengthM: short(feet.to(o.lengthM), 1), pricePerM: short(perFoot.to(Number(o.pricePerM)), 2) },
  );
  return lines.length ? lines : [emptyOffer];
}

const pct = (share: number | null | undefined): string => (share === null || share === undefined ? '' : String(Math.round(share * 10_000) / 100));

const num = (n: number | null | undefined): string => (n === null || n === undefined ? '' : String(n));
const figure = (n: number | null | undefined, kind: MeasureKind, units: UnitSystem): string => (n === null || n === undefined ? '' : figureOf(n, kind, units));

/** The sheet of a film as it would be typed; null gives an empty one. */
export function draftOf(f: Film | null, units: UnitSystem = 'mm'): FilmDraft {
  const degrees = (c: number | null | undefined) => figure(c, 'temperature', units);
  return {
    name: f?.name ?? '',
    kind: f?.kind ?? 'solar',
    construction: f?.construction ?? '',
    wound: f?.wound ?? 'unknown',
    direction: f?.direction ?? 'none',
    machineDirection: f?.machineDirection ?? 'along',
    linerSide: f?.linerSide ?? 'adhesive',
    mounting: f?.mounting ?? 'inside',
    thicknessUm: figure(f?.thicknessUm, 'thickness', units),
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
    stretchMax: num(f?.stretchMaxPct),
    readAfter: num(f?.readAfterS),
    patternRepeat: units === 'in' && f?.patternRepeatMm != null ? inches(f.patternRepeatMm) : num(f?.patternRepeatMm),
    patternMatch: f?.patternMatch ?? 'straight',
    applyMin: degrees(f?.temps?.applyMinC),
    applyMax: degrees(f?.temps?.applyMaxC),
    postHeat: degrees(f?.temps?.postHeatC),
    limit: degrees(f?.temps?.limitC),
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
  stretchMax: 'Stretches to',
  readAfter: 'Read after',
};

/** What the person calls a part of the sheet; a sentence that names it by itself stands alone. */
const placeNames: Readonly<Record<string, string>> = {
  name: 'Name',
  thicknessUm: 'Thickness',
  hazeFrac: 'Haze',
  emissivityFrac: 'Emissivity',
  shrink: 'Shrinks',
  stretchMaxPct: 'Stretches to',
  readAfterS: 'Read after',
  patternRepeatMm: 'Repeat',
  temps: 'Temperatures',
  note: 'Note',
};
const offerNames: Readonly<Record<string, string>> = {
  widthMm: 'width: ',
  lengthM: 'length: ',
  pricePerRoll: 'price of a roll: ',
  pricePerM: 'price of a length: ',
};

/**
 * A film from what was typed: a new one, or the next version of `old`, which keeps what is not on the form, and to the last digit what nobody touched.
 * @returns the film, or sentences that say what does not read
 */
export function filmFromDraft(
  d: FilmDraft,
  sizes: readonly OfferDraft[],
  old: Film | null,
  id: string,
  at: string,
  units: UnitSystem = 'mm',
): { film: Film } | { faults: string[] } {
  const before = draftOf(old, units);
  const faults: string[] = [];
  const number = (field: keyof FilmDraft): number | null => {
    const text = d[field].trim().replace(',', '.');
    if (text === '') return null;
    const n = Number(text);
    if (Number.isFinite(n)) return n;
    faults.push(`${fieldNames[field] ?? field}: “${d[field]}” is no number.`);
    return null;
  };
  /** A figure in the units of the bench; what nobody touched stays as it was. */
  const measured = (field: keyof FilmDraft, kind: MeasureKind, was: number | null | undefined): number | null => {
    if (old && d[field] === before[field]) return was ?? null;
    const n = number(field);
    return n === null ? null : Math.round(measureOf(kind, units).from(n) * 100) / 100;
  };
  const repeat = (): number | null => {
    if (units === 'mm' || d.patternRepeat.trim() === '') return number('patternRepeat');
    if (old && d.patternRepeat === before.patternRepeat) return old.patternRepeatMm;
    const read = parseLength(d.patternRepeat, 'in');
    if (!read.ok) faults.push(`Repeat: ${read.message}`);
    return read.ok ? read.value.lengthMm : null;
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
  const thicknessUm = measured('thicknessUm', 'thickness', old?.thicknessUm);
  if (thicknessUm === null && faults.length === 0) faults.push(`Thickness: how thick is it, in ${measureOf('thickness', units).unit}?`);
  const degrees = (field: keyof FilmDraft, was: number | null | undefined) => measured(field, 'temperature', was);
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
    stretchMaxPct: number('stretchMax'),
    readAfterS: number('readAfter'),
    patternRepeatMm: repeat(),
    patternMatch: d.patternMatch,
    temps: tempsOf({ applyMinC: degrees('applyMin', old?.temps?.applyMinC), applyMaxC: degrees('applyMax', old?.temps?.applyMaxC), postHeatC: degrees('postHeat', old?.temps?.postHeatC), limitC: degrees('limit', old?.temps?.limitC) }, old), // prettier-ignore
    drying: d.drying || null,
    offers: offersOf(sizes, old, units),
    note: d.note.trim(),
    createdAt: at,
    retiredAt: null,
  };
  if (faults.length) return { faults };
  const read = filmSchema.safeParse(draft);
  if (!read.success)
    return {
      faults: read.error.issues.map((i) => {
        if (i.path[0] === 'offers') return `Sold as, line ${Number(i.path[1]) + 1}: ${offerNames[String(i.path[2])] ?? ''}${i.message}`;
        const name = placeNames[String(i.path[0])];
        return name && !i.message.startsWith('A film') ? `${name}: ${i.message}` : i.message;
      }),
    };
  const alone = read.data.optics ? filmBlock(read.data.optics) : null;
  return alone && !alone.ok ? { faults: [alone.message] } : { film: read.data };
}

/** Temperatures on the form; what relaxes the film is not asked here and stays. */
function tempsOf(typed: { applyMinC: number | null; applyMaxC: number | null; postHeatC: number | null; limitC: number | null }, old: Film | null): unknown {
  const temps = { relaxC: old?.temps?.relaxC ?? null, ...typed };
  return Object.values(temps).every((t) => t === null) ? null : temps;
}

/** Lines left empty are no sizes. */
function offersOf(sizes: readonly OfferDraft[], old: Film | null, units: UnitSystem): unknown[] {
  const n = (text: string) => (text.trim() === '' ? undefined : Number(text.replace(',', '.')));
  const price = (text: string) => text.trim().replace(',', '.');
  const before = offerDraftsOf(old, units);
  return sizes
    .filter((o) => Object.values(o).some((x: string) => x.trim() !== ''))
    .map((o) => {
      if (units === 'mm') return { widthMm: n(o.widthMm), lengthM: n(o.lengthM), pricePerRoll: price(o.pricePerRoll), pricePerM: price(o.pricePerM) };
      // what nobody touched stays as it was, to the last digit
      const at = before.findIndex((b) => b.widthMm === o.widthMm && b.lengthM === o.lengthM);
      const was = at < 0 ? undefined : old?.offers[at];
      const width = parseLength(o.widthMm, 'in');
      const [long, foot] = [n(o.lengthM), Number(price(o.pricePerM))];
      return {
        widthMm: was?.widthMm ?? (width.ok ? width.value.lengthMm : undefined),
        lengthM: was?.lengthM ?? (long === undefined ? undefined : Math.round(feet.from(long) * 1000) / 1000),
        pricePerRoll: price(o.pricePerRoll),
        pricePerM:
          was && before[at]!.pricePerM === o.pricePerM
            ? was.pricePerM
            : o.pricePerM.trim() === '' || !Number.isFinite(foot)
              ? price(o.pricePerM)
              : perFoot.from(foot).toFixed(2),
      };
    });
}
