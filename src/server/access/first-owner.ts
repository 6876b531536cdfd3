import { randomInt, timingSafeEqual } from 'node:crypto';
import { hash } from '@node-rs/argon2';
import { v7 as uuid } from 'uuid';
import { change, reading, rows, writing, type Reader } from '../db/pool';
import { ARGON } from './accounts';
import { demandGoodPassword } from './administrators';
import { recordHistory } from './history';
import { countTry, triesForgiven } from './limits';
import { Refused } from './rights';
import { tokenHash } from './tokens';

/* Who owns an organisation that begins with nothing: whoever has the code that the start command printed. */

/** Signs that can't be mistaken for one another when they are typed from a screen. */
const SIGNS = 'ABCDEFGHJKLMNPQRSTUVWXYZ23456789';
const GROUPS = 4;
const GROUP = 4;

/** How a code is compared: however it was set apart, in any case. */
const plainCode = (code: string) => code.toUpperCase().replace(/[^A-Z0-9]/g, '');

async function anybody(c: Reader): Promise<boolean> {
  return (await rows(c, 'SELECT 1 AS one FROM account LIMIT 1')).length > 0;
}

/** Whether nobody has an account yet: only then does a first code open anything. */
export const isUnowned = async (): Promise<boolean> => !(await reading(anybody));

/** Makes a new first code of 80 bits and forgets the one before; null when somebody owns the organisation already. */
export async function makeFirstCode(): Promise<string | null> {
  const groups = Array.from({ length: GROUPS }, () =>
    Array.from({ length: GROUP }, () => SIGNS[randomInt(SIGNS.length)]).join(''),
  );
  const code = groups.join('-');
  return writing(async (c) => {
    if (await anybody(c)) return null;
    await keepCode(c, tokenHash(plainCode(code)));
    return code;
  });
}

const keepCode = (c: Parameters<Parameters<typeof writing>[0]>[0], hashed: Buffer) =>
  change(c, 'REPLACE INTO first_code (id, code_hash, at) VALUES (1, ?, ?)', [hashed, new Date()]);

interface FirstOwner {
  signIn: string;
  name: string;
  password: string;
}

/**
 * Makes the owner of an organisation that has none, once: the code is used up with it. Gives how that is taken back when what
 * was to come with it could not be done.
 */
export async function makeFirstOwner(
  code: string,
  { signIn, name, password }: FirstOwner,
  address: string,
): Promise<{ account: string; takeBack: () => Promise<void> }> {
  const tried = { who: 'first code', address };
  await countTry(tried);
  demandGoodPassword(password, signIn, 'owner.password');
  const hashed = await hash(password, ARGON);
  const account = uuid();
  const used = await writing(async (c) => {
    const [kept] = await rows<{ code_hash: Buffer }>(c, 'SELECT code_hash FROM first_code WHERE id = 1 FOR UPDATE');
    if (await anybody(c)) throw new Refused(409, 'owned', 'Somebody owns this organisation already; sign in.', 'code');
    if (!kept || !timingSafeEqual(kept.code_hash, tokenHash(plainCode(code))))
      throw new Refused(
        403,
        'wrong-code',
        'This is not the code that the start command printed last. Each start prints a new one.',
        'code',
      );
    await change(c, 'DELETE FROM first_code WHERE id = 1');
    await change(
      c,
      "INSERT INTO account (id, sign_in, name, role, password_hash, demo, created_at) VALUES (?, ?, ?, 'owner', ?, 0, ?)",
      [account, signIn, name, hashed, new Date()],
    );
    await recordHistory(c, { account, address }, { action: 'owner-made', object: account, of: name });
    return kept.code_hash;
  });
  await triesForgiven(tried);
  const takeBack = () =>
    writing(async (c) => {
      await change(c, 'DELETE FROM history WHERE account = ?', [account]);
      await change(c, 'DELETE FROM account WHERE id = ?', [account]);
      await keepCode(c, used);
    });
  return { account, takeBack };
}
