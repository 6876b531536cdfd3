import { afterAll, beforeAll, describe, expect, it, jest } from '@jest/globals';
import ICAL from 'ical.js';
import { createServer, type IncomingMessage, type Server, type ServerResponse } from 'node:http';
import type { AddressInfo } from 'node:net';
import { Client, admin, auditor, database } from '../support/api';
import { BASE } from '../support/browser';

/* Hours as calendars: files out and in, secret addresses, and a feed whose far end is huge, slow, broken or goes round in circles. */

jest.setTimeout(90_000);

const HOURS = 'vastra-hours';
let boss: Client;
let far: Server;
let at: string;
let answer: (request: IncomingMessage, response: ServerResponse) => void;

beforeAll(async () => {
  boss = await admin();
  far = createServer((request, response) => answer(request, response));
  await new Promise<void>((listening) => far.listen(0, '127.0.0.1', listening));
  at = `http://127.0.0.1:${(far.address() as AddressInfo).port}/closing-days.ics?token=secret-word`;
});
afterAll(async () => {
  await boss.delete(`/hours/${HOURS}/feed`);
  await new Promise((closed) => {
    far.closeAllConnections();
    far.close(closed);
  });
});

const calendar = (...events: string[]) =>
  [
    'BEGIN:VCALENDAR',
    'VERSION:2.0',
    'PRODID:-//far//EN',
    ...events.flatMap((e) => e.split('\n')),
    'END:VCALENDAR',
    '',
  ].join('\r\n');
const closed = (day: string, name: string) =>
  `BEGIN:VEVENT\nUID:${day}@far\nDTSTAMP:20260101T000000Z\nDTSTART;VALUE=DATE:${day}\nSUMMARY:${name}\nEND:VEVENT`;
const year = new Date().getUTCFullYear() + 1;

describe('a calendar file', () => {
  it('is written so that another reader of RFC 5545 finds the same open times', async () => {
    const { type, text } = await boss.text(`/hours/${HOURS}/calendar.ics`);
    expect(type).toBe('text/calendar; charset=utf-8');
    const root = new ICAL.Component(ICAL.parse(text) as [string, unknown[], unknown[]]);
    const weekly = root
      .getAllSubcomponents('vevent')
      .filter((e) => String(e.getFirstPropertyValue('categories')).includes('weekly'));
    expect(weekly.length).toBeGreaterThan(0);
    // The first Monday of next July is an ordinary one: open from eight to five there.
    const monday = ICAL.Time.fromDateString(`${year}-07-01`);
    while (monday.dayOfWeek() !== ICAL.Time.MONDAY) monday.adjust(1, 0, 0, 0);
    const open = weekly.flatMap((e) => {
      const steps = new ICAL.RecurExpansion({ component: e, dtstart: e.getFirstPropertyValue('dtstart') as ICAL.Time });
      for (let next = steps.next(), n = 0; next && n < 1000; next = steps.next(), n++)
        if (next.toString().slice(0, 10) === monday.toString().slice(0, 10)) {
          const start = e.getFirstPropertyValue('dtstart') as ICAL.Time;
          const end = e.getFirstPropertyValue('dtend') as ICAL.Time;
          return [`${start.hour}-${end.hour}`];
        }
      return [];
    });
    expect(open).toEqual(['8-17']);
  });

  it('that is read back changes nothing', async () => {
    const { text } = await boss.text(`/hours/${HOURS}/calendar.ics`);
    const { status, body } = await boss.file(`/hours/${HOURS}/calendar`, text);
    expect(status).toBe(200);
    const { changes } = body as unknown as { changes: string[] };
    // Its holidays are kept in calendars of their own, by name; here they would be dates of these hours.
    expect(changes.filter((c) => c.startsWith('The week'))).toEqual([]);
  });

  it('of somebody else is said as what it would change, and what is not taken over', async () => {
    const text = calendar(
      closed(`${year}0614`, 'Stocktaking'),
      'BEGIN:VTODO\nUID:x@far\nSUMMARY:Paint the mole\nEND:VTODO',
    );
    const { body } = await boss.file(`/hours/${HOURS}/calendar`, text);
    const read = body as unknown as { changes: string[]; notCarried: string[]; exceptions: unknown[] };
    expect(read.exceptions).toEqual([{ date: `${year}-06-14`, open: '', name: 'Stocktaking' }]);
    expect(read.changes).toEqual([`${year}-06-14: closed all day (Stocktaking)`]);
    expect(read.notCarried.join(' ')).toContain('VTODO');
  });

  it.each([
    ['no calendar', 'Monday to Friday'],
    ['a picture', '\u0089PNG\r\n\u001a'],
    ['nothing', ''],
  ])('that is %s is refused with where it went wrong', async (_what, text) => {
    const got = await boss.file(`/hours/${HOURS}/calendar`, text);
    expect([got.status, got.body.error?.code]).toEqual([422, 'bad-calendar']);
    expect(got.body.error!.sentence).toContain('iCalendar');
  });
});

