import { XMLParser } from 'fast-xml-parser';
import ICAL from 'ical.js';
import { clockOf, momentOf } from '../hours';

/* Call handling read from CPL (RFC 3880): what callers from anywhere meet, as stretches of time with where they are led. */

/** Where a script leads callers. */
export type CplLead =
  | { type: 'user'; user: string }
  | { type: 'number'; number: string }
  | { type: 'reject'; status: string }
  /** the script says nothing: what would have happened without it */
  | { type: 'nothing' };

/** Moments in milliseconds since 1970 UTC, half-open. */
export interface CplStretch {
  from: number;
  to: number;
  lead: CplLead;
}

export type CplResult =
  { ok: true; stretches: CplStretch[]; zone: string | null; notCarried: string[] } | { ok: false; sentence: string };

interface Node {
  name: string;
  attributes: Record<string, string>;
  children: Node[];
}

const MOST_TEXT = 1_000_000;
const MOST_NODES = 5000;
const MOST_DEPTH = 60;
const MOST_OCCURRENCES = 4000;
/** Time nodes that recur may together give so many. */
const MOST_BORDERS = 60_000;
const MINUTE = 60_000;
const DAY = 86_400_000;

class Refusal extends Error {}

/** Reads a script between two moments. A zone that a time-switch doesn't name is `zone`. Never throws on input. */
export function readCpl(text: string, zone: string, span: { from: number; to: number }): CplResult {
  try {
    if (text.length > MOST_TEXT) throw new Refusal('The script is larger than 1 MB.');
    const root = parsed(text);
    return new Reading(root, zone, span).read();
  } catch (e) {
    if (e instanceof Refusal) return { ok: false, sentence: e.message };
    throw e;
  }
}

function parsed(text: string): Node {
  if (/<!DOCTYPE|<!ENTITY/i.test(text)) throw new Refusal('A script has no document type or entities of its own.');
  let tree: unknown;
  try {
    tree = new XMLParser({
      preserveOrder: true,
      ignoreAttributes: false,
      attributeNamePrefix: '',
      removeNSPrefix: true,
      processEntities: true,
      parseTagValue: false,
      parseAttributeValue: false,
    }).parse(text, true);
  } catch (e) {
    throw new Refusal(`This is no XML: ${(e instanceof Error ? e.message : '').split('\n')[0]!.slice(0, 160)}`);
  }
  let count = 0;
  const nodes = (list: unknown, depth: number): Node[] => {
    if (depth > MOST_DEPTH) throw new Refusal(`The script is nested deeper than ${MOST_DEPTH} levels.`);
    if (!Array.isArray(list)) return [];
    return list.flatMap((item: Record<string, unknown>) => {
      const name = Object.keys(item).find((k) => k !== ':@');
      if (!name || name.startsWith('#') || name.startsWith('?')) return [];
      if (++count > MOST_NODES) throw new Refusal(`The script has more than ${MOST_NODES} nodes.`);
      const attributes = Object.fromEntries(
        Object.entries((item[':@'] ?? {}) as Record<string, unknown>).map(([k, v]) => [k, String(v)]),
      );
      return [{ name, attributes, children: nodes(item[name], depth + 1) }];
    });
  };
  const root = nodes(tree, 0).find((n) => n.name === 'cpl');
  if (!root) throw new Refusal('A cpl element is needed (RFC 3880); there is none.');
  return root;
}

/** When a time node fits, in moments, in their order. */
type Times = readonly { from: number; to: number }[];

class Reading {
  private readonly subs = new Map<string, Node>();
  private readonly times = new Map<Node, Times>();
  private readonly notCarried = new Set<string>();
  private zoneFound: string | null = null;
  private borders = 0;

  constructor(
    private readonly root: Node,
    private readonly zone: string,
    private readonly span: { from: number; to: number },
  ) {
    for (const child of root.children)
      if (child.name === 'subaction' && child.attributes.id) this.subs.set(child.attributes.id, child);
      else if (child.name === 'outgoing') this.left('What is said of outgoing calls: a route is about incoming ones.');
      else if (child.name !== 'incoming' && child.name !== 'ancillary')
        this.left(`${child.name}: an extension that is not known here.`);
  }

