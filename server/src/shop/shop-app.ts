import express, { type Express, type Request, type Response } from 'express';
import { ipKeyGenerator, rateLimit } from 'express-rate-limit';
import type { Logger } from 'pino';
import { asProblem } from '../http/as-problem.js';
import { deviceOf, sendProblem } from '../http/mount.js';
import { onlyAs } from '../http/origin.js';
import { Refusal } from '../problem.js';
import type { Admission } from './admission.js';
import type { DeviceRegister } from './device-register.js';
import { admissionPage, setUpPage, shopPageRules } from './shop-pages.js';

/** Its name binds it to this address, encrypted, whole site. @source RFC 6265bis, 4.1.3.2 */
const COOKIE = '__Host-yp-device';
const YEAR_MS = 365 * 86_400_000;
/** What an address that is not let in may ask for, and how often it may try a code. @source house rules */
const STRANGER = { windowMs: 60_000, limit: 60 };
const TRIES = { windowMs: 10 * 60_000, limit: 10 };

const secretOf = (req: Request): string | null => new RegExp(`(?:^|;\\s*)${COOKIE}=([A-Za-z0-9_-]{43})(?:;|$)`).exec(req.headers.cookie ?? '')?.[1] ?? null;
const wantsPage = (req: Request) => req.method === 'GET' && !req.path.startsWith('/api') && (req.headers.accept ?? '').includes('text/html');
const byAddress = (req: Request) => ipKeyGenerator(req.ip ?? '');
const tooMany = (req: Request, res: Response) => sendProblem(res, new Refusal('too-many'), req.originalUrl);

/** With no referrer at all a browser would name no Origin either when it sends the form, and be turned away. */
function sendPage(res: Response, html: string, status = 200): void {
  res
    .status(status)
    .set({ 'Content-Security-Policy': shopPageRules, 'Cache-Control': 'no-store', 'Referrer-Policy': 'same-origin', 'X-Content-Type-Options': 'nosniff' })
    .type('html')
    .send(html);
}

/** What the shop’s two doors need to know. */
export interface Doors {
  readonly register: DeviceRegister;
  readonly admission: Admission;
  readonly log: Logger;
  /** `host:port` of each door as requests may name it; none while it is shut. */
  readonly hosts: () => { readonly secure: readonly string[]; readonly setUp: readonly string[] };
  /** What the set-up page hands out; null while the bench does not listen. */
  readonly handOut: () => { readonly certificate: Buffer; readonly fingerprint: string; readonly url: string } | null;
}

/** The encrypted door: the whole bench for a device that is let in, the admission page for any other. */
export function secureDoor(doors: Doors, inner: Express): Express {
  const { register, admission } = doors;
  const open = new Map<string, Set<Response>>();
  register.onRemoved((id) => open.get(id)?.forEach((res) => res.destroy()));
  const app = express();
  app.disable('x-powered-by');
  app.use(onlyAs(() => doors.hosts().secure, 'https'));
  app.use((req, res, next) => {
    const secret = secretOf(req);
    const device = secret ? register.find(secret) : null;
    res.locals['device'] = device;
    if (device) {
      const own = open.get(device.id) ?? new Set();
      open.set(device.id, own.add(res));
      res.on('close', () => own.delete(res));
    }
    next();
  });
  app.use(rateLimit({ ...STRANGER, skip: (_req, res) => deviceOf(res) !== null, keyGenerator: byAddress, legacyHeaders: false, handler: tooMany }));
  app.get('/admit', (_req, res) => (deviceOf(res) ? res.redirect(303, '/') : sendPage(res, admissionPage(null))));
  app.post(
    '/admit',
    rateLimit({ ...TRIES, keyGenerator: byAddress, legacyHeaders: false, handler: (_req, res) => sendPage(res, admissionPage('Too many codes were tried from here. Wait ten minutes.'), 429) }), // prettier-ignore
    express.urlencoded({ extended: false, limit: '1kb' }),
    (req, res) => {
      const who = admission.take(String((req.body as { code?: unknown } | undefined)?.code ?? ''));
      if (!who) return sendPage(res, admissionPage(new Refusal('wrong-code').message), 403);
      const { secret } = register.admit(who);
      res.cookie(COOKIE, secret, { path: '/', secure: true, httpOnly: true, sameSite: 'strict', maxAge: YEAR_MS });
      res.redirect(303, '/');
    },
  );
  app.use((req, res, next) => {
    if (deviceOf(res)) return next();
    if (wantsPage(req)) return res.redirect(303, '/admit');
    res.set('WWW-Authenticate', 'DeviceCode realm="Yellow Pane"');
    throw new Refusal('not-admitted');
  });
  app.use(inner);
  app.use(asProblem(doors.log));
  return app;
}

/** The open door, without encryption: the certificate and how to install it, nothing else. */
export function setUpDoor(doors: Doors): Express {
  const app = express();
  app.disable('x-powered-by');
  app.use(onlyAs(() => doors.hosts().setUp, 'http'));
  app.use(rateLimit({ ...STRANGER, keyGenerator: byAddress, legacyHeaders: false, handler: tooMany }));
  app.get('/', (_req, res, next) => {
    const out = doors.handOut();
    if (!out) return next();
    sendPage(res, setUpPage(out.fingerprint, out.url));
  });
  app.get('/bench.crt', (_req, res, next) => {
    const out = doors.handOut();
    if (!out) return next();
    res.set('Content-Disposition', 'attachment; filename="yellow-pane-bench.crt"').type('application/x-x509-ca-cert').send(out.certificate);
  });
  app.use(() => {
    throw new Refusal('not-found');
  });
  app.use(asProblem(doors.log));
  return app;
}
