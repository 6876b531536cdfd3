import { BEHAVIOURS, JUST_RUNG, type Behaviour, type CourseNow, type Drive, type Onward } from '../destinations';
import { spacedNumber } from '../numbers';
import type { Extension, PlanNumber, RingGroup, Trunk } from '../plan';
import {
  NO_ANSWER,
  OUT_OF_ORDER,
  REFUSED,
  UNALLOCATED,
  activeSince,
  arrivesAs,
  blockedLead,
  contextOf,
  dialledAll,
  dialledBy,
  hoursNow,
  lastEmergencyCaller,
  leavingBy,
  noticeAt,
  placeOf,
  ruleFits,
  rulesAt,
  takes,
  type CameIn,
  type Cause,
  type CompiledRoute,
  type Exchange,
} from '../routing';
import { cycles, type Cycle } from './cycles';
import type { CourseMoment, Sheet } from './sheet';
import { forwards, membersElsewhere, wished } from './wishes';
import { ruleTimes } from './rule-times';

/** Where calls come in: one of our numbers, or something that has digits of its own. */
export type Entry = { type: 'number'; e164: string } | { type: 'destination'; id: string };

/** One place of a course; `lands` tells that calls can end there. */
export interface PlaceNode {
  id: string;
  kind: string;
  label: string;
  lands: boolean;
}

export interface PlaceWay {
  from: string;
  to: string;
  when: string;
  drive: Drive;
}

/** All ways a call can take from one entry (ENGINE E11): shared places merged, cycles named. */
export interface WholeCourse {
  nodes: PlaceNode[];
  ways: PlaceWay[];
  loops: Cycle[];
}

/** The graph of all ways from an entry, at one moment or at any. The entry must exist in the plan. */
export function wholeCourse(exchange: Exchange, entry: Entry, moment: CourseMoment | null): WholeCourse {
  return new Builder(exchange, moment).from(entry);
}

class Builder implements Sheet {
  private readonly nodes = new Map<string, PlaceNode>();
  private readonly ways: PlaceWay[] = [];
  /** ways that stand in the list already: an attendant that dials everybody has one to each extension */
  private readonly told = new Set<string>();
  /** places whose ways are in the list or about to be */
  private readonly looked = new Set<string>();
  private readonly open: { id: string; part: number }[] = [];
  private readonly now: CourseNow | null;
  /** how outside callers come to this entry; none: from any phone of ours */
  readonly cameIn: CameIn[] = [];

  constructor(
    readonly exchange: Exchange,
    readonly moment: CourseMoment | null,
  ) {
    this.now = moment && {
      hoursAt: (id) => hoursNow(exchange, moment.situation, id, moment.at),
      noticeAt: (id) => noticeAt(exchange, moment.situation, id, moment.at),
      situation: moment.situation,
    };
  }

  from(entry: Entry): WholeCourse {
    if (entry.type === 'number') this.number(this.exchange.numberByE164.get(entry.e164)!);
    else this.place(entry.id, 0);
    for (let next = this.open.pop(); next; next = this.open.pop()) this.waysOf(next.id, next.part);
    const nodes = [...this.nodes.values()];
    return {
      nodes,
      ways: this.ways,
      loops: cycles(
        nodes.map((n) => n.id),
        this.ways,
      ),
    };
  }

  add(id: string, kind: string, label: string, lands: boolean): string {
    const known = this.nodes.get(id);
    if (!known) this.nodes.set(id, { id, kind, label, lands });
    else if (lands) known.lands = true;
    return id;
  }

  way(from: string, to: string, when: string, drive: Drive): void {
    const key = JSON.stringify([from, to, when]);
    if (this.told.has(key)) return;
    this.told.add(key);
    this.ways.push({ from, to, when, drive });
  }

