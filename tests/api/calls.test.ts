import { afterAll, beforeAll, describe, expect, it, jest } from '@jest/globals';
import { DateTime } from 'luxon';
import type { CallQueueFigures } from '@/contract/call-load';
import type { CallRow, CallsPage, ReplayAnswer } from '@/contract/records';
import { readPlan } from '@/core/plan';
import { readRecords, replay, type CallRecord } from '@/core/records';
import { compile } from '@/core/routing';
import { plantedBefore } from '../../demo/history';
import { Client, admin, auditor, database, helpdesk } from '../support/api';
import { ended } from '../support/jobs';
import { ELSEWHERE, mainNumberElsewhere } from '../support/main-number';

/* Calls through the API, held against what the export says, counted by hand. */

jest.setTimeout(120_000);

let boss: Client;
let every: CallRecord[];
let takeBack: () => Promise<void>;

const ZONE = 'Europe/London';
const keyOf = (r: CallRecord) => `${Date.parse(r.started)}.${r.id}`;
const lines = async (query: string, who = boss): Promise<CallRecord[]> => {
  const { text } = await who.text(`/calls/file?format=jsonl${query}`);
  const read = readRecords(text);
  if (!read.ok) throw new Error(JSON.stringify(read.errors[0]));
  return read.records;
};

async function pages(query: string): Promise<CallRow[]> {
  const out: CallRow[] = [];
  for (let before = ''; ;) {
    const { status, body } = await boss.get<CallsPage & Record<string, unknown>>(`/calls?${query}&before=${before}`);
    if (status !== 200) throw new Error(JSON.stringify(body));
    out.push(...body.calls);
    if (body.next === null) return out;
    before = body.next;
  }
}

beforeAll(async () => {
  boss = await admin();
  every = await lines('');
  takeBack = await mainNumberElsewhere(boss);
});
afterAll(() => takeBack());

const day = (iso: string) => DateTime.fromISO(iso).setZone(ZONE);
const isMissed = (r: CallRecord) =>
  r.entry.type === 'number' &&
  r.answeredBy === null &&
  r.outcome !== 'refused' &&
  (r.lands === null ||
    ['extension', 'ringGroup', 'queue', 'mailbox', 'attendant', 'directory', 'tone'].includes(r.lands.kind));
const isOut = (r: CallRecord) =>
  r.entry.type === 'phone' && (r.trunk !== null || r.lands?.kind === 'outside' || r.called.read !== null);

