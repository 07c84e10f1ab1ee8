import * as z from 'zod';
import { decimalPrice, id, instant, lengthMm, positiveLengthMm, rollLengthM, words } from '../quantities.js';

/** Kinds of film, as the trade sorts them by what they are for. */
export const filmKind = z.enum([
  'solar',
  'exterior-solar',
  'mirror',
  'frosted',
  'security',
  'anti-graffiti',
  'anti-fog',
  'windscreen-protection',
  'interior',
  'printed-decor',
  'textured-wall',
  'cast-wrap',
  'lettering',
]);
export type FilmKind = z.infer<typeof filmKind>;
/** What the film is made of, by what that does to heat and light. */
export const filmConstruction = z.enum([
  'clear',
  'dyed',
  'metallised',
  'ceramic',
  'spectrally-selective',
  'matt',
  'cast-vinyl',
  'calendered-vinyl',
  'embossed-vinyl',
  'urethane',
]);
const reference = z.enum(['none', 'clear-3', 'clear-6']);

/** A share of 1. */
const frac = z.number().min(0).max(1).meta({ unit: '1' });
const temp = z.number().min(-60).max(400).meta({ unit: '°C' }).nullable();

/**
 * One band of light through the film as rated: on the reference glass with the film on its far face, or the film alone in air.
 * `glass side`: light that comes through the glass (or onto the adhesive); `free side`: light onto the open face of the film.
 */
export const filmBand = z.object({ transmittanceFrac: frac, reflectanceGlassSideFrac: frac, reflectanceFreeSideFrac: frac });
export type FilmBand = z.infer<typeof filmBand>;

/** Rounded values on a sheet may add up to this much beside 1. */
const SHEET_ROUNDING = 0.011;
const tooMuch = (band: FilmBand): string | null => {
  for (const [side, r] of [
    ['glass', band.reflectanceGlassSideFrac],
    ['free', band.reflectanceFreeSideFrac],
  ] as const)
    if (band.transmittanceFrac + r > 1 + SHEET_ROUNDING)
      return `transmission ${pct(band.transmittanceFrac)} and reflection ${pct(r)} on the ${side} side make more than 100 %`;
  return null;
};
const pct = (share: number): string => `${Math.round(share * 1000) / 10} %`;

/** The film's optical data; refused with a sentence where they cannot belong to one film. */
export const filmOptics = z
  .object({
    ratedOn: reference,
    visible: filmBand,
    solar: filmBand.extend({ absorptanceGlassSideFrac: frac }),
    uvTransmittanceFrac: frac,
  })
  .superRefine((o, ctx) => {
    for (const [band, name] of [
      [o.visible, 'visible'],
      [o.solar, 'solar'],
    ] as const) {
      const fault = tooMuch(band);
      if (fault) ctx.addIssue({ code: 'custom', path: [name], message: `In the ${name} band ${fault}. Look at the sheet again.` });
    }
    const sum = o.solar.transmittanceFrac + o.solar.reflectanceGlassSideFrac + o.solar.absorptanceGlassSideFrac;
    if (Math.abs(sum - 1) > SHEET_ROUNDING)
      ctx.addIssue({
        code: 'custom',
        path: ['solar', 'absorptanceGlassSideFrac'],
        message: `Solar transmission, reflection and absorption add up to ${pct(sum)}; they must make 100 %. One of the three is wrong.`,
      });
    if (o.ratedOn !== 'none' && Math.min(o.visible.reflectanceGlassSideFrac, o.solar.reflectanceGlassSideFrac) < 0.04)
      ctx.addIssue({
        code: 'custom',
        path: ['ratedOn'],
        message: 'Rated on glass, the reflection on the glass side cannot be under 4 %: the glass face alone gives that.',
      });
    if (o.uvTransmittanceFrac > o.visible.transmittanceFrac + 0.3)
      ctx.addIssue({
        code: 'custom',
        path: ['uvTransmittanceFrac'],
        message: 'More ultraviolet than visible light gets through: the two are probably swapped.',
      });
  });
export type FilmOptics = z.infer<typeof filmOptics>;

/** A size the film is sold in. */
export const filmOffer = z.object({ widthMm: positiveLengthMm, lengthM: rollLengthM, pricePerRoll: decimalPrice, pricePerM: decimalPrice });
export type FilmOffer = z.infer<typeof filmOffer>;

/** One immutable version of a film. A job refers to the version; a film in use is retired, never lost. */
export const film = z.object({
  id,
  name: words(80).min(1, 'A film needs a name.'),
  version: z.int().min(1),
  /** The version this one replaces. */
  replacesId: id.nullable().default(null),
  kind: filmKind,
  construction: filmConstruction.nullable().default(null),
  /** Which face lies outside on the roll. */
  wound: z.enum(['liner-in', 'liner-out', 'unknown']),
  /** Direction that must stay upright: none, one way only, or either way up. */
  direction: z.enum(['none', 'one-way', 'two-way']),
  /** Which way of the roll the film was drawn, so which way heat shrinks it; `both`: it shrinks both ways. */
  machineDirection: z.enum(['along', 'across', 'both', 'none']).default('along'),
  /** Which face the liner covers: the adhesive, the show face, or none (static and water-activated films on a bare roll). */
  linerSide: z.enum(['adhesive', 'face', 'none']).default('adhesive'),
  /** Hatch by which it is told apart in drawings. */
  hatch: z.enum(['slant', 'dots', 'cross', 'lines']),
  thicknessUm: z.number().positive().max(5000).meta({ unit: 'µm' }),
  /** Which face of the glass it is made for. */
  mounting: z.enum(['inside', 'outside', 'either', 'not-on-glass']).default('inside'),
  /** Null: nobody has entered the sheet; then no verdict on light and heat is given. */
  optics: filmOptics.nullable().default(null),
  /** Share of the light let through that is scattered. */
  hazeFrac: frac.nullable().default(null),
  /** Emissivity of the free face; plain polyester is about 0.9. */
  emissivityFrac: frac.nullable().default(null),
  /** How much it can shrink along the roll, and what it does across (positive: grows), per cent. */
  shrink: z
    .object({ alongPct: z.number().min(0).max(60), acrossPct: z.number().min(-60).max(60) })
    .nullable()
    .default(null),
  /** How far its maker lets it be stretched, hot, per cent of its length; null: not in the library. */
  stretchMaxPct: z.number().min(0).max(200).nullable().default(null),
  /** How long the gun has to be away before it is read, by its maker; null: not in the library. */
  readAfterS: z.number().min(0.2).max(60).nullable().default(null).meta({ unit: 's' }),
  patternRepeatMm: lengthMm.nullable().default(null),
  /** How neighbouring drops match: at the same height, or by half a repeat. */
  patternMatch: z.enum(['straight', 'half-drop']).default('straight'),
  temps: z.object({ applyMinC: temp, applyMaxC: temp, relaxC: temp, postHeatC: temp, limitC: temp }).nullable().default(null),
  drying: z.enum(['fast', 'medium', 'slow', 'dry-applied']).nullable().default(null),
  offers: z.array(filmOffer).max(12).default([]),
  note: words(400).default(''),
  createdAt: instant,
  retiredAt: instant.nullable().default(null),
});
export type Film = z.infer<typeof film>;
