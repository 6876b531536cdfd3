import {
  KINDS,
  objectsOf,
  referencesOf,
  referrersOf,
  type AnyObject,
  type Difference,
  type Extension,
  type ObjectKind,
  type Plan,
  type PlanNumber,
  type Referrer,
} from '../plan';
import type { Situation } from '../routing';
import { concernOf, type Concern } from './affected-sites';
import { placesOf } from './dialled-places';
import { heardAt, noticedAt, rejectingTo, turnedAwayTo } from './leads-beside';

/** What of a plan an edit can make a difference to. */
export interface Affected {
  /** everything may be: how numbers are read was edited, or what they are */
  all: boolean;
  ids: ReadonlySet<string>;
  /** attendants and directories among them of which nothing else makes a difference than their keys and extensions dialled there that are */
  partly: ReadonlySet<string>;
  /** sites of which anything that a phone dials may go otherwise */
  dialling: ReadonlySet<string>;
}

/** Everything may make a difference. */
export const ANYTHING: Affected = { all: true, ids: new Set(), partly: new Set(), dialling: new Set() };

/** Kinds on which the reading of any number, or any call between sites, may depend. */
const EVERYWHERE: ReadonlySet<string> = new Set(['numberAddition', 'shortNumber', 'sitePair']);
/** What decides where dialled digits go, when it is edited. */
const DIALLING: ReadonlySet<string> = new Set(['rung', 'ladder', 'trunk', 'class', 'serviceCode', 'team', 'person']);
/** What does when it leads to what is edited. */
const LEADING_OUT: ReadonlySet<string> = new Set(['rung', 'ladder', 'trunk']);
const digitsOf = (object: unknown) => (object as { digits?: string | null } | null | undefined)?.digits ?? null;
/** What names a site, a class or a person is not led there: only what leads calls on is followed up to who leads there. */
const NOT_LED_BY: ReadonlySet<string> = new Set(['site', 'class', 'person', 'team', 'promise']);
/** What is not followed to all that names it. */
const NOT_FOLLOWED: ReadonlySet<string> = new Set(['site', 'class']);

/**
 * All that edited objects can make a difference to: they themselves, what leads calls to them, the whole of which they are a
 * part, and so on, in either plan. More may be named than there is, never less.
 */
export function affectedBy(plans: readonly Plan[], edits: readonly Difference[], situation: Situation = {}): Affected {
  const concern = concernOf(plans, edits, situation);
  const spread = new Spread(edits, concern, situation);
  for (const plan of plans) spread.through(plan);
  return {
    all: concern.all || edits.some((e) => EVERYWHERE.has(e.kind)),
    ids: spread.ids,
    partly: spread.partly,
    dialling: concern.dialling,
  };
}

/** Whether edits are of what decides where dialled digits go. */
export const redials = (edits: readonly Difference[]): boolean =>
  edits.some((e) => DIALLING.has(e.kind) || digitsOf(e.before) !== digitsOf(e.after));

/** How far edits reach: from what is edited to all that leads there, step by step. */
class Spread {
  readonly ids = new Set<string>();
  readonly partly = new Set<string>();
  /** trunks of which only where calls go that come in by them is met */
  private readonly entered = new Set<string>();
  private readonly own: readonly OwnWay[];
  private step = new Map<string, ObjectKind>();
  private next = new Map<string, ObjectKind>();

  private readonly edited: ReadonlySet<string>;

  constructor(
    private readonly edits: readonly Difference[],
    private readonly concern: Concern,
    private readonly situation: Situation,
  ) {
    this.edited = new Set(edits.map((e) => e.id));
    this.own = ownWaysIn(situation);
  }

  through(plan: Plan): void {
    let redialled = redials(this.edits);
    // Nothing refers to the organisation.
    this.step = new Map(
      this.edits.flatMap((e): [string, ObjectKind][] => (e.kind === 'organisation' ? [] : [[e.id, e.kind]])),
    );
    for (const trunk of this.concern.entered(plan))
      if (!this.isKnown(trunk)) {
        this.step.set(trunk, 'trunk');
        this.entered.add(trunk);
      }
    for (const [id, kind] of this.concern.met(plan)) {
      this.step.set(id, kind);
      this.entered.delete(id);
    }
    while (this.step.size > 0) {
      this.next = new Map();
      for (const [id] of this.step) this.ids.add(id);
      for (const [id, kind] of this.step) this.wholeOf(plan, kind, id);
      this.referrers(plan);
      this.overflowing(plan);
      const isMet = (id: string | null | undefined) => id != null && this.step.has(id);
      for (const trunk of turnedAwayTo(plan, this.situation, isMet)) this.enter(trunk);
      for (const { kind, id } of noticedAt(plan, this.situation, isMet)) this.meet(kind, id);
      for (const id of rejectingTo(plan, isMet)) this.meet('extension', id);
      for (const { kind, id } of heardAt(plan, isMet)) this.meet(kind, id);
      this.dialledPlaces(plan);
      // Whoever has a phone may be in a state.
      if ([...this.step.values()].includes('presenceRule'))
        for (const e of plan.extensions) if (e.person !== null) this.meet('extension', e.id);
      redialled ||= [...this.step].some(([id, kind]) => LEADING_OUT.has(kind) && !this.entered.has(id));
      // What dials digits of its own goes wherever these lead.
      if (redialled) this.leadOut(plan);
      this.owners(plan, redialled);
      this.step = this.next;
    }
  }

