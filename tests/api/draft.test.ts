import { readFileSync } from 'node:fs';
import { beforeAll, describe, expect, it } from '@jest/globals';
import { parse } from 'yaml';
import { readPlan } from '@/core/plan';
import { Client, admin, objectIn, rowVersion, type Document } from '../support/api';

let boss: Client;
let second: Client;
beforeAll(async () => {
  [boss, second] = await Promise.all([admin(), admin()]);
});

const newPerson = (id: string, name: string) => ({
  kind: 'person',
  id,
  rowVersion: null,
  value: { id, name, site: 'north-quay' },
});
const pendingOf = async () =>
  (
    await boss.get<{
      edits: { id: string; kind: string; by: string[]; fields: { field: string }[] }[];
      draftVersion: number;
      revision: number;
    }>('/edits')
  ).body;

describe('the draft', () => {
  it('keeps the demo company through tables and revision without losing a field', async () => {
    const file = readPlan(parse(readFileSync('demo/plan.yaml', 'utf8')));
    if (!file.ok) throw new Error('demo');
    const first = (await boss.get<Document>('/plan?of=1')).body;
    // Passwords were made, and texts were spoken, as it was loaded.
    const unspoken = (d: object) => ({
      ...d,
      prompts: (d as Document).prompts!.map((p) => ({
        ...p,
        sound: null,
        seconds: 0,
        versions: (p.versions as object[]).map((v) => ({ ...v, sound: null, seconds: 0 })),
      })),
    });
    const without = { ...first, extensions: first.extensions!.map((e) => ({ ...e, sipPassword: null })) };
    expect(unspoken(without)).toEqual(unspoken(JSON.parse(JSON.stringify(file.plan)) as object));
    for (const p of first.prompts!) expect(p.sound).toMatch(/^[0-9a-f]{64}$/);
  });

  it('makes an edit, lists it with who, and undoes that one', async () => {
    const made = await boss.post<{ draftVersion: number }>('/edits', { edits: [newPerson('t-one', 'One Tern')] });
    expect(made.status).toBe(200);
    const pending = await pendingOf();
    expect(pending.edits.find((e) => e.id === 't-one')).toMatchObject({ kind: 'person', by: ['Farida Okonjo'] });
    expect(await objectIn(boss, 'live', 'people', 't-one')).toBeUndefined();
    expect((await boss.post('/edits/undo', { kind: 'person', id: 't-one' })).status).toBe(200);
    expect(await objectIn(boss, 'draft', 'people', 't-one')).toBeUndefined();
    expect((await boss.post('/edits/undo', { kind: 'person', id: 't-one' })).status).toBe(404);
  });

  it('undoes my last edit, whole batches at a time, newest first', async () => {
    await boss.post('/edits', { edits: [newPerson('t-two', 'Two Tern'), newPerson('t-three', 'Three Tern')] });
    const version = await rowVersion('person', 't-two');
    await boss.post('/edits', {
      edits: [
        {
          kind: 'person',
          id: 't-two',
          rowVersion: version,
          value: { id: 't-two', name: 'Two Gull', site: 'north-quay' },
        },
      ],
    });
    expect((await boss.post('/edits/undo')).body).toMatchObject({ label: 'changed “Name” of Two Gull' });
    expect(await objectIn(boss, 'draft', 'people', 't-two')).toMatchObject({ name: 'Two Tern' });
    expect((await boss.post('/edits/undo')).status).toBe(200);
    expect(await objectIn(boss, 'draft', 'people', 't-two')).toBeUndefined();
    expect(await objectIn(boss, 'draft', 'people', 't-three')).toBeUndefined();
  });

  it('lets two extensions change places in one edit', async () => {
    const [a, b] = [
      await objectIn(boss, 'draft', 'extensions', 'e-2130'),
      await objectIn(boss, 'draft', 'extensions', 'e-2131'),
    ];
    const put = async (o: Record<string, unknown>, digits: unknown) => ({
      kind: 'extension',
      id: o.id,
      rowVersion: await rowVersion('extension', o.id as string),
      value: { ...o, digits },
    });
    const swapped = await boss.post('/edits', { edits: [await put(a!, b!.digits), await put(b!, a!.digits)] });
    expect(swapped.status).toBe(200);
    expect((await objectIn(boss, 'draft', 'extensions', 'e-2130'))!.digits).toBe('2131');
    await boss.post('/edits/undo');
    expect((await objectIn(boss, 'draft', 'extensions', 'e-2130'))!.digits).toBe('2130');
  });

  it('makes and deletes objects that refer to each other in one edit', async () => {
    const site = {
      id: 't-site',
      name: 'Tern Rock',
      country: 'GB',
      zone: 'Europe/London',
      mainNumber: 't-number',
      emergencyTrunks: ['t-trunk'],
      ladder: 't-ladder',
      blockedLeadTo: 't-ext',
    };
    const add = (kind: string, value: { id: string }) => ({ kind, id: value.id, rowVersion: null, value });
    const made = await boss.post('/edits', {
      edits: [
        add('extension', {
          id: 't-ext',
          digits: '6001',
          name: 'Keeper',
          site: 't-site',
          class: 'staff',
          mailbox: 't-box',
        } as { id: string }),
        add('mailbox', { id: 't-box', name: 'Keeper', site: 't-site' } as { id: string }),
        add('number', {
          id: 't-number',
          e164: '+441632960999',
          site: 't-site',
          trunk: 't-trunk',
          belongsTo: 't-ext',
        } as { id: string }),
        add('trunk', {
          id: 't-trunk',
          name: 'Tern link',
          kind: 'sip-peer',
          site: 't-site',
          channels: 2,
          ownNumber: 't-number',
          otherwise: 't-box',
        } as { id: string }),
        add('ladder', { id: 't-ladder', name: 'Out of Tern Rock' } as { id: string }),
        add('site', site),
      ],
    });
    expect(made.body.error).toBeUndefined();
    const trace = await boss.get('/trace?from=6001&dial=999');
    expect(trace.body).toMatchObject({ outcome: 'routed', trunk: 't-trunk', shownNumber: '+441632960999' });
    expect((await boss.post('/edits/undo')).status).toBe(200);
    expect(await objectIn(boss, 'draft', 'sites', 't-site')).toBeUndefined();
  });

  it.each(['blockedLeadTo', 'withheldLeadTo'])(
    'keeps and takes back as one a place that the organisation leads to (%s)',
    async (field) => {
      const { organisation } = (await boss.get<{ organisation: Record<string, unknown> }>('/plan')).body;
      const stale = await boss.post<{ error: { rowVersion: number } }>('/edits', {
        edits: [{ kind: 'organisation', id: 'organisation', rowVersion: 99_999, value: organisation }],
      });
      const { rowVersion } = stale.body.error;
      const value = { id: 't-away', name: 'Turned away', site: 'north-quay' };
      const made = await boss.post('/edits', {
        edits: [
          { kind: 'announcement', id: value.id, rowVersion: null, value },
          { kind: 'organisation', id: 'organisation', rowVersion, value: { ...organisation, [field]: value.id } },
        ],
      });
      expect([made.status, made.body.error]).toEqual([200, undefined]);
      const gone = await boss.post('/edits', {
        edits: [{ kind: 'announcement', id: value.id, rowVersion: 1, value: null }],
      });
      expect(gone).toMatchObject({ status: 422, body: { error: { code: 'still-referred-to' } } });
      expect((await boss.post('/edits/undo')).status).toBe(200);
      expect(await objectIn(boss, 'draft', 'announcements', value.id)).toBeUndefined();
    },
  );

  it('of two people editing the same thing one wins, and the other is shown it', async () => {
    const o = (await objectIn(boss, 'draft', 'people', 'p-3005'))!;
    const version = await rowVersion('person', 'p-3005');
    const put = (name: string) => ({
      edits: [{ kind: 'person', id: 'p-3005', rowVersion: version, value: { ...o, name } }],
    });
    const got = await Promise.all([boss.post('/edits', put('First Hand')), second.post('/edits', put('Second Hand'))]);
    expect(got.map((g) => g.status).sort()).toEqual([200, 409]);
    const [winner, loser] = got[0].status === 200 ? ['First Hand', got[1]] : ['Second Hand', got[0]];
    expect(loser.body.error).toMatchObject({
      code: 'stale',
      by: 'Farida Okonjo',
      rowVersion: version + 1,
      current: { name: winner },
    });
    await boss.post('/edits/undo');
  });

  it('takes twenty edits of different objects at once, each exactly once', async () => {
    const before = (await pendingOf()).draftVersion;
    const got = await Promise.all(
      Array.from({ length: 20 }, (_, i) =>
        (i % 2 ? boss : second).post('/edits', { edits: [newPerson(`t-many-${i}`, `Many ${i}`)] }),
      ),
    );
    expect(got.map((g) => g.status)).toEqual(Array(20).fill(200));
    expect((await pendingOf()).draftVersion).toBe(before + 20);
    for (let i = 0; i < 20; i++) await boss.post('/edits/undo', { kind: 'person', id: `t-many-${i}` });
  });

  it('goes live, compares, and brings a revision back as the draft with today’s passwords', async () => {
    await boss.post('/edits', { edits: [newPerson('t-live', 'Live Tern')] });
    const password = (await boss.post<{ password: string }>('/extensions/e-2140/sip-password', { make: true })).body
      .password;
    const pending = await pendingOf();
    const live = await boss.post<{ number: number }>('/live', {
      draftVersion: pending.draftVersion,
      note: 'A tern joins',
      override: 'the draft of the demo breaks a promise',
    });
    expect(live.body).toMatchObject({ number: pending.revision + 1, note: 'A tern joins' });
    expect(await objectIn(boss, 'live', 'people', 't-live')).toMatchObject({ name: 'Live Tern' });
    expect((await pendingOf()).edits).toEqual([]);
    expect((await boss.post('/live', { draftVersion: pending.draftVersion, note: '' })).status).toBe(409);

    const compared = await boss.get<{ edits: { id: string }[] }>(
      `/revisions/${pending.revision}/compare?to=${live.body.number}`,
    );
    expect(compared.body.edits.map((e) => e.id)).toContain('t-live');

    const back = await boss.post<{ changed: number }>(`/revisions/${pending.revision}/draft`);
    expect(back.body.changed).toBeGreaterThan(0);
    expect(await objectIn(boss, 'draft', 'people', 't-live')).toBeUndefined();
    expect(await objectIn(boss, 'live', 'people', 't-live')).toBeDefined();
    expect((await boss.post<{ password: string }>('/extensions/e-2140/sip-password')).body.password).toBe(password);
    expect((await boss.post(`/revisions/${pending.revision}/draft`)).status).toBe(409);
    await boss.post(`/revisions/${live.body.number}/draft`);
  });
});
