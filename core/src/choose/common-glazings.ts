import type { Cavity, GlassPane, Glazing } from '@yellow-pane/contracts';

/** A build-up that is met every week, to start from. */
export interface CommonGlazing {
  readonly name: string;
  readonly glazing: Glazing;
}

const pane = (thicknessMm: number, more: Partial<GlassPane> = {}): GlassPane => ({
  kind: 'float',
  thicknessMm,
  tint: 'clear',
  coating: 'none',
  coatingFace: 'inner',
  ...more,
});
const unit = (panes: GlassPane[], cavities: Cavity[] = []): Glazing => ({
  panes,
  cavities,
  frame: 'unknown',
  edgeCoverMm: null,
  edge: 'hidden',
  ageYears: null,
  isFireRated: false,
  isLookout: false,
  isLeaded: false,
  hasFailedSeal: false,
});
const gap = (widthMm: number, gas: Cavity['gas'] = 'air'): Cavity => ({ gas, widthMm });

/** @source common practice: what stands in houses, shops and offices; frame, edge and age are for the person to say */
export const commonGlazings: readonly CommonGlazing[] = [
  { name: 'Single, 4 mm clear', glazing: unit([pane(4)]) },
  { name: 'Single, 6 mm clear', glazing: unit([pane(6)]) },
  { name: 'Single, 6 mm grey', glazing: unit([pane(6, { tint: 'grey' })]) },
  { name: 'Single, 8 mm tempered', glazing: unit([pane(8, { kind: 'tempered' })]) },
  { name: 'Single, 6.4 mm laminated', glazing: unit([pane(6, { kind: 'laminated' })]) },
  { name: 'Single, 6 mm wired', glazing: unit([pane(6, { kind: 'wired' })]) },
  { name: 'Single, 4 mm patterned', glazing: unit([pane(4, { kind: 'patterned' })]) },
  { name: 'Double, 4-12-4 air, uncoated', glazing: unit([pane(4), pane(4)], [gap(12)]) },
  { name: 'Double, 6-16-6 air, uncoated', glazing: unit([pane(6), pane(6)], [gap(16)]) },
  { name: 'Double, 4-16-4 argon, soft low-e', glazing: unit([pane(4), pane(4, { coating: 'low-e-soft', coatingFace: 'outer' })], [gap(16, 'argon')]) },
  { name: 'Double, 6-16-4 argon, solar control', glazing: unit([pane(6, { coating: 'solar-control' }), pane(4)], [gap(16, 'argon')]) },
  {
    name: 'Double, 4-16 argon, laminated room pane, soft low-e',
    glazing: unit([pane(4, { coating: 'low-e-soft' }), pane(6, { kind: 'laminated' })], [gap(16, 'argon')]),
  },
  {
    name: 'Triple, 4-14-4-14-4 argon, soft low-e',
    glazing: unit(
      [pane(4, { coating: 'low-e-soft' }), pane(4), pane(4, { coating: 'low-e-soft', coatingFace: 'outer' })],
      [gap(14, 'argon'), gap(14, 'argon')],
    ),
  },
];

/** A pane that nobody has looked at. */
export const unseenPane: GlassPane = { kind: 'unknown', thicknessMm: null, tint: 'unknown', coating: 'unknown', coatingFace: 'inner' };
