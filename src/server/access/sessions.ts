import type { SessionFacts } from '@/contract/access';
import { change, reading, rows, writing, type Writer } from '../db/pool';
import { recordHistory } from './history';
import { Refused, demand, may, type Actor } from './rights';
import { tokenHash } from './tokens';

/** Open sessions: one's own, or everybody's for those who manage administrators. `token` marks the one that asks. */
export async function listSessions(actor: Actor, token: string | null): Promise<SessionFacts[]> {
  const all = may(actor, 'administer');
  const found = await reading((c) =>
    rows(
      c,
      `SELECT s.id, s.account, a.name, s.created_at, s.last_seen_at, s.address, s.agent, s.token_hash
       FROM session s JOIN account a ON a.id = s.account
       JOIN setting t ON t.id = 1
       WHERE s.last_seen_at > NOW(3) - INTERVAL t.idle_sign_out_minutes MINUTE
         AND s.created_at > NOW(3) - INTERVAL t.most_session_hours HOUR
         ${all ? '' : 'AND s.account = ?'} ORDER BY s.last_seen_at DESC`,
      all ? [] : [actor.account],
    ),
  );
  const own = token ? tokenHash(token) : null;
  return found.map((r) => ({
    id: r.id as string,
    account: r.account as string,
    name: r.name as string,
    since: (r.created_at as Date).toISOString(),
    lastSeen: (r.last_seen_at as Date).toISOString(),
    address: r.address as string,
    agent: r.agent as string,
    mine: own !== null && own.equals(r.token_hash as Buffer),
  }));
}

/** Ends a session: one's own, or anybody's for those who manage administrators. */
export async function endSession(actor: Actor, id: string): Promise<void> {
  await writing(async (c) => {
    const [found] = await rows<{ account: string; name: string }>(
      c,
      'SELECT s.account, a.name FROM session s JOIN account a ON a.id = s.account WHERE s.id = ?',
      [id],
    );
    if (!found || (found.account !== actor.account && !may(actor, 'administer')))
      throw new Refused(404, 'no-such-session', 'There is no such session of yours, or it has ended.');
    await change(c, 'DELETE FROM session WHERE id = ?', [id]);
    await recordHistory(c, actor, { action: 'session-ended', object: found.account, of: found.name });
  });
}

/** Ends every session of an account in a caller's transaction, such as when it is blocked. */
export async function endSessionsOf(connection: Writer, actor: Actor, account: string): Promise<void> {
  if (account !== actor.account) demand(actor, 'administer');
  await change(connection, 'DELETE FROM session WHERE account = ?', [account]);
}

/** Ends one's sessions but the one of a token, in a caller's transaction, such as when the password is another. */
export async function endOtherSessions(connection: Writer, actor: Actor, token: string | null): Promise<void> {
  await change(connection, 'DELETE FROM session WHERE account = ? AND token_hash <> ?', [
    actor.account,
    tokenHash(token ?? ''),
  ]);
}
