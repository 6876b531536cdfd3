import { afterAll, beforeAll, describe, expect, it, jest } from '@jest/globals';
import { parse } from 'yaml';
import { closePool } from '@/server/db/pool';
import { Client, admin } from '../support/api';
import { parseCsv } from '../support/plain-csv';
import { AUDITOR } from '../support/browser';

/* Problems that are mended by a press or left as they are, promises made from calls, reach, and the plan as a text. The draft is put back. */

jest.setTimeout(120_000);

interface Problem {
  type: string;
  severity: string;
  object: { kind: string; id: string };
  button: string | null;
  muted: { reason: string; by: string } | null;
}
interface Problems {
  count: number;
  muted: number;
  problems: Problem[];
  draftVersion: number;
}
let boss: Client;
let looks: Client;
let before: unknown;
beforeAll(async () => {
  boss = await admin();
  looks = await Client.signedIn(AUDITOR);
  before = (await boss.get('/plan')).body;
});
afterAll(async () => {
  expect((await boss.get('/plan')).body).toEqual(before);
  await closePool();
});

const problems = async (query = '') => (await boss.get<Problems>(`/problems${query}`)).body;
const named = ({ type, object }: Problem) => ({ type, kind: object.kind, id: object.id });

describe('problems', () => {
  it('are mended by a press, as one act that can be undone', async () => {
    const all = await problems();
    const problem = all.problems.find((p) => p.button !== null)!;
    expect((await looks.post('/problems/mend', named(problem))).status).toBe(403);
    const done = await boss.post<{ label: string }>('/problems/mend', named(problem));
    expect(done.body.label).toMatch(/^mended /);
    const after = await problems();
    expect(after.problems.map(named)).not.toContainEqual(named(problem));
    expect(after.count).toBeLessThan(all.count);
    expect((await boss.post('/problems/mend', named(problem))).status).toBe(404);
    await boss.post('/edits/undo');
    expect((await problems()).problems.map(named)).toContainEqual(named(problem));
    const chosen = all.problems.find((p) => p.button === null)!;
    expect((await boss.post('/problems/mend', named(chosen))).body.error!.code).toBe('no-button');
  });

  it('are left as they are with a reason and an end, and counted again', async () => {
    const all = await problems();
    const problem = all.problems[0]!;
    const mute = (more: object) => boss.post<{ id: string }>('/problems/muted', { ...named(problem), ...more });
    expect((await mute({ reason: ' ', until: '2099-01-01' })).body.error!.path).toBe('reason');
    expect((await mute({ reason: 'known', until: '2020-01-01' })).body.error!.path).toBe('until');
    expect((await mute({ reason: 'known', until: 'soon' })).body.error!.path).toBe('until');
    expect((await looks.post('/problems/muted', { ...named(problem), reason: 'x', until: '2099-01-01' })).status).toBe(
      403,
    );
    const { body } = await mute({ reason: 'It is meant so', until: '2099-01-01' });
    const now = await problems();
    expect([now.count, now.muted]).toEqual([all.count - 1, 1]);
    const muted = (await problems('?muted=true')).problems;
    expect(muted.map((p) => [named(p), p.muted!.reason])).toEqual([[named(problem), 'It is meant so']]);
    expect((await boss.delete(`/problems/muted/${body.id}`)).status).toBe(200);
    expect((await problems()).count).toBe(all.count);
    expect((await boss.delete(`/problems/muted/${body.id}`)).status).toBe(404);
  });
});

describe('what must stay so', () => {
  it('is promised from a call as it goes now', async () => {
    const made = await boss.post<{ id: string; sentence: string }>('/promises/from-call', {
      from: '2105',
      dial: '2106',
    });
    expect(made.status).toBe(200);
    const verdicts = await boss.get<{
      promises: { id: string; holds: boolean; brokenBy: { id: string; by: string }[] }[];
    }>('/promises?of=draft');
    expect(verdicts.body.promises.find((p) => p.id === made.body.id)!.holds).toBe(true);
    // An edit that breaks it is named, whatever else is edited.
    await boss.post('/edits', { edits: [{ kind: 'extension', id: 'e-2106', set: { digits: '2186' }, seen: {} }] });
    const after = await boss.get<{ promises: { id: string; holds: boolean; brokenBy: { id: string }[] }[] }>(
      '/promises?of=draft',
    );
    const broken = after.body.promises.find((p) => p.id === made.body.id)!;
    expect([broken.holds, broken.brokenBy.map((e) => e.id)]).toEqual([false, ['e-2106']]);
    await boss.post('/edits/undo');
    await boss.post('/edits/undo');
    const turned = await boss.post<{ sentence: string }>('/promises/from-call', { from: '3030', dial: '0900123456' });
    if (turned.status === 200) await boss.post('/edits/undo');
    const nobody = await boss.post('/promises/from-call', { from: '9999', dial: '2106' });
    expect([nobody.status, nobody.body.error!.path]).toEqual([422, 'from']);
  });
});

