import { newCurvedPane, newShape, type Bow, type BowWay, type CurvedPane, type Glazing, type JobFile, type Pane } from '@yellow-pane/contracts';
import { vehicleFilm } from './films.js';
import { vehicleGlass } from './glass.js';
import { demoJob, demoPersons, vehicleRoll } from './firm.js';
import { demoAt, demoId } from './ids.js';
import { JobWriter, type Tapes } from './job-writer.js';
import { skylightCloud } from './skylight-cloud.js';

/** Way, place, what was read, and of a short straightedge where it began and how long it was. */
type Read = readonly [way: BowWay, atMm: number, typed: string, span?: readonly [number, number]];
let next = 0;
const bows = (...list: Read[]): Bow[] =>
  list.map(([way, atMm, typed, span]) => ({
    id: demoId(7500 + next++),
    way,
    atMm,
    span: span ? { fromMm: span[0], lengthMm: span[1] } : null,
    typed,
    unit: 'mm',
    depthMm: Number(typed),
    personId: demoPersons[0]!.id,
    at: demoAt(0),
  }));

/** The shuttle van and the launch of the ferry terminal: curved glass, and a wheelhouse that is refused. */
export function launchAndShuttle(): JobFile {
  next = 0;
  const job = demoJob(102, {
    name: 'Launch and shuttle',
    customer: 'Tern Point Ferries',
    address: 'Slipway, Tern Point',
    units: 'mm',
    dueOn: '2026-12-11',
    method: 'overhang',
  });
  const w = new JobWriter(job, 7000);
  const pane = (place: string, name: string, tapes: Tapes, curved: Partial<CurvedPane>, more: Partial<Omit<Pane, 'kind'>> & { glazing: Glazing }) =>
    w.pane(place, name, tapes, { filmId: vehicleFilm.id, frame: 'gasket', seenFrom: 'street', filmFace: 'room', curved: newCurvedPane(curved), ...more });

  const van = w.place('Shuttle van');
  const tempered = { glazing: vehicleGlass.tempered, exposure: vehicleGlass.outside } as const;
  // bent abruptly along its lower edge: after the eight usual bows the survey asked for three short straightedges, one by one
  pane(
    van,
    'Rear window',
    { widthTop: '1239', widthBottom: '1320', heightLeft: '561', heightRight: '561', diagonalDown: '1397', diagonalUp: '1398', bowTop: '46', bowBottom: '18' },
    {
      stamp: 'tempered',
      cornerRadiiMm: [70, 70, 70, 70],
      dotBorderMm: 35,
      defroster: { way: 'across', firstMm: 96, spacingMm: 32, count: 12 },
      zones: [
        { id: demoId(7401), kind: 'brake-light', leftMm: 560, lowMm: 540, widthMm: 200, heightMm: 40 },
        { id: demoId(7402), kind: 'wiper', leftMm: 620, lowMm: -8, widthMm: 80, heightMm: 60 },
      ],
      bows: bows(
        ['across', 510, '55.5'],
        ['across', 295, '58'],
        ['across', 75, '61.5'],
        ['upright', 160, '24'],
        ['upright', 660, '28'],
        ['upright', 1160, '23.5'],
        ['down', 0, '73'],
        ['up', 0, '72.5'],
        ['upright', 660, '2', [309, 260]],
        ['upright', 410, '5.5', [0, 140]],
        ['upright', 910, '13.5', [0, 250]],
        ['upright', 400, '1', [432, 180]],
        ['upright', 920, '1.5', [432, 180]],
      ),
    },
    tempered,
  );
  const door = pane(
    van,
    'Door glass right',
    { widthTop: '759', widthBottom: '820', heightLeft: '481', heightRight: '481', diagonalDown: '924', diagonalUp: '925', bowTop: '34' },
    {
      seat: 'drop',
      stamp: 'tempered',
      cornerRadiiMm: [0, 0, 50, 50],
      // along the pillar behind it
      zones: [{ id: demoId(7403), kind: 'airbag', leftMm: 755, lowMm: 60, widthMm: 50, heightMm: 330 }],
      bows: bows(
        ['across', 435, '2.5'],
        ['across', 255, '3'],
        ['across', 75, '2.5'],
        ['upright', 100, '10'],
        ['upright', 410, '9.5'],
        ['upright', 720, '9'],
        ['down', 0, '11'],
        ['up', 0, '11'],
      ),
    },
    { ...tempered, obstructions: [{ kind: 'sensor', note: 'side airbag in the pillar behind it' }] },
  );
  pane(van, 'Door glass left', {}, { seat: 'drop', stamp: 'tempered', isMirror: true }, { ...tempered, measuredLikeId: door });

  const launch = w.place('Launch');
  pane(
    launch,
    'Cabin port',
    { widthTop: '840', widthBottom: '840', heightLeft: '470', heightRight: '470', diagonalDown: '962', diagonalUp: '963' },
    {
      stamp: 'tempered',
      cornerRadiiMm: [60, 60, 60, 60],
      bows: bows(
        ['across', 400, '34.5'],
        ['across', 235, '33.5'],
        ['across', 70, '33'],
        ['upright', 100, '11'],
        ['upright', 420, '11.5'],
        ['upright', 740, '10'],
        ['down', 0, '41'],
        ['up', 0, '41'],
      ),
    },
    tempered,
  );
  // where the cabin flares out to meet the deck: the upper right corner is a saddle
  pane(
    launch,
    'Cabin forward',
    { widthTop: '781', widthBottom: '860', heightLeft: '482', heightRight: '483', diagonalDown: '950', diagonalUp: '950' },
    {
      stamp: 'tempered',
      cornerRadiiMm: [60, 60, 60, 60],
      bows: bows(
        ['across', 410, '19.5'],
        ['across', 240, '27.5'],
        ['across', 70, '30'],
        ['upright', 105, '9'],
        ['upright', 430, '9'],
        ['upright', 750, '-1.5'],
        ['down', 0, '32.5'],
        ['up', 0, '21.5'],
        ['upright', 740, '-2', [240, 200]],
        ['upright', 620, '-0.5', [240, 200]],
      ),
    },
    tempered,
  );
  pane(
    launch,
    'Skylight',
    {},
    { stamp: 'tempered', cloud: skylightCloud },
    {
      ...tempered,
      shape: newShape('drawn', { path: skylightCloud.outline.map((p) => ({ xMm: p.x, yMm: p.y, bulge: 0 })) }),
      note: 'Scanned by hand: demo/clouds/launch-skylight.ply',
    },
  );
  pane(
    launch,
    'Wheelhouse windscreen',
    { widthTop: '1100', widthBottom: '1100', heightLeft: '620', heightRight: '620', diagonalDown: '1262', diagonalUp: '1263' },
    {
      stamp: 'laminated',
      cornerRadiiMm: [40, 40, 40, 40],
      bows: bows(
        ['across', 525, '18'],
        ['across', 310, '18.5'],
        ['across', 95, '18'],
        ['upright', 130, '5'],
        ['upright', 550, '6'],
        ['upright', 970, '5.5'],
        ['down', 0, '23'],
        ['up', 0, '22.5'],
      ),
    },
    { glazing: vehicleGlass.lookout, exposure: vehicleGlass.outside, note: 'Asked for by the skipper; refused: lookout glass.' },
  );
  const file = w.file();
  return { ...file, films: [vehicleFilm], rolls: [vehicleRoll] };
}
