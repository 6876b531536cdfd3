import { beforeAll, describe, expect, it, jest } from '@jest/globals';
import { contract, type Facts } from '@/contract';
import { PATHS, type OperationName } from '@/contract/paths';
import { Client, admin, auditor, database, helpdesk } from '../support/api';
import { mailTo, nextMail } from '../support/mail';

/* What people do on the page of their own: for themselves only, at once, and calls follow. */

jest.setTimeout(120_000);

const ILSE = ['ilse.brandvik@lanternfold.example', 'harbour-thistle-58'] as const;
let boss: Client;
let ilse: Client;
beforeAll(async () => {
  boss = await admin();
  ilse = await Client.signedIn(ILSE);
});

interface Step {
  code: string;
  sentence: string;
}
const traced = async (dial = '2102') =>
  (
    await boss.get<{
      lands: { kind: string; label: string } | null;
      then: { when: string; lands: { kind: string; label: string } }[];
      steps: Step[];
    }>(`/trace?from=2104&dial=${dial}&of=live`)
  ).body;

describe('rights', () => {
  const own = (Object.keys(PATHS) as OperationName[]).filter((n) => (contract[n] as Facts).right === 'person');

  it.each(own)('%s is refused to everybody who is no person', async (name) => {
    const [method, path] = PATHS[name];
    for (const by of [boss, await helpdesk(), await auditor()]) {
      const sent = await by.send(method, path.replace('{id}', 'e-2102'), method === 'GET' ? undefined : '{"x":');
      expect([sent.status, sent.body.error!.code]).toEqual([403, 'not-allowed']);
    }
    expect((await Client.anonymous().send(method, path.replace('{id}', 'e-2102'))).status).toBe(401);
  });

  it('a person sets nothing of others', async () => {
    const step = { rings: '2102', together: false, seconds: 20, keyToTake: true };
    for (const [method, path, body] of [
      ['PUT', '/own/reach/e-2104', { plan: { steps: [step] } }],
      ['POST', '/own/reach/e-2104/check', { steps: [step] }],
      ['PUT', '/own/forwarding/e-2104', { when: 'always', to: '2105', until: null }],
      ['PUT', '/own/mailboxes/m-2104/pin', { pin: '774613' }],
      ['PUT', '/own/mailboxes/m-2104/greeting', { situation: 'busy', greeting: { text: 'Hello.' }, until: null }],
      ['GET', '/own/mailboxes/m-2104/greeting?situation=busy', undefined],
    ] as const)
      expect([path, (await ilse.send(method, path, body)).status]).toEqual([path, 404]);
    for (const path of ['/people', '/settings', '/mailboxes/m-2102'])
      expect(/<title>([^<]*)/.exec(await ilse.page(path))![1]).toBe('My telephone · Polydrome');
  });
});

