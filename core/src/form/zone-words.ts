import type { PaneZone, ShrinkInput, ShrinkPlan } from '@yellow-pane/contracts';
import { formatFine, formatRough } from '../ground/index.js';
import { common, regionOf, type Polygon } from '../geometry/index.js';
import { edgeLosses, PRESSED_MM, type Finger } from './fingers.js';
import { densified, onFlatFilm } from './flat-film.js';
import type { FormedPane, TriedLine } from './formed-pane.js';
import { barringBoxes, keptBox, minding, raisedMm, type KeptBox, type Led } from './keep-clear.js';

/** A finger stands beside a zone when its foot is no farther from it along the edge. @source house rule: one finger on from where film is led */
const BESIDE_MM = 220;

const boxRing = (b: KeptBox): Polygon => [
  { x: b.minX, y: b.minY },
  { x: b.maxX, y: b.minY },
  { x: b.maxX, y: b.maxY },
  { x: b.minX, y: b.maxY },
];
const rounded = (mm: number): number => Math.round(10 * mm) / 10;

/** "fingers 3 and 5". */
const fingerWords = (numbers: readonly number[]): string =>
  numbers.length === 0
    ? 'the stretch beside it'
    : numbers.length === 1
      ? `finger ${numbers[0]}`
      : `fingers ${numbers.slice(0, -1).join(', ')} and ${numbers.at(-1)}`;

/** What is to be done about each zone of a pane, and where film is led past it. @param order places in the order of work */
export function keepClearOf(
  input: ShrinkInput,
  pane: FormedPane,
  { field }: TriedLine,
  fingers: { readonly above: readonly Finger[]; readonly below: readonly Finger[] },
  order: ShrinkPlan['order'],
): ShrinkPlan['keepClear'] {
  const { curved, units } = input;
  const boxes = barringBoxes(curved);
  const led = (['above', 'below'] as const).map((side) => ({ side, led: edgeLosses(field.stations, side, boxes).led }));
  const toFilm = onFlatFilm(field.stations);
  const raise = raisedMm(curved);
  return curved.zones.map((zone: PaneZone) => {
    const { name, heatMm, what, bars } = minding[zone.kind];
    const mine = led.flatMap(({ side, led: all }) => all.filter((l) => l.boxes.some((b) => b.zone.id === zone.id)).map((l) => ({ ...l, side })));
    const [ledMm, stuckMm] = [mine.reduce((s, l) => s + l.ledMm, 0), mine.reduce((s, l) => s + l.stuckMm, 0)];
    const beside = [...new Set(mine.flatMap((l) => nextTo(l, fingers[l.side])))]
      .map((f) => order.findIndex((o) => o.side === f.side && o.number === f.number) + 1)
      .sort((a, b) => a - b);
    const onPane = common(regionOf(boxRing(keptBox(zone))), regionOf(pane.outline))[0]?.[0] ?? [];
    const heat = heatMm === null || !bars ? '' : ` Heat stays ${formatRough(heatMm, units)} away.`;
    const others = [...new Set(mine.flatMap((l) => l.boxes).filter((b) => b.zone.id !== zone.id).map((b) => ` and the ${minding[b.zone.kind].name.toLowerCase()}`))].join(''); // prettier-ignore
    const past = ledMm > 0.05 ? ` ${formatFine(ledMm, units)} of film is led past it${others} to ${fingerWords(beside)}.` : '';
    const stuck = stuckMm > PRESSED_MM ? ` ${formatFine(stuckMm, units)} has no way round.` : '';
    return {
      zoneId: zone.id,
      kind: zone.kind,
      name,
      heatMm,
      text: `${name}: ${what}.${heat}${past}${stuck}`,
      ledMm,
      stuckMm,
      beside,
      ring: densified(onPane, 30).map((p): [number, number, number] => [rounded(p.x), rounded(p.y), rounded(pane.fit.surface.at(p.x, p.y).r[2])]),
      flatRing: densified(onPane, 30).flatMap((p) => {
        const at = toFilm({ x: p.x, y: p.y - raise });
        return at ? [{ x: rounded(at.x), y: rounded(at.y) }] : [];
      }),
    };
  });
}

/** The nearest finger to either side of a zone, where there is one near. */
function nextTo({ fromMm, toMm }: Led, fingers: readonly Finger[]): Finger[] {
  const left = fingers.filter((f) => f.alongMm < fromMm && fromMm - f.alongMm <= BESIDE_MM).at(-1);
  const right = fingers.find((f) => f.alongMm > toMm && f.alongMm - toMm <= BESIDE_MM);
  return [left, right].filter((f) => f !== undefined);
}