describe('the atlas as a table', () => {
  it('has each region once, of the plan that is asked for', async () => {
    const csv = await boss.text('/atlas/file?phone=2104&of=1');
    expect(csv.type).toMatch(/csv/);
    const [head, ...rows] = parseCsv(csv.text);
    expect(head!.slice(0, 3)).toEqual(['Strings', 'All of them', 'How many']);
    const { body } = await boss.get<{ regions: { example: string }[] }>('/atlas?phone=2104&of=1&together=true');
    expect(rows.map((r) => r.at(-1))).toEqual(body.regions.map((r) => r.example));
    expect((await boss.get('/atlas/file?phone=9999')).status).toBe(404);
  });
});

describe('bringing back', () => {
  it('one object as it was in a revision', async () => {
    const at = async (of: string) =>
      (await boss.get<{ extensions: { id: string; ringSeconds: number }[] }>(`/plan?of=${of}`)).body.extensions.find(
        (e) => e.id === 'e-2112',
      )!.ringSeconds;
    await boss.post('/edits', { edits: [{ kind: 'extension', id: 'e-2112', set: { ringSeconds: 57 }, seen: {} }] });
    const done = await boss.post<{ changed: number }>('/revisions/1/draft/extension/e-2112');
    expect([done.body.changed, await at('draft')]).toEqual([1, await at('1')]);
    expect((await boss.post('/revisions/1/draft/extension/e-2112')).status).toBe(409);
    expect((await looks.post('/revisions/1/draft/extension/e-2112')).status).toBe(403);
  });
});

describe('reach', () => {
  it('is the same seen from both sides', async () => {
    interface Reach {
      groups: { numbers: string[]; ends: { object: { id: string } | null }[] }[];
      to: string | null;
    }
    const { body } = await boss.get<Reach>('/reach?of=live');
    const group = body.groups.find((g) => g.ends.some((e) => e.object))!;
    const { id } = group.ends.find((e) => e.object)!.object!;
    const back = await boss.get<Reach>(`/reach?of=live&to=${id}`);
    expect(back.body.groups.map((g) => g.numbers[0])).toContain(group.numbers[0]);
    expect((await boss.get('/reach?to=nothing-like-it')).status).toBe(404);
  });
});

describe('the plan as a text', () => {
  it('says the same as YAML, and what it would change before it does', async () => {
    const yaml = await boss.text('/plan?as=yaml');
    expect(yaml.type).toMatch(/yaml/);
    expect(parse(yaml.text)).toEqual(before);
    const send = (text: string, query = '') =>
      boss.send<{
        count: number;
        groups: unknown[] | null;
        applied: boolean;
        draftVersion: number;
      }>('POST', `/plan/import${query}`, text, { 'content-type': 'application/octet-stream' });
    expect((await send(yaml.text)).body).toMatchObject({ count: 0, groups: [], applied: false });
    const changed = yaml.text.replace(/(id: e-2112[\s\S]*?ringSeconds: )25/, '$157');
    const told = await send(changed);
    expect(told.body).toMatchObject({ count: 1, applied: false });
    expect(told.body.groups!.length).toBeGreaterThan(0);
    expect((await boss.get('/plan')).body).toEqual(before);
    expect((await send(changed, '?apply=true&draftVersion=1')).status).toBe(409);
    const done = await send(changed, `?apply=true&draftVersion=${told.body.draftVersion}`);
    expect(done.body.applied).toBe(true);
    await boss.post('/edits/undo');
    const broken = await send(yaml.text.replace('site: north-quay', 'site: nowhere'));
    expect([broken.status, broken.body.errors![0]!.path]).toEqual([422, expect.stringMatching(/\w+\.\d+\.site/)]);
    expect((await send('{ not: [ a plan')).status).toBe(422);
  });
});
