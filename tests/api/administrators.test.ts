import { beforeAll, describe, expect, it } from '@jest/globals';
import { generateSync } from 'otplib';
import { Client, admin, auditor, database, type Document } from '../support/api';
import { BASE } from '../support/browser';

/* Administrators, roles, second factors, sessions, and the history of what everybody did. */

let boss: Client;
beforeAll(async () => {
  boss = await admin();
});

const signIn = (name: string, password: string) =>
  fetch(`${BASE}/api/v1/session`, {
    method: 'POST',
    body: JSON.stringify({ name, password }),
    headers: { 'content-type': 'application/json' },
  });

describe('administrators', () => {
  it('are added with a password that they must change before anything else', async () => {
    const made = await boss.post<{ id: string; password: string }>('/administrators', {
      signIn: 'joiner',
      name: 'New One',
      role: 'helpdesk',
    });
    expect(made.status).toBe(200);
    expect(
      (await boss.post('/administrators', { signIn: 'joiner', name: 'Twice', role: 'helpdesk' })).body.error,
    ).toMatchObject({ path: 'signIn' });
    const mine = await Client.signedIn(['joiner', made.body.password]);
    expect((await mine.get('/plan')).body.error).toMatchObject({ code: 'must-change' });
    const change = (old: string, password: string) => mine.put('/account/password', { old, password });
    expect((await change('wrong', 'a-long-new-password')).body.error).toMatchObject({ path: 'old' });
    expect((await change(made.body.password, 'short')).body.error).toMatchObject({ path: 'password' });
    expect((await change(made.body.password, 'joiner-joiner-1')).body.error).toMatchObject({ path: 'password' });
    expect((await change(made.body.password, 'a-long-new-password')).status).toBe(200);
    expect((await mine.get('/plan')).status).toBe(200);
    expect((await boss.put(`/administrators/${made.body.id}`, { blocked: true })).status).toBe(200);
    expect((await mine.get('/plan')).status).toBe(401);
    expect((await signIn('joiner', 'a-long-new-password')).status).toBe(403);
  });

  it('somebody who manages them always remains', async () => {
    const { body } = await boss.get<{ administrators: { id: string; signIn: string }[] }>('/administrators');
    const me = body.administrators.find((a) => a.signIn === 'admin')!;
    for (const change of [{ role: 'auditor' }, { blocked: true }])
      expect((await boss.put(`/administrators/${me.id}`, change)).body.error).toMatchObject({ code: 'last-manager' });
    expect((await boss.put('/administrators/none', { name: 'X' })).status).toBe(404);
    expect((await boss.put(`/administrators/${me.id}`, { role: 'king' })).body.error).toMatchObject({ path: 'role' });
  });
});

