import { newCurvedPane, type Bow, type BowPlace, type CurvedPane, type Pane } from '@yellow-pane/contracts';
import { edgeBows, usualBows } from '@yellow-pane/core/form';
import type { Polygon } from '@yellow-pane/core/geometry';
import { v7 as uuidv7 } from 'uuid';
import type { TypedReading } from '../../kit/length-field';

/** A place where a straightedge is laid or may be laid, with what was read there. */
export interface BowSlot extends BowPlace {
  readonly key: string;
  readonly bow: Bow | null;
  /** The one more bow that would narrow the result most. */
  readonly isAsked: boolean;
}

/** A bow this near to a usual place is that place's own, mm. */
const NEAR_MM = 45;
/** Both from edge to edge, or both short and at the same edge. */
const standsAlike = (a: BowPlace, b: BowPlace): boolean =>
  a.span === null || b.span === null
    ? a.span === b.span
    : Math.abs(a.span.fromMm - b.span.fromMm) < NEAR_MM || Math.abs(a.span.fromMm + a.span.lengthMm - b.span.fromMm - b.span.lengthMm) < NEAR_MM;
const keyOf = (p: BowPlace): string => `${p.way}-${Math.round(p.atMm)}-${p.span ? `${Math.round(p.span.fromMm)}-${Math.round(p.span.lengthMm)}` : 'whole'}`;

/**
 * Where a straightedge goes, in walking order: the usual eight from edge to edge, then short ones at the lower and the upper edge, each by the bow that was read near it or
 * still empty, then what was read besides, then the one that is asked for.
 */
export function bowSlots(outline: Polygon, curved: Pick<CurvedPane, 'bows' | 'turnsIn'>, asked: BowPlace | null): BowSlot[] {
  const left = [...curved.bows];
  const slots = [...usualBows(outline), ...edgeBows(outline, curved.turnsIn)].map((place): BowSlot => {
    const near = left
      .filter((b) => b.way === place.way && Math.abs(b.atMm - place.atMm) < NEAR_MM && standsAlike(b, place))
      .sort((a, b) => Math.abs(a.atMm - place.atMm) - Math.abs(b.atMm - place.atMm))[0];
    if (near) left.splice(left.indexOf(near), 1);
    const at = near ?? place;
    return { way: at.way, atMm: at.atMm, span: at.span, key: near?.id ?? keyOf(place), bow: near ?? null, isAsked: false };
  });
  const more = left.map((b): BowSlot => ({ way: b.way, atMm: b.atMm, span: b.span, key: b.id, bow: b, isAsked: false }));
  const isThere =
    asked &&
    [...slots, ...more].some((s) => s.way === asked.way && Math.abs(s.atMm - asked.atMm) < 12 && (s.span?.fromMm ?? -1) === (asked.span?.fromMm ?? -1));
  return [...slots, ...more, ...(asked && !isThere ? [{ ...asked, key: keyOf(asked), bow: null, isAsked: true }] : [])];
}

/** The curve with a bow read at a place: a new one, or the old one read again. */
export function withBow(
  curved: CurvedPane,
  slot: BowPlace & { readonly bow: Bow | null },
  typed: TypedReading,
  who: { personId: string; at: string },
): CurvedPane {
  const bow: Bow = {
    id: slot.bow?.id ?? uuidv7(),
    way: slot.way,
    atMm: slot.atMm,
    span: slot.span,
    typed: typed.typed,
    unit: typed.unit,
    depthMm: typed.lengthMm,
    ...who,
  };
  const bows = slot.bow ? curved.bows.map((b) => (b.id === bow.id ? bow : b)) : [...curved.bows, bow];
  return { ...curved, bows };
}
export const withoutBow = (curved: CurvedPane, id: string): CurvedPane => ({ ...curved, bows: curved.bows.filter((b) => b.id !== id) });

/** The window across: measured like this one, turned over. */
export function mirrorOf(surface: Pane, id: string, order: number): Pane {
  const other = /\bleft\b/i.test(surface.name) ? surface.name.replace(/\bleft\b/i, 'right') : /\bright\b/i.test(surface.name) ? surface.name.replace(/\bright\b/i, 'left') : /\bport\b/i.test(surface.name) ? surface.name.replace(/\bport\b/i, 'starboard') : `${surface.name} across`; // prettier-ignore
  const c = surface.curved!;
  return {
    ...surface,
    id,
    name: other,
    order,
    measuredLikeId: surface.id,
    grid: null,
    signed: null,
    extraPieces: [],
    servedById: null,
    curved: newCurvedPane({ seat: c.seat, taped: c.taped, isMirror: true, stamp: c.stamp }),
  };
}
