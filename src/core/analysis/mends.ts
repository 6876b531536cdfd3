import {
  KINDS,
  RULED_KINDS,
  objectsOf,
  referrersTo,
  type AnyObject,
  type Changed,
  type ObjectKind,
  type Plan,
} from '../plan';
import { kbitPerCall, spokenBetween, type Exchange } from '../routing';
import { DEAR } from './calls-problems';
import type { Problem } from './problem';
import { idleNumbers } from './problems';

/** What one press does about a problem. */
export interface Mend {
  /** in words, as the button says it */
  label: string;
  edits: Changed[];
}

type Mending = (exchange: Exchange, object: never) => Mend | null;

const edit = (kind: ObjectKind, object: AnyObject, set: object): Changed =>
  ({ kind, id: object.id, value: { ...object, ...set } }) as Changed;

const setting =
  <K extends keyof Lists>(
    kind: K,
    label: string,
    set: (object: Lists[K], exchange: Exchange) => object | null,
  ): Mending =>
  (exchange: Exchange, object: never) => {
    const fields = set(object as Lists[K], exchange);
    return fields && { label, edits: [edit(kind as ObjectKind, object, fields)] };
  };

interface Lists {
  site: Plan['sites'][number];
  trunk: Plan['trunks'][number];
  mailbox: Plan['mailboxes'][number];
  extension: Plan['extensions'][number];
  rung: Plan['rungs'][number];
  number: Plan['numbers'][number];
  reachStep: Plan['reachSteps'][number];
  class: Plan['classes'][number];
  attendant: Plan['attendants'][number];
  inboundRoute: Plan['inboundRoutes'][number];
}

/** Deletes what can never fit, and its parts; not where anything else names it. */
const deleting =
  (kind: ObjectKind): Mending =>
  ({ plan }: Exchange, object: AnyObject) => {
    const parts = referrersTo(plan, object.id);
    if (parts.some((p) => KINDS[p.kind].partOf !== p.field)) return null;
    const gone = [...parts.map((p) => ({ kind: p.kind, id: p.object.id })), { kind, id: object.id }];
    return { label: 'Delete it', edits: gone.map((g) => ({ ...g, value: null })) };
  };

const homeTrunks = (exchange: Exchange, site: Lists['site']) =>
  exchange.plan.trunks.filter((t) => t.enabled && exchange.sites.get(t.site)!.country === site.country);

