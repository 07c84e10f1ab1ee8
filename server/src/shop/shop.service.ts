import { existsSync, mkdirSync, readFileSync } from 'node:fs';
import { createServer as createPlain, type RequestListener, type Server } from 'node:http';
import { createServer as createSecure } from 'node:https';
import type { AddressInfo } from 'node:net';
import { networkInterfaces } from 'node:os';
import { join } from 'node:path';
import type { Logger } from 'pino';
import { shopListen, type AdmissionCode, type AdmittedDevice, type ShopAddress, type ShopStatus } from '@yellow-pane/contracts';
import { Refusal } from '../problem.js';
import { Admission } from './admission.js';
import type { Certificates } from './certificates.js';
import { derOf, fingerprintOf, isPrivate } from './identity.js';
import { DeviceRegister } from './device-register.js';
import { keep } from './keep.js';

/** Looked after now and then: whether the address is back, whether the certificate runs out. @source house rule */
const LOOK_MS = 30_000;

/** Where the shop's files are, and at which ports it listens. 0 lets the system choose. */
export interface ShopPlace {
  readonly dir: string;
  readonly securePort: number;
  readonly setUpPort: number;
  /** Addresses of this machine; none: those of the system. */
  readonly addresses?: () => ShopAddress[];
}

/** Addresses that a phone in the same private network could reach. */
export const privateAddresses = (): ShopAddress[] =>
  Object.entries(networkInterfaces()).flatMap(([network, list]) =>
    (list ?? []).filter((a) => a.family === 'IPv4' && !a.internal && isPrivate(a.address)).map((a) => ({ address: a.address, network })),
  );

interface Listening {
  readonly address: string;
  readonly secure: Server;
  readonly setUp: Server;
  readonly fingerprint: string;
  readonly certificate: Buffer;
  readonly serverCert: string;
}
const portOf = (server: Server) => (server.address() as AddressInfo).port;
const listenAt = (server: Server, port: number, address: string) =>
  new Promise<void>((resolve, reject) => {
    server.once('error', reject);
    server.listen(port, address, () => {
      server.off('error', reject);
      resolve();
    });
  });

/** Listening in the shop: at which address, by which certificate, and for whom. Off until somebody at the bench chooses an address. */
export class ShopService {
  readonly register: DeviceRegister;
  readonly admission: Admission;
  private readonly settingsFile: string;
  private doors: { secure: RequestListener; setUp: RequestListener } | null = null;
  private listening: Listening | null = null;
  private chosen: string | null = null;
  private trouble: string | null = null;
  private timer: NodeJS.Timeout | null = null;
  private turn: Promise<unknown> = Promise.resolve();

  constructor(
    private readonly place: ShopPlace,
    private readonly now: () => Date,
    private readonly log: Logger,
  ) {
    this.register = new DeviceRegister(join(place.dir, 'devices.json'), now);
    this.admission = new Admission(now);
    this.settingsFile = join(place.dir, 'listen.json');
  }

  /** Read when the shop is let in: most benches never do, and it is a large library. */
  private async certificates(): Promise<Certificates> {
    return new (await import('./certificates.js')).Certificates(this.place.dir, this.now);
  }

  /** What stands behind the doors; without it nothing can listen. */
  setDoors(secure: RequestListener, setUp: RequestListener): void {
    this.doors = { secure, setUp };
  }

  /** Takes up what was chosen before, and keeps looking after it. */
  async start(): Promise<void> {
    if (existsSync(this.settingsFile)) this.chosen = shopListen.parse(JSON.parse(readFileSync(this.settingsFile, 'utf8'))).address;
    if (this.chosen) await this.inTurn(() => this.open());
    this.timer = setInterval(() => void this.inTurn(() => this.lookAfter()), LOOK_MS);
    this.timer.unref();
  }

  async close(): Promise<void> {
    if (this.timer) clearInterval(this.timer);
    await this.inTurn(() => this.shut());
  }

  /** Names that requests may give as Host. */
  hosts(): { secure: string[]; setUp: string[] } {
    const l = this.listening;
    return l ? { secure: [this.hostOf(l, l.secure)], setUp: [this.hostOf(l, l.setUp)] } : { secure: [], setUp: [] };
  }
  handOut(): { certificate: Buffer; fingerprint: string; url: string } | null {
    const l = this.listening;
    return l ? { certificate: l.certificate, fingerprint: l.fingerprint, url: this.url()! } : null;
  }

