import { readdirSync } from 'node:fs';
import { afterAll, beforeAll, describe, expect, it, jest } from '@jest/globals';
import { Attacker } from '../support/attacker';
import { Client, admin, database } from '../support/api';
import { ADMIN, AUDITOR, BASE } from '../support/browser';
import { HOSTILE_HEADERS, HOSTILE_TEXTS } from '../support/hostile';

/* Every page × three kinds of readers × hostile addresses and heads: a page or a refusal, never a fault, and no name slips in as markup. */

jest.setTimeout(400_000);

/** Paths of all pages, from the folders that they stand in. */
function pagesIn(folder: string, path: string): string[] {
  return readdirSync(folder, { withFileTypes: true }).flatMap((entry) => {
    if (entry.name === 'page.tsx') return [path || '/'];
    if (!entry.isDirectory()) return [];
    const part = entry.name.startsWith('(') ? '' : `/${entry.name}`;
    return pagesIn(`${folder}/${entry.name}`, path + part);
  });
}
const PAGES = pagesIn('src/app', '');

type Headers = Record<string, string>;
let readers: Headers[];
let boss: Client;

async function cookie([name, password]: readonly [string, string]): Promise<Headers> {
  const response = await fetch(`${BASE}/api/v1/session`, {
    method: 'POST',
    body: JSON.stringify({ name, password }),
    headers: { 'content-type': 'application/json' },
  });
  return { cookie: /polydrome_session=[^;]+/.exec(response.headers.get('set-cookie') ?? '')![0] };
}

beforeAll(async () => {
  boss = await admin();
  readers = [{}, await cookie(AUDITOR), await cookie(ADMIN)];
  // What a process reads when a page is first asked for is no matter of who asks.
  for (const page of PAGES)
    await fetch(BASE + page.replace(/\[\w+\]/g, 'none'), { headers: readers[2] }).then((r) => r.text());
});

const ASKED = [
  'filter',
  'sort',
  'site',
  'like',
  'from',
  'dial',
  'at',
  'ladder',
  'kind',
  'by',
  'who',
  'before',
  'object',
];

// Tries to sign in were counted for this address; those who come after are not to wait for them.
afterAll(async () => {
  const sql = await database();
  await sql.query('DELETE FROM rate_limit');
  await sql.end();
});

describe('every page', () => {
  it('answers hostile parts of its path and query', async () => {
    expect(PAGES.length).toBeGreaterThan(30);
    const attacker = new Attacker();
    const attacks = PAGES.flatMap((page, n) =>
      HOSTILE_TEXTS.filter((_, i) => (i + n) % 5 === 0).map((text, i) => {
        const said = encodeURIComponent(text.toWellFormed());
        const inPath = page.includes('[') && i % 2 === 0;
        const path = page.replace(/\[\w+\]/g, inPath ? said : 'p-3012');
        const key = ASKED[(n + i) % ASKED.length]!;
        return { path: inPath ? path : `${path}?${key}=${said}`, headers: readers[(n + i) % readers.length]! };
      }),
    );
    await attacker.all(attacks, (a) => attacker.send({ method: 'GET', ...a }, scripted), 4);
    console.log(`pages: ${attacker.report()}`);
    expect(attacker.wrong.slice(0, 20)).toEqual([]);
    expect(attacker.sent).toBeGreaterThan(500);
  });

  it('answers repeated and unknown parameters, lying heads and other methods', async () => {
    const attacker = new Attacker();
    const odd = [
      '?filter=a&filter=b',
      '?at[]=1&at[]=2',
      '?__proto__=1',
      '?constructor=1&toString=2',
      '?%00=1',
      `?${'a=1&'.repeat(400)}`,
    ];
    const attacks = PAGES.map((p) => p.replace(/\[\w+\]/g, 'none')).flatMap((path, n) => [
      ...odd.filter((_, i) => (i + n) % 2 === 0).map((q) => ({ method: 'GET', path: path + q, headers: readers[1]! })),
      ...HOSTILE_HEADERS.slice(0, 22)
        .filter((_, i) => (i + n) % 5 === 0)
        .map((h) => ({ method: 'GET', path, headers: { ...readers[1]!, ...h } })),
      ...['POST', 'PUT', 'DELETE', 'OPTIONS', 'PATCH']
        .filter((_, i) => (i + n) % 2 === 0)
        .map((method) => ({ method, path, headers: readers[2]! })),
    ]);
    await attacker.all(attacks, (a) => attacker.send(a, scripted), 4);
    console.log(`odd requests for pages: ${attacker.report()}`);
    expect(attacker.wrong.slice(0, 20)).toEqual([]);
  });

  it('shows hostile names as text, wherever they are told', async () => {
    const id = 'hostile-name';
    const name = '</script><script>alert(1)</script><img src=x onerror=alert(2)>';
    const value = { id, name, site: 'north-quay', note: '"><svg onload=alert(3)>' };
    const made = await boss.post('/edits', { edits: [{ kind: 'person', id, rowVersion: null, value }] });
    expect(made.status).toBe(200);
    const attacker = new Attacker();
    const told = [`/people/${id}`, '/people?filter=script', '/go-live', '/history', '/', `/people/${id}/leave`];
    await attacker.all(told, (path) => attacker.send({ method: 'GET', path, headers: readers[2]! }, scripted));
    expect(attacker.wrong).toEqual([]);
    await boss.post('/edits/undo', { kind: 'person', id });
  });
});

/** Whether an answer holds what was sent as markup of its own. */
function scripted({ text }: { text: string }): string | null {
  const found = /<script>alert|<img src=x|<svg onload/.exec(text);
  return found ? `holds ${found[0]} as markup` : null;
}
