import { afterAll, beforeAll, describe, expect, it, jest } from '@jest/globals';
import type { Going } from '@/contract/going-live';
import { closePool } from '@/server/db/pool';
import { Client, admin } from '../support/api';
import { nextMail } from '../support/mail';
import { until as eventually } from '../support/until';

/* Going live in parts, at a time, and when a second person agrees. Live and draft are put back as they were. */

jest.setTimeout(240_000);

interface Edits {
  draftVersion: number;
  revision: number;
  acts: { id: string; name: string; by: string; keys: string[] }[];
  edits: { kind: string; id: string; by: string[] }[];
}
type Doc = Record<string, { id: string; [field: string]: unknown }[]> & { organisation: Record<string, unknown> };
let boss: Client;
let before: { live: Doc; draft: Doc };

const plan = async (of: string) => (await boss.get<Doc>(`/plan?of=${of}`)).body as Doc;
const edits = async () => (await boss.get<Edits>('/edits')).body;
const phone = (doc: Doc, id: string) => doc.extensions!.find((e) => e.id === id)!;
const setPhone = (id: string, set: object) =>
  boss.post('/edits', { edits: [{ kind: 'extension', id, set, seen: {} }] });
const setOrganisation = (set: object) =>
  boss.post('/edits', { edits: [{ kind: 'organisation', id: 'organisation', set, seen: {} }] });
const live = async (more: object = {}, who = boss) =>
  who.post<{ number: number; left: number }>('/live', { draftVersion: (await edits()).draftVersion, ...more });
/** All acts of the draft but those about some objects. */
const others = async (...keys: string[]) =>
  (await edits()).acts.filter((a) => !a.keys.some((k) => keys.includes(k))).map(({ id }) => ({ act: id }));
const PHONE = 'extension e-2112';
const ORGANISATION = 'organisation organisation';
const going = async (id: string) =>
  (await boss.get<{ goings: Going[] }>('/going-live')).body.goings.find((g) => g.id === id)!;
const until = (id: string, state: Going['state']): Promise<Going> =>
  eventually(
    async () => [await going(id)].find((now) => now.state === state),
    async () => `${id} is ${JSON.stringify(await going(id))}`,
  );
const soon = (ms: number) => new Date(Date.now() + ms).toISOString();

/** Phones whose edits wait all the while: what the draft of the demo holds may have gone live before. */
const WAITING = ['e-2120', 'e-2121'];
beforeAll(async () => {
  boss = await admin();
  for (const id of WAITING) expect((await setPhone(id, { ringSeconds: 51 })).status).toBe(200);
  before = { live: await plan('live'), draft: await plan('draft') };
});
afterAll(closePool);

describe('going live in parts', () => {
  it('what is left stays in the draft, with who did it; live is the rest', async () => {
    const acts = (await edits()).acts;
    expect(acts.length).toBeGreaterThan(1);
    await setPhone('e-2112', { ringSeconds: 57 });
    const leave = await others(PHONE);
    const told = await boss.post<{ left: { because: string | null }[]; acts: number; objects: number }>(
      '/draft/leaving',
      { leave },
    );
    expect(told.body).toMatchObject({ acts: 1, objects: 1, errors: [] });
    const went = await live({ leave });
    expect(went.body.left).toBe(told.body.left.length);
    const now = await plan('live');
    expect(phone(now, 'e-2112').ringSeconds).toBe(57);
    // Nothing else differs from what was live.
    expect({ ...now, extensions: [] }).toEqual({ ...before.live, extensions: [] });
    expect((await edits()).acts.map((a) => [a.name, a.by])).toEqual(acts.map((a) => [a.name, a.by]));
    const draft = await plan('draft');
    expect({ ...draft, extensions: [] }).toEqual({ ...before.draft, extensions: [] });
    // And once more, from a revision that left something.
    await setPhone('e-2113', { ringSeconds: 58 });
    await live({ leave: await others('extension e-2113') });
    expect(phone(await plan('live'), 'e-2113').ringSeconds).toBe(58);
    expect((await edits()).acts.map((a) => a.name)).toEqual(acts.map((a) => a.name));
  });

  it('one object, and all edits of somebody, can be left', async () => {
    await setPhone('e-2112', { ringSeconds: 59 });
    const all = (await edits()).edits;
    const one = all.find((e) => e.id === 'e-2112')!;
    const left = (leave: object[]) =>
      boss.post<{ left: { id: string }[]; objects: number }>('/draft/leaving', { leave });
    expect((await left([{ kind: one.kind, id: one.id }])).body).toMatchObject({ objects: all.length - 1 });
    const [by] = one.by;
    const { body } = await left([{ by }]);
    const theirs = all.filter((e) => e.by.includes(by!)).map((e) => e.id);
    expect(body.left.map((l) => l.id).sort()).toEqual(theirs.sort());
    await boss.post('/edits/undo', { kind: 'extension', id: 'e-2112' });
  });

  it('what waits with it is said, and nothing goes live that is not whole', async () => {
    const box = { site: 'north-quay', name: 'Left box', owners: [] };
    const made = { kind: 'mailbox', id: 'left-box', rowVersion: null, value: { id: 'left-box', ...box } };
    expect((await boss.post('/edits', { edits: [made] })).status).toBe(200);
    await setPhone('e-2112', { mailbox: 'left-box' });
    const { body } = await boss.post<{ left: { id: string; because: string | null }[] }>('/draft/leaving', {
      leave: [{ kind: 'mailbox', id: 'left-box' }],
    });
    expect(body.left).toEqual([
      expect.objectContaining({ id: 'left-box', because: null }),
      expect.objectContaining({ id: 'e-2112', because: 'mailbox Left box' }),
    ]);
    await boss.post('/edits/undo', { kind: 'extension', id: 'e-2112' });
    await boss.post('/edits/undo', { kind: 'mailbox', id: 'left-box' });
    const nobody = await boss.post('/draft/leaving', { leave: [{ by: 'Nobody At All' }] });
    expect([nobody.status, nobody.body.error!.path]).toEqual([404, 'leave']);
  });
});

