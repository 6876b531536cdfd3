import { beforeAll, describe, expect, it } from '@jest/globals';
import { RIGHTS, ROLES, rightsOf, type Role } from '@/server/access/rights';
import { operations } from '@/server/http/operations';
import { Client, admin } from '../support/api';

/* Every operation × every role, by bearer token: allowed or refused exactly as the rights say; a refusal comes before the body is read. */

const tokens = new Map<Role, Client>();
beforeAll(async () => {
  const boss = await admin();
  for (const role of ROLES) {
    const { body } = await boss.post<{ token: string }>('/tokens', { name: `table ${role}`, role, days: 1 });
    tokens.set(role, Client.bearer(body.token));
  }
});

const table = ROLES.flatMap((role) => Object.entries(operations).map(([name, o]) => [role, name, o] as const)).filter(
  ([, name]) => name !== 'signIn' && name !== 'signOut',
);

describe('rights', () => {
  it.each(table)('%s and %s', async (role, _name, o) => {
    const path = o.path.replace('{id}', 'none').replace('{number}', '99999');
    const sent = await tokens
      .get(role)!
      .send(o.method.toUpperCase(), path, o.method === 'get' ? undefined : '{"nonsense":');
    const allowed = o.right === null || (rightsOf(role) as readonly string[]).includes(o.right);
    expect(sent.body.error?.code === 'not-allowed').toBe(!allowed);
    if (!allowed) expect(sent.status).toBe(403);
    // With the right, nonsense is refused for being nonsense, never taken and never a fault of ours.
    else expect(sent.status).not.toBe(500);
  });

  it('each right is somebody’s, and the auditor has none that changes anything', () => {
    expect(RIGHTS.filter((r) => !ROLES.some((role) => rightsOf(role).includes(r)))).toEqual([]);
    expect(rightsOf('auditor')).toEqual(['look', 'ask']);
  });
});
