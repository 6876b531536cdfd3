import { callFromOutside, weekOf, type SituationPiece, type Week } from '../analysis';
import { courseOf, wholeCourse, type WholeCourse } from '../course';
import { DAY_MINUTES, clockOf, hoursInWords, wallAt, weekInWords, type Span } from '../hours';
import { showNumber } from '../numbers';
import {
  KINDS,
  isKind,
  labelOf,
  objectsOf,
  referenceFieldsOf,
  type AnyObject,
  type ObjectKind,
  type PlanNumber,
} from '../plan';
import { trace, type Exchange } from '../routing';
import type { Book, BookChapter } from './schema';

/** What a book is made of. */
interface BookAsked {
  exchange: Exchange;
  /** milliseconds since 1970 UTC: its week is the one in which this is */
  at: number;
  /** what holds beside the plan through that week */
  pieces: readonly SituationPiece[];
}

/** Chapters of one book: of more, how many are left out. */
const MOST_CHAPTERS = 120;
/** Names and ways that are told of one place: of more, how many there are. */
const MOST_TOLD = 24;

/**
 * The book of some numbers of ours, in their order: a chapter for each that more stands behind than one phone; those that ring a
 * phone directly, and those that lead nowhere, stand in lists.
 */
export function bookOf(asked: BookAsked, title: string, numbers: readonly PlanNumber[]): Book {
  const { exchange, at } = asked;
  const direct: Book['direct'] = [];
  const idle: Book['idle'] = [];
  const chapters: BookChapter[] = [];
  let left = 0;
  for (const number of numbers) {
    const shown = showNumber(number.e164, exchange.sites.get(number.site)!.country);
    const whole = wholeCourse(exchange, { type: 'number', e164: number.e164 }, null);
    const phone = directly(exchange, whole, number);
    if (number.state !== 'active') idle.push({ number: shown, why: number.state });
    else if (taken(whole, number).length === 0) idle.push({ number: shown, why: 'its calls are released' });
    else if (phone)
      direct.push({ number: shown, digits: phone.digits, name: phone.name, then: thenOf(whole, phone.id) });
    else if (chapters.length < MOST_CHAPTERS) chapters.push(chapterOf(asked, number, shown, whole));
    else left += 1;
  }
  const first = numbers[0] ? exchange.sites.get(numbers[0].site) : undefined;
  const zone = first?.zone ?? 'UTC';
  const organisation = exchange.plan.organisation.name;
  return { organisation, title, at: new Date(at).toISOString(), zone, chapters, direct, idle, left };
}

/** Ways from a number that lead somewhere, for callers who are not blocked. */
const taken = (whole: WholeCourse, number: PlanNumber) => {
  const tones = new Set(whole.nodes.filter((n) => n.kind === 'tone').map((n) => n.id));
  return whole.ways.filter((w) => w.from === number.id && !tones.has(w.to));
};

/** The phone that a number rings directly; null where anything else is passed before. */
function directly({ extensions }: Exchange, whole: WholeCourse, number: PlanNumber) {
  const from = taken(whole, number);
  const phone = from.length === 1 ? extensions.get(from[0]!.to) : undefined;
  return phone && phone.kind !== 'virtual' ? phone : null;
}

/** Where calls go that nobody at a phone answers. */
const thenOf = (whole: WholeCourse, phone: string): string =>
  labelIn(whole, whole.ways.find((w) => w.from === phone && w.when === 'no answer')?.to ?? '');

/** What a place is called: a mailbox is often called as somebody is. */
function labelIn({ nodes }: WholeCourse, id: string): string {
  const node = nodes.find((n) => n.id === id);
  return node?.kind === 'mailbox' ? `mailbox ${node.label}` : (node?.label ?? '');
}

function chapterOf(asked: BookAsked, number: PlanNumber, shown: string, whole: WholeCourse): BookChapter {
  const { exchange } = asked;
  const objects = placesIn(exchange, whole);
  return {
    id: number.id,
    number: shown,
    e164: number.e164,
    site: exchange.sites.get(number.site)!.name,
    trunk: number.trunk === null ? '' : exchange.trunks.get(number.trunk)!.name,
    state: number.state,
    note: number.note ?? '',
    ends: endsOf(asked, number),
    places: objects.map(({ node, kind, object }) => ({
      kind: node.kind,
      word: kind ? [KINDS[kind].word, digitsOf(object!)].filter(Boolean).join(' ') : '',
      label: node.label,
      who: kind ? whoIs(exchange, kind, object!) : [],
      ways: waysFrom(whole, node.id),
    })),
    hours: hoursOf(asked, objects),
  };
}

const digitsOf = (object: AnyObject): string => ('digits' in object && object.digits ? object.digits : '');

interface PlaceIn {
  node: WholeCourse['nodes'][number];
  kind: ObjectKind | null;
  object: AnyObject | null;
}

/** The places of a course that have ways on or somebody behind them, in the order in which calls come to them. */
function placesIn(exchange: Exchange, whole: WholeCourse): PlaceIn[] {
  const order = new Map<string, number>();
  const open = whole.nodes.slice(0, 1).map((n) => n.id);
  for (let id = open.shift(); id !== undefined; id = open.shift()) {
    if (order.has(id)) continue;
    order.set(id, order.size);
    for (const w of whole.ways) if (w.from === id) open.push(w.to);
  }
  return whole.nodes
    .filter((n) => order.has(n.id) && n.kind !== 'tone')
    .sort((a, b) => order.get(a.id)! - order.get(b.id)!)
    .map((node): PlaceIn => {
      // A later part of a place is known by the id of the place, with its number behind.
      const id = node.id.split(' ')[0]!;
      if (!isKind(node.kind)) return { node, kind: null, object: null };
      const object = (objectsOf(exchange.plan, node.kind) as AnyObject[]).find((o) => o.id === id) ?? null;
      return { node, kind: object && node.kind, object };
    })
    .filter(({ node, object }) => object !== null || whole.ways.some((w) => w.from === node.id));
}

