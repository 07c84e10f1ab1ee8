import * as z from 'zod';
import { id, instant, unitSystem, words } from './quantities.js';
import { firm, job, person } from './jobs/job.js';
import { change, changeAnswer, changeDraft, undoRequest } from './changes.js';
import { benchDocument } from './bench-document.js';
import { film } from './films/film.js';
import { instrumentAct, instrumentStatus } from './instruments/instrument.js';
import { weatherDay } from './instruments/weather.js';
import { jobDay, kitLines, slipAnswer, slipRequest, washAnswer, washRequest } from './prepare/day.js';
import { paneVerdict, verdictRequest } from './choose/verdict.js';
import { quotePrice } from './handover/quote.js';
import { broughtBack, deletedJob, jobDocument, jobFile, jobPage } from './job-document.js';
import { daysPlanInput, daysPlanResult } from './days/days-plan.js';
import { letteringInput, letteringResult } from './measure/sign.js';
import {
  heatInput,
  heatResult,
  layoutInput,
  layoutResult,
  methodFigures,
  corrugationInput,
  domeInput,
  domeResult,
  wrappedCornerInput,
  wrappedCornerResult,
  corrugationResult,
  jointsInput,
  jointsResult,
  recessInput,
  recessResult,
  surveyInput,
  surveyResult,
  tapedInput,
  tapedResult,
} from './compute.js';
import { addresses, type Address } from './addresses.js';
import type { ErrorCode } from './errors.js';
import { stockLine } from './stock/ledger.js';
import { plotRun, plotSettings, plotSheet, plotStatus } from './cut/plot.js';
import { learnedMinutes, photoHash } from './lay/log.js';
import { paneDrying } from './check/pin.js';
import { callBack, dueJob, eraseAnswer, eraseRequest, sealCheck } from './handover/hand-over.js';
import { admissionCode, admittedDevice, deviceRemoval, newAdmission, shopListen, shopStatus } from './shop/shop.js';
import { cloudRequest, shrinkInput, shrinkPlan } from './form/shrink-plan.js';
import { paneCloud } from './form/curved.js';
import { runSheet, squeegeeRequest, squeegeeResult } from './lay/squeegee.js';

/** One call of the API. `result: null` answers with a file. */
export interface RouteDefinition extends Address {
  readonly summary: string;
  readonly params?: z.ZodObject;
  readonly query?: z.ZodObject;
  readonly body?: z.ZodType;
  /** Media types of the body, if they are not JSON alone. */
  readonly takes?: readonly string[];
  readonly result: z.ZodType | null;
  readonly fileType?: string;
  readonly errors: readonly ErrorCode[];
}

const jobParams = z.object({ jobId: id });
const onDay = z.object({ on: z.iso.date().optional(), sky: z.enum(['clear', 'changing']).optional() });
const asPerson = z.object({ personId: id.optional(), deviceId: id.optional() });
const pieceParams = z.object({ jobId: id, pieceId: z.string().max(60) });
/** Switches of a plotter sheet in the address: `0` is no. */
const flag = z.enum(['0', '1']).default('1').transform((v) => v === '1'); // prettier-ignore
const plotQuery = z.object({ weeding: flag, registration: flag });
const paper = z.object({ paper: z.enum(['a4', 'letter']).default('a4') });
const jobErrors = ['bad-input', 'job-not-found'] as const;

/** A job as a person starts it: the rest are the firm's defaults. */
const newJob = z.object({
  name: words(120).min(1, 'A job needs a name.'),
  customer: words(120).default(''),
  units: unitSystem,
  personId: id,
  deviceId: id,
});

