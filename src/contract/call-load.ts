import { z } from 'zod';

/* What calls say of load: traffic of lines, and when the calls of a queue come and how long they take. */

const busyHour = z.strictObject({ from: z.string(), erlangs: z.number() });

export const traffic = z.strictObject({
  /** whether no call is left out that its reader may not see */
  whole: z.boolean(),
  calls: z.number(),
  refused: z.number(),
  erlangHours: z.number(),
  peak: z.strictObject({ calls: z.number(), at: z.string() }).nullable(),
  busyHour: busyHour.nullable(),
  /** the busy hour over the trunks of each site that had calls, over the days of all of them */
  siteBusyHours: z.array(busyHour.extend({ site: z.string() })),
  busiest: z.strictObject({ at: z.string(), erlangs: z.number() }).nullable(),
  week: z.array(z.number()).length(672),
  /** calls that begin in each quarter hour of the mean week */
  arrivals: z.array(z.number()).length(672),
  zone: z.string(),
  from: z.string(),
  to: z.string(),
  /** of a trunk: its channels, and how many would lose one call of a hundred in the busy hour (Erlang B) */
  channels: z.number().nullable(),
  needed: z.strictObject({ channels: z.number(), blocking: z.number() }).nullable(),
  blocking: z.number().nullable(),
});
export type CallTraffic = z.output<typeof traffic>;

export const queueFigures = z.strictObject({
  calls: z.number(),
  answered: z.number(),
  gaveUp: z.number(),
  meanWaitSeconds: z.number().nullable(),
  /** calls that begin in each quarter hour of the mean week */
  arrivals: z.array(z.number()).length(672),
  /** seconds; the law that is nearer, and its largest distance from what was measured (Kolmogorov and Smirnov) */
  handling: z
    .strictObject({
      count: z.number(),
      mean: z.number(),
      cv: z.number(),
      law: z.enum(['lognormal', 'exponential']),
      distance: z.number(),
    })
    .nullable(),
  handlingBars: z.strictObject({ width: z.number(), counts: z.array(z.number()) }),
  patience: z.strictObject({ mean: z.number(), gaveUp: z.number() }).nullable(),
  zone: z.string(),
  from: z.string(),
  to: z.string(),
});
export type CallQueueFigures = z.output<typeof queueFigures>;
