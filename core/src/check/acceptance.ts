import type { AcceptanceRule, PinKind } from '@yellow-pane/contracts';
import { formatFine, formatInches, formatRough, told, type UnitSystem } from '../ground/index.js';

/** A single thing on a pane that the rule can count. */
export interface Flaw {
  readonly id: string;
  readonly kind: PinKind;
  /** Longest way across; null: not measured. */
  readonly sizeMm: number | null;
  readonly at: { readonly xMm: number; readonly yMm: number };
  /** To the nearest edge of the pane. */
  readonly edgeMm: number;
  /** Whether somebody at the agreed distance saw it; null: nobody has said. */
  readonly isSeenFromThere: boolean | null;
}
/** What the rule says of one: not seen, let pass, not let pass, or it has to be measured first. */
export interface FlawRuling {
  readonly id: string;
  readonly verdict: 'unseen' | 'within' | 'beyond' | 'measure';
  readonly why: string;
}

/** What a firm lets pass that has not written its own rule. @source industry guides say 2 m (6 ft) at right angles in daylight (common practice); the sizes and counts are house figures */
export const defaultAcceptance: AcceptanceRule = {
  distanceMm: 2000,
  unseenMm: 0.5,
  speckMm: 1.5,
  lineMm: 10,
  perM2: 3,
  apartMm: 300,
  edgeMm: 50,
  source: 'Distance and daylight: industry guides. Sizes and counts: house figures, agree them with the customer.',
};

/** Kinds that are counted as specks or as lines; of others the rule says nothing. @source industry guides name specks, hairs, lint, scratches and bubbles (common practice) */
const counted: Partial<Record<PinKind, 'speck' | 'line'>> = { speck: 'speck', bubble: 'speck', hair: 'line', scratch: 'line', streak: 'line' };
/** Whether the rule can say anything of such a thing. */
export const isCounted = (kind: PinKind): boolean => kind in counted;

/** How far off one stands to look, as one says it. */
export const farText = (mm: number, units: UnitSystem): string =>
  units === 'in' ? formatInches(mm, { denominator: 1, feet: true }) : `${Number((mm / 1000).toFixed(1))} m`;

/** The zone along the edges is judged half as strictly. @source house rule */
const EDGE_LENIENCE = 2;

/**
 * Holds what was seen on one pane to the firm's rule: larger than allowed, too many for the area, or so near to one another that they are seen as one.
 * What nobody saw from the agreed distance is let be, whatever its size; what is smaller than the eye finds does not count.
 * @param areaM2 of the pane; one is allowed on the smallest
 * @returns one ruling for each thing the rule can count, in the order given
 */
export function holdToRule(flaws: readonly Flaw[], areaM2: number, rule: AcceptanceRule, units: UnitSystem): FlawRuling[] {
  const far = farText(rule.distanceMm, units);
  const size = (mm: number) => formatFine(mm, units);
  const known = flaws.filter((f) => isCounted(f.kind));
  const isAtEdge = (f: Flaw): boolean => f.edgeMm < rule.edgeMm;
  const isOut = (f: Flaw): boolean => f.isSeenFromThere === false || (f.sizeMm !== null && f.sizeMm < rule.unseenMm);
  const seen = known.filter((f) => !isOut(f));
  const limitOf = (f: Flaw): number => (counted[f.kind] === 'line' ? rule.lineMm : rule.speckMm) * (isAtEdge(f) ? EDGE_LENIENCE : 1);
  const allowedIn = (edge: boolean): number => Math.max(1, Math.floor(rule.perM2 * areaM2)) * (edge ? EDGE_LENIENCE : 1);
  const nearTo = (f: Flaw): Flaw[] => seen.filter((o) => o.id !== f.id && Math.hypot(o.at.xMm - f.at.xMm, o.at.yMm - f.at.yMm) < rule.apartMm);
  return known.map((f): FlawRuling => {
    const say = (verdict: FlawRuling['verdict'], why: string): FlawRuling => ({ id: f.id, verdict, why });
    if (f.isSeenFromThere === false) return say('unseen', `Not seen from ${far}: it stays.`);
    if (f.sizeMm === null) return say('measure', `How large is it? The rule lets ${size(limitOf(f))} pass here.`);
    if (f.sizeMm < rule.unseenMm) return say('unseen', `Under ${size(rule.unseenMm)} does not count.`);
    const limit = limitOf(f);
    if (f.sizeMm > limit) return say('beyond', `${size(f.sizeMm)}; the rule lets ${size(limit)} pass ${isAtEdge(f) ? 'near the edge' : 'here'}.`);
    const near = nearTo(f).filter((o) => o.sizeMm !== null);
    const together = near.reduce((s, o) => s + o.sizeMm!, f.sizeMm);
    if (near.length && together > limit)
      return say(
        'beyond',
        `Nearer than ${formatRough(rule.apartMm, units)} to ${near.length === 1 ? 'another one' : `${near.length} others`}: seen as one of ${size(together)}.`,
      );
    const many = seen.filter((o) => isAtEdge(o) === isAtEdge(f)).length;
    const allowed = allowedIn(isAtEdge(f));
    if (many > allowed)
      return say(
        'beyond',
        told(`${many} on ${areaM2.toFixed(2)} m²; the rule lets ${allowed} pass ${isAtEdge(f) ? 'near the edges' : 'in the field'}.`, units),
      );
    return say(
      'within',
      `${size(f.sizeMm)}, ${many} of ${allowed} allowed ${isAtEdge(f) ? 'near the edges' : 'in the field'}: it stays, unless it was agreed otherwise.`,
    );
  });
}
