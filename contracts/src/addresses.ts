/** Where a call of the API is found. A part with a colon stands for a value. */
export interface Address {
  readonly method: 'get' | 'post';
  readonly path: `/api/${string}`;
}

/** The address of every call. Apart from `routes`, which adds what goes in and comes out, so that a page can call without carrying every schema. */
export const addresses = {
  health: { method: 'get', path: '/api/health' },
  session: { method: 'get', path: '/api/session' },
  bench: { method: 'get', path: '/api/bench' },
  jobs: { method: 'get', path: '/api/jobs' },
  deletedJobs: { method: 'get', path: '/api/deleted-jobs' },
  bringBackJob: { method: 'post', path: '/api/deleted-jobs/:jobId/bring-back' },
  createJob: { method: 'post', path: '/api/jobs' },
  job: { method: 'get', path: '/api/jobs/:jobId' },
  change: { method: 'post', path: '/api/jobs/:jobId/changes' },
  undo: { method: 'post', path: '/api/jobs/:jobId/undo' },
  redo: { method: 'post', path: '/api/jobs/:jobId/redo' },
  history: { method: 'get', path: '/api/jobs/:jobId/history' },
  changesSince: { method: 'get', path: '/api/jobs/:jobId/changes' },
  jobFile: { method: 'get', path: '/api/jobs/:jobId/file' },
  importJob: { method: 'post', path: '/api/job-files' },
  measuresCsv: { method: 'get', path: '/api/jobs/:jobId/measures.csv' },
  importMeasures: { method: 'post', path: '/api/jobs/:jobId/measures.csv' },
  cutSheetPdf: { method: 'get', path: '/api/jobs/:jobId/cut-sheet.pdf' },
  labelsPdf: { method: 'get', path: '/api/jobs/:jobId/labels.pdf' },
  rollSvg: { method: 'get', path: '/api/jobs/:jobId/cut-sheet.svg' },
  rollDxf: { method: 'get', path: '/api/jobs/:jobId/cut-sheet.dxf' },
  cutListCsv: { method: 'get', path: '/api/jobs/:jobId/cut-list.csv' },
  computeSurvey: { method: 'post', path: '/api/compute/survey' },
  computeLayout: { method: 'post', path: '/api/compute/layout' },
  computeVerdict: { method: 'post', path: '/api/compute/verdict' },
  computeShrink: { method: 'post', path: '/api/compute/shrink' },
  computeCloud: { method: 'post', path: '/api/compute/cloud' },
  formingSheetPdf: { method: 'get', path: '/api/jobs/:jobId/forming-sheet.pdf' },
  weather: { method: 'get', path: '/api/jobs/:jobId/weather' },
  jobDay: { method: 'get', path: '/api/jobs/:jobId/day' },
  instruments: { method: 'get', path: '/api/instruments' },
  instrumentStream: { method: 'get', path: '/api/instruments/stream' },
  instrumentAct: { method: 'post', path: '/api/instruments/act' },
  kit: { method: 'get', path: '/api/jobs/:jobId/kit' },
  computeSlip: { method: 'post', path: '/api/compute/slip' },
  computeWash: { method: 'post', path: '/api/compute/wash' },
  runSheet: { method: 'get', path: '/api/jobs/:jobId/surfaces/:surfaceId/run-sheet' },
  squeegee: { method: 'get', path: '/api/jobs/:jobId/surfaces/:surfaceId/squeegee' },
  computeTaped: { method: 'post', path: '/api/compute/taped' },
  computeHeat: { method: 'post', path: '/api/compute/heat' },
  computeRecess: { method: 'post', path: '/api/compute/recess' },
  computeDome: { method: 'post', path: '/api/compute/dome' },
  computeWrappedCorner: { method: 'post', path: '/api/compute/wrapped-corner' },
  computeDays: { method: 'post', path: '/api/compute/days' },
  computeJoints: { method: 'post', path: '/api/compute/joints' },
  computeCorrugation: { method: 'post', path: '/api/compute/corrugation' },
  computeLettering: { method: 'post', path: '/api/compute/lettering' },
  computeSqueegee: { method: 'post', path: '/api/compute/squeegee' },
  runSheetPdf: { method: 'get', path: '/api/jobs/:jobId/run-sheet.pdf' },
  layLogCsv: { method: 'get', path: '/api/jobs/:jobId/log.csv' },
  drying: { method: 'get', path: '/api/jobs/:jobId/drying' },
  handOver: { method: 'get', path: '/api/jobs/:jobId/hand-over' },
  handOverPdf: { method: 'get', path: '/api/jobs/:jobId/hand-over.pdf' },
  careSheetPdf: { method: 'get', path: '/api/jobs/:jobId/care-sheet.pdf' },
  careLanguages: { method: 'get', path: '/api/care-languages' },
  calendar: { method: 'get', path: '/api/jobs/:jobId/calendar.ics' },
  erase: { method: 'post', path: '/api/jobs/:jobId/erase' },
  due: { method: 'get', path: '/api/due' },
  callBacks: { method: 'get', path: '/api/call-backs' },
  layMinutes: { method: 'get', path: '/api/lay/minutes' },
  jobStream: { method: 'get', path: '/api/jobs/:jobId/stream' },
  addPhoto: { method: 'post', path: '/api/photos' },
  photo: { method: 'get', path: '/api/photos/:photo' },
  films: { method: 'get', path: '/api/films' },
  filmsCsv: { method: 'get', path: '/api/films.csv' },
  importFilms: { method: 'post', path: '/api/films' },
  stock: { method: 'get', path: '/api/stock' },
  stockCsv: { method: 'get', path: '/api/stock.csv' },
  importStock: { method: 'post', path: '/api/stock.csv' },
  stockLabels: { method: 'get', path: '/api/stock/labels.pdf' },
  plotSheet: { method: 'get', path: '/api/jobs/:jobId/pieces/:pieceId/plot' },
  plotHpgl: { method: 'get', path: '/api/jobs/:jobId/pieces/:pieceId/plot.hpgl' },
  plotDxf: { method: 'get', path: '/api/jobs/:jobId/pieces/:pieceId/plot.dxf' },
  plotter: { method: 'get', path: '/api/plotter' },
  plotterStart: { method: 'post', path: '/api/jobs/:jobId/plotter' },
  plotterAct: { method: 'post', path: '/api/plotter/act' },
  quotePdf: { method: 'get', path: '/api/quotes/:quoteId/quote.pdf' },
  quotePrices: { method: 'get', path: '/api/quotes/:quoteId/prices' },
  acceptQuote: { method: 'post', path: '/api/quotes/:quoteId/accept' },
  methods: { method: 'get', path: '/api/jobs/:jobId/films/:filmId/methods' },
  shop: { method: 'get', path: '/api/shop' },
  shopListen: { method: 'post', path: '/api/shop/listen' },
  shopCode: { method: 'post', path: '/api/shop/code' },
  shopRemove: { method: 'post', path: '/api/shop/remove' },
  backup: { method: 'post', path: '/api/backup' },
  exportAll: { method: 'get', path: '/api/export' },
} as const satisfies Record<string, Address>;

/** What stands in an address after the question mark; what is undefined is left out. */
export type Query = Readonly<Record<string, string | number | boolean | null | undefined>>;

/**
 * The address with its values in place.
 * @param params one value for each part with a colon
 * @example addressFrom('/api/jobs/:jobId', { jobId: '1' }, { paper: 'a4' }) // '/api/jobs/1?paper=a4'
 * @throws Error where a value is missing: no call is made to half an address
 */
export function addressFrom(path: string, params: Readonly<Record<string, string>> = {}, query: Query = {}): string {
  const filled = path.replace(/:(\w+)/g, (_, name: string) => {
    const value = params[name];
    if (!value) throw new Error(`The address ${path} lacks its ${name}.`);
    return encodeURIComponent(value);
  });
  const asked = Object.entries(query).flatMap(([name, value]) =>
    value === undefined || value === null ? [] : `${encodeURIComponent(name)}=${encodeURIComponent(String(value))}`,
  );
  return asked.length ? `${filled}?${asked.join('&')}` : filled;
}
