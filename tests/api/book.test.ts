import { afterAll, beforeAll, describe, expect, it, jest } from '@jest/globals';
import { closePool } from '@/server/db/pool';
import { Client, admin } from '../support/api';

/* Call-flow books over the API: as data and as a file to print; of what is there, for whoever may see it. */

jest.setTimeout(120_000);

interface Book {
  title: string;
  chapters: { id: string; number: string }[];
  direct: unknown[];
  idle: unknown[];
}
let boss: Client;
beforeAll(async () => {
  boss = await admin();
});
afterAll(closePool);

const pagesIn = (pdf: string) => pdf.match(/\/Type \/Page\b/g)?.length ?? 0;

describe('a call-flow book', () => {
  it('of a site is a PDF with a page at least for each chapter', async () => {
    const { body } = await boss.get<Book>('/book?site=vastra-kajen&of=live');
    expect(body.title).toBe('Västra Kajen');
    expect(body.chapters.length).toBeGreaterThan(0);
    const path = '/book/file?site=vastra-kajen&of=live';
    expect(await boss.text(path)).toMatchObject({ status: 200, type: 'application/pdf' });
    const pdf = Buffer.from(await boss.octets(path)).toString('latin1');
    expect(pdf.slice(0, 5)).toBe('%PDF-');
    expect(pdf.trimEnd().endsWith('%%EOF')).toBe(true);
    expect(pagesIn(pdf)).toBeGreaterThanOrEqual(1 + body.chapters.length + (body.direct.length > 0 ? 1 : 0));
  });

  it('of a number is of it alone, and of what a revision says', async () => {
    const { body } = await boss.get<Book>('/book?number=n-46313900600&of=1');
    expect(body.chapters.map((c) => c.id)).toEqual(['n-46313900600']);
  });

  it('of both, neither, or what is not there is refused with where', async () => {
    const refused = async (query: string) => {
      const { status, body } = await boss.get(`/book?${query}`);
      return [status, (body as { error?: { path: string } }).error?.path];
    };
    expect(await refused('')).toEqual([400, 'query.site']);
    expect(await refused('site=north-quay&number=n-46313900600')).toEqual([400, 'query.site']);
    expect(await refused('site=nowhere')).toEqual([404, 'site']);
    expect(await refused('number=n-0')).toEqual([404, 'number']);
    expect(await refused('site=north-quay&of=999')).toEqual([404, 'revision']);
    expect((await boss.text('/book/file?site=nowhere')).status).toBe(404);
  });
});

describe('what a page is about in another plan', () => {
  it('is the course of the draft, of live, and of a revision; nothing where it is not there', async () => {
    const made = { kind: 'ringGroup', id: 'book-group', rowVersion: null };
    const value = { id: 'book-group', site: 'north-quay', name: 'Book group', digits: '6897', members: ['e-2104'] };
    expect((await boss.post('/edits', { edits: [{ ...made, value }] })).status).toBe(200);
    const label = async (of: string) =>
      (await boss.get<{ label: string | null }>(`/courses/ringGroup/book-group?of=${of}`)).body.label;
    expect(await Promise.all(['draft', 'live', '1'].map(label))).toEqual(['Book group', null, null]);
    await boss.post('/edits/undo', { kind: 'ringGroup', id: 'book-group' });
    expect((await boss.get('/courses/nothing/x?of=live')).status).toBe(404);
    const week = async (of: string) =>
      (await boss.get<{ week: { stretches: unknown[] } | null }>(`/weeks/number/n-46313900600?of=${of}`)).body.week;
    expect((await week('1'))!.stretches.length).toBeGreaterThan(3);
    expect((await boss.get('/weeks/number/n-46313900600?of=999')).status).toBe(404);
  });
});

describe('two atlases laid over one another', () => {
  interface Apart {
    groups: { count: string; example: string; was: { outcome: string }; willBe: { outcome: string } }[];
    alike: string;
    differ: string;
  }
  const apart = (query: string) => boss.get<Apart>(`/atlas/apart?${query}`);

  it('say of each example what both traces say, and that a phone goes as itself', async () => {
    const at = '2026-12-04T17:10:00Z';
    const { body } = await apart(`phone=2104&at=${at}&of=live&withPhone=2105`);
    expect(body.groups.length).toBeGreaterThan(0);
    expect(BigInt(body.differ)).toBe(body.groups.reduce((sum, g) => sum + BigInt(g.count), 0n));
    for (const { example, was, willBe } of body.groups)
      for (const [from, fate] of [['2104', was] as const, ['2105', willBe] as const]) {
        const asked = { from, dial: example, at, of: 'live', enBloc: true, situation: {} };
        const { body: t } = await boss.post<{ outcome: string }>('/trace', asked);
        expect([from, example, t.outcome]).toEqual([from, example, fate.outcome]);
      }
    expect((await apart(`phone=2104&at=${at}&of=live&withOf=live`)).body).toMatchObject({ groups: [], differ: '0' });
    expect((await apart('phone=2104&withPhone=9')).status).toBe(404);
    expect((await apart('phone=2104&withAt=someday')).status).toBe(422);
  });

  it('through the week leave no gap', async () => {
    const { body } = await boss.get<{ from: number; to: number; stretches: { from: number; to: number }[] }>(
      '/atlas/hours?phone=2104',
    );
    const { stretches: s } = body;
    expect([s[0]!.from, ...s.map((x) => x.to)]).toEqual([...s.map((x) => x.from), body.to]);
  });
});

describe('what the draft does in short', () => {
  it('is as many kinds of calls as the impact has, and the promises that are broken', async () => {
    await boss.post('/edits', { edits: [{ kind: 'extension', id: 'e-2114', set: { ringSeconds: 53 }, seen: {} }] });
    const { body } = await boss.get<{ groups: number; broken: { id: string }[] }>('/draft/effect');
    const impact = await boss.get<{ groups: unknown[] }>('/impact?from=live&to=draft');
    expect(body.groups).toBe(impact.body.groups.length);
    expect(body.groups).toBeGreaterThan(0);
    const { promises } = (await boss.get<{ promises: { id: string; holds: boolean }[] }>('/promises?of=draft')).body;
    expect(body.broken.map((b) => b.id)).toEqual(promises.filter((p) => !p.holds).map((p) => p.id));
    await boss.post('/edits/undo', { kind: 'extension', id: 'e-2114' });
  });
});
