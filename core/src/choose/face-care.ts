import type { FaceFound, Pane } from '@yellow-pane/contracts';

/** What may touch the face that gets the film: a blade; a blade one way only; the soft pad and the hand; or nobody knows yet, so the pad until somebody does. */
export type FaceCare = 'blade' | 'one-way' | 'pad' | 'ask';
export interface CareOfFace {
  readonly care: FaceCare;
  /** In one sentence, what decides it. */
  readonly why: string;
}

const pad = (why: string): CareOfFace => ({ care: 'pad', why });
const ask = (why: string): CareOfFace => ({ care: 'ask', why });

/**
 * How the face that gets the film is cleaned, by what is known of the glass: a known coating, plastic, printed heating or antenna lines and grit in
 * tempered glass never see a blade, whatever a step says; what is not known is asked before anything hard touches it.
 * @param found what somebody felt on the spot: it settles what the record leaves open, and never takes back what the record knows
 * @source common practice: "soft pad along the lines and a feel by hand instead of the blade, not after it"
 */
export function careOfFace(surface: Pick<Pane, 'glazing' | 'filmFace' | 'curved' | 'workedFace'>, found: FaceFound = surface.workedFace): CareOfFace {
  const { glazing, filmFace, curved } = surface;
  const pane = glazing && (filmFace === 'room' ? glazing.panes.at(-1)! : glazing.panes[0]!);
  if (pane?.kind === 'plastic' || curved?.stamp === 'plastic') return pad('Plastic: every blade scratches it.');
  if (found === 'coated') return pad('A coating was felt on this face: a blade takes it off.');
  const ownFace = filmFace === 'room' ? 'inner' : 'outer';
  if (pane && pane.coating !== 'none' && pane.coating !== 'unknown' && pane.coatingFace === ownFace)
    return pad('This face is coated: a blade takes the coating off.');
  if (curved?.defroster && filmFace === 'room') return pad('Heating lines are printed on this face: along them with the pad, no blade.');
  if (found === 'lines' || (filmFace === 'room' && curved?.zones.some((z) => z.kind === 'antenna')))
    return pad('Heating or antenna lines are printed on this face: along them with the pad, no blade.');
  if (found === 'grit') return pad('Grit in the surface of tempered glass: a blade drags it over the pane.');
  if (found === 'grit-agreed') return { care: 'one-way', why: 'Grit in the surface, and a written go-ahead: scrape one way only.' };
  if (found === 'plain') return { care: 'blade', why: 'Felt smooth, uncoated, without lines.' };
  if (!pane && !curved) return ask('Nobody has said what glass it is.');
  if (pane?.kind === 'unknown') return ask('Nobody has said what kind of glass it is.');
  if (pane?.coating === 'unknown') return ask('Nobody has said whether it is coated.');
  if (curved && curved.stamp !== 'laminated') return ask('Curved glass is mostly tempered, and may carry lines: feel for grit and lines first.');
  if (pane?.kind === 'tempered' || pane?.kind === 'heat-strengthened') return ask('Hardened glass may have grit in its surface: feel for it first.');
  return { care: 'blade', why: pane?.kind === 'laminated' || curved ? 'Laminated, not coated on this face.' : 'Not hardened, not coated on this face.' };
}
