import { afterAll, beforeAll, describe, expect, it, jest } from '@jest/globals';
import { Client, admin, auditor, helpdesk } from '../support/api';

/* What acts at once beside the draft: notices, time switches set by hand, blocked callers; with who may, from when, until when. */

jest.setTimeout(60_000);

let boss: Client;
const made: string[] = [];

beforeAll(async () => {
  boss = await admin();
});
afterAll(async () => {
  for (const path of made) await boss.delete(path);
  await boss.put('/time-switches/crew-duty/setting', { setting: 'by hours', until: null });
});

/** Where a call from outside ends in the live plan. */
async function lands(dial: string, at = 'now', from = 'outside:+441632960998'): Promise<string> {
  const { body } = await boss.get<{ lands: { id: string } | null; outcome: string }>(
    `/trace?from=${encodeURIComponent(from)}&dial=${encodeURIComponent(dial)}&at=${encodeURIComponent(at)}&of=live`,
  );
  return body.lands?.id ?? body.outcome;
}

async function notice(body: Record<string, unknown>): Promise<string> {
  const got = await boss.post<{ id: string }>('/notices', body);
  expect([got.status, got.body.error?.sentence]).toEqual([200, undefined]);
  made.push(`/notices/${got.body.id}`);
  return got.body.id;
}

const inHours = (hours: number) => new Date(Date.now() + hours * 3_600_000).toISOString();

