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
    lengthM: 27.5,
    leadInMm: 120,
    pricePerM: '19.00',
    place: 'Van, upright rack',
  }),
];

/** What is not glass at Tern Point: the columns of its departure hall, in wood-look film. */
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
  return { ...w.file(), films: [ash], rolls: interiorRolls };
}
