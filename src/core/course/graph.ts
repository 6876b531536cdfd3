import { BEHAVIOURS, JUST_RUNG, type Behaviour, type CourseNow, type Drive, type Onward } from '../destinations';
import { spacedNumber } from '../numbers';
import type { Extension, Trunk } from '../plan';
import {
  REFUSED,
  UNALLOCATED,
  activeSince,
  canLeave,
  contextOf,
  hoursNow,
  knownNumber,
  noticeAt,
  ruleAt,
  ruleFits,
  takes,
  type CameIn,
  type Cause,
  type CompiledRoute,
  type Exchange,
  type Situation,
} from '../routing';
import { cycles, type Cycle } from './cycles';

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

/** The moment asked about; null for all times. */
export interface CourseMoment {
  at: number;
  situation: Situation;
}

/** The graph of all ways from an entry, at one moment or at any. The entry must exist in the plan. */
export function wholeCourse(exchange: Exchange, entry: Entry, moment: CourseMoment | null): WholeCourse {
  return new Builder(exchange, moment).from(entry);
}

class Builder {
  private readonly nodes = new Map<string, PlaceNode>();
  private readonly ways: PlaceWay[] = [];
  /** ways that stand in the list already: an attendant that dials everybody has one to each extension */
  private readonly told = new Set<string>();
  /** places whose ways are in the list or about to be */
  private readonly looked = new Set<string>();
  private readonly open: { id: string; part: number }[] = [];
  private readonly now: CourseNow | null;
  /** how callers come to this entry: by a trunk, or by any phone of ours */
  private cameIn: CameIn | null = null;

  constructor(
    private readonly exchange: Exchange,
    private readonly moment: CourseMoment | null,
  ) {
    this.now = moment && {
      hoursAt: (id) => hoursNow(exchange, moment.situation, id, moment.at),
      noticeAt: (id) => noticeAt(moment.situation, id, moment.at),
      situation: moment.situation,
    };
  }

