import { afterAll, beforeAll, describe, expect, it, jest } from '@jest/globals';
import { v7 as uuid } from 'uuid';
import { closePool, writing } from '@/server/db/pool';
import { dropRecordings, insertRecording } from '@/server/records/recording-rows';
import { Client, admin, auditor, database, helpdesk } from '../support/api';
import { ended } from '../support/jobs';
import { toneWav } from '../support/tones';

/* Recordings of calls: brought by the exchange, heard by whom a role lets, each listening on record, gone in time and with the name. */

jest.setTimeout(120_000);

interface Listed {
  calls: { key: string; from: { label: string }; to: { label: string } }[];
}
interface One {
  recorded: boolean;
  recording: { seconds: number; peaks: number[] | null; until: string | null; heard: { name: string }[] } | null;
}
let boss: Client;
let exchange: Client;
let hearer: Client;
/** calls of the bookings queue, none of which has a recording */
let calls: string[];

type Grant = { right: string; areas: 'all'; sites: 'all' | string[] };
const everywhere = (...rights: string[]): Grant[] => rights.map((right) => ({ right, areas: 'all', sites: 'all' }));

const roleOf = async (name: string, grants: Grant[]) =>
  (await boss.post<{ id: string }>('/roles', { name: `${name} ${Date.now()}`, grants })).body.id;

/** An administrator with some rights, who has set a password: a token of the owner's would have no more than the owner. */
async function administrator(name: string, grants: Grant[]): Promise<Client> {
  const signIn = `${name}.${Date.now()}`;
  const made = await boss.post<{ password: string }>('/administrators', {
    signIn,
    name,
    role: await roleOf(name, grants),
  });
  const first = await Client.signedIn([signIn, made.body.password]);
  const password = 'lamp-tide-orchard-19';
  expect((await first.put('/account/password', { old: made.body.password, password })).status).toBe(200);
  return Client.signedIn([signIn, password]);
}

const one = async (key: string, by = boss) => (await by.get<One>(`/calls/${key}`)).body;

beforeAll(async () => {
  boss = await admin();
  const role = await roleOf('exchange', everywhere('exchange'));
  const made = await boss.post<{ token: string }>('/tokens', { name: 'exchange', role, days: 1 });
  exchange = Client.bearer(made.body.token);
  hearer = await administrator('Hearer', everywhere('seeCalls', 'hearRecordings'));
  const { body } = await boss.get<Listed>('/calls?queue=bookings-queue&state=answered');
  calls = [];
  for (const { key } of body.calls) if (!(await one(key)).recording) calls.push(key);
  expect(calls.length).toBeGreaterThan(5);
});

afterAll(() => closePool());

const keep = (key: string, bytes = toneWav(2, 500, 8000), by = exchange) => by.file(`/calls/${key}/recording`, bytes);
const hear = (key: string, by = hearer) => by.get<{ error?: { code: string } }>(`/calls/${key}/recording`);

