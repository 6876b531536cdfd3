import type { CallQueueFigures } from '@/contract/call-load';
import type { QueueLaw } from '@/core/load/staffing';
import type { Strategy } from '@/core/load/queue-spec';

/* What a staffing is asked with: measured figures, and those that somebody typed instead. */

export const QUARTERS_A_DAY = 96;
export const HOURS_A_DAY = 24;

/** As typed; an empty figure stands for what was measured or what the queue says. */
export interface StaffingTyped {
  source: 'records' | 'typed';
  weekday: number;
  growth: string;
  /** calls an hour, hour by hour */
  hours: string[];
  mean: string;
  cv: string;
  patience: string;
  wrapUp: string;
  answer: string;
  share: string;
  within: string;
  shiftHours: string;
}

export const NOTHING_TYPED: StaffingTyped = {
  source: 'records',
  weekday: 0,
  growth: '',
  hours: new Array<string>(HOURS_A_DAY).fill(''),
  mean: '',
  cv: '',
  patience: '',
  wrapUp: '',
  answer: '',
  share: '',
  within: '',
  shiftHours: '',
};

/** The fields of the queue that the simulation takes. */
export interface QueueSaid {
  strategy: Strategy;
  wrapUpSeconds: number;
  longestWaitSeconds: number | null;
  mostWaiting: number | null;
  /** further levels with agents */
  levels: { agents: number; afterSeconds: number }[];
}

/** What holds where nothing is typed, figures as they stand in their boxes. */
export function standsFor(figures: CallQueueFigures | null, queue: QueueSaid) {
  const round = (n: number) => String(Math.round(n * 100) / 100);
  return {
    growth: '100',
    mean: figures?.handling ? String(Math.round(figures.handling.mean)) : '180',
    cv: figures?.handling ? round(figures.handling.cv) : '1',
    patience: figures?.patience ? String(Math.round(figures.patience.mean)) : '0',
    wrapUp: String(queue.wrapUpSeconds),
    answer: '5',
    share: '80',
    within: '20',
    shiftHours: '8',
  };
}

/** Bounds of each figure, both included. */
const BOUNDS: Record<keyof ReturnType<typeof standsFor>, [number, number]> = {
  growth: [1, 1000],
  mean: [1, 36_000],
  cv: [0, 10],
  patience: [0, 36_000],
  wrapUp: [0, 3600],
  answer: [0, 180],
  share: [1, 99.9],
  within: [0, 3600],
  shiftHours: [0.25, 24],
};

const MOST_AN_HOUR = 10_000;

export interface StaffingAsked {
  law: QueueLaw;
  /** calls an hour by quarter hour of the day */
  arrivals: number[];
  share: number;
  shiftQuarters: number;
}

/** What was typed as figures, or which field is wrong and what would be right. */
export function readTyped(
  typed: StaffingTyped,
  figures: CallQueueFigures | null,
  queue: QueueSaid,
): { ok: true; asked: StaffingAsked } | { ok: false; wrong: Partial<Record<string, string>> } {
  const stands = standsFor(figures, queue);
  const wrong: Partial<Record<string, string>> = {};
  const figure = (field: keyof typeof stands): number => {
    const text = typed[field] === '' ? stands[field] : typed[field];
    const [least, most] = BOUNDS[field];
    const value = /^[0-9]+([.,][0-9]+)?$/.test(text) ? Number(text.replace(',', '.')) : NaN;
    if (!(value >= least && value <= most)) wrong[field] = `takes a figure from ${least} to ${most}`;
    return value;
  };
  const all = Object.fromEntries((Object.keys(stands) as (keyof typeof stands)[]).map((f) => [f, figure(f)])) as Record<
    keyof typeof stands,
    number
  >;
  const arrivals = Array.from({ length: QUARTERS_A_DAY }, (_, q) => {
    if (typed.source === 'records')
      return (figures?.arrivals[typed.weekday * QUARTERS_A_DAY + q] ?? 0) * 4 * (all.growth / 100);
    const hour = Math.floor(q / 4);
    const text = typed.hours[hour] ?? '';
    const value = text === '' ? 0 : /^[0-9]+([.,][0-9]+)?$/.test(text) ? Number(text.replace(',', '.')) : NaN;
    if (!(value <= MOST_AN_HOUR)) wrong[`hour ${hour}`] = `takes calls an hour from 0 to ${MOST_AN_HOUR}`;
    return value;
  });
  if (Object.keys(wrong).length > 0) return { ok: false, wrong };
  // What is typed over the measured spread is taken as lognormal: the exponential law has no other spread than its mean.
  const law = typed.cv === '' && figures?.handling?.law === 'exponential' ? 'exponential' : 'lognormal';
  return {
    ok: true,
    asked: {
      arrivals,
      share: all.share / 100,
      shiftQuarters: Math.max(1, Math.round(all.shiftHours * 4)),
      law: {
        seed: 1,
        replications: 20,
        hours: 20,
        handleSeconds: { mean: all.mean, cv: law === 'exponential' ? 1 : all.cv, law },
        patienceSeconds: all.patience > 0 ? { mean: all.patience } : null,
        wrapUpSeconds: all.wrapUp,
        strategy: queue.strategy,
        withinSeconds: all.within,
        levels: queue.levels,
        mostWaiting: queue.mostWaiting,
        longestWaitSeconds: queue.longestWaitSeconds,
        answerSeconds: all.answer,
      },
    },
  };
}
