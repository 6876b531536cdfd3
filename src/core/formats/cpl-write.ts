import {
  DAY_MINUTES,
  dateOf,
  merged,
  momentOf,
  partition,
  wallAt,
  weekdayOf,
  type Hours,
  type Stretch,
} from '../hours';

/* Call handling written in CPL (RFC 3880): a route's time rules as time-switches, each end as a subaction. */

/** Somewhere that callers go. */
export interface CplPlace {
  key: string;
  /** the user part of its SIP address (RFC 3261), or a telephone number with + (RFC 3966) */
  user: string;
  /** how it rings before somebody else gets the call; null: it takes the call */
  rings: { seconds: number; noAnswer: string | null; busy: string | null } | null;
}

export interface CplRoute {
  /** read top to bottom; the first whose hours are in its mode decides */
  rules: readonly { hours: Hours; when: 'open' | 'closed' | 'holiday'; to: string }[];
  /** null: turned away */
  otherwise: string | null;
  /** in an order in which what a place leads on to comes before it */
  places: readonly CplPlace[];
  domain: string;
  /** days for which what differs from the week is spelt out, as day numbers, half-open */
  fromDay: number;
  toDay: number;
}

type Mode = 'open' | 'closed' | 'holiday';
interface TimeNode {
  attributes: Record<string, string>;
  mode: Mode;
}

const DAYS = ['MO', 'TU', 'WE', 'TH', 'FR', 'SA', 'SU'] as const;
const MINUTE = 60_000;

/** A route in CPL. What comes before names only what stands above it (RFC 3880 section 8.1), so it is written from its ends backwards. */
export function writeCpl(route: CplRoute): string {
  const out = ['<?xml version="1.0" encoding="UTF-8"?>', '<cpl xmlns="urn:ietf:params:xml:ns:cpl">'];
  for (const place of route.places) out.push(...placeLines(place, route.domain));
  const last =
    route.otherwise === null ? ['<reject status="notfound"/>'] : [`<sub ref="${idOf('to', route.otherwise)}"/>`];
  out.push('  <subaction id="otherwise">', ...last.map((l) => `    ${l}`), '  </subaction>');
  for (let i = route.rules.length - 1; i >= 0; i--) {
    const { hours, when, to } = route.rules[i]!;
    const next = i + 1 < route.rules.length ? `rule-${i + 2}` : 'otherwise';
    const fits = (mode: Mode) => (when === 'closed' ? mode !== 'open' : mode === when);
    const lead = (mode: Mode) => `<sub ref="${fits(mode) ? idOf('to', to) : next}"/>`;
    out.push(`  <subaction id="rule-${i + 1}">`, `    <time-switch tzid="${escaped(hours.clock.zone)}">`);
    for (const node of timeNodes(hours, route.fromDay, route.toDay))
      out.push(
        `      <time ${Object.entries(node.attributes)
          .map(([k, v]) => `${k}="${v}"`)
          .join(' ')}>${lead(node.mode)}</time>`,
      );
    out.push(`      <otherwise>${lead('closed')}</otherwise>`, '    </time-switch>', '  </subaction>');
  }
  out.push(
    '  <incoming>',
    `    <sub ref="${route.rules.length > 0 ? 'rule-1' : 'otherwise'}"/>`,
    '  </incoming>',
    '</cpl>',
    '',
  );
  return out.join('\n');
}

function placeLines({ key, user, rings }: CplPlace, domain: string): string[] {
  const url = user.startsWith('+') ? `tel:${user}` : `sip:${encodeURIComponent(user)}@${domain}`;
  const onward = (name: string, to: string | null) =>
    to === null ? [] : [`        <${name}><sub ref="${idOf('to', to)}"/></${name}>`];
  const ways = rings ? [...onward('busy', rings.busy), ...onward('noanswer', rings.noAnswer)] : [];
  const timeout = rings ? ` timeout="${rings.seconds}"` : '';
  return [
    `  <subaction id="${idOf('to', key)}">`,
    `    <location url="${escaped(url)}">`,
    ...(ways.length > 0 ? [`      <proxy${timeout}>`, ...ways, '      </proxy>'] : [`      <proxy${timeout}/>`]),
    '    </location>',
    '  </subaction>',
  ];
}

/** An XML name (RFC 3880 wants ids): letters, digits, hyphens. */
const idOf = (head: string, key: string) =>
  `${head}-${key.replace(/[^A-Za-z0-9-]/g, (c) => `.${c.codePointAt(0)!.toString(16)}`)}`;

