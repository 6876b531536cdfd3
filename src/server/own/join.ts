import { hash } from '@node-rs/argon2';
import { v7 as uuid } from 'uuid';
import { ARGON } from '../access/accounts';
import { demandGoodPassword } from '../access/administrators';
import { recordHistory } from '../access/history';
import { countTry, triesForgiven } from '../access/limits';
import { PERSON_ROLE, Refused, demand, type Actor } from '../access/rights';
import { newToken, tokenHash } from '../access/tokens';
import { change, isDuplicate, reading, rows, writing, type Reader, type Writer } from '../db/pool';
import { ask } from '../engine';
import { addMail } from '../mail/queue';
import { mailSettings } from '../mail/settings';
import { welcomeMail } from '../mail/words';

/* How a person gets a page of their own: a link by mail, by which they choose a password. */

const DAYS = 7;
const MOST_SIGN_IN = 80;

/** Mails somebody the link; it opens their page once, within a week. A new one ends the one before. */
export async function invite(actor: Actor, person: string): Promise<{ to: string; until: string }> {
  const facts = await ask('invited', { person });
  if (!facts) throw new Refused(404, 'not-live', 'There is no such person in live; go live with them first.', 'id');
  demand(actor, 'resetPin', facts.where, facts.name);
  const { email } = facts;
  if (!email) throw new Refused(422, 'no-email', `${facts.name} has no e-mail address; give one and go live.`, 'id');
  if (email.length > MOST_SIGN_IN)
    throw new Refused(422, 'long-email', `An address to sign in with has ${MOST_SIGN_IN} signs at most.`, 'id');
  const token = newToken();
  const now = new Date();
  const until = new Date(now.getTime() + DAYS * 86_400_000);
  await writing(async (c) => {
    const settings = await mailSettings(c);
    if (!settings)
      throw new Refused(409, 'no-mail-server', 'No mail server is set; whoever changes settings can set one.', 'id');
    const [taken] = await rows<{ name: string }>(
      c,
      'SELECT name FROM account WHERE sign_in = ? AND (person IS NULL OR person <> ?)',
      [email, person],
    );
    if (taken)
      throw new Refused(422, 'name-taken', `${taken.name} signs in with ${email} already; give another address.`, 'id');
    await change(c, 'DELETE FROM invitation WHERE person = ?', [person]);
    await change(
      c,
      'INSERT INTO invitation (token_hash, person, sign_in, name, made_at, until) VALUES (?, ?, ?, ?, ?, ?)',
      [tokenHash(token), person, email, facts.name.slice(0, 80), now, until],
    );
    await addMail(c, {
      ...welcomeMail(facts, `${settings.pages}/join/${token}`, until),
      to: email,
      about: 'welcome',
    });
    await recordHistory(c, actor, { action: 'person-invited', object: person, of: facts.name, detail: { to: email } });
  });
  return { to: email, until: until.toISOString() };
}

/** Who a link is for; null when it is none, was used, or is over. */
export const invitationOf = (token: string): Promise<{ name: string; signIn: string } | null> =>
  reading(async (c) => {
    const found = await openInvitation(c, token);
    return found && { name: found.name, signIn: found.sign_in };
  });

interface Invitation {
  person: string;
  sign_in: string;
  name: string;
}

async function openInvitation(c: Reader, token: string): Promise<Invitation | null> {
  const [found] = await rows<Invitation>(
    c,
    'SELECT person, sign_in, name FROM invitation WHERE token_hash = ? AND used_at IS NULL AND until > ?',
    [tokenHash(token), new Date()],
  );
  return found ?? null;
}

/** Chooses the password of one's own page; gives the name to sign in with. The link opens nothing after that. */
export async function join(token: string, password: string, address: string): Promise<{ signIn: string }> {
  const tried = { who: 'join', address };
  await countTry(tried);
  const gone = new Refused(
    403,
    'bad-link',
    'This link is used up or older than a week; ask your administrator for another.',
    'token',
  );
  const known = await reading((c) => openInvitation(c, token));
  if (!known) throw gone;
  demandGoodPassword(password, known.sign_in, 'password');
  const hashed = await hash(password, ARGON);
  const now = new Date();
  try {
    await writing(async (c) => {
      const used = await change(
        c,
        'UPDATE invitation SET used_at = ? WHERE token_hash = ? AND used_at IS NULL AND until > ?',
        [now, tokenHash(token), now],
      );
      if (used === 0) throw gone;
      const account = await keepAccount(c, { ...known, hashed, demo: false });
      await recordHistory(c, { account, address }, { action: 'person-joined', object: known.person, of: known.name });
    });
  } catch (e) {
    throw isDuplicate(e)
      ? new Refused(422, 'name-taken', `Somebody signs in with ${known.sign_in} already.`, 'token')
      : e;
  }
  await triesForgiven(tried);
  return { signIn: known.sign_in };
}

/** Makes the account of a person, or gives the one they have another password, without a second factor; its open sessions end. */
export async function keepAccount(c: Writer, of: Invitation & { hashed: string; demo: boolean }): Promise<string> {
  const [found] = await rows<{ id: string }>(c, 'SELECT id FROM account WHERE person = ? FOR UPDATE', [of.person]);
  if (found) {
    await change(
      c,
      'UPDATE account SET sign_in = ?, name = ?, password_hash = ?, demo = ?, totp_secret = NULL, totp_last_step = NULL WHERE id = ?',
      [of.sign_in, of.name, of.hashed, of.demo, found.id],
    );
    await change(c, 'DELETE FROM session WHERE account = ?', [found.id]);
    return found.id;
  }
  const id = uuid();
  await change(
    c,
    'INSERT INTO account (id, sign_in, name, role, password_hash, demo, created_at, person) VALUES (?, ?, ?, ?, ?, ?, ?, ?)',
    [id, of.sign_in, of.name, PERSON_ROLE.id, of.hashed, of.demo, new Date(), of.person],
  );
  return id;
}
