import { existsSync } from 'node:fs';
import { join } from 'node:path';
import { constants } from 'node:zlib';
import compression from 'compression';
import express, { type Express } from 'express';
import { ipKeyGenerator, rateLimit } from 'express-rate-limit';
import expressStaticGzip, { type ExpressStaticGzipOptions } from 'express-static-gzip';
import helmet from 'helmet';
import type { Logger } from 'pino';
import type { Compute } from './compute/runners.js';
import { exportAll } from './db/backup.js';
import { ChangeService } from './db/change.service.js';
import type { Journal } from './db/journal.js';
import { JobCountsRepository } from './db/job-counts.repository.js';
import { RecordsRepository } from './db/records.repository.js';
import type { Database } from './db/database.js';
import { asProblem } from './http/as-problem.js';
import { deviceOf, mount, sendProblem } from './http/mount.js';
import { apiPage, openApiDocument } from './http/openapi.js';
import { localOnly } from './http/origin.js';
import { secureDoor, setUpDoor } from './shop/shop-app.js';
import { shopRoutes } from './shop/shop.routes.js';
import { ShopService, type ShopPlace } from './shop/shop.service.js';
import { Refusal } from './problem.js';
import { cutRoutes } from './stations/cut/cut.routes.js';
import { CutService, planGuard } from './stations/cut/cut.service.js';
import { plotterRoutes } from './stations/cut/plotter.routes.js';
import { PlotterService } from './stations/cut/plotter.service.js';
import { boundByKnife, stockGuard } from './stations/stock/stock-guard.js';
import { stockRoutes } from './stations/stock/stock.routes.js';
import { StockService } from './stations/stock/stock.service.js';
import type { PlotterAddress } from './instruments/plotter-driver.js';
import { daysRoutes } from './stations/days/days.routes.js';
import { formRoutes } from './stations/form/form.routes.js';
import { FormService } from './stations/form/form.service.js';
import { chooseRoutes } from './stations/choose/choose.routes.js';
import { filmsRoutes } from './stations/films/films.routes.js';
import { FilmsService } from './stations/films/films.service.js';
import { jobsRoutes } from './stations/jobs/jobs.routes.js';
import { JobsService } from './stations/jobs/jobs.service.js';
import { SimulatedWeather } from './instruments/simulated-weather.js';
import type { WeatherService } from './instruments/weather-service.js';
import type { InstrumentBench } from './instruments/instrument-bench.js';
import { SimulatedInstruments } from './instruments/simulated-instruments.js';
import { instrumentRoutes } from './stations/instruments/instruments.routes.js';
import { prepareRoutes } from './stations/prepare/prepare.routes.js';
import { PrepareService } from './stations/prepare/prepare.service.js';
import { handOverRoutes } from './stations/hand-over/hand-over.routes.js';
import { HandOverService } from './stations/hand-over/hand-over.service.js';
import { EraseService } from './stations/hand-over/erase.service.js';
import { CareTexts } from './stations/hand-over/care-texts.js';
import { CallBacksService } from './stations/hand-over/call-backs.service.js';
import { checkRoutes } from './stations/check/check.routes.js';
import { DueService } from './stations/check/due.service.js';
import { CheckService } from './stations/check/check.service.js';
import { layRoutes } from './stations/lay/lay.routes.js';
import { referenceGuard } from './db/references.js';
import { readingGuard } from './stations/measure/reading-guard.js';
import { layGuard, LayService } from './stations/lay/lay.service.js';
import { PhotoStore } from './stations/lay/photo-store.js';
import { quotesRoutes } from './stations/quotes/quotes.routes.js';
import { QuotesService } from './stations/quotes/quotes.service.js';
import { measureRoutes } from './stations/measure/measure.routes.js';
import { MeasureService } from './stations/measure/measure.service.js';