describe('the ledger of calls', () => {
  it('has every call once, the newest first, page by page', async () => {
    const got = await pages('');
    expect(got.map((r) => r.key)).toEqual(every.map(keyOf));
    expect([...every].sort((a, b) => (a.started < b.started ? 1 : -1)).map((r) => r.started)).toEqual(
      every.map((r) => r.started),
    );
    expect(every.length).toBeGreaterThan(10_000);
  });

  const since = () => every[1500]!.started;
  it.each([
    [
      'a stretch of time',
      () => `from=${since()}&to=${every[200]!.started}`,
      (r: CallRecord) => r.started >= since() && r.started < every[200]!.started,
    ],
    ['missed ones', () => `state=missed&from=${since()}`, (r: CallRecord) => r.started >= since() && isMissed(r)],
    ['failed ones', () => 'state=failed', (r: CallRecord) => r.outcome !== 'routed'],
    [
      'a trunk',
      () => `trunk=sundvik&from=${since()}`,
      (r: CallRecord) => r.started >= since() && r.trunk === 'sundvik',
    ],
    ['any trunk', () => `trunk=any&from=${since()}`, (r: CallRecord) => r.started >= since() && r.trunk !== null],
    ['an end', () => 'end=m-2105', (r: CallRecord) => r.lands?.id === 'm-2105'],
    ['nowhere', () => 'end=none', (r: CallRecord) => r.lands === null],
    ['a cause', () => 'cause=1', (r: CallRecord) => r.cause?.q850 === 1],
    ['a way', () => `way=out&from=${since()}`, (r: CallRecord) => r.started >= since() && isOut(r)],
    [
      'a caller in national spelling',
      () => 'number=07700 900300',
      (r: CallRecord) => [r.calling.read, r.called.read].includes('+447700900300'),
    ],
    [
      'one of our numbers',
      () => 'number=01632960147',
      (r: CallRecord) => r.entry.type === 'number' && r.entry.number === '+441632960147',
    ],
    [
      'an extension',
      () => 'number=2105',
      (r: CallRecord) =>
        (r.entry.type === 'phone' && r.entry.extension === 'e-2105') ||
        r.answeredBy === 'e-2105' ||
        r.lands?.id === 'e-2105',
    ],
    ['hours of the day', () => 'hour=7', (r: CallRecord) => day(r.started).hour === 7],
    [
      'days of the week',
      () => `weekday=6&from=${every.at(-1)!.started}`,
      (r: CallRecord) => day(r.started).weekday === 7,
    ],
    [
      'a waiting time',
      () => 'wait=4',
      (r: CallRecord) => {
        const waited = (Date.parse(r.answered ?? r.ended) - Date.parse(r.started)) / 1000;
        return waited >= 30 && waited < 60;
      },
    ],
    [
      'several at once',
      () => 'trunk=kestrel&state=missed&hour=10&way=in',
      (r: CallRecord) => r.trunk === 'kestrel' && isMissed(r) && day(r.started).hour === 10,
    ],
  ])('finds %s as the export has it', async (_, query, fits) => {
    const expected = every.filter(fits).map(keyOf);
    expect(expected.length).toBeGreaterThan(0);
    expect((await pages(encodeURI(query()))).map((r) => r.key)).toEqual(expected);
  });

  it('a person is found by every phone of theirs', async () => {
    const { body } = await boss.get<{ extensions: { id: string; person: string | null }[] }>('/plan?of=draft');
    const person = body.extensions.find((e) => e.id === 'e-2105')!.person!;
    const own = new Set(body.extensions.filter((e) => e.person === person).map((e) => e.id));
    const is = (id: string | null | undefined) => id != null && own.has(id);
    const expected = every.filter(
      (r) => (r.entry.type === 'phone' && is(r.entry.extension)) || is(r.answeredBy) || is(r.lands?.id),
    );
    expect((await pages(`person=${person}`)).map((r) => r.key)).toEqual(expected.map(keyOf));
  });

  it.each([
    ['from=yesterday', 400],
    ['cause=200', 400],
    ['hour=24', 400],
    ['wait=9', 400],
    ['person=nobody', 422],
    ['before=odd', 400],
    [`number=${'1'.repeat(65)}`, 400],
  ])('refuses %s where it stands', async (query, status) => {
    const got = await boss.get(`/calls?${query}`);
    expect([got.status, got.body.error!.path]).toEqual([status, expect.stringContaining(query.split('=')[0]!)]);
  });

  it('refuses what nothing reads', async () => {
    expect((await boss.get('/calls?colour=red')).body.error).toMatchObject({ code: 'unrecognized_keys' });
  });

  it('a number that nobody has, or text that is none, finds nothing', async () => {
    expect(await pages('number=%2B447700999999')).toEqual([]);
    expect(await pages("number='; DROP TABLE call_record; --")).toEqual([]);
    expect(await pages('trunk=none&site=none')).toEqual([]);
  });
});

