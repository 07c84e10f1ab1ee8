import type { SlipSchool } from '@yellow-pane/contracts';
import { checkRange } from '../ground/index.js';

/** How a school doses what goes into the water. */
export interface SlipRule {
  readonly name: string;
  readonly what: string;
  /** Of the additive in the finished slip, ml per litre: the least and the most that the school names. */
  readonly lowMlPerL: number;
  readonly highMlPerL: number;
  readonly source: string;
}

/** A drop of dish soap. @source pharmacists' rule: 20 drops to the ml (common practice) */
export const DROP_ML = 0.05;
/** Level kitchen spoons, ml. @source common practice: 30 ml are 2 tablespoons */
const SPOON_ML = { table: 15, tea: 5 } as const;
export const FLUID_OUNCE_ML = 29.5735;
const GALLON_ML = 3785.41;
/** A cap of slip concentrate. @source house figure: measure the cap of your own bottle */
export const CAP_ML = 7.5;

/** @source the trade's differing schools (common practice); gallons and ounces are those of the USA */
export const slipRules: Record<SlipSchool, SlipRule> = {
  'soap-drops': {
    name: 'dish soap',
    what: 'dish soap',
    lowMlPerL: (6 * DROP_ML) / 0.4732,
    highMlPerL: (8 * DROP_ML) / 0.4732,
    source: '6–8 drops to 16 fl oz',
  },
  'shampoo-gallon': {
    name: 'shampoo by the gallon',
    what: 'baby shampoo',
    lowMlPerL: 30_000 / GALLON_ML,
    highMlPerL: 30_000 / GALLON_ML,
    source: '2 tablespoons to the gallon',
  },
  'shampoo-bottle': {
    name: 'shampoo by the bottle',
    what: 'baby shampoo',
    lowMlPerL: 15_000 / 946.35,
    highMlPerL: 15_000 / 946.35,
    source: '1 tablespoon to 32 fl oz of distilled water',
  },
  concentrate: {
    name: 'concentrate',
    what: 'slip concentrate',
    lowMlPerL: (CAP_ML * 1000) / 946.35,
    highMlPerL: (2 * CAP_ML * 1000) / 946.35,
    source: '1 cap to 32 fl oz, up to 2 when it is warmer than 22 °C',
  },
};
/** From here on a school that names a range goes to its upper end, °C. @source common practice: 72 °F (22 °C); full dose 10 °C above: house rule */
const WARM_FROM_C = 22;
const WARM_FULL_C = 32;

/** Dose of a school at a temperature of the glass, ml per litre of finished slip. */
export function slipDoseMlPerL(school: SlipSchool, glassC: number): number {
  const { lowMlPerL, highMlPerL } = slipRules[school];
  const warm = Math.max(0, Math.min(1, (glassC - WARM_FROM_C) / (WARM_FULL_C - WARM_FROM_C)));
  return lowMlPerL + (highMlPerL - lowMlPerL) * warm;
}

/** A mix for the area of a day. */
export interface SlipMix {
  readonly doseMlPerL: number;
  /** For the whole area. */
  readonly totalMl: number;
  readonly fillingCount: number;
  /** Into each filling of the bottle. */
  readonly waterMl: number;
  readonly additiveMl: number;
}

/** What goes into the bottles. @param areaM2 glass to be filmed @param slipMlPerM2 slip that a square metre takes @throws OutOfRange */
export function mixSlip(school: SlipSchool, areaM2: number, glassC: number, bottleMl: number, slipMlPerM2: number): SlipMix {
  checkRange('Area', areaM2, 0, 100_000, 'm²');
  checkRange('Bottle', bottleMl, 50, 25_000, 'ml');
  const doseMlPerL = slipDoseMlPerL(school, glassC);
  const totalMl = areaM2 * slipMlPerM2;
  const additiveMl = (bottleMl * doseMlPerL) / 1000;
  return { doseMlPerL, totalMl, fillingCount: Math.max(0, Math.ceil(totalMl / bottleMl - 1e-9)), waterMl: bottleMl - additiveMl, additiveMl };
}

/** A small volume in the measures that a hand has: drops, spoons, caps. */
export function spoonedText(ml: number, school: SlipSchool): string {
  const round = (x: number) => String(Math.round(x * 4) / 4).replace(/\.25$/, '¼').replace(/\.5$/, '½').replace(/\.75$/, '¾').replace(/^0(?=[¼½¾])/, ''); // prettier-ignore
  if (school === 'concentrate') return `${round(ml / CAP_ML)} ${ml / CAP_ML > 1.125 ? 'caps' : 'cap'}`;
  if (ml < 1.5) return `${Math.round(ml / DROP_ML)} drops`;
  if (ml < 10) return `${round(ml / SPOON_ML.tea)} teaspoon${ml / SPOON_ML.tea > 1.125 ? 's' : ''}`;
  return `${round(ml / SPOON_ML.table)} tablespoon${ml / SPOON_ML.table > 1.125 ? 's' : ''}`;
}

/** How a wrong mix is put right. */
export interface MixCorrection {
  /** Strength against what it should be: 1.5 is half too strong. */
  readonly strength: number;
  /** Out of the bottle first, so that what is added finds room. */
  readonly pourOutMl: number;
  readonly addWaterMl: number;
  readonly addAdditiveMl: number;
}

/**
 * Puts a mixed bottle right by adding water or additive, after pouring out no more than has to go.
 * @param inBottleMl what is in the bottle @param additiveMl additive that is in it @param bottleMl what the bottle holds
 * @throws OutOfRange when there is more additive than mix, or more mix than bottle
 */
export function correctMix(inBottleMl: number, additiveMl: number, bottleMl: number, doseMlPerL: number): MixCorrection {
  checkRange('In the bottle', inBottleMl, 1, bottleMl, 'ml');
  checkRange('Additive in it', additiveMl, 0, inBottleMl, 'ml');
  const target = doseMlPerL / 1000;
  const is = additiveMl / inBottleMl;
  const strength = is / target;
  if (strength >= 1) {
    // kept · strength = what it becomes
    const kept = Math.min(inBottleMl, bottleMl / strength);
    return { strength, pourOutMl: inBottleMl - kept, addWaterMl: kept * (strength - 1), addAdditiveMl: 0 };
  }
  // (kept · is + x) / (kept + x) = target
  const each = (target - is) / (1 - target);
  const kept = Math.min(inBottleMl, bottleMl / (1 + each));
  return { strength, pourOutMl: inBottleMl - kept, addWaterMl: 0, addAdditiveMl: kept * each };
}

/** What a mix off its strength does to the work. @source common practice */
export function strengthText(strength: number): string {
  if (strength > 1.25) return 'Too strong: the film will not tack, it rolls off behind the blade and edges let go.';
  if (strength < 0.8) return 'Too weak: the film grabs and will not slide, and creases where you pull.';
  return 'Right: it slides while wet and tacks when the water is out.';
}
