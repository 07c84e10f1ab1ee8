import * as z from 'zod';
import { decimalPrice, id, instant, lengthMm, unitSystem, words } from '../quantities.js';
import { allowances, cutMethod } from '../cut/allowances.js';
import { chooseSettings } from '../choose/glazing.js';
import { dryAllowances } from '../cut/dry-allowances.js';
import { cutSettings } from '../cut/settings.js';
import { prepareSettings } from '../prepare/settings.js';
import { formingSchool } from '../form/curved.js';
import { laySettings } from '../lay/steps.js';
import { acceptanceRule } from '../check/pin.js';
import { defaultLeftoverRule, leftoverRule } from '../stock/ledger.js';

const bladeWidths = z.array(z.number().min(25).max(900)).min(1).max(12);
/** Blades in the van, widths in mm: a wide one cleans, a narrow one presses, thick film wants the narrowest. */
export const blades = z.object({ cleaningMm: bladeWidths, pressingMm: bladeWidths, thickMm: bladeWidths });
export type Blades = z.infer<typeof blades>;
/** @source common practice: pressing 2–6 in (50–150 mm), since the same hand presses a third as hard on three times the width; 200 mm is taken as the widest for thin film, 150 mm for thick (house rule) */
export const defaultBlades: Blades = { cleaningMm: [150, 300, 450], pressingMm: [100, 150, 200], thickMm: [100, 150] };

/** The firm that owns the bench: one per data folder for now. */
export const firm = z.object({
  id,
  name: words(120),
  currency: z.string().length(3),
  units: unitSystem,
  /** What an hour on site or at the bench is worth, for comparing methods. */
  hourRate: decimalPrice,
  allowances,
  leftovers: leftoverRule.default(defaultLeftoverRule),
  blades: blades.default(defaultBlades),
  /** How film is formed on curved glass unless a job or a pane says otherwise; null: as it is recommended. */
  forming: formingSchool.nullable().default(null),
  /** What it lets pass on film that is on; left out: as shipped. */
  acceptance: acceptanceRule.optional(),
  /** What it adds to pieces that are laid dry; left out: as shipped. */
  dry: dryAllowances.partial().optional(),
});
export type Firm = z.infer<typeof firm>;

export const person = z.object({ id, firmId: id, name: words(80), role: words(80) });
export type Person = z.infer<typeof person>;

/** One job at one site. */
export const job = z.object({
  id,
  firmId: id,
  name: words(120).min(1, 'A job needs a name.'),
  customer: words(120),
  address: words(240),
  /** IANA zone of the site; instants are stored in UTC beside it. */
  zone: words(60),
  latDeg: z.number().min(-90).max(90).nullable(),
  lonDeg: z.number().min(-180).max(180).nullable(),
  units: unitSystem,
  currency: z.string().length(3),
  dueOn: z.iso.date().nullable(),
  /** The method that pieces of this job are cut by, unless a surface says otherwise. */
  method: cutMethod,
  allowances: allowances.partial().nullable(),
  /** What is added to pieces that are laid dry, where it differs from the firm’s. */
  dry: dryAllowances.partial().nullable().default(null),
  cut: cutSettings,
  choose: chooseSettings.nullable().default(null),
  prepare: prepareSettings.nullable().default(null),
  lay: laySettings.nullable().default(null),
  /** Straight edge to the longest side a person can reach without a ladder; null = not said. */
  reachMm: lengthMm.nullable(),
  createdAt: instant,
  deletedAt: instant.nullable(),
});
export type Job = z.infer<typeof job>;

/** A place of the job, in the order one walks the site. */
export const place = z.object({ id, jobId: id, name: words(80).min(1, 'A place needs a name.'), order: z.number(), deletedAt: instant.nullable() });
export type Place = z.infer<typeof place>;
