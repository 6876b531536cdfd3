import { spawnSync } from 'node:child_process';
import { mkdtempSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { afterAll, beforeAll, describe, expect, it, jest } from '@jest/globals';
import { closePool } from '@/server/db/pool';
import { Client, admin } from '../support/api';

/* The atlas of a phone over the API: the same as on the command line, the same as traces, and refused where something is wrong. */

jest.setTimeout(120_000);

interface Region {
  map: string;
  exact: boolean;
  count: string;
  outcome: string;
  kind: string | null;
  rule: string | null;
  trunk: string | null;
  example: string;
  takenEarly: boolean;
}
interface Atlas {
  regions: Region[];
  next: { symbol: string; parts: { region: number; count: string }[] }[];
  phone: { digits: string };
}
const AT = '2026-12-04T17:10:00Z';
let boss: Client;
beforeAll(async () => {
  boss = await admin();
});
afterAll(closePool);

const atlas = (query: string, who = boss) => who.get<Atlas>(`/atlas?at=${AT}&of=live&${query}`);

describe('the atlas over the API', () => {
  it('is that of the command line', async () => {
    const plan = await boss.get('/plan?of=live');
    const file = join(mkdtempSync(join(tmpdir(), 'polydrome-atlas-')), 'live.json');
    writeFileSync(file, JSON.stringify(plan.body));
    const args = ['atlas', '--plan', file, '--phone', '2104', '--at', AT, '--json'];
    const ran = spawnSync('./bin/polydrome', args, { encoding: 'utf8', maxBuffer: 1e8 });
    expect(ran.status).toBe(0);
    const { body } = await atlas('phone=2104');
    expect(body.regions).toEqual((JSON.parse(ran.stdout) as Atlas).regions);
  });

  it('says of each region’s example what a trace says', async () => {
    const { body } = await atlas('phone=2104');
    expect(body.regions.length).toBeGreaterThan(100);
    const some = body.regions.filter((r, i) => r.rule === null || r.trunk !== null || i % 10 === 0);
    for (const { example, outcome, kind, rule, trunk } of some) {
      const asked = { from: '2104', dial: example, at: AT, of: 'live', enBloc: true, situation: {} };
      const { body: t } = await boss.post<Region>('/trace', asked);
      expect({ example, outcome: t.outcome, kind: t.kind, rule: t.rule, trunk: t.trunk }).toEqual({
        example,
        outcome,
        kind,
        rule,
        trunk,
      });
    }
  });

  it('counts what follows some digits so that it comes to the whole', async () => {
    const { body: all } = await atlas('phone=2104&together=true');
    expect(all.regions.length).toBeLessThan(100);
    const sum = (a: Atlas, region: number) =>
      a.next.flatMap((n) => n.parts).reduce((s, p) => s + (p.region === region ? BigInt(p.count) : 0n), 0n);
    all.regions.forEach((r, i) => expect(String(sum(all, i))).toBe(r.count));
    const { body: under } = await atlas('phone=2104&together=true&under=9');
    const nine = all.next.find((n) => n.symbol === '9')!;
    for (const { region, count } of nine.parts)
      // The one string 9 itself is not among those that go on from there.
      expect(BigInt(count) - sum(under, region)).toBeLessThanOrEqual(1n);
  });

  it.each([
    ['phone=9999', 404, 'phone', /no extension 9999/],
    ['phone=2104&at=soonish', 422, 'at', /./],
    ['phone=2104&under=9x', 400, 'under', /0-9/],
    ['', 400, 'phone', /./],
  ])('refuses %s with what would be right', async (query, status, path, sentence) => {
    const { status: got, body } = await boss.get<{ errors: { path: string; sentence: string }[] }>(
      `/atlas?of=live&${query}`,
    );
    expect(got).toBe(status);
    expect(body.errors[0]!.path).toContain(path);
    expect(body.errors[0]!.sentence).toMatch(sentence);
  });

  it('shows a reader of one site the phones of that site, and of others nothing, not that they are there', async () => {
    const grants = ['look', 'ask'].map((right) => ({ right, areas: 'all', sites: ['north-quay'] }));
    const { body: role } = await boss.post<{ id: string }>('/roles', { name: `north ${Date.now()}`, grants });
    const made = await boss.post<{ token: string }>('/tokens', { name: 'north', role: role.id, days: 1 });
    const desk = Client.bearer(made.body.token);
    expect((await atlas('phone=2104', desk)).status).toBe(200);
    const hamburg = await atlas('phone=4000', desk);
    const nobody = await atlas('phone=4999', desk);
    expect([hamburg.status, nobody.status]).toEqual([404, 404]);
    expect(JSON.stringify(hamburg.body).replaceAll('4000', '4999')).toBe(JSON.stringify(nobody.body));
    const { body } = await atlas('phone=2104', desk);
    expect(JSON.stringify(body)).not.toContain('Freight desk');
  });
});

/** A firm promise of a test, which no class of the demo keeps. */
const NO_MOBILE = {
  id: 't-no-mobile',
  name: 'Nobody of the staff calls mobiles',
  firm: true,
  fromClasses: ['staff'],
  dialKinds: ['mobile'],
  must: 'never reaches',
  ends: ['the outside'],
};

describe('promises, impact and drills over the API', () => {
  interface Verdict {
    id: string;
    holds: boolean;
    counterexample: { call: { from: string; dial: string; at: string; situation?: object } } | null;
  }
  const promised = (of: string, who = boss) => who.get<{ promises: Verdict[] }>(`/promises?of=${of}`);
  const put = (value: object | null, rowVersion: number | null) =>
    boss.post<{ errors?: { path: string; sentence: string }[] }>('/edits', {
      edits: [{ kind: 'promise', id: NO_MOBILE.id, rowVersion, value }],
    });
  const draftVersion = async () => (await boss.get<{ draftVersion: number }>('/health')).body.draftVersion;

  it('a broken promise names a call that breaks it, stands against going live, and does not once it is mended', async () => {
    expect((await put(NO_MOBILE, null)).status).toBe(200);
    const broken = (await promised('draft')).body.promises.find((p) => p.id === NO_MOBILE.id)!;
    expect(broken.holds).toBe(false);
    const { from, dial, at } = broken.counterexample!.call;
    const { body: t } = await boss.post<{ outcome: string; kind: string; lands: { kind: string } }>('/trace', {
      from,
      dial,
      at,
      of: 'draft',
      situation: {},
    });
    expect([t.outcome, t.kind, t.lands.kind]).toEqual(['routed', 'mobile', 'outside']);
    expect((await promised('live')).body.promises.some((p) => p.id === NO_MOBILE.id)).toBe(false);
    const refused = await boss.post<{ errors: { code: string; sentence: string }[] }>('/live', {
      draftVersion: await draftVersion(),
      note: '',
    });
    expect(refused.status).toBe(422);
    expect(refused.body.errors.map((e) => e.sentence)).toContain(
      'The firm promise “Nobody of the staff calls mobiles” would be broken.',
    );
    await put({ ...NO_MOBILE, dialKinds: ['satellite'] }, 1);
    expect((await promised('draft')).body.promises.find((p) => p.id === NO_MOBILE.id)!.holds).toBe(true);
    await boss.post('/edits/undo', { kind: 'promise', id: NO_MOBILE.id });
  });

  it.each([
    [{ ...NO_MOBILE, ends: [] }, /name at least one end or place/],
    [{ ...NO_MOBILE, when: 'when open' }, /choose the hours/],
    [{ ...NO_MOBILE, dialMap: '9(' }, /./],
    [{ ...NO_MOBILE, weekly: 'moonday 9-17' }, /./],
    [{ ...NO_MOBILE, fromClasses: ['nobody-has-this'] }, /nobody-has-this/],
  ])('refuses a promise that makes no sense', async (value, sentence) => {
    const { status, body } = await put(value, null);
    expect(status).toBe(422);
    expect(body.errors![0]!.sentence).toMatch(sentence);
  });

  it('impact names what an edit moves and the edit, and nothing where none differs', async () => {
    const same = await boss.get<{ groups: unknown[]; edits: number }>('/impact?from=draft&to=draft');
    expect(same.body).toMatchObject({ groups: [], edits: 0 });
    await boss.post('/edits', { edits: [{ kind: 'extension', id: 'e-2111', set: { ringSeconds: 41 }, seen: {} }] });
    const { body } = await boss.get<{ groups: { edits: { id: string }[]; example: { call: { dial: string } } }[] }>(
      '/impact?from=live&to=draft',
    );
    const mine = body.groups.filter((g) => g.edits.some((e) => e.id === 'e-2111'));
    expect(mine.map((g) => g.example.call.dial)).toContain('2111');
    await boss.post('/edits/undo', { kind: 'extension', id: 'e-2111' });
  });

  it('a drill tells whose emergency calls have one trunk only', async () => {
    const { body } = await boss.get<{ drills: { kind: string; out: string[] }[] }>('/drills?of=live');
    expect(body.drills).toContainEqual({ kind: 'trunk', out: ['elbkontor'], label: 'Elbkontor' });
    interface Drilled {
      emergency: { site: string; number: string; leaves: boolean }[];
      channels: { left: number; of: number; sites: { site: string; siteName: string; left: number; of: number }[] };
      groups: { phones: number; numbers: number }[];
    }
    const one = await boss.get<Drilled>('/drill?of=live&kind=trunk&out=elbkontor');
    const lost = one.body.emergency.filter((e) => !e.leaves);
    expect(lost.map((e) => `${e.site} ${e.number}`).sort()).toEqual(['freight-hamburg 110', 'freight-hamburg 112']);
    const { body: plan } = await boss.get<{
      trunks: { id: string; site: string; channels: number; enabled: boolean }[];
    }>('/plan?of=live');
    const sum = (list: { channels: number }[]) => list.reduce((n, t) => n + t.channels, 0);
    const enabled = plan.trunks.filter((t) => t.enabled);
    const own = enabled.filter((t) => t.site === 'freight-hamburg');
    const up = (list: typeof enabled) => list.filter((t) => t.id !== 'elbkontor');
    expect(one.body.channels).toEqual({
      ...{ left: sum(up(enabled)), of: sum(enabled) },
      sites: [{ site: 'freight-hamburg', siteName: 'Freight Hamburg', left: sum(up(own)), of: sum(own) }],
    });
    expect(one.body.groups.some((g) => g.numbers > 0) && one.body.groups.some((g) => g.phones > 0)).toBe(true);
    expect((await boss.get('/drill?kind=trunk&out=nobody')).status).toBe(404);
    expect((await boss.get('/drill?kind=moon&out=kestrel')).status).toBe(400);
    expect((await boss.get('/drill?kind=trunk&out=a%20b')).status).toBe(400);
  });

  it('names nothing of other sites to a reader of one', async () => {
    const grants = ['look', 'ask'].map((right) => ({ right, areas: 'all', sites: ['freight-hamburg'] }));
    const { body: role } = await boss.post<{ id: string }>('/roles', { name: `hamburg ${Date.now()}`, grants });
    const made = await boss.post<{ token: string }>('/tokens', { name: 'hamburg', role: role.id, days: 1 });
    const desk = Client.bearer(made.body.token);
    for (const path of [
      '/promises?of=live',
      '/impact?from=1&to=2',
      '/drill?of=live&kind=trunk&out=kestrel',
      '/reach?of=live',
    ]) {
      const { status, body } = await desk.get(path);
      expect([200, 403]).toContain(status);
      const text = JSON.stringify(body);
      for (const hidden of ['Amara Lindqvist', 'North Quay reception', '+441632960100'])
        expect([path, text.includes(hidden)]).toEqual([path, false]);
    }
  });
});
