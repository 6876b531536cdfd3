import { v7 as uuid } from 'uuid';
import type { RoleInput } from '@/contract/rights';
import type { RoleFacts } from '@/contract/access';
import { change, isDuplicate, reading, rows, writing } from '../db/pool';
import { recordHistory } from './history';
import { demandManager, holdAccounts } from './managers';
import { READY_ROLES, Refused, demand, type Actor } from './rights';
import { fromRow, type RoleRow } from './role-rows';

/* Roles: four come ready and stand in the program; own ones are rows. */

/** Every role, those that come ready first. */
export async function listRoles(): Promise<RoleFacts[]> {
  const own = await reading((c) => rows<RoleRow>(c, 'SELECT id, name, grants FROM role ORDER BY name'));
  return [
    ...READY_ROLES.map((r) => ({ ...r, grants: [...r.grants], ready: true })),
    ...own.map((r) => ({ ...fromRow(r), ready: false }) as RoleFacts),
  ];
}

/** Makes a role, or changes one of our own. */
export async function saveRole(actor: Actor, id: string | null, input: RoleInput): Promise<{ id: string }> {
  demand(actor, 'administer');
  if (READY_ROLES.some((r) => r.id === id))
    throw new Refused(409, 'ready-role', 'This role comes ready and stays as it is; make one of your own like it.');
  if (READY_ROLES.some((r) => r.name.toLowerCase() === input.name.toLowerCase()))
    throw new Refused(422, 'name-taken', `There is a role ${input.name} already.`, 'name');
  const grants = JSON.stringify(input.grants);
  const role = id ?? uuid();
  try {
    await writing(async (c) => {
      if (id === null)
        await change(c, 'INSERT INTO role (id, name, grants, made_by, at) VALUES (?, ?, ?, ?, ?)', [
          role,
          input.name,
          grants,
          actor.account,
          new Date(),
        ]);
      else {
        await holdAccounts(c);
        const [known] = await rows(c, 'SELECT id FROM role WHERE id = ? FOR UPDATE', [id]);
        if (!known) throw new Refused(404, 'no-such-role', 'There is no such role.');
        await change(c, 'UPDATE role SET name = ?, grants = ? WHERE id = ?', [input.name, grants, id]);
        // Whoever manages administrators by this role must not be the last who could.
        await demandManager(c);
      }
      const action = id === null ? 'role-made' : 'role-changed';
      await recordHistory(c, actor, { action, object: role, of: input.name, detail: { grants: input.grants } });
    });
  } catch (e) {
    throw isDuplicate(e) ? new Refused(422, 'name-taken', `There is a role ${input.name} already.`, 'name') : e;
  }
  return { id: role };
}

/** Deletes a role of our own that nobody has and no token uses. */
export async function deleteRole(actor: Actor, id: string): Promise<void> {
  demand(actor, 'administer');
  await writing(async (c) => {
    const used = await rows(
      c,
      'SELECT sign_in AS name FROM account WHERE role = ? UNION SELECT name FROM api_token WHERE role = ? AND revoked_at IS NULL',
      [id, id],
    );
    if (used.length > 0)
      throw new Refused(
        409,
        'still-used',
        `${used.map((u) => u.name as string).join(', ')} ${used.length === 1 ? 'has' : 'have'} this role; give another one first.`,
      );
    const [known] = await rows<{ name: string }>(c, 'SELECT name FROM role WHERE id = ?', [id]);
    if (!known) throw new Refused(404, 'no-such-role', 'There is no such role of your own.');
    await change(c, 'DELETE FROM role WHERE id = ?', [id]);
    await recordHistory(c, actor, { action: 'role-deleted', object: id, of: known.name });
  });
}