  read(): CplResult {
    const incoming = this.root.children.find((c) => c.name === 'incoming');
    if (!incoming) throw new Refusal('The script says nothing of incoming calls.');
    const cuts = new Set<number>([this.span.from]);
    this.collect(this.root, this.zone, cuts);
    const stretches: CplStretch[] = [];
    for (const at of [...cuts].sort((a, b) => a - b)) {
      if (at < this.span.from || at >= this.span.to) continue;
      const lead = this.at(incoming.children, at, null, 0);
      const last = stretches.at(-1);
      if (last && JSON.stringify(last.lead) === JSON.stringify(lead)) continue;
      if (last) last.to = at;
      stretches.push({ from: at, to: this.span.to, lead });
    }
    return { ok: true, stretches, zone: this.zoneFound, notCarried: [...this.notCarried].slice(0, 200) };
  }

  private left(what: string): void {
    this.notCarried.add(what);
  }

  /** Every moment at which a time node begins or ends to fit. */
  private collect(node: Node, zone: string, cuts: Set<number>): void {
    const own = node.name === 'time-switch' ? this.zoneOf(node, zone) : zone;
    if (node.name === 'time') {
      const times = this.timesOf(node, zone);
      this.times.set(node, times);
      this.borders += times.length;
      if (this.borders > MOST_BORDERS)
        throw new Refusal('The times of the script recur more often than can be looked through.');
      for (const t of times) {
        cuts.add(t.from);
        cuts.add(t.to);
      }
    }
    for (const child of node.children) this.collect(child, own, cuts);
  }

  private zoneOf(node: Node, zone: string): string {
    const named = node.attributes.tzid;
    if (!named) return zone;
    try {
      clockOf(named);
    } catch {
      this.left(`The zone ${named.slice(0, 60)}, which is not known; ${zone} was taken.`);
      return zone;
    }
    if (this.zoneFound !== null && this.zoneFound !== named)
      this.left(`Times of ${named} are written by the clock of ${this.zoneFound}.`);
    this.zoneFound ??= named;
    return named;
  }

  private timesOf({ attributes: a }: Node, zone: string): Times {
    const clock = clockOf(zone);
    const start = timeOf(a.dtstart);
    if (!start) {
      this.left('A time without dtstart, or with one that is no time: it never fits.');
      return [];
    }
    const end = timeOf(a.dtend);
    let length: number;
    try {
      length = end
        ? wall(end) - wall(start)
        : a.duration
          ? ICAL.Duration.fromString(a.duration).toSeconds() / 60
          : 1440;
    } catch {
      this.left(`The duration ${a.duration?.slice(0, 40)}, which is none: that time never fits.`);
      return [];
    }
    if (!(length > 0)) {
      this.left('A time that ends before it begins: it never fits.');
      return [];
    }
    const moment = (minutes: number) => (start.utc ? minutes * MINUTE : momentOf(clock, minutes));
    const piece = (at: number) => ({ from: moment(at), to: moment(at + length) });
    const within = (t: { from: number; to: number }) => t.to > this.span.from && t.from < this.span.to;
    if (!a.freq) return [piece(wall(start))].filter(within);
    return this.occurrences(a, start, length).map(piece).filter(within);
  }

  /** Wall minutes at which a recurring time begins (RFC 3880 section 4.4, RFC 5545). */
  private occurrences(a: Record<string, string>, start: WallTime, length: number): number[] {
    const freq = a.freq!.toUpperCase();
    if (!['DAILY', 'WEEKLY', 'MONTHLY', 'YEARLY'].includes(freq)) {
      this.left(`A time that recurs ${a.freq!.slice(0, 20)}: more often than opening hours do; it never fits.`);
      return [];
    }
    const parts = [
      'interval',
      'until',
      'count',
      'byday',
      'bymonthday',
      'byyearday',
      'byweekno',
      'bymonth',
      'bysetpos',
      'wkst',
    ];
    const rule = [
      `FREQ=${freq}`,
      ...parts.flatMap((p) => (a[p] ? [`${p.toUpperCase()}=${a[p].toUpperCase()}`] : [])),
    ].join(';');
    for (const p of ['byhour', 'byminute', 'bysecond'])
      if (a[p]) this.left(`${p} of a time: hours begin when their time begins.`);
    try {
      const out: number[] = [];
      const first = ICAL.Time.fromDateTimeString(start.iso);
      // What began long ago is begun again near the span, where the rule has no count.
      const steps = ICAL.Recur.fromString(rule).iterator(first);
      const last = this.span.to / MINUTE + 1440;
      const early = this.span.from / MINUTE - length - 1440;
      for (let n = 0, next = steps.next(); next; next = steps.next(), n++) {
        const at = Date.UTC(next.year, next.month - 1, next.day, next.hour, next.minute) / MINUTE;
        if (at > last) break;
        if (at >= early) out.push(at);
        if (n > MOST_OCCURRENCES * 10 || out.length > MOST_OCCURRENCES) {
          this.left('A time that recurs very often is read only in part.');
          break;
        }
      }
      return out;
    } catch {
      this.left(`A recurrence that is none (${rule.slice(0, 80)}): it never fits.`);
      return [];
    }
  }

