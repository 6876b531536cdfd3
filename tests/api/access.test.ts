import { createHash } from 'node:crypto';
import { beforeAll, describe, expect, it } from '@jest/globals';
import type { RowDataPacket } from 'mysql2';
import { PATHS } from '@/contract';
import { Client, admin, database, helpdesk } from '../support/api';
import { HELPDESK } from '../support/browser';

let boss: Client;
beforeAll(async () => {
  boss = await admin();
});

async function rows(sql: string, values: unknown[] = []): Promise<RowDataPacket[]> {
  const connection = await database();
  const [found] = await connection.query<RowDataPacket[]>(sql, values);
  await connection.end();
  return found;
}

describe('API tokens', () => {
  it('are made once, work with their role, are kept as a hash, and stop when revoked', async () => {
    const { body: made } = await boss.post<{ id: string; token: string }>('/tokens', {
      name: 'nightly',
      role: 'auditor',
      days: 1,
    });
    const script = Client.bearer(made.token);
    expect((await script.get('/plan?of=live')).status).toBe(200);
    expect(
      (await script.post('/edits', { edits: [{ kind: 'person', id: 'x', rowVersion: null, value: {} }] })).status,
    ).toBe(403);
    const [row] = await rows('SELECT token_hash FROM api_token WHERE id = ?', [made.id]);
    expect((row!.token_hash as Buffer).equals(createHash('sha256').update(made.token).digest())).toBe(true);
    expect((await boss.send('DELETE', `/tokens/${made.id}`)).status).toBe(200);
    expect((await script.get('/plan?of=live')).status).toBe(401);
    expect((await boss.send('DELETE', `/tokens/${made.id}`)).status).toBe(404);
  });

  it('end at their date', async () => {
    const { body: made } = await boss.post<{ id: string; token: string }>('/tokens', {
      name: 'short',
      role: 'auditor',
      days: 1,
    });
    await rows('UPDATE api_token SET expires_at = UTC_TIMESTAMP(3) - INTERVAL 1 SECOND WHERE id = ?', [made.id]);
    expect((await Client.bearer(made.token).get('/plan')).status).toBe(401);
  });
});

describe('sign-in', () => {
  it('slows down wrong tries of a name, counted in the database, and not other names', async () => {
    const wrong = () => Client.anonymous().post('/session', { name: 'guesser', password: 'wrong' });
    for (let i = 0; i < 8; i++) expect((await wrong()).status).toBe(401);
    const slowed = await wrong();
    expect(slowed.status).toBe(429);
    expect(slowed.body.error!.sentence).toMatch(/next one counts in \d+ s/);
    expect((await helpdesk()).get).toBeDefined();
    await rows('DELETE FROM rate_limit');
  });

  it('ends a session that was idle longer than the organisation allows', async () => {
    const idle = await Client.signedIn(HELPDESK);
    expect((await boss.put('/settings', { idleSignOutMinutes: 2 })).status).toBe(200);
    expect((await idle.get('/edits')).status).toBe(200);
    await rows(
      "UPDATE session s JOIN account a ON a.id = s.account SET s.last_seen_at = UTC_TIMESTAMP(3) - INTERVAL 3 MINUTE WHERE a.sign_in = 'helpdesk'",
    );
    // A page that only asks after our health does not keep anybody signed in.
    expect((await idle.get('/health')).status).toBe(200);
    expect((await idle.get('/edits')).status).toBe(401);
    expect((await boss.put('/settings', { idleSignOutMinutes: 0 })).status).toBe(400);
    await boss.put('/settings', { idleSignOutMinutes: 30 });
  });
});

describe('secrets', () => {
  it('stand in no answer, journal or history, and sealed in the database', async () => {
    const { body } = await boss.post<{ password: string }>('/extensions/e-2120/sip-password', { make: true });
    expect(body.password).toMatch(/^[A-HJ-NP-Za-km-np-z2-9]{20}$/);
    await (await helpdesk()).put('/mailboxes/m-2120/pin', { pin: '830275' });
    const plan = JSON.stringify((await boss.get('/plan')).body) + JSON.stringify((await boss.get('/edits')).body);
    const kept = JSON.stringify([
      await rows('SELECT * FROM journal'),
      await rows('SELECT * FROM history'),
      await rows('SELECT owner, purpose, version, CAST(value AS CHAR CHARACTER SET latin1) AS value FROM secret'),
    ]);
    for (const secret of [body.password, '830275']) {
      expect(plan).not.toContain(secret);
      expect(kept).not.toContain(secret);
    }
    const [pin] = await rows(
      "SELECT CAST(value AS CHAR) AS value FROM secret WHERE owner = 'm-2120' AND purpose = 'pin' ORDER BY version DESC LIMIT 1",
    );
    expect(pin!.value).toMatch(/^\$argon2id\$/);
    const shown = await rows("SELECT action FROM history WHERE object_id = 'e-2120' AND action = 'password-shown'");
    await boss.post('/extensions/e-2120/sip-password');
    expect(
      (await rows("SELECT action FROM history WHERE object_id = 'e-2120' AND action = 'password-shown'")).length,
    ).toBe(shown.length + 1);
    await boss.post('/edits/undo', { kind: 'extension', id: 'e-2120' });
  });

  it('the application’s database user can change no table', async () => {
    const [grants] = await rows(
      "SELECT GROUP_CONCAT(PRIVILEGE_TYPE ORDER BY PRIVILEGE_TYPE) AS p FROM information_schema.SCHEMA_PRIVILEGES WHERE GRANTEE LIKE '%polydrome%'",
    );
    expect(grants!.p).toBe('DELETE,INSERT,SELECT,UPDATE');
  });
});

