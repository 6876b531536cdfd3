import { beforeAll, describe, expect, it, jest } from '@jest/globals';
import { Client, admin, auditor } from '../support/api';

/* An inbound route as a call script (RFC 3880): out with what could not be carried, in with what it would make. */

jest.setTimeout(60_000);

interface Reading {
  zone: string;
  rules: { leadsTo: string; label: string; weekly: string; said: string }[];
  otherwise: { leadsTo: string | null } | null;
  notCarried: string[];
}

let boss: Client;
beforeAll(async () => {
  boss = await admin();
});

const script = (inner: string) => `<cpl xmlns="urn:ietf:params:xml:ns:cpl"><incoming>${inner}</incoming></cpl>`;

describe('a route as a call script', () => {
  it('is written, and read back makes the same times and ends', async () => {
    const { status, body } = await boss.get<{ text: string; notCarried: string[] }>('/inbound-routes/in-vastra/script');
    expect([status, body.notCarried]).toEqual([200, []]);
    const got = await boss.file('/inbound-routes/in-vastra/script', body.text);
    const read = got.body as unknown as Reading;
    expect([got.status, read.zone]).toEqual([200, 'Europe/Stockholm']);
    // The mailbox takes most of the week; the reception has its weekly times, North Quay the holidays.
    expect(read.otherwise).toMatchObject({ leadsTo: 'm-3000' });
    expect(read.rules.find((r) => r.leadsTo === 'e-3000')).toMatchObject({ weekly: 'mon-fri 8-17, sat 9-14' });
    expect(read.rules.find((r) => r.leadsTo === 'e-2000')).toMatchObject({ weekly: '' });
    expect(read.notCarried).toEqual([]);
  });

  it('of somebody else names what is nothing here, numbers and conditions among it', async () => {
    const got = await boss.file(
      '/inbound-routes/in-main/script',
      script(
        '<time-switch tzid="Europe/London"><time dtstart="20260105T090000" dtend="20260105T170000" freq="weekly" byday="MO,TU,WE,TH,FR">' +
          '<location url="sip:2000@far.example"><proxy/></location></time>' +
          '<otherwise><location url="tel:+447700900123"><redirect/></location></otherwise></time-switch>',
      ),
    );
    const read = got.body as unknown as Reading;
    expect(read.rules).toMatchObject([{ leadsTo: 'e-2000', weekly: 'mon-fri 9-17' }]);
    expect(read.otherwise).toMatchObject({ leadsTo: 'crew-night' });
    const nobody = await boss.file(
      '/inbound-routes/in-main/script',
      script('<location url="sip:nobody@far.example"><proxy/></location>'),
    );
    expect((nobody.body as unknown as Reading).notCarried.join(' ')).toContain('nobody is nothing here');
  });

  it.each(['', 'no script', '<cpl>', '<!DOCTYPE x [<!ENTITY a "b">]><cpl><incoming>&a;</incoming></cpl>'])(
    'that is none (%s) is refused with a sentence',
    async (text) => {
      const got = await boss.file('/inbound-routes/in-main/script', text);
      expect([got.status, got.body.error?.code]).toEqual([422, 'bad-script']);
    },
  );

  it('of a route that is not there is not there, and who only looks may read one', async () => {
    expect((await boss.get('/inbound-routes/nothing/script')).status).toBe(404);
    expect((await (await auditor()).get('/inbound-routes/in-main/script')).status).toBe(200);
  });
});
