import { defaultChooseSettings, type ChooseSettings, type Exposure, type GlassPane, type Glazing, type Want } from '@yellow-pane/contracts';

const pane = (thicknessMm: number, more: Partial<GlassPane> = {}): GlassPane => ({
  kind: 'float',
  thicknessMm,
  tint: 'clear',
  coating: 'none',
  coatingFace: 'inner',
  ...more,
});
const glazing = (g: Partial<Glazing> & Pick<Glazing, 'panes'>): Glazing => ({
  cavities: [],
  frame: 'metal',
  edgeCoverMm: 12,
  edge: 'hidden',
  ageYears: 15,
  isFireRated: false,
  isLookout: false,
  isLeaded: false,
  hasFailedSeal: false,
  ...g,
});
const exposure = (facadeDeg: number, more: Partial<Exposure> = {}): Exposure => ({
  isIndoors: false,
  facadeDeg,
  overhangMm: null,
  overhangAboveMm: null,
  blind: 'none',
  partialShadow: 'none',
  heightAboveFloorMm: 200,
  ...more,
});
const wants = (...list: Want[]): ChooseSettings => ({ ...defaultChooseSettings, wants: list });

/** Glass of the van and the launch. */
export const vehicleGlass = {
  tempered: glazing({ panes: [pane(4, { kind: 'tempered', tint: 'green' })], frame: 'metal', edgeCoverMm: 10, edge: 'ground', ageYears: 6 }),
  lookout: glazing({ panes: [pane(6, { kind: 'laminated' })], frame: 'metal', edgeCoverMm: 12, edge: 'ground', ageYears: 6, isLookout: true }),
  outside: exposure(180, { heightAboveFloorMm: 900 }),
} as const;

/** The glass of Tern Point, place by place. */
export const ternGlass = {
  /** Big double units in an aluminium front, looking out to sea. */
  west: {
    glazing: glazing({ panes: [pane(6), pane(6)], cavities: [{ gas: 'air', widthMm: 16 }], frame: 'broken-metal', edge: 'ground' }),
    exposure: exposure(262),
  },
  /** Newer plastic windows; nobody has read the stamp. */
  office: {
    glazing: glazing({
      panes: [pane(4), pane(4, { coating: 'low-e-soft', coatingFace: 'outer' })],
      cavities: [{ gas: 'argon', widthMm: 16 }],
      frame: 'plastic',
      ageYears: 8,
    }),
    exposure: exposure(262, { heightAboveFloorMm: 900, overhangMm: 800, overhangAboveMm: 400 }),
    choose: wants('safety', 'view', 'light', 'cost'),
  },
  /** Between meeting room and corridor. */
  partition: {
    choose: wants('privacy-night', 'privacy-day', 'light', 'looks'),
    glazing: glazing({ panes: [pane(8, { kind: 'tempered' })] }),
    exposure: { ...exposure(0, { heightAboveFloorMm: 0 }), isIndoors: true, facadeDeg: null },
  },
  /** A screen on the counter. */
  desk: {
    choose: wants('privacy-day', 'light', 'looks'),
    glazing: glazing({ panes: [pane(8, { kind: 'tempered' })], edge: 'ground' }),
    exposure: { ...exposure(0, { heightAboveFloorMm: 980 }), isIndoors: true, facadeDeg: null },
  },
  toilet: {
    choose: wants('privacy-night', 'privacy-day', 'light'),
    glazing: glazing({ panes: [pane(4)], frame: 'wood', ageYears: 45, edge: 'cut' }),
    exposure: exposure(352, { heightAboveFloorMm: 1400 }),
  },
  patterned: {
    glazing: glazing({ panes: [pane(4, { kind: 'patterned' })], frame: 'wood', ageYears: 45, edge: 'cut' }),
    exposure: exposure(352, { heightAboveFloorMm: 1400 }),
  },
  officeDoor: {
    choose: wants('privacy-day', 'light'),
    glazing: glazing({ panes: [pane(6, { kind: 'wired' })], frame: 'wood', ageYears: 40 }),
    exposure: { ...exposure(0), isIndoors: true, facadeDeg: null },
  },
  /** Old grey float in a concrete rebate, towards the south. */
  south: {
    glazing: glazing({ panes: [pane(6, { tint: 'grey' })], frame: 'masonry', ageYears: 35 }),
    exposure: exposure(176, { heightAboveFloorMm: 800, partialShadow: 'permanent' }),
  },
  /** Thin old sheet in oak, and papers behind it that fade. */
  customs: {
    glazing: glazing({ panes: [pane(4)], frame: 'wood', ageYears: 90, edge: 'cut' }),
    exposure: exposure(205, { heightAboveFloorMm: 1100 }),
    choose: wants('heat', 'light', 'view'),
  },
  shopFront: { glazing: glazing({ panes: [pane(6)], frame: 'wood', edge: 'cut' }), exposure: exposure(135, { overhangMm: 900, overhangAboveMm: 300 }) },
} as const;
