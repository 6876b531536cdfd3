/** Days as the notation writes them, Monday first (ISO 8601: day 1 is Monday). */
export const DAYS = ['mon', 'tue', 'wed', 'thu', 'fri', 'sat', 'sun'] as const;

export const DAY_MINUTES = 1440;

/** An open span that begins on a day: minutes after its midnight, `to` past 1440 when it runs into the next day. Half-open. */
export interface Span {
  from: number;
  to: number;
}

/** Opening times of a week: spans by the day on which they begin, Monday first. */
export type Week = readonly (readonly Span[])[];

export interface SpecError {
  offset: number;
  expected: string;
  sentence: string;
}

export type WeekResult = { ok: true; week: Week } | { ok: false; error: SpecError };
export type SpansResult = { ok: true; spans: Span[] } | { ok: false; error: SpecError };

const MOST_TEXT = 1000;

class Refusal extends Error {
  constructor(
    readonly offset: number,
    readonly expected: string,
    what: string,
  ) {
    super(what);
  }
}

/**
 * Reads opening times such as `mon-fri 7-19, sat 8-13:30, fri 22-2` (ENGINE E10, CONTRACT): parts divided by commas add up,
 * day spans may wrap, an end before its start runs past midnight. An empty text is never open. Never throws.
 */
export function parseWeek(text: string): WeekResult {
  return attempt(text, (reader) => {
    const week: Span[][] = DAYS.map(() => []);
    if (reader.blank()) return { ok: true, week };
    do {
      const days = reader.days();
      const span = reader.span();
      for (const day of days) week[day]!.push(span);
    } while (reader.comma('another day and time'));
    return { ok: true, week };
  });
}

/** Reads the times of one day, such as `8-13, 14-17`; an empty text is closed all day. Never throws. */
export function parseSpans(text: string): SpansResult {
  return attempt(text, (reader) => {
    const spans: Span[] = [];
    if (reader.blank()) return { ok: true, spans };
    do spans.push(reader.span());
    while (reader.comma('another time'));
    return { ok: true, spans };
  });
}

function attempt<T extends { ok: true }>(
  text: string,
  read: (reader: Reader) => T,
): T | { ok: false; error: SpecError } {
  try {
    return read(new Reader(text));
  } catch (e) {
    if (!(e instanceof Refusal)) throw e;
    const { offset, expected } = e;
    return {
      ok: false,
      error: { offset, expected, sentence: `${e.message} at position ${offset + 1}: ${expected} is expected there.` },
    };
  }
}

class Reader {
  private at = 0;

  constructor(private readonly text: string) {
    if (text.length > MOST_TEXT)
      throw new Refusal(MOST_TEXT, `a text of at most ${MOST_TEXT} characters`, 'The hours are too long');
  }

  blank(): boolean {
    this.skip();
    return this.at === this.text.length;
  }

  comma(next: string): boolean {
    if (this.blank()) return false;
    if (this.text[this.at] !== ',') throw new Refusal(this.at, 'a comma or the end', 'The text goes on');
    this.at++;
    if (this.blank()) throw new Refusal(this.at, next, 'Nothing follows the comma');
    return true;
  }

  /** `fri` or `fri-mon`. */
  days(): number[] {
    const first = this.day('a day such as mon or mon-fri');
    this.skip();
    if (this.text[this.at] !== '-') return [first];
    this.at++;
    const last = this.day('the last day, such as fri');
    const count = ((last - first + 7) % 7) + 1;
    return Array.from({ length: count }, (_, i) => (first + i) % 7);
  }

  private day(expected: string): number {
    this.skip();
    const word = /^[a-z]*/i.exec(this.text.slice(this.at))![0].toLowerCase();
    const day = (DAYS as readonly string[]).indexOf(word);
    if (day < 0) throw new Refusal(this.at, expected, word ? `“${word}” is no day` : 'A day is missing');
    this.at += word.length;
    return day;
  }

