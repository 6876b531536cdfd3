import { BEHAVIOURS, type Behaviour, type CourseWayOn, type Drive, type HoursAt, type Onward } from '../destinations';
import { spacedNumber } from '../numbers';
import { hoursNow, ruleFits, takes, type CompiledRoute, type Exchange, type Situation } from '../routing';
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
  private readonly open: { id: string; part: number }[] = [];
  private readonly hoursAt: HoursAt | null;

  constructor(
    private readonly exchange: Exchange,
    moment: CourseMoment | null,
  ) {
    this.hoursAt = moment ? (id) => hoursNow(exchange, moment.situation, id, moment.at) : null;
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
    if (!this.nodes.has(id)) this.nodes.set(id, { id, kind, label, lands });
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
    const key = part === 0 ? id : `${id} ${part}`;
    if (!this.nodes.has(key)) {
      const { kind, object } = this.exchange.destinations.get(id)!;
      const behaviour = BEHAVIOURS[kind] as Behaviour<typeof object>;
      const label = part === 0 ? object.name : `${object.name}, step ${part + 1}`;
      this.add(key, kind, label, behaviour.lands(object, this.exchange, part));
      this.open.push({ id, part });
    }
    return key;
  }

  private waysOf(id: string, part: number): void {
    const { kind, object } = this.exchange.destinations.get(id)!;
    const behaviour = BEHAVIOURS[kind] as Behaviour<typeof object>;
    for (const way of behaviour.ways(object, this.exchange, part, this.hoursAt))
      this.follow(part === 0 ? id : `${id} ${part}`, way);
  }

  private follow(from: string, { when, to, drive }: CourseWayOn): void {
    this.way(from, this.endOf(to), when, drive);
  }

  private endOf(to: Onward): string {
    if (to.type === 'destination') return this.place(to.id, to.part ?? 0);
    // Personal forwarding is no part of the plan, so only ends are left.
    const cause = to.type === 'end' ? to.cause.q850 : 1;
    return this.add(`released ${cause}`, 'tone', `released, cause ${cause}`, true);
  }

  /** Inbound routes that can take the number, each with its time rules; then the direct number; then the trunk's otherwise. */
  private fromNumber(e164: string): void {
    const number = this.exchange.numberByE164.get(e164)!;
    const entry = this.add(number.id, 'number', spacedNumber(e164), false);
    for (const route of this.exchange.routes.filter((r) => takes(r, e164))) {
      const conditional = route.calling !== null || route.route.callingWithheld;
      this.way(entry, this.route(route), conditional ? 'for some callers' : 'calls', 'none');
      if (!conditional && (route.route.trunk === null || route.route.trunk === number.trunk)) return;
    }
    if (number.belongsTo) {
      this.way(entry, this.place(number.belongsTo, 0), 'direct number', 'none');
      return;
    }
    const otherwise = number.trunk ? this.exchange.trunks.get(number.trunk)!.otherwise : null;
    this.way(
      entry,
      otherwise ? this.place(otherwise, 0) : this.add('released 1', 'tone', 'released, cause 1', true),
      'otherwise',
      'none',
    );
  }

  private route({ route }: CompiledRoute): string {
    const id = this.add(route.id, 'inboundRoute', route.name, false);
    for (const rule of this.exchange.routeRules.get(route.id) ?? []) {
      const now = this.hoursAt?.(rule.hours);
      if (now && !now.leadsTo && !ruleFits(rule, now)) continue;
      this.way(
        id,
        this.place(now?.leadsTo ?? rule.leadsTo, 0),
        now?.leadsTo ? 'notice' : `${nameOfHours(this.exchange, rule.hours)} ${rule.when}`,
        'none',
      );
      if (now) return id;
    }
    if (route.leadsTo) this.way(id, this.place(route.leadsTo, 0), 'otherwise', 'none');
    else this.way(id, this.add('released 1', 'tone', 'released, cause 1', true), 'otherwise', 'none');
    return id;
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