  private isKnown = (id: string) => this.ids.has(id) || this.step.has(id) || this.next.has(id);

  private meet(kind: ObjectKind, id: string): void {
    if (!this.isKnown(id)) this.next.set(id, kind);
    this.partly.delete(id);
    this.entered.delete(id);
  }

  private meetPartly(kind: ObjectKind, id: string): void {
    if (this.isKnown(id)) return;
    this.next.set(id, kind);
    this.partly.add(id);
  }

  private wholeOf(plan: Plan, kind: ObjectKind, id: string): void {
    const object = objectIn(plan, kind, id);
    const { partOf } = KINDS[kind];
    if (!object) return;
    for (const r of referencesOf(kind, object)) {
      // What a key leads to that is not edited itself makes a difference to nobody who presses another.
      if (partOf && r.field.split('.')[0] === partOf && r.target !== 'destination')
        if (r.target === 'attendant' && !this.edited.has(id)) this.meetPartly(r.target, r.id);
        else this.meet(r.target, r.id);
      // A route is met by the numbers that it names.
      if (kind === 'inboundRoute' && r.target === 'number') this.meet('number', r.id);
    }
  }

  private referrers(plan: Plan): void {
    // What names a number shows it: that is another only where the number itself is edited.
    const isFollowed = ([id, kind]: [string, ObjectKind]) =>
      !NOT_FOLLOWED.has(kind) && (kind !== 'number' || this.edited.has(id));
    const follow = new Set([...this.step].filter(isFollowed).map(([id]) => id));
    for (const [id, list] of referrersOf(plan, follow))
      for (const r of list) {
        if (NOT_LED_BY.has(r.kind) || (this.partly.has(id) && isPart(r))) continue;
        // Who calls from outside to a number of a trunk comes to where the trunk leads.
        if (this.entered.has(id) && r.kind !== 'number') continue;
        if (r.kind === 'trunk' && r.field === 'otherwise') this.enter(r.object.id);
        else this.meet(r.kind, r.object.id);
      }
  }

  /** A trunk is met by calls that come in by it only. */
  private enter(trunk: string): void {
    if (this.isKnown(trunk)) return;
    this.next.set(trunk, 'trunk');
    this.entered.add(trunk);
  }

  /** Trunks of which the carrier sends calls to a number of this step when they can't bring them. */
  private overflowing(plan: Plan): void {
    for (const [id, kind] of this.step) {
      const number = kind === 'number' ? (objectIn(plan, kind, id) as PlanNumber | undefined) : undefined;
      if (number) for (const t of plan.trunks) if (t.overflowTo === number.e164) this.enter(t.id);
    }
  }

  /** Where callers can dial extensions of this step. */
  private dialledPlaces(plan: Plan): void {
    const extensions = [...this.step].flatMap(([id, kind]) =>
      kind === 'extension' ? (objectIn(plan, kind, id) ?? []) : [],
    ) as Extension[];
    if (extensions.length === 0) return;
    for (const { kind, id, takes } of placesOf(plan)) if (extensions.some(takes)) this.meetPartly(kind, id);
  }

  /** What leads to the outside by digits. */
  private leadOut(plan: Plan): void {
    for (const o of plan.outsideNumbers) this.meet('outsideNumber', o.id);
    for (const a of plan.attendants) if (a.outsideDialling) this.meet('attendant', a.id);
  }

  /** Who leads their own calls to something of this step. */
  private owners(plan: Plan, redialled: boolean): void {
    if (this.own.length === 0) return;
    const digits = [...this.step].flatMap(([id, kind]) => digitsOf(objectIn(plan, kind, id)) ?? []);
    for (const { owner, to } of this.own)
      if (redialled || this.step.has(to) || digits.some((d) => to.endsWith(d))) this.meet('extension', owner);
  }
}

/** Whether it refers to the whole of which it is a part. */
const isPart = ({ kind, field }: Referrer): boolean => KINDS[kind].partOf === field;

interface OwnWay {
  owner: string;
  to: string;
}

/** Where people lead calls to their own phones: to an object, or to digits as they would dial them. */
function ownWaysIn({ forwarding = [], reach = [], transfers = [] }: Situation): OwnWay[] {
  return [
    ...forwarding.map((f) => ({ owner: f.extension, to: f.to })),
    ...reach.flatMap((r) => r.steps.flatMap((s) => [s.extension, s.dial].map((to) => ({ owner: r.extension, to })))),
    ...transfers.map((t) => ({ owner: t.by, to: t.to })),
  ].flatMap(({ owner, to }) => (to ? [{ owner, to }] : []));
}

const indexes = new WeakMap<readonly AnyObject[], ReadonlyMap<string, AnyObject>>();

function objectIn(plan: Plan, kind: ObjectKind, id: string): AnyObject | undefined {
  const list = objectsOf(plan, kind) as readonly AnyObject[];
  let index = indexes.get(list);
  if (!index) indexes.set(list, (index = new Map(list.map((o) => [o.id, o]))));
  return index.get(id);
}
