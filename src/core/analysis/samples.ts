import { referrersTo, type Extension, type ObjectKind } from '../plan';
import { isFor, ladderOf, type Call, type Exchange } from '../routing';
import { exampleFor } from './example';
import { takes } from './problems';

/** A call worth asking about, with its name for people. */
export interface SampleCall {
  call: Call;
  label: string;
}

const MOST = 60;

/** Calls that meet an object of the plan: enough of them to see what an edit of it does, not all there are. */
export function callsAround(
  exchange: Exchange,
  kind: ObjectKind | 'organisation',
  id: string,
  at: number,
): SampleCall[] {
  const { plan } = exchange;
  const calls: SampleCall[] = [];
  const add = (...more: SampleCall[]) => calls.push(...more);
  switch (kind) {
    case 'extension': {
      const e = exchange.extensions.get(id);
      if (e)
        add(
          ...inside(exchange, e, at),
          ...outsideTo(exchange, e.id, at),
          ...emergencies(exchange, e, at),
          ...throughLadder(exchange, e, at),
        );
      break;
    }
    case 'mailbox':
      for (const e of plan.extensions.filter((x) => x.mailbox === id).slice(0, 10))
        add(...inside(exchange, e, at), ...outsideTo(exchange, e.id, at));
      add(...outsideTo(exchange, id, at));
      break;
    case 'number':
    case 'inboundRoute':
      for (const e164 of calledBy(exchange, kind, id)) add(fromOutside(e164, at));
      break;
    case 'class':
      for (const e of onePerSite(plan.extensions.filter((x) => x.class === id)))
        add(...inside(exchange, e, at), ...throughLadder(exchange, e, at));
      break;
    case 'rung':
    case 'ladder':
    case 'trunk':
    case 'site':
    case 'person':
      for (const e of phonesAround(exchange, kind, id))
        add(...throughLadder(exchange, e, at), ...emergencies(exchange, e, at));
      if (kind === 'trunk' || kind === 'site')
        for (const n of plan.numbers.filter((x) => x[kind] === id).slice(0, 10)) add(fromOutside(n.e164, at));
      break;
    case 'organisation':
    case 'numberAddition':
      for (const e of onePerSite(plan.extensions)) add(...throughLadder(exchange, e, at));
  }
  return calls.slice(0, MOST);
}

function phonesAround(
  exchange: Exchange,
  kind: 'rung' | 'ladder' | 'trunk' | 'site' | 'person',
  id: string,
): Extension[] {
  const { plan } = exchange;
  if (kind === 'person') return plan.extensions.filter((e) => e.person === id).slice(0, 3);
  const ladders = new Set(
    kind === 'rung'
      ? plan.rungs.filter((r) => r.id === id).map((r) => r.ladder)
      : kind === 'ladder'
        ? [id]
        : kind === 'trunk'
          ? plan.rungs.filter((r) => r.trunks.includes(id)).map((r) => r.ladder)
          : [],
  );
  const sites = plan.sites.filter(
    (s) =>
      (s.ladder !== null && ladders.has(s.ladder)) ||
      (kind === 'site' && s.id === id) ||
      (kind === 'trunk' && s.emergencyTrunks.includes(id)),
  );
  return sites.flatMap((s) => onePerClass(plan.extensions.filter((e) => e.site === s.id)));
}

const onePerSite = (list: Extension[]) => [...new Map(list.map((e) => [e.site, e])).values()];
const onePerClass = (list: Extension[]) => [...new Map(list.map((e) => [e.class, e])).values()];

function inside(exchange: Exchange, e: Extension, at: number): SampleCall[] {
  const colleague = exchange.plan.extensions.find(
    (x) => x.site === e.site && x.id !== e.id && exchange.classes.get(x.class)!.rights.internal.allow,
  );
  if (!colleague) return [];
  return [
    {
      label: `${colleague.digits} dials ${e.digits}`,
      call: { from: { type: 'extension', id: colleague.id }, dial: e.digits, enBloc: false, at },
    },
  ];
}

function outsideTo(exchange: Exchange, destination: string, at: number): SampleCall[] {
  return referrersTo(exchange.plan, destination)
    .flatMap((r) => (r.kind === 'number' || r.kind === 'inboundRoute' ? calledBy(exchange, r.kind, r.object.id) : []))
    .map((e164) => fromOutside(e164, at));
}

/** Numbers that a number object or an inbound route takes: all named ones, and one example of its map. */
function calledBy(exchange: Exchange, kind: 'number' | 'inboundRoute', id: string): string[] {
  if (kind === 'number') return exchange.plan.numbers.filter((n) => n.id === id).map((n) => n.e164);
  const route = exchange.routes.find((r) => r.route.id === id);
  if (!route) return [];
  const mapped = exchange.plan.numbers.find((n) => takes(route, n.e164))?.e164;
  return [...route.numbers, ...(mapped ? [mapped] : [])].slice(0, 10);
}

/** An outside caller whose number is kept for fiction. */
export const OUTSIDE_CALLER = '+441632960998';

export function fromOutside(e164: string, at: number): SampleCall {
  return {
    label: `from outside to ${e164}`,
    call: { from: { type: 'outside', calling: OUTSIDE_CALLER }, dial: e164, enBloc: true, at },
  };
}

function emergencies(exchange: Exchange, e: Extension, at: number): SampleCall[] {
  const site = exchange.sites.get(e.site)!;
  return exchange.places.get(site.id)!.short!.emergency.map((dial) => ({
    label: `${e.digits} dials ${dial}`,
    call: { from: { type: 'extension' as const, id: e.id }, dial, enBloc: false, at },
  }));
}

function throughLadder(exchange: Exchange, e: Extension, at: number): SampleCall[] {
  return ladderOf(exchange, exchange.sites.get(e.site)!).flatMap((r) => {
    const dial = isFor(exchange, r.rung, e) ? exampleFor(exchange, r, e.site) : null;
    return dial
      ? [
          {
            label: `${e.digits} dials ${dial} (${r.rung.name})`,
            call: { from: { type: 'extension' as const, id: e.id }, dial, enBloc: true, at },
          },
        ]
      : [];
  });
}
