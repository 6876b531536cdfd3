import {
  endsOfNumber,
  callFromOutside,
  landingTimes,
  weekAround,
  type LandingTime,
  type SituationPiece,
  type WeekStretch,
} from '@/core/analysis';
import { showNumber, spacedNumber } from '@/core/numbers';
import {
  OBJECT_KINDS,
  labelOf,
  objectsOf,
  type AnyObject,
  type Extension,
  type LedgerKind,
  type Mailbox,
  type ObjectOf,
  type Person,
  type Plan,
  type PlanNumber,
} from '@/core/plan';
import { grouped } from '@/core/plan/grouped';
import { outcomeOf, type Exchange, type Situation, takenBy } from '@/core/routing';
import type { Both, HeldPlan } from './held';
import { keptFor } from './question';

/** How the rows of one kind are made, and what makes them fit a facet of the registry: a facet's id to a test. */
interface LedgerSource<T> {
  cells: (plan: Plan, exchange: () => Exchange) => (object: T) => Record<string, string>;
  facets: Record<string, (plan: Plan, id: string, both: Both) => (object: T, cells: Record<string, string>) => boolean>;
}

const names = (list: readonly { id: string; name: string }[]) => new Map(list.map((o) => [o.id, o.name]));

const ofPeople = <T>(plan: Plan, ids: (person: Person) => boolean, personOf: (object: T) => string | null) => {
  const people = new Set(plan.people.filter(ids).map((p) => p.id));
  return (object: T) => people.has(personOf(object) ?? '');
};

const person: LedgerSource<Person> = {
  cells(plan) {
    const sites = names(plan.sites);
    const teams = names(plan.teams);
    const classes = names(plan.classes);
    const extensions = grouped(plan.extensions, (e) => e.person);
    const numbers = grouped(plan.numbers, (n) => n.belongsTo);
    return (p) => {
      const mine = extensions.get(p.id) ?? [];
      return {
        name: p.name,
        extensions: mine.map((e) => e.digits).join(', '),
        number: mine
          .flatMap((e) => numbers.get(e.id) ?? [])
          .map((n) => spacedNumber(n.e164))
          .join(', '),
        site: sites.get(p.site) ?? '',
        teams: p.teams.map((t) => teams.get(t)).join(', '),
        class: [...new Set(mine.map((e) => classes.get(e.class) ?? ''))].join(', '),
        email: p.email ?? '',
        language: p.language,
      };
    };
  },
  facets: {
    site: (_plan, id) => (p) => p.site === id,
    team: (_plan, id) => (p) => p.teams.includes(id),
    class: (plan, id) => {
      const people = new Set(plan.extensions.filter((e) => e.class === id).map((e) => e.person));
      return (p) => people.has(p.id);
    },
  },
};

const extension: LedgerSource<Extension> = {
  cells(plan) {
    const sites = names(plan.sites);
    const classes = names(plan.classes);
    const mailboxes = names(plan.mailboxes);
    const people = new Map(plan.people.map((p) => [p.id, p]));
    const teams = names(plan.teams);
    const numbers = grouped(plan.numbers, (n) => n.belongsTo);
    const e164 = new Map(plan.numbers.map((n) => [n.id, n.e164]));
    return (e) => {
      const own = numbers.get(e.id)?.[0];
      const number = own ? spacedNumber(own.e164) : '';
      const outgoing = e.outgoingNumber ? spacedNumber(e164.get(e.outgoingNumber)!) : '';
      const who = e.person ? people.get(e.person) : undefined;
      return {
        digits: e.digits,
        name: e.name,
        kind: e.kind,
        site: sites.get(e.site) ?? '',
        class: classes.get(e.class) ?? '',
        number,
        shows: e.withholdNumber ? 'withheld' : outgoing || number || 'site number',
        mailbox: e.mailbox ? (mailboxes.get(e.mailbox) ?? '') : '',
        rings: `${e.ringSeconds} s`,
        person: who?.name ?? '',
        teams: who?.teams.map((t) => teams.get(t)).join(', ') ?? '',
      };
    };
  },
  facets: {
    site: (_plan, id) => (e) => e.site === id,
    class: (_plan, id) => (e) => e.class === id,
    kind: (_plan, id) => (e) => e.kind === id,
    team: (plan, id) =>
      ofPeople<Extension>(
        plan,
        (p) => p.teams.includes(id),
        (e) => e.person,
      ),
  },
};

