import { readdirSync } from 'node:fs';
import { beforeAll, describe, expect, it, jest } from '@jest/globals';
import { READY_ROLES } from '@/server/access/rights';
import { BASE } from '../support/browser';
import { Client, admin, type Document } from '../support/api';

/* Every page × every role, as the server writes it: nobody gets a fault, a form they may not use, or a name they may not see. */

const LIMITED = {
  kajen: [
    { right: 'look', areas: 'all', sites: ['vastra-kajen'] },
    { right: 'ask', areas: 'all', sites: ['vastra-kajen'] },
    { right: 'edit', areas: ['people'], sites: ['vastra-kajen'] },
  ],
  numbers: [{ right: 'look', areas: ['numbers'], sites: 'all' }],
} as const;

/** What stands for the parts of addresses. */
const PARTS: Record<string, string> = {
  classes: 'staff',
  extensions: 'e-2101',
  inbound: 'in-hamburg-four',
  mailboxes: 'm-2101',
  numbers: 'n-441632960101',
  additions: 'none',
  rule: 'out-north-quay-8',
  people: 'p-2101',
  revisions: '1',
  sites: 'larkspur',
  teams: 'team-bookings',
  trunks: 'kestrel',
};
/** Pages with nothing but a form. */
const FORMS = [
  'extensions/new',
  'numbers/add',
  'people/[id]/leave',
  'people/[id]/move',
  'people/[id]/same-as',
  'people/import',
  'people/join',
  'sites/new',
];

const PAGES = readdirSync('src/app/(work)', { recursive: true, encoding: 'utf8' })
  .filter((f) => f.endsWith('page.tsx'))
  .map((f) => f.replace(/\/?page\.tsx$/, ''))
  .sort();

const addressOf = (page: string) =>
  `/${page.replace(/([a-z]+)\/\[\w+\]/g, (_, list: string) => `${list}/${PARTS[list] ?? 'none'}`)}`;

// Each account has its password made and changed, which takes its time on purpose.
jest.setTimeout(120_000);

const cookies = new Map<string, string>();
let plan: Document;
const administrators = new Set<string>();
const everybody = () => plan.people!.map((p) => String(p.name));

beforeAll(async () => {
  const boss = await admin();
  plan = (await boss.get<Document>('/plan')).body;
  const { body } = await boss.get<{ administrators: { name: string }[] }>('/administrators');
  for (const a of body.administrators) administrators.add(a.name);
  const roles = new Map<string, string>(READY_ROLES.map((r) => [r.id, r.id]));
  for (const [name, grants] of Object.entries(LIMITED))
    roles.set(name, (await boss.post<{ id: string }>('/roles', { name: `Pages ${name}`, grants })).body.id);
  for (const [name, role] of roles) {
    const signIn = `pages-${name}`;
    const made = await boss.post<{ password: string }>('/administrators', { signIn, name: `Pages ${name}`, role });
    const mine = await Client.signedIn([signIn, made.body.password]);
    await mine.put('/account/password', { old: made.body.password, password: 'very-long-and-safe' });
    const response = await fetch(`${BASE}/api/v1/session`, {
      method: 'POST',
      body: JSON.stringify({ name: signIn, password: 'very-long-and-safe' }),
      headers: { 'content-type': 'application/json' },
    });
    cookies.set(name, /polydrome_session=[^;]+/.exec(response.headers.get('set-cookie')!)![0]);
  }
});

async function html(role: string, page: string): Promise<{ status: number; text: string }> {
  const response = await fetch(`${BASE}${addressOf(page)}`, { headers: { cookie: cookies.get(role)! } });
  return { status: response.status, text: await response.text() };
}

/** Names and digits of people that stand at other sites and nowhere else. */
function foreignTo(site: string): string[] {
  const own = new Set(plan.people!.filter((p) => p.site === site).map((p) => String(p.name)));
  return plan.people!.filter((p) => p.site !== site && !own.has(String(p.name))).map((p) => String(p.name));
}

const MAY_EDIT = new Set(['owner', 'administrator', 'kajen']);

describe.each([...READY_ROLES.map((r) => r.id), ...Object.keys(LIMITED)])('as %s', (role) => {
  it.each(PAGES)('the page /%s comes, cut to what may be seen', async (page) => {
    const { status, text } = await html(role, page);
    expect([200, 403, 404]).toContain(status);
    expect(text).not.toContain('Something broke');
    if (FORMS.includes(page) && !MAY_EDIT.has(role)) expect(text).not.toMatch(/data-field=|id="import-file"/);
    const names = role === 'kajen' ? foreignTo('vastra-kajen') : role === 'numbers' ? everybody() : [];
    // Whoever administers is named by what they did.
    expect(names.filter((n) => text.includes(n) && !administrators.has(n))).toEqual([]);
  });
});

describe('a ledger', () => {
  it('is not searched by names that its reader is not shown', async () => {
    const count = async (role: string) => {
      const mine = Client.withCookie(cookies.get(role)!);
      return (await mine.get<{ count: number }>('/ledgers/number?filter=Joaquim')).body.count;
    };
    expect(await count('owner')).toBeGreaterThan(0);
    expect(await count('numbers')).toBe(0);
  });
});
