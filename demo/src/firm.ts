import {
  defaultRates,
  defaultAllowances,
  defaultBlades,
  defaultChooseSettings,
  defaultCutSettings,
  defaultLeftoverRule,
  defaultPrepareSettings,
  newRoll,
  type Film,
  type Firm,
  type Job,
  type Person,
  type Rates,
  type Roll,
} from '@yellow-pane/contracts';
import { demoFilms, vehicleFilm } from './films.js';
import { demoAt, demoId } from './ids.js';

/** A made-up firm of two and a half people. */
export const demoFirm: Firm = {
  id: demoId(1),
  name: 'Saltmarsh Film & Glass',
  currency: 'EUR',
  units: 'mm',
  hourRate: '48.00',
  allowances: defaultAllowances,
  leftovers: defaultLeftoverRule,
  blades: defaultBlades,
  forming: null,
};

export const demoPersons: Person[] = [
  { id: demoId(2), firmId: demoFirm.id, name: 'Ines', role: 'installer' },
  { id: demoId(3), firmId: demoFirm.id, name: 'Okan', role: 'installer' },
];

/** The demo firm's own rates. */
export const demoRates: Rates = { id: demoId(5), firmId: demoFirm.id, version: 1, createdAt: demoAt(0), ...defaultRates, hourRate: '48.00', taxPct: 21 };

type OwnRoll = Pick<Roll, 'filmId' | 'label' | 'lot' | 'widthMm' | 'lengthM' | 'pricePerM'> & Partial<Roll>;
const roll = (n: number, r: OwnRoll): Roll => newRoll({ place: 'Van, upright rack', ...r, id: demoId(n) });
/** A sheet kept from an earlier job: counts for two fifths of new film. */
const leftover = (n: number, film: Film, label: string, lot: string, acrossMm: number, alongMm: number, edges: Roll['edges'], pricePerM2: number): Roll =>
  roll(n, {
    filmId: film.id,
    label,
    lot,
    widthMm: acrossMm,
    lengthM: alongMm / 1000,
    pricePerM: ((pricePerM2 * acrossMm * 0.4) / 1000).toFixed(4),
    form: 'leftover',
    place: 'Van, leftover tube',
    edges,
  });

/** Part-used rolls and a tube of leftovers. */
export const demoRolls: Roll[] = [
  roll(20, { filmId: demoFilms.shade.id, label: 'S-114', lot: 'L2608-A', widthMm: 1524, lengthM: 21.8, leadInMm: 150, pricePerM: '13.60' }),
  roll(21, { filmId: demoFilms.guard.id, label: 'B-031', lot: 'L2511-C', widthMm: 1829, lengthM: 18.2, leadInMm: 200, pricePerM: '31.50' }),
  roll(22, { filmId: demoFilms.frost.id, label: 'F-207', lot: 'L2607-B', widthMm: 1220, lengthM: 22.4, leadInMm: 100, pricePerM: '15.20' }),
  roll(23, { filmId: demoFilms.shade.id, label: 'S-108', lot: 'L2606-D', widthMm: 1524, lengthM: 12.4, leadInMm: 80, pricePerM: '13.60' }),
  roll(24, {
    filmId: demoFilms.shade.id,
    label: 'S-091',
    lot: 'L2602-B',
    widthMm: 1220,
    lengthM: 7.97,
    lengthSigmaM: 0.42,
    lengthFrom: { how: 'diameter', outsideMm: 100, coreMm: 88.9, thicknessUm: 210 },
    pricePerM: '10.90',
    place: 'Shop, shelf 2',
  }),
  roll(25, { filmId: demoFilms.reed.id, label: 'R-012', lot: 'L2605-A', widthMm: 1524, lengthM: 9.5, leadInMm: 60, pricePerM: '30.00' }),
  roll(26, { filmId: demoFilms.clear.id, label: 'C-055', lot: 'L2609-A', widthMm: 1524, lengthM: 13.6, leadInMm: 120, pricePerM: '37.40' }),
  leftover(30, demoFilms.shade, 'S-102/1', 'L2606-D', 905, 1340, 'near', 8.9),
  leftover(31, demoFilms.shade, 'S-102/2', 'L2606-D', 722, 1480, 'far', 8.9),
  leftover(32, demoFilms.shade, 'S-097/1', 'L2602-B', 640, 960, 'none', 8.9),
  leftover(33, demoFilms.frost, 'F-199/1', 'L2601-C', 664, 760, 'near', 12.4),
  leftover(34, demoFilms.frost, 'F-199/2', 'L2601-C', 540, 1160, 'none', 12.4),
];

/** The roll for the van and the launch. */
export const vehicleRoll: Roll = roll(27, {
  filmId: vehicleFilm.id,
  label: 'E-016',
  lot: 'L2607-E',
  widthMm: 1524,
  lengthM: 9.2,
  leadInMm: 90,
  pricePerM: '7.80',
});

export const demoJob = (n: number, j: Pick<Job, 'name' | 'customer' | 'address' | 'units' | 'dueOn' | 'method'> & Partial<Pick<Job, 'cut'>>): Job => ({
  id: demoId(n),
  firmId: demoFirm.id,
  zone: 'Europe/Lisbon',
  latDeg: 38.6,
  lonDeg: -9.1,
  currency: 'EUR',
  allowances: null,
  dry: null,
  cut: defaultCutSettings,
  choose: defaultChooseSettings,
  prepare: { ...defaultPrepareSettings, sky: 'clear', madeUpWeather: true },
  lay: null,
  reachMm: 2100,
  createdAt: demoAt(0),
  deletedAt: null,
  ...j,
});
