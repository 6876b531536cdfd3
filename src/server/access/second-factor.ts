import { generateSecret, generateURI, verifySync } from 'otplib';
import { toString as drawQr } from 'qrcode';
import { change, reading, rows, writing } from '../db/pool';
import { recordHistory } from './history';
import { countTry, triesForgiven } from './limits';
import { Refused, demand, type Actor } from './rights';
import { seal, unseal } from './secrets';
import { tokenHash } from './tokens';

/* The second factor: one-time codes by time (RFC 6238: SHA-1, six digits, 30 s), one step of clock drift either way. */

const PERIOD_SECONDS = 30;
const DRIFT_SECONDS = 30;

/** The time step that a code was made in, counted from 1970 (RFC 6238 section 4); null when the code does not fit. */
export function stepOfCode(secret: string, code: string, now: number): number | null {
  if (!/^[0-9]{6}$/.test(code)) return null;
  const epoch = Math.floor(now / 1000);
  const found = verifySync({ secret, token: code, epoch, epochTolerance: DRIFT_SECONDS, period: PERIOD_SECONDS });
  return found.valid && 'delta' in found ? Math.floor(epoch / PERIOD_SECONDS) + Number(found.delta) : null;
}

const context = (account: string) => `${account} totp`;

/** A new secret for somebody's authenticator, as text, address (otpauth) and picture. Nothing is kept before a code proves it. */
export async function offerSecondFactor(actor: Actor): Promise<{ secret: string; uri: string; svg: string }> {
  const secret = generateSecret();
  const uri = generateURI({ issuer: 'Polydrome', label: actor.signIn, secret });
  return { secret, uri, svg: await drawQr(uri, { type: 'svg', margin: 1, errorCorrectionLevel: 'M' }) };
}

/** Turns the second factor on for oneself, when a code of the offered secret proves that the authenticator has it. */
export async function startSecondFactor(actor: Actor, secret: string, code: string, now = Date.now()): Promise<void> {
  if (!/^[A-Z2-7]{26,104}$/.test(secret))
    throw new Refused(422, 'bad-secret', 'This is not the secret that was offered; begin again.', 'secret');
  const step = stepOfCode(secret, code, now);
  if (step === null)
    throw new Refused(
      422,
      'wrong-code',
      'The code does not fit; look whether the clock of that device is right.',
      'code',
    );
  await writing(async (c) => {
    await change(c, 'UPDATE account SET totp_secret = ?, totp_last_step = ? WHERE id = ?', [
      seal(secret, context(actor.account)),
      step,
      actor.account,
    ]);
    await recordHistory(c, actor, { action: 'second-factor-on', object: actor.account, of: actor.name });
  });
}

/** Whether one's own second factor is on. */
export async function hasSecondFactor(actor: Actor): Promise<boolean> {
  const [found] = await reading((c) =>
    rows<{ on: number }>(c, 'SELECT totp_secret IS NOT NULL AS `on` FROM account WHERE id = ?', [actor.account]),
  );
  return Number(found?.on) === 1;
}

/** Turns somebody's second factor off: one's own, or anybody's for those who manage administrators. */
export async function endSecondFactor(actor: Actor, account: string): Promise<void> {
  if (account !== actor.account) demand(actor, 'administer');
  await writing(async (c) => {
    const [known] = await rows<{ name: string }>(c, 'SELECT name FROM account WHERE id = ?', [account]);
    if (!known) throw new Refused(404, 'no-such-account', 'There is no such administrator.');
    await change(c, 'UPDATE account SET totp_secret = NULL, totp_last_step = NULL WHERE id = ?', [account]);
    await recordHistory(c, actor, { action: 'second-factor-off', object: account, of: known.name });
  });
}

/** Takes the code of a session whose password was right. A code counts once; wrong ones are limited like passwords. */
export async function giveCode(token: string, code: string, address: string, now = Date.now()): Promise<void> {
  const [waiting] = await reading((c) =>
    rows<{ id: string; sign_in: string; totp_secret: Buffer | null }>(
      c,
      'SELECT a.id, a.sign_in, a.totp_secret FROM session s JOIN account a ON a.id = s.account WHERE s.token_hash = ? AND s.waits_for_code = 1 AND s.created_at > NOW(3) - INTERVAL 10 MINUTE',
      [tokenHash(token)],
    ),
  );
  if (!waiting?.totp_secret) throw new Refused(401, 'not-signed-in', 'Sign in with name and password first.');
  const tried = { who: `code ${waiting.id}`, address };
  await countTry(tried);
  const step = stepOfCode(unseal(waiting.totp_secret, context(waiting.id)), code, now);
  // The step is taken in the same statement that looks whether it was used, so that a code can't count twice.
  const taken =
    step !== null &&
    (await writing((c) =>
      change(
        c,
        'UPDATE account SET totp_last_step = ? WHERE id = ? AND (totp_last_step IS NULL OR totp_last_step < ?)',
        [step, waiting.id, step],
      ),
    )) === 1;
  if (!taken) {
    const detail = { name: waiting.sign_in, code: true };
    await writing((c) => recordHistory(c, { account: waiting.id, address }, { action: 'sign-in-refused', detail }));
    throw new Refused(
      401,
      'wrong-code',
      'The code does not fit, or it was used already; wait for the next one.',
      'code',
    );
  }
  await triesForgiven(tried);
  await writing(async (c) => {
    await change(c, 'UPDATE session SET waits_for_code = 0 WHERE token_hash = ?', [tokenHash(token)]);
    await recordHistory(c, { account: waiting.id, address }, { action: 'signed-in', detail: { secondFactor: true } });
  });
}
