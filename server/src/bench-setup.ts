import { v7 as uuidv7 } from 'uuid';
import {
  defaultAllowances,
  defaultBlades,
  defaultLeftoverRule,
  defaultRates,
  type Film,
  type Firm,
  type JobFile,
  type LayEntry,
  type Patch,
  type Person,
  type Rates,
} from '@yellow-pane/contracts';
import {
  demoFirm,
  demoId,
  demoLibrary,
  demoPersons,
  demoRates,
  demoScratchSvg,
  demoSignature,
  lanternStreet,
  launchAndShuttle,
  ternAnnex,
  ternInterior,
  ternPoint,
} from '@yellow-pane/demo';
import { sealPanes } from '@yellow-pane/core';
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

/** A new data folder gets a firm and a person; the demo gets its made-up ones and their jobs. Does nothing twice. */
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
    await app.jobs.import(ternInterior(), who);
    await handOverInDemo(app, ternAnnex(new Date().toISOString()), who);
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

/** The annex, whose parcel store the customer has taken over: its seal is made over the record as it came in. */
async function handOverInDemo(app: App, annex: JobFile, who: { personId: string; deviceId: string }): Promise<void> {
  const { jobId } = await app.jobs.import(annex, who);
  await photographScratch(app, jobId, who);
  const doc = await app.jobs.openWithMemo(jobId);
  const store = doc.places.find((p) => p.name === 'Parcel store')!;
  const ids = doc.surfaces.filter((s) => s.placeId === store.id).map((s) => s.id);
  const last = doc.layEntries.reduce((a, b) => (a.occurredAt > b.occurredAt ? a : b));
  const entry: LayEntry = {
    ...last, id: demoId(12_900), surfaceId: null, kind: 'accepted', text: 'Parcel store only; the hall when it is clear', look: undefined, pin: undefined, news: undefined,
    salt: '5ea1'.repeat(8), signature: { name: 'Maren Tide', strokes: demoSignature }, acceptance: sealPanes(ids, doc),
  }; // prettier-ignore
  await app.jobs.change(jobId, who, 'Taken over: 2 panes', [{ op: 'add', kind: 'layEntry', id: entry.id, value: { ...entry } }]);
}

/** The scratch in B4 as it was before the work, drawn: photographed, and signed by the customer. Where no photos are kept, there is none. */
async function photographScratch(app: App, jobId: string, who: { personId: string; deviceId: string }): Promise<void> {
  const { default: sharp } = await import('sharp');
  const picture = await sharp(Buffer.from(demoScratchSvg)).png().toBuffer();
  const photo = await app.photos.add(picture).catch(() => null);
  if (!photo) return;
  const doc = await app.jobs.open(jobId);
  const seen = doc.layEntries.find((e) => e.problem?.kind === 'glass-scratch')!;
  const line = (n: number, minutes: number, more: Partial<LayEntry>): LayEntry => ({
    ...seen, id: demoId(12_910 + n), problem: null, occurredAt: new Date(Date.parse(seen.occurredAt) + minutes * 60_000).toISOString(), salt: '5ea1'.repeat(8), ...more,
  }); // prettier-ignore
  const lines = [
    line(0, -2, { kind: 'photo', stepKey: 'before', text: 'B4: scratch, lower right, before the work', photo: photo.photo }),
    line(1, 3, { kind: 'signed', surfaceId: null, signature: { name: 'Maren Tide', strokes: demoSignature } }),
  ];
  await app.jobs.change(jobId, who, 'Before the work', lines.map((e) => ({ op: 'add' as const, kind: 'layEntry' as const, id: e.id, value: { ...e } }))); // prettier-ignore
}

/** A bench from before there were rates gets the first version. */
async function addMissingRates(app: App, firm: Firm): Promise<void> {
  const [person] = await app.records.all('person');
  if (!person || (await app.records.all('rates')).length > 0) return;
  await app.jobs.change(firm.id, { personId: person.id, deviceId: uuidv7() }, 'First rates', [add('rates', firstRates(firm))]);
}
