import * as z from 'zod';

/** What a pane is; 'unknown' is allowed everywhere and takes the unfavourable value. */
export const paneKind = z.enum(['float', 'heat-strengthened', 'tempered', 'laminated', 'wired', 'patterned', 'plastic', 'unknown']);
export type PaneKind = z.infer<typeof paneKind>;
export const paneTint = z.enum(['clear', 'low-iron', 'grey', 'bronze', 'green', 'blue', 'unknown']);
export type PaneTint = z.infer<typeof paneTint>;
/** Coatings by what they do; the face is seen from the street: `outer` is the pane's street face. */
export const coatingKind = z.enum(['none', 'low-e-soft', 'low-e-hard', 'solar-control', 'unknown']);
export type CoatingKind = z.infer<typeof coatingKind>;
const paneFace = z.enum(['outer', 'inner']);

const thicknessMm = z.number().min(1).max(80).meta({ unit: 'mm' });

export const glassPane = z.object({
  kind: paneKind,
  thicknessMm: thicknessMm.nullable(),
  tint: paneTint,
  coating: coatingKind,
  coatingFace: paneFace,
});
export type GlassPane = z.infer<typeof glassPane>;
export const cavity = z.object({ gas: z.enum(['air', 'argon', 'krypton', 'unknown']), widthMm: z.number().min(3).max(100).meta({ unit: 'mm' }).nullable() });
export type Cavity = z.infer<typeof cavity>;

export const frameMaterial = z.enum(['wood', 'plastic', 'metal', 'broken-metal', 'masonry', 'unknown']);
export type FrameMaterial = z.infer<typeof frameMaterial>;
export const edgeCondition = z.enum(['ground', 'cut', 'damaged', 'patched', 'hidden']);
export type EdgeCondition = z.infer<typeof edgeCondition>;

/** The build-up of one pane of the job: panes from the street to the room, a cavity between each two. */
export const glazing = z
  .object({
    panes: z.array(glassPane).min(1).max(4),
    cavities: z.array(cavity).max(3),
    frame: frameMaterial,
    /** How deep the frame covers the edge. */
    edgeCoverMm: z.number().min(0).max(60).meta({ unit: 'mm' }).nullable(),
    edge: edgeCondition,
    ageYears: z.number().min(0).max(300).nullable(),
    isFireRated: z.boolean(),
    /** Wheelhouse, windscreen, front side glass. */
    isLookout: z.boolean(),
    isLeaded: z.boolean(),
    hasFailedSeal: z.boolean(),
  })
  .refine((g) => g.cavities.length === g.panes.length - 1, { path: ['cavities'], message: 'Between each two panes there is exactly one cavity.' });
export type Glazing = z.infer<typeof glazing>;

/** Where the pane stands in sun and sight. */
export const exposure = z.object({
  /** Between two rooms: no sun and no weather on either side. */
  isIndoors: z.boolean(),
  /** Bearing that the street face looks to, from true north, clockwise; null = nobody said. */
  facadeDeg: z.number().min(0).lt(360).meta({ unit: '°' }).nullable(),
  /** From the face of the wall, not from the glass. */
  overhangMm: z.number().min(0).max(20_000).meta({ unit: 'mm' }).nullable(),
  /** Clear height between the top of the pane and the overhang. */
  overhangAboveMm: z.number().min(0).max(20_000).meta({ unit: 'mm' }).nullable(),
  blind: z.enum(['none', 'inside', 'unknown']),
  /** A shadow edge that lies on the pane for hours: a mullion, a sign, a neighbour's roof. */
  partialShadow: z.enum(['none', 'permanent', 'unknown']),
  heightAboveFloorMm: z.number().min(0).max(100_000).meta({ unit: 'mm' }).nullable(),
});
export type Exposure = z.infer<typeof exposure>;

/** What the face that gets the film turned out to be when somebody felt it: smooth and bare, coated, with printed lines, grit of tempering (and whether scraping was agreed in writing). */
export const faceFound = z.enum(['unknown', 'plain', 'coated', 'lines', 'grit', 'grit-agreed']);
export type FaceFound = z.infer<typeof faceFound>;

/** What the customer wants, in the words of the trade. */
export const want = z.enum(['heat', 'glare', 'light', 'view', 'privacy-day', 'privacy-night', 'safety', 'looks', 'cost']);
export type Want = z.infer<typeof want>;

/** Light levels on both sides by day and by night, lux. */
export const lightLevels = z.object({
  dayOutsideLux: z.number().min(0).max(150_000),
  dayInsideLux: z.number().min(0).max(150_000),
  nightOutsideLux: z.number().min(0).max(150_000),
  nightInsideLux: z.number().min(0).max(150_000),
});
export type LightLevels = z.infer<typeof lightLevels>;

/** Climate that the worst hours are computed for. */
export const climate = z.object({
  hotC: z.number().min(-20).max(60).meta({ unit: '°C' }),
  coldC: z.number().min(-60).max(30).meta({ unit: '°C' }),
  insideC: z.number().min(-10).max(40).meta({ unit: '°C' }),
});
export type Climate = z.infer<typeof climate>;

/** What a choice of film is asked for: the order of wants, a limit, light on both sides, the climate. */
export const chooseSettings = z.object({
  wants: z.array(want).max(9),
  /** Least visible transmission that local law or the landlord asks for; null = none entered. */
  leastVisibleFrac: z.number().min(0).max(1).nullable(),
  light: lightLevels,
  climate,
});
export type ChooseSettings = z.infer<typeof chooseSettings>;

/** @source light levels: common practice (an overcast-bright street, a lit office, a lit street at night); climate: a temperate coast, house rule */
export const defaultChooseSettings: ChooseSettings = {
  wants: ['heat', 'glare', 'light'],
  leastVisibleFrac: null,
  light: { dayOutsideLux: 10_000, dayInsideLux: 300, nightOutsideLux: 10, nightInsideLux: 300 },
  climate: { hotC: 35, coldC: -5, insideC: 22 },
};

/** A pane of which nobody has said where it stands. */
export const unknownExposure: Exposure = {
  isIndoors: false,
  facadeDeg: null,
  overhangMm: null,
  overhangAboveMm: null,
  blind: 'unknown',
  partialShadow: 'unknown',
  heightAboveFloorMm: null,
};