const mailbox: LedgerSource<Mailbox> = {
  cells(plan) {
    const sites = names(plan.sites);
    const people = names(plan.people);
    const users = grouped(plan.extensions, (e) => e.mailbox);
    return (m) => ({
      name: m.name,
      state: m.on ? 'takes messages' : 'off',
      owner: m.owners.map((o) => people.get(o)).join(', '),
      site: sites.get(m.site) ?? '',
      extensions: (users.get(m.id) ?? []).map((e) => e.digits).join(', '),
      email: m.email ?? '',
    });
  },
  facets: {
    site: (_plan, id) => (m) => m.site === id,
    team: (plan, id) => {
      const people = new Set(plan.people.filter((p) => p.teams.includes(id)).map((p) => p.id));
      return (m) => m.owners.some((o) => people.has(o));
    },
  },
};

const number: LedgerSource<PlanNumber> = {
  cells(plan, exchange) {
    const sites = new Map(plan.sites.map((s) => [s.id, s]));
    const trunks = names(plan.trunks);
    const labels = destinationLabels(plan);
    const routes = routesOfNumbers(plan);
    const x = exchange();
    const mapped = new Map<PlanNumber, string[]>();
    for (const route of x.routes.filter((r) => r.called !== null))
      for (const n of takenBy(x, route)) mapped.set(n, [...(mapped.get(n) ?? []), route.route.name]);
    const main = new Set(plan.sites.map((s) => s.mainNumber));
    return (n) => {
      const uses = [
        n.belongsTo ? (labels.get(n.belongsTo) ?? '') : '',
        ...(routes.get(n.id) ?? []).map((r) => `route ${r}`),
        ...(mapped.get(n) ?? []).map((name) => `route ${name}`),
        main.has(n.id) ? 'main number' : '',
      ].filter(Boolean);
      return {
        e164: spacedNumber(n.e164),
        number: showNumber(n.e164, sites.get(n.site)!.country),
        state: n.state === 'active' && n.activeFrom ? `active from ${n.activeFrom}` : n.state.replace('-', ' '),
        site: sites.get(n.site)!.name,
        trunk: n.trunk ? (trunks.get(n.trunk) ?? '') : '',
        belongs: uses.join(', ') || 'free',
        note: n.note,
      };
    };
  },
  facets: {
    site: (_plan, id) => (n) => n.site === id,
    trunk: (_plan, id) => (n) => n.trunk === id,
    state: (_plan, id) => (n) => n.state === id,
    // What a number is used for is a cell of its own row already.
    use: (_plan, id) => (_n, cells) => (id === 'free' ? cells.belongs === 'free' : cells.belongs !== 'free'),
    ends: (_plan, id, both) => endsFacet(both, id),
  },
};

function destinationLabels(plan: Plan): Map<string, string> {
  const out = new Map<string, string>();
  const wanted = new Set(plan.numbers.map((n) => n.belongsTo));
  for (const kind of OBJECT_KINDS)
    for (const o of objectsOf(plan, kind)) if (wanted.has(o.id)) out.set(o.id, labelOf(kind, o as AnyObject));
  return out;
}

function routesOfNumbers(plan: Plan): Map<string, string[]> {
  const out = new Map<string, string[]>();
  for (const r of plan.inboundRoutes) for (const n of r.numbers) out.set(n, [...(out.get(n) ?? []), r.name]);
  return out;
}