  status(): ShopStatus {
    const l = this.listening;
    const code = this.admission.open();
    return {
      addresses: this.addresses(),
      chosen: this.chosen,
      trouble: this.trouble ?? (l && !this.addresses().some((a) => a.address === l.address) ? awayText(l.address) : null),
      url: this.url(),
      setUpUrl: l ? `http://${this.hostOf(l, l.setUp)}` : null,
      fingerprint: l?.fingerprint ?? null,
      code: code && l ? { ...code, url: this.codeUrl(code.code) } : null,
      devices: this.register.all(),
    };
  }

  /** @param address null: this machine alone @throws Refusal address-away; then it listens as before */
  async listen(address: string | null): Promise<ShopStatus> {
    if (address !== null && !this.addresses().some((a) => a.address === address)) {
      const there = this.addresses().map((a) => a.address).join(', '); // prettier-ignore
      throw new Refusal(
        'address-away',
        `${address} is not a private address of this machine. ${there ? `It has ${there}.` : 'It has none now: join a network first.'}`,
      );
    }
    await this.inTurn(async () => {
      await this.shut();
      this.chosen = address;
      mkdirSync(this.place.dir, { recursive: true, mode: 0o700 });
      keep(this.settingsFile, JSON.stringify({ address }));
      if (address) await this.open();
    });
    return this.status();
  }

  code(who: Pick<AdmittedDevice, 'name' | 'personId'>): AdmissionCode {
    if (!this.listening) throw new Refusal('address-away', 'Choose an address first: the bench listens to this machine alone.');
    const code = this.admission.make(who);
    return { ...code, url: this.codeUrl(code.code) };
  }

  remove(deviceId: string): ShopStatus {
    if (!this.register.remove(deviceId)) throw new Refusal('not-found', 'No such device is let in.');
    return this.status();
  }

  private addresses = (): ShopAddress[] => (this.place.addresses ?? privateAddresses)();
  private hostOf = (l: Listening, server: Server) => `${l.address}:${portOf(server)}`;
  private url = (): string | null => (this.listening ? `https://${this.hostOf(this.listening, this.listening.secure)}` : null);
  private codeUrl = (code: string) => `${this.url()}/admit#${code}`;

  private inTurn(work: () => Promise<void>): Promise<void> {
    const next = this.turn.then(work);
    this.turn = next.catch((error: unknown) => this.log.error({ err: error }, 'listening in the shop failed'));
    return next;
  }

  /** Opens both doors, or says why not. */
  private async open(): Promise<void> {
    const address = this.chosen;
    if (!address || !this.doors) return;
    const certificates = await this.certificates();
    const [root, server] = [await certificates.root(), await certificates.server(address)];
    const secure = createSecure({ key: server.key, cert: server.cert, minVersion: 'TLSv1.2' }, this.doors.secure);
    const setUp = createPlain(this.doors.setUp);
    for (const server of [secure, setUp]) server.on('error', (error) => this.log.warn({ err: error }, 'a door of the shop'));
    try {
      await listenAt(secure, this.place.securePort, address);
      await listenAt(setUp, this.place.setUpPort, address);
      this.listening = { address, secure, setUp, fingerprint: fingerprintOf(root.cert), certificate: derOf(root.cert), serverCert: server.cert };
      this.trouble = null;
    } catch (error) {
      secure.close();
      setUp.close();
      this.trouble = whyNot(error as NodeJS.ErrnoException, address, this.place);
    }
  }

  private async shut(): Promise<void> {
    const l = this.listening;
    this.listening = null;
    this.trouble = null;
    this.admission.void();
    if (!l) return;
    await Promise.all(
      [l.secure, l.setUp].map((s) => {
        const closed = new Promise((r) => s.close(r));
        s.closeAllConnections();
        return closed;
      }),
    );
  }

  private async lookAfter(): Promise<void> {
    if (!this.chosen) return;
    if (!this.listening) return this.open();
    const { cert } = await (await this.certificates()).server(this.chosen);
    if (cert === this.listening.serverCert) return;
    await this.shut();
    await this.open();
  }
}

const awayText = (address: string) =>
  `This machine does not have the address ${address} now: it is in another network. The bench listens there again when it is back; or choose another address.`;

function whyNot(error: NodeJS.ErrnoException, address: string, place: ShopPlace): string {
  if (error.code === 'EADDRNOTAVAIL') return awayText(address);
  if (error.code === 'EADDRINUSE')
    return `Port ${place.securePort} or ${place.setUpPort} is taken by another program. Set YELLOW_PANE_SHOP_PORT to another one and start again.`;
  return `Listening at ${address} failed: ${error.message}.`;
}
