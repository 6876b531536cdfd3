import { afterAll, beforeAll, describe, expect, it, jest } from '@jest/globals';
import type { Connection, RowDataPacket } from 'mysql2/promise';
import { Client, admin, database } from '../support/api';
import { ADMIN, BASE, HELPDESK } from '../support/browser';

/* Who gets in, for how long, and what a token, a demotion or a guess can and can't do. */

jest.setTimeout(120_000);
let boss: Client;
let sql: Connection;
beforeAll(async () => {
  [boss, sql] = await Promise.all([admin(), database()]);
});
afterAll(async () => {
  await sql.query('DELETE FROM rate_limit');
  await sql.end();
});

interface Person {
  id: string;
  signIn: string;
  password: string;
}

let made = 0;
/** An administrator of their own, past the first change of password. */
async function person(role: string): Promise<Person> {
  const signIn = `guard-${++made}`;
  const { body } = await boss.post<{ id: string; password: string }>('/administrators', {
    signIn,
    name: `Guard ${made}`,
    role,
  });
  const password = 'tide-and-anchor-77';
  const first = await Client.signedIn([signIn, body.password]);
  expect((await first.put('/account/password', { old: body.password, password })).status).toBe(200);
  return { id: body.id, signIn, password };
}
const signedIn = (p: Person) => Client.signedIn([p.signIn, p.password]);
const post = (body: unknown, headers: Record<string, string> = {}) =>
  fetch(`${BASE}/api/v1/session`, {
    method: 'POST',
    body: typeof body === 'string' ? body : JSON.stringify(body),
    headers: { 'content-type': 'application/json', ...headers },
  });

describe('a bearer token', () => {
  it('does nothing to the account of whoever made it', async () => {
    const { body } = await boss.post<{ token: string }>('/tokens', { name: 'reads', role: 'auditor', days: 1 });
    const token = Client.bearer(body.token);
    const tried = [
      token.get('/sessions'),
      token.delete('/sessions/any'),
      token.put('/account/password', { old: ADMIN[1], password: 'another-password-1' }),
      token.post('/account/second-factor'),
      token.put('/account/second-factor', { secret: 'A'.repeat(32), code: '123456' }),
      token.delete('/account/second-factor'),
    ];
    for (const { status, body: said } of await Promise.all(tried))
      expect([status, said.error!.code]).toEqual([403, 'not-by-token']);
    expect((await token.get('/edits')).status).toBe(200);
  });

  it('has no more rights than its maker has today, right by right and place by place', async () => {
    const maker = await person('owner');
    const mine = await signedIn(maker);
    const { body } = await mine.post<{ token: string }>('/tokens', { name: 'strong', role: 'owner', days: 1 });
    const token = Client.bearer(body.token);
    expect((await token.get('/administrators')).status).toBe(200);
    expect((await token.get('/plan')).status).toBe(200);
    await boss.put(`/administrators/${maker.id}`, { role: 'auditor' });
    expect((await token.get('/administrators')).status).toBe(403);
    expect((await token.post('/edits', { edits: [] })).status).toBe(403);
    expect((await token.get('/plan')).status).toBe(200);
    const role = await boss.post<{ id: string }>('/roles', {
      name: 'One site only',
      grants: [{ right: 'look', areas: 'all', sites: ['larkspur'] }],
    });
    await boss.put(`/administrators/${maker.id}`, { role: role.body.id });
    expect((await token.get('/plan')).status).toBe(403);
    const { body: seen } = await token.get<{ rows: { cells: Record<string, string> }[] }>('/ledgers/person?sort=name');
    expect(seen.rows.length).toBeGreaterThan(0);
    await boss.put(`/administrators/${maker.id}`, { blocked: true });
    expect((await token.get('/ledgers/person')).status).toBe(401);
  });
});

describe('the right to manage administrators', () => {
  it('is never lost to the last who has it: by their role, by the role’s rights, by blocking, or by two at once', async () => {
    const keeper = await boss.post<{ id: string }>('/roles', {
      name: 'Keeper',
      grants: [{ right: 'administer', areas: 'all', sites: 'all' }],
    });
    const [rows] = await sql.query<RowDataPacket[]>(
      "SELECT id, role FROM account WHERE role = 'owner' AND blocked_at IS NULL",
    );
    const owners = rows.map((r) => r.id as string);
    const [one, other] = [await person(keeper.body.id), await person(keeper.body.id)];
    const [first, second] = [await signedIn(one), await signedIn(other)];
    // Everybody else who could is put aside, straight in the table.
    await sql.query('UPDATE account SET blocked_at = NOW(3) WHERE id IN (?)', [owners]);
    try {
      const lesser = { name: 'Keeper', grants: [{ right: 'look', areas: 'all', sites: 'all' }] };
      const refused = await first.put(`/roles/${keeper.body.id}`, lesser);
      expect([refused.status, refused.body.error!.code]).toEqual([409, 'last-manager']);
      const both = await Promise.all([
        first.put(`/administrators/${other.id}`, { role: 'auditor' }),
        second.put(`/administrators/${one.id}`, { role: 'auditor' }),
      ]);
      expect(both.filter((r) => r.status === 200)).toHaveLength(1);
      const [left] = await sql.query<RowDataPacket[]>(
        'SELECT COUNT(*) AS n FROM account WHERE role = ? AND blocked_at IS NULL',
        [keeper.body.id],
      );
      expect(Number(left[0]!.n)).toBe(1);
    } finally {
      await sql.query('UPDATE account SET blocked_at = NULL WHERE id IN (?)', [owners]);
    }
  });
});