  /** What a sequence of nodes does with a caller from anywhere at a moment; `location` is where the call would be sent. */
  private at(nodes: readonly Node[], moment: number, location: CplLead | null, depth: number): CplLead {
    if (depth > MOST_DEPTH) {
      this.left('Actions that call one another round and round.');
      return { type: 'nothing' };
    }
    const go = (next: readonly Node[], to = location) => this.at(next, moment, to, depth + 1);
    const node = nodes[0];
    if (!node) return location ?? { type: 'nothing' };
    const { name, attributes: a, children } = node;
    const branch = (of: string) => children.find((c) => c.name === of)?.children;
    switch (name) {
      case 'sub': {
        const sub = this.subs.get(a.ref ?? '');
        if (sub) return go(sub.children);
        this.left(`The action ${(a.ref ?? '').slice(0, 60)}, which is not there.`);
        return { type: 'nothing' };
      }
      case 'time-switch': {
        const fits = children.find((c) => this.times.get(c)?.some((t) => t.from <= moment && moment < t.to));
        return go((fits ?? children.find((c) => c.name === 'otherwise'))?.children ?? []);
      }
      case 'location':
        return go(children, this.leadOf(a.url ?? ''));
      case 'proxy':
        for (const way of ['redirection', 'failure', 'default'] as const)
          if (branch(way)) this.left(`What happens on ${way} after a call was sent on.`);
        if (a.ordering || a.recurse) this.left('In which order several places ring.');
        return location ?? { type: 'nothing' };
      case 'redirect':
        return location ?? { type: 'nothing' };
      case 'reject':
        return { type: 'reject', status: (a.status ?? 'reject').slice(0, 20) };
      case 'mail':
      case 'log':
        this.left(name === 'mail' ? 'Mails that the script sends.' : 'What the script writes down.');
        return go(children);
      case 'address-switch':
      case 'string-switch':
      case 'language-switch':
      case 'priority-switch':
        this.left(`Conditions on ${name.replace('-switch', '')}: what holds for other callers is read.`);
        return go(branch('otherwise') ?? branch('not-present') ?? []);
      case 'lookup':
        // Where the call would go by itself is looked up: that is what happens without the script.
        if (a.source !== 'registration') this.left('Places that the script looks up elsewhere.');
        return go(branch('success') ?? branch('notfound') ?? [], null);
      case 'remove-location':
        return go(children, null);
      default:
        this.left(`${name.slice(0, 40)}: an extension that is not known here.`);
        return go(children);
    }
  }

  private leadOf(url: string): CplLead | null {
    const tel = /^tel:(\+?[0-9().-]{2,40})/i.exec(url);
    if (tel) return { type: 'number', number: tel[1]!.replace(/[().-]/g, '') };
    const sip = /^sips?:([^@;?]{1,200})@/i.exec(url);
    if (sip) {
      let user = sip[1]!;
      try {
        user = decodeURIComponent(user);
      } catch {
        // It stands as it is written.
      }
      return user.startsWith('+') ? { type: 'number', number: user } : { type: 'user', user };
    }
    this.left(`The address ${url.slice(0, 80)}, which is no SIP address and no number.`);
    return null;
  }
}

interface WallTime {
  iso: string;
  utc: boolean;
}

const wall = ({ iso }: WallTime) => Date.parse(`${iso}Z`) / MINUTE;

/** A date or time of RFC 5545, such as `20261224T080000`; null when it is none. */
function timeOf(text: string | undefined): WallTime | null {
  const read = /^(\d{4})(\d{2})(\d{2})(?:T(\d{2})(\d{2})(\d{2})(Z)?)?$/i.exec(text ?? '');
  if (!read) return null;
  const [, y, mo, d, h = '00', mi = '00', s = '00', z] = read;
  const iso = `${y}-${mo}-${d}T${h}:${mi}:${s}`;
  const at = Date.parse(`${iso}Z`);
  if (Number.isNaN(at) || new Date(at).toISOString().slice(0, 10) !== iso.slice(0, 10)) return null;
  return at % DAY >= 0 ? { iso, utc: z !== undefined } : null;
}