  /** A destination, or a later part of one; its own ways are looked at once. */
  place(id: string, part: number): string {
    const { kind, object } = this.placeOf(id);
    // A phone that is only rung is the same place as the phone, without its own ways.
    if (kind === 'extension' && part === JUST_RUNG) return this.add(id, kind, object.name, true);
    const key = part === 0 ? id : `${id} ${part}`;
    const label = part === 0 ? object.name : `${object.name}, step ${part + 1}`;
    const lands = (BEHAVIOURS[kind] as Behaviour<typeof object>).lands(object, this.exchange, part);
    this.add(key, kind, label, lands && kind !== 'outsideNumber');
    if (!this.looked.has(key)) {
      this.looked.add(key);
      this.open.push({ id, part });
    }
    return key;
  }

  private placeOf(id: string) {
    return placeOf(this.exchange, this.moment?.situation ?? {}, id);
  }

  /** An outside number is an end for those who leave by it; for the others it ends with its reason (ENGINE E6). */
  private outside(id: string): void {
    const { exchange, moment } = this;
    const phones = new Map(exchange.plan.extensions.map((e) => [`${e.class} ${e.site}`, e])).values();
    const ways: CameIn[] =
      this.cameIn.length > 0
        ? this.cameIn
        : [...phones].map((phone) => ({ trunk: null, calling: null, phone, site: phone.site }));
    // Rules with hours let calls out at some times and not at others.
    const times = moment ? [moment.at] : ruleTimes(exchange);
    for (const [cameIn, at] of ways.flatMap((w) => times.map((t) => [w, t] as const))) {
      const { lands, cause } = leavingBy(exchange, id, cameIn, at, moment?.situation ?? {});
      if (lands) this.nodes.get(id)!.lands = true;
      else this.way(id, this.ending(cause!), cause!.q850 === REFUSED.q850 ? 'refused' : 'does not leave', 'none');
    }
  }

  private waysOf(id: string, part: number): void {
    const { kind, object } = this.placeOf(id);
    const behaviour = BEHAVIOURS[kind] as Behaviour<typeof object>;
    const from = part === 0 ? id : `${id} ${part}`;
    if (kind === 'outsideNumber') this.outside(id);
    const callers = this.cameIn.length > 0 ? 'outside' : 'anybody';
    for (const { when, to, drive } of behaviour.ways(object, this.exchange, part, this.now, callers))
      for (const end of to.type === 'dialled' ? this.dialledOut(to.from) : [this.endOf(to)])
        this.way(from, end, when, drive);
    if (kind === 'extension' && this.now) wished(this, object as Extension, this.now.situation);
    if (kind === 'ringGroup' && this.now) membersElsewhere(this, object as RingGroup, this.now.situation);
  }

  /** Outside digits that callers dial from a place: outside where somebody may, and released where nobody does (ENGINE E6 b). */
  private dialledOut(site: string): string[] {
    const inside = this.cameIn.length === 0;
    const may = inside || this.cameIn.some((c) => c.trunk?.transit);
    return [
      ...(may ? [this.add(`outside dialled at ${site}`, 'outside', 'an outside number', true)] : []),
      this.ending(UNALLOCATED),
      this.ending(REFUSED),
    ];
  }

  ending(cause: Cause): string {
    return this.add(`released ${cause.q850}`, 'tone', `released, cause ${cause.q850}`, true);
  }

  private endOf(to: Onward): string {
    if (to.type === 'destination') return this.place(to.id, to.part ?? 0);
    // Personal forwarding is looked at where the extension is.
    return this.ending(to.type === 'end' ? to.cause : UNALLOCATED);
  }

  /**
   * Who is turned away first, then inbound routes that can take the number, each with its time rules; then the direct number;
   * then the trunk's otherwise, which alone takes what is not active (ENGINE E9).
   */
  private number(number: PlanNumber): string {
    const entry = number.id;
    if (this.nodes.has(entry)) return entry;
    this.add(entry, 'number', spacedNumber(number.e164), false);
    this.waysOfNumber(entry, number);
    return entry;
  }

