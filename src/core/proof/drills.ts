import type { Span } from '../cells';
import {
  KINDS,
  labelOf,
  objectsOf,
  type AnyObject,
  type Difference,
  type Extension,
  type ObjectKind,
  type Plan,
  type Trunk,
} from '../plan';
import { landingOf, type Exchange, type Situation } from '../routing';
import { affectedBy } from './affected';
import type { CallersCount } from './call-words';
import { insideCells } from './impact-inside';
import { outsideCells } from './impact-outside';
import { trunkCells } from './impact-trunks';
import { callersIn, type ChangedCell, type Comparing } from './changed';
import { metIn } from './met';
import { groupOf, shapeOf, type ImpactGroup } from './grouped';
import type { DrillKind } from './facts';
import { emergencyDials, literalAt } from './literals';
import { contextOf } from '../routing';
import { hasLinks } from './who-dials';

/** Something that may be out of order: trunks, the link of a site, a whole site, or all trunks to one carrier. */
export interface Drill {
  kind: DrillKind;
  /** trunks, or sites */
  out: readonly string[];
  label: string;
}

/** Whether an emergency number still gets out of a site. */
export interface EmergencyLeft {
  site: string;
  number: string;
  leaves: boolean;
  /** by which; null: by none */
  trunk: string | null;
}

export interface ChannelsLeft {
  left: number;
  of: number;
}

export interface DrillResult extends Drill {
  groups: Omit<ImpactGroup, 'edits'>[];
  emergency: EmergencyLeft[];
  /** channels to the outside that are left, and of how many; the same of each site of which some are down */
  channels: ChannelsLeft & { sites: (ChannelsLeft & { site: string })[] };
  /** those of which some call ends nowhere that went somewhere */
  stranded: CallersCount;
}

/** Pairs of trunks are tried for so many trunks at most: of more, those of one site only. */
const MOST_PAIRED = 20;
/** What a call over a link can't be: more than any has. */
const FULL = 1_000_000_000;

/** How much time is looked at: a week and a day. */
export const DRILL_MS = 8 * 86_400_000;

/** Every drill of a plan: each trunk, each link, each site, each carrier with several trunks, and each pair of trunks. */
export function drillsOf({ plan }: Exchange): Drill[] {
  const trunks = plan.trunks.filter((t) => t.enabled);
  const carriers = new Map<string, string[]>();
  for (const t of trunks) if (t.host) carriers.set(t.host, [...(carriers.get(t.host) ?? []), t.id]);
  const pairs = trunks.flatMap((a, i) =>
    trunks
      .slice(i + 1)
      .filter((b) => trunks.length <= MOST_PAIRED || a.site === b.site)
      .map((b) => [a, b] as const),
  );
  return [
    ...trunks.map((t): Drill => ({ kind: 'trunk', out: [t.id], label: t.name })),
    ...plan.sites
      .filter((s) => s.linkKbitPerSecond !== null)
      .map((s): Drill => ({ kind: 'link', out: [s.id], label: `the link of ${s.name}` })),
    ...plan.sites.map((s): Drill => ({ kind: 'site', out: [s.id], label: `all of ${s.name}` })),
    ...[...carriers]
      .filter(([, of]) => of.length > 1)
      .map(([host, of]): Drill => ({ kind: 'carrier', out: of, label: `everything to ${host}` })),
    ...pairs.map(([a, b]): Drill => ({ kind: 'pair of trunks', out: [a.id, b.id], label: `${a.name} and ${b.name}` })),
  ];
}

/** What is asked of drills. */
export interface Drilling {
  exchange: Exchange;
  situation: Situation;
  span: Span;
  progress?: (done: number) => void;
}

/**
 * What becomes of calls while something is out of order (ENGINE E14): which groups end otherwise, whether each emergency number
 * still leaves from each site, and how many channels are left.
 */
export function drillOf({ exchange, situation, span, progress }: Drilling, drill: Drill): DrillResult {
  const then = outOfOrder(exchange, situation, drill);
  const comparing: Comparing = { was: exchange, willBe: exchange, situation, then, span, progress };
  const affected = affectedBy([exchange.plan], touched(exchange, drill), situation);
  const met = metIn([exchange], affected, situation, then);
  const cells = [...outsideCells(comparing, met), ...trunkCells(comparing, met), ...insideCells(comparing, met, [])];
  const stranded = cells.filter((c) => c.was?.outcome === 'routed' && c.willBe?.outcome !== 'routed');
  return {
    ...drill,
    groups: inGroups(comparing, cells),
    emergency: emergencyLeft(exchange, then, span.from).filter(
      (e) => drill.kind !== 'site' || !drill.out.includes(e.site),
    ),
    channels: channelsLeft(exchange.plan, then),
    stranded: callersIn(stranded),
  };
}

