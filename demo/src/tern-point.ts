import type { JobFile } from '@yellow-pane/contracts';
import { demoFilms } from './films.js';
import { ternGlass } from './glass.js';
import { demoJob } from './firm.js';
import { eight, JobWriter, two } from './job-writer.js';

/** Tern Point ferry terminal: the flat glass of a made-up harbour, 41 panes in six places. */
export function ternPoint(): JobFile {
  const job = demoJob(100, {
    name: 'Tern Point terminal',
    customer: 'Tern Point Ferries',
    address: 'Pier Road 1, Tern Point',
    units: 'mm',
    dueOn: '2026-12-03',
    method: 'overhang',
  });
  const w = new JobWriter(job, 1000);
  const { shade, guard, frost } = demoFilms;

  const west = w.place('Waiting room · west front');
  const groupTop = { filmId: shade.id, frame: 'gasket', revealMm: 60, ...ternGlass.west } as const;
  w.grid(west, 'T', 1, 6, two('1182', '486'), groupTop);
  w.grid(west, 'W', 1, 6, two('1184', '2046'), groupTop);

  const office = w.place('Ticket office');
  const secured = { filmId: guard.id, frame: 'silicone', note: 'Double glazing: film on the inner pane, room face.', ...ternGlass.office } as const;
  w.pane(office, 'O1', two('1420', '1130'), secured);
  w.pane(office, 'O2', two('1422', '1131'), secured);
  w.pane(office, 'O3', two('1418', '1130'), { ...secured, obstructions: [{ kind: 'sensor', note: 'glass-break sensor, top right: customer moves it' }] });
  w.pane(office, 'O4', two('560', '1130'), secured);
  w.pane(office, 'O5', two('561', '1128'), { ...secured, obstructions: [{ kind: 'handle', note: 'casement handle, right' }] });

  const meeting = w.place('Meeting room');
  const partition = { filmId: frost.id, frame: 'bead', ...ternGlass.partition } as const;
  w.grid(meeting, 'M', 1, 6, eight('826', '826', '826', '2210', '2210', '2210', '2359', '2360'), partition);
  w.pane(meeting, 'M7', eight('826', '825', '825', '2212', '2212', '2211', '2361', '2360'), partition);
  w.pane(meeting, 'Door', eight('738', '738', '738', '1990', '1990', '1990', '2122', '2123'), {
    ...partition,
    obstructions: [{ kind: 'handle', note: 'lever handle, 40 mm off the glass' }],
  });

  const toilets = w.place('Toilets');
  const crooked = { filmId: frost.id, frame: 'putty', calledCrooked: true, revealMm: 110, ...ternGlass.toilet } as const;
  w.pane(toilets, 'Toilet 1', eight('604', '602', '600', '662', '664', '666', '899', '892'), crooked);
  // the slip: the bottom was read 619 where it is 598
  w.pane(toilets, 'Toilet 2', eight('612', '605', '619', '669', '668', '668', '903', '900'), { ...crooked, calledCrooked: false });
  // the right jamb is bowed outwards by 7 mm; every straight tape is right
  w.pane(toilets, 'Toilet 3', eight('598', '605', '598', '670', '670', '670', '898', '898'), { ...crooked, calledCrooked: false });
  w.pane(toilets, 'Toilet 4', two('604', '668'), {
    ...crooked,
    calledCrooked: false,
    filmId: null,
    ...ternGlass.patterned,
    note: 'Patterned face towards the room: no film chosen.',
  });

  const doors = w.place('Office doors');
  w.grid(doors, 'D', 2, 3, two('18 1/2"', '24"'), {
    filmId: frost.id,
    frame: 'bead',
    ...ternGlass.officeDoor,
    note: 'Doors came from an inch-built stock: taped in inches.',
  });

  const master = w.place("Harbour master's room");
  const south = { filmId: shade.id, frame: 'gasket', ...ternGlass.south } as const;
  w.pane(master, 'H1', two('962', '1404'), south);
  w.pane(master, 'H2', two('960', '1404'), south);
  w.pane(master, 'H3', two('1288', '1404'), south);
  w.pane(master, 'H4', two('640', '1404'), { ...south, method: 'factory-edge' });
  w.pane(master, 'H5', two('640', '702'), { ...south, method: 'factory-edge' });
  w.pane(master, 'H6', two('640', '702'), south);
  return w.file();
}
