import { createHash } from 'node:crypto';
import { beforeAll, describe, expect, it, jest } from '@jest/globals';
import { Client, admin, auditor, database, helpdesk } from '../support/api';
import { mailTo, nextMail } from '../support/mail';
import { toneWav } from '../support/tones';

/* Messages come by the door of the exchange, are heard by their owners, and are told by mail; nobody else hears them. */

jest.setTimeout(120_000);

interface Listed {
  waiting: { fresh: number; kept: number; most: number };
  messages:
    { id: string; shown: string; situation: string; heard: { name: string }[]; forwarded: object | null }[] | null;
}
let boss: Client;
let exchange: Client;
let ilse: Client;

beforeAll(async () => {
  boss = await admin();
  const token = async (name: string, right: string) => {
    const role = await boss.post<{ id: string }>('/roles', {
      name: `${name} ${Date.now()}`,
      grants: [{ right, areas: 'all', sites: 'all' }],
    });
    return boss.post<{ token: string }>('/tokens', { name, role: role.body.id, days: 1 });
  };
  exchange = Client.bearer((await token('exchange', 'exchange')).body.token);
  ilse = await Client.signedIn(['ilse.brandvik@lanternfold.example', 'harbour-thistle-58']);
});

const leave = (mailbox: string, query = '', bytes = toneWav(1, 500, 8000), by = exchange) =>
  by.file(`/mailboxes/${mailbox}/messages${query}`, bytes);
const list = async (mailbox: string, by = ilse) => (await by.get<Listed>(`/mailboxes/${mailbox}/messages`)).body;
const from = (calling: string) => `?calling=${encodeURIComponent(calling)}`;

describe('the door of the exchange', () => {
  it('takes a message, and its owner hears it as it was left', async () => {
    const before = await list('m-2102');
    const { status, body } = await leave('m-2102', `${from('+441632960999')}&situation=busy`);
    expect([status, (body as unknown as Listed).waiting.fresh]).toEqual([200, before.waiting.fresh + 1]);
    const [newest] = (await list('m-2102')).messages!;
    expect(newest).toMatchObject({ id: body.id, shown: '01632 960999', situation: 'busy', heard: [] });
    const wav = await ilse.octets(`/messages/${body.id}/sound`);
    const view = new DataView(wav.buffer);
    expect([view.getUint32(24, true), view.getUint16(22, true), wav.length]).toEqual([8000, 1, 44 + 16_000]);
    // Counted by its waves: 500 a second, each crosses the line twice.
    let crossings = 0;
    for (let i = 46; i < wav.length; i += 2)
      if (view.getInt16(i, true) >= 0 !== view.getInt16(i - 2, true) >= 0) crossings++;
    expect(Math.abs(crossings - 1000)).toBeLessThan(12);
  });

  it('is for the exchange only, and says what is wrong with what it gets', async () => {
    for (const by of [await helpdesk(), await auditor(), ilse])
      expect((await leave('m-2102', '', undefined, by)).status).toBe(403);
    expect((await leave('m-none')).body.error).toMatchObject({ code: 'no-such-object' });
    const broken = await leave('m-2102', '', new TextEncoder().encode('no sound at all'));
    expect([broken.status, broken.body.error!.path]).toEqual([422, 'file']);
    const long = await leave('m-2102', '', toneWav(200, 300, 8000));
    expect([long.status, long.body.error!.code]).toEqual([422, 'too-long']);
    expect((await leave('m-2102', '?situation=asleep')).status).toBe(400);
  });

  it('a full mailbox takes no more, also from many at once', async () => {
    const sql = await database();
    const most = 100;
    const [[{ n }]] = (await sql.query(
      "SELECT COUNT(*) AS n FROM message WHERE mailbox = 'm-2110' AND deleted_at IS NULL",
    )) as unknown as [[{ n: number }]];
    for (let i = Number(n); i < most - 2; i++)
      await sql.query(
        "INSERT INTO message (id, mailbox, received, situation, seconds, peaks) VALUES (UUID(), 'm-2110', UTC_TIMESTAMP(3), 'busy', 1, '[]')",
      );
    const sent = await Promise.all(Array.from({ length: 5 }, () => leave('m-2110')));
    expect(sent.map((s) => s.status).sort()).toEqual([200, 200, 409, 409, 409]);
    expect(sent.find((s) => s.status === 409)!.body.error!.code).toBe('mailbox-full');
    await sql.query("DELETE FROM message WHERE mailbox = 'm-2110'");
    await sql.end();
  });

  it('opens a mailbox by its PIN, locks it after wrong ones whoever calls, and tells what the lamp shows', async () => {
    expect((await boss.put('/mailboxes/m-2102/pin', { pin: '774613' })).status).toBeLessThan(300);
    const open = (pin: string, calling: string) => exchange.post(`/mailboxes/m-2102/opening`, { pin, calling });
    const opened = await open('774613', '+441632960999');
    expect(opened.status).toBe(200);
    expect(opened.body.messages).toHaveLength((opened.body as unknown as Listed).waiting.kept);
    for (let i = 0; i < 8; i++)
      expect((await open('111222', `+44163296${1000 + i}`)).body.error!.code).toBe('wrong-pin');
    // Also the right one has to wait now.
    expect((await open('774613', '+441632960999')).status).toBe(429);
    // Another mailbox is as open as before.
    expect((await exchange.post('/mailboxes/m-2103/opening', { pin: '1' })).status).not.toBe(429);
    const sql = await database();
    await sql.query("DELETE FROM rate_limit WHERE `key` LIKE '%pin m-2102%'");
    await sql.end();
    const { waiting, summary } = (
      await exchange.get<{ waiting: Listed['waiting']; summary: string }>('/mailboxes/m-2102/waiting')
    ).body;
    expect(summary).toBe(
      `Messages-Waiting: yes\r\nVoice-Message: ${waiting.fresh}/${waiting.kept - waiting.fresh}\r\n`,
    );
    const { entries } = (await boss.get<{ entries: { action: string }[] }>('/history')).body;
    expect(entries.some((e) => e.action === 'was refused at a mailbox by telephone')).toBe(true);
  });
});