/** The rows of every kind that the registry gives a long ledger. */
export const SOURCES = { person, extension, mailbox, number } satisfies {
  [K in LedgerKind]: LedgerSource<ObjectOf[K]>;
};
export type AnySource = LedgerSource<AnyObject>;

const HOUR = 3_600_000;

/** Where each number lands by the plan alone: now, out of hours, on the next holiday; found once an hour for a plan. */
function endsByPlan({ plan, exchange }: HeldPlan): ReadonlyMap<string, Partial<Record<LandingTime['when'], string>>> {
  const hour = Math.floor(Date.now() / HOUR);
  return keptFor(plan, 'ends of numbers', [hour], () => {
    const x = exchange();
    return new Map(
      plan.numbers.map((n) => [
        n.id,
        Object.fromEntries(
          landingTimes(x, n.e164, Date.now(), {}).map((t) => [
            t.when,
            t.at === null ? '' : t.lands ? `${t.lands.kind} ${t.lands.id ?? t.lands.label}` : t.outcome,
          ]),
        ),
      ]),
    );
  });
}

/** Numbers by where their callers end: nowhere, in a mailbox out of hours, or elsewhere than live. */
function endsFacet({ draft, live }: Both, id: string): (n: PlanNumber) => boolean {
  const ends = endsByPlan(draft);
  const of = (n: PlanNumber) => ends.get(n.id) ?? {};
  if (id === 'lands nowhere') return (n) => /^(?:unroutable|failed|loop|incomplete|refused)$/.test(of(n).now ?? '');
  if (id === 'after hours into a mailbox') return (n) => (of(n).closed ?? '').startsWith('mailbox ');
  const before = endsByPlan(live);
  return (n) => JSON.stringify(before.get(n.id) ?? {}) !== JSON.stringify(of(n));
}

/** A strip of a week as text: when each stretch begins, in minutes from its Monday, and where calls end then. */
function stripText(span: { from: number; to: number }, stretches: readonly WeekStretch[]): string {
  return JSON.stringify({
    minutes: (span.to - span.from) / 60_000,
    stretches: stretches.map((s) => [
      (s.from - span.from) / 60_000,
      s.lands?.kind ?? 'refused',
      s.lands?.label ?? s.outcome,
    ]),
  });
}

/** A week in words: each end with its hours, the longest first. */
function weekWords(stretches: readonly WeekStretch[]): string {
  const hours = new Map<string, number>();
  for (const s of stretches) {
    const end = s.lands?.label ?? s.outcome;
    hours.set(end, (hours.get(end) ?? 0) + (s.to - s.from) / HOUR);
  }
  return [...hours]
    .sort((a, b) => b[1] - a[1])
    .map(([end, h]) => `${end} ${Math.round(h)} h`)
    .join(', ');
}

/** Where numbers land now, out of hours, on the next holiday and through this week, as cells of their rows: what takes longer. */
export function landingCells(
  exchange: Exchange,
  numbers: readonly PlanNumber[],
  now: number,
  { situation, pieces }: { situation: Situation; pieces: readonly SituationPiece[] },
): Record<string, Record<string, string>> {
  return Object.fromEntries(
    numbers.map((n) => {
      const times = landingTimes(exchange, n.e164, now, situation);
      const t = outcomeOf(exchange, callFromOutside(n.e164, now), situation);
      const span = weekAround(exchange.sites.get(n.site)!.zone, now);
      const week = endsOfNumber(exchange, n, span, pieces);
      const cells: Record<string, string> = {
        then: t.then[0]?.lands.label ?? '',
        week: weekWords(week),
        weekStrip: stripText(span, week),
      };
      for (const { when, at, lands, outcome } of times) {
        cells[when] = lands?.label ?? outcome;
        cells[`${when}Kind`] = lands?.kind ?? 'refused';
        cells[`${when}At`] = at === null ? '' : new Date(at).toISOString();
      }
      return [n.id, cells];
    }),
  );
}
