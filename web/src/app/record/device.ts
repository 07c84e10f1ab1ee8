import { computed, inject, Injectable, signal } from '@angular/core';
import { API_VERSION, type AdmittedDevice, type Firm, type Person } from '@yellow-pane/contracts';
import { v7 as uuidv7 } from 'uuid';
import { Api, ApiProblem, type Session } from './api';
import { LocalStore } from './local-store';

/** Who is at the bench, on which device. Each browser tab is a device of its own, so that its changes count without a gap. */
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
    const kept = sessionStorage.getItem('yp-device');
    if (kept) return kept;
    const id = uuidv7();
    sessionStorage.setItem('yp-device', id);
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
      const session = await this.api.session(this.id);
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
}
