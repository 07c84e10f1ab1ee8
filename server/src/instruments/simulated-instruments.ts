import type { InstrumentAct, InstrumentKind, InstrumentReading, InstrumentStatus } from '@yellow-pane/contracts';
import { followAir, followHeat, normal, seededRandom, shareOnStrip, shootLaser, shownAir, shownC, usualLaser, type AirReading } from '@yellow-pane/core';
import { Refusal } from '../problem.js';
import type { InstrumentBench } from './instrument-bench.js';

const names: Record<InstrumentKind, string> = {
  laser: 'Laser meter (simulated)',
  thermometer: 'Infrared thermometer (simulated)',
  hygrometer: 'Thermo-hygrometer (simulated)',
};
/** Battery that a reading takes, %. @source house figure */
const DRAIN_PCT = 0.2;
/** Under this the light of the laser is weak and its noise three times as large. @source house figure */
const WEAK_PCT = 10;
/** Noise of the thermometer, 1 σ, and how far it wanders as its sensor warms in the hand, at most. @source common practice: ±1.5 °C as two standard deviations */
const THERMOMETER = { noiseC: 0.5, driftC: 0.8, driftReadings: 20 };

/** What can be done to a stand-in. */
const steered = { drop: { isConnected: false }, drain: { batteryPct: 6 }, mend: { isConnected: true, batteryPct: 100 } } as const;

interface Device {
  status: InstrumentStatus;
  readingCount: number;
}

/** Stand-ins for a laser meter, a thermometer and a hygrometer: noise, drift, lag, a connection that drops and a battery that runs down. */
export class SimulatedInstruments implements InstrumentBench {
  private readonly random = seededRandom(20261124);
  private readonly ears = new Set<(status: InstrumentStatus) => void>();
  private readonly devices: Record<InstrumentKind, Device>;
  private heatC: number | null = null;
  private air: { sensor: AirReading; atMs: number } | null = null;

  constructor(private readonly now: () => Date) {
    const device = (kind: InstrumentKind): Device => ({
      status: { kind, name: names[kind], isSimulated: true, isConnected: true, batteryPct: 82, last: null },
      readingCount: 0,
    });
    this.devices = { laser: device('laser'), thermometer: device('thermometer'), hygrometer: device('hygrometer') };
  }

  statuses(): InstrumentStatus[] {
    return Object.values(this.devices).map((d) => d.status);
  }
  listen(hear: (status: InstrumentStatus) => void): () => void {
    this.ears.add(hear);
    return () => void this.ears.delete(hear);
  }

  act(act: InstrumentAct): InstrumentStatus {
    const device = this.devices[act.kind];
    if (act.act !== 'shoot') return this.tell(device, steered[act.act]);
    if (!device.status.isConnected)
      throw new Refusal(
        'instrument-away',
        `The ${act.kind === 'laser' ? 'laser meter' : act.kind} does not answer. Switch it on and hold it near, or type what you read.`,
      );
    const batteryPct = Math.max(0, device.status.batteryPct - DRAIN_PCT);
    device.readingCount++;
    const last = this.read(act, device);
    return this.tell(device, { last, batteryPct, isConnected: batteryPct > 0 });
  }

  private read(act: Extract<InstrumentAct, { act: 'shoot' }>, device: Device): InstrumentReading {
    const sent = { seq: device.readingCount, at: this.now().toISOString(), deviceId: act.deviceId };
    switch (act.kind) {
      case 'laser': {
        const isWeak = device.status.batteryPct < WEAK_PCT;
        return { kind: 'laser', ...sent, lengthMm: shootLaser(act.trueMm, this.random, { ...usualLaser, noiseMm: usualLaser.noiseMm * (isWeak ? 3 : 1) }) };
      }
      case 'thermometer': {
        const drift = THERMOMETER.driftC * (1 - Math.exp(-device.readingCount / THERMOMETER.driftReadings));
        const onTargetFrac = shareOnStrip(act.distanceMm, act.targetMm);
        const seen = shownC(
          { surfaceC: act.surfaceC, emissivityFrac: act.trueEmissivityFrac, surroundingsC: act.surroundingsC, onTargetFrac },
          act.setEmissivityFrac,
        );
        // it comes from what it saw last
        this.heatC = followHeat(this.heatC ?? seen, seen, act.heldS);
        const surfaceC = Math.round((this.heatC + drift + THERMOMETER.noiseC * normal(this.random)) * 10) / 10;
        return { kind: 'thermometer', ...sent, surfaceC, emissivityFrac: act.setEmissivityFrac };
      }
      case 'hygrometer': {
        const nowMs = this.now().getTime();
        const air = { airC: act.airC, humidityPct: act.humidityPct };
        // out of the van, it has been in this air since the last reading
        const sensor = this.air ? followAir(this.air.sensor, air, (nowMs - this.air.atMs) / 1000) : air;
        this.air = { sensor, atMs: nowMs };
        return { kind: 'hygrometer', ...sent, ...shownAir(sensor, this.random) };
      }
    }
  }

  private tell(device: Device, part: Partial<InstrumentStatus>): InstrumentStatus {
    device.status = { ...device.status, ...part };
    for (const hear of this.ears) hear(device.status);
    return device.status;
  }
}
