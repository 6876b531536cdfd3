import { v7 as uuid } from 'uuid';
import { z } from 'zod';
import { change, isDuplicate, reading, rows } from '../db/pool';
import { AREAS } from './area-names';
import { recordHistory } from './history';
import { READY_ROLES, RIGHTS, RIGHT_WORDS, Refused, UNLIMITED_RIGHTS, demand, type Actor, type Role } from './rights';

/* Roles: four come ready and stand in the program; own ones are rows. */

const grantSchema = z
  .strictObject({
    right: z.enum(RIGHTS),
    areas: z.union([z.literal('all'), z.array(z.enum(AREAS)).min(1, 'names no area; name some or say all')]),
    sites: z.union([z.literal('all'), z.array(z.string().max(36)).min(1, 'names no site; name some or say all')]),
  })
  .superRefine((grant, ctx) => {
    if (UNLIMITED_RIGHTS.includes(grant.right) && (grant.areas !== 'all' || grant.sites !== 'all'))
      ctx.addIssue({
        code: 'custom',
        path: ['right'],
        message: `${RIGHT_WORDS[grant.right]} concerns everything; it is granted for all areas and sites or not at all`,
      });
  });

export const roleSchema = z.strictObject({
  name: z.string().trim().min(1, 'is empty').max(80),
  grants: z.array(grantSchema).max(60).min(1, 'grants nothing; a role without rights is of no use'),
});
export type RoleInput = z.output<typeof roleSchema>;

type RoleRow = { id: string; name: string; grants: unknown };

const fromRow = (r: RoleRow): Role => ({
  id: r.id,
  name: r.name,
  grants: z.array(grantSchema).parse(typeof r.grants === 'string' ? JSON.parse(r.grants) : r.grants),
});

/** A role by id; null when there is none (any more). */
export async function roleById(id: string): Promise<Role | null> {
  const ready = READY_ROLES.find((r) => r.id === id);
  if (ready) return ready;
  const [found] = await reading((c) => rows<RoleRow>(c, 'SELECT id, name, grants FROM role WHERE id = ?', [id]));
  return found ? fromRow(found) : null;
}

/** Every role, those that come ready first. */
export async function listRoles(): Promise<(Role & { ready: boolean })[]> {
  const own = await reading((c) => rows<RoleRow>(c, 'SELECT id, name, grants FROM role ORDER BY name'));
  return [...READY_ROLES.map((r) => ({ ...r, ready: true })), ...own.map((r) => ({ ...fromRow(r), ready: false }))];
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
    if (id === null)
      await reading((c) =>
        change(c, 'INSERT INTO role (id, name, grants, made_by, at) VALUES (?, ?, ?, ?, ?)', [
          role,
          input.name,
          grants,
          actor.account,
          new Date(),
        ]),
      );
    else if (
      (await reading((c) => rows(c, 'SELECT id FROM role WHERE id = ?', [id]))).length === 0 ||
      (await reading((c) => change(c, 'UPDATE role SET name = ?, grants = ? WHERE id = ?', [input.name, grants, id]))) >
        1
    )
      throw new Refused(404, 'no-such-role', 'There is no such role.');
  } catch (e) {
    throw isDuplicate(e) ? new Refused(422, 'name-taken', `There is a role ${input.name} already.`, 'name') : e;
  }
  await recordHistory(actor, id === null ? 'role-made' : 'role-changed', role, { ...input });
  return { id: role };
}

/** Deletes a role of our own that nobody has and no token uses. */
export async function deleteRole(actor: Actor, id: string): Promise<void> {
  demand(actor, 'administer');
  const used = await reading((c) =>
    rows(
      c,
      'SELECT sign_in AS name FROM account WHERE role = ? UNION SELECT name FROM api_token WHERE role = ? AND revoked_at IS NULL',
      [id, id],
    ),
  );
  if (used.length > 0)
    throw new Refused(
      409,
      'still-used',
      `${used.map((u) => u.name as string).join(', ')} ${used.length === 1 ? 'has' : 'have'} this role; give another one first.`,
    );
  const touched = await reading((c) => change(c, 'DELETE FROM role WHERE id = ?', [id]));
  if (touched === 0) throw new Refused(404, 'no-such-role', 'There is no such role of your own.');
  await recordHistory(actor, 'role-deleted', id, null);
}
