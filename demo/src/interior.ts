import { defaultCutSettings, newRoll, type Ground, type JobFile, type Roll } from '@yellow-pane/contracts';
import { demoLibrary } from './films.js';
import { demoJob } from './firm.js';
import { demoId } from './ids.js';
import { JobWriter } from './job-writer.js';
import { demoLetters } from './letters.js';

const blockWall = demoLibrary.find((f) => f.name === 'Block Wall 60')!;
const pierLetters = demoLibrary.find((f) => f.name === 'Pier Letters')!;
const ash = demoLibrary.find((f) => f.name === 'Ash Plank')!;
const hullWrap = demoLibrary.find((f) => f.name === 'Hull Wrap')!;
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
  newRoll({
    id: demoId(61),
    filmId: ash.id,
    label: 'A-302',
    lot: 'L2610-B',
    widthMm: 1220,
    lengthM: 50,
    leadInMm: 120,
    pricePerM: '19.00',
    place: 'Van, upright rack',
  }),
  newRoll({
    id: demoId(62),
    filmId: blockWall.id,
    label: 'W-118',
    lot: 'L2611-W',
    widthMm: 1370,
    lengthM: 25,
    leadInMm: 120,
    pricePerM: '16.50',
    place: 'Van, upright rack',
  }),
  newRoll({
    id: demoId(65),
    filmId: blockWall.id,
    label: 'W-119',
    lot: 'L2611-X',
    widthMm: 1370,
    lengthM: 50,
    leadInMm: 120,
    pricePerM: '16.50',
    place: 'Van, upright rack',
  }),
  newRoll({
    id: demoId(63),
    filmId: pierLetters.id,
    label: 'P-044',
    lot: 'L2609-P',
    widthMm: 610,
    lengthM: 12,
    leadInMm: 50,
    pricePerM: '4.20',
    place: 'Van, upright rack',
  }),
  newRoll({
    id: demoId(64),
    filmId: hullWrap.id,
    label: 'H-077',
    lot: 'L2610-H',
    widthMm: 1524,
    lengthM: 14,
    leadInMm: 80,
    pricePerM: '22.00',
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
    // cut on the floor of the hall: a length for the corridor is ten metres long
    cut: { ...defaultCutSettings, longestPullMm: 10_200 },
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
  const laminate = { material: 'laminate', finish: 'laminated', madeOn: null, gloss: 'satin', state: 'sound', isDamp: false, isGreasy: false, surfaceTempC: 20 } as const; // prettier-ignore
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
  const blocks = walls(w);
  const reception = tops(w, laminate);
  signs(w);
  besides(w, { hall, reception, painted, laminate });
  archive(w);
  lengths(w, blocks);
  return { ...w.file(), films: [ash, blockWall, pierLetters, hullWrap], rolls: interiorRolls };
}

/** The lobby, panelled over three walls with an inside and an outside corner, and the corridor of painted blocks. */
function walls(w: JobWriter): { readonly place: string; readonly ground: Ground } {
  const lobby = w.place('Lobby · panelled walls');
  const board = { material: 'plasterboard', finish: 'painted', madeOn: '2025-02-10', gloss: 'matt', state: 'sound', isDamp: false, isGreasy: false, surfaceTempC: 20 } as const; // prettier-ignore
  const none = { isElectric: false } as const;
  // the corner wanders by 6: the usual return of 13 would leave 4 of lap
  const left = w.wall(
    lobby,
    'Lobby left',
    { widthTop: '3604', widthMiddle: '3602', widthBottom: '3601', heightLeft: '2600', heightMiddle: '2603', heightRight: '2606', upLeft: '1598', downLeft: '1002', upMiddle: '1598', downMiddle: '1005', upRight: '1598', downRight: '1008', wanderRight: '6' },
    {
      filmId: ash.id,
      ground: board,
      fire: 'no',
      right: { is: 'inside', angleDeg: 90, isFirst: true },
      hardware: [
        { ...none, id: demoId(14_930), what: 'Door to the office', handling: 'open', fromLeftMm: 700, fromFootMm: 0, widthMm: 960, heightMm: 2080 },
        { id: demoId(14_931), what: 'Light switch', handling: 'off', fromLeftMm: 1740, fromFootMm: 1050, widthMm: 82, heightMm: 82, isElectric: true },
        { ...none, id: demoId(14_932), what: 'Thermostat', handling: 'round', fromLeftMm: 2600, fromFootMm: 1450, widthMm: 90, heightMm: 130 },
      ],
    },
  ); // prettier-ignore
  const back = w.wall(
    lobby,
    'Lobby back',
    { widthTop: '2401', widthBottom: '2400', heightLeft: '2606', heightRight: '2605', upLeft: '1598', downLeft: '1008', upRight: '1598', downRight: '1007' },
    { filmId: ash.id, ground: board, fire: 'no', right: { is: 'outside', angleDeg: 90, isFirst: true } },
  );
  // the slip: it shares a corner with the wall before it, and 2650 was written where that is 2605
  const pier = w.wall(lobby, 'Lobby pier', { widthTop: '700', widthBottom: '701', heightLeft: '2650', heightRight: '2651', upLeft: '1643', downLeft: '1007', upRight: '1643', downRight: '1008' }, { filmId: ash.id, ground: board, fire: 'no' }); // prettier-ignore
  w.goesOn(left, back);
  w.goesOn(back, pier);
  const corridor = w.place('Block corridor');
  const blocks: Ground = { ...board, material: 'concrete', gloss: 'satin', madeOn: '2021-08-01', surfaceTempC: 18 };
  w.wall(
    corridor,
    'Corridor wall',
    { widthTop: '5602', widthBottom: '5600', heightLeft: '2605', heightRight: '2619', upLeft: '1600', downLeft: '1005', upRight: '1600', downRight: '1019', diagonalUp: '6177' },
    {
      filmId: blockWall.id,
      // plain film whose rolls are darker at one edge: every other drop hangs turned
      hanging: 'book',
      ground: blocks,
      fire: 'unknown',
      masonry: { unit: 'block', pitchAcrossMm: 400, pitchUpMm: 200, jointMm: 10, jointDepthMm: 5, bond: 'running', firstBedMm: 195, firstHeadMm: 400, texture: 'medium', courses: 14, unitsInFirstCourse: 14 },
      hardware: [{ ...none, id: demoId(14_933), what: 'Pipe', handling: 'round', fromLeftMm: 4890, fromFootMm: 2100, widthMm: 40, heightMm: 500 }],
    },
  ); // prettier-ignore
  return { place: corridor, ground: blocks };
}

/** The long side of the block corridor: a graphic of 10 by 3 m in three lengths along it, and round the arris on to the wall at its end. */
function lengths(w: JobWriter, { place, ground }: ReturnType<typeof walls>): void {
  const masonry = { unit: 'block', pitchAcrossMm: 400, pitchUpMm: 200, jointMm: 10, jointDepthMm: 5, bond: 'running', firstBedMm: 195, firstHeadMm: 400, texture: 'medium', courses: 15, unitsInFirstCourse: 25 } as const; // prettier-ignore
  const film = { filmId: blockWall.id, ground, fire: 'no' } as const;
  const along = w.wall(
    place,
    'Corridor, long side',
    { widthTop: '10004', widthMiddle: '10002', widthBottom: '10001', heightLeft: '2985', heightMiddle: '2990', heightRight: '2993', upLeft: '1983', downLeft: '1002', upRight: '1983', downRight: '1010' },
    {
      ...film,
      lie: 'level',
      right: { is: 'outside', angleDeg: 90, isFirst: true },
      masonry,
      hardware: [
        { id: demoId(14_980), what: 'Socket', handling: 'off', fromLeftMm: 2460, fromFootMm: 300, widthMm: 82, heightMm: 82, isElectric: true },
        { id: demoId(14_981), what: 'Pipe', handling: 'round', fromLeftMm: 6890, fromFootMm: 2500, widthMm: 40, heightMm: 480, isElectric: false },
      ],
    },
  ); // prettier-ignore
  const end = w.wall(
    place,
    'Corridor, end',
    { widthTop: '1201', widthBottom: '1200', heightLeft: '2993', heightRight: '2994', upLeft: '1983', downLeft: '1010', upRight: '1983', downRight: '1011' },
    { ...film, masonry: { ...masonry, firstHeadMm: 200, unitsInFirstCourse: 4 } },
  ); // prettier-ignore
  w.goesOn(along, end);
}

/** The reception counter, one corner of it rounded, and a table whose rounds are too tight for one film. */
function tops(w: JobWriter, laminate: Ground): { readonly place: string; readonly counter: string } {
  const hall = w.place('Reception');
  const none = { isElectric: false } as const;
  // the slip: the way to its round was 103, written 130; where the straight ends, and the tape from corner to corner, say so
  const counter = w.counter(
    hall,
    'Reception counter',
    { widthFront: '2401', widthBack: '2400', depthLeft: '700', depthRight: '701', fromBackLeft: '2397', fromFrontLeft: '2500', setbackFrontRight: '250', gapFrontRight: '130', edgeThickness: '30', edgeGirth: '31' },
    {
      filmId: ash.id,
      ground: laminate,
      sides: { front: 'return', right: 'return', back: 'wall', left: 'joint' },
      round: ['frontRight'],
      hardware: [
        { ...none, id: demoId(14_940), what: 'Cable outlet', handling: 'off', fromLeftMm: 620, fromFootMm: 560, widthMm: 80, heightMm: 80, isRound: true },
        { ...none, id: demoId(14_941), what: 'Hand basin', handling: 'off', fromLeftMm: 1500, fromFootMm: 150, widthMm: 420, heightMm: 340 },
        { ...none, id: demoId(14_942), what: 'Bell', handling: 'round', fromLeftMm: 1180, fromFootMm: 300, widthMm: 60, heightMm: 60, isRound: true },
      ],
    },
  ); // prettier-ignore
  w.counter(
    hall,
    'Waiting table',
    { widthFront: '800', widthBack: '800', depthLeft: '800', depthRight: '800', fromBackLeft: '1082', fromFrontLeft: '1082', setbackFrontLeft: '60', gapFrontLeft: '25', setbackFrontRight: '61', setbackBackRight: '60', setbackBackLeft: '60', edgeThickness: '40' },
    { what: 'table', filmId: ash.id, ground: laminate, sides: { front: 'strip', right: 'strip', back: 'strip', left: 'strip' }, round: ['frontLeft', 'frontRight', 'backRight', 'backLeft'] },
  ); // prettier-ignore
  return { place: hall, counter };
}

/** What was added later: a column between base and capital, the leg of the counter, a round table, fronts whose grain lies level, a wall under the stairs. */
function besides(
  w: JobWriter,
  at: { readonly hall: string; readonly reception: ReturnType<typeof tops>; readonly painted: Ground; readonly laminate: Ground },
): void {
  const { hall, reception, painted, laminate } = at;
  w.column(
    hall,
    'Hall post',
    { girthFoot: '1100', girthMiddle: '1099', girthTop: '1098', heightFront: '2120', heightRight: '2121', heightBack: '2120', heightLeft: '2120', acrossFront: '350', acrossSide: '349' },
    { filmId: ash.id, ground: painted, ends: { foot: 'base', head: 'capital' } },
  ); // prettier-ignore
  const leg = w.counter(
    reception.place,
    'Counter leg',
    { widthFront: '1200', widthBack: '1201', depthLeft: '700', depthRight: '700', fromBackLeft: '1389', fromFrontLeft: '1390', edgeThickness: '30', edgeGirth: '31' },
    { filmId: ash.id, ground: laminate, sides: { front: 'return', right: 'joint', back: 'wall', left: 'return' } },
  ); // prettier-ignore
  w.standsBeside(reception.counter, leg);
  w.counter(
    reception.place,
    'Round table',
    { widthFront: '900', widthBack: '901', depthLeft: '900', depthRight: '899', edgeThickness: '22' },
    { what: 'table', filmId: ash.id, ground: laminate, sides: { front: 'strip', right: 'strip', back: 'strip', left: 'strip' }, round: ['frontLeft', 'frontRight', 'backRight', 'backLeft'] },
  ); // prettier-ignore
  const front = (n: number, widthMm: number, besideId: string | null) =>
    w.panel(
      reception.place,
      `Drawer front ${n}`,
      { widthTop: `${widthMm}`, widthBottom: `${widthMm}`, heightLeft: '360', heightRight: '360', diagonalDown: `${Math.round(Math.hypot(widthMm, 360))}`, edgeThickness: '19' },
      { what: 'drawer', filmId: ash.id, ground: laminate, hinges: 'none', faces: 'front', fire: 'no', grain: 'level', besideId },
    ); // prettier-ignore
  front(3, 598, front(2, 798, front(1, 598, null)));
  // the ceiling is the underside of the stairs from 1500 on
  w.wall(
    w.place('Under the stairs'),
    'Stair wall',
    { widthMiddle: '3601', widthBottom: '3600', upLeft: '1600', downLeft: '1000', heightLeft: '2600', upRight: '400', downRight: '1002', heightRight: '1402' },
    { filmId: ash.id, ground: { ...painted, material: 'plasterboard', gloss: 'matt', madeOn: '2025-02-10' }, fire: 'no', breaks: [{ id: demoId(14_970), fromLeftMm: 1500, upMm: 1600, downMm: null }] },
  ); // prettier-ignore
}

/** The canvas over the gate to the pier: two lines of letters and an arrow. */
function signs(w: JobWriter): void {
  const eyelet = (n: number, fromLeftMm: number, fromFootMm: number) =>
    ({
      id: demoId(14_950 + n),
      what: 'Eyelet',
      handling: 'round',
      fromLeftMm,
      fromFootMm,
      widthMm: 30,
      heightMm: 30,
      isElectric: false,
      isRound: true,
    }) as const;
  // the slip: its width at the foot was 2400, written 2040
  w.sign(
    w.place('Pier gate'),
    'Gate canvas',
    { widthTop: '2401', widthMiddle: '2400', widthBottom: '2040', heightLeft: '700', heightMiddle: '698', heightRight: '701', diagonalDown: '2500', diagonalUp: '2501' },
    {
      filmId: pierLetters.id,
      ground: { material: 'canvas', finish: 'painted', madeOn: '2024-04-01', gloss: 'satin', state: 'sound', isDamp: false, isGreasy: false, surfaceTempC: 18 },
      hardware: [eyelet(1, 25, 25), eyelet(2, 2345, 25), eyelet(3, 25, 645), eyelet(4, 2345, 645)],
      lines: [
        { is: 'letters', id: demoId(14_960), ...demoLetters.ternPoint, heightMm: 200, baselineMm: 370, atMm: 1200, align: 'middle' },
        { is: 'letters', id: demoId(14_961), ...demoLetters.departures, heightMm: 110, baselineMm: 140, atMm: 330, align: 'left' },
        { is: 'figure', id: demoId(14_962), what: 'Arrow', svgPath: 'M0 32H58V8L100 45L58 82V58H0Z', heightMm: 130, baselineMm: 128, atMm: 2050, align: 'right' },
      ],
    },
  ); // prettier-ignore
}

/** A pair of doors with two recesses each, and a hut of corrugated sheet, in a hall that nobody heats: film that gives, on a ground of 12 °C. */
function archive(w: JobWriter): void {
  const place = w.place('Archive');
  const recess = (n: number, fromFootMm: number, upMm: number, depthMm: number) => ({ id: demoId(14_970 + n), fromLeftMm: 120, fromFootMm, acrossMm: 560, upMm, depthMm, slopeMm: 10, cornerMm: 30, way: null }); // prettier-ignore
  const leaf = (hinges: 'left' | 'right', n: number) => ({
    filmId: hullWrap.id,
    hinges,
    fire: 'no' as const,
    wraps: { left: 'edge', right: 'edge', top: 'edge', bottom: 'trimmed' } as const,
    ground: { material: 'wood-board', finish: 'lacquered', madeOn: null, gloss: 'satin', state: 'sound', isDamp: false, isGreasy: false, surfaceTempC: 12 } as const,
    recesses: [recess(n, 150, 620, 8), recess(n + 1, 930, 980, 14)],
  }); // prettier-ignore
  const left = w.panel(place, 'Archive door, left', { widthTop: '800', widthMiddle: '800', widthBottom: '801', heightLeft: '2050', heightRight: '2050', edgeThickness: '44' }, leaf('left', 1)); // prettier-ignore
  w.panel(place, 'Archive door, right', {}, { ...leaf('right', 3), measuredLikeId: left });
  const hut = {
    filmId: hullWrap.id,
    what: 'panel',
    fire: 'no',
    wraps: { left: 'trimmed', right: 'trimmed', top: 'trimmed', bottom: 'trimmed' },
    ground: { material: 'steel', finish: 'painted', madeOn: null, gloss: 'satin', state: 'sound', isDamp: false, isGreasy: false, surfaceTempC: 12 },
  } as const; // prettier-ignore
  // the hut in which the keys are: waved sheet, 76 from crest to crest
  w.panel(place, 'Key hut, front', { widthTop: '1210', widthMiddle: '1210', heightLeft: '2000', heightRight: '2001', edgeThickness: '18' }, {
    ...hut,
    corrugation: { run: 'upright', form: 'wave', pitchMm: 76, depthMm: 18, crestMm: 0, valleyMm: 0, bendMm: 0, girthMm: 87, way: 'bridged' },
  }); // prettier-ignore
  // and its pressed lid, round both ways, with a rim of 12 round which film goes
  w.panel(place, 'Key hut, lid', { widthTop: '600', widthBottom: '600', heightLeft: '450', heightRight: '450', edgeThickness: '12' }, {
    ...hut,
    wraps: { left: 'edge', right: 'edge', top: 'edge', bottom: 'edge' },
    dome: { acrossBowMm: 50, upBowMm: 40 },
    corners: { radiusMm: 80, arrisMm: 5 },
  }); // prettier-ignore
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
    isRound: true,
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