describe('a notice', () => {
  it('leads callers of a route away at once, says who set it, and gives way when it is ended', async () => {
    expect(await lands('+441632960182')).toBe('e-2000');
    const id = await notice({
      of: { kind: 'inboundRoute', id: 'in-status' },
      open: false,
      until: inHours(2),
      leadsTo: 'm-lost-property',
      reason: 'storm',
    });
    expect(await lands('+441632960182')).toBe('m-lost-property');
    const { body } = await boss.get<{ notices: Record<string, unknown>[] }>('/notices');
    expect(body.notices.find((n) => n.id === id)).toMatchObject({
      of: { kind: 'inboundRoute', label: 'Sailing status' },
      leadsTo: { kind: 'mailbox', label: 'Lost property' },
      by: 'Farida Okonjo',
      reason: 'storm',
      holds: true,
      mine: true,
    });
    // After its end everything is as before, without anybody doing anything.
    expect(await lands('+441632960182', inHours(3))).toBe('e-2000');
    expect((await boss.delete(`/notices/${id}`)).status).toBe(200);
    expect(await lands('+441632960182')).toBe('e-2000');
    expect((await boss.delete(`/notices/${id}`)).status).toBe(404);
  });

  it('of hours takes the place of the rule that asks them, wherever they are asked', async () => {
    const id = await notice({
      of: { kind: 'hours', id: 'crew-day' },
      open: true,
      until: inHours(1),
      leadsTo: 'e-2000',
    });
    expect(await lands('+441632960180')).toBe('e-2000');
    await boss.delete(`/notices/${id}`);
    expect(['e-2124', 'kestrel']).toContain(await lands('+441632960180'));
  });

  it('with a prompt plays it, and the call ends there unless it leads on', async () => {
    const id = await notice({
      of: { kind: 'number', id: 'n-441632960182' },
      open: false,
      until: inHours(1),
      prompt: 'prompt-storm',
    });
    const { body } = await boss.get<{ lands: Record<string, unknown>; steps: { sentence: string }[] }>(
      '/trace?from=withheld&dial=%2B441632960182&of=live',
    );
    expect(body.lands).toMatchObject({ kind: 'announcement', id: 'prompt-storm' });
    expect(body.steps.map((s) => s.sentence).join(' ')).toContain('“Storm: terminals closed”');
    await boss.delete(`/notices/${id}`);
  });

  it('that begins later is prepared, listed, holds from then, and can be taken back', async () => {
    const id = await notice({
      of: { kind: 'inboundRoute', id: 'in-status' },
      open: false,
      from: inHours(24),
      until: inHours(30),
      leadsTo: 'm-2000',
    });
    expect(await lands('+441632960182')).toBe('e-2000');
    expect(await lands('+441632960182', inHours(25))).toBe('m-2000');
    const { body } = await boss.get<{ notices: { id: string; holds: boolean }[] }>('/notices');
    expect(body.notices.find((n) => n.id === id)!.holds).toBe(false);
    await boss.delete(`/notices/${id}`);
    expect(await lands('+441632960182', inHours(25))).toBe('e-2000');
  });

  it('stands in the strip of the week, from its begin to its end', async () => {
    const [from, until] = [inHours(-0), inHours(2)];
    const id = await notice({ of: { kind: 'inboundRoute', id: 'in-status' }, open: false, until, leadsTo: 'm-2000' });
    const { body } = await boss.get<{ week: { stretches: { from: number; to: number; lands: { id: string } }[] } }>(
      '/weeks/inboundRoute/in-status',
    );
    const mine = body.week.stretches.filter((s) => s.lands.id === 'm-2000');
    const length = mine.reduce((sum, s) => sum + s.to - s.from, 0);
    // Sunday night it runs into the next week.
    expect(length).toBeLessThanOrEqual(2 * 3_600_000 + 60_000);
    expect(length).toBeGreaterThan(0);
    expect(mine[0]!.from).toBeGreaterThanOrEqual(Date.parse(from) - 60_000);
    await boss.delete(`/notices/${id}`);
  });

  it('ends on a day by the clock of what it belongs to', async () => {
    const id = await notice({ of: { kind: 'hours', id: 'vastra-hours' }, open: false, until: '2199-03-01' });
    const { body } = await boss.get<{ notices: { id: string; until: string; zone: string }[] }>('/notices');
    const found = body.notices.find((n) => n.id === id)!;
    expect(found).toMatchObject({ zone: 'Europe/Stockholm', until: '2199-03-01T22:59:59.999Z' });
    await boss.delete(`/notices/${id}`);
  });

  it.each([
    ['an end that has passed', { until: '2020-01-01' }, 422, 'until'],
    ['an end before its begin', { from: '2199-01-02T00:00', until: '2199-01-01' }, 422, 'until'],
    ['no end that is a time', { until: 'soon' }, 400, 'until'],
    ['somewhere that is not there', { leadsTo: 'nowhere' }, 422, 'leadsTo'],
    ['a prompt that nobody hears', { open: true, prompt: 'prompt-storm' }, 400, 'prompt'],
    ['hours that are not there', { of: { kind: 'hours', id: 'nothing' } }, 404, 'of.id'],
    ['a kind that has none', { of: { kind: 'tone', id: 'engaged' } }, 400, 'of.kind'],
    ['a reason that is too long', { reason: 'x'.repeat(81) }, 400, 'reason'],
  ])('is refused with %s, and says where', async (_what, change, status, path) => {
    const got = await boss.post('/notices', {
      of: { kind: 'hours', id: 'vastra-hours' },
      open: false,
      until: inHours(1),
      ...change,
    });
    expect([got.status, got.body.error?.path]).toEqual([status, path]);
    expect(got.body.error!.sentence.length).toBeGreaterThan(10);
  });

  it('needs something that is live: what stands in the draft only is named', async () => {
    await boss.post('/edits', {
      edits: [
        {
          kind: 'hours',
          id: 'only-drafted',
          rowVersion: null,
          value: { id: 'only-drafted', name: 'Only drafted', zone: 'Europe/London' },
        },
      ],
    });
    const got = await boss.post('/notices', { of: { kind: 'hours', id: 'only-drafted' }, open: false });
    expect([got.status, got.body.error?.code]).toEqual([422, 'not-live']);
    await boss.post('/edits/undo', { kind: 'hours', id: 'only-drafted' });
  });

  it('is for those who may act at once; others look', async () => {
    for (const who of [await auditor(), await helpdesk()]) {
      const got = await who.post('/notices', { of: { kind: 'hours', id: 'vastra-hours' }, open: false });
      expect([got.status, got.body.error?.code]).toEqual([403, 'not-allowed']);
      expect((await who.get('/notices')).status).toBe(200);
    }
  });
});