describe('a password', () => {
  it('that is changed ends the other sessions and leaves the one it was changed in', async () => {
    const who = await person('auditor');
    const [here, there] = [await signedIn(who), await signedIn(who)];
    const changed = await here.put('/account/password', { old: who.password, password: 'quite-another-one-5' });
    expect(changed.status).toBe(200);
    expect((await here.get('/edits')).status).toBe(200);
    expect((await there.get('/edits')).status).toBe(401);
  });

  it('can’t be guessed by whoever sits at an open session', async () => {
    const who = await person('auditor');
    const open = await signedIn(who);
    const guesses = await Promise.all(
      Array.from({ length: 30 }, (_, i) =>
        open.put('/account/password', { old: `guess ${i}`, password: 'a-new-one-of-mine' }),
      ),
    );
    expect(guesses.filter((g) => g.status === 422)).toHaveLength(8);
    expect(guesses.filter((g) => g.status === 429)).toHaveLength(22);
  });
});

describe('sign-in', () => {
  it('judges no more tries than allowed, however many come at once and however the name is written', async () => {
    await sql.query('DELETE FROM rate_limit');
    const who = await person('auditor');
    const spelt = [who.signIn, who.signIn.toUpperCase(), ` ${who.signIn}`, who.signIn.replace('g', 'ｇ')];
    const got = await Promise.all(
      Array.from({ length: 60 }, (_, i) => post({ name: spelt[i % 2]!, password: `guess ${i}` })),
    );
    expect(got.filter((r) => r.status === 401)).toHaveLength(8);
    expect(got.filter((r) => r.status === 429)).toHaveLength(52);
    for (const name of spelt) expect((await post({ name, password: who.password })).status).not.toBe(200);
    await sql.query('DELETE FROM rate_limit');
    expect((await post({ name: who.signIn, password: who.password })).status).toBe(200);
  });

  it('from a browser that is known goes on where others of its address are shut out', async () => {
    const who = await person('auditor');
    const first = await post({ name: who.signIn, password: who.password });
    const device = /polydrome_device=[^;]+/.exec(first.headers.get('set-cookie') ?? '')![0];
    expect(first.headers.get('set-cookie')).toMatch(
      /polydrome_device=[^;]+; Max-Age=\d+; Path=\/; HttpOnly; SameSite=Strict/,
    );
    await Promise.all(Array.from({ length: 60 }, (_, i) => post({ name: `stranger ${i}`, password: 'x' })));
    expect((await post({ name: who.signIn, password: who.password })).status).toBe(429);
    expect((await post({ name: who.signIn, password: who.password }, { cookie: device })).status).toBe(200);
    // Another's browser is no help.
    const other = await person('auditor').catch(() => null);
    if (other)
      expect((await post({ name: other.signIn, password: other.password }, { cookie: device })).status).toBe(429);
    // Nor does a known one guess without end.
    const guesses = await Promise.all(
      Array.from({ length: 12 }, () => post({ name: who.signIn, password: 'guess' }, { cookie: device })),
    );
    expect(guesses.filter((r) => r.status === 401)).toHaveLength(8);
    await sql.query('DELETE FROM rate_limit');
  });

  it.each<[string, Record<string, string>, number]>([
    ['a page of somebody else’s', { 'sec-fetch-site': 'cross-site' }, 403],
    ['a page of the same site but another origin', { 'sec-fetch-site': 'same-site' }, 403],
    ['an older browser on another page', { origin: 'https://evil.example' }, 403],
    ['a page without an origin', { origin: 'null' }, 403],
    ['a form, which can say no JSON', { 'content-type': 'text/plain' }, 415],
    ['our own page', { 'sec-fetch-site': 'same-origin', origin: BASE }, 200],
    ['a script', {}, 200],
  ])('asked by %s', async (_, headers, status) => {
    const got = await post({ name: HELPDESK[0], password: HELPDESK[1] }, headers);
    expect(got.status).toBe(status);
    expect(got.headers.has('set-cookie')).toBe(status === 200);
  });
});

describe('a session', () => {
  it('ends so many hours after its sign-in, however busy it was', async () => {
    const who = await person('auditor');
    const client = await signedIn(who);
    const age = (hours: number) =>
      sql.query('UPDATE session SET created_at = NOW(3) - INTERVAL ? MINUTE WHERE account = ?', [hours * 60, who.id]);
    expect((await boss.put('/settings', { mostSessionHours: 5 })).status).toBe(200);
    await age(4.9);
    expect((await client.get('/edits')).status).toBe(200);
    await age(5.1);
    expect((await client.get('/edits')).status).toBe(401);
    for (const mostSessionHours of [0, -1, 1.5, 10_000])
      expect((await boss.put('/settings', { mostSessionHours })).status).toBe(400);
    expect((await boss.put('/settings', {})).status).toBe(400);
    await boss.put('/settings', { mostSessionHours: 12 });
  });
});