/** Everything the app stands on, by name. */
export interface Bench {
  readonly db: Database;
  readonly journal: Journal | null;
  readonly compute: Compute;
  readonly now: () => Date;
  readonly log: Logger;
  /** Folder of the built interface; null in tests of the API. */
  readonly webDir: string | null;
  /** Writes a physical backup now; gives its file. */
  readonly backup: () => Promise<string>;
  /** Where a knife plotter listens; null = the simulated one. */
  readonly plotter?: PlotterAddress | null;
  /** Laser meter, thermometer, hygrometer; none: simulated ones. */
  readonly instruments?: InstrumentBench | null;
  /** Where the weather comes from; none: what is typed on site, or, in a job that asks for it, a made-up one. */
  readonly weather?: WeatherService | null;
  /** Folder of the photos; null: they are refused. */
  readonly photosDir?: string | null;
  /** Folder of care sheets in further languages; null: English alone. */
  readonly languagesDir?: string | null;
  /** Takes off the disk what rows were before an erasure; null: not this bench’s to do. */
  readonly clearOut?: (() => Promise<void>) | null;
  /** Names of the backups that are there. */
  readonly backups?: () => readonly string[];
  /** Where listening in the shop keeps its files; null: this machine alone, for good. */
  readonly shop?: ShopPlace | null;
  /** How much faster than a real machine the simulated one runs. */
  readonly plotterHaste?: number;
  /** Requests that one device may send in ten seconds. */
  readonly requestsIn10s?: number;
}

export interface App {
  readonly http: Express;
  readonly jobs: JobsService;
  readonly changes: ChangeService;
  readonly records: RecordsRepository;
  readonly plotter: PlotterService;
  readonly erasing: EraseService;
  readonly photos: PhotoStore;
  readonly shop: ShopService | null;
}

/** Beyond this Brotli takes several times as long for a few percent: measured on the demo's job. @source house rule */
const LIVE_QUALITY = 4;

const VERSION = '0.1.0';
const MOST_BYTES = '8mb';

/** Assembles the application; nothing listens yet. */
export function createApp(bench: Bench): App {
  const records = new RecordsRepository(bench.db);
  const photos = new PhotoStore(bench.photosDir ?? null);
  const changes = new ChangeService(records, bench.journal, bench.now, [layGuard(photos)], [referenceGuard, readingGuard, planGuard, stockGuard], boundByKnife);
  const jobs = new JobsService(records, changes, bench.now, (photo) => photos.has(photo), new JobCountsRepository(bench.db));
  const plotter = new PlotterService(jobs, records, bench.now, bench.plotter ?? null, bench.plotterHaste ?? 1);
  const shop = bench.shop ? new ShopService(bench.shop, bench.now, bench.log) : null;
  const inner = express();
  inner.disable('x-powered-by');
  // answers are never kept by browsers, so nobody asks whether they are still the same
  inner.disable('etag');
  // the interface was packed when it was built; answers are packed while somebody waits for them
  inner.use(compression({ brotli: { params: { [constants.BROTLI_PARAM_QUALITY]: LIVE_QUALITY } } }));
  if (bench.webDir) servePartsOfPages(inner, bench.webDir);
  inner.use(
    helmet({
      contentSecurityPolicy: {
        useDefaults: true,
        directives: {
          'worker-src': ["'self'", 'blob:'],
          'style-src': ["'self'", "'unsafe-inline'"],
          'script-src': ["'self'", "'wasm-unsafe-eval'"],
          'img-src': ["'self'", 'data:', 'blob:'],
          'upgrade-insecure-requests': null,
        },
      },
      strictTransportSecurity: false,
    }),
  );
  inner.use(
    '/api',
    rateLimit({
      windowMs: 10_000,
      limit: bench.requestsIn10s ?? 600,
      // phones behind one access point are told apart
      keyGenerator: (req, res) => deviceOf(res)?.id ?? ipKeyGenerator(req.ip ?? ''),
      standardHeaders: 'draft-8',
      legacyHeaders: false,
      handler: (req, res) => sendProblem(res, new Refusal('too-many'), req.originalUrl),
    }),
  );
  inner.use(express.json({ limit: MOST_BYTES }));
  inner.use(express.raw({ limit: MOST_BYTES, type: ['image/jpeg', 'image/png', 'image/webp'] }));
  inner.use(express.text({ limit: MOST_BYTES, type: ['text/csv', 'text/plain'] }));
  mount(inner, 'health', async () => ({ ok: true as const, version: VERSION, jobs: await records.jobCount() }));
  mount(inner, 'backup', async () => ({ file: await bench.backup() }));
  mount(inner, 'exportAll', async () => ({ name: 'yellow-pane-export.json', bytes: await exportAll(records, bench.now()) }));
  inner.use(jobsRoutes(jobs, changes, records));
  inner.use(measureRoutes(new MeasureService(jobs, bench.compute, bench.now)));
  inner.use(cutRoutes(new CutService(jobs, bench.compute)));
  inner.use(plotterRoutes(plotter));
  inner.use(stockRoutes(new StockService(jobs, records, bench.now)));
  inner.use(chooseRoutes(bench.compute));
  inner.use(daysRoutes(bench.compute));
  inner.use(formRoutes(new FormService(jobs, bench.compute)));
  inner.use(prepareRoutes(new PrepareService(jobs, bench.weather ?? null, new SimulatedWeather(), bench.now)));
  inner.use(layRoutes(new LayService(jobs, records, bench.compute), photos, changes, records, jobs));
  const check = new CheckService(jobs, bench.weather ?? null, new SimulatedWeather());
  inner.use(checkRoutes(check, new DueService(jobs, check, records, bench.now)));
  const erasing = new EraseService(jobs, records, changes, photos, bench.now, bench.backups ?? (() => []), bench.clearOut ?? null);
  const handOver = new HandOverService(jobs, check, photos, new CareTexts(bench.languagesDir ?? null), bench.now);
  inner.use(handOverRoutes(handOver, erasing, new CallBacksService(jobs, records)));
  inner.use(instrumentRoutes(bench.instruments ?? new SimulatedInstruments(bench.now)));
  inner.use(filmsRoutes(new FilmsService(jobs, records, bench.now)));
  inner.use(quotesRoutes(new QuotesService(jobs, records, bench.now)));
  if (shop) inner.use(shopRoutes(shop));
  inner.get('/api/openapi.json', (_req, res) => void res.json(openApiDocument()));
  inner.get('/api/docs', (_req, res) => void res.type('html').send(apiPage()));
  inner.use('/api', () => {
    throw new Refusal('not-found');
  });
  if (bench.webDir) serveInterface(inner, bench.webDir);
  inner.use(asProblem(bench.log));
  const http = express();
  http.disable('x-powered-by');
  http.use(localOnly, inner, asProblem(bench.log));
  if (shop) {
    const doors = { register: shop.register, admission: shop.admission, log: bench.log, hosts: () => shop.hosts(), handOut: () => shop.handOut() };
    shop.setDoors(secureDoor(doors, inner), setUpDoor(doors));
  }
  return { http, jobs, changes, records, plotter, erasing, photos, shop };
}

