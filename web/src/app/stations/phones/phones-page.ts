import { DatePipe } from '@angular/common';
import { ChangeDetectionStrategy, Component, computed, DestroyRef, inject, signal } from '@angular/core';
import type { AdmittedDevice, ShopStatus } from '@yellow-pane/contracts';
import { BenchBar } from '../../kit/bench-bar';
import { QrCode } from '../../kit/qr-code';
import { Api } from '../../record/api';
import { BenchStore } from '../../record/bench.store';
import { Device } from '../../record/device';

/** While this page is open it looks whether somebody came in. */
const LOOK_MS = 2000;

/** Phones and tablets in the shop: where the bench listens, how a device comes to trust it, and who is let in. */
@Component({
  selector: 'yp-phones-page',
  imports: [BenchBar, QrCode, DatePipe],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <yp-bench-bar [firm]="bench.doc()?.firm?.name ?? ''" />
    <main class="mx-auto max-w-4xl p-6">
      <h1 class="mb-1 text-2xl">Phones</h1>
      @if (device.admitted(); as own) {
        <p class="mb-3">
          This is “{{ own.name }}”, let in on {{ own.admittedAt | date: 'd MMM y' }}. Who else is let in, and whether the bench listens at all, is settled at
          the bench itself.
        </p>
        @if (isPersisted() !== null) {
          <p data-persisted>
            {{
              isPersisted()
                ? 'This browser has promised to keep what you write out of reach of the bench.'
                : 'This browser has not promised to keep what you write out of reach of the bench: it may clear its store when the device runs full. Putting the page on the home screen helps.'
            }}
          </p>
        }
      } @else if (shop(); as s) {
        <p class="mb-4 text-soft">On the glass you want the Lay stage in your pocket. Nothing leaves this machine until you say where it listens.</p>
        <fieldset class="mb-6 border border-line bg-card p-4">
          <legend class="cap px-1">The bench answers</legend>
          <label class="flex items-center gap-3 py-1"
            ><input type="radio" name="listen" [checked]="s.chosen === null" [disabled]="isBusy()" (change)="listen(null)" /><span
              >this machine alone</span
            ></label
          >
          @for (a of choices(); track a.address) {
            <label class="flex items-center gap-3 py-1"
              ><input type="radio" name="listen" [checked]="s.chosen === a.address" [disabled]="isBusy()" (change)="listen(a.address)" /><span
                >also devices in the network of <span class="figure">{{ a.address }}</span><span class="text-soft"> ({{ a.network }})</span></span
              ></label
            >
          }
          @if (!s.addresses.length) {
            <p class="mt-1 text-sm text-soft">
              This machine is in no private network now. Join the network of the shop, or let a phone share its own, and look again.
            </p>
          }
          @if (s.trouble) {
            <p role="alert" class="mt-2 border-l-4 border-ink bg-tint p-3">{{ s.trouble }}</p>
          }
        </fieldset>
        @if (s.url) {
          <div class="mb-6 grid gap-6 md:grid-cols-2">
            <section aria-labelledby="trust" class="border border-line bg-card p-4">
              <h2 id="trust" class="mb-2 text-lg">1 · Once on each phone: trust this bench</h2>
              <div class="flex flex-wrap gap-4">
                <yp-qr-code [text]="s.setUpUrl!" label="Address of the set-up page" />
                <p class="min-w-40 flex-1 text-sm">
                  Scan it, or open the address below, and install the certificate found there. The phone must show the fingerprint (SHA-256) below.
                </p>
              </div>
              <p class="figure mt-2" data-set-up-url>{{ s.setUpUrl }}</p>
              <p class="figure mt-2 bg-paper p-2 text-sm leading-6" data-fingerprint>{{ pairs(s.fingerprint!) }}</p>
              <p class="mt-2 text-sm text-soft">
                Where it differs, stop: somebody stands between. The certificate vouches for addresses of private networks only, never for a site of the
                internet.
              </p>
            </section>
            <section aria-labelledby="let-in" class="border border-line bg-card p-4">
              <h2 id="let-in" class="mb-2 text-lg">2 · Let it in</h2>
              @if (s.code; as c) {
                <div class="flex flex-wrap gap-4">
                  <yp-qr-code [text]="c.url" label="The code, for the camera of the phone" />
                  <div class="min-w-40 flex-1">
                    <p class="text-sm">For “{{ c.name }}”. Scan it, or open the address below and type</p>
                    <p class="figure my-2 text-3xl font-semibold whitespace-nowrap" data-code>{{ c.code }}</p>
                    <p class="text-sm">Works once, until {{ c.expiresAt | date: 'HH:mm' }}.</p>
                  </div>
                </div>
                <p class="figure mt-2">{{ s.url }}/admit</p>
              } @else {
                @if (cameIn(); as d) {
                  <p role="status" class="mb-3 border-l-4 border-proof bg-proof-tint p-3">“{{ d.name }}” is in.</p>
                }
                <form class="grid gap-3" (submit)="$event.preventDefault(); makeCode(name, who.value)">
                  <label class="text-sm"
                    >Whose device is it?<input #name class="field" required maxlength="60" placeholder="Phone of …" autocomplete="off"
                  /></label>
                  <label class="text-sm"
                    >Who works with it<select #who class="field">
                      <option value="">whoever holds it</option>
                      @for (p of device.persons(); track p.id) {
                        <option [value]="p.id">{{ p.name }}</option>
                      }
                    </select></label
                  >
                  <button class="btn btn-ink">Make a code</button>
                </form>
              }
            </section>
          </div>
        }
        <section aria-labelledby="in">
          <h2 id="in" class="cap mb-2">Let in</h2>
          @for (d of s.devices; track d.id) {
            <div class="flex flex-wrap items-center gap-x-4 gap-y-1 border-b border-hair py-2" [attr.data-device]="d.name">
              <span class="flex-1"
                ><span class="font-bold">{{ d.name }}</span
                ><span class="block text-sm text-soft"
                  >{{ person(d) }}since {{ d.admittedAt | date: 'd MMM y' }}, last seen {{ d.lastSeenAt | date: 'd MMM, HH:mm' }}</span
                ></span
              >
              @if (asking() === d.id) {
                <span class="text-sm">It has to be let in anew by a code. Lines it has not delivered stay on it.</span>
                <button type="button" class="btn btn-ink" (click)="remove(d)">Take it out</button>
                <button type="button" class="btn" (click)="asking.set(null)">Leave it</button>
              } @else {
                <button type="button" class="btn" [attr.aria-label]="'Take out: ' + d.name" (click)="asking.set(d.id)">Take out …</button>
              }
            </div>
          } @empty {
            <p class="text-soft">No device but this machine.</p>
          }
        </section>
      } @else if (!fault()) {
        <p class="text-soft" aria-busy="true">Looking …</p>
      }
      @if (fault()) {
        <p role="alert" class="mt-4 border-l-4 border-ink bg-tint p-3">{{ fault() }}</p>
      }
    </main>
  `,
})
export class PhonesPage {
  private readonly api = inject(Api);
  protected readonly bench = inject(BenchStore);
  protected readonly device = inject(Device);
  protected readonly shop = signal<ShopStatus | null>(null);
  protected readonly fault = signal('');
  protected readonly isBusy = signal(false);
  /** The device that somebody wants to take out, before it is said twice. */
  protected readonly asking = signal<string | null>(null);
  protected readonly cameIn = signal<AdmittedDevice | null>(null);
  protected readonly isPersisted = signal<boolean | null>(null);

  /** The address chosen stays in sight although this machine may not have it now. */
  protected readonly choices = computed(() => {
    const s = this.shop();
    if (!s) return [];
    const isThere = s.chosen === null || s.addresses.some((a) => a.address === s.chosen);
    return isThere ? s.addresses : [...s.addresses, { address: s.chosen!, network: 'not there now' }];
  });

  constructor() {
    const destroyed = inject(DestroyRef);
    let timer: ReturnType<typeof setTimeout>;
    const look = async (): Promise<void> => {
      if (!this.isBusy()) await this.ask(() => this.api.shop());
      timer = setTimeout(() => void look(), LOOK_MS);
    };
    void this.bench.load().then(async () => {
      if (!this.device.admitted()) return look();
      this.isPersisted.set((await navigator.storage?.persisted?.()) ?? null);
    });
    destroyed.onDestroy(() => clearTimeout(timer));
  }

  protected pairs = (fingerprint: string) => fingerprint.replaceAll(':', ' ');
  protected person(d: AdmittedDevice): string {
    const name = this.device.persons().find((p) => p.id === d.personId)?.name;
    return name ? `${name} · ` : '';
  }

  protected async listen(address: string | null): Promise<void> {
    const before = this.shop();
    this.isBusy.set(true);
    const isDone = await this.ask(() => this.api.shopListen({ body: { address } }));
    if (!isDone) {
      // the tick goes back to what still holds
      this.shop.set(null);
      await new Promise((r) => setTimeout(r));
      this.shop.set(before);
    }
    this.isBusy.set(false);
  }
  protected async makeCode(name: HTMLInputElement, personId: string): Promise<void> {
    this.cameIn.set(null);
    await this.ask(async () => {
      await this.api.shopCode({ body: { name: name.value.trim(), personId: personId || null } });
      return this.api.shop();
    });
  }
  protected async remove(d: AdmittedDevice): Promise<void> {
    this.asking.set(null);
    await this.ask(() => this.api.shopRemove({ body: { deviceId: d.id } }));
  }

  private async ask(call: () => Promise<ShopStatus>): Promise<boolean> {
    try {
      const before = this.shop();
      const now = await call();
      const fresh = before?.code && !now.code ? now.devices.find((d) => !before.devices.some((b) => b.id === d.id)) : undefined;
      if (fresh) this.cameIn.set(fresh);
      this.shop.set(now);
      this.fault.set('');
      return true;
    } catch (error) {
      this.fault.set(error instanceof Error ? error.message : String(error));
      return false;
    }
  }
}
