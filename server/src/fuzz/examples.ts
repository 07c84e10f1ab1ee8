import { v7 as uuidv7 } from 'uuid';
import { newSurface, type JobDocument } from '@yellow-pane/contracts';
import { shrinkRequestOf, Memo, panesOf } from '@yellow-pane/core';
import type { App } from '../app.js';
import type { Example } from './fuzz.js';

/** Requests as the interface sends them, from jobs that are there. @param curvedJobId one with a curved pane */
export async function examplesFor(app: App, jobId: string, curvedJobId: string): Promise<Example[]> {
  const doc = await app.jobs.open(jobId);
  const curved = await app.jobs.open(curvedJobId);
  const person = doc.persons[0]!;
  const who = { personId: person.id, deviceId: uuidv7() };
  return [...edits(doc, who), ...computations(doc, curved), ...files(jobId, who)];
}

type Who = { readonly personId: string; readonly deviceId: string };

function edits(doc: JobDocument, who: Who): Example[] {
  const { id: jobId } = doc.job;
  const surface = doc.surfaces[0]!;
  const change = (patches: unknown[]): Example => ({
    name: 'change',
    path: `/api/jobs/${jobId}/changes`,
    body: { id: uuidv7(), jobId, personId: who.personId, deviceId: uuidv7(), deviceSeq: 1, baseRevision: doc.revision, label: 'Fuzz', patches },
  });
  const reading = { ...doc.readings[0]!, id: uuidv7(), supersedesId: null };
  const entry = { id: uuidv7(), jobId, surfaceId: surface.id, personId: who.personId, occurredAt: '2026-12-03T09:00:00Z', clockOffsetMs: 0, receivedAt: null, stepSetId: '01930000-0000-7000-8000-0000000057e9', kind: 'note', stepKey: null, text: 'a note', reading: null, found: null, photo: null, problem: null, roll: null, signature: null, correctsId: null }; // prettier-ignore
  return [
    { name: 'createJob', path: '/api/jobs', body: { name: 'A job', customer: 'Somebody', units: 'mm', ...who } },
    change([{ op: 'set', kind: 'surface', id: surface.id, field: 'note', value: 'words' }]),
    change([{ op: 'set', kind: 'surface', id: surface.id, field: 'shape', value: { kind: 'polygon', hasLegs: false, corner: 'lower-left', corners: 5, inward: [], path: null } }]),
    change([{ op: 'set', kind: 'job', id: jobId, field: 'prepare', value: doc.job.prepare }]),
    change([{ op: 'add', kind: 'reading', id: reading.id, value: reading }]),
    change([{ op: 'add', kind: 'surface', id: uuidv7(), value: { ...surface, name: 'New' } }]),
    change([{ op: 'add', kind: 'layEntry', id: entry.id, value: entry }]),
    { name: 'undo', path: `/api/jobs/${jobId}/undo`, body: { id: uuidv7(), personId: who.personId, deviceId: uuidv7(), deviceSeq: 1, force: false } },
  ]; // prettier-ignore
}

