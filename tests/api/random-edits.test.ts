import { afterAll, beforeAll, describe, expect, it, jest } from '@jest/globals';
import fc from 'fast-check';
import type { Connection } from 'mysql2/promise';
import { planText, type Plan } from '@/core/plan';
import { loadPlan } from '@/server/db/load-plan';
import type { Reader } from '@/server/db/pool';
import { Client, admin, database } from '../support/api';

jest.setTimeout(120_000);

/* Random edits against a plain model: what the model allows is made, what it forbids is refused, and the tables hold exactly that. */

let boss: Client;
let connection: Connection;
beforeAll(async () => {
  boss = await admin();
  connection = await database();
});
afterAll(() => connection.end());

type Kind = 'person' | 'mailbox' | 'extension';
interface Thing {
  kind: Kind;
  value: Record<string, unknown> & { id: string };
  version: number;
}

const NAMES = ['Ada', 'Ölle', 'Ian', 'Zoë'];
const id = fc.integer({ min: 0, max: 5 });
const command = fc.oneof(
  fc.record({
    do: fc.constant('add' as const),
    kind: fc.constantFrom<Kind>('person', 'mailbox', 'extension'),
    n: id,
    digits: fc.integer({ min: 0, max: 3 }),
    to: id,
    stale: fc.constant(false),
  }),
  fc.record({
    do: fc.constant('change' as const),
    kind: fc.constantFrom<Kind>('person', 'mailbox', 'extension'),
    n: id,
    digits: fc.integer({ min: 0, max: 3 }),
    to: id,
    stale: fc.integer({ max: 5 }).map((x) => x === 0),
  }),
  fc.record({
    do: fc.constant('delete' as const),
    kind: fc.constantFrom<Kind>('person', 'mailbox', 'extension'),
    n: id,
    digits: fc.constant(0),
    to: id,
    stale: fc.constant(false),
  }),
);
type Command = typeof command extends fc.Arbitrary<infer T> ? T : never;

const idOf = (kind: Kind, n: number) => `rnd-${kind}-${n}`;

function valueOf(c: Command): Thing['value'] {
  const base = { id: idOf(c.kind, c.n), name: NAMES[c.to % NAMES.length]!, site: 'north-quay' };
  if (c.kind === 'person') return base;
  if (c.kind === 'mailbox') return { ...base, owners: c.to < 4 ? [idOf('person', c.to)] : [] };
  return {
    ...base,
    digits: `219${c.digits}`,
    class: 'staff',
    mailbox: c.to < 4 ? idOf('mailbox', c.to) : null,
    person: c.to % 2 ? idOf('person', c.to) : null,
  };
}

/** What the model says of an edit: null when it is allowed, else the status it must be refused with. */
function refusal(model: Map<string, Thing>, c: Command): number | null {
  const mine = model.get(idOf(c.kind, c.n));
  if (c.do === 'add' && mine) return 409;
  // What is gone can't be changed as it was seen; what isn't there can't be deleted.
  if (!mine && c.do !== 'add') return c.do === 'delete' ? 404 : 409;
  if (c.stale) return 409;
  if (c.do === 'delete')
    return [...model.values()].some((t) =>
      [...((t.value.owners as string[]) ?? []), t.value.mailbox, t.value.person].includes(mine!.value.id),
    )
      ? 422
      : null;
  const value = valueOf(c);
  const refs = [...((value.owners as string[]) ?? []), value.mailbox, value.person].filter(
    (r): r is string => typeof r === 'string',
  );
  if (refs.some((r) => !model.has(r))) return 422;
  const taken =
    c.kind === 'extension' &&
    [...model.values()].some(
      (t) => t.kind === 'extension' && t.value.id !== value.id && t.value.digits === value.digits,
    );
  return taken ? 422 : null;
}

describe('random edits', () => {
  it('are made or refused as a plain model says, and the tables hold exactly the plan', async () => {
    await fc.assert(
      fc.asyncProperty(fc.array(command, { minLength: 10, maxLength: 25 }), async (commands) => {
        const model = new Map<string, Thing>();
        for (const c of commands) {
          const key = idOf(c.kind, c.n);
          const mine = model.get(key);
          const value = c.do === 'delete' ? null : valueOf(c);
          const version = c.do === 'add' ? null : (mine?.version ?? 1) + (c.stale ? 7 : 0);
          const got = await boss.post<{ rowVersions: Record<string, number> }>('/edits', {
            edits: [{ kind: c.kind, id: key, rowVersion: version, value }],
          });
          expect([c.do, key, got.status]).toEqual([c.do, key, refusal(model, c) ?? 200]);
          if (got.status !== 200) continue;
          if (value === null) model.delete(key);
          else model.set(key, { kind: c.kind, value, version: got.body.rowVersions[key]! });
        }
        const plan = (await boss.get('/plan')).body as unknown as Plan;
        const stored = await loadPlan(connection as unknown as Reader);
        expect(planText(stored!.plan)).toBe(planText(plan));
        for (const t of model.values()) expect(stored!.rowVersions.of(t.kind, t.value.id)).toBe(t.version);
        const left = [...plan.people, ...plan.mailboxes, ...plan.extensions]
          .filter((o) => o.id.startsWith('rnd-'))
          .map((o) => o.id);
        expect(left.sort()).toEqual([...model.keys()].sort());
        await clear(model);
      }),
      { numRuns: 12 },
    );
  });

  it('undone one by one, newest first, leave the draft as it was', async () => {
    await fc.assert(
      fc.asyncProperty(fc.array(command, { minLength: 4, maxLength: 10 }), async (commands) => {
        const before = planText((await boss.get('/plan')).body as unknown as Plan);
        let made = 0;
        const versions = new Map<string, number>();
        for (const c of commands) {
          const key = idOf(c.kind, c.n);
          const got = await boss.post<{ rowVersions: Record<string, number> }>('/edits', {
            edits: [
              {
                kind: c.kind,
                id: key,
                rowVersion: c.do === 'add' ? null : (versions.get(key) ?? 1),
                value: c.do === 'delete' ? null : valueOf(c),
              },
            ],
          });
          if (got.status !== 200) continue;
          made++;
          versions.set(key, got.body.rowVersions[key] ?? 1);
        }
        for (let i = 0; i < made; i++) expect((await boss.post('/edits/undo')).status).toBe(200);
        expect(planText((await boss.get('/plan')).body as unknown as Plan)).toBe(before);
      }),
      { numRuns: 12 },
    );
  });
});

/** Deletes what a run made, in one edit. */
async function clear(model: Map<string, Thing>): Promise<void> {
  if (model.size === 0) return;
  const edits = [...model.values()].map((t) => ({ kind: t.kind, id: t.value.id, rowVersion: t.version, value: null }));
  expect((await boss.post('/edits', { edits })).status).toBe(200);
}