  private waysOfNumber(entry: string, number: PlanNumber): void {
    const { exchange, moment } = this;
    const trunk = number.trunk === null ? null : exchange.trunks.get(number.trunk)!;
    if (!trunk) {
      this.way(entry, this.ending(UNALLOCATED), 'on no trunk', 'none');
      return;
    }
    this.cameIn.push({ trunk, calling: '', phone: null, site: trunk.site });
    if (trunk.overflowTo) this.overflow(entry, trunk.overflowTo);
    else if (!trunk.enabled) this.way(entry, this.ending(OUT_OF_ORDER), 'trunk disabled', 'none');
    if (!trunk.enabled) return;
    this.turnedAway(entry, trunk);
    const called = arrivesAs(exchange, trunk, number);
    const text = called.e164 ?? called.significant;
    if (moment) this.calledBack(entry, called.e164, moment);
    const ours = called.type === 'private' ? null : exchange.numberByE164.get(text);
    if (ours === undefined) {
      // What its trunk delivers is read as another number: the plan says of the trunk what is not so.
      this.otherwise(entry, trunk, `delivered as ${text}`);
      return;
    }
    if (ours) {
      const since = activeSince(ours, exchange.sites.get(ours.site)!);
      if (moment ? moment.at < since : since > -Infinity) {
        this.otherwise(entry, trunk, 'not active');
        if (moment || since === Infinity) return;
      }
      const notice = this.now?.noticeAt(ours.id);
      if (notice?.leadsTo) {
        this.way(entry, this.place(notice.leadsTo, 0), 'notice', 'none');
        return;
      }
    }
    for (const route of exchange.routes.filter((r) => takes(r, text))) {
      if (route.route.trunk !== null && route.route.trunk !== trunk.id) continue;
      const conditional = route.calling !== null || route.route.callingWithheld;
      this.way(entry, this.route(route, trunk, called.significant), conditional ? 'for some callers' : 'calls', 'none');
      if (!conditional) return;
    }
    if (ours?.belongsTo) this.way(entry, this.place(ours.belongsTo, 0), 'direct number', 'none');
    else this.otherwise(entry, trunk, 'otherwise');
  }

  /** A call back to an emergency call made with this number: the phone that called, or the people named for its site. */
  private calledBack(entry: string, e164: string | null, { at, situation }: CourseMoment): void {
    const { exchange } = this;
    const phone = lastEmergencyCaller(exchange, situation, e164, at);
    if (!phone) return;
    const told = exchange.sites.get(phone.site)!.emergencyNotify;
    const people = exchange.plan.extensions.filter((e) => e.person !== null && told.includes(e.person));
    for (const e of [phone, ...people]) this.way(entry, this.place(e.id, JUST_RUNG), 'emergency call back', 'answered');
    forwards(this, phone, situation, 'no answer');
    const box = phone.mailbox ? this.place(phone.mailbox, 0) : null;
    if (box) this.way(entry, box, 'emergency call back, no answer', 'ring');
    this.way(entry, this.ending(NO_ANSWER), 'emergency call back, no answer', 'ring');
  }

  private otherwise(entry: string, trunk: Trunk, when: string): void {
    const to = trunk.otherwise ? this.place(trunk.otherwise, 0) : this.ending(UNALLOCATED);
    this.way(entry, to, when, 'none');
  }

  private turnedAway(entry: string, trunk: Trunk): void {
    const { exchange } = this;
    const { organisation } = exchange.plan;
    const site = this.exchange.sites.get(trunk.site)!;
    const to = (id: string | null) => (id ? this.place(id, 0) : this.ending(REFUSED));
    if (organisation.blockedCallers) this.way(entry, to(organisation.blockedLeadTo), 'blocked callers', 'none');
    if (site.blockedCallers) this.way(entry, to(site.blockedLeadTo), `blocked callers of ${site.name}`, 'none');
    for (const b of this.moment?.situation.blocked ?? []) {
      if (b.site !== null && b.site !== site.id) continue;
      const who = b.calling === null ? 'number withheld, blocked' : 'blocked callers';
      this.way(entry, to(blockedLead(exchange, b)), who, 'none');
    }
    if (organisation.rejectsWithheld) this.way(entry, to(organisation.withheldLeadTo), 'number withheld', 'none');
  }

