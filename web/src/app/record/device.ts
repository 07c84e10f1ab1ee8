import { computed, inject, Injectable, signal } from '@angular/core';
import { API_VERSION, type AdmittedDevice, type Firm, type Person } from '@yellow-pane/contracts';
import { v7 as uuidv7 } from 'uuid';
import { Api, ApiProblem, type Session } from './api';
import { LocalStore } from './local-store';

/** The lock that a living tab holds. */
export const tabLock = (deviceId: string): string => `yp-tab-${deviceId}`;

/** Ids of this browser's tabs, and when each was last seen; 0: it was closed. */
const TABS = 'yp-tabs';
const ALIVE_EVERY_MS = 20_000;
/** One that was not seen for so long is gone: a tab in the background is woken once a minute. @source house rule */
const GONE_AFTER_MS = 5 * 60_000;
/** More than this are not remembered. */
const MOST_TABS = 12;

const tabs = (): Record<string, number> => {
  try {
    return JSON.parse(localStorage.getItem(TABS) ?? '{}') as Record<string, number>;
  } catch {
    return {};
  }
};
function remember(id: string, at: number): void {
  const newest = Object.entries({ ...tabs(), [id]: at }).sort((a, b) => b[1] - a[1] || b[0].localeCompare(a[0]));
  localStorage.setItem(TABS, JSON.stringify(Object.fromEntries(newest.slice(0, MOST_TABS))));
}
/** The id of the tab that was closed last, to go on under it; null: all live. */
function takeUp(): string | null {
  const gone = Object.entries(tabs()).filter(([, at]) => Date.now() - at > GONE_AFTER_MS);
  return gone.sort((a, b) => b[1] - a[1] || b[0].localeCompare(a[0]))[0]?.[0] ?? null;
}

/**
 * Who is at the bench, on which device. Each browser tab is a device of its own, so that its changes count without a gap; a new tab takes up the id of one that
 * was closed, so that what was done before can still be undone, and what was not delivered yet goes on its way.
 */
@Injectable({ providedIn: 'root' })
export class Device {
  private readonly api = inject(Api);
  readonly id = this.ownId();
  readonly persons = signal<readonly Person[]>([]);
  readonly person = signal<Person | null>(null);
  readonly firm = signal<Firm | null>(null);
  /** How the bench let this device in; null: it is the bench itself. */
  readonly admitted = signal<AdmittedDevice | null>(null);
  /** How far the bench's clock is ahead of this device's, ms. */
  clockOffsetMs = 0;
  /** What the bench can do, by its own number; null: it was never reached. */
  readonly apiVersion = signal<number | null>(null);
  /** The bench is newer than this page, which was kept here. */
  readonly isOldShell = computed(() => (this.apiVersion() ?? 0) > API_VERSION);
  private readonly local = inject(LocalStore);
  private seq = 0;

  private ownId(): string {
    const id = sessionStorage.getItem('yp-device') ?? takeUp() ?? uuidv7();
    sessionStorage.setItem('yp-device', id);
    const here = () => remember(id, Date.now());
    here();
    setInterval(here, ALIVE_EVERY_MS);
    window.addEventListener('pagehide', () => remember(id, 0));
    window.addEventListener('pageshow', here);
    // held as long as this tab lives: another one sees by it that what is kept here is not left behind
    void navigator.locks?.request(tabLock(id), () => new Promise<void>(() => undefined)).catch(() => undefined);
    return id;
  }

  /** Asks the server who works here and where this device's count stands. */
  async connect(): Promise<Person> {
    const session = await this.greet();
    this.seq = session.lastDeviceSeq;
    this.persons.set(session.persons);
    this.firm.set(session.firm);
    this.admitted.set(session.admitted ?? null);
    const named = (id: string | null | undefined) => session.persons.find((p) => p.id === id);
    const person = named(localStorage.getItem('yp-person')) ?? named(session.admitted?.personId) ?? session.persons[0]!;
    this.person.set(person);
    return person;
  }

  /** The bench's own words; out of its reach, those it said last. */
  private async greet(): Promise<Session> {
    const asked = Date.now();
    try {
      const session = await this.api.session({ query: { deviceId: this.id } });
      // half of the way there and back is taken off, as network time does it
      if (session.at) this.clockOffsetMs = Date.parse(session.at) - (asked + Date.now()) / 2;
      this.apiVersion.set(session.apiVersion);
      void this.local.keepSession(session).catch(() => undefined);
      return session;
    } catch (error) {
      const kept = error instanceof ApiProblem && error.code === 'offline' ? await this.local.session().catch(() => undefined) : undefined;
      if (!kept) throw error;
      return kept;
    }
  }

  choose(person: Person): void {
    localStorage.setItem('yp-person', person.id);
    this.person.set(person);
  }

  nextSeq(): number {
    return ++this.seq;
  }
  /** A number that was not used after all. */
  giveBackSeq(): void {
    this.seq--;
  }
}
