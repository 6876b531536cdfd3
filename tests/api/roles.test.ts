import { beforeAll, describe, expect, it } from '@jest/globals';
import { PATHS, contract, type Facts, type OperationName } from '@/contract';
import { RIGHTS } from '@/contract/rights';
import { READY_ROLES, rightsOf, type Role } from '@/server/access/rights';
import { Client, admin } from '../support/api';

/* Every operation × every role, by bearer token: allowed or refused exactly as the rights say; a refusal comes before the body is read. */

const tokens = new Map<string, Client>();
beforeAll(async () => {
  const boss = await admin();
  for (const { id } of READY_ROLES) {
    const { body } = await boss.post<{ token: string }>('/tokens', { name: `table ${id}`, role: id, days: 1 });
    tokens.set(id, Client.bearer(body.token));
  }
});

const table = READY_ROLES.flatMap((role) =>
  (Object.keys(PATHS) as OperationName[]).map((name) => [role.id, name, contract[name] as Facts, role] as const),
).filter(([, name]) => name !== 'signIn' && name !== 'signOut');

describe('rights', () => {
  it.each(table)('%s and %s', async (id, name, o, role: Role) => {
    const [method, template] = PATHS[name as OperationName];
    const path = template
      .replace('{id}', 'none')
      .replace('{number}', '99999')
      .replace(/\{\w+\}/g, 'none');
    const sent = await tokens.get(id)!.send(method, path, method === 'GET' ? undefined : '{"nonsense":');
    const allowed =
      o.right === null || o.right === 'signed-in' || (rightsOf(role) as readonly string[]).includes(o.right);
    expect(sent.body.error?.code === 'not-allowed').toBe(!allowed);
    if (!allowed) expect(sent.status).toBe(403);
    // With the right, nonsense is refused for being nonsense, never taken and never a fault of ours.
    else expect(sent.status).not.toBe(500);
  });

  it('each right is somebody’s, and the auditor has none that changes anything', () => {
    expect(RIGHTS.filter((r) => !READY_ROLES.some((role) => rightsOf(role).includes(r)))).toEqual([
      // Nobody hears messages of others, nor recordings, unless a role of one’s own says so.
      'hearMessages',
      'hearRecordings',
    ]);
    expect(rightsOf(READY_ROLES.find((r) => r.id === 'auditor')!)).toEqual(['look', 'ask', 'seeCalls']);
  });
});