describe('who hears', () => {
  it('owners hear; administrators see how many; whoever was granted it hears on record', async () => {
    const { body } = await leave('m-2102', from('+441632960888'));
    for (const by of [boss, await helpdesk(), await auditor()]) {
      const seen = await list('m-2102', by);
      expect([seen.messages, seen.waiting.kept > 0]).toEqual([null, true]);
      for (const sent of [
        await by.get(`/messages/${body.id}/sound`),
        await by.delete(`/messages/${body.id}`),
        await by.post(`/messages/${body.id}`, { heard: true }),
        await by.post(`/messages/${body.id}/copies`, { to: '2104' }),
      ])
        expect([sent.status, sent.body.error!.code]).toEqual([403, 'not-allowed']);
    }
    const role = await boss.post<{ id: string }>('/roles', {
      name: `Listens ${Date.now()}`,
      grants: ['look', 'hearMessages'].map((right) => ({ right, areas: 'all', sites: 'all' })),
    });
    const made = await boss.post<{ password: string }>('/administrators', {
      signIn: `listens.${Date.now()}`,
      name: 'Lis Tener',
      role: role.body.id,
    });
    expect(made.status).toBe(200);
    // A token never has more than whoever made it: the owner may not hear, so no token of theirs may.
    const borrowed = await boss.post<{ token: string }>('/tokens', { name: 'ears', role: role.body.id, days: 1 });
    expect((await Client.bearer(borrowed.body.token).get(`/messages/${body.id}/sound`)).status).toBe(403);
  });

  it('a person reaches no mailbox of others, and nothing of the plan', async () => {
    const other = await leave('m-2104', from('+441632960555'));
    for (const path of [`/messages/${other.body.id}/sound`, '/mailboxes/m-2104/messages'])
      expect((await ilse.get(path)).status).toBe(404);
    expect((await ilse.delete(`/messages/${other.body.id}`)).status).toBe(404);
    for (const path of ['/plan', '/calls', '/history', '/ledgers/person', '/administrators', '/mail'])
      expect([path, (await ilse.get(path)).status]).toEqual([path, 403]);
  });

  it('heard, marked, deleted and brought back; sent on with a note', async () => {
    const { body } = await leave('m-2102', from('+441632960321'));
    const one = async () => (await list('m-2102')).messages!.find((m) => m.id === body.id);
    await ilse.post(`/messages/${body.id}`, { heard: true, marked: true });
    expect(await one()).toMatchObject({ heard: [{ name: 'Ilse Brandvik' }], marked: true });
    await ilse.post(`/messages/${body.id}`, { heard: false });
    expect(await one()).toMatchObject({ heard: [], marked: true });
    await ilse.delete(`/messages/${body.id}`);
    expect(await one()).toBeUndefined();
    const bin = (await ilse.get<Listed>('/mailboxes/m-2102/messages?deleted=yes')).body.messages!;
    expect(bin.map((m) => m.id)).toContain(body.id);
    await ilse.post(`/messages/${body.id}/restoration`);
    expect(await one()).toBeDefined();
    expect((await ilse.post(`/messages/${body.id}/copies`, { to: '2102' })).body.error!.code).toBe('same-mailbox');
    expect((await ilse.post(`/messages/${body.id}/copies`, { to: '99' })).body.error!.path).toBe('to');
    const sent = await ilse.post<{ to: string }>(`/messages/${body.id}/copies`, { to: '2104', note: 'Please call.' });
    expect(sent.body.to).toBe('Amara Lindqvist');
    const sql = await database();
    const [copies] = (await sql.query(
      "SELECT forwarded_by, forwarded_note FROM message WHERE mailbox = 'm-2104' AND forwarded_by IS NOT NULL",
    )) as unknown as [object[]];
    expect(copies).toEqual([{ forwarded_by: 'Ilse Brandvik', forwarded_note: 'Please call.' }]);
    await sql.end();
  });
});