describe('one call', () => {
  const one = (key: string, who = boss) => who.get<Record<string, unknown>>(`/calls/${key}`);

  it('that went as its plan has it differs in nothing, and in the draft where that was edited', async () => {
    const main = every.find(
      (r) => r.entry.type === 'number' && r.entry.number === '+441632960100' && r.lands?.id === 'bookings-desk',
    )!;
    const { body } = await one(keyOf(main));
    expect(body).toMatchObject({
      before: { refused: null, difference: null, trace: { lands: { id: 'bookings-desk' } } },
      draft: {
        difference: { what: 'The first place', was: 'Main attendant', willBe: ELSEWHERE.name, atSeconds: 0 },
      },
      zone: ZONE,
      revision: main.revision,
      keys: [{ key: '1' }],
    });
  });

  it('that went by another trunk names it', async () => {
    const { down } = plantedBefore(Date.now());
    const within = (r: CallRecord) => Date.parse(r.started) >= down.from && Date.parse(r.started) < down.to;
    const odd = every.filter((r) => within(r) && r.trunk === 'sundvik' && r.shown?.startsWith('+441632'));
    const differences = await Promise.all(
      odd.map(async (r) => (await one(keyOf(r))).body.before as { difference: object | null }),
    );
    const named = differences.filter((d) => d.difference !== null);
    expect(named.length).toBeGreaterThan(0);
    for (const d of named)
      expect(d.difference).toEqual({ what: 'The trunk', was: 'Sundvik Nät', willBe: 'Kestrel Voice', atSeconds: 0 });
  });

  it('in the storm is led by the notice that held then', async () => {
    const stormy = every.find(
      (r) =>
        r.entry.type === 'number' &&
        r.course[0]?.id === 'main-attendant' &&
        r.lands?.id === 'm-2000' &&
        [1, 2, 3, 4, 5].includes(day(r.started).weekday) &&
        day(r.started).hour === 19,
    )!;
    const { body } = await one(keyOf(stormy));
    const { trace, difference } = body.before as { trace: { steps: { sentence: string }[] }; difference: unknown };
    expect([difference, trace.steps.some((s) => /Storm|closed/.test(s.sentence))]).toEqual([null, true]);
  });

  it.each(['1.nothing', 'odd', `${'9'.repeat(14)}.x`, '0.%27'])('%s is not there', async (key) => {
    expect((await one(key)).status).toBe(404);
  });
});

