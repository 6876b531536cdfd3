import { afterAll, beforeAll, describe, expect, it, jest } from '@jest/globals';
import { Client, admin, auditor, database, helpdesk } from '../support/api';
import { BASE } from '../support/browser';
import { mailTo, nextMail } from '../support/mail';
import { toneWav } from '../support/tones';

/* Queues as they are now: agents signed in and paused, what the exchange says, managers told once; and the page for callers. */

jest.setTimeout(120_000);

interface Line {
  id: string;
  waiting: number;
  firstSince: string | null;
  heardAt: string | null;
  agents: { all: number; signedIn: number; paused: number; speaking: number };
  today: { calls: number; answered: number; gaveUp: number; inTime: number; within: number };
  callbacks: number;
}
interface Board {
  queues: Line[];
  agents: { id: string; signedIn: boolean; paused: string | null; state: string | null }[];
  callbacks: { id: string; shown: string; name: string }[];
}
const QUEUE = 'bookings-queue';
const MANAGER = 'amara.lindqvist@lanternfold.example';
let boss: Client;
beforeAll(async () => {
  boss = await admin();
});
afterAll(async () => {
  const sql = await database();
  await sql.query("DELETE FROM rate_limit WHERE `key` LIKE 'use %'");
  await sql.query('DELETE FROM callback_request');
  await sql.end();
});

const board = async (by = boss) => (await by.get<Board>(`/queues/board?queue=${QUEUE}`)).body;
const line = async (by = boss) => (await board(by)).queues.find((q) => q.id === QUEUE)!;
const agent = async (id: string) => (await board()).agents.find((a) => a.id === id)!;
const ago = (seconds: number) => new Date(Date.now() - seconds * 1000).toISOString();
const say = (more: object) => boss.put(`/queues/${QUEUE}/now`, { waiting: [], ...more });

describe('the board', () => {
  it('signs agents in and out and pauses them: calls follow at once', async () => {
    const set = (id: string, body: object, by = boss) => by.put(`/agents/${id}`, body);
    const before = await line();
    expect((await set('e-2110', { signedIn: true })).status).toBe(200);
    expect((await line()).agents.signedIn).toBe(before.agents.signedIn + 1);
    expect((await set('e-2110', { paused: 'training' })).status).toBe(200);
    expect(await agent('e-2110')).toMatchObject({ signedIn: true, paused: 'training' });
    // The engine offers them nothing: one free agent less, counted by its own words.
    const free = async () => {
      const t = await boss.get<{ steps: { sentence: string }[] }>('/trace?from=2120&dial=6720&of=live');
      return Number(/takes the caller: (\d+) of/.exec(t.body.steps.map((s) => s.sentence).join(' '))![1]);
    };
    const paused = await free();
    expect((await set('e-2110', { paused: null })).status).toBe(200);
    expect(await free()).toBe(paused + 1);
    expect((await set('e-2110', { signedIn: false })).status).toBe(200);
    expect(await free()).toBe(paused);
    expect((await set('e-2106', { signedIn: false })).body.error!.code).toBe('always-there');
    expect((await set('e-2170', { signedIn: true })).status).toBe(404);
    for (const by of [await auditor(), await helpdesk()])
      expect((await set('e-2110', { signedIn: true }, by)).status).toBe(403);
  });

  it('counts the day as its calls say, one by one', async () => {
    const { today } = await line();
    const sql = await database();
    const [rows] = (await sql.query(
      "SELECT answered, missed, COALESCE(waited_seconds, TIMESTAMPDIFF(MICROSECOND, started, answered) / 1e6) AS waited FROM call_record WHERE queue = ? AND started >= CONVERT_TZ(DATE(CONVERT_TZ(UTC_TIMESTAMP(), '+00:00', '+00:00')), '+00:00', '+00:00')",
      [QUEUE],
    )) as unknown as [{ answered: Date | null; missed: number; waited: number }[]];
    await sql.end();
    // The queue's site keeps UTC at this time of the year, or an hour of the night has no calls.
    const answered = rows.filter((r) => r.answered !== null && r.missed === 0);
    expect(today).toMatchObject({
      calls: rows.length,
      answered: answered.length,
      gaveUp: rows.length - answered.length,
      inTime: answered.filter((r) => Number(r.waited) <= today.within).length,
    });
  });

  it('shows what the exchange said last, and nothing that is too old', async () => {
    const [first, second] = [ago(40), ago(12)];
    const said = await say({
      waiting: [{ since: second }, { since: first, calling: '+441632960001' }],
      agents: [{ extension: 'e-2106', state: 'speaking', since: first }],
    });
    expect(said.status).toBe(200);
    expect(await line()).toMatchObject({ waiting: 2, firstSince: first, agents: { speaking: 1 } });
    expect(await agent('e-2106')).toMatchObject({ state: 'speaking' });
    // Whoever may look sees how many wait, never who.
    expect(JSON.stringify(await board(await auditor()))).not.toContain('960001');
    const sql = await database();
    await sql.query('UPDATE queue_now SET at = at - INTERVAL 2 MINUTE');
    await sql.end();
    expect(await line()).toMatchObject({ waiting: 0, heardAt: null });
    expect((await say({ waiting: [{ since: 'yesterday' }] })).body.error!.path).toBe('waiting.0.since');
    expect((await (await helpdesk()).put(`/queues/${QUEUE}/now`, { waiting: [] })).status).toBe(403);
  });
});

