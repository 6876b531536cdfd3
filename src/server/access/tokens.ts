import type { ApiToken } from '@/contract/access';
import { createHash, randomBytes } from 'node:crypto';
import { v7 as uuid } from 'uuid';
import { change, reading, rows, writing } from '../db/pool';
import { recordHistory } from './history';
import { Refused, demand, narrowed, type Actor } from './rights';
import { roleById } from './role-rows';

/** 256 random bits as text. */
export const newToken = (): string => randomBytes(32).toString('base64url');

/** Tokens are kept as SHA-256 only. */
export const tokenHash = (token: string): Buffer => createHash('sha256').update(token).digest();

const PREFIX = 'pd_';

/** Makes a bearer token with a role's rights; its text is given once and never again. */
export async function makeApiToken(
  actor: Actor,
  input: { name: string; role: string; days: number | null },
): Promise<{ id: string; token: string }> {
  demand(actor, 'administer');
  const token = PREFIX + newToken();
  const id = uuid();
  const now = new Date();
  const until = input.days === null ? null : new Date(now.getTime() + input.days * 86_400_000);
  await writing(async (c) => {
    if (!(await roleById(c, input.role))) throw new Refused(422, 'no-such-role', 'There is no such role.', 'role');
    await change(
      c,
      'INSERT INTO api_token (id, name, account, role, token_hash, created_at, expires_at) VALUES (?, ?, ?, ?, ?, ?, ?)',
      [id, input.name, actor.account, input.role, tokenHash(token), now, until],
    );
    await recordHistory(c, actor, { action: 'token-made', object: id, of: input.name, detail: { role: input.role } });
  });
  return { id, token };
}

export async function revokeApiToken(actor: Actor, id: string): Promise<void> {
  demand(actor, 'administer');
  await writing(async (c) => {
    const [known] = await rows<{ name: string }>(c, 'SELECT name FROM api_token WHERE id = ?', [id]);
    const touched = await change(c, 'UPDATE api_token SET revoked_at = ? WHERE id = ? AND revoked_at IS NULL', [
      new Date(),
      id,
    ]);
    if (touched === 0) throw new Refused(404, 'no-such-token', 'There is no such token, or it is revoked already.');
    await recordHistory(c, actor, { action: 'token-revoked', object: id, of: known!.name });
  });
}

export async function listApiTokens(actor: Actor): Promise<ApiToken[]> {
  demand(actor, 'administer');
  const found = await reading((c) =>
    rows(
      c,
      'SELECT t.*, a.name AS made_by FROM api_token t JOIN account a ON a.id = t.account ORDER BY t.created_at DESC',
    ),
  );
  const iso = (d: unknown) => (d instanceof Date ? d.toISOString() : null);
  return found.map((r) => ({
    id: r.id as string,
    name: r.name as string,
    role: r.role as string,
    createdAt: iso(r.created_at)!,
    createdBy: r.made_by as string,
    expiresAt: iso(r.expires_at),
    revokedAt: iso(r.revoked_at),
    lastUsedAt: iso(r.last_used_at),
  }));
}

/** Who a bearer token speaks for; null when it is unknown, revoked or over. */
export async function tokenActor(token: string, address: string): Promise<Actor | null> {
  if (!token.startsWith(PREFIX)) return null;
  const now = new Date();
  const [found] = await reading((c) =>
    rows(
      c,
      'SELECT t.id, t.role, t.name AS token_name, a.id AS account, a.sign_in, a.role AS makers FROM api_token t JOIN account a ON a.id = t.account WHERE t.token_hash = ? AND t.revoked_at IS NULL AND (t.expires_at IS NULL OR t.expires_at > ?) AND a.blocked_at IS NULL',
      [tokenHash(token), now],
    ),
  );
  if (!found) return null;
  await writing((c) =>
    change(c, 'UPDATE api_token SET last_used_at = ? WHERE id = ? AND (last_used_at IS NULL OR last_used_at < ?)', [
      now,
      found.id as string,
      new Date(now.getTime() - 60_000),
    ]),
  );
  const [own, makers] = await reading(async (c) => [
    await roleById(c, found.role as string),
    await roleById(c, found.makers as string),
  ]);
  // Whoever made it may have lost rights since; a token never has more than they.
  const role = own && makers && narrowed(own, makers);
  return (
    role && {
      account: found.account as string,
      name: `${found.token_name as string} (token)`,
      signIn: found.sign_in as string,
      role,
      address,
      via: 'token',
    }
  );
}