const NAMED_BY_CONTENT = /-[A-Z0-9]{8}\.\w+$/;
const PART_OF_PAGE = /^\/(chunk|main|styles)-[A-Z0-9]{8}\.(js|css)$/;

/** Files of the built interface; what was packed beside them when it was built goes out packed. */
const builtFiles = (webDir: string, serveStatic: ExpressStaticGzipOptions['serveStatic']) =>
  expressStaticGzip(webDir, { enableBrotli: true, orderPreference: ['br'], index: false, serveStatic: { ...serveStatic, index: false } });

/**
 * Scripts and styles that a page is made of, named by their content. The rules for documents and workers (a kilobyte of headers on each answer, and
 * a page has thirty parts) mean nothing on them.
 */
function servePartsOfPages(http: Express, webDir: string): void {
  const parts = builtFiles(webDir, {
    maxAge: '1y',
    immutable: true,
    etag: false,
    lastModified: false,
    setHeaders: (res) => void res.setHeader('X-Content-Type-Options', 'nosniff').setHeader('Cross-Origin-Resource-Policy', 'same-origin'),
  });
  http.use((req, res, next) => (PART_OF_PAGE.test(req.path) ? parts(req, res, next) : next()));
}

function serveInterface(http: Express, webDir: string): void {
  const index = join(webDir, 'index.html');
  const named = builtFiles(webDir, { maxAge: '1y', immutable: true });
  http.use((req, res, next) => (NAMED_BY_CONTENT.test(req.path) ? named(req, res, next) : next()));
  http.use(express.static(webDir, { index: false, setHeaders: (res) => void res.setHeader('Cache-Control', 'no-cache') }));
  http.get('/{*path}', (req, res) => {
    if (NAMED_BY_CONTENT.test(req.path)) throw new Refusal('not-found', 'This part is of another build of the interface. Load the page anew.');
    if (!existsSync(index)) throw new Refusal('not-found', 'The interface is not built yet: npm run build.');
    res.setHeader('Cache-Control', 'no-cache');
    res.sendFile(index);
  });
}