describe('recordings of calls', () => {
  it('are brought by the exchange only, one a call, and what is wrong with one is told', async () => {
    const [key] = calls;
    for (const by of [await helpdesk(), await auditor(), hearer])
      expect((await keep(key!, undefined, by)).status).toBe(403);
    const broken = await keep(key!, new TextEncoder().encode('no sound at all'));
    expect([broken.status, broken.body.error!.path]).toEqual([422, 'file']);
    expect((await keep('2026-01-01T00:00:00.000Z~none')).status).toBe(404);
    expect((await keep('nonsense')).status).toBe(404);
    expect(await one(key!)).toMatchObject({ recording: null });
    // Two at once: one is kept.
    const both = await Promise.all([keep(key!), keep(key!)]);
    expect(both.map((b) => b.status).sort()).toEqual([200, 409]);
    expect(await one(key!)).toMatchObject({ recorded: true, recording: { seconds: 2, peaks: null, heard: [] } });
  });

  it('are heard by whom a role lets, as they were brought, and each listening is on record', async () => {
    const key = calls[1]!;
    expect((await keep(key)).status).toBe(200);
    for (const by of [boss, await helpdesk(), await auditor(), exchange])
      expect((await hear(key, by)).status).toBe(403);
    expect((await one(key)).recording!.heard).toEqual([]);
    const wav = await hearer.octets(`/calls/${key}/recording`);
    const view = new DataView(wav.buffer);
    expect([view.getUint32(24, true), view.getUint16(22, true), wav.length]).toEqual([8000, 1, 44 + 32_000]);
    // A player asks more than once: that is one listening.
    await hearer.octets(`/calls/${key}/recording`);
    const seen = await one(key, hearer);
    expect(seen.recording!.peaks!.length).toBeGreaterThan(10);
    expect(seen.recording!.heard.map((h) => h.name)).toEqual(['Hearer']);
    // Somebody else of the same name is somebody else, and a file that is taken out is told each time.
    const namesake = await administrator('Hearer', everywhere('seeCalls', 'hearRecordings'));
    await namesake.octets(`/calls/${key}/recording`);
    await hearer.octets(`/calls/${key}/recording?file=yes`);
    expect((await one(key, hearer)).recording!.heard).toHaveLength(3);
    const { entries } = (await boss.get<{ entries: { action: string; by?: string }[] }>('/history')).body;
    expect(entries.filter((e) => e.action === 'heard the recording of')).toHaveLength(3);
  });

  it('are at one site only for whom a role lets there', async () => {
    const there = await administrator('Hamburg', [
      ...everywhere('seeCalls'),
      { right: 'hearRecordings', areas: 'all', sites: ['freight-hamburg'] },
    ]);
    const key = calls[2]!;
    expect((await keep(key)).status).toBe(200);
    expect((await hear(key, there)).status).toBe(403);
    expect((await one(key, there)).recording!.peaks).toBeNull();
  });

  it('go when they were kept long enough, and with their calls', async () => {
    const key = calls[3]!;
    expect((await keep(key)).status).toBe(200);
    const started = (await boss.get<{ row: { started: string } }>(`/calls/${key}`)).body.row.started;
    const days = async (keepRecordingsDays: number | null) =>
      expect((await boss.put('/settings', { keepRecordingsDays })).status).toBe(200);
    const until = async () => (await one(key)).recording?.until ?? null;
    const letGo = (at: string) => writing((c) => dropRecordings(c, new Date(at)));
    await days(null);
    expect(await until()).toBeNull();
    await letGo('2100-01-01T00:00:00Z');
    expect((await one(key)).recording).not.toBeNull();
    const bad = await boss.put('/settings', { keepRecordingsDays: 0 });
    expect([bad.status, bad.body.error!.path]).toEqual([400, 'keepRecordingsDays']);
    await days(3650);
    const end = (await until())!;
    expect(Date.parse(end) - Date.parse(started)).toBe(3650 * 86_400_000);
    await letGo(end);
    expect((await one(key)).recording).not.toBeNull();
    await days(90);
  });

  it('go with the name of an outside caller who is erased', async () => {
    const number = '+447700900654';
    const sql = await database();
    await sql.query(
      "INSERT INTO call_record (started, id, answered, ended, way, other, calling_delivered, calling_read, outcome, missed, emergency) VALUES ('2025-08-04 10:00:00', 'erased-voice', '2025-08-04 10:00:20', '2025-08-04 10:03:00', 'in', ?, ?, ?, 'routed', 0, 0)",
      [number, number, number],
    );
    const [[call]] = (await sql.query("SELECT started FROM call_record WHERE id = 'erased-voice'")) as unknown as [
      [{ started: Date }],
    ];
    await writing((c) =>
      insertRecording(
        c,
        { started: call.started, id: 'erased-voice' },
        { id: uuid(), seconds: 1, peaks: [1], samples: new Uint8Array(16_000) },
      ),
    );
    const voices = async () => {
      const [[found]] = (await sql.query(
        "SELECT COUNT(*) AS n FROM recording WHERE call_id = 'erased-voice'",
      )) as unknown as [[{ n: number }]];
      return Number(found.n);
    };
    expect(await voices()).toBe(1);
    const begun = await boss.post<{ job: string }>('/calls/erasure', { number });
    expect([begun.status, begun.body]).toEqual([200, begun.body]);
    expect((await ended(boss, begun.body.job)).state).toBe('done');
    expect(await voices()).toBe(0);
    await sql.query("DELETE FROM call_record WHERE id = 'erased-voice'");
    await sql.end();
  });
});
