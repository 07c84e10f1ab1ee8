import * as z from 'zod';
import { id, instant } from '../quantities.js';

export const instrumentKind = z.enum(['laser', 'thermometer', 'hygrometer']);
export type InstrumentKind = z.infer<typeof instrumentKind>;

const sent = {
  /** Counts up by instrument, so that no reading is taken twice. */
  seq: z.int(),
  at: instant,
  /** The device that asked for it: only there does it go into a field. Null: the instrument’s own button. */
  deviceId: id.nullable(),
};
/** One reading as an instrument sends it. */
export const instrumentReading = z.discriminatedUnion('kind', [
  z.object({ kind: z.literal('laser'), ...sent, lengthMm: z.number() }),
  z.object({ kind: z.literal('thermometer'), ...sent, surfaceC: z.number(), emissivityFrac: z.number() }),
  z.object({ kind: z.literal('hygrometer'), ...sent, airC: z.number(), humidityPct: z.number() }),
]);
export type InstrumentReading = z.infer<typeof instrumentReading>;

/** What the bench knows of an instrument. */
export const instrumentStatus = z.object({
  kind: instrumentKind,
  name: z.string(),
  isSimulated: z.boolean(),
  isConnected: z.boolean(),
  batteryPct: z.number().min(0).max(100),
  last: instrumentReading.nullable(),
});
export type InstrumentStatus = z.infer<typeof instrumentStatus>;

const asked = { act: z.literal('shoot'), deviceId: id.nullable().default(null) };
/** Takes a reading; at the simulated instrument, with what it would see. Or: cuts the connection, lets the battery run down, puts both right. */
export const instrumentAct = z.union([
  z.object({ ...asked, kind: z.literal('laser'), trueMm: z.number().min(50).max(40_000).meta({ unit: 'mm' }) }),
  z.object({
    ...asked,
    kind: z.literal('thermometer'),
    surfaceC: z.number().min(-40).max(300).meta({ unit: '°C' }),
    trueEmissivityFrac: z.number().min(0.02).max(1),
    setEmissivityFrac: z.number().min(0.1).max(1),
    surroundingsC: z.number().min(-60).max(100).meta({ unit: '°C' }),
    /** From how far, how wide what it looks at is, and for how long it is held there. */
    distanceMm: z.number().min(5).max(5000).default(100).meta({ unit: 'mm' }),
    targetMm: z.number().min(1).max(10_000).default(1000).meta({ unit: 'mm' }),
    heldS: z.number().min(0).max(60).default(3).meta({ unit: 's' }),
  }),
  z.object({ ...asked, kind: z.literal('hygrometer'), airC: z.number().min(-25).max(55), humidityPct: z.number().min(1).max(100) }),
  z.object({ act: z.enum(['drop', 'drain', 'mend']), kind: instrumentKind }),
]);
export type InstrumentAct = z.infer<typeof instrumentAct>;