describe('roles of one’s own', () => {
  const look = { right: 'look', areas: 'all', sites: 'all' };

  it('hold in their areas and at their sites: every door says so', async () => {
    const role = await boss.post<{ id: string }>('/roles', {
      name: 'Västra desk',
      grants: [
        { right: 'look', areas: 'all', sites: ['vastra-kajen'] },
        { right: 'edit', areas: ['people'], sites: ['vastra-kajen'] },
        { right: 'bulk', areas: 'all', sites: 'all' },
        { right: 'resetPin', areas: 'all', sites: ['vastra-kajen'] },
      ],
    });
    expect(role.status).toBe(200);
    const { body } = await boss.post<{ token: string }>('/tokens', { name: 'desk', role: role.body.id, days: 1 });
    const desk = Client.bearer(body.token);
    const people = await desk.get<{ rows: { cells: { site: string } }[]; count: number }>('/ledgers/person');
    expect(new Set(people.body.rows.map((r) => r.cells.site))).toEqual(new Set(['Västra Kajen']));
    const plan = (await boss.get<Document>('/plan')).body;
    const edit = (kind: string, list: string, id: string, change: object) => {
      const object = plan[list]!.find((o) => o.id === id)!;
      return desk.post('/edits', { edits: [{ kind, id, rowVersion: null, value: { ...object, ...change } }] });
    };
    // Whatever the row version, the right is asked before anything is said of the object.
    const at = async (kind: string, list: string, id: string) =>
      (await edit(kind, list, id, { note: 'x' })).body.error!.code;
    expect(await at('person', 'people', 'p-3001')).toBe('stale');
    expect(await at('person', 'people', 'p-2101')).toBe('not-allowed');
    expect(await at('trunk', 'trunks', 'sundvik')).toBe('not-allowed');
    // What one may not look at isn't there.
    expect((await desk.put('/mailboxes/m-2101/pin', { pin: '2580' })).status).toBe(404);
    expect((await desk.put('/mailboxes/m-3001/pin', { pin: '2580' })).status).toBe(200);
    expect((await desk.get('/plan')).status).toBe(403);
    expect((await desk.post('/live', { draftVersion: 1 })).status).toBe(403);
    const used = await boss.delete(`/roles/${role.body.id}`);
    expect(used.body.error).toMatchObject({ code: 'still-used' });
  });

  it.each([
    [{ name: 'Owner', grants: [look] }, 'name'],
    [{ name: '', grants: [look] }, 'name'],
    [{ name: 'Half', grants: [] }, 'grants'],
    [{ name: 'Half', grants: [{ right: 'goLive', areas: ['people'], sites: 'all' }] }, 'grants.0.right'],
    [{ name: 'Half', grants: [{ right: 'fly', areas: 'all', sites: 'all' }] }, 'grants.0.right'],
    [{ name: 'Half', grants: [{ right: 'look', areas: ['moon'], sites: 'all' }] }, 'grants.0.areas'],
  ])('%j is refused at %s', async (role, path) => {
    const refused = await boss.post('/roles', role);
    expect(refused.status).toBeGreaterThanOrEqual(400);
    expect(refused.body.errors!.map((e) => e.path).join()).toContain(path);
  });

  it('those that come ready stay as they are', async () => {
    expect((await boss.put('/roles/auditor', { name: 'Auditor', grants: [look] })).body.error).toMatchObject({
      code: 'ready-role',
    });
    expect((await boss.delete('/roles/auditor')).status).toBe(409);
  });
});

describe('the second factor', () => {
  it('is proved before it counts, asked at sign-in, counts once, and can be reset', async () => {
    const made = await boss.post<{ id: string; password: string }>('/administrators', {
      signIn: 'careful',
      name: 'Careful',
      role: 'auditor',
    });
    const mine = await Client.signedIn(['careful', made.body.password]);
    await mine.put('/account/password', { old: made.body.password, password: 'very-long-and-safe' });
    const offer = await mine.post<{ secret: string; uri: string; svg: string }>('/account/second-factor');
    expect(offer.body.uri).toMatch(/^otpauth:\/\/totp\/Polydrome/);
    // All of it within one step of thirty seconds: the code before this one must stay the one before.
    const left = 30 - ((Date.now() / 1000) % 30);
    if (left < 15) await new Promise((done) => setTimeout(done, left * 1000));
    const code = (offset = 0) =>
      generateSync({ secret: offer.body.secret, epoch: Math.floor(Date.now() / 1000) + offset });
    expect((await mine.put('/account/second-factor', { secret: offer.body.secret, code: '000000' })).status).toBe(422);
    expect((await mine.put('/account/second-factor', { secret: offer.body.secret, code: code(-30) })).status).toBe(200);
    const first = await signIn('careful', 'very-long-and-safe');
    expect(await first.json()).toMatchObject({ waitsForCode: true });
    const cookie = /polydrome_session=[^;]+/.exec(first.headers.get('set-cookie')!)![0];
    const waiting = Client.withCookie(cookie);
    expect((await waiting.get('/plan')).status).toBe(401);
    expect((await waiting.post('/session/code', { code: code(-30) })).status).toBe(401);
    expect((await waiting.post('/session/code', { code: code() })).status).toBe(200);
    expect((await waiting.get('/plan')).status).toBe(200);
    const second = await signIn('careful', 'very-long-and-safe');
    const again = Client.withCookie(/polydrome_session=[^;]+/.exec(second.headers.get('set-cookie')!)![0]);
    expect((await again.post('/session/code', { code: code() })).status).toBe(401);
    const connection = await database();
    const [[row]] = await connection.query<import('mysql2').RowDataPacket[]>(
      'SELECT totp_secret FROM account WHERE sign_in = ?',
      ['careful'],
    );
    await connection.end();
    expect((row!.totp_secret as Buffer).toString('latin1')).not.toContain(offer.body.secret);
    expect((await boss.delete(`/administrators/${made.body.id}/second-factor`)).status).toBe(200);
    expect(await (await signIn('careful', 'very-long-and-safe')).json()).toMatchObject({ waitsForCode: false });
  });
});

