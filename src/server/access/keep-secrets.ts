import { hash } from '@node-rs/argon2';
import { insertRows, times } from '../db/many';
import { rows, type Writer } from '../db/pool';
import type { Actor } from './rights';
import { pinHashing, seal, type SecretPurpose } from './secrets';

const AT_ONCE = 64;

/** Keeps many secrets inside the caller's transaction, each as the next version of its owner's. PINs are hashed several at a time. */
export async function keepSecrets(
  connection: Writer,
  actor: Actor,
  secrets: readonly { owner: string; purpose: SecretPurpose; plain: string }[],
  onProgress: (done: number) => Promise<void>,
): Promise<void> {
  const at = new Date();
  for (let from = 0; from < secrets.length; from += AT_ONCE) {
    const some = secrets.slice(from, from + AT_ONCE);
    const known = await rows<{ owner: string; purpose: string; version: number }>(
      connection,
      `SELECT owner, purpose, MAX(version) AS version FROM secret WHERE owner IN (${times(some.length, '?')}) GROUP BY owner, purpose`,
      some.map((s) => s.owner),
    );
    const versions = new Map(known.map((k) => [`${k.owner} ${k.purpose}`, Number(k.version)]));
    const values = await Promise.all(
      some.map(async ({ owner, purpose, plain }) =>
        purpose === 'pin' ? Buffer.from(await hash(plain, pinHashing())) : seal(plain, `${owner} ${purpose}`),
      ),
    );
    await insertRows(
      connection,
      'secret',
      ['owner', 'purpose', 'version', 'value', 'account', 'at'],
      some.map(({ owner, purpose }, i) => [
        owner,
        purpose,
        (versions.get(`${owner} ${purpose}`) ?? 0) + 1,
        values[i]!,
        actor.account,
        at,
      ]),
    );
    await onProgress(Math.min(from + AT_ONCE, secrets.length));
  }
}