/** Ways from a place: those to many places for one reason are told together, and so are the reasons for one place. */
function waysFrom(whole: WholeCourse, from: string): BookChapter['places'][number]['ways'] {
  const byWhen = new Map<string, string[]>();
  for (const w of whole.ways)
    if (w.from === from) byWhen.set(w.when, [...(byWhen.get(w.when) ?? []), labelIn(whole, w.to)]);
  const byTo = new Map<string, string[]>();
  for (const [when, to] of byWhen) {
    const all = told(to).join(', ');
    byTo.set(all, [...(byTo.get(all) ?? []), when]);
  }
  return [...byTo].map(([to, when]) => ({ when: when.join(', '), to }));
}

/** The first of some names, and how many there are besides. */
const told = (names: readonly string[]): string[] =>
  names.length <= MOST_TOLD ? [...names] : [...names.slice(0, MOST_TOLD), `and ${names.length - MOST_TOLD} more`];

/** Kinds that say who stands behind a place. */
const WHO: ReadonlySet<string> = new Set(['extension', 'person', 'outsideNumber']);

/** Members, agents, owners: whoever the object names, by digits and name. */
function whoIs(exchange: Exchange, kind: ObjectKind, object: AnyObject): string[] {
  const fields = referenceFieldsOf(kind).filter((f) => WHO.has(f.ref));
  const ids = fields.flatMap((f) => (object as unknown as Record<string, unknown>)[f.field] ?? []) as string[];
  const names = [...new Set(ids)].map((id) => {
    const phone = exchange.extensions.get(id);
    const person = exchange.people.get(id);
    if (phone) return `${phone.digits} ${phone.name}`;
    return person ? labelOf('person', person) : (exchange.destinations.get(id)?.object.name ?? '');
  });
  return told(names.filter(Boolean));
}

/** Opening hours that places ask, and time rules of the routes among them. */
function hoursOf({ exchange }: BookAsked, places: readonly PlaceIn[]): BookChapter['hours'] {
  const routes = new Set(places.flatMap((p) => (p.kind === 'inboundRoute' ? [p.object!.id] : [])));
  const rules = exchange.plan.routeRules.filter((r) => routes.has(r.route));
  const asking = [
    ...places.flatMap((p) => (p.kind ? [{ kind: p.kind, object: p.object! }] : [])),
    ...rules.map((object) => ({ kind: 'routeRule' as const, object: object as AnyObject })),
  ];
  const ids = asking.flatMap(({ kind, object }) =>
    referenceFieldsOf(kind).flatMap((f) =>
      f.ref === 'hours' ? ((object as unknown as Record<string, unknown>)[f.field] ?? []) : [],
    ),
  ) as string[];
  return [...new Set(ids)].map((id) => {
    const found = exchange.plan.hours.find((h) => h.id === id)!;
    const { hours } = exchange.hours.get(id)!;
    const holidays = hours.holidays.size + hours.yearly.size;
    return { label: found.name, words: hoursInWords(hours.week, holidays, found.exceptions.length) };
  });
}

/** Where callers end through the week, each end with its times and the course of the first call that comes there. */
function endsOf({ exchange, at, pieces }: BookAsked, number: PlanNumber): BookChapter['ends'] {
  const week = weekOf(exchange, 'number', number.id, at, pieces);
  const byEnd = new Map<string, Week['stretches']>();
  for (const s of week?.stretches ?? []) {
    const key = JSON.stringify([s.outcome, s.lands?.kind, s.lands?.id ?? s.lands?.label]);
    byEnd.set(key, [...(byEnd.get(key) ?? []), s]);
  }
  return [...byEnd.values()].map((stretches) => {
    const [first] = stretches;
    const { from, outcome, lands } = first!;
    const call = callFromOutside(number.e164, from);
    const situation = pieces.findLast((p) => p.from <= from)?.situation ?? {};
    const course = courseOf(exchange, call, trace(exchange, call, situation));
    const times = byEnd.size === 1 ? 'at all times' : weekInWords(spansOf(week!, stretches));
    return { outcome, lands, times, course };
  });
}

/** Stretches of a week as spans by its days, on the clock of its zone. */
function spansOf({ zone, from }: Week, stretches: Week['stretches']): Span[][] {
  const clock = clockOf(zone);
  const monday = wallAt(clock, from);
  const days: Span[][] = Array.from({ length: 7 }, () => []);
  for (const s of stretches) {
    const [begin, end] = [wallAt(clock, s.from) - monday, wallAt(clock, s.to) - monday];
    // Cut at midnight: that days are alike is seen day by day.
    for (let day = Math.floor(begin / DAY_MINUTES); day * DAY_MINUTES < end && day < 7; day++) {
      const midnight = day * DAY_MINUTES;
      const span = { from: Math.max(begin - midnight, 0), to: Math.min(end - midnight, DAY_MINUTES) };
      if (day >= 0 && span.from < span.to) days[day]!.push(span);
    }
  }
  return days;
}
