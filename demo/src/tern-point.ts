import { newShape, type JobFile } from '@yellow-pane/contracts';
import { demoId } from './ids.js';
import { demoFilms } from './films.js';
import { ternGlass } from './glass.js';
import { demoJob } from './firm.js';
import { eight, JobWriter, two } from './job-writer.js';
import { ternDesigns } from './designs.js';
import { trefoil } from './outlines.js';

/** Tern Point ferry terminal: the flat glass of a made-up harbour, 60 panes in ten places. */
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
  w.grid(west, 'T', 1, 6, { widthBottom: '1182', heightMiddle: '486', crownLeft: '765', crownRight: '766' }, { ...groupTop, shape: newShape('arch-flat') });
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
  w.grid(meeting, 'M', 1, 6, eight('826', '826', '826', '2210', '2210', '2210', '2359', '2360'), { ...partition, design: ternDesigns.tide });
  w.pane(meeting, 'M7', eight('826', '825', '825', '2212', '2212', '2211', '2361', '2360'), { ...partition, design: ternDesigns.bird });
  w.pane(meeting, 'Door', eight('738', '738', '738', '1990', '1990', '1990', '2122', '2123'), {
    ...partition,
    design: ternDesigns.doorMarks,
    obstructions: [{ kind: 'handle', note: 'lever handle, 40 mm off the glass' }],
    cutOuts: [
      { id: demoId(9001), what: 'handle', isRound: false, widthMm: 62, heightMm: 180, fromSide: 'right', acrossMm: 38, fromEdge: 'bottom', upMm: 940 },
      { id: demoId(9002), what: 'letter slot', isRound: false, widthMm: 280, heightMm: 55, fromSide: 'left', acrossMm: 229, fromEdge: 'bottom', upMm: 760 },
    ],
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

  const stairs = w.place('Stairs to the quay');
  const raked = { filmId: shade.id, frame: 'gasket', note: 'From the landing: a low ladder.', ...ternGlass.south } as const;
  const rake = { widthBottom: '890', heightLeft: '1420', heightRight: '905', widthTop: '1028', diagonalDown: '1676', diagonalUp: '1270' };
  w.grid(stairs, 'S', 1, 2, rake, { ...raked, shape: newShape('rake') });
  const sloped = { widthBottom: '1060', heightLeft: '1000', heightRight: '1001', widthTop: '1060', diagonalDown: '1002', diagonalUp: '1801' };
  w.grid(stairs, 'Q', 1, 2, sloped, { ...raked, shape: newShape('parallelogram') });
  w.pane(stairs, 'Round', { widthMiddle: '620', heightMiddle: '621', diagonalDown: '620', diagonalUp: '619' }, { ...raked, shape: newShape('circle') });

  const master = w.place("Harbour master's room");
  const south = { filmId: shade.id, frame: 'gasket', ...ternGlass.south } as const;
  w.pane(master, 'H1', two('962', '1404'), south);
  w.pane(master, 'H2', two('960', '1404'), south);
  w.pane(master, 'H3', two('1288', '1404'), south);
  w.pane(master, 'H4', two('640', '1404'), { ...south, method: 'factory-edge' });
  w.pane(master, 'H5', two('640', '702'), { ...south, method: 'factory-edge' });
  w.pane(master, 'H6', two('640', '702'), south);

  // wider and higher than any roll: pieced together at the bar of the door beside it; the second one is still to be decided
  const hall = w.place('Departure hall');
  const wide = { filmId: shade.id, frame: 'gasket', revealMm: 40, ...ternGlass.west } as const;
  w.pane(hall, 'G1', two('2905', '2260'), { ...wide, seam: { kind: 'double-cut', direction: 'upright', atMm: [1452.5] } });
  w.pane(hall, 'G2', two('2140', '2262'), wide);
  w.pane(hall, 'Desk', two('1150', '720'), { filmId: frost.id, frame: 'bead', ...ternGlass.desk, design: ternDesigns.spray });
  const archive = w.place('Archive');
  w.grid(archive, 'A', 1, 2, two('582', '1196'), { filmId: demoFilms.reed.id, frame: 'bead', ...ternGlass.partition });

  // a house of 1890 with hardly a rectangle in it; its papers fade, so it gets a nearly clear film
  const customs = w.place('Old customs house');
  const old = { filmId: demoFilms.clear.id, frame: 'putty', ...ternGlass.customs } as const;
  const round = {
    widthBottom: '880',
    widthSpring: '881',
    heightLeft: '640',
    heightRight: '641',
    heightMiddle: '1080',
    diagonalDown: '1088',
    diagonalUp: '1089',
    crownLeft: '622',
  };
  w.grid(customs, 'C', 1, 2, round, { ...old, shape: newShape('arch-round', { hasLegs: true }) });
  const chapel = {
    widthBottom: '600',
    widthSpring: '600',
    heightLeft: '700',
    heightRight: '700',
    heightMiddle: '1220',
    diagonalDown: '922',
    crownLeft: '600',
    widthHalfRise: '482',
  };
  w.pane(customs, 'Lancet', chapel, { ...old, shape: newShape('arch-pointed', { hasLegs: true }) });
  const fan = { widthBottom: '745', chord: '1054', cornerToArc: '745' };
  w.pane(customs, 'Fan left', { ...fan, heightRight: '746' }, { ...old, shape: newShape('quarter', { corner: 'lower-right' }) });
  w.pane(customs, 'Fan right', { ...fan, heightLeft: '745' }, { ...old, shape: newShape('quarter') });
  const gable = { widthBottom: '820', sideLeft: '694', sideRight: '694', heightMiddle: '560' };
  w.grid(customs, 'Gable ', 1, 2, gable, { ...old, shape: newShape('triangle') });
  // a house-shaped light in the stair: five corners, all sides and three diagonals
  const five = { AB: '720', BC: '900', CD: '498', DE: '499', AE: '901', AC: '1153', AD: '1296', BD: '1295' };
  w.pane(customs, 'Lantern', five, { ...old, shape: newShape('polygon', { corners: 5 }) });
  w.pane(
    customs,
    'Trefoil',
    { widthLargest: '655', heightLargest: '620' },
    { ...old, shape: newShape('drawn', { path: trefoil }), note: 'Outline from the stonemason: checked by two tapes.' },
  );
  return w.file();
}