describe('presence and reach', () => {
  it('a state sends calls where its rule says, until it is over', async () => {
    const states = (await boss.get<{ presenceRules: { id: string; name: string; internal: string }[] }>('/plan')).body
      .presenceRules;
    const away = states.find((s) => s.internal === 'mailbox')!;
    expect((await traced()).lands).toMatchObject({ kind: 'extension' });
    expect((await ilse.put('/own/presence', { state: away.id })).status).toBe(200);
    expect((await traced()).lands).toMatchObject({ kind: 'mailbox' });
    expect((await ilse.put('/own/presence', { state: null })).status).toBe(200);
    expect((await traced()).lands).toMatchObject({ kind: 'extension' });
    expect((await ilse.put('/own/presence', { state: 'asleep' })).body.error!.path).toBe('state');
    expect((await ilse.put('/own/presence', { state: away.id, until: '2020-01-01' })).body.error!.path).toBe('until');
  });

  it('a mobile as the second step rings after the desk, with a key to take, before the mailbox', async () => {
    const steps = [
      { rings: '2102', together: false, seconds: 15, keyToTake: true },
      { rings: '+44 7700 900123', together: false, seconds: 25, keyToTake: true },
    ];
    const checked = await ilse.post<{ steps: { label: string; notes: string[] }[] }>('/own/reach/e-2102/check', {
      steps,
    });
    expect(checked.body.steps.map((s) => s.label)).toEqual(['2102 Ilse Brandvik', '07700 900123']);
    expect(checked.body.steps[1]!.notes.join(' ')).toMatch(/mobile call that the organisation pays for/);
    expect((await ilse.put('/own/reach/e-2102', { plan: { steps } })).status).toBe(200);
    const t = await traced();
    expect(t.steps.map((s) => s.code)).toEqual(expect.arrayContaining(['reach-plan', 'reach-rings']));
    const said = t.steps.map((s) => s.sentence).join(' ');
    expect(said).toContain('own reach plan of Ilse Brandvik, step 1: Ilse Brandvik for 15 s');
    expect([t.lands, ...t.then.map((w) => w.lands)].map((l) => l!.kind)).toEqual(['extension', 'outside', 'mailbox']);
    const { entries } = (await boss.get<{ entries: { action: string; label: string }[] }>('/history')).body;
    expect(entries[0]).toMatchObject({ action: 'set a reach plan of their own', label: '2102 Ilse Brandvik' });
    expect((await ilse.put('/own/reach/e-2102', { plan: null })).status).toBe(200);
    expect((await traced()).then.map((w) => w.lands.kind)).toEqual(['mailbox']);
  });

  it('what can’t ring is refused at its step: emergency, nonsense, one’s own number is told', async () => {
    const check = async (rings: string) =>
      ilse.post<{ steps: { notes: string[] }[] }>('/own/reach/e-2102/check', {
        steps: [
          { rings: '2102', seconds: 10 },
          { rings, seconds: 10 },
        ],
      });
    for (const rings of ['999', '9112', 'my wife', '5', '*1']) {
      const { status, body } = await check(rings);
      expect([rings, status, body.error!.path]).toEqual([rings, 422, 'plan.steps.1.rings']);
    }
    const back = await check('01632 960102');
    expect(back.body.steps[1]!.notes.join(' ')).toMatch(/number of ours/);
    expect((await ilse.put('/own/forwarding/e-2102', { when: 'always', to: '2102' })).body.error!.code).toBe(
      'no-phone',
    );
    expect((await ilse.put('/own/forwarding/e-2102', { when: 'always', to: '2105' })).status).toBe(200);
    expect((await traced()).lands!.label).toContain('2105');
    expect((await ilse.put('/own/forwarding/e-2102', { when: 'always', to: null })).status).toBe(200);
  });

  it('a greeting is spoken, heard by its owner, and over when it is taken back', async () => {
    const set = (greeting: object | null) =>
      ilse.put('/own/mailboxes/m-2102/greeting', { situation: 'away', greeting, until: null });
    expect((await set({ text: 'I am at sea until Monday.' })).status).toBe(200);
    const heard = await ilse.text('/own/mailboxes/m-2102/greeting?situation=away');
    expect([heard.status, heard.text.slice(0, 4)]).toEqual([200, 'RIFF']);
    expect((await set({ text: ' ' })).status).toBe(400);
    expect((await set(null)).status).toBe(200);
    expect((await ilse.get('/own/mailboxes/m-2102/greeting?situation=away')).status).toBe(404);
    expect((await ilse.put('/own/mailboxes/m-2102/pin', { pin: '2102' })).body.error!.code).toBe('weak-pin');
  });
});

describe('the welcome mail', () => {
  it('opens a page once, by a password that is chosen; sent again, the link before opens nothing', async () => {
    const to = 'amara.lindqvist@lanternfold.example';
    const invite = async () => {
      const before = (await mailTo(to)).length;
      expect((await (await helpdesk()).post('/people/p-2104/invitation')).status).toBe(200);
      return /\/join\/(\S+)/.exec((await nextMail(to, before)).text!)![1]!;
    };
    expect((await (await auditor()).post('/people/p-2104/invitation')).status).toBe(403);
    const [first, second] = [await invite(), await invite()];
    const join = (token: string, password: string) => Client.anonymous().post('/join', { token, password });
    expect((await join(first, 'long enough for all')).body.error!.code).toBe('bad-link');
    expect((await join(second, 'short')).body.error!.path).toBe('password');
    expect((await join(second, 'long enough for all')).status).toBe(200);
    expect((await join(second, 'long enough for all')).body.error!.code).toBe('bad-link');
    const amara = await Client.signedIn([to, 'long enough for all']);
    const { administrators } = (await boss.get<{ administrators: { signIn: string }[] }>('/administrators')).body;
    expect(administrators.map((a) => a.signIn)).not.toContain(to);
    expect((await amara.get('/mailboxes/m-2104/messages')).status).toBe(200);
    expect((await amara.get('/mailboxes/m-2102/messages')).status).toBe(404);
    // What a link opens stands nowhere: not in the rows, not in the mail once it was sent.
    const sql = await database();
    const [rows] = (await sql.query('SELECT body FROM mail WHERE recipient = ?', [to])) as unknown as [
      { body: Buffer }[],
    ];
    expect(rows.every((r) => !r.body.toString('latin1').includes(second))).toBe(true);
    await sql.end();
  });

  it('asks for a second factor first, where the organisation wants one', async () => {
    expect((await boss.put('/settings', { peopleSecondFactor: true })).status).toBe(200);
    const refused = await ilse.put('/own/presence', { state: null });
    expect([refused.status, refused.body.error!.code]).toEqual([403, 'needs-second-factor']);
    expect(await ilse.page('/own')).toContain('First, a second factor');
    expect((await boss.put('/settings', { peopleSecondFactor: false })).status).toBe(200);
    expect((await ilse.put('/own/presence', { state: null })).status).toBe(200);
  });
});