describe('managers are told by mail', () => {
  it('of a caller who gave up, with the message that was left instead', async () => {
    const before = (await mailTo(MANAGER)).length;
    const { body } = await boss.file('/mailboxes/m-bookings/messages?calling=%2B441632960777', toneWav(1, 600, 8000));
    await say({ gaveUp: [{ calling: '+441632960777', waitedSeconds: 125, at: ago(5), message: body.id }] });
    const mail = await nextMail(MANAGER, before);
    expect(mail.subject).toBe('Bookings: a caller gave up');
    expect(mail.text).toContain('01632 960777 gave up after waiting 2:05');
    expect(mail.attachments.map((a) => a.contentType)).toEqual(['audio/wav']);
  });

  it('on the screens of whoever acts there, with numbers only for those who may see them', async () => {
    const before = (await mailTo(MANAGER)).length;
    await say({ gaveUp: [{ calling: '+441632960779', waitedSeconds: 61, at: ago(1) }] });
    await nextMail(MANAGER, before);
    const told = async (by: Client) =>
      (await by.get<{ told: { what: string; who: string | null; seconds: number }[] }>(`/queues/board?queue=${QUEUE}`))
        .body.told;
    expect((await told(boss))[0]).toMatchObject({ what: 'gave up', who: '01632 960779', seconds: 61 });
    expect(await told(await auditor())).toEqual([]);
    const role = await boss.post<{ id: string }>('/roles', {
      name: `Acts ${Date.now()}`,
      grants: ['look', 'actNow'].map((right) => ({ right, areas: 'all', sites: 'all' })),
    });
    const made = await boss.post<{ token: string }>('/tokens', { name: 'acts', role: role.body.id, days: 1 });
    expect((await told(Client.bearer(made.body.token)))[0]).toMatchObject({ what: 'gave up', who: null });
    // A person who manages none sees none.
    const ilse = await Client.signedIn(['ilse.brandvik@lanternfold.example', 'harbour-thistle-58']);
    expect((await ilse.get('/own/told')).body).toMatchObject({ queues: [], told: [] });
    expect((await boss.get('/own/told')).status).toBe(403);
  });

  it('of a long wait, once for each caller, and of an agent who lets offers go', async () => {
    const before = (await mailTo(MANAGER)).length;
    const waiting = [{ since: ago(400), calling: '+441632960778' }];
    for (let i = 0; i < 3; i++) await say({ waiting });
    await say({ waiting, letGo: ['e-2114'] });
    await nextMail(MANAGER, before + 1);
    await new Promise((done) => setTimeout(done, 1500));
    expect((await mailTo(MANAGER)).slice(before).map((m) => m.subject)).toEqual([
      'Bookings: a caller waits long',
      'Bookings: 2114 Signe Fairweather is paused',
    ]);
    expect(await agent('e-2114')).toMatchObject({ paused: 'let offers go' });
    await boss.put('/agents/e-2114', { paused: null });
    const { pausesAfter } = (
      await boss.get<{ queues: { id: string; pausesAfter: number | null }[] }>('/plan')
    ).body.queues.find((q) => q.id === QUEUE)!;
    expect(pausesAfter).toBe(3);
  });
});

