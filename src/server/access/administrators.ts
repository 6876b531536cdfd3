import type { Administrator, administratorChangeSchema, newAdministratorSchema } from '@/contract/access';
import { hash, verify } from '@node-rs/argon2';
import { v7 as uuid } from 'uuid';
import type { z } from 'zod';
import { change, isDuplicate, reading, rows, writing, type Reader } from '../db/pool';
import { ARGON } from './accounts';
import { recordHistory } from './history';
import { Refused, demand, type Actor } from './rights';
import { countTry, triesForgiven } from './limits';
import { demandManager, holdAccounts } from './managers';
import { roleById } from './role-rows';
import { strongPassword } from './secrets';
import { endOtherSessions, endSessionsOf } from './sessions';

/* The people who administer: added, given a role, blocked. Somebody with every right over administrators always remains. */

export async function listAdministrators(actor: Actor): Promise<Administrator[]> {
  demand(actor, 'administer');
  const found = await reading((c) =>
    rows(
      c,
      `SELECT a.id, a.sign_in, a.name, a.role, a.totp_secret IS NOT NULL AS totp, a.blocked_at,
         (SELECT MAX(s.last_seen_at) FROM session s WHERE s.account = a.id) AS seen
       FROM account a WHERE a.person IS NULL ORDER BY a.name`,
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
  const password = strongPassword();
  const hashed = await hash(password, ARGON);
  const id = uuid();
  try {
    await writing(async (c) => {
      await needRole(c, input.role);
      await change(
        c,
        'INSERT INTO account (id, sign_in, name, role, password_hash, demo, must_change, created_at) VALUES (?, ?, ?, ?, ?, 0, 1, ?)',
        [id, input.signIn, input.name, input.role, hashed, new Date()],
      );
      await recordHistory(c, actor, {
        action: 'administrator-added',
        object: id,
        of: input.name,
        detail: { signIn: input.signIn, role: input.role },
      });
    });
  } catch (e) {
    throw isDuplicate(e)
      ? new Refused(422, 'name-taken', `Somebody signs in as ${input.signIn} already.`, 'signIn')
      : e;
  }
  return { id, password };
}

/** Changes name or role of an administrator, or blocks the account; refuses to leave nobody who manages administrators. */
export async function changeAdministrator(
  actor: Actor,
  id: string,
  input: z.output<typeof administratorChangeSchema>,
): Promise<void> {
  demand(actor, 'administer');
  await writing(async (c) => {
    if (input.role !== undefined) await needRole(c, input.role);
    await holdAccounts(c);
    const [known] = await rows<{ name: string }>(c, 'SELECT name FROM account WHERE id = ? AND person IS NULL', [id]);
    if (!known) throw new Refused(404, 'no-such-account', 'There is no such administrator.');
    if (input.name !== undefined) await change(c, 'UPDATE account SET name = ? WHERE id = ?', [input.name, id]);
    if (input.role !== undefined) await change(c, 'UPDATE account SET role = ? WHERE id = ?', [input.role, id]);
    if (input.blocked !== undefined)
      await change(c, 'UPDATE account SET blocked_at = ? WHERE id = ?', [input.blocked ? new Date() : null, id]);
    if (input.blocked) await endSessionsOf(c, actor, id);
    await demandManager(c);
    const detail = { ...input };
    await recordHistory(c, actor, { action: 'administrator-changed', object: id, of: known.name, detail });
  });
}

/** Gives an administrator a new password, shown once and to be changed at the next sign-in; ends the open sessions. */
export async function resetPassword(actor: Actor, id: string): Promise<{ password: string }> {
  demand(actor, 'administer');
  const password = strongPassword();
  const hashed = await hash(password, ARGON);
  await writing(async (c) => {
    const [known] = await rows<{ name: string }>(c, 'SELECT name FROM account WHERE id = ? AND person IS NULL', [id]);
    if (!known) throw new Refused(404, 'no-such-account', 'There is no such administrator.');
    await change(c, 'UPDATE account SET password_hash = ?, must_change = 1, demo = 0 WHERE id = ?', [hashed, id]);
    await endSessionsOf(c, actor, id);
    const detail = { password: 'made anew' };
    await recordHistory(c, actor, { action: 'administrator-changed', object: id, of: known.name, detail });
  });
  return { password };
}

const LEAST_PASSWORD = 12;

/** Throws 422 for a password that is too short or holds the name that goes with it; `path` is where it was given. */
export function demandGoodPassword(password: string, signIn: string, path: string): void {
  if (password.length < LEAST_PASSWORD)
    throw new Refused(422, 'weak-password', `A password has at least ${LEAST_PASSWORD} characters.`, path);
  if (password.toLowerCase().includes(signIn.toLowerCase()))
    throw new Refused(422, 'weak-password', 'Take one that does not hold your name.', path);
}

/** Changes one's own password; ends one's other sessions (`token` is the one that goes on). The old one is not guessed at will. */
export async function changeOwnPassword(
  actor: Actor,
  token: string | null,
  old: string,
  wanted: string,
): Promise<void> {
  const tried = { who: `old ${actor.account}`, address: actor.address };
  await countTry(tried);
  const [found] = await reading((c) =>
    rows<{ password_hash: string | null }>(c, 'SELECT password_hash FROM account WHERE id = ?', [actor.account]),
  );
  if (!found?.password_hash || !(await verify(found.password_hash, old)))
    throw new Refused(422, 'wrong-password', 'The present password is another.', 'old');
  await triesForgiven(tried);
  demandGoodPassword(wanted, actor.signIn, 'password');
  if (wanted === old) throw new Refused(422, 'weak-password', 'Take one that is new.', 'password');
  const hashed = await hash(wanted, ARGON);
  await writing(async (c) => {
    await change(c, 'UPDATE account SET password_hash = ?, must_change = 0, demo = 0 WHERE id = ?', [
      hashed,
      actor.account,
    ]);
    await endOtherSessions(c, actor, token);
    await recordHistory(c, actor, { action: 'password-changed', object: actor.account, of: actor.name });
  });
}

async function needRole(c: Reader, id: string): Promise<void> {
  if (!(await roleById(c, id))) throw new Refused(422, 'no-such-role', 'There is no such role.', 'role');
}
