import type { UnitSystem } from './length.js';

// Temperatures, areas, thicknesses and winds as they are told in a job that is measured in inches: °F, ft², mil, mph. Lengths have their own words (length.ts).

/** Square feet in a square metre: (1 / 0.3048)². @source the international foot of 0.3048 m (1959) */
const FT2_PER_M2 = 1 / 0.3048 ** 2;
/** Micrometres in a thousandth of an inch. @source the inch of 25.4 mm */
const UM_PER_MIL = 25.4;
/** Miles an hour in a metre a second. @source the mile of 1609.344 m */
const MPH_PER_M_S = 3600 / 1609.344;

/** Degrees Fahrenheit of degrees Celsius. */
export const fahrenheit = (c: number): number => (c * 9) / 5 + 32;
/** Degrees Celsius of degrees Fahrenheit. */
export const celsius = (f: number): number => ((f - 32) * 5) / 9;

/** One kind of quantity: what stands behind its figure, and how it is brought there and back. */
export interface Measure {
  readonly unit: string;
  /** From °C, m², µm, m/s, mm of rain, m of film, or something for a m², a m, a km. */
  readonly to: (value: number) => number;
  readonly from: (value: number) => number;
  /** Decimals of a figure in a field. */
  readonly digits: number;
}
const asIs = (unit: string, digits: number): Measure => ({ unit, to: (v) => v, from: (v) => v, digits });
const times = (unit: string, factor: number, digits: number): Measure => ({ unit, to: (v) => v * factor, from: (v) => v / factor, digits });

/** Kinds of quantities that are typed and told. */
export type MeasureKind = 'temperature' | 'area' | 'thickness' | 'wind' | 'rain' | 'roll' | 'way' | 'perArea' | 'perLength' | 'perDistance';

const measures: Record<MeasureKind, Record<UnitSystem, Measure>> = {
  temperature: { mm: asIs('°C', 1), in: { unit: '°F', to: fahrenheit, from: celsius, digits: 0 } },
  area: { mm: asIs('m²', 2), in: times('ft²', FT2_PER_M2, 1) },
  thickness: { mm: asIs('µm', 0), in: times('mil', 1 / UM_PER_MIL, 1) },
  wind: { mm: asIs('m/s', 0), in: times('mph', MPH_PER_M_S, 0) },
  rain: { mm: asIs('mm', 1), in: times('in', 1 / 25.4, 2) },
  /** Film on a roll. */
  roll: { mm: asIs('m', 2), in: times('ft', 1 / 0.3048, 1) },
  /** A way driven. */
  way: { mm: asIs('km', 1), in: times('miles', 1 / 1.609344, 1) },
  /** Minutes or money for an area, for a length of film or edge, for a way driven. */
  perArea: { mm: asIs('m²', 2), in: times('ft²', 1 / FT2_PER_M2, 3) },
  perLength: { mm: asIs('m', 4), in: times('ft', 0.3048, 3) },
  perDistance: { mm: asIs('km', 4), in: times('mile', 1.609344, 3) },
};
export const measureOf = (kind: MeasureKind, system: UnitSystem): Measure => measures[kind][system];

/** A figure for a field: no more decimals than its unit takes, none that say nothing. */
export const figureOf = (value: number, kind: MeasureKind, system: UnitSystem): string => {
  const { to, digits } = measureOf(kind, system);
  return String(Number(to(value).toFixed(Math.max(digits, system === 'mm' ? 3 : 0))));
};

const decimalsOf = (text: string): number => text.split('.')[1]?.length ?? 0;
const signed = (text: string): number => Number(text.replace('−', '-'));
const written = (value: number, digits: number): string =>
  value
    .toFixed(digits)
    .replace(/^-0(\.0+)?$/, '0$1')
    .replace('-', '−');

const N = String.raw`([−-]?\d+(?:\.\d+)?)`;
const BETWEEN = String.raw`( (?:to|and|…|or) |–)`;
const rangesOf = (unit: string): RegExp => new RegExp(`${N}${BETWEEN}${N}([ \\u00a0]${unit})`, 'g');
const singlesOf = (unit: string): RegExp => new RegExp(`${N}([ \\u00a0]${unit})`, 'g');