describe('the page for callers', () => {
  const nobody = Client.anonymous();
  const wish = (body: object) => nobody.post<{ shown: string }>('/call-pages/bookings/callbacks', body);

  it('tells whether it is open and where to call, and nothing else', async () => {
    const { status, body } = await nobody.get('/call-pages/bookings');
    expect(status).toBe(200);
    expect(Object.keys(body).sort()).toEqual(
      ['language', 'name', 'number', 'open', 'organisation', 'until', 'waitMinutes', 'whose', 'zone'].sort(),
    );
    expect(body).toMatchObject({ name: 'Bookings', organisation: 'Lanternfold Ferries' });
    // It is open when a caller of its number comes to the queue just now.
    const { e164 } = body.number as { e164: string };
    const ask = `/trace?from=outside:%2B447700900999&dial=${encodeURIComponent(e164)}&of=live`;
    const { lands } = (await boss.get<{ lands: { id: string } | null }>(ask)).body;
    expect(body.open).toBe(lands?.id === QUEUE);
    for (const page of ['bookings-queue', 'nothing', 'BOOKINGS', '..%2f'])
      expect((await nobody.get(`/call-pages/${page}`)).status).toBe(404);
    const response = await fetch(`${BASE}/call/bookings`);
    expect([response.status, response.headers.get('set-cookie')]).toEqual([200, null]);
    const page = await response.text();
    for (const told of ['Nadia Hollis', 'm-bookings', 'e-2106', 'Farida']) expect(page).not.toContain(told);
    expect((await fetch(`${BASE}/call/nothing`)).status).toBe(404);
  });

  it('keeps a wish once, with consent only; it stands on the board until somebody called', async () => {
    expect((await wish({ number: '01632 960901', name: 'Wren', consent: false })).body.error!.path).toBe('consent');
    expect((await wish({ number: 'my phone', consent: true })).body.error!.path).toBe('number');
    const asked = await wish({ number: '01632 960901', name: 'Wren', consent: true });
    expect([asked.status, asked.body.shown]).toEqual([200, '01632 960901']);
    expect((await wish({ number: '+44 1632 960901', consent: true })).status).toBe(200);
    const { callbacks } = await board();
    expect(callbacks).toMatchObject([{ shown: '01632 960901', name: 'Wren' }]);
    expect((await (await auditor()).get<Board>(`/queues/board?queue=${QUEUE}`)).body.callbacks).toEqual([]);
    expect((await boss.post(`/callbacks/${callbacks[0]!.id}/done`)).status).toBe(200);
    expect((await board()).callbacks).toEqual([]);
    expect((await boss.post(`/callbacks/${callbacks[0]!.id}/done`)).status).toBe(404);
  });

  it('of a person tells whether somebody answers; a wish is mailed to them and stands on the page of their own', async () => {
    const ilse = await Client.signedIn(['ilse.brandvik@lanternfold.example', 'harbour-thistle-58']);
    const page = async () => (await nobody.get('/call-pages/ilse-brandvik')).body;
    expect(await page()).toMatchObject({ whose: 'person', name: 'Ilse Brandvik', open: true, waitMinutes: null });
    const { presenceRules } = (await boss.get<{ presenceRules: { id: string; outside: string }[] }>('/plan')).body;
    const busy = presenceRules.find((s) => s.outside === 'mailbox')!;
    expect((await ilse.put('/own/presence', { state: busy.id })).status).toBe(200);
    expect(await page()).toMatchObject({ open: false });
    const { e164 } = (await page()).number as { e164: string };
    const ask = `/trace?from=outside:%2B447700900999&dial=${encodeURIComponent(e164)}&of=live`;
    const comes = async () => (await boss.get<{ lands: { kind: string } | null }>(ask)).body.lands?.kind;
    expect(await comes()).toBe('mailbox');
    expect((await ilse.put('/own/presence', { state: null })).status).toBe(200);
    expect([(await page()).open, await comes()]).toEqual([true, 'extension']);
    const before = (await mailTo('ilse.brandvik@lanternfold.example')).length;
    const sent = await nobody.post('/call-pages/ilse-brandvik/callbacks', {
      number: '01632 960902',
      name: 'Corin',
      consent: true,
    });
    expect([sent.status, sent.body]).toEqual([200, { shown: '01632 960902' }]);
    const mail = await nextMail('ilse.brandvik@lanternfold.example', before);
    expect(mail.subject).toBe('Corin (01632 960902) wants to be called');
    const told = async (by = ilse) => (await by.get<{ callbacks: { id: string; shown: string }[] }>('/own/told')).body;
    const [asked] = (await told()).callbacks;
    expect(asked).toMatchObject({ shown: '01632 960902', name: 'Corin' });
    // Nobody else says that it is done, not on the board either.
    expect((await boss.post(`/callbacks/${asked!.id}/done`)).status).toBe(404);
    expect((await boss.post(`/own/callbacks/${asked!.id}/done`)).status).toBe(403);
    expect((await ilse.post(`/own/callbacks/${asked!.id}/done`)).status).toBe(200);
    expect((await told()).callbacks).toEqual([]);
    expect((await ilse.post(`/own/callbacks/${asked!.id}/done`)).status).toBe(404);
  });

  it('under a flood keeps a few, refuses the rest, and goes on answering', async () => {
    const sent = await Promise.all(
      Array.from({ length: 120 }, (_, i) => wish({ number: `01632 960${100 + i}`, consent: true })),
    );
    const statuses = sent.map((s) => s.status);
    expect(new Set(statuses)).toEqual(new Set([200, 429]));
    expect(statuses.filter((s) => s === 200).length).toBeLessThanOrEqual(5);
    expect((await nobody.get('/call-pages/bookings')).status).toBe(200);
    expect((await line()).callbacks).toBeLessThanOrEqual(5);
    // A page of somebody else's can't send a visitor's wish.
    const elsewhere = await nobody.send(
      'POST',
      '/call-pages/bookings/callbacks',
      {},
      { origin: 'http://elsewhere.example' },
    );
    expect(elsewhere.body.error!.code).toBe('other-site');
  });
});
