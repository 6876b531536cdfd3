import { beforeAll, describe, expect, it } from '@jest/globals';
import { Client, admin, auditor, helpdesk, rowVersion, type Answer } from '../support/api';
import { PATHS, contract, type Facts, type OperationName } from '@/contract';

let boss: Client;
let reader: Client;
let desk: Client;
beforeAll(async () => {
  [boss, reader, desk] = await Promise.all([admin(), auditor(), helpdesk()]);
});

const edit = (kind: string, id: string, version: number | null, value: object | null) => ({
  edits: [{ kind, id, rowVersion: version, value }],
});
const person = { id: 'px', name: 'Px', site: 'north-quay' };
const extension = { id: 'ex', digits: '2198', name: 'Ex', site: 'north-quay', class: 'staff' };

const CASES: [string, () => Promise<Answer>, number, string, RegExp][] = [
  [
    'an unknown extension',
    () => boss.get('/trace?from=9999&dial=112'),
    422,
    'from',
    /no extension has the digits 9999/i,
  ],
  ['an unknown name', () => boss.get('/trace?from=Nobody&dial=112'), 422, 'from', /nobody and no phone/i],
  ['a trunk that is not there', () => boss.get('/trace?from=trunk:none&dial=112'), 422, 'from', /no trunk/i],
  ['letters dialled', () => boss.get('/trace?from=2101&dial=12a'), 422, 'dial', /can't be dialled/],
  ['a time that is none', () => boss.get('/trace?from=2101&dial=112&at=soonish'), 422, 'at', /is no time/],
  ['a missing question', () => boss.get('/trace?dial=112'), 400, 'query.from', /missing/],
  ['a plan that is none', () => boss.get('/plan?of=yesterday'), 400, 'query.of', /draft|live|revision/],
  ['a revision that never was', () => boss.get('/plan?of=4711'), 404, 'revision', /no revision 4711/],
  [
    'a situation with an id that the plan has not',
    () => boss.post('/trace', { from: '2101', dial: '112', situation: { busy: ['e-2104', 'e-none'] } }),
    422,
    'situation.busy.1',
    /no extension or person with that id/,
  ],
  [
    'a situation of nonsense',
    () => boss.post('/trace', { from: '2101', dial: '112', situation: { trunks: [{ id: 'kestrel', upp: true }] } }),
    400,
    'situation.trunks.0',
    /“upp”, which nothing reads/,
  ],
  [
    'a broken map',
    () =>
      boss.post(
        '/edits',
        edit('rung', 'rx', null, { id: 'rx', ladder: 'out-tidewren', position: 99, name: 'Rx', map: '9(0' }),
      ),
    422,
    'edits.0.value.map',
    /position 4/,
  ],
  [
    'digits that are taken',
    () => boss.post('/edits', edit('extension', 'ex', null, { ...extension, digits: '2101' })),
    422,
    'edits.0.value.digits',
    /2101 is already Farida Okonjo/,
  ],
  [
    'a reference to nothing',
    () => boss.post('/edits', edit('person', 'px', null, { ...person, site: 'atlantis' })),
    422,
    'edits.0.value.site',
    /not in the plan/,
  ],
  [
    'a reference of the wrong kind',
    () => boss.post('/edits', edit('extension', 'ex', null, { ...extension, class: 'kestrel' })),
    422,
    'edits.0.value.class',
    /id of a class/,
  ],
  [
    'an unknown field',
    () => boss.post('/edits', edit('person', 'px', null, { ...person, nickname: 'P' })),
    422,
    'edits.0.value',
    /“nickname”/,
  ],
  [
    'an id that differs',
    () => boss.post('/edits', edit('person', 'py', null, person)),
    422,
    'edits.0.value.id',
    /another than that of the edit/,
  ],
  [
    'a stale row version',
    async () =>
      boss.post(
        '/edits',
        edit('person', 'p-2101', (await rowVersion('person', 'p-2101')) + 5, { ...person, id: 'p-2101' }),
      ),
    409,
    'rowVersion',
    /meanwhile|changed/,
  ],
  [
    'a new object with an old id',
    () => boss.post('/edits', edit('person', 'p-2101', null, { ...person, id: 'p-2101' })),
    409,
    'rowVersion',
    /exists already/,
  ],
  [
    'deleting what is referred to',
    async () => boss.post('/edits', edit('mailbox', 'm-2101', await rowVersion('mailbox', 'm-2101'), null)),
    422,
    'edits.0',
    /extension 2101 Farida Okonjo still refer/,
  ],
  [
    'deleting the organisation',
    () => boss.post('/edits', edit('organisation', 'organisation', 1, null)),
    400,
    'edits.0.value',
    /can’t be deleted/,
  ],
  [
    'overlapping ranges',
    async () =>
      boss.post(
        '/edits',
        edit('site', 'sx', null, {
          id: 'sx',
          name: 'Sx',
          country: 'GB',
          zone: 'Europe/London',
          ranges: [{ from: '2100', to: '2120' }],
        }),
      ),
    422,
    'edits.0.value.ranges.0',
    /overlaps/,
  ],
  ['no edit at all', () => boss.post('/edits', { edits: [] }), 400, 'edits', /at least 1/],
  ['a body that is no JSON', () => boss.send('POST', '/edits', '{"edits":'), 400, '', /no JSON/],
  [
    'a body of 10 MB',
    () => boss.send('POST', '/edits', JSON.stringify({ edits: [], pad: 'x'.repeat(10_000_000) })),
    413,
    '',
    /larger than 2 MiB/,
  ],
  ['nobody', () => Client.anonymous().get('/plan'), 401, '', /Sign in first/],
  ['an unknown token', () => Client.bearer('pd_nonsense').get('/plan'), 401, '', /unknown, revoked or over/],
  [
    'another site’s page',
    () => boss.send('POST', '/edits', edit('person', 'px', null, person), { 'sec-fetch-site': 'cross-site' }),
    403,
    '',
    /our own pages/,
  ],
  ['a weak PIN: short', () => desk.put('/mailboxes/m-2101/pin', { pin: '12' }), 422, 'pin', /at least 4/],
  [
    'a weak PIN: the extension',
    () => desk.put('/mailboxes/m-2101/pin', { pin: '2101' }),
    422,
    'pin',
    /is the extension/,
  ],
  ['a weak PIN: a run', () => desk.put('/mailboxes/m-2101/pin', { pin: '4567' }), 422, 'pin', /is a run/],
  ['a PIN of no mailbox', () => desk.put('/mailboxes/none/pin', { pin: '2580' }), 404, '', /no such mailbox/],
  [
    'forwarding to letters',
    () => desk.put('/extensions/e-2101/forwarding', { when: 'always', to: 'home' }),
    400,
    'to',
    /digits you would dial/,
  ],
  [
    'a new extension with a weak PIN',
    () => boss.post('/extensions', { ...extension, id: undefined, mailbox: { pin: '1111' } }),
    422,
    'mailbox.pin',
    /repeats/,
  ],
  [
    'a new extension on taken digits',
    () =>
      boss.post('/extensions', {
        digits: '2102',
        name: 'Ex',
        kind: 'person',
        site: 'north-quay',
        class: 'staff',
        makePerson: true,
        mailbox: { pin: '2580' },
      }),
    422,
    'digits',
    /already/,
  ],
  [
    'a new extension with somebody’s number',
    () =>
      boss.post('/extensions', {
        digits: '2198',
        name: 'Ex',
        kind: 'person',
        site: 'north-quay',
        class: 'staff',
        number: 'n-441632960101',
      }),
    422,
    'number',
    /belongs to somebody/,
  ],
  [
    'going live with what was not read',
    () => boss.post('/live', { draftVersion: 1, note: '' }),
    409,
    'draftVersion',
    /has changed since you read it/,
  ],
  ['undoing half a name', () => boss.post('/edits/undo', { kind: 'person' }), 400, 'id', /neither/],
  ['bringing back nothing', () => boss.post('/revisions/x/draft'), 404, 'number', /no revision/],
  ['a path that is none', () => boss.get('/fax'), 404, '', /openapi/],
  [
    'a look at passwords by help desk',
    () => desk.post('/extensions/e-2101/sip-password'),
    403,
    '',
    /may not see SIP passwords/,
  ],
  ['an edit by help desk', () => desk.post('/edits', edit('person', 'px', null, person)), 403, '', /may not edit/],
];

describe('bad input is refused with where and what would be right, and changes nothing', () => {
  it.each(CASES)('%s', async (_, ask, status, path, sentence) => {
    const before = (await boss.get<{ draftVersion: number; revision: number }>('/health')).body;
    const got = await ask();
    expect({ status: got.status, path: got.body.error?.path ?? '' }).toEqual({ status, path });
    expect(got.body.error!.sentence).toMatch(sentence);
    expect((await boss.get('/health')).body).toEqual(before);
  });

  it('keeps the whole batch out when one edit of it is bad', async () => {
    const before = (await boss.get('/health')).body;
    const got = await boss.post('/edits', {
      edits: [
        ...edit('person', 'px', null, person).edits,
        ...edit('person', 'pz', null, { ...person, id: 'pz', site: 'atlantis' }).edits,
      ],
    });
    expect(got.status).toBe(422);
    expect(got.body.error!.path).toBe('edits.1.value.site');
    expect((await boss.get('/health')).body).toEqual(before);
  });
});

describe('the auditor can change nothing', () => {
  // Signing in and one's own account are everybody's; reading by POST is looking, asking or seeing calls.
  const changing = (Object.keys(PATHS) as OperationName[]).filter(
    (name) =>
      PATHS[name][0] !== 'GET' &&
      !['look', 'ask', 'seeCalls', 'signed-in', 'person', null].includes((contract[name] as Facts).right),
  );
  const bodies: Record<string, unknown> = {
    edit: edit('person', 'px', null, person),
    addExtension: extension,
    goLive: { draftVersion: 1 },
    makeToken: { name: 'T', role: 'administrator' },
    forwarding: { when: 'always', to: '2102' },
    pin: { pin: '2580' },
    trunkPassword: { password: 'x' },
    settings: { idleSignOutMinutes: 5 },
  };

  it.each(changing)('%s', async (name) => {
    const [method, template] = PATHS[name];
    const before = (await boss.get('/health')).body;
    const path = template.replace('{id}', 'e-2101').replace('{number}', '1');
    const got = await reader.send(method, path, bodies[name] ?? {});
    expect({ name, status: got.status, code: got.body.error?.code }).toEqual({
      name,
      status: 403,
      code: 'not-allowed',
    });
    expect((await boss.get('/health')).body).toEqual(before);
  });

  it('but can look and ask', async () => {
    expect((await reader.get('/plan?of=live')).status).toBe(200);
    expect((await reader.get('/trace?from=2101&dial=112')).body.outcome).toBe('routed');
    expect((await reader.get('/tokens')).status).toBe(403);
  });
});