/** The API as data: the server mounts it, OpenAPI is written from it, clients are typed by it. */
export const routes = {
  health: {
    ...addresses.health,
    summary: 'Is the bench there?',
    result: z.object({ ok: z.literal(true), version: z.string(), jobs: z.int() }),
    errors: [],
  },
  session: {
    ...addresses.session,
    summary: 'The firm, its people, the last change number of a device, and how this one was let in (null: at the bench itself)',
    query: z.object({ deviceId: id.optional() }),
    result: z.object({ firm, persons: z.array(person), lastDeviceSeq: z.int(), at: instant, apiVersion: z.int(), admitted: admittedDevice.nullable() }),
    errors: ['bad-input'],
  },
  bench: {
    ...addresses.bench,
    summary: 'What belongs to the firm: people, films, rolls',
    query: asPerson,
    result: benchDocument,
    errors: ['bad-input'],
  },
  jobs: {
    ...addresses.jobs,
    summary: 'Jobs with how far they have come: those to be done by their day, then those without one, the newest first, then the earlier ones, the last first',
    query: z.object({
      /** Every word of it stands in the name, the customer, the address or the lot of a film that was laid. */
      search: z.string().trim().max(120).optional(),
      offset: z.coerce.number().int().min(0).default(0),
      limit: z.coerce.number().int().min(1).max(200).default(50),
    }),
    result: jobPage,
    errors: ['bad-input'],
  },
  deletedJobs: {
    ...addresses.deletedJobs,
    summary: 'Jobs deleted in the last 30 days, the last one first',
    result: z.array(deletedJob),
    errors: [],
  },
  bringBackJob: {
    ...addresses.bringBackJob,
    summary: 'Bring a deleted job back, with the film it was promised as far as that is still free',
    params: jobParams,
    body: z.object({ personId: id, deviceId: id }),
    result: broughtBack,
    errors: jobErrors,
  },
  createJob: { ...addresses.createJob, summary: 'Start a job', body: newJob, result: job, errors: ['bad-input'] },
  job: {
    ...addresses.job,
    summary: 'The open job: all its records',
    params: jobParams,
    query: asPerson,
    result: jobDocument,
    errors: jobErrors,
  },
  change: {
    ...addresses.change,
    summary: 'Make one change; the same (device, number) twice is the same change. The firm’s own records change under the firm’s id.',
    params: jobParams,
    body: changeDraft,
    result: changeAnswer,
    errors: [...jobErrors, 'conflict', 'sequence-gap', 'fact-stands', 'plan-refused'],
  },
  undo: {
    ...addresses.undo,
    summary: 'Undo your own last change',
    params: jobParams,
    body: undoRequest,
    result: changeAnswer,
    errors: [...jobErrors, 'nothing-to-undo', 'undo-conflict'],
  },
  redo: {
    ...addresses.redo,
    summary: 'Redo what you undid last',
    params: jobParams,
    body: undoRequest,
    result: changeAnswer,
    errors: [...jobErrors, 'nothing-to-redo', 'undo-conflict'],
  },
  history: {
    ...addresses.history,
    summary: 'Every change of the job, oldest first',
    params: jobParams,
    result: z.array(change),
    errors: jobErrors,
  },
  changesSince: {
    ...addresses.changesSince,
    summary: 'What was changed after a revision that a job’s page has to know of, in the bench’s order; too much of it: load the job anew',
    params: jobParams,
    query: z.object({ after: z.coerce.number().int().min(0) }),
    result: z.object({ changes: z.array(change), revision: z.int(), isTooMuch: z.boolean() }),
    errors: jobErrors,
  },
  jobFile: {
    ...addresses.jobFile,
    summary: 'The job as a file (documented JSON)',
    params: jobParams,
    result: jobFile,
    errors: jobErrors,
  },
  importJob: {
    ...addresses.importJob,
    summary: 'Bring in a job file; a job that is already here comes in as a copy',
    query: z.object({ personId: id, deviceId: id }),
    body: z.unknown(),
    result: z.object({ jobId: id, isCopy: z.boolean() }),
    errors: ['bad-input'],
  },
  measuresCsv: {
    ...addresses.measuresCsv,
    summary: 'All readings in force as CSV',
    params: jobParams,
    result: null,
    fileType: 'text/csv',
    errors: jobErrors,
  },
  importMeasures: {
    ...addresses.importMeasures,
    summary: 'Bring in measures from CSV; nothing changes unless every row reads',
    params: jobParams,
    query: z.object({ personId: id, deviceId: id }),
    body: z.string(),
    takes: ['text/csv'],
    result: z.object({ readings: z.int(), surfaces: z.int() }),
    errors: jobErrors,
  },
  cutSheetPdf: {
    ...addresses.cutSheetPdf,
    summary: 'Cut sheet to print',
    params: jobParams,
    query: paper,
    result: null,
    fileType: 'application/pdf',
    errors: [...jobErrors, 'not-cuttable'],
  },
  labelsPdf: {
    ...addresses.labelsPdf,
    summary: 'Labels for the liner, by room',
    params: jobParams,
    query: paper,
    result: null,
    fileType: 'application/pdf',
    errors: [...jobErrors, 'not-cuttable'],
  },
  rollSvg: {
    ...addresses.rollSvg,
    summary: 'The rolls as a drawing, 1 unit = 1 mm',
    params: jobParams,
    result: null,
    fileType: 'image/svg+xml',
    errors: [...jobErrors, 'not-cuttable'],
  },
  rollDxf: {
    ...addresses.rollDxf,
    summary: 'The rolls as DXF in millimetres, a layer per purpose',
    params: jobParams,
    result: null,
    fileType: 'application/dxf',
    errors: [...jobErrors, 'not-cuttable'],
  },
  cutListCsv: {
    ...addresses.cutListCsv,
    summary: 'Every piece with its size and place',
    params: jobParams,
    result: null,
    fileType: 'text/csv',
    errors: [...jobErrors, 'not-cuttable'],
  },
  computeSurvey: {
    ...addresses.computeSurvey,
    summary: 'Judge the tapes of one opening',
    body: surveyInput,
    result: surveyResult,
    errors: ['bad-input'],
  },
  computeLayout: {
    ...addresses.computeLayout,
    summary: 'Lay pieces on rolls',
    body: layoutInput,
    result: layoutResult,
    errors: ['bad-input'],
  },
  computeVerdict: {
    ...addresses.computeVerdict,
    summary: 'Judge films on one pane: light, heat, thermal break, privacy, suitability, order',
    body: verdictRequest,
    result: paneVerdict,
    errors: ['bad-input'],
  },
  computeShrink: {
    ...addresses.computeShrink,
    summary: 'Plan how film is formed on a curved pane: what it has to lose, its anchor line, its fingers, its grade, ways of forming it',
    body: shrinkInput,
    result: shrinkPlan,
    errors: ['bad-input'],
  },
  computeCloud: {
    ...addresses.computeCloud,
    summary: 'Bring a point cloud (XYZ or PLY) to the plane of its pane and thin it',
    body: cloudRequest,
    result: paneCloud,
    errors: ['bad-input'],
  },
  formingSheetPdf: {
    ...addresses.formingSheetPdf,
    summary: 'Forming sheets to print: every curved pane of the job with a film, or the one asked for',
    params: jobParams,
    query: paper.extend({ surfaceId: id.optional() }),
    result: null,
    fileType: 'application/pdf',
    errors: [...jobErrors, 'not-formable'],
  },
  weather: {
    ...addresses.weather,
    summary: 'The weather at the site, hour by hour, on the day that the work is planned for or another',
    params: jobParams,
    query: onDay,
    result: weatherDay,
    errors: [...jobErrors, 'no-place', 'no-weather'],
  },
  jobDay: {
    ...addresses.jobDay,
    summary: 'Each facade of the job over a day: when wet work is good, marginal or wrong, and why',
    params: jobParams,
    query: onDay,
    result: jobDay,
    errors: [...jobErrors, 'no-place', 'no-weather'],
  },
  instruments: {
    ...addresses.instruments,
    summary: 'The instruments, whether they answer, and the last reading of each',
    result: z.array(instrumentStatus),
    errors: [],
  },
  instrumentStream: {
    ...addresses.instrumentStream,
    summary: 'Server-sent events: the status of an instrument whenever it changes or reads',
    result: null,
    fileType: 'text/event-stream',
    errors: [],
  },
  instrumentAct: {
    ...addresses.instrumentAct,
    summary: 'Take a reading; at the simulated instruments, also what they would see and what fails',
    body: instrumentAct,
    result: instrumentStatus,
    errors: ['bad-input', 'instrument-away'],
  },
  kit: {
    ...addresses.kit,
    summary: 'What has to be in the van for the places of the day',
    params: jobParams,
    result: kitLines,
    errors: jobErrors,
  },
  computeSlip: {
    ...addresses.computeSlip,
    summary: 'What goes into the bottles for an area, and how a wrong mix is put right',
    body: slipRequest,
    result: slipAnswer,
    errors: ['bad-input'],
  },
  computeWash: {
    ...addresses.computeWash,
    summary: 'Cleaner, alcohol wipe or wall wash for an area, and how a wrong mix is put right',
    body: washRequest,
    result: washAnswer,
    errors: ['bad-input'],
  },
  runSheet: {
    ...addresses.runSheet,
    summary: 'The steps of a pane with its own figures, by the version its job is worked by',
    params: z.object({ jobId: id, surfaceId: id }),
    result: runSheet,
    errors: [...jobErrors, 'not-layable'],
  },
  squeegee: {
    ...addresses.squeegee,
    summary: 'Strokes of a pane in their order, seen from the face that is worked on',
    params: z.object({ jobId: id, surfaceId: id }),
    result: squeegeeResult,
    errors: [...jobErrors, 'not-layable'],
  },
  drying: {
    ...addresses.drying,
    summary: 'How fast water leaves each laid pane, day by day, from sun and air at its facade; panes of which nothing is known are left out',
    params: jobParams,
    result: z.array(paneDrying),
    errors: jobErrors,
  },
  computeTaped: {
    ...addresses.computeTaped,
    summary: 'Judge the tapes of a column, panel, wall, counter or sign',
    body: tapedInput,
    result: tapedResult,
    errors: ['bad-input'],
  },
  computeHeat: {
    ...addresses.computeHeat,
    summary: 'How to move a hot-air gun over film on a ground: speed, passes, what each place comes to, as ranges; corrected by one reading',
    body: heatInput,
    result: heatResult,
    errors: ['bad-input'],
  },
  computeRecess: {
    ...addresses.computeRecess,
    summary: 'How far film stretches in a recess by each order in which it is brought in, which order to choose, and whether the film stands it',
    body: recessInput,
    result: recessResult,
    errors: ['bad-input'],
  },
  computeCorrugation: {
    ...addresses.computeCorrugation,
    summary: 'How much more film the ribs of a corrugated sheet take, how far it stretches where it is formed into them, and whether the film stands it',
    body: corrugationInput,
    result: corrugationResult,
    errors: ['bad-input'],
  },
  computeDays: {
    ...addresses.computeDays,
    summary: 'Who does what when: work, waits, people, places and what is shared laid out in as few days as can be, with reasons, and before when nobody ends',
    body: daysPlanInput,
    result: daysPlanResult,
    errors: ['bad-input'],
  },
  computeJoints: {
    ...addresses.computeJoints,
    summary: 'In which order and direction the joints beneath a panel of film are pressed so that air always has a way out; judges an order of one’s own',
    body: jointsInput,
    result: jointsResult,
    errors: ['bad-input'],
  },
  computeDome: {
    ...addresses.computeDome,
    summary: 'How film lies on a domed sheet: what is left over, how far it stretches, whether it takes darts',
    body: domeInput,
    result: domeResult,
    errors: ['bad-input'],
  },
  computeWrappedCorner: {
    ...addresses.computeWrappedCorner,
    summary: 'How film goes over a round corner where two wrapped edges meet: how far it stretches, and whether it takes a cut',
    body: wrappedCornerInput,
    result: wrappedCornerResult,
    errors: ['bad-input'],
  },
  computeLettering: {
    ...addresses.computeLettering,
    summary: 'Set one line of letters in a shipped face, as outlines',
    body: letteringInput,
    result: letteringResult,
    errors: ['bad-input'],
  },
  computeSqueegee: {
    ...addresses.computeSqueegee,
    summary: 'Strokes for an outline: nothing unpressed, or why there is no such order',
    body: squeegeeRequest,
    result: squeegeeResult,
    errors: ['bad-input'],
  },
  runSheetPdf: {
    ...addresses.runSheetPdf,
    summary: 'Run sheets to print: every pane that can be laid, or the one asked for',
    params: jobParams,
    query: paper.extend({ surfaceId: id.optional() }),
    result: null,
    fileType: 'application/pdf',
    errors: [...jobErrors, 'not-layable'],
  },
  layLogCsv: {
    ...addresses.layLogCsv,
    summary: 'The log of the work as CSV, oldest first; lines taken back are marked',
    params: jobParams,
    result: null,
    fileType: 'text/csv',
    errors: jobErrors,
  },
  handOver: {
    ...addresses.handOver,
    summary: 'How the seals of the job stand now: reckoned anew over its record',
    params: jobParams,
    result: z.array(sealCheck),
    errors: jobErrors,
  },
  handOverPdf: {
    ...addresses.handOverPdf,
    summary: 'The record to hand over: every laid pane, or those of one place',
    params: jobParams,
    query: paper.extend({ placeId: id.optional() }),
    result: null,
    fileType: 'application/pdf',
    errors: [...jobErrors, 'nothing-laid'],
  },
  careSheetPdf: {
    ...addresses.careSheetPdf,
    summary: 'How the customer looks after the film that is there, in a language that the bench has',
    params: jobParams,
    query: paper.extend({ language: z.string().regex(/^[a-z]{2,3}(-[a-z0-9]{2,8})?$/i).default('en') }), // prettier-ignore
    result: null,
    fileType: 'application/pdf',
    errors: [...jobErrors, 'nothing-laid'],
  },
  careLanguages: {
    ...addresses.careLanguages,
    summary: 'Languages that care sheets can be printed in; a text file beside the data adds one',
    result: z.array(z.object({ language: z.string(), title: z.string(), fault: z.string().nullable() })),
    errors: [],
  },
  calendar: {
    ...addresses.calendar,
    summary: 'Looks, drying and later visits as a calendar (RFC 5545)',
    params: jobParams,
    result: null,
    fileType: 'text/calendar',
    errors: [...jobErrors, 'nothing-laid'],
  },
  erase: {
    ...addresses.erase,
    summary:
      'Erase what is personal in a line of the log, or the customer’s name and address: in the records, their history and the journal. It cannot be undone.',
    params: jobParams,
    body: eraseRequest,
    result: eraseAnswer,
    errors: [...jobErrors, 'not-found'],
  },
  due: {
    ...addresses.due,
    summary: 'Laid panes that somebody has to come back to, today and within a week, by job: of the jobs that were worked on last',
    result: z.array(dueJob),
    errors: [],
  },
  callBacks: {
    ...addresses.callBacks,
    summary: 'Calls of customers after the work, the newest first; every word of a search stands in job, customer, address, film or lot',
    query: z.object({ search: z.string().trim().max(120).optional() }),
    result: z.array(callBack),
    errors: ['bad-input'],
  },
  layMinutes: {
    ...addresses.layMinutes,
    summary: 'How long panes really took against what their steps expect, by kind of film, over all jobs',
    result: learnedMinutes,
    errors: [],
  },
  jobStream: {
    ...addresses.jobStream,
    summary: 'Server-sent events: every change of the job as it is made; `Last-Event-ID` or `after` (a revision) asks for those missed',
    params: jobParams,
    query: z.object({ after: z.coerce.number().int().min(0).optional() }),
    result: null,
    fileType: 'text/event-stream',
    errors: jobErrors,
  },
  addPhoto: {
    ...addresses.addPhoto,
    summary: 'Keep a photo (JPEG, PNG or WebP): made smaller, place tags and all others taken out, named by its content',
    body: z.unknown(),
    takes: ['image/jpeg', 'image/png', 'image/webp'],
    result: z.object({ photo: photoHash, bytes: z.int() }),
    errors: ['bad-input', 'too-large'],
  },
  photo: {
    ...addresses.photo,
    summary: 'A photo by its name',
    params: z.object({ photo: photoHash }),
    result: null,
    fileType: 'image/jpeg',
    errors: ['bad-input', 'not-found'],
  },
  films: { ...addresses.films, summary: 'The film library, newest versions', result: z.array(film), errors: [] },
  filmsCsv: { ...addresses.filmsCsv, summary: 'The film library as CSV', result: null, fileType: 'text/csv', errors: [] },
  importFilms: {
    ...addresses.importFilms,
    summary: 'Bring films in from CSV or a list; nothing comes in unless every one reads',
    query: z.object({ personId: id, deviceId: id, same: z.enum(['ask', 'skip', 'new-version']).default('ask') }),
    body: z.unknown(),
    takes: ['text/csv', 'application/json'],
    result: z.object({ added: z.int(), renewed: z.int(), skipped: z.int() }),
    errors: ['bad-input', 'films-known'],
  },
  stock: { ...addresses.stock, summary: 'Rolls and leftovers with what is left, promised and free', result: z.array(stockLine), errors: [] },
  stockCsv: { ...addresses.stockCsv, summary: 'Rolls and leftovers as CSV', result: null, fileType: 'text/csv', errors: [] },
  importStock: {
    ...addresses.importStock,
    summary: 'Bring rolls and leftovers in from CSV; nothing comes in unless every row reads',
    query: z.object({ personId: id, deviceId: id, same: z.enum(['ask', 'skip', 'count']).default('ask') }),
    body: z.string(),
    takes: ['text/csv'],
    result: z.object({ added: z.int(), counted: z.int(), skipped: z.int() }),
    errors: ['bad-input', 'rolls-known'],
  },
  stockLabels: {
    ...addresses.stockLabels,
    summary: 'Labels with QR codes for rolls and leftovers',
    query: paper.extend({ ids: z.string().max(20_000).optional() }),
    result: null,
    fileType: 'application/pdf',
    errors: ['bad-input', 'not-found'],
  },
  plotSheet: {
    ...addresses.plotSheet,
    summary: 'What the plotter cuts for a piece: paths in mm seen from the film side',
    params: pieceParams,
    query: plotQuery,
    result: plotSheet,
    errors: [...jobErrors, 'not-plotted'],
  },
  plotHpgl: {
    ...addresses.plotHpgl,
    summary: 'The same as HP-GL',
    params: pieceParams,
    query: plotQuery,
    result: null,
    fileType: 'application/vnd.hp-hpgl',
    errors: [...jobErrors, 'not-plotted'],
  },
  plotDxf: {
    ...addresses.plotDxf,
    summary: 'The same as DXF in millimetres, a layer per purpose',
    params: pieceParams,
    query: plotQuery,
    result: null,
    fileType: 'application/dxf',
    errors: [...jobErrors, 'not-plotted'],
  },
  plotter: {
    ...addresses.plotter,
    summary: 'The plotter and what it is at; plotted paths from a number on',
    query: z.object({ from: z.coerce.number().int().min(0).default(0) }),
    result: plotStatus,
    errors: ['bad-input'],
  },
  plotterStart: {
    ...addresses.plotterStart,
    summary: 'Cut a piece, or go on with a run that broke off',
    params: jobParams,
    body: z.object({ pieceId: z.string().max(60), settings: plotSettings, personId: id, resumeId: id.nullable().default(null) }),
    result: plotRun,
    errors: [...jobErrors, 'not-plotted', 'plotter-busy', 'plotter-away', 'conflict'],
  },
  plotterAct: {
    ...addresses.plotterAct,
    summary: 'Pause, go on, stop; at the simulated machine: jam the film, switch it off and on',
    body: z.object({ act: z.enum(['pause', 'resume', 'stop', 'jam']) }),
    result: plotStatus,
    errors: ['bad-input', 'not-found'],
  },
  quotePdf: {
    ...addresses.quotePdf,
    summary: 'The quote for the customer: one price per film, no make-up',
    params: z.object({ quoteId: id }),
    query: paper,
    result: null,
    fileType: 'application/pdf',
    errors: ['bad-input', 'quote-not-found', 'no-price'],
  },
  quotePrices: {
    ...addresses.quotePrices,
    summary: 'Price of each film of a quote with its make-up',
    params: z.object({ quoteId: id }),
    result: z.array(quotePrice),
    errors: ['bad-input', 'quote-not-found'],
  },
  acceptQuote: {
    ...addresses.acceptQuote,
    summary: 'The customer says yes to one film: the quote becomes a job with its panes and tapes, nothing retyped',
    params: z.object({ quoteId: id }),
    body: z.object({ filmId: id, personId: id, deviceId: id }),
    result: z.object({ jobId: id }),
    errors: ['bad-input', 'quote-not-found', 'quote-accepted', 'no-price'],
  },
  methods: {
    ...addresses.methods,
    summary: 'All cutting methods compared for one film of a job',
    params: z.object({ jobId: id, filmId: id }),
    result: z.array(methodFigures),
    errors: jobErrors,
  },
  shop: {
    ...addresses.shop,
    summary: 'How the bench listens, and which devices are let in (at the bench only)',
    result: shopStatus,
    errors: ['bench-only'],
  },
  shopListen: {
    ...addresses.shopListen,
    summary: 'Listen at an address of this machine, or (null) to this machine alone',
    body: shopListen,
    result: shopStatus,
    errors: ['bad-input', 'bench-only', 'address-away'],
  },
  shopCode: {
    ...addresses.shopCode,
    summary: 'Make a code that lets one device in; an older one is void',
    body: newAdmission,
    result: admissionCode,
    errors: ['bad-input', 'bench-only', 'address-away'],
  },
  shopRemove: {
    ...addresses.shopRemove,
    summary: 'Let a device in no more; what it has open is cut at once',
    body: deviceRemoval,
    result: shopStatus,
    errors: ['bad-input', 'bench-only', 'not-found'],
  },
  backup: { ...addresses.backup, summary: 'Write a physical backup now', result: z.object({ file: z.string() }), errors: [] },
  exportAll: { ...addresses.exportAll, summary: 'All records as JSON', result: null, fileType: 'application/json', errors: [] },
} as const satisfies Record<keyof typeof addresses, RouteDefinition>;

export type RouteName = keyof typeof routes;
