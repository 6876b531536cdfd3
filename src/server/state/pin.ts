import { pinRefusal } from '@/core/plan';
import { recordHistory } from '../access/history';
import { Refused, demand, type Actor } from '../access/rights';
import { keepSecret } from '../access/secrets';
import { writing } from '../db/pool';
import { ask } from '../engine';

/** Sets a mailbox PIN; it acts at once and is kept as a hash. */
export async function setPin(actor: Actor, mailbox: string, pin: string): Promise<void> {
  demand(actor, 'resetPin');
  const { where, label, organisation } = await ask('one', { reader: actor, kind: 'mailbox', id: mailbox });
  demand(actor, 'resetPin', where, label);
  const least = organisation.pinLeastDigits;
  for (const digits of await ask('digitsOfMailbox', { id: mailbox })) refuseWeak(pin, digits, 'pin', least);
  refuseWeak(pin, null, 'pin', least);
  await writing(async (c) => {
    await keepSecret(c, actor, mailbox, 'pin', pin);
    await recordHistory(c, actor, { action: 'pin-set', object: mailbox, of: label });
  });
}

/** Throws 422 with the reason when a PIN is too easy. */
export function refuseWeak(pin: string, digits: string | null, path: string, least: number): void {
  const why = pinRefusal(pin, digits, least);
  if (why) throw new Refused(422, 'weak-pin', why, path);
}