const escaped = (text: string) =>
  text.replace(/[&<>"]/g, (c) => ({ '&': '&amp;', '<': '&lt;', '>': '&gt;', '"': '&quot;' })[c]!);

/** A local time of RFC 5545: day and minute after its midnight, which may be past the next one. */
function local(day: number, minute: number): string {
  const at = new Date((day * DAY_MINUTES + minute) * MINUTE).toISOString();
  return `${at.slice(0, 10).replaceAll('-', '')}T${at.slice(11, 19).replaceAll(':', '')}`;
}

/** Hours as time nodes of which the first that fits decides: days that differ from the week, holidays of every year, the week. */
function timeNodes(hours: Hours, fromDay: number, toDay: number): TimeNode[] {
  return [...differingDays(hours, fromDay, toDay), ...yearly(hours, fromDay), ...weekly(hours, fromDay)];
}

function differingDays(hours: Hours, fromDay: number, toDay: number): TimeNode[] {
  const bare: Hours = { ...hours, holidays: new Map(), yearly: new Map(), exceptions: new Map() };
  const [ours, plain] = [daysOf(hours, fromDay, toDay), daysOf(bare, fromDay, toDay)];
  const out: TimeNode[] = [];
  for (let day = fromDay; day < toDay; day++) {
    const here = ours.get(day) ?? [];
    if (clockChanges(hours, day)) {
      out.push(...inMoments(hours, day));
      continue;
    }
    if (JSON.stringify(here) === JSON.stringify(plain.get(day) ?? [])) continue;
    for (const { from, to, mode } of here)
      out.push({ attributes: { dtstart: local(day, from), dtend: local(day, to) }, mode });
  }
  return out;
}

const momentAt = (hours: Hours, day: number) => momentOf(hours.clock, day * DAY_MINUTES);

/** Whether the clock is changed on a day: wall time of it is skipped or happens twice there. */
function clockChanges(hours: Hours, day: number): boolean {
  return hours.clock.offsetAt(momentAt(hours, day)) !== hours.clock.offsetAt(momentAt(hours, day + 1));
}

/** A day on which the clock is changed, in UTC: local times would mean something else there (RFC 5545 section 3.3.5). */
const inMoments = (hours: Hours, day: number): TimeNode[] =>
  partition(hours, [], momentAt(hours, day), momentAt(hours, day + 1)).map((s) => ({
    attributes: { dtstart: `${local(0, s.from / MINUTE)}Z`, dtend: `${local(0, s.to / MINUTE)}Z` },
    mode: modeOf(s),
  }));

const modeOf = ({ state }: Stretch): Mode => (state.mode === 'holiday' ? 'holiday' : state.open ? 'open' : 'closed');

/** What holds on each day, in minutes after its midnight on the wall clock. */
function daysOf(hours: Hours, fromDay: number, toDay: number): Map<number, { from: number; to: number; mode: Mode }[]> {
  const { clock } = hours;
  const moment = (day: number) => day * DAY_MINUTES * MINUTE;
  const margin = 2 * DAY_MINUTES * MINUTE;
  const out = new Map<number, { from: number; to: number; mode: Mode }[]>();
  for (const s of partition(hours, [], moment(fromDay) - margin, moment(toDay) + margin)) {
    const mode = modeOf(s);
    const [from, to] = [wallAt(clock, s.from), wallAt(clock, s.to - MINUTE) + 1];
    for (let day = Math.floor(from / DAY_MINUTES); day * DAY_MINUTES < to; day++) {
      const base = day * DAY_MINUTES;
      const piece = { from: Math.max(0, from - base), to: Math.min(DAY_MINUTES, to - base), mode };
      if (piece.from >= piece.to) continue;
      const list = out.get(day) ?? [];
      out.set(day, list);
      const last = list.at(-1);
      // Time that happens twice is said once.
      if (last && last.mode === mode && piece.from <= last.to) last.to = Math.max(last.to, piece.to);
      else list.push(piece);
    }
  }
  return out;
}

function yearly(hours: Hours, fromDay: number): TimeNode[] {
  return [...hours.yearly.keys()].sort().map((monthDay) => {
    const [month, day] = monthDay.split('-').map(Number);
    let first = fromDay;
    while (dateOf(first).slice(5) !== monthDay && first < fromDay + 1500) first++;
    return {
      attributes: {
        dtstart: local(first, 0),
        dtend: local(first, DAY_MINUTES),
        freq: 'yearly',
        bymonth: String(month),
        bymonthday: String(day),
      },
      mode: 'holiday' as const,
    };
  });
}

function weekly(hours: Hours, fromDay: number): TimeNode[] {
  const groups = new Map<string, { from: number; to: number; days: number[] }>();
  hours.week.forEach((spans, day) => {
    for (const s of merged(spans)) {
      const key = `${s.from} ${s.to}`;
      const group = groups.get(key) ?? { ...s, days: [] };
      groups.set(key, group);
      group.days.push(day);
    }
  });
  return [...groups.values()].map(({ from, to, days }) => {
    // A week before, so that a night that began then is in it.
    let first = fromDay - 7;
    while (!days.includes(weekdayOf(first))) first++;
    return {
      attributes: {
        dtstart: local(first, from),
        dtend: local(first, to),
        freq: 'weekly',
        byday: days.map((d) => DAYS[d]).join(','),
      },
      mode: 'open' as const,
    };
  });
}