describe('at a time', () => {
  it('goes live as it was read, and tells by mail; what was edited since stays in the draft', async () => {
    await setPhone('e-2112', { ringSeconds: 61 });
    const leave = await others(PHONE);
    const { draftVersion } = await edits();
    const tell = ['ops@lanternfold.example'];
    const asked = await boss.post<Going>('/going-live', { draftVersion, leave, at: soon(2500), tell, note: 'Tonight' });
    expect(asked.body).toMatchObject({ state: 'planned', mine: true });
    await setPhone('e-2112', { ringSeconds: 62 });
    const done = await until(asked.body.id, 'live');
    expect(phone(await plan('live'), 'e-2112').ringSeconds).toBe(61);
    expect(phone(await plan('draft'), 'e-2112').ringSeconds).toBe(62);
    const mail = await nextMail(tell[0]!, 0);
    expect(mail.subject).toBe(`Revision ${done.revision} is live`);
    await boss.post('/edits/undo', { kind: 'extension', id: 'e-2112' });
  });

  it('is refused where something went live meanwhile, and withdrawn on demand', async () => {
    await setPhone('e-2112', { ringSeconds: 63 });
    const leave = await others(PHONE);
    const { draftVersion } = await edits();
    const asked = await boss.post<Going>('/going-live', { draftVersion, leave, at: soon(3000) });
    const other = await boss.post<Going>('/going-live', { draftVersion, leave, at: soon(3_600_000) });
    expect((await boss.delete<Going>(`/going-live/${other.body.id}`)).body.state).toBe('withdrawn');
    expect((await boss.delete(`/going-live/${other.body.id}`)).status).toBe(409);
    await live({ leave });
    const refused = await until(asked.body.id, 'refused');
    expect(refused.outcome).toMatch(/went live meanwhile/);
    expect((await boss.post('/going-live', { draftVersion, at: soon(-1000) })).body.error!.path).toBe('at');
  });
});

describe('what waits', () => {
  it('is listed whole, however much of it there is', async () => {
    await setPhone('e-2112', { ringSeconds: 66 });
    const { draftVersion } = await edits();
    const leave = await others(PHONE);
    const made: string[] = [];
    for (let i = 0; i < 7; i++) {
      const asked = await boss.post<Going>('/going-live', { draftVersion, leave, at: soon(3_600_000 + i * 1000) });
      made.push(asked.body.id);
    }
    const listed = (await boss.get<{ goings: Going[] }>('/going-live')).body.goings;
    expect(listed.filter((g) => g.state === 'planned').map((g) => g.id)).toEqual(expect.arrayContaining(made));
    for (const id of made) await boss.delete(`/going-live/${id}`);
    await boss.post('/edits/undo', { kind: 'extension', id: 'e-2112' });
  });
});

describe('how the organisation goes live', () => {
  it('in quiet times nothing does, unless an owner says why', async () => {
    await setOrganisation({ quietTimes: 'mon-sun 0:00-24:00' });
    await live({ leave: await others(ORGANISATION) });
    await setPhone('e-2112', { ringSeconds: 64 });
    const leave = await others(PHONE);
    expect((await live({ leave })).body.error!.code).toBe('quiet-time');
    expect((await live({ leave, override: 'a phone rang far too long' })).status).toBe(200);
    await setOrganisation({ quietTimes: null });
    expect((await live({ leave: await others(ORGANISATION), override: 'back to how it was' })).status).toBe(200);
  });

  it('a second person agrees, and nobody to what they asked for themselves', async () => {
    const added = await boss.post<{ password: string }>('/administrators', {
      signIn: 'second.person',
      name: 'Second Person',
      role: 'owner',
    });
    const first = await Client.signedIn(['second.person', added.body.password]);
    const password = 'a-second-lantern-88';
    expect((await first.put('/account/password', { old: added.body.password, password })).status).toBe(200);
    const second = await Client.signedIn(['second.person', password]);
    await setOrganisation({ secondPerson: true });
    await live({ leave: await others(ORGANISATION) });
    await setOrganisation({ secondPerson: false });
    const leave = await others(ORGANISATION);
    expect((await live({ leave })).body.error!.code).toBe('second-person');
    const { draftVersion } = await edits();
    const asked = await boss.post<Going>('/going-live', { draftVersion, leave });
    expect(asked.body).toMatchObject({ state: 'waits for a second person' });
    expect((await boss.post(`/going-live/${asked.body.id}/agree`)).status).toBe(403);
    const agreed = await second.post<Going>(`/going-live/${asked.body.id}/agree`);
    expect(agreed.body).toMatchObject({ state: 'live', agreedBy: 'Second Person' });
    expect((await plan('live')).organisation.secondPerson).toBe(false);
    expect((await second.post(`/going-live/${asked.body.id}/agree`)).status).toBe(409);
  });
});

describe('at the end', () => {
  it('everything is as it was', async () => {
    for (const id of ['e-2112', 'e-2113']) {
      const { ringSeconds } = phone(before.live, id);
      await setPhone(id, { ringSeconds });
    }
    await live({ leave: await others(PHONE, 'extension e-2113') });
    expect(await plan('live')).toEqual(before.live);
    expect(await plan('draft')).toEqual(before.draft);
    for (const id of WAITING) await boss.post('/edits/undo', { kind: 'extension', id });
  });
});