describe('a secret address', () => {
  it('gives the live hours to whoever knows it, is kept as a hash, told once, and gives nothing once revoked', async () => {
    const { body } = await boss.post<{ id: string; path: string }>(`/hours/${HOURS}/addresses`);
    const read = () => fetch(BASE + body.path);
    const first = await read();
    expect([first.status, first.headers.get('content-type')]).toEqual([200, 'text/calendar; charset=utf-8']);
    expect(await first.text()).toContain('BEGIN:VCALENDAR');
    const secret = /calendars\/(.+)\.ics$/.exec(body.path)![1]!;
    const links = await boss.get<{ addresses: Record<string, unknown>[] }>(`/hours/${HOURS}/links`);
    expect(links.body.addresses).toContainEqual(
      expect.objectContaining({ id: body.id, madeBy: 'Farida Okonjo', lastReadAt: expect.any(String) }),
    );
    expect(JSON.stringify(links.body)).not.toContain(secret);
    const c = await database();
    const [rows] = await c.query('SELECT * FROM calendar_address');
    const [history] = await c.query('SELECT detail FROM history');
    await c.end();
    expect(JSON.stringify([rows, history])).not.toContain(secret);
    expect((await boss.delete(`/hours/${HOURS}/addresses/${body.id}`)).status).toBe(200);
    expect((await read()).status).toBe(404);
    expect((await fetch(`${BASE}/api/v1/calendars/${'x'.repeat(43)}.ics`)).status).toBe(404);
  });

  it('is made by those who edit', async () => {
    expect((await (await auditor()).post(`/hours/${HOURS}/addresses`)).status).toBe(403);
  });
});

describe('a feed that is read', () => {
  interface Feed {
    shown: string;
    outcome: string;
    dates: unknown[] | null;
    changes: string[];
  }
  const set = () => boss.put<Feed>(`/hours/${HOURS}/feed`, { address: at });
  const again = () => boss.post<Feed>(`/hours/${HOURS}/feed/reading`);

  it('says its last reading and what it would change; the secret part of its address is told nobody', async () => {
    answer = (_request, response) => void response.end(calendar(closed(`${year}0614`, 'Stocktaking')));
    const { status, body } = await set();
    expect(status).toBe(200);
    expect(body).toMatchObject({ shown: expect.stringMatching(/^127\.0\.0\.1:\d+$/), outcome: '1 date read' });
    expect(body.changes).toEqual([`${year}-06-14: closed all day (Stocktaking)`]);
    const c = await database();
    const [rows] = await c.query('SELECT * FROM calendar_feed');
    const [history] = await c.query('SELECT detail FROM history');
    await c.end();
    for (const text of [JSON.stringify(body), JSON.stringify(history), Buffer.from(JSON.stringify(rows)).toString()])
      expect(text).not.toContain('secret-word');
  });

  it.each<[string, (request: IncomingMessage, response: ServerResponse) => void, RegExp]>([
    [
      'is huge',
      (_request, response) => {
        response.write('BEGIN:VCALENDAR\r\n');
        const more = setInterval(() => response.write('X-NOTHING:' + 'x'.repeat(200_000) + '\r\n'), 2);
        response.on('close', () => clearInterval(more));
      },
      /larger than 2 MB/,
    ],
    [
      'is broken',
      (_request, response) => void response.end('BEGIN:VCALENDAR\r\nBEGIN:VEVENT\r\nDTST'),
      /no iCalendar|could not be read/,
    ],
    [
      'breaks off',
      (_request, response) => void response.write('BEGIN:VCAL', () => response.destroy()),
      /could not be read/,
    ],
    ['is not there', (_request, response) => void response.writeHead(404).end(), /answers 404/],
    [
      'goes round in circles',
      (request, response) => void response.writeHead(302, { location: request.url! }).end(),
      /leads on more than 3 times/,
    ],
    [
      'leads to a file of ours',
      (_request, response) => void response.writeHead(302, { location: 'file:///etc/passwd' }).end(),
      /leads to file:/,
    ],
    [
      'recurs every second',
      (_request, response) =>
        void response.end(
          calendar(
            'BEGIN:VEVENT\nUID:s@far\nDTSTART:20260101T000000Z\nDTEND:20260101T000001Z\nRRULE:FREQ=SECONDLY\nSUMMARY:Tick\nEND:VEVENT',
          ),
        ),
      /0 dates read; 1 entries say nothing/,
    ],
    ['never answers', () => undefined, /nothing came within 10 seconds/],
  ])('that %s is named, and what was read before stays', async (_what, serve, said) => {
    answer = serve;
    const { status, body } = await again();
    expect(status).toBe(200);
    expect(body.outcome).toMatch(said);
    if (!/0 dates/.test(body.outcome)) expect(body.dates).not.toBeNull();
    // Everybody else is answered meanwhile.
    expect((await boss.get('/health')).status).toBe(200);
  });

  it.each(['file:///etc/passwd', 'ftp://far/x.ics', 'nothing', 'https://', `https://far/${'x'.repeat(2000)}`])(
    'at %s is refused',
    async (address) => {
      const got = await boss.put(`/hours/${HOURS}/feed`, { address });
      expect(got.status).toBeGreaterThanOrEqual(400);
      expect(got.status).toBeLessThan(500);
    },
  );
});
