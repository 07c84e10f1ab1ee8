import * as z from 'zod';
import { words } from '../quantities.js';

/** Minutes from the midnight at which the plan begins: two months at most. */
const minuteOfPlan = z.int().min(0).max(90_000).meta({ unit: 'min' });
const waitMin = z.int().min(0).max(20_000).meta({ unit: 'min' });
/** What task, person, place and thing are told apart by within one plan. */
const key = words(80).min(1);
const span = z.object({ fromMin: minuteOfPlan, toMin: minuteOfPlan });
const spans = z.array(span).max(200);

/** A plan of days by figures alone: work, people, places, what is shared, waits between. */
export const daysPlanInput = z.object({
  /** The first day: minutes count from its midnight at the site. */
  from: z.iso.date(),
  tasks: z
    .array(
      z.object({
        id: key,
        name: words(120).default(''),
        minutes: z.int().min(1).max(1440).meta({ unit: 'min' }),
        /** Hands; the first of them must be able to do `lead`. */
        people: z.int().min(1).max(6).default(1),
        lead: key.nullable().default(null),
        placeId: key,
        kit: z.array(key).max(10).default([]),
        /** Hours in which sun, glass and weather allow it; null: any. */
        goodHours: spans.nullable().default(null),
        /** What it follows, and how long after: at least, and where it would be too late, at most. */
        after: z
          .array(z.object({ taskId: key, leastMin: waitMin.default(0), mostMin: waitMin.nullable().default(null), what: words(80).default('') }))
          .max(40)
          .default([]),
        dueMin: minuteOfPlan.nullable().default(null),
        /** Somebody put it there. */
        fixed: z
          .object({ startMin: minuteOfPlan, people: z.array(key).min(1).max(6) })
          .nullable()
          .default(null),
      }),
    )
    .min(1)
    .max(900),
  people: z.array(z.object({ id: key, name: words(80).default(''), can: z.array(key).max(20).default([]), hours: spans })).max(12),
  kit: z.array(z.object({ id: key, name: words(80).default(''), count: z.int().min(0).max(20) })).max(20).default([]), // prettier-ignore
  places: z.array(z.object({ id: key, name: words(80).default(''), site: key, open: spans.nullable().default(null) })).min(1).max(200), // prettier-ignore
  /** Between places of one site, and between sites. */
  walkMin: waitMin.default(0),
  travelMin: waitMin.default(0),
  seed: z.int().min(0).max(4_294_967_295).default(1),
  /** Steps of improvement. */
  steps: z.int().min(0).max(2000).default(200),
});
export type DaysPlanInput = z.output<typeof daysPlanInput>;

export const daysPlanResult = z.object({
  /** Why nothing is planned; null: it is. */
  doubt: z.string().nullable(),
  placed: z.array(
    z.object({
      taskId: z.string(),
      startMin: z.int(),
      endMin: z.int(),
      people: z.array(z.string()),
      /** When and by whom, and why not earlier. */
      text: z.string(),
      why: z.array(z.string()),
    }),
  ),
  /** What found no time, and what of its wishes cannot hold together. */
  left: z.array(z.object({ taskId: z.string(), text: z.string() })),
  /** What ends after it is due. */
  late: z.array(z.object({ taskId: z.string(), byMin: z.int(), text: z.string() })),
  endMin: z.int(),
  days: z.int(),
  wayMin: z.int(),
  idleMin: z.int(),
  /** Before this nobody ends, whoever plans it; null: some of it can be done at no time. */
  bound: z.object({ /** Null: there is more work than hours. */ endMin: z.int().nullable(), text: z.string() }).nullable(),
});
export type DaysPlanResult = z.output<typeof daysPlanResult>;