/** By the problem's type, and the kind of object where that makes a difference. */
const MENDS: Readonly<Record<string, Mending>> = {
  'emergency-list-empty': (exchange: Exchange, site: Lists['site']) => {
    const home = homeTrunks(exchange, site);
    const trunk = home.find((t) => t.site === site.id) ?? home[0];
    return trunk ? { label: `Name ${trunk.name}`, edits: [edit('site', site, { emergencyTrunks: [trunk.id] })] } : null;
  },
  'emergency-other-country': setting('site', 'Take trunks of other countries out', (site, exchange) => ({
    emergencyTrunks: site.emergencyTrunks.filter(
      (id) => exchange.sites.get(exchange.trunks.get(id)!.site)!.country === site.country,
    ),
  })),
  'emergency-all-busy': (exchange: Exchange, site: Lists['site']) => {
    const trunk = site.emergencyTrunks
      .map((id) => exchange.trunks.get(id)!)
      .find((t) => exchange.sites.get(t.site)!.country === site.country && t.keptForIncoming + 1 < t.channels);
    return trunk
      ? { label: `Keep a channel of ${trunk.name}`, edits: [edit('trunk', trunk, { keptForEmergency: 1 })] }
      : null;
  },
  'emergency-no-callback': (exchange: Exchange, site: Lists['site']) => {
    const number = exchange.plan.numbers.find((n) => n.site === site.id && n.state === 'active');
    return number
      ? { label: `Make ${number.e164} its main number`, edits: [edit('site', site, { mainNumber: number.id })] }
      : null;
  },
  'rule-never-fits': deleting('rung'),
  'hidden-by-another inboundRoute': deleting('inboundRoute'),
  'hidden-by-another rung': deleting('rung'),
  'route-never-fits': deleting('inboundRoute'),
  'mailbox-no-owner': (exchange: Exchange, mailbox: Lists['mailbox']) => {
    const people = exchange.plan.extensions.flatMap((e) => (e.mailbox === mailbox.id ? (e.person ?? []) : []));
    const [person] = people;
    if (person === undefined || new Set(people).size > 1) return null;
    const { name } = exchange.people.get(person)!;
    return { label: `Make ${name} its owner`, edits: [edit('mailbox', mailbox, { owners: [person] })] };
  },
  'caller-id-not-owned extension': setting('extension', 'Show its usual number', () => ({ outgoingNumber: null })),
  'caller-id-not-owned rung': setting('rung', 'Show the usual number', () => ({ show: 'usual', fixedNumber: null })),
  'number-held-twice': setting('number', 'Let it belong to nobody', () => ({ belongsTo: null })),
  'channels-all-kept': setting('trunk', 'Leave a channel for other calls', (trunk) =>
    trunk.channels < 2 && trunk.keptForEmergency > 0
      ? null
      : {
          keptForIncoming: Math.max(0, trunk.channels - 1 - trunk.keptForEmergency),
          keptForEmergency: Math.min(trunk.keptForEmergency, trunk.channels - 1),
        },
  ),
  'number-no-route': (exchange: Exchange) => {
    const idle = idleNumbers(exchange);
    return {
      label: idle.length === 1 ? 'Reserve it' : `Reserve all ${idle.length}`,
      edits: idle.map((n) => edit('number', n, { state: 'reserved' })),
    };
  },
  'fax-way-speaks extension': setting('extension', 'Take the mailbox off', (fax) =>
    fax.mailbox === null ? null : { mailbox: null },
  ),
  'ring-past-mailbox': setting('reachStep', 'Ask for a key', () => ({ keyToTake: true })),
  'toll-fraud class': setting('class', 'Take these rights', (cos) => ({
    rights: Object.fromEntries(
      RULED_KINDS.map((k) => [
        k,
        DEAR.includes(k) && k !== 'service' ? { ...cos.rights[k], forward: false, transfer: false } : cos.rights[k],
      ]),
    ),
  })),
  'toll-fraud attendant': setting('attendant', 'Let nobody dial on to the outside here', () => ({
    outsideDialling: false,
  })),
  'codec-mismatch': setting('trunk', 'Let it convert', () => ({ transcoding: true })),
  'link-budget': (exchange: Exchange, site: Lists['site']) => {
    const others = exchange.plan.sites.filter((s) => s.id !== site.id);
    const needs = others.map((s) => kbitPerCall(exchange, site.id, spokenBetween(exchange, site.id, s.id)!) ?? 0);
    const most = Math.ceil(Math.max(0, ...needs));
    return { label: `Raise it to ${most} kbit/s`, edits: [edit('site', site, { linkKbitPerSecond: most })] };
  },
};

/** What one press would do about a problem of a plan; null where that takes a choice. A function from the plan to edits. */
export function mendOf(exchange: Exchange, { type, object }: Pick<Problem, 'type' | 'object'>): Mend | null {
  const mending = MENDS[`${type} ${object.kind}`] ?? MENDS[type];
  if (!mending) return null;
  const list = objectsOf(exchange.plan, object.kind) as AnyObject[];
  const found = list.find((o) => o.id === object.id);
  return found ? mending(exchange, found as never) : null;
}

/** What an act that mends a problem is called. */
export const mendName = ({ object }: Pick<Problem, 'object'>, { label }: Mend): string =>
  `mended ${object.label}: ${label.charAt(0).toLowerCase()}${label.slice(1)}`;