describe('a time switch set by hand', () => {
  it('leads as it is set until its end, and by its hours again', async () => {
    for (const [setting, end] of [
      ['open', 'e-2124'],
      ['closed', 'kestrel'],
    ] as const) {
      expect((await boss.put('/time-switches/crew-duty/setting', { setting, until: inHours(1) })).status).toBe(200);
      expect(await lands('+441632960180')).toBe(end);
    }
    // At noon next week nobody has set it any more.
    expect(
      await lands(
        '+441632960180',
        new Date(Math.floor(Date.now() / 86_400_000) * 86_400_000 + 8 * 86_400_000 + 43_200_000).toISOString(),
      ),
    ).toBe('e-2124');
    await boss.put('/time-switches/crew-duty/setting', { setting: 'by hours', until: null });
  });

  it('says in the trace that somebody set it', async () => {
    await boss.put('/time-switches/crew-duty/setting', { setting: 'closed', until: null });
    const { body } = await boss.get<{ steps: { sentence: string }[] }>('/trace?from=2000&dial=6500&of=live');
    expect(body.steps.map((s) => s.sentence).join(' ')).toContain('Crew duty line is closed: set by hand.');
    await boss.put('/time-switches/crew-duty/setting', { setting: 'by hours', until: null });
  });

  it('is not for those who only look, and knows only switches', async () => {
    expect((await (await auditor()).put('/time-switches/crew-duty/setting', { setting: 'open' })).status).toBe(403);
    expect((await boss.put('/time-switches/nothing/setting', { setting: 'open' })).status).toBe(404);
    expect((await boss.put('/time-switches/crew-duty/setting', { setting: 'ajar' })).status).toBe(400);
  });
});

describe('a blocked caller', () => {
  it('is turned away before any route, by any spelling of the number, until let through', async () => {
    const got = await boss.post<{ id: string }>('/blocked-callers', {
      calling: '(01632) 960-777',
      site: 'north-quay',
      leadsTo: 'engaged',
      reason: 'nuisance',
    });
    expect(got.status).toBe(200);
    expect(await lands('+441632960182', 'now', 'outside:+441632960777')).toBe('engaged');
    expect(await lands('+441632960182', 'now', 'outside:+441632960778')).toBe('e-2000');
    // Another site's callers come through.
    expect(await lands('+46313900600', 'now', 'outside:+441632960777')).not.toBe('engaged');
    const { body } = await boss.get<{ blocked: Record<string, unknown>[] }>('/blocked-callers');
    expect(body.blocked[0]).toMatchObject({ calling: '+441632960777', siteName: 'North Quay', by: 'Farida Okonjo' });
    const again = await boss.post('/blocked-callers', { calling: '+441632960777', site: 'north-quay' });
    expect([again.status, again.body.error?.code]).toEqual([422, 'blocked-already']);
    await boss.delete(`/blocked-callers/${got.body.id}`);
    expect(await lands('+441632960182', 'now', 'outside:+441632960777')).toBe('e-2000');
  });

  it('may be whoever hides the number, with an end', async () => {
    const got = await boss.post<{ id: string }>('/blocked-callers', { calling: null, until: inHours(1) });
    expect(await lands('+441632960182', 'now', 'withheld')).toBe('refused');
    expect(await lands('+441632960182', inHours(2), 'withheld')).toBe('e-2000');
    await boss.delete(`/blocked-callers/${got.body.id}`);
  });

  it.each([
    ['no number', { calling: 'Eva' }, 422, 'calling'],
    ['nothing', { calling: '' }, 400, 'calling'],
    ['no site', { calling: '+441632960777', site: 'nowhere' }, 404, 'site'],
  ])('is refused with %s', async (_what, body, status, path) => {
    const got = await boss.post('/blocked-callers', body);
    expect([got.status, got.body.error?.path]).toEqual([status, path]);
  });
});