/** Channels of enabled trunks, and of those that are up. */
function channelsLeft({ trunks, sites }: Plan, then: Situation): DrillResult['channels'] {
  const down = new Set((then.trunks ?? []).flatMap((t) => (t.up === false ? [t.id] : [])));
  const enabled = trunks.filter((t) => t.enabled);
  const counted = (list: readonly Trunk[]): ChannelsLeft => ({
    left: list.reduce((n, t) => n + (down.has(t.id) ? 0 : t.channels), 0),
    of: list.reduce((n, t) => n + t.channels, 0),
  });
  const each = sites.map((s) => ({ site: s.id, ...counted(enabled.filter((t) => t.site === s.id)) }));
  return { ...counted(enabled), sites: each.filter((s) => s.left < s.of) };
}

function inGroups(comparing: Comparing, cells: readonly ChangedCell[]): Omit<ImpactGroup, 'edits'>[] {
  const groups = new Map<string, ChangedCell[]>();
  for (const cell of cells) {
    const shape = shapeOf(cell);
    const group = groups.get(shape);
    if (group) group.push(cell);
    else groups.set(shape, [cell]);
  }
  return [...groups.values()]
    .map((list) => {
      const { edits: _, ...group } = groupOf(comparing, list, []);
      return group;
    })
    .sort((a, b) => b.count * b.share - a.count * a.share);
}

/** The situation in which something is out of order beside what holds. */
function outOfOrder({ plan }: Exchange, situation: Situation, { kind, out }: Drill): Situation {
  const sites = new Set(kind === 'site' || kind === 'link' ? out : []);
  const links = [...sites].map((id) => ({ id, kbitPerSecond: FULL }));
  if (kind === 'link') return { ...situation, links };
  const trunks = kind === 'site' ? plan.trunks.filter((t) => sites.has(t.site)).map((t) => t.id) : out;
  const down = trunks.map((id) => ({ id, up: false }));
  const kept = (situation.trunks ?? []).filter((t) => !trunks.includes(t.id));
  const off = plan.extensions.filter((e) => sites.has(e.site)).map((e) => e.id);
  return {
    ...situation,
    trunks: [...kept, ...down],
    ...(kind === 'site' ? { off: [...(situation.off ?? []), ...off], links } : {}),
  };
}

/** What a drill can make a difference to, as if it were edited. */
function touched({ plan }: Exchange, { kind, out }: Drill): Difference[] {
  const as = (of: ObjectKind, ids: readonly string[]): Difference[] => {
    const wanted = new Set(ids);
    return (objectsOf(plan, of) as AnyObject[])
      .filter((o) => wanted.has(o.id))
      .map((o) => ({ kind: of, id: o.id, before: o, after: o }) as Difference);
  };
  // What a link that is full makes a difference to is what one of another width would.
  const links = () =>
    as('site', out).map((e) => ({ ...e, after: { ...e.after, linkKbitPerSecond: -1 } }) as Difference);
  if (kind === 'link') return links();
  if (kind !== 'site') return as('trunk', out);
  const at = (list: readonly { id: string; site: string }[]) =>
    list.filter((o) => out.includes(o.site)).map((o) => o.id);
  return [...as('trunk', at(plan.trunks)), ...as('extension', at(plan.extensions)), ...(hasLinks(plan) ? links() : [])];
}

const firsts = new WeakMap<Plan, ReadonlyMap<string, Extension>>();

/** The first phone of each site. */
function firstPhones(plan: Plan): ReadonlyMap<string, Extension> {
  let found = firsts.get(plan);
  if (!found) {
    const phones = plan.extensions.filter((e) => e.kind !== 'virtual');
    firsts.set(plan, (found = new Map(phones.reverse().map((e) => [e.site, e]))));
  }
  return found;
}

/** Each emergency number from one phone of each site but those that are out themselves. */
function emergencyLeft(exchange: Exchange, situation: Situation, at: number): EmergencyLeft[] {
  const phones = firstPhones(exchange.plan);
  return exchange.plan.sites.flatMap((site) => {
    const phone = phones.get(site.id);
    if (!phone) return [];
    const context = contextOf(exchange, phone, { at, situation });
    const all = emergencyDials(context).flatMap((dial) => {
      const literal = literalAt(context, dial);
      return literal?.type === 'emergency' ? [{ dial, number: literal.number }] : [];
    });
    const bare = all.filter((e) => e.dial === e.number);
    const numbers = (bare.length > 0 ? bare : all).map((e) => e.dial);
    return numbers.map((number) => {
      const call = { from: { type: 'extension' as const, id: phone.id }, dial: number, enBloc: false, at };
      const { outcome, trunk } = landingOf(exchange, call, situation);
      return { site: site.id, number, leaves: outcome === 'routed' && trunk !== null, trunk };
    });
  });
}

/** What a drill is about, in words. */
export const drillWords = ({ kind, label }: Drill): string =>
  kind === 'trunk' ? `${KINDS.trunk.word} ${label}` : label;

/** Names of the sites and trunks of an answer. */
export const nameIn = ({ sites, trunks }: Exchange, id: string): string => {
  const trunk = trunks.get(id);
  return trunk ? labelOf('trunk', trunk) : (sites.get(id)?.name ?? id);
};
