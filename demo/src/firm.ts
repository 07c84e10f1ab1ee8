import {
  defaultRates,
  defaultAllowances,
  defaultChooseSettings,
  defaultCutSettings,
  type Firm,
  type Job,
  type Person,
  type Rates,
  type Roll,
} from '@yellow-pane/contracts';
import { demoFilms } from './films.js';
import { demoAt, demoId } from './ids.js';

/** A made-up firm of two and a half people. */
export const demoFirm: Firm = { id: demoId(1), name: 'Saltmarsh Film & Glass', currency: 'EUR', units: 'mm', hourRate: '48.00', allowances: defaultAllowances };

export const demoPersons: Person[] = [
  { id: demoId(2), firmId: demoFirm.id, name: 'Ines', role: 'installer' },
  { id: demoId(3), firmId: demoFirm.id, name: 'Okan', role: 'installer' },
];

/** The demo firm's own rates. */
export const demoRates: Rates = { id: demoId(5), firmId: demoFirm.id, version: 1, createdAt: demoAt(0), ...defaultRates, hourRate: '48.00', taxPct: 21 };

const roll = (n: number, r: Omit<Roll, 'id' | 'deletedAt' | 'isToOrder'>): Roll => ({ id: demoId(n), isToOrder: false, deletedAt: null, ...r });

/** Three rolls: one for each film. */
export const demoRolls: Roll[] = [
  roll(20, { filmId: demoFilms.shade.id, label: 'S-114', lot: 'L2608-A', widthMm: 1524, lengthM: 30.5, leadInMm: 150, pricePerM: '13.60' }),
  roll(21, { filmId: demoFilms.guard.id, label: 'B-031', lot: 'L2511-C', widthMm: 1829, lengthM: 18.2, leadInMm: 200, pricePerM: '31.50' }),
  roll(22, { filmId: demoFilms.frost.id, label: 'F-207', lot: 'L2607-B', widthMm: 1220, lengthM: 22.4, leadInMm: 100, pricePerM: '15.20' }),
];

export const demoJob = (n: number, j: Pick<Job, 'name' | 'customer' | 'address' | 'units' | 'dueOn' | 'method'>): Job => ({
  id: demoId(n),
  firmId: demoFirm.id,
  zone: 'Europe/Lisbon',
  latDeg: 38.6,
  lonDeg: -9.1,
  currency: 'EUR',
  allowances: null,
  cut: defaultCutSettings,
  choose: defaultChooseSettings,
  reachMm: 2100,
  createdAt: demoAt(0),
  deletedAt: null,
  ...j,
});
