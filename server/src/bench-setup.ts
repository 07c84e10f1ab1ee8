import { v7 as uuidv7 } from 'uuid';
import {
  defaultAllowances,
  defaultBlades,
  defaultLeftoverRule,
  defaultRates,
  type Film,
  type Firm,
  type Patch,
  type Person,
  type Rates,
} from '@yellow-pane/contracts';
import { demoFirm, demoId, demoLibrary, demoPersons, demoRates, lanternStreet, launchAndShuttle, ternPoint } from '@yellow-pane/demo';
import type { App } from './app.js';

/** The bench itself as a device, for what the server does on its own. */
const setupDevice = demoId(9);

const add = (kind: Patch['kind'], record: Firm | Person | Film | Rates): Patch => ({ op: 'add', kind, id: record.id, value: record });

const firstRates = (firm: Firm): Rates => ({
  ...defaultRates,
  id: uuidv7(),
  firmId: firm.id,
  version: 1,
  hourRate: firm.hourRate,
  createdAt: new Date().toISOString(),
});

/** A new data folder gets a firm and a person; the demo gets its made-up ones and their two jobs. Does nothing twice. */
export async function setUpBench(app: App, seed: 'none' | 'demo'): Promise<void> {
  const [there] = await app.records.all('firm');
  if (there) return addMissingRates(app, there);
  if (seed === 'demo') {
    await app.changes.apply({
      id: demoId(8),
      jobId: demoFirm.id,
      personId: demoPersons[0]!.id,
      deviceId: setupDevice,
      deviceSeq: 1,
      baseRevision: 0,
      label: 'Set up the bench',
      patches: [add('firm', demoFirm), ...demoPersons.map((p) => add('person', p)), add('rates', demoRates), ...demoLibrary.map((f) => add('film', f))],
    });
    const who = { personId: demoPersons[0]!.id, deviceId: setupDevice };
    await app.jobs.import(ternPoint(), who);
    await app.jobs.import(lanternStreet(), who);
    await app.jobs.import(launchAndShuttle(), who);
    return;
  }
  const firm: Firm = {
    id: uuidv7(),
    name: 'My firm',
    currency: 'EUR',
    units: 'mm',
    hourRate: '45.00',
    allowances: defaultAllowances,
    leftovers: defaultLeftoverRule,
    blades: defaultBlades,
    forming: null,
  };
  const person: Person = { id: uuidv7(), firmId: firm.id, name: 'Me', role: 'installer' };
  await app.changes.apply({
    id: uuidv7(),
    jobId: firm.id,
    personId: person.id,
    deviceId: uuidv7(),
    deviceSeq: 1,
    baseRevision: 0,
    label: 'Set up the bench',
    patches: [add('firm', firm), add('person', person), add('rates', firstRates(firm))],
  });
}

/** A bench from before there were rates gets the first version. */
async function addMissingRates(app: App, firm: Firm): Promise<void> {
  const [person] = await app.records.all('person');
  if (!person || (await app.records.all('rates')).length > 0) return;
  await app.jobs.change(firm.id, { personId: person.id, deviceId: uuidv7() }, 'First rates', [add('rates', firstRates(firm))]);
}