  private overflow(entry: string, e164: string): void {
    const ours = this.exchange.numberByE164.get(e164);
    const to = ours?.trunk ? this.number(ours) : this.add(`outside ${e164}`, 'outside', spacedNumber(e164), true);
    this.way(entry, to, 'trunk full or down', 'none');
  }

  private route({ route }: CompiledRoute, trunk: Trunk, significant: string): string {
    const id = this.add(route.id, 'inboundRoute', route.name, false);
    const own = this.now?.noticeAt(route.id);
    if (own?.leadsTo) {
      this.way(id, this.place(own.leadsTo, 0), 'notice', 'none');
      return id;
    }
    let instead: string | null = null;
    for (const rule of this.exchange.routeRules.get(route.id) ?? []) {
      const now = own ? { ...own, mode: 'notice' as const, notice: own.name, why: '' } : this.now?.hoursAt(rule.hours);
      if (now && !ruleFits(rule, now)) {
        if (now.leadsTo && !now.open) instead ??= now.leadsTo;
        continue;
      }
      const when = now?.leadsTo ? 'notice' : `${nameOfHours(this.exchange, rule.hours)} ${rule.when}`;
      this.way(id, this.place(now?.leadsTo ?? rule.leadsTo, 0), when, 'none');
      if (now) return id;
    }
    if (instead) this.way(id, this.place(instead, 0), 'notice', 'none');
    else if (route.leadsTo) this.way(id, this.place(route.leadsTo, 0), 'otherwise', 'none');
    else if (route.dialledExtension) this.dialled(id, trunk, significant);
    else this.way(id, this.ending(UNALLOCATED), 'otherwise', 'none');
    return id;
  }

  /** Delivered digits that a route takes as dialled: what has them here; emergency digits nobody reaches from outside. */
  private dialled(route: string, trunk: Trunk, digits: string): void {
    const { exchange } = this;
    const context = contextOf(exchange, { person: null, site: trunk.site }, this.moment);
    const state = dialledAll(context, digits);
    const rules = state ? rulesAt(context, state) : [];
    const rule = rules.some((r) => r.type === 'emergency')
      ? undefined
      : rules.find((r) => r.type === 'destination' || r.type === 'rung');
    if (rule?.type === 'destination') this.way(route, this.place(rule.id, 0), 'dialled digits', 'none');
    else if (rule?.type === 'rung') this.transit(route, trunk, digits);
    else this.way(route, this.ending(UNALLOCATED), 'dialled digits', 'none');
  }

  /** Delivered digits that go out again: outside, or released where they are no number or may not. */
  private transit(route: string, trunk: Trunk, digits: string): void {
    const { exchange, moment } = this;
    const cameIn: CameIn = { trunk, calling: '', phone: null, site: trunk.site };
    for (const at of moment ? [moment.at] : ruleTimes(exchange)) {
      const { lands, cause } = dialledBy(exchange, digits, cameIn, { at, situation: moment?.situation ?? {} });
      const to = lands ? this.add(`outside ${digits}`, 'outside', digits, true) : this.ending(cause!);
      this.way(route, to, 'transit', 'none');
    }
  }
}

const nameOfHours = (exchange: Exchange, id: string) => exchange.hours.get(id)!.name;

/** The places of a course at which calls can end, by id, in order. */
export function endsOf(course: WholeCourse): string[] {
  return course.nodes
    .filter((n) => n.lands)
    .map((n) => n.id)
    .sort();
}
