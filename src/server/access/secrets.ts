import { createCipheriv, createDecipheriv, randomBytes, randomInt } from 'node:crypto';
import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import { hash } from '@node-rs/argon2';
import { dataFolder } from '../db/config';
import { change, reading, rows, writing, type Reader, type Writer } from '../db/pool';
import { recordHistory } from './history';
import { Refused, demand, type Actor } from './rights';

/** What a secret is for; PINs are hashed, passwords encrypted (ARCHITECTURE principle 5). */
export type SecretPurpose = 'sip-password' | 'trunk-password' | 'pin';

let known: Buffer | null = null;

/** The key from its file, read once. */
function key(): Buffer {
  return (known ??= Buffer.from(readFileSync(join(dataFolder(), 'secret-key'), 'utf8').trim(), 'hex'));
}

/**
 * How PINs are hashed: argon2id with our key as its secret value (RFC 9106 section 3.1), so that the database alone does not
 * let anybody try the few PINs that there are; memory and passes are small, since thousands may be imported at once.
 */
export const pinHashing = () => ({ memoryCost: 4096, timeCost: 1, parallelism: 1, secret: key() });

/** AES-256-GCM: nonce, tag, cipher text; owner and purpose are authenticated with it. */
export function seal(plain: string | Buffer, context: string): Buffer {
  const nonce = randomBytes(12);
  const cipher = createCipheriv('aes-256-gcm', key(), nonce);
  cipher.setAAD(Buffer.from(context));
  const body = Buffer.concat([
    cipher.update(typeof plain === 'string' ? Buffer.from(plain, 'utf8') : plain),
    cipher.final(),
  ]);
  return Buffer.concat([nonce, cipher.getAuthTag(), body]);
}

/** The plain text of what `seal` made with the same context; throws when anything was changed. */
export const unseal = (sealed: Buffer, context: string): string => unsealBytes(sealed, context).toString('utf8');

/** The same for what is no text. */
export function unsealBytes(sealed: Buffer, context: string): Buffer {
  const decipher = createDecipheriv('aes-256-gcm', key(), sealed.subarray(0, 12));
  decipher.setAAD(Buffer.from(context));
  decipher.setAuthTag(sealed.subarray(12, 28));
  return Buffer.concat([decipher.update(sealed.subarray(28)), decipher.final()]);
}

/** Letters and digits that can't be mistaken for one another. */
const CLEAR = 'ABCDEFGHJKLMNPQRSTUVWXYZabcdefghijkmnpqrstuvwxyz23456789';
const PASSWORD_LENGTH = 20;

/** A SIP password of 20 clear letters and digits: 116 bits. */
export function strongPassword(): string {
  return Array.from({ length: PASSWORD_LENGTH }, () => CLEAR[randomInt(CLEAR.length)]).join('');
}

/** The version that the next secret of an owner gets. */
export async function nextVersion(c: Reader, owner: string, purpose: SecretPurpose): Promise<number> {
  const [last] = await rows<{ version: number | null }>(
    c,
    'SELECT MAX(version) AS version FROM secret WHERE owner = ? AND purpose = ?',
    [owner, purpose],
  );
  return (last?.version ?? 0) + 1;
}

/** Keeps a new version of a secret inside the caller's transaction; gives the version. */
export async function keepSecret(
  connection: Writer,
  actor: Actor,
  owner: string,
  purpose: SecretPurpose,
  plain: string,
): Promise<number> {
  const version = await nextVersion(connection, owner, purpose);
  const value = purpose === 'pin' ? Buffer.from(await hash(plain, pinHashing())) : seal(plain, `${owner} ${purpose}`);
  await change(
    connection,
    'INSERT INTO secret (owner, purpose, version, value, account, at) VALUES (?, ?, ?, ?, ?, ?)',
    [owner, purpose, version, value, actor.account, new Date()],
  );
  return version;
}

/** Shows a password to somebody who may see it; each showing is recorded. */
export async function showSecret(
  actor: Actor,
  owner: string,
  /** its name, for the history */
  of: string,
  purpose: Exclude<SecretPurpose, 'pin'>,
  version: number,
): Promise<string> {
  demand(actor, 'seeSecrets');
  const [found] = await reading((c) =>
    rows<{ value: Buffer }>(c, 'SELECT value FROM secret WHERE owner = ? AND purpose = ? AND version = ?', [
      owner,
      purpose,
      version,
    ]),
  );
  if (!found) throw new Refused(404, 'no-secret', 'No password was made yet.');
  await writing((c) =>
    recordHistory(c, actor, { action: 'password-shown', object: owner, of, detail: { purpose, version } }),
  );
  return unseal(found.value, `${owner} ${purpose}`);
}

/** Whether a mailbox has a PIN. */
export async function hasPin(mailbox: string): Promise<boolean> {
  const found = await reading((c) =>
    rows(c, "SELECT 1 AS one FROM secret WHERE owner = ? AND purpose = 'pin' LIMIT 1", [mailbox]),
  );
  return found.length > 0;
}
