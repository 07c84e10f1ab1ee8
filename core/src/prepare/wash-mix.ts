import type { WashKind } from '@yellow-pane/contracts';
import { checkRange } from '../ground/index.js';
import { spoonedText } from './slip-mix.js';

/** What goes onto a surface before the film: how it is mixed, how much it takes, and what too much and too little do. */
export interface WashRule {
  readonly name: string;
  readonly what: string;
  /** Pure additive in the finished mix, ml per litre. */
  readonly doseMlPerL: number;
  /** Mix that a square metre takes. @source house figures */
  readonly mlPerM2: number;
  /** The additive comes at more than one strength: its label says which. */
  readonly isDiluted: boolean;
  readonly source: string;
  readonly tooStrong: string;
  readonly tooWeak: string;
  readonly after: string;
  readonly caution: string;
}

/** @source the trade's figures (common practice); gallons and ounces are those of the USA */
export const washRules: Record<WashKind, WashRule> = {
  cleaner: {
    name: 'glass cleaner',
    what: 'cleaner concentrate',
    doseMlPerL: 1000 / 3,
    mlPerM2: 60,
    isDiluted: false,
    source: 'about 1 part of alcohol-based concentrate to 2 parts of water',
    tooStrong: 'Too strong: it dries before it is wiped off, and streaks stay.',
    tooWeak: 'Too weak: grease and glue stay on the glass and show as specks and fingers.',
    after: 'Goes first and comes off wholly: a rest of it under the film keeps it from tacking. It is not slip.',
    caution: 'Alcohol and its vapour burn: air the room, no flame, gloves. Follow the label on the bottle.',
  },
  alcohol: {
    name: 'alcohol wipe',
    what: 'isopropyl alcohol',
    doseMlPerL: 700,
    mlPerM2: 30,
    isDiluted: true,
    source: '70 % isopropyl alcohol, 30 % water',
    tooStrong: 'Too strong: it is gone before it has loosened anything, and the fumes are worse.',
    tooWeak: 'Too weak: a film of grease and water stays, and edges let go.',
    after: 'On walls and panels, last of all: wipe one way with a clean cloth and let it dry.',
    caution: 'Burns and its fumes make dizzy: open windows, no flame or spark, gloves; try a hidden spot of paint first.',
  },
  detergent: {
    name: 'wall wash',
    what: 'detergent',
    doseMlPerL: (29.5735 * 1000) / 3785.41,
    mlPerM2: 150,
    isDiluted: false,
    source: '1 fl oz of detergent to the gallon (30 ml to 3.79 l)',
    tooStrong: 'Too strong: what stays behind is why wall film falls off. Rinse until the water runs clear.',
    tooWeak: 'Too weak: kitchen grease stays, and the film lets go from the edges.',
    after: 'Rinse twice with clear water and let the wall dry overnight. Greasy walls: trisodium phosphate, mixed as its label says, rinsed the same way.',
    caution: 'Phosphate cleaner is caustic: gloves and glasses, nothing near eyes; keep water out of sockets and switches.',
  },
};

/** A wash for an area, by the filling of a bottle or bucket. */
export interface WashMix {
  readonly doseMlPerL: number;
  readonly totalMl: number;
  readonly fillingCount: number;
  readonly waterMl: number;
  readonly additiveMl: number;
}

/**
 * What goes into a filling. @param strengthPct of the additive as it comes (isopropyl of 99 % or 91 %); 100 for what is used as it is
 * @throws OutOfRange, also where the additive as it comes is weaker than the mix
 */
export function mixWash(kind: WashKind, areaM2: number, bottleMl: number, strengthPct: number): WashMix {
  checkRange('Area', areaM2, 0, 100_000, 'm²');
  checkRange('Bottle', bottleMl, 50, 25_000, 'ml');
  const rule = washRules[kind];
  checkRange(`Strength of the ${rule.what}`, strengthPct, rule.isDiluted ? rule.doseMlPerL / 10 : 100, 100, '%');
  // by volume; that alcohol and water shrink a little as they mix (under 3 %) does not matter to a cloth
  const doseMlPerL = rule.doseMlPerL / (strengthPct / 100);
  const totalMl = areaM2 * rule.mlPerM2;
  const additiveMl = (bottleMl * doseMlPerL) / 1000;
  return { doseMlPerL, totalMl, fillingCount: Math.max(0, Math.ceil(totalMl / bottleMl - 1e-9)), waterMl: bottleMl - additiveMl, additiveMl };
}

/** A volume of additive as a hand measures it: spoons while it is little, parts of the bottle else. */
export function washMeasure(kind: WashKind, additiveMl: number): string {
  return kind === 'detergent' && additiveMl < 60 ? `${spoonedText(additiveMl, 'shampoo-bottle')} (${additiveMl.toFixed(0)} ml)` : `${additiveMl.toFixed(0)} ml`;
}
/** What a wash off its strength does. @param strength against what it should be */
export function washStrengthText(kind: WashKind, strength: number): string {
  if (strength > 1.25) return washRules[kind].tooStrong;
  if (strength < 0.8) return washRules[kind].tooWeak;
  return 'Right.';
}