describe('what may be seen of calls', () => {
  it('an auditor sees calls and no outside number, in pages, exports, missed calls and replays', async () => {
    const looker = await auditor();
    const numbers = [
      ...new Set(every.flatMap((r) => [r.entry.type === 'number' ? r.calling.read : r.called.read])),
    ].filter((n): n is string => n !== null && !n.startsWith('+44163296010'));
    const tails = new Set(numbers.map((n) => n.slice(-7)));
    const leaks = (text: string) =>
      (text.match(/[0-9][0-9 ]{6,}/g) ?? []).filter((run) => [...tails].some((t) => run.replace(/ /g, '').endsWith(t)));
    const from = every[400]!.started;
    const texts = [
      JSON.stringify((await looker.get(`/calls?from=${from}&way=in`)).body),
      JSON.stringify((await looker.get(`/calls?from=${from}&way=out`)).body),
      (await looker.text(`/calls/file?format=csv&from=${from}`)).text,
      (await looker.text(`/calls/file?format=jsonl&from=${from}`)).text,
      JSON.stringify((await looker.get('/calls/missed?days=30')).body),
      await looker.page('/calls'),
      await looker.page('/calls/missed'),
    ];
    for (const [i, text] of texts.entries()) {
      expect([i, text.length > 500]).toEqual([i, true]);
      expect([i, leaks(text)]).toEqual([i, []]);
    }
    const samples = [
      every.find((r) => r.entry.type === 'number' && r.calling.read)!,
      every.find((r) => isOut(r) && r.lands?.kind === 'outside')!,
    ];
    for (const r of samples) {
      const { status, body } = await looker.get(`/calls/${keyOf(r)}`);
      expect(status).toBe(200);
      expect(leaks(JSON.stringify(body))).toEqual([]);
      expect(leaks(await looker.page(`/calls/${keyOf(r)}`))).toEqual([]);
    }
    const job = await looker.post<{ job: string }>('/calls/replay', { from: every[3000]!.started });
    const { result } = await ended(looker, job.body.job);
    expect((result as unknown as ReplayAnswer).groups.length).toBeGreaterThan(1);
    expect(leaks(JSON.stringify(result))).toEqual([]);
    // Nor can a number be guessed by asking for it.
    expect((await looker.get('/calls?number=%2B447700900300')).body.error).toMatchObject({ code: 'numbers-masked' });
    expect((await looker.get('/calls?number=2105')).status).toBe(200);
  });

  it('the help desk sees numbers; who may bring in or erase is told apart', async () => {
    const desk = await helpdesk();
    const { body } = await desk.get<CallsPage & Record<string, unknown>>('/calls?way=in&state=answered');
    expect(JSON.stringify(body)).toContain('+44 7700 900');
    for (const [path, content] of [
      ['/call-logs', { name: 'x.csv', octets: 3 }],
      ['/calls/erasure/preview', { number: '+447700900300' }],
      ['/calls/erasure', { number: '+447700900300' }],
    ] as const)
      expect((await desk.post(path, content)).status).toBe(403);
    expect((await Client.anonymous().get('/calls')).status).toBe(401);
  });

  it('a role of one site sees calls of that site only, in every view', async () => {
    const grants = ['look', 'ask', 'seeCalls', 'seeNumbers'].map((right) => ({
      right,
      areas: 'all',
      sites: ['vastra-kajen'],
    }));
    const role = await boss.post<{ id: string }>('/roles', { name: 'Calls of Västra', grants });
    const token = await boss.post<{ token: string }>('/tokens', {
      name: 'calls of one site',
      role: role.body.id,
      days: 1,
    });
    const one = Client.bearer(token.body.token);
    const own = await lines('', one);
    expect(own.length).toBeGreaterThan(500);
    const { body: plan } = await boss.get<{
      numbers: { e164: string; site: string }[];
      extensions: { id: string; site: string }[];
    }>('/plan');
    const siteOf = (r: CallRecord) =>
      r.entry.type === 'number'
        ? plan.numbers.find((n) => n.e164 === (r.entry as { number: string }).number)?.site
        : plan.extensions.find((e) => e.id === (r.entry as { extension: string }).extension)?.site;
    expect(own.map(keyOf)).toEqual(every.filter((r) => siteOf(r) === 'vastra-kajen').map(keyOf));
    const figures = await one.get<CallQueueFigures & Record<string, unknown>>(
      '/calls/queue-figures?queue=bookings-queue',
    );
    expect([figures.status, figures.body.calls]).toEqual([200, 0]);
    // Work that was asked for by a token is done with its rights, and it sees no other work of its maker.
    const makers = await boss.post<{ job: string }>('/calls/replay', { from: every[3000]!.started });
    const whole = await ended(boss, makers.body.job);
    expect((await one.get(`/jobs/${makers.body.job}`)).status).toBe(404);
    // Who is at other sites is named nowhere, whoever they talked with.
    const { body: people } = await boss.get<{ people: { name: string; site: string }[] }>('/plan');
    const others = people.people.filter((p) => p.site !== 'vastra-kajen').map((p) => p.name);
    const across = own.filter((r) => r.answeredBy !== null && !r.answeredBy.startsWith('e-30')).slice(0, 5);
    expect(across.length).toBeGreaterThan(2);
    const job = await one.post<{ job: string }>('/calls/replay', { from: every[3000]!.started });
    const its = await ended(one, job.body.job);
    expect(Number(its.result.calls)).toBeLessThan(Number(whole.result.calls));
    const texts = [
      JSON.stringify(its),
      (await one.text('/calls/file?format=csv')).text,
      (await one.text('/calls/file?format=jsonl')).text,
      JSON.stringify((await one.get('/calls/missed?days=60&all=true')).body),
      JSON.stringify((await one.get('/calls/counts/end')).body),
      ...(await Promise.all(across.map(async (r) => JSON.stringify((await one.get(`/calls/${keyOf(r)}`)).body)))),
      JSON.stringify((await one.get(`/calls?to=${new Date(Date.parse(across[0]!.started) + 1).toISOString()}`)).body),
    ];
    for (const [at, text] of texts.entries())
      expect([at, text.length > 300, others.filter((name) => text.includes(name))]).toEqual([at, true, []]);
    // Traffic of some of the calls says that it is not all of it.
    const from = every[4000]!.started;
    const traffic = (by: Client) => by.get<{ whole: boolean; calls: number }>(`/calls/traffic?trunk=any&from=${from}`);
    const [some, full] = [(await traffic(one)).body, (await traffic(boss)).body];
    expect([some.whole, full.whole, some.calls < full.calls]).toEqual([false, true, true]);
    const foreign = every.find((r) => siteOf(r) === 'north-quay')!;
    expect((await one.get(`/calls/${keyOf(foreign)}`)).status).toBe(404);
    const all = await boss.get<{ bars: { answered: number; missed: number; other: number }[] }>(
      '/calls/counts/trunk?site=north-quay',
    );
    const theirs = await one.get<{ bars: unknown[] }>('/calls/counts/trunk?site=north-quay');
    expect([all.body.bars.length > 0, theirs.body.bars]).toEqual([true, []]);
    const { body: refused } = await boss.post('/roles', {
      name: 'By area',
      grants: [{ right: 'seeCalls', areas: ['people'], sites: 'all' }],
    });
    expect(refused.error!.sentence).toMatch(/limited by site only/);
  });
});

