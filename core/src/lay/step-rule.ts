import type { StepRule, StepWhen } from '@yellow-pane/contracts';

const anywhere: StepWhen = { film: [], frame: [], method: [], liner: [], lock: [], trim: [], silicone: [], stops: [], edge: [], glass: [], care: [] };
type Short = Partial<Omit<StepRule, 'key' | 'title' | 'text' | 'when' | 'minutes'>> & {
  readonly when?: Partial<StepWhen>;
  /** Fixed, per m², per m of edge. */
  readonly minutes: readonly [number, number, number];
};
/** A step as it ships: what is not said is nothing. */
export const step = (key: string, title: string, text: string, more: Short): StepRule => ({
  key,
  title,
  text,
  purpose: more.purpose ?? '',
  good: more.good ?? '',
  tools: more.tools ?? [],
  minutes: { fixed: more.minutes[0], perM2: more.minutes[1], perM: more.minutes[2] },
  wait: more.wait ?? null,
  returnAfterMinutes: more.returnAfterMinutes ?? null,
  reading: more.reading ?? 'none',
  drawing: more.drawing ?? 'none',
  mood: more.mood ?? 'wet',
  caution: more.caution ?? null,
  when: { ...anywhere, ...more.when },
});

/** Whether a step makes the ground ready: what one waits for after it is over when film lies there. */
export const isOfGround = (step: Pick<StepRule, 'key'>): boolean => step.key.startsWith('ground-');
