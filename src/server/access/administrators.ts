import { hash, verify } from '@node-rs/argon2';
import { v7 as uuid } from 'uuid';
import { z } from 'zod';
import { change, isDuplicate, reading, rows, transaction } from '../db/pool';
import { ARGON } from './accounts';
import { recordHistory } from './history';
import { Refused, demand, mayEverywhere, type Actor } from './rights';
import { roleById } from './roles';
import { strongPassword } from './secrets';
import { endSessionsOf } from './sessions';

/* The people who administer: added, given a role, blocked. Somebody with every right over administrators always remains. */

export const newAdministratorSchema = z.strictObject({
  signIn: z
    .string()
    .trim()
    .regex(/^[a-zA-Z0-9._-]{2,80}$/, 'takes 2 to 80 letters, digits, dots, hyphens and underscores'),
  name: z.string().trim().min(1, 'is empty').max(80),
  role: z.string().max(36),
});

export interface Administrator {
  id: string;
  signIn: string;
  name: string;
  role: string;
  secondFactor: boolean;
  blockedAt: string | null;
  lastSeen: string | null;
}

export async function listAdministrators(actor: Actor): Promise<Administrator[]> {
  demand(actor, 'administer');
  const found = await reading((c) =>
    rows(
      c,
      `SELECT a.id, a.sign_in, a.name, a.role, a.totp_secret IS NOT NULL AS totp, a.blocked_at,
         (SELECT MAX(s.last_seen_at) FROM session s WHERE s.account = a.id) AS seen
       FROM account a ORDER BY a.name`,
    ),
  );
  return found.map((r) => ({
    id: r.id as string,
    signIn: r.sign_in as string,
    name: r.name as string,
    role: r.role as string,
    secondFactor: Number(r.totp) === 1,
    blockedAt: (r.blocked_at as Date | null)?.toISOString() ?? null,
    lastSeen: (r.seen as Date | null)?.toISOString() ?? null,
  }));
}

/** Adds an administrator with a password that is shown once and has to be changed at the first sign-in. */
export async function addAdministrator(
  actor: Actor,
  input: z.output<typeof newAdministratorSchema>,
): Promise<{ id: string; password: string }> {
  demand(actor, 'administer');
  await needRole(input.role);
  const password = strongPassword();
  const hashed = await hash(password, ARGON);
  const id = uuid();
  try {
    await reading((c) =>
      change(
        c,
        'INSERT INTO account (id, sign_in, name, role, password_hash, demo, must_change, created_at) VALUES (?, ?, ?, ?, ?, 0, 1, ?)',
        [id, input.signIn, input.name, input.role, hashed, new Date()],
      ),
    );
  } catch (e) {
    throw isDuplicate(e)
      ? new Refused(422, 'name-taken', `Somebody signs in as ${input.signIn} already.`, 'signIn')
      : e;
  }
  await recordHistory(actor, 'administrator-added', id, { signIn: input.signIn, role: input.role });
  return { id, password };
}

export const administratorChangeSchema = z
  .strictObject({ name: z.string().trim().min(1, 'is empty').max(80), role: z.string().max(36), blocked: z.boolean() })
  .partial();

/** Changes name or role of an administrator, or blocks the account; refuses to leave nobody who manages administrators. */
export async function changeAdministrator(
  actor: Actor,
  id: string,
  input: z.output<typeof administratorChangeSchema>,
): Promise<void> {
  demand(actor, 'administer');
  if (input.role !== undefined) await needRole(input.role);
  await transaction(async (c) => {
    const all = await rows<{ id: string; role: string; blocked_at: Date | null }>(
      c,
      'SELECT id, role, blocked_at FROM account WHERE password_hash IS NOT NULL OR id = ? FOR UPDATE',
      [id],
    );
    const mine = all.find((a) => a.id === id);
    if (!mine) throw new Refused(404, 'no-such-account', 'There is no such administrator.');
    const after = all.map((a) =>
      a.id === id
        ? {
            role: input.role ?? a.role,
            blocked: input.blocked ?? a.blocked_at !== null,
          }
        : { role: a.role, blocked: a.blocked_at !== null },
    );
    let managers = 0;
    for (const a of after) {
      const role = a.blocked ? null : await roleById(a.role);
      if (role && mayEverywhere({ role }, 'administer')) managers++;
    }
    if (managers === 0)
      throw new Refused(
        409,
        'last-manager',
        'Nobody would be left who manages administrators; give somebody else that right first.',
      );
    if (input.name !== undefined) await change(c, 'UPDATE account SET name = ? WHERE id = ?', [input.name, id]);
    if (input.role !== undefined) await change(c, 'UPDATE account SET role = ? WHERE id = ?', [input.role, id]);
    if (input.blocked !== undefined)
      await change(c, 'UPDATE account SET blocked_at = ? WHERE id = ?', [input.blocked ? new Date() : null, id]);
  });
  if (input.blocked) await endSessionsOf(actor, id);
  await recordHistory(actor, 'administrator-changed', id, { ...input });
}

/** Gives an administrator a new password, shown once and to be changed at the next sign-in; ends the open sessions. */
export async function resetPassword(actor: Actor, id: string): Promise<{ password: string }> {
  demand(actor, 'administer');
  const password = strongPassword();
  const hashed = await hash(password, ARGON);
  const touched = await reading((c) =>
    change(c, 'UPDATE account SET password_hash = ?, must_change = 1, demo = 0 WHERE id = ?', [hashed, id]),
  );
  if (touched === 0) throw new Refused(404, 'no-such-account', 'There is no such administrator.');
  await endSessionsOf(actor, id);
  await recordHistory(actor, 'administrator-changed', id, { password: 'made anew' });
  return { password };
}

const LEAST_PASSWORD = 12;

/** Changes one's own password. */
export async function changeOwnPassword(actor: Actor, old: string, wanted: string): Promise<void> {
  const [found] = await reading((c) =>
    rows<{ password_hash: string | null }>(c, 'SELECT password_hash FROM account WHERE id = ?', [actor.account]),
  );
  if (!found?.password_hash || !(await verify(found.password_hash, old)))
    throw new Refused(422, 'wrong-password', 'The present password is another.', 'old');
  if (wanted.length < LEAST_PASSWORD)
    throw new Refused(422, 'weak-password', `A password has at least ${LEAST_PASSWORD} characters.`, 'password');
  if (wanted === old || wanted.toLowerCase().includes(actor.signIn.toLowerCase()))
    throw new Refused(422, 'weak-password', 'Take one that is new and does not hold your name.', 'password');
  const hashed = await hash(wanted, ARGON);
  await reading((c) =>
    change(c, 'UPDATE account SET password_hash = ?, must_change = 0, demo = 0 WHERE id = ?', [hashed, actor.account]),
  );
  await recordHistory(actor, 'password-changed', actor.account, null);
}

async function needRole(id: string): Promise<void> {
  if (!(await roleById(id))) throw new Refused(422, 'no-such-role', 'There is no such role.', 'role');
}