  from(entry: Entry): WholeCourse {
    if (entry.type === 'number') this.fromNumber(entry.e164);
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

  private add(id: string, kind: string, label: string, lands: boolean): string {
    const known = this.nodes.get(id);
    if (!known) this.nodes.set(id, { id, kind, label, lands });
    else if (lands) known.lands = true;
    return id;
  }

  private way(from: string, to: string, when: string, drive: Drive): void {
    const key = JSON.stringify([from, to, when]);
    if (this.told.has(key)) return;
    this.told.add(key);
    this.ways.push({ from, to, when, drive });
  }

  /** A destination, or a later part of one; its own ways are looked at once. */
  private place(id: string, part: number): string {
    const { kind, object } = this.exchange.destinations.get(id)!;
    // A phone that is only rung is the same place as the phone, without its own ways.
    if (kind === 'extension' && part === JUST_RUNG) return this.add(id, kind, object.name, true);
    const key = part === 0 ? id : `${id} ${part}`;
    const label = part === 0 ? object.name : `${object.name}, step ${part + 1}`;
    const lands = (BEHAVIOURS[kind] as Behaviour<typeof object>).lands(object, this.exchange, part);
    this.add(key, kind, label, lands && (kind !== 'outsideNumber' || this.leaves(id)));
    if (!this.looked.has(key)) {
      this.looked.add(key);
      this.open.push({ id, part });
    }
    return key;
  }

  /** Whether calls ever leave by an outside number: refused by every class that is asked, it is no end (ENGINE E6). */
  private leaves(id: string): boolean {
    const at = this.moment?.at ?? 0;
    const { plan } = this.exchange;
    const phones = this.cameIn
      ? [null]
      : [...new Map(plan.extensions.map((e) => [`${e.class} ${e.site}`, e])).values()];
    return phones.some((phone) => {
      const cameIn = this.cameIn ?? { trunk: null, calling: null, phone, site: phone!.site };
      return canLeave(this.exchange, id, cameIn, at, this.moment?.situation ?? {});
    });
  }

  private waysOf(id: string, part: number): void {
    const { kind, object } = this.exchange.destinations.get(id)!;
    const behaviour = BEHAVIOURS[kind] as Behaviour<typeof object>;
    const from = part === 0 ? id : `${id} ${part}`;
    if (kind === 'outsideNumber') {
      if (!this.nodes.get(id)!.lands) this.way(from, this.ending({ q850: 21, sip: 403 }), 'refused', 'none');
      return;
    }
    for (const { when, to, drive } of behaviour.ways(object, this.exchange, part, this.now))
      this.way(from, this.endOf(to), when, drive);
    if (kind === 'extension' && this.now) this.wished(object as Extension, this.now);
  }

  /** Where a person's own forwarding of the situation leads. */
  private wished(extension: Extension, { situation }: CourseNow): void {
    for (const f of situation.forwarding ?? []) {
      if (f.extension !== extension.id) continue;
      const rule = ruleAt(contextOf(this.exchange, extension, this.moment), f.to);
      const to =
        rule?.type === 'destination'
          ? this.place(rule.id, 0)
          : rule?.type === 'rung'
            ? this.add(`outside ${f.to}`, 'outside', f.to, true)
            : this.ending({ q850: rule ? 21 : 1, sip: 403 });
      this.way(extension.id, to, `forwarded, ${f.when}`, f.when === 'no answer' ? 'ring' : 'none');
    }
    for (const t of situation.transfers ?? []) {
      if (t.by !== extension.id) continue;
      const direct = this.exchange.destinations.has(t.to);
      const rule = direct ? undefined : ruleAt(contextOf(this.exchange, extension, this.moment), t.to);
      const id = direct ? t.to : rule?.type === 'destination' ? rule.id : null;
      const to = id !== null ? this.place(id, 0) : this.add(`outside ${t.to}`, 'outside', t.to, rule?.type === 'rung');
      this.way(extension.id, to, 'transferred', 'caller');
      this.way(to, extension.id, 'recall', 'ring');
    }
  }

  private ending(cause: Cause): string {
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
  private fromNumber(e164: string): void {
    const { exchange, moment } = this;
    const number = exchange.numberByE164.get(e164)!;
    const entry = this.add(number.id, 'number', spacedNumber(e164), false);
    const trunk = number.trunk === null ? null : exchange.trunks.get(number.trunk)!;
    if (!trunk) {
      this.way(entry, this.ending(UNALLOCATED), 'on no trunk', 'none');
      return;
    }
    this.cameIn = { trunk, calling: '', phone: null, site: trunk.site };
    this.turnedAway(entry, trunk);
    if (trunk.overflowTo) this.overflow(entry, trunk.overflowTo);
    const since = activeSince(number, exchange.sites.get(number.site)!);
    if (moment ? moment.at < since : since > -Infinity) {
      this.otherwise(entry, trunk, 'not active');
      if (moment || since === Infinity) return;
    }
    const notice = this.now?.noticeAt(number.id);
    if (notice?.leadsTo) {
      this.way(entry, this.place(notice.leadsTo, 0), 'notice', 'none');
      return;
    }
    for (const route of exchange.routes.filter((r) => takes(r, e164))) {
      if (route.route.trunk !== null && route.route.trunk !== trunk.id) continue;
      const conditional = route.calling !== null || route.route.callingWithheld;
      this.way(entry, this.route(route), conditional ? 'for some callers' : 'calls', 'none');
      if (!conditional) return;
    }
    if (number.belongsTo) this.way(entry, this.place(number.belongsTo, 0), 'direct number', 'none');
    else this.otherwise(entry, trunk, 'otherwise');
  }

  private otherwise(entry: string, trunk: Trunk, when: string): void {
    const to = trunk.otherwise ? this.place(trunk.otherwise, 0) : this.ending(UNALLOCATED);
    this.way(entry, to, when, 'none');
  }

  private turnedAway(entry: string, trunk: Trunk): void {
    const { organisation } = this.exchange.plan;
    const site = this.exchange.sites.get(trunk.site)!;
    const to = (id: string | null) => (id ? this.place(id, 0) : this.ending(REFUSED));
    if (organisation.blockedCallers) this.way(entry, to(organisation.blockedLeadTo), 'blocked callers', 'none');
    if (site.blockedCallers) this.way(entry, to(site.blockedLeadTo), `blocked callers of ${site.name}`, 'none');
    if (organisation.rejectsWithheld) this.way(entry, to(organisation.withheldLeadTo), 'number withheld', 'none');
  }

  private overflow(entry: string, e164: string): void {
    const ours = this.exchange.numberByE164.get(e164);
    const to = ours
      ? this.add(ours.id, 'number', spacedNumber(e164), false)
      : this.add(`outside ${e164}`, 'outside', spacedNumber(e164), true);
    this.way(entry, to, 'trunk full or down', 'none');
  }

  private route({ route }: CompiledRoute): string {
    const id = this.add(route.id, 'inboundRoute', route.name, false);
    const own = this.now?.noticeAt(route.id);
    if (own?.leadsTo) {
      this.way(id, this.place(own.leadsTo, 0), 'notice', 'none');
      return id;
    }
    let instead: string | null = null;
    for (const rule of this.exchange.routeRules.get(route.id) ?? []) {
      const now = own ? { ...own, mode: 'notice' as const, why: '' } : this.now?.hoursAt(rule.hours);
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
    else if (route.dialledExtension) this.dialled(id);
    else this.way(id, this.ending(UNALLOCATED), 'otherwise', 'none');
    return id;
  }

  /** A number of ours whose significant digits are those of something inside, by a route that takes them as dialled. */
  private dialled(route: string): void {
    const { exchange, cameIn } = this;
    const context = contextOf(exchange, { person: null, site: cameIn!.site }, this.moment);
    const number = [...this.nodes.values()].find((n) => n.kind === 'number')!;
    const e164 = exchange.numbers.get(number.id)!.e164;
    const rule = ruleAt(context, knownNumber(exchange, e164).significant);
    const to = rule?.type === 'destination' ? this.place(rule.id, 0) : this.ending(UNALLOCATED);
    this.way(route, to, 'dialled digits', 'none');
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
