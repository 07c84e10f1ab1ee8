import { newRoll, type JobFile, type Roll } from '@yellow-pane/contracts';
import { demoLibrary } from './films.js';
import { demoJob } from './firm.js';
import { demoId } from './ids.js';
import { JobWriter } from './job-writer.js';

const ash = demoLibrary.find((f) => f.name === 'Ash Plank')!;
/** Film for walls and columns in the van. */
const interiorRolls: Roll[] = [
  newRoll({
    id: demoId(60),
    filmId: ash.id,
    label: 'A-301',
    lot: 'L2610-A',
    widthMm: 1220,
    lengthM: 46,
    leadInMm: 120,
    pricePerM: '19.00',
    place: 'Van, upright rack',
  }),
];

/** What is not glass at Tern Point: the columns of its departure hall and the doors along its corridor, in wood-look film. */
export function ternInterior(): JobFile {
  const job = demoJob(104, {
    name: 'Tern Point interior',
    customer: 'Tern Point Ferries',
    address: 'Pier Road 1, Tern Point',
    units: 'mm',
    dueOn: '2026-12-11',
    method: 'overhang',
  });
  const w = new JobWriter(job, 14_000);
  const hall = w.place('Departure hall · columns');
  const painted = {
    material: 'steel',
    finish: 'painted',
    madeOn: '2024-05-02',
    gloss: 'satin',
    state: 'sound',
    isDamp: false,
    isGreasy: false,
    surfaceTempC: 19,
  } as const;
  // it narrows by 32 mm of girth; the slip: at half height 1214 was written where it is 1241
  w.column(
    hall,
    'Column 1',
    {
      girthFoot: '1257',
      girthMiddle: '1214',
      girthTop: '1225',
      heightFront: '2500',
      heightRight: '2501',
      heightBack: '2503',
      heightLeft: '2502',
      acrossFront: '395',
      acrossSide: '395',
    },
    { filmId: ash.id, ground: painted },
  );
  // oval: its girths alone would pass for a round one of 400
  w.column(
    hall,
    'Column 2',
    {
      girthFoot: '1257',
      girthMiddle: '1258',
      girthTop: '1257',
      heightFront: '2502',
      heightRight: '2502',
      heightBack: '2502',
      heightLeft: '2501',
      acrossFront: '420',
      acrossSide: '380',
      plumbFront: '6',
      plumbBack: '-6',
    },
    { filmId: ash.id, ground: painted },
  );
  const office = w.place('Corridor');
  w.column(
    office,
    'Pier',
    {
      girthFoot: '1004',
      girthMiddle: '1004',
      girthTop: '1003',
      heightFront: '2640',
      heightRight: '2641',
      heightBack: '2640',
      heightLeft: '2640',
      acrossFront: '255',
      acrossSide: '256',
      cornerRadius: '10',
    },
    {
      section: 'square',
      filmId: ash.id,
      ground: { ...painted, material: 'concrete', finish: 'bare', madeOn: null, gloss: 'matt' },
      note: 'Bare concrete: prime it first.',
    },
  );
  doors(w, w.place('Corridor · office doors'));
  return { ...w.file(), films: [ash], rolls: interiorRolls };
}

/** Six office doors of one make, pressed board with two frames of grooves, and the wall of the goods lift, which is wider than the roll. */
function doors(w: JobWriter, corridor: string): void {
  const lacquered = {
    material: 'wood-board',
    finish: 'lacquered',
    madeOn: null,
    gloss: 'satin',
    state: 'sound',
    isDamp: false,
    isGreasy: true,
    surfaceTempC: 20,
  } as const;
  const groove = (n: number, fromFootMm: number, upMm: number, girthMm: number) =>
    ({
      id: demoId(14_900 + n),
      run: { way: 'frame', fromLeftMm: 130, fromFootMm, acrossMm: 600, upMm },
      toFarEdgeMm: 130,
      form: 'vee',
      widthMm: 10,
      depthMm: 4,
      flatMm: 2,
      girthMm,
    }) as const;
  const lever = {
    id: demoId(14_910),
    what: 'Lever and plate',
    handling: 'off',
    fromLeftMm: 775,
    fromFootMm: 920,
    widthMm: 45,
    heightMm: 240,
    isElectric: false,
  } as const;
  const peephole = {
    id: demoId(14_911),
    what: 'Peephole',
    handling: 'round',
    fromLeftMm: 420,
    fromFootMm: 1500,
    widthMm: 20,
    heightMm: 20,
    isElectric: false,
  } as const;
  const door = (name: string, hinges: 'left' | 'right', more: object = {}) => ({
    filmId: ash.id,
    ground: lacquered,
    hinges,
    fire: 'no' as const,
    grooves: [groove(1, 150, 700, 13), groove(2, 1000, 880, 13)],
    hardware: [hinges === 'left' ? lever : { ...lever, fromLeftMm: 40 }],
    ...more,
  });
  const first = w.panel(
    corridor,
    'Door 1',
    { widthTop: '860', widthMiddle: '860', widthBottom: '860', heightLeft: '2040', heightMiddle: '2040', heightRight: '2040', diagonalDown: '2214', diagonalUp: '2214', edgeThickness: '40' },
    door('Door 1', 'left'),
  ); // prettier-ignore
  w.panel(corridor, 'Door 2', {}, { ...door('Door 2', 'left'), measuredLikeId: first });
  // the slip: its lower frame’s string was not pressed into the groove
  w.panel(corridor, 'Door 3', {}, { ...door('Door 3', 'right', { grooves: [groove(3, 150, 700, 10), groove(4, 1000, 880, 13)] }), measuredLikeId: first });
  w.panel(corridor, 'Door 4', {}, { ...door('Door 4', 'left'), measuredLikeId: first });
  w.panel(corridor, 'Door 5', {}, { ...door('Door 5', 'right', { hardware: [{ ...lever, fromLeftMm: 40 }, peephole] }), measuredLikeId: first });
  w.panel(corridor, 'Door 6', { heightLeft: '2035', heightMiddle: '2035', heightRight: '2035', diagonalDown: '2209', diagonalUp: '2209' }, { ...door('Door 6', 'left'), measuredLikeId: first }); // prettier-ignore
  w.panel(
    corridor,
    'Goods lift, back wall',
    { widthTop: '1580', widthMiddle: '1580', widthBottom: '1581', heightLeft: '2100', heightRight: '2100', diagonalDown: '2628', diagonalUp: '2628' },
    {
      what: 'lift-wall',
      filmId: ash.id,
      ground: { ...lacquered, material: 'steel', finish: 'painted', madeOn: '2019-03-01', isGreasy: false },
      fire: 'no',
      wraps: { left: 'trimmed', right: 'trimmed', top: 'trimmed', bottom: 'trimmed' },
      grooves: [
        { id: demoId(14_920), run: { way: 'upright', fromLeftMm: 786 }, toFarEdgeMm: 786, form: 'square', widthMm: 8, depthMm: 5, flatMm: 0, girthMm: null },
      ],
      hardware: [
        { id: demoId(14_921), what: 'Push buttons', handling: 'off', fromLeftMm: 1380, fromFootMm: 1000, widthMm: 90, heightMm: 220, isElectric: true },
      ],
    },
  );
}
