import { beforeAll, describe, expect, it } from '@jest/globals';
import { PATHS, contract, type Facts, type OperationName } from '@/contract';
import { OBJECT_KINDS } from '@/core/plan';
import { rightsOf, type Role } from '@/server/access/rights';
import { Client, admin, type Document } from '../support/api';

/* Every operation × two limited roles: refused without the right, and with it nothing is told of what lies outside. */

const GRANTS = {
  kajen: [
    { right: 'look', areas: 'all', sites: ['vastra-kajen'] },
    { right: 'ask', areas: 'all', sites: ['vastra-kajen'] },
    { right: 'edit', areas: ['people'], sites: ['vastra-kajen'] },
  ],
  numbers: [
    { right: 'look', areas: ['numbers'], sites: 'all' },
    { right: 'ask', areas: ['numbers'], sites: 'all' },
  ],
} as const;
type Name = keyof typeof GRANTS;
const NAMES = Object.keys(GRANTS) as Name[];

const clients = new Map<Name, Client>();
let plan: Document;
/** Names that a role may not be told: of people elsewhere, or of anybody; whoever administers is named by what they did. */
const unseen = new Map<Name, string[]>();

beforeAll(async () => {
  const boss = await admin();
  plan = (await boss.get<Document>('/plan')).body;
  const { body } = await boss.get<{ administrators: { name: string }[] }>('/administrators');
  const known = new Set(body.administrators.map((a) => a.name));
  const people = plan.people!.map((p) => ({ name: String(p.name), site: p.site }));
  for (const p of people) if (p.site === 'vastra-kajen') known.add(p.name);
  unseen.set(
    'kajen',
    people.map((p) => p.name).filter((n) => !known.has(n)),
  );
  unseen.set(
    'numbers',
    people.map((p) => p.name).filter((n) => !body.administrators.some((a) => a.name === n)),
  );
  for (const name of NAMES) {
    const role = await boss.post<{ id: string }>('/roles', { name: `Limited ${name}`, grants: GRANTS[name] });
    const made = await boss.post<{ token: string }>('/tokens', {
      name: `limited ${name}`,
      role: role.body.id,
      days: 1,
    });
    clients.set(name, Client.bearer(made.body.token));
  }
});

const operations = (Object.keys(PATHS) as OperationName[]).filter((n) => n !== 'signIn' && n !== 'signOut');

async function told(name: Name, path: string): Promise<string> {
  const { status, text } = await clients.get(name)!.text(path);
  expect([path, status >= 500]).toEqual([path, false]);
  return text;
}

describe.each(NAMES)('as %s', (name) => {
  it.each(operations)('%s is refused without its right, and never a fault of ours', async (operation) => {
    const o = contract[operation] as Facts;
    const [method, template] = PATHS[operation];
    const path = template.replace('{number}', '99999').replace(/\{\w+\}/g, 'none');
    const sent = await clients.get(name)!.send(method, path, method === 'GET' ? undefined : '{"nonsense":');
    const rights = rightsOf({ id: name, name, grants: GRANTS[name] } as unknown as Role) as readonly string[];
    if (o.right !== null && o.right !== 'signed-in' && !rights.includes(o.right)) {
      expect([sent.status, sent.body.error!.code]).toEqual([403, 'not-allowed']);
    } else expect(sent.status).toBeLessThan(500);
  });

  it('no answer about any object names what lies outside', async () => {
    for (const kind of OBJECT_KINDS) {
      const lists: Record<string, string> = { class: 'classes', person: 'people', inboundRoute: 'inboundRoutes' };
      const list = plan[lists[kind] ?? `${kind}s`] ?? [];
      for (const { id } of list.slice(0, 4)) {
        const text = await told(name, `/consequences/${kind}/${encodeURIComponent(id)}`);
        expect([kind, id, unseen.get(name)!.filter((n) => text.includes(n))]).toEqual([kind, id, []]);
      }
    }
  });

  it.each([
    '/problems',
    '/edits',
    '/history',
    '/ledgers/person',
    '/ledgers/extension',
    '/ledgers/mailbox',
    '/ledgers/number',
    '/ledgers/number?filter=2101',
    '/options/person?text=',
    '/options/extension?text=2',
    '/options/destination?text=a',
    '/ask?text=ilse',
    '/ask?text=3001 > 2102',
    '/ask?text=outside:%2B441632960998 > %2B441632960102',
    '/trace?from=3001&dial=2102',
    '/trace?from=withheld&dial=%2B441632960104',
    '/trace?from=2101&dial=2102',
    '/people/p-2101/leave',
    '/people/p-3001/leave',
    '/people/p-2101/move?site=larkspur',
    '/people/p-3001/same-as?other=p-2101',
    '/revisions/1/compare',
    '/exports/directory?format=csv',
    '/plan',
  ])('%s names nothing that lies outside', async (path) => {
    const text = await told(name, path);
    expect(unseen.get(name)!.filter((n) => text.includes(n))).toEqual([]);
  });

  it.each<[string, unknown]>([
    ['/bulk/preview', { of: { ledger: 'extension', ids: ['e-2101', 'e-3001'] }, change: { ringSeconds: 31 } }],
    ['/bulk/preview', { of: { ledger: 'person', ids: ['p-2101', 'p-3001'] }, change: { language: 'sv' } }],
    ['/bulk/preview', { of: { ledger: 'extension', filter: '21', facets: {}, sort: '' }, change: { ringSeconds: 31 } }],
    ['/numbers/assign/preview', { numbers: ['n-441632960160'], extensions: ['e-2101', 'e-3001'] }],
    ['/numbers/assign/preview', { site: 'north-quay', count: 3 }],
    ['/numbers/read', { text: '+44 1632 960101', country: 'GB' }],
    ['/people/p-2101/move/preview', { site: 'larkspur' }],
    ['/people/p-3001/move/preview', { site: 'north-quay' }],
    ['/people/p-3001/same-as', { other: 'p-2101' }],
    ['/people/p-2101/leave', {}],
    ['/ledgers/number/landings', { ids: ['n-441632960101', 'n-441632960102'] }],
    ['/trace', { from: '3001', dial: '2102', at: 'now', of: 'draft' }],
    [
      '/edits',
      {
        edits: [
          { kind: 'person', id: 'p-2101', rowVersion: 1, value: { id: 'p-2101', name: 'X', site: 'north-quay' } },
        ],
      },
    ],
  ])('what %s answers to %j names nothing that lies outside', async (path, body) => {
    const sent = await clients.get(name)!.post(path, body);
    expect([path, sent.status >= 500]).toEqual([path, false]);
    const text = JSON.stringify(sent.body);
    expect(unseen.get(name)!.filter((n) => text.includes(n))).toEqual([]);
  });
});