describe('calls counted', () => {
  interface Bar {
    value: string;
    label: string;
    answered: number;
    missed: number;
    other: number;
  }
  const sums = (list: readonly CallRecord[]) => ({
    answered: list.filter((r) => r.answered !== null && !isMissed(r)).length,
    missed: list.filter(isMissed).length,
    other: list.filter((r) => r.answered === null && !isMissed(r)).length,
  });

  it.each([
    ['hour', (r: CallRecord) => String(day(r.started).hour)],
    ['weekday', (r: CallRecord) => String(day(r.started).weekday - 1)],
    ['day', (r: CallRecord) => day(r.started).toISODate()!],
    ['trunk', (r: CallRecord) => r.trunk],
    ['number', (r: CallRecord) => (r.entry.type === 'number' ? r.entry.number : null)],
    ['cause', (r: CallRecord) => (r.cause ? String(r.cause.q850) : null)],
    ['end', (r: CallRecord) => r.lands?.id ?? 'none'],
  ])('by %s are those of the export, and each bar opens as many', async (by, valueOf) => {
    const from = every[4000]!.started;
    const to = every[100]!.started;
    const { body } = await boss.get<{ bars: Bar[] }>(`/calls/counts/${by}?from=${from}&to=${to}`);
    const groups = new Map<string | null, CallRecord[]>();
    for (const r of every.filter((e) => e.started >= from && e.started < to))
      groups.set(valueOf(r), [...(groups.get(valueOf(r)) ?? []), r]);
    expect(body.bars.length).toBeGreaterThan(2);
    for (const { value, answered, missed, other } of body.bars)
      expect([value, sums(groups.get(value) ?? [])]).toEqual([value, { answered, missed, other }]);
    if (by === 'day') return;
    const bar = body.bars.find((b) => b.answered + b.missed + b.other > 3)!;
    const opened = await pages(`from=${from}&to=${to}&${by}=${encodeURIComponent(bar.value)}`);
    expect(opened).toHaveLength(bar.answered + bar.missed + bar.other);
  });

  it('across the change of the clock are counted by the clock on the wall, none twice, none lost', async () => {
    const { body } = await boss.get<{ bars: Bar[] }>('/calls/counts/day?from=2026-10-24&to=2026-10-26');
    for (const d of ['2026-10-24', '2026-10-25', '2026-10-26']) {
      const list = every.filter((r) => day(r.started).toISODate() === d);
      expect(body.bars.find((b) => b.value === d)).toMatchObject(sums(list));
    }
  });

  it('refuses what is nothing to count by, and more than a year', async () => {
    expect((await boss.get('/calls/counts/colour')).status).toBe(404);
    expect((await boss.get('/calls/counts/hour?from=2020-01-01')).body.error!.code).toBe('too-long');
  });
});