describe('sessions', () => {
  it('are listed and ended: one’s own by everybody, anybody’s by those who manage', async () => {
    const mine = await auditor();
    const { body } = await mine.get<{ sessions: { id: string; name: string; mine: boolean }[] }>('/sessions');
    expect(new Set(body.sessions.map((s) => s.name))).toEqual(new Set(['Ines Halloran']));
    const current = body.sessions.find((s) => s.mine)!;
    const all = await boss.get<{ sessions: { id: string; name: string; mine: boolean }[] }>('/sessions');
    const bosses = all.body.sessions.find((s) => s.mine)!;
    expect((await mine.delete(`/sessions/${bosses.id}`)).status).toBe(404);
    expect((await boss.delete(`/sessions/${current.id}`)).status).toBe(200);
    expect((await mine.get('/plan')).status).toBe(401);
  });
});

describe('the history', () => {
  interface Entry {
    key: string;
    who: string;
    action: string;
    label: string;
    batch: string | null;
    undone: boolean;
    address: string;
    fields: { title: string; before: string; after: string }[];
  }
  const history = async (query: string, client = boss) =>
    (await client.get<{ entries: Entry[]; next: string | null }>(`/history?${query}`)).body;

  it('of one object says who, when, from where, before and after; undo works from there while it applies', async () => {
    const plan = (await boss.get<Document>('/plan')).body;
    const person = plan.people!.find((p) => p.id === 'p-2117')!;
    const version = async () => {
      const made = await boss.post('/edits', {
        edits: [{ kind: 'person', id: 'p-2117', rowVersion: 99_999, value: person }],
      });
      return (made.body.error as unknown as { rowVersion: number }).rowVersion;
    };
    await boss.post('/edits', {
      edits: [{ kind: 'person', id: 'p-2117', rowVersion: await version(), value: { ...person, language: 'fi' } }],
    });
    const [entry] = (await history('object=p-2117')).entries;
    expect(entry).toMatchObject({
      who: 'Farida Okonjo',
      address: '127.0.0.1',
      action: 'changed',
      fields: [{ title: 'Language', before: 'none', after: 'Finnish' }],
    });
    expect((await boss.post(`/history/${entry!.batch}/undo`)).status).toBe(200);
    expect((await history('object=p-2117')).entries[1]).toMatchObject({ undone: true });
    expect((await boss.post(`/history/${entry!.batch}/undo`)).status).toBe(409);
    expect((await boss.post('/history/none/undo')).status).toBe(404);
  });

  it('goes back page by page without gap or double, and out as CSV', async () => {
    const seen: string[] = [];
    let next: string | null = '';
    for (let pages = 0; next !== null && pages < 40; pages++) {
      const page: Awaited<ReturnType<typeof history>> = await history(next ? `before=${encodeURIComponent(next)}` : '');
      seen.push(...page.entries.map((e) => e.key));
      next = page.next;
    }
    expect(new Set(seen).size).toBe(seen.length);
    expect([...seen].sort().reverse()).toEqual(seen);
    const connection = await database();
    const [[count]] = await connection.query<import('mysql2').RowDataPacket[]>(
      'SELECT (SELECT COUNT(*) FROM journal) + (SELECT COUNT(*) FROM history) AS n',
    );
    await connection.end();
    expect(Math.abs(Number(count!.n) - seen.length)).toBeLessThanOrEqual(2);
    const csv = await boss.text('/history?format=csv&kind=trunk');
    expect(csv.text.split('\r\n')[0]).toBe('when,who,from where,what,kind,object,field,before,after');
    expect(csv.text).toContain('Kestrel Voice');
  });

  it('never shows a secret, and acts of others only to those who manage them', async () => {
    await boss.post('/extensions/e-2117/sip-password', { password: 'never-to-be-seen-1' });
    const all = JSON.stringify(await history('object=e-2117'));
    expect(all).toContain('•••');
    expect(all).not.toContain('never-to-be-seen-1');
    const mine = await history('who=Farida', await auditor());
    expect(mine.entries.every((e) => e.batch !== null)).toBe(true);
    expect((await history('who=Nobody%25')).entries).toEqual([]);
    expect((await boss.get('/history?from=yesterday')).status).toBe(400);
  });
});