describe('state beside the plan acts at once', () => {
  it('forwarding changes the trace of live, without an edit, and its times are kept', async () => {
    const desk = await helpdesk();
    const ask = async (at = 'now') =>
      (await boss.get<{ lands: { digits: string } }>(`/trace?from=2101&dial=2102&of=live&at=${encodeURIComponent(at)}`))
        .body.lands.digits;
    const version = (await boss.get('/health')).body.draftVersion;
    const before = new Date(Date.now() - 1000).toISOString();
    expect(await ask()).toBe('2102');
    expect((await desk.put('/extensions/e-2102/forwarding', { when: 'always', to: '2103' })).status).toBe(200);
    expect(await ask()).toBe('2103');
    expect(await ask(before)).toBe('2102');
    expect((await desk.put('/extensions/e-2102/forwarding', { when: 'always', to: null })).status).toBe(200);
    expect(await ask()).toBe('2102');
    expect((await boss.get('/health')).body.draftVersion).toBe(version);
  });
});

describe('forwarding that ends by itself', () => {
  const until = async (id: string) => {
    const [row] = await rows(
      "SELECT until FROM state_entry WHERE kind = 'forwarding' AND subject = ? ORDER BY since DESC, id DESC LIMIT 1",
      [id],
    );
    return (row!.until as Date).toISOString();
  };

  it('with a day ends with it by the clock of the extension’s site, with a moment at that', async () => {
    const desk = await helpdesk();
    // North Quay keeps Greenwich time in December, Freight Hamburg is an hour ahead of it.
    for (const [id, at] of [
      ['e-2103', '2099-12-24T23:59:59.999Z'],
      ['e-4004', '2099-12-24T22:59:59.999Z'],
    ] as const) {
      const body = { when: 'busy', to: '2101', until: '2099-12-24' };
      expect((await desk.put(`/extensions/${id}/forwarding`, body)).status).toBe(200);
      expect(await until(id)).toBe(at);
      await desk.put(`/extensions/${id}/forwarding`, { when: 'busy', to: null });
    }
    const moment = { when: 'busy', to: '2101', until: '2099-12-24T12:00:00+01:00' };
    expect((await desk.put('/extensions/e-2103/forwarding', moment)).status).toBe(200);
    expect(await until('e-2103')).toBe('2099-12-24T11:00:00.000Z');
    await desk.put('/extensions/e-2103/forwarding', { when: 'busy', to: null });
  });

  it.each(['2020-01-01', '2020-01-01T00:00:00Z', 'christmas', '2026-02-30'])('not with %s', async (day) => {
    const desk = await helpdesk();
    const refused = await desk.put('/extensions/e-2103/forwarding', { when: 'busy', to: '2101', until: day });
    expect(refused.status).toBeGreaterThanOrEqual(400);
    expect(refused.body.error).toMatchObject({ path: 'until' });
    expect((refused.body.error as { sentence: string }).sentence).toMatch(/day/);
  });
});

describe('the OpenAPI document', () => {
  it('is 3.1, needs no sign-in and names every route that exists', async () => {
    const { status, body } = await Client.anonymous().get<{
      openapi: string;
      paths: Record<string, Record<string, unknown>>;
    }>('/openapi.json');
    expect(status).toBe(200);
    expect(body.openapi).toBe('3.1.0');
    const named = Object.values(PATHS).map(([method, path]) => `${method.toLowerCase()} ${path}`);
    const told = Object.entries(body.paths).flatMap(([path, of]) =>
      Object.keys(of).map((method) => `${method} ${path}`),
    );
    expect(told.sort()).toEqual(named.sort());
    const edit = body.paths['/edits']!.post as {
      requestBody: { content: { 'application/json': { schema: { properties: { edits: object } } } } };
    };
    expect(edit.requestBody.content['application/json'].schema.properties.edits).toMatchObject({
      type: 'array',
      minItems: 1,
    });
  });
});
