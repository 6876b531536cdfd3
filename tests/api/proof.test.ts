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