/** What a sentence says in °C, m², µm and m/s: as a pattern, how it is brought over, and its decimals. */
const retellings: readonly { readonly unit: string; readonly to: (v: number) => number; readonly as: string; readonly digits: (text: string) => number }[] = [
  // differences first: they have no 32 in them
  { unit: String.raw`K(?![a-z])`, to: (v) => v * 1.8, as: '°F', digits: (t) => decimalsOf(t) },
  {
    unit: String.raw`°C(?= (?:warmer|colder|above|below the|under the|over the|more|less|apart|of difference))`,
    to: (v) => v * 1.8,
    as: '°F',
    digits: (t) => decimalsOf(t),
  },
  { unit: '°C', to: fahrenheit, as: '°F', digits: (t) => Math.max(0, decimalsOf(t) - 1) },
  { unit: 'm²', to: (v) => v * FT2_PER_M2, as: 'ft²', digits: (t) => Math.max(0, decimalsOf(t) - 1) },
  { unit: 'µm', to: (v) => v / UM_PER_MIL, as: 'mil', digits: () => 1 },
  { unit: 'm/s', to: (v) => v * MPH_PER_M_S, as: 'mph', digits: () => 0 },
];

/**
 * A sentence that tells temperatures, areas, thicknesses and winds, in the units of the job. Figures with these units are brought over; everything else stays as
 * it is. Temperatures that differ by something (K; °C warmer, colder, above …) are brought over as differences.
 */
export function told(text: string, system: UnitSystem): string {
  if (system === 'mm') return text;
  let out = text;
  for (const { unit, to, as, digits } of retellings) {
    const put = (n: string) => written(to(signed(n)), digits(n));
    out = out.replace(rangesOf(unit), (_, a: string, between: string, b: string, u: string) => `${put(a)}${between}${put(b)}${u.charAt(0)}${as}`);
    out = out.replace(singlesOf(unit), (_, a: string, u: string) => `${put(a)}${u.charAt(0)}${as}`);
  }
  return out;
}

/** A temperature for a sentence. */
export const temperatureText = (c: number, system: UnitSystem, digits = 0): string => told(`${written(c, digits)} °C`, system);

/** Every sentence of a plan, a list or a paper, however deep it lies, in the units of the job. @returns the same object where nothing changes */
export function toldAll<T>(value: T, system: UnitSystem): T {
  if (system === 'mm') return value;
  if (typeof value === 'string') return told(value, system) as T;
  if (Array.isArray(value)) {
    const out: unknown[] = value.map((v: unknown) => toldAll(v, system));
    return (out.some((v, i) => v !== value[i]) ? out : value) as T;
  }
  if (value === null || typeof value !== 'object' || Object.getPrototypeOf(value) !== Object.prototype) return value;
  const entries = Object.entries(value).map(([k, v]) => [k, toldAll(v as unknown, system)] as const);
  return (entries.some(([k, v]) => v !== (value as Record<string, unknown>)[k]) ? Object.fromEntries(entries) : value) as T;
}

/** Film on a roll for a sentence: "3.08 m", or "10.1 ft". */
export const filmText = (mm: number, system: UnitSystem, digits = 2): string => {
  const { to, unit } = measureOf('roll', system);
  return `${to(mm / 1000).toFixed(system === 'in' ? 1 : digits)} ${unit}`;
};

/** What is used of what there is: "3.08 of 8.00 m", or "10.1 of 26.2 ft". */
export const filmShareText = (usedMm: number, allMm: number, system: UnitSystem, digits = 2): string =>
  `${filmText(usedMm, system).split(' ')[0]} of ${filmText(allMm, system, digits)}`;

/** A price for a metre of film as it is asked for: a metre, or a foot. */
export const lengthPrice = (pricePerM: number, system: UnitSystem): { readonly figure: string; readonly unit: string } => {
  const { to, unit } = measureOf('perLength', system);
  return { figure: to(pricePerM).toFixed(2), unit };
};