describe('callers to call back', () => {
  it('are those whom nobody took and whom nobody has reached since', async () => {
    const { body } = await boss.get<{
      callers: { number: string | null; times: number; last: string; since: { what: string } | null }[];
    }>('/calls/missed?days=7&all=true');
    const since = new Date(Date.now() - 7 * 86_400_000).toISOString();
    const missed = every.filter((r) => isMissed(r) && r.started >= since);
    const numberOf = (r: CallRecord) => r.calling.read ?? r.calling.delivered;
    const callers = new Map<string | null, CallRecord[]>();
    for (const r of missed) callers.set(numberOf(r), [...(callers.get(numberOf(r)) ?? []), r]);
    expect(body.callers.map((c) => c.number).sort()).toEqual([...callers.keys()].sort());
    let reached = 0;
    for (const c of body.callers) {
      const own = callers.get(c.number)!;
      expect([c.times, c.last]).toEqual([own.length, own[0]!.started]);
      if (c.number === null) continue;
      const later = every
        .filter(
          (r) =>
            r.started > c.last &&
            (isOut(r)
              ? r.called.read === c.number
              : r.entry.type === 'number' && numberOf(r) === c.number && !isMissed(r)),
        )
        .reverse();
      const talked = later.find((r) => r.answered !== null);
      const expected = talked
        ? isOut(talked)
          ? 'called back'
          : 'reached us'
        : later.some(isOut)
          ? 'tried to call back'
          : null;
      expect([c.number, c.since?.what ?? null]).toEqual([c.number, expected]);
      if (talked) reached++;
    }
    expect(reached).toBeGreaterThan(0);
    const { body: left } = await boss.get<{ callers: unknown[] }>('/calls/missed?days=7');
    expect(left.callers).toHaveLength(body.callers.length - reached);
  });
});