describe('mail', () => {
  it('tells of a message with its sound, read back by another parser', async () => {
    const box = 'bookings@lanternfold.example';
    const before = (await mailTo(box)).length;
    const { body } = await leave('m-bookings', `${from('+441632960123')}&name=Corin%20Hale`, toneWav(2, 700, 8000));
    const mail = await nextMail(box, before);
    expect(mail.subject).toBe('Message from Corin Hale for Bookings messages');
    expect(mail.text).toContain('Corin Hale (01632 960123) left a message on');
    expect(mail.text).toContain('/own/messages/m-bookings');
    expect(mail.headers.get('auto-submitted')).toBe('auto-generated');
    const [sound] = mail.attachments;
    expect([mail.attachments.length, sound!.contentType]).toEqual([1, 'audio/wav']);
    const sql = await database();
    const [parts] = (await sql.query('SELECT samples FROM message_sound WHERE message = ? ORDER BY part', [
      body.id,
    ])) as unknown as [{ samples: Buffer }[]];
    await sql.end();
    const hash = (b: Uint8Array) => createHash('sha256').update(b).digest('hex');
    expect(hash(sound!.content.subarray(44))).toBe(hash(Buffer.concat(parts.map((p) => p.samples))));
  });

  it('deletes what was mailed with its sound, where the mailbox says so', async () => {
    const box = 'lost@lanternfold.example';
    const before = (await mailTo(box)).length;
    const { body } = await leave('m-lost-property', from('+441632960124'));
    expect((await nextMail(box, before)).attachments).toHaveLength(1);
    const sql = await database();
    for (let i = 0; ; i++) {
      const [[row]] = (await sql.query('SELECT deleted_at FROM message WHERE id = ?', [body.id])) as unknown as [
        [{ deleted_at: Date | null }],
      ];
      if (row.deleted_at) break;
      expect(i).toBeLessThan(50);
      await new Promise((done) => setTimeout(done, 100));
    }
    await sql.end();
  });

  it('waits while its server is away, says why, and goes when the server is back; once', async () => {
    const box = 'bookings@lanternfold.example';
    const { settings } = (await boss.get<{ settings: Record<string, unknown> }>('/mail/settings')).body;
    const { hasPassword: _, ...set } = settings;
    const server = async (port: unknown) =>
      expect((await boss.put('/mail/settings', { ...set, port, password: '' })).status).toBe(200);
    const before = (await mailTo(box)).length;
    // Nobody listens there.
    await server(9);
    await leave('m-bookings', from('+441632960125'));
    const newest = async () => {
      type One = { to: string; state: string; said: string; attempts: number };
      return (await boss.get<{ mails: One[] }>('/mail')).body.mails.find((m) => m.to === box)!;
    };
    for (let i = 0; (await newest()).said === ''; i++) {
      expect(i).toBeLessThan(100);
      await new Promise((done) => setTimeout(done, 100));
    }
    expect(await newest()).toMatchObject({ state: 'waiting', said: expect.stringMatching(/connect|refused|reach/i) });
    expect((await mailTo(box)).length).toBe(before);
    await server(set.port);
    // Its minute is over.
    const sql = await database();
    await sql.query("UPDATE mail SET due = UTC_TIMESTAMP(3) WHERE state = 'waiting' AND recipient = ?", [box]);
    await sql.end();
    await nextMail(box, before);
    await new Promise((done) => setTimeout(done, 1500));
    expect((await mailTo(box)).length).toBe(before + 1);
    expect(await newest()).toMatchObject({ state: 'sent' });
  });

  it('is tried with what the server answers said; the password comes back to nobody', async () => {
    expect(
      (await boss.post<{ said: string }>('/mail/trial', { to: 'somebody@lanternfold.example' })).body.said,
    ).toMatch(/^250 /);
    const refused = await boss.post('/mail/trial', { to: 'refused@lanternfold.example' });
    expect([refused.status, refused.body.error!.path]).toEqual([422, 'to']);
    expect(refused.body.error!.sentence).toContain('550 5.1.1');
    const { settings } = (await boss.get<{ settings: Record<string, unknown> }>('/mail/settings')).body;
    const { hasPassword: _, ...set } = settings;
    expect((await boss.put('/mail/settings', { ...set, password: 'very-secret-9' })).status).toBe(200);
    const told = await Promise.all(['/mail/settings', '/mail', '/history'].map((p) => boss.text(p)));
    expect(told.map((t) => t.text.includes('very-secret-9'))).toEqual([false, false, false]);
    const sql = await database();
    const [[row]] = (await sql.query('SELECT password FROM mail_setting')) as unknown as [[{ password: Buffer }]];
    expect(row.password.toString('latin1')).not.toContain('very-secret-9');
    await sql.end();
    expect((await boss.put('/mail/settings', { ...set, password: '' })).status).toBe(200);
    const wrong = await boss.put('/mail/settings', { ...set, host: 'no host!', pages: 'ftp://x' });
    expect(wrong.body.errors!.map((e) => e.path).sort()).toEqual(['host', 'pages']);
  });
});
