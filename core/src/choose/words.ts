import type { Exposure, GlassPane, Glazing, PaneKind, Want } from '@yellow-pane/contracts';

const kindWords: Record<PaneKind, string> = {
  float: '',
  'heat-strengthened': 'heat-strengthened',
  tempered: 'tempered',
  laminated: 'laminated',
  wired: 'wired',
  patterned: 'patterned',
  plastic: 'plastic',
  unknown: 'of unknown kind',
};
const coatingWords = {
  none: '',
  'low-e-soft': 'soft low-e',
  'low-e-hard': 'hard low-e',
  'solar-control': 'solar control coating',
  unknown: 'coating unknown',
} as const;

const paneWords = (p: GlassPane): string =>
  [p.thicknessMm === null ? '? mm' : `${p.thicknessMm} mm`, p.tint === 'unknown' ? 'tint unknown' : p.tint, kindWords[p.kind], coatingWords[p.coating]]
    .filter(Boolean)
    .join(' ');

/** A build-up as one says it, from the street to the room. */
export function glazingWords(g: Glazing): string {
  const count = ['Single', 'Double', 'Triple', 'Quadruple'][g.panes.length - 1]!;
  const parts = g.panes.flatMap((p, i) => {
    const c = g.cavities[i];
    return c ? [paneWords(p), `${c.widthMm === null ? '?' : c.widthMm} mm ${c.gas === 'unknown' ? 'of unknown gas' : c.gas}`] : [paneWords(p)];
  });
  return `${count}: ${parts.join(', ')}`;
}

/** Where a pane stands, in words. @param bearing name of its bearing */
export function exposureWords(e: Exposure, bearing: string | null): string {
  if (e.isIndoors) return 'between two rooms';
  return [
    bearing === null ? 'bearing unknown' : `looks ${bearing}`,
    e.overhangMm ? `overhang ${Math.round(e.overhangMm)} mm` : '',
    e.blind === 'inside' ? 'blind inside' : '',
    e.partialShadow === 'permanent' ? 'a shadow edge stays on it' : '',
  ]
    .filter(Boolean)
    .join(', ');
}

/** What a customer says. */
export const wantWords: Record<Want, string> = {
  heat: 'less heat',
  glare: 'less glare',
  light: 'keep the light',
  view: 'keep the view',
  'privacy-day': 'privacy by day',
  'privacy-night': 'privacy at night',
  safety: 'safer glass',
  looks: 'hardly seen',
  cost: 'low price',
};
export const gradeWords = { go: 'go', ask: 'ask the glass maker', 'do-not': 'do not' } as const;