function computations(doc: JobDocument, curved: JobDocument): Example[] {
  const pane = panesOf(curved.surfaces).find((s) => s.curved && s.filmId)!;
  const shrink = shrinkRequestOf(pane, { ...curved, memo: new Memo() }, curved.films.find((f) => f.id === pane.filmId)!); // prettier-ignore
  const readings = doc.readings.slice(0, 8).map((r) => ({ measure: r.measure, lengthMm: r.lengthMm }));
  return [
    { name: 'computeSurvey', path: '/api/compute/survey', body: { calledCrooked: true, shape: null, readings } },
    { name: 'computeTaped', path: '/api/compute/taped', body: { surface: newSurface('column', { id: uuidv7(), jobId: doc.job.id, placeId: uuidv7(), name: 'Column', order: 1 }), units: 'mm', readings: [{ measure: 'girthFoot', lengthMm: 1257 }] } }, // prettier-ignore
    {
      name: 'computeRecess',
      path: '/api/compute/recess',
      body: { recess: { acrossMm: 60, upMm: 80, depthMm: 4, slopeMm: 4, cornerMm: 10 }, film: { stretchMaxPct: 20 }, units: 'mm' },
    },
    {
      name: 'computeDome',
      path: '/api/compute/dome',
      body: { dome: { acrossBowMm: 60, upBowMm: 40 }, widthMm: 900, heightMm: 700, film: { stretchMaxPct: 20 }, units: 'mm' },
    },
    {
      name: 'computeWrappedCorner',
      path: '/api/compute/wrapped-corner',
      body: { corner: { radiusMm: 80, arrisMm: 5 }, thicknessMm: 12, returnMm: 0, film: { stretchMaxPct: 60 }, units: 'mm' },
    },
    { name: 'computeCorrugation', path: '/api/compute/corrugation', body: { corrugation: { form: 'trapezoid', pitchMm: 207, depthMm: 35, crestMm: 40, valleyMm: 119, bendMm: 4, girthMm: 235, way: 'bridged' }, film: { stretchMaxPct: 20 }, units: 'mm' } }, // prettier-ignore
    {
      name: 'computeDays',
      path: '/api/compute/days',
      body: {
        from: '2026-12-10',
        tasks: [
          { id: 'prime', minutes: 20, placeId: 'room' },
          { id: 'lay', minutes: 60, placeId: 'room', kit: ['ladder'], after: [{ taskId: 'prime', leastMin: 10, mostMin: 60, what: 'primer dries' }] },
        ],
        people: [{ id: 'Ines', can: ['lay'], hours: [{ fromMin: 480, toMin: 720 }] }],
        kit: [{ id: 'ladder', count: 1 }],
        places: [{ id: 'room', site: 'pier', open: [{ fromMin: 540, toMin: 900 }] }],
        steps: 5,
      },
    },
    { name: 'computeJoints', path: '/api/compute/joints', body: { masonry: { unit: 'block', pitchAcrossMm: 400, pitchUpMm: 200, jointMm: 10, jointDepthMm: 5, bond: 'running', firstBedMm: 195, firstHeadMm: 400, texture: 'medium', courses: null, unitsInFirstCourse: null }, wall: { widthMm: 1300, heightMm: 900 }, panel: { leftMm: 0, rightMm: 1300, footMm: 0, topMm: 900 }, borders: { left: 'closed', right: 'free', foot: 'free', top: 'free' }, obstacles: [{ leftMm: 300, footMm: 150, widthMm: 80, heightMm: 80, isOpen: true }], goesRound: false, border: 'left-open', rule: 'strict', film: { stretchMaxPct: 60 }, strokes: [{ does: 'press', from: 0, segments: [0] }], units: 'mm' } }, // prettier-ignore
    { name: 'computeHeat', path: '/api/compute/heat', body: { aim: 'post-heat', film: { construction: 'cast-vinyl', thicknessUm: 180, temps: { applyMinC: 15, applyMaxC: 25, relaxC: 60, postHeatC: 90, limitC: 70 } }, material: 'wood-board', masonry: null, gun: { nozzleMm: 34, setC: 538, powerW: 2000, distanceMm: 25 }, airC: 20, groundC: 18, trial: { readC: 70, afterS: 2, speedMmPerS: 20, passes: 1 }, units: 'mm' } }, // prettier-ignore
    { name: 'computeLettering', path: '/api/compute/lettering', body: { text: 'TERN POINT', face: 'heavy', spacing: 4 } },
    { name: 'computeSlip', path: '/api/compute/slip', body: { school: 'soap-drops', areaM2: 8, glassC: 20, bottleMl: 946, slipMlPerM2: 350, inBottle: null } },
    { name: 'computeSqueegee', path: '/api/compute/squeegee', body: { outline: [{ x: 0, y: 0 }, { x: 900, y: 0 }, { x: 900, y: 1200 }, { x: 0, y: 1200 }], holes: [], bladeMm: 200, overlapMm: 25, lock: 'tee', edgeGapMm: 1.5, isThick: false } }, // prettier-ignore
    ...(shrink && 'input' in shrink ? [{ name: 'computeShrink' as const, path: '/api/compute/shrink', body: shrink.input }] : []),
    { name: 'computeCloud', path: '/api/compute/cloud', body: { fileName: 'x.xyz', text: Array.from({ length: 80 }, (_, i) => `${(i % 10) * 100} ${Math.floor(i / 10) * 80} ${-(((i % 10) - 4.5) ** 2)}`).join('\n'), base64: null, unit: 'mm', clicks: null } }, // prettier-ignore
    { name: 'computeCloud', path: '/api/compute/cloud', body: { fileName: 'x.ply', text: 'ply\nformat ascii 1.0\nelement junk 9000000000000000\nelement vertex 3\nproperty float x\nproperty float y\nproperty float z\nend_header\n0 0 0\n1 0 0\n0 1 0\n', base64: null, unit: null, clicks: null } }, // prettier-ignore
  ];
}

function files(jobId: string, who: Who): Example[] {
  const csv = 'place,surface,measure,value\nHall,W1,widthTop,902\nHall,W1,heightLeft,1200\n';
  return [
    { name: 'importMeasures', path: `/api/jobs/${jobId}/measures.csv`, query: { ...who }, body: csv },
    { name: 'cutSheetPdf', path: `/api/jobs/${jobId}/cut-sheet.pdf`, query: { paper: 'A4' } },
    { name: 'kit', path: `/api/jobs/${jobId}/kit` },
    { name: 'weather', path: `/api/jobs/${jobId}/weather`, query: { on: '2026-12-03' } },
  ];
}
