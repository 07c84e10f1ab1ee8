import type { JobFile } from '@yellow-pane/contracts';
import { demoFilms } from './films.js';
import { ternGlass } from './glass.js';
import { demoJob } from './firm.js';
import { eight, JobWriter, two } from './job-writer.js';

/** A small job in inches: a made-up bakery with a shop front and an old back door. */
export function lanternStreet(): JobFile {
  const job = demoJob(101, {
    name: 'Lantern Street bakery',
    customer: 'Lantern Street Bakery',
    address: 'Lantern Street 14, Tern Point',
    units: 'in',
    dueOn: '2026-12-09',
    method: 'overhang',
  });
  const w = new JobWriter(job, 5000);
  const front = w.place('Shop front');
  const shade = { filmId: demoFilms.shade.id, ...ternGlass.shopFront } as const;
  w.pane(front, 'F1', two('35 5/8"', '58 1/4"'), shade);
  w.pane(front, 'F2', two('35 9/16"', '58 1/4"'), shade);
  w.pane(front, 'Transom', two('72 3/8"', '14 1/8"'), shade);
  const back = w.place('Back door');
  w.pane(back, 'B1', eight('18 1/2"', '18 7/16"', '18 1/2"', '24"', '24"', '24"', '30 5/16"', '30 5/16"'), { filmId: demoFilms.frost.id, calledCrooked: true });
  return w.file();
}
