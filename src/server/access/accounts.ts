import { hash, verify } from '@node-rs/argon2';
import { v7 as uuid } from 'uuid';
import { change, rows, writing, reading } from '../db/pool';
import { recordHistory } from './history';
import { knowsDevice, rememberDevice } from './devices';
import { countTry, triesForgiven } from './limits';
import { Refused, type Actor } from './rights';
import { roleById } from './role-rows';
import { newToken, tokenHash } from './tokens';

/** argon2id with 19 MiB and two passes (OWASP's floor). */
export const ARGON = { memoryCost: 19_456, timeCost: 2, parallelism: 1 };

/** A hash that no password fits, so that an unknown name takes as long as a wrong password. */
let noPassword: Promise<string> | null = null;

interface AccountRow {
  id: string;
  sign_in: string;
  name: string;
  role: string;
  password_hash: string | null;
  demo: number;
  totp_secret: Buffer | null;
  must_change: number;
  blocked_at: Date | null;
  person: string | null;
}

/** Makes an account, or gives the one that has the name already. `password` null: nobody can sign in with it. */
export async function ensureAccount(
  signIn: string,
  name: string,
  role: string,
  password: string | null,
  demo = false,
): Promise<string> {
  const hashed = password === null ? null : await hash(password, ARGON);
  return writing(async (c) => {
    const [found] = await rows<AccountRow>(c, 'SELECT id FROM account WHERE sign_in = ?', [signIn]);
    if (found) return found.id;
    const id = uuid();
    await change(
      c,
      'INSERT INTO account (id, sign_in, name, role, password_hash, demo, created_at) VALUES (?, ?, ?, ?, ?, ?, ?)',
      [id, signIn, name, role, hashed, demo ? 1 : 0, new Date()],
    );
    return id;
  });
}

/** Where a sign-in comes from. */
export interface Origin {
  address: string;
  /** the browser, as it calls itself */
  agent: string;
  /** the token that tells a browser which somebody has signed in with before */
  device: string | null;
}

/**
 * Signs in with name and password; gives the session's token and the one that the browser is known by from now on. Tries are
 * counted per name and address in the database before they are judged. Demo accounts are refused from anywhere but this
 * machine. With a second factor the session waits for a code before it counts.
 */
export async function signIn(
  name: string,
  password: string,
  { address, agent, device }: Origin,
): Promise<{ token: string; device: string; waitsForCode: boolean }> {
  const [account] = await reading((c) => rows<AccountRow>(c, 'SELECT * FROM account WHERE sign_in = ?', [name]));
  const known = account !== undefined && (await knowsDevice(account.id, device));
  const tried = { who: account?.id ?? name, address, known };
  await countTry(tried);
  noPassword ??= hash(newToken(), ARGON);
  const right = await verify(account?.password_hash ?? (await noPassword), password);
  if (!account || !account.password_hash || !right) {
    await writing((c) =>
      recordHistory(c, { account: account?.id ?? null, address }, { action: 'sign-in-refused', detail: { name } }),
    );
    throw new Refused(401, 'wrong-sign-in', 'Name and password do not fit together.');
  }
  if (account.demo === 1 && !isLoopback(address))
    throw new Refused(403, 'demo-only-here', 'Demo accounts sign in on the machine itself only.');
  await triesForgiven(tried);
  if (account.blocked_at)
    throw new Refused(403, 'blocked', 'This account is blocked; whoever manages administrators can open it again.');
  const waitsForCode = account.totp_secret !== null;
  const token = newToken();
  const now = new Date();
  await writing(async (c) => {
    await change(
      c,
      'INSERT INTO session (token_hash, id, account, created_at, last_seen_at, address, agent, waits_for_code) VALUES (?, ?, ?, ?, ?, ?, ?, ?)',
      [tokenHash(token), uuid(), account.id, now, now, address, agent.slice(0, 200), waitsForCode ? 1 : 0],
    );
    await change(c, 'DELETE FROM session WHERE last_seen_at < ?', [new Date(now.getTime() - 7 * 86_400_000)]);
    if (!waitsForCode) await recordHistory(c, { account: account.id, address }, { action: 'signed-in' });
  });
  return { token, device: await rememberDevice(account.id, device), waitsForCode };
}

export async function signOut(token: string): Promise<void> {
  await writing((c) => change(c, 'DELETE FROM session WHERE token_hash = ?', [tokenHash(token)]));
}

/** Who a session belongs to; null when it does not exist, has been idle too long or is too old. Counts as a sign of life. */
export async function sessionActor(token: string, address: string, now = new Date()): Promise<Actor | null> {
  const hashed = tokenHash(token);
  const [found] = await reading((c) =>
    rows<AccountRow & { last_seen_at: Date; since: Date; idle: number; hours: number; wanted: number }>(
      c,
      'SELECT a.*, s.last_seen_at, s.created_at AS since, t.idle_sign_out_minutes AS idle, t.most_session_hours AS hours, t.people_second_factor AS wanted FROM session s JOIN account a ON a.id = s.account JOIN setting t ON t.id = 1 WHERE s.token_hash = ? AND s.waits_for_code = 0 AND a.blocked_at IS NULL',
      [hashed],
    ),
  );
  if (!found) return null;
  const idleMilliseconds = now.getTime() - found.last_seen_at.getTime();
  if (idleMilliseconds > found.idle * 60_000 || now.getTime() - found.since.getTime() > found.hours * 3_600_000) {
    await signOut(token);
    return null;
  }
  if (idleMilliseconds > 15_000)
    await writing((c) => change(c, 'UPDATE session SET last_seen_at = ? WHERE token_hash = ?', [now, hashed]));
  const role = await reading((c) => roleById(c, found.role));
  return (
    role && {
      account: found.id,
      name: found.name,
      signIn: found.sign_in,
      role,
      address,
      via: 'session',
      ...(found.person === null
        ? {}
        : { person: found.person, needsSecondFactor: found.wanted === 1 && found.totp_secret === null }),
      mustChange: found.must_change === 1,
    }
  );
}

/** Somebody's actor without a session, for work that goes on by itself; null when there is no such account or it is blocked. */
export async function accountActor(account: string, address: string): Promise<Actor | null> {
  const [found] = await reading((c) =>
    rows<AccountRow>(c, 'SELECT * FROM account WHERE id = ? AND blocked_at IS NULL', [account]),
  );
  const role = found && (await reading((c) => roleById(c, found.role)));
  return role ? { account, name: found.name, signIn: found.sign_in, role, address, via: 'session' } : null;
}

export const isLoopback = (address: string): boolean => address === '::1' || /^(::ffff:)?127\./.test(address);