describe('traffic and replay', () => {
  it('most at once and found no line are as counted one by one', async () => {
    const from = every[4000]!.started;
    const { body } = await boss.get<{ calls: number; refused: number; peak: { calls: number }; erlangHours: number }>(
      `/calls/traffic?trunk=kestrel&from=${from}`,
    );
    const list = every.filter((r) => r.trunk === 'kestrel' && r.started >= from);
    expect(body).toMatchObject({ calls: list.length, refused: list.filter((r) => r.cause?.q850 === 34).length });
    const most = Math.max(...list.map((a) => list.filter((b) => b.started <= a.started && b.ended > a.started).length));
    expect(body.peak.calls).toBe(most);
    const hours = list.reduce((sum, r) => sum + (Date.parse(r.ended) - Date.parse(r.started)) / 3_600_000, 0);
    expect(body.erlangHours).toBeCloseTo(hours, 6);
  });

  it('has the busy hour of the trunks of each site, as minutes counted one by one have it', async () => {
    const from = every[4000]!.started;
    interface Busy {
      site: string;
      from: string;
      erlangs: number;
    }
    const { body } = await boss.get<{ siteBusyHours: Busy[]; zone: string }>(`/calls/traffic?trunk=any&from=${from}`);
    const { body: plan } = await boss.get<{ trunks: { id: string; site: string }[] }>('/plan');
    const siteOf = new Map(plan.trunks.map((t) => [t.id, t.site]));
    const list = every.filter((r) => r.trunk !== null && r.started >= from);
    expect(new Set(body.siteBusyHours.map((b) => b.site))).toEqual(new Set(list.map((r) => siteOf.get(r.trunk!))));
    const wall = (at: string) => DateTime.fromISO(at, { zone: body.zone });
    // A call ends before the moment at which it is over.
    const days = list.flatMap((r) => [wall(r.started), wall(r.ended).minus(1)].map((t) => t.startOf('day').toMillis()));
    const count = Math.round((Math.max(...days) - Math.min(...days)) / 86_400_000) + 1;
    for (const { site, from: clock, erlangs } of body.siteBusyHours) {
      const [hour, minute] = clock.split(':').map(Number);
      let seconds = 0;
      for (const r of list.filter((x) => siteOf.get(x.trunk!) === site)) {
        const [begin, end] = [wall(r.started), wall(r.ended)];
        for (const day of new Set([begin, end].map((t) => t.startOf('day').toISO()!))) {
          const hourFrom = DateTime.fromISO(day, { zone: body.zone }).set({ hour, minute });
          const held = Math.min(+end, +hourFrom.plus({ hours: 1 })) - Math.max(+begin, +hourFrom);
          if (held > 0) seconds += held / 1000;
        }
      }
      expect([site, erlangs]).toEqual([site, expect.closeTo(seconds / 3600 / count, 6)]);
    }
  });

  it('tells of one queue what its calls say, counted one by one; and of none that is not named', async () => {
    const from = every[3000]!.started;
    const got = await boss.get<CallQueueFigures & Record<string, unknown>>(
      `/calls/queue-figures?queue=bookings-queue&from=${from}`,
    );
    const list = every.filter((r) => r.queue?.id === 'bookings-queue' && r.started >= from);
    expect(list.length).toBeGreaterThan(200);
    const gaveUp = list.filter((r) => r.queue!.agent === null).length;
    expect(got.body).toMatchObject({ calls: list.length, gaveUp, answered: list.length - gaveUp });
    const waited = list.reduce((sum, r) => sum + r.queue!.waitedSeconds, 0);
    expect(got.body.patience!.mean).toBeCloseTo(waited / gaveUp, 3);
    const talk = list.flatMap((r) => (r.answered === null ? [] : [Date.parse(r.ended) - Date.parse(r.answered)]));
    expect(got.body.handling!.mean).toBeCloseTo(talk.reduce((a, b) => a + b, 0) / talk.length / 1000, 3);
    const unnamed = await boss.get<{ error: { path: string } }>('/calls/queue-figures');
    expect([unnamed.status, unnamed.body.error.path]).toEqual([400, 'queue']);
  });

  it('tells the same as the command’s replay of the exported calls through both plans', async () => {
    const from = every[2500]!.started;
    const exchange = async (of: string) => {
      const read = readPlan((await boss.get(`/plan?of=${of}`)).body);
      if (!read.ok) throw new Error(of);
      return compile(read.plan);
    };
    // Without notices: those of the storm lie before.
    const expected = replay(await lines(`&from=${from}`), {
      plan: await exchange('draft'),
      against: await exchange('live'),
    });
    const job = await boss.post<{ job: string }>('/calls/replay', { from });
    const result = (await ended(boss, job.body.job)).result as unknown as ReplayAnswer;
    expect(result).toMatchObject({ calls: expected.calls, changed: expected.changed, lost: expected.lost });
    expect(result.groups.map((g) => g.count)).toEqual(expected.groups.map((g) => g.count));
    expect(result.days.reduce((n, d) => n + d.changed, 0)).toBe(expected.changed);
    const main = result.groups.find((g) => g.willBe.lands?.id === ELSEWHERE.id)!;
    expect(main.acts).toEqual(['changed “Leads to” of Main number (you)']);
  });

  it('against the records names what the plan of now would not do again', async () => {
    const job = await boss.post<{ job: string }>('/calls/replay', { against: 'record', from: every.at(-1)!.started });
    const result = (await ended(boss, job.body.job)).result as unknown as ReplayAnswer;
    expect(result.groups.some((g) => g.was.trunk === 'sundvik' && g.willBe.trunk === 'kestrel')).toBe(true);
    expect(result.unexplained).toEqual([]);
  });
});

describe('the months of the records', () => {
  it('are partitions: one for each, two ahead, and those kept long enough go', async () => {
    const connection = await database();
    const partitions = async () => {
      const [found] = await connection.query<import('mysql2').RowDataPacket[]>(
        "SELECT PARTITION_NAME AS name FROM information_schema.PARTITIONS WHERE TABLE_SCHEMA = DATABASE() AND TABLE_NAME = 'call_record' ORDER BY PARTITION_ORDINAL_POSITION",
      );
      return found.map((p) => String(p.name));
    };
    const names = await partitions();
    const now = DateTime.utc();
    for (const ahead of [-1, 0, 1, 2]) expect(names).toContain(`m${now.plus({ months: ahead }).toFormat('yyyyMM')}`);
    expect(names.at(-1)).toBe('later');
    await connection.end();
  });
});
