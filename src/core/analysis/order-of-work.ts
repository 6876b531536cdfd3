import { z } from 'zod';
import { compileDigitMap, examples } from '../digits';
import { causeInWords } from '../exchange';
import { showNumber } from '../numbers';
import { trace, type Call, type Exchange, type Trace } from '../routing';
import { OUTSIDE_CALLER } from './calls-around';

/** The steps by which a phone system is built, in their order. */
export const WORK_STEPS = [
  'site',
  'numbers',
  'people',
  'trunk',
  'inbound',
  'outbound',
  'hours',
  'answer',
  'check',
  'live',
] as const;
export type WorkStep = (typeof WORK_STEPS)[number];

export const workSchema = z.strictObject({
  step: z.enum(WORK_STEPS),
  done: z.boolean(),
  /** nothing is wrong without it */
  optional: z.boolean(),
  /** what is there */
  there: z.string(),
  /** the number that the step is about */
  number: z.string().nullable(),
  /** what a call would do now, with how to trace it */
  call: z.strictObject({ from: z.string(), dial: z.string(), sentence: z.string(), routed: z.boolean() }).nullable(),
});
export type Work = z.output<typeof workSchema>;

/** Dialled strings that are tried for one that gets out. */
const MOST_TRIED = 60;

const count = (n: number, one: string, many = `${one}s`) => `${n === 0 ? 'no' : n} ${n === 1 ? one : many}`;

/**
 * How far the building of a system has come: of each step what is there, and what a call that needs it would do at `at`
 * (milliseconds since 1970 UTC). `errors` are problems that stop going live, `live` the revision that is live, 0 for none.
 */
export function orderOfWork(exchange: Exchange, at: number, errors: number, live: number): Work[] {
  const { plan } = exchange;
  const active = plan.numbers.filter((n) => n.state === 'active');
  const main = active.find((n) => n.id === plan.sites[0]?.mainNumber) ?? active[0];
  const phones = plan.extensions.filter((e) => e.kind !== 'virtual');
  const [first, second] = phones;
  const asked = (from: string, dial: string, call: Call): NonNullable<Work['call']> => {
    const t = trace(exchange, call);
    return { from, dial, sentence: sentenceOf(exchange, t), routed: t.outcome === 'routed' };
  };
  const country = plan.sites[0]?.country ?? null;
  const inwards = main
    ? asked(`outside:${OUTSIDE_CALLER}`, main.e164, {
        from: { type: 'outside', calling: OUTSIDE_CALLER },
        dial: main.e164,
        enBloc: true,
        at,
      })
    : null;
  const fromFirst = (dial: string) =>
    asked(first!.digits, dial, { from: { type: 'extension', id: first!.id }, dial, enBloc: false, at });
  const site = plan.sites.find((s) => s.id === first?.site);
  const rung = plan.rungs.find((r) => r.ladder === site?.ladder);
  const map = rung && compileDigitMap(rung.map);
  // Most strings that a rule takes are nobody's number: one that gets out says more.
  const tried = first && map?.ok ? examples(map.compiled.automaton, 1, MOST_TRIED) : [];
  const ends = [
    count(plan.ringGroups.length, 'ring group'),
    count(plan.queues.length, 'queue'),
    count(plan.attendants.length, 'attendant'),
    count(plan.mailboxes.length, 'mailbox', 'mailboxes'),
  ];
  return [
    step(
      'site',
      plan.sites.length > 0,
      plan.sites
        .map((s) => s.name)
        .slice(0, 3)
        .join(', ') || 'no site',
    ),
    step(
      'numbers',
      main !== undefined,
      main ? `${count(active.length, 'number')}, the main one ${showNumber(main.e164, country)}` : 'no number',
    ),
    step(
      'people',
      phones.length > 0,
      `${count(plan.people.length, 'person', 'people')}, ${count(plan.extensions.length, 'extension')}`,
      {
        call: first && second ? fromFirst(second.digits) : null,
      },
    ),
    step(
      'trunk',
      plan.trunks.some((t) => t.enabled),
      plan.trunks
        .map((t) => t.name)
        .slice(0, 3)
        .join(', ') || 'no trunk: nothing comes in, and no emergency call gets out',
    ),
    step(
      'inbound',
      inwards?.routed ?? false,
      `${count(plan.inboundRoutes.length, 'inbound route')}, ${count(active.filter((n) => n.belongsTo !== null).length, 'number')} that ${active.filter((n) => n.belongsTo !== null).length === 1 ? 'has its own end' : 'have ends of their own'}`,
      { call: inwards, number: main?.id ?? null },
    ),
    step('outbound', plan.rungs.length > 0, count(plan.rungs.length, 'rule'), {
      call: firstOut(tried, fromFirst),
    }),
    step(
      'hours',
      plan.hours.length > 0,
      plan.hours.length > 0 ? count(plan.hours.length, 'set of hours', 'sets of hours') : 'none: every hour is alike',
      { optional: true },
    ),
    step(
      'answer',
      plan.ringGroups.length + plan.queues.length + plan.attendants.length + plan.mailboxes.length > 0,
      ends.filter((e) => !e.startsWith('no ')).join(', ') || 'nobody but the phones themselves',
      { optional: true },
    ),
    step('check', errors === 0, errors === 0 ? 'nothing stops going live' : `${count(errors, 'error')} to mend first`),
    step('live', live > 0, live > 0 ? `revision ${live} is live` : 'nothing is live yet'),
  ];
}

/** The first call that gets out, else the first that was tried. */
function firstOut(dials: readonly string[], ask: (dial: string) => NonNullable<Work['call']>): Work['call'] {
  let first: Work['call'] = null;
  for (const dial of dials) {
    const call = ask(dial);
    if (call.routed) return call;
    first ??= call;
  }
  return first;
}

const step = (name: WorkStep, done: boolean, there: string, more: Partial<Work> = {}): Work => ({
  step: name,
  done,
  optional: false,
  there,
  number: null,
  call: null,
  ...more,
});

/** What becomes of a call, in a few words. */
function sentenceOf(exchange: Exchange, t: Trace): string {
  if (t.outcome === 'routed')
    return t.trunk && t.digitsSent
      ? `leaves by ${exchange.trunks.get(t.trunk)!.name} as ${t.digitsSent}, shows ${t.shownNumber ?? 'no number'}`
      : `rings ${t.lands?.label ?? 'somebody'}`;
  return [t.steps.at(-1)?.sentence ?? t.outcome, t.cause ? causeInWords(t.cause) : ''].filter(Boolean).join(' ');
}
