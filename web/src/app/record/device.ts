import { inject, Injectable, signal } from '@angular/core';
import type { Firm, Person } from '@yellow-pane/contracts';
import { v7 as uuidv7 } from 'uuid';
import { Api } from './api';

/** Who is at the bench, on which device. Each browser tab is a device of its own, so that its changes count without a gap. */
@Injectable({ providedIn: 'root' })
export class Device {
  private readonly api = inject(Api);
  readonly id = this.ownId();
  readonly persons = signal<readonly Person[]>([]);
  readonly person = signal<Person | null>(null);
  readonly firm = signal<Firm | null>(null);
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
    const session = await this.api.session(this.id);
    this.seq = session.lastDeviceSeq;
    this.persons.set(session.persons);
    this.firm.set(session.firm);
    const kept = localStorage.getItem('yp-person');
    const person = session.persons.find((p) => p.id === kept) ?? session.persons[0]!;
    this.person.set(person);
    return person;
  }

  choose(person: Person): void {
    localStorage.setItem('yp-person', person.id);
    this.person.set(person);
  }

  nextSeq(): number {
    return ++this.seq;
  }
}