  /** `7-19`, `8-13:30`, `22-2`, `0-24`. */
  span(): Span {
    this.skip();
    const begin = this.at;
    const from = this.time('a time such as 7 or 7:30');
    if (from === DAY_MINUTES) throw new Refusal(begin, 'a start before 24:00', 'A span begins at 24:00');
    this.skip();
    if (this.text[this.at] !== '-') throw new Refusal(this.at, '- and the end, such as -19', 'The end is missing');
    this.at++;
    const to = this.time('the end, such as 19');
    if (from === to) throw new Refusal(begin, 'an end other than the start; 0-24 is a whole day', 'The span is empty');
    return { from, to: to < from ? to + DAY_MINUTES : to };
  }

  private time(expected: string): number {
    this.skip();
    const match = /^(\d{1,2})(?::(\d{2}))?(?!\d)/.exec(this.text.slice(this.at));
    if (!match) throw new Refusal(this.at, expected, 'A time is missing');
    const minutes = Number(match[1]) * 60 + Number(match[2] ?? 0);
    if (minutes > DAY_MINUTES || Number(match[2] ?? 0) > 59)
      throw new Refusal(this.at, 'a time of 0 to 24:00', `“${match[0]}” is no time`);
    this.at += match[0].length;
    return minutes;
  }

  private skip(): void {
    while (this.at < this.text.length && /\s/.test(this.text[this.at]!)) this.at++;
  }
}

/** Spans in order with those that touch or overlap made one. */
export function merged(spans: readonly Span[]): Span[] {
  const out: Span[] = [];
  for (const span of [...spans].sort((a, b) => a.from - b.from || a.to - b.to)) {
    const last = out[out.length - 1];
    if (last && span.from <= last.to) last.to = Math.max(last.to, span.to);
    else out.push({ ...span });
  }
  return out;
}

/** What is open by day, in order: a span past midnight stays with its first day, one of a day or more is cut at midnights. */
export function openByDay(week: Week): Span[][] {
  const all = merged(week.flatMap((spans, day) => spans.map((s) => at(s, day * DAY_MINUTES))));
  const last = all[all.length - 1];
  const end = 7 * DAY_MINUTES;
  // Sunday night runs into Monday morning.
  if (last && last.to > end) {
    const over = last.to - end;
    const first = all[0]!;
    if (first.from <= over && first !== last) {
      last.to = Math.max(last.to, first.to + end);
      all.shift();
    }
  }
  const out: Span[][] = week.map(() => []);
  for (const span of all) {
    const cut = span.to - span.from >= DAY_MINUTES;
    let { from } = span;
    while (from < span.to) {
      const day = Math.floor(from / DAY_MINUTES);
      const to = cut ? Math.min(span.to, (day + 1) * DAY_MINUTES) : span.to;
      out[day % 7]!.push(at({ from, to }, -day * DAY_MINUTES));
      from = to;
    }
  }
  return out.map((spans) => merged(spans));
}

const at = (span: Span, shift: number): Span => ({ from: span.from + shift, to: span.to + shift });

/** The same opening times in the shortest notation, days with equal times together. */
export function weekText(week: Week): string {
  const byTimes = new Map<string, number[]>();
  week.forEach((spans, day) => {
    for (const s of merged(spans)) {
      const key = `${timeText(s.from)}-${timeText(s.to > DAY_MINUTES ? s.to - DAY_MINUTES : s.to)}`;
      byTimes.set(key, [...(byTimes.get(key) ?? []), day]);
    }
  });
  return [...byTimes]
    .flatMap(([times, days]) => daySpans(days).map(([a, b]) => `${DAYS[a]}${a === b ? '' : `-${DAYS[b]}`} ${times}`))
    .join(', ');
}

/** The times of one day in the shortest notation; empty: closed all day. */
export const spansText = (spans: readonly Span[]): string =>
  merged(spans)
    .map((s) => `${timeText(s.from)}-${timeText(s.to > DAY_MINUTES ? s.to - DAY_MINUTES : s.to)}`)
    .join(', ');

function timeText(minutes: number): string {
  const m = minutes % 60;
  return `${Math.floor(minutes / 60)}${m === 0 ? '' : `:${String(m).padStart(2, '0')}`}`;
}

/** Days in a row as [first, last]. */
export function daySpans(days: readonly number[]): [number, number][] {
  const out: [number, number][] = [];
  for (const day of days) {
    const last = out[out.length - 1];
    if (last && last[1] === day - 1) last[1] = day;
    else out.push([day, day]);
  }
  return out;
}
