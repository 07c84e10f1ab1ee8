import * as z from 'zod';
import { decimalPrice, id, instant, positiveLengthMm, rollLengthM, words } from '../quantities.js';

/** A roll on its core, or a sheet kept from an earlier plan. */
export const rollForm = z.enum(['roll', 'leftover']);
export type RollForm = z.infer<typeof rollForm>;

/** Which long edges are still the roll's own straight edge, drawn liner up from the squared start. */
export const rollEdges = z.enum(['both', 'near', 'far', 'none']);
export type RollEdges = z.infer<typeof rollEdges>;

const diameterMm = z.number().min(10).max(2000).meta({ unit: 'mm' });
/** How the length was found: told or unrolled, from diameters and thickness, or by what the full roll measured. */
export const lengthFrom = z.discriminatedUnion('how', [
  z.object({ how: z.literal('known') }),
  z.object({ how: z.literal('diameter'), outsideMm: diameterMm, coreMm: diameterMm, thicknessUm: z.number().min(5).max(5000).meta({ unit: 'µm' }) }),
  z.object({
    how: z.literal('full-roll'),
    outsideMm: diameterMm,
    coreMm: diameterMm,
    fullOutsideMm: diameterMm,
    fullLengthM: rollLengthM.positive(),
  }),
]);
export type LengthFrom = z.infer<typeof lengthFrom>;

/** One roll or leftover in the van or the shop. What is on it now is `lengthM` and all stock entries since. */
export const roll = z.object({
  id,
  filmId: id,
  label: words(40).min(1, 'A roll needs a label: what you call it, or what is written on it.'),
  lot: words(40),
  widthMm: positiveLengthMm,
  lengthM: rollLengthM,
  /** One standard deviation of that length; 0 = told. */
  lengthSigmaM: z.number().min(0).max(200).meta({ unit: 'm' }).default(0),
  lengthFrom: lengthFrom.default({ how: 'known' }),
  /** Crushed or crooked start that is cut away before the first drop. */
  leadInMm: z.number().min(0).max(5000).meta({ unit: 'mm' }),
  pricePerM: decimalPrice,
  /** True while it is only planned on and still has to be ordered. */
  isToOrder: z.boolean().default(false),
  form: rollForm.default('roll'),
  /** Where it stands or lies: shelf, tube, van. */
  place: words(60).default(''),
  edges: rollEdges.default('both'),
  /** Which face lies outside; null = as the film is usually wound. */
  wound: z.enum(['liner-in', 'liner-out', 'unknown']).nullable().default(null),
  /** The roll and the plan that a leftover was cut from. */
  fromRollId: id.nullable().default(null),
  fromPlanId: id.nullable().default(null),
  /** The job and the drop whose rest it is, so that a re-plan finds it again. */
  fromDrop: z.string().max(1000).nullable().default(null),
  deletedAt: instant.nullable(),
});
export type Roll = z.infer<typeof roll>;

/** A whole roll of which no more is known. */
export const newRoll = (known: Pick<Roll, 'id' | 'filmId' | 'label' | 'widthMm' | 'lengthM' | 'pricePerM'> & Partial<Roll>): Roll => ({
  lot: '',
  lengthSigmaM: 0,
  lengthFrom: { how: 'known' },
  leadInMm: 0,
  isToOrder: false,
  form: 'roll',
  place: '',
  edges: 'both',
  wound: null,
  fromRollId: null,
  fromPlanId: null,
  fromDrop: null,
  deletedAt: null,
  ...known,
});
