import { pinRefusal } from '@/core/plan';
import { recordHistory } from '../access/history';
import { Refused, demand, type Actor } from '../access/rights';
import { keepSecret } from '../access/secrets';
import { transaction } from '../db/pool';
import { draftPlan, livePlan } from '../draft/store';

/** Sets a mailbox PIN; it acts at once and is kept as a hash. */
export async function setPin(actor: Actor, mailbox: string, pin: string): Promise<void> {
  demand(actor, 'resetPin');
  const plans = await Promise.all([draftPlan(), livePlan()]);
  if (!plans.some((p) => p.plan.mailboxes.some((m) => m.id === mailbox)))
    throw new Refused(404, 'no-such-object', 'There is no such mailbox.');
  for (const extension of plans.flatMap((p) => p.plan.extensions.filter((e) => e.mailbox === mailbox)))
    refuseWeak(pin, extension.digits, 'pin');
  refuseWeak(pin, null, 'pin');
  await transaction((c) => keepSecret(c, actor, mailbox, 'pin', pin));
  await recordHistory(actor, 'pin-set', mailbox, null);
}

/** Throws 422 with the reason when a PIN is too easy. */
export function refuseWeak(pin: string, digits: string | null, path: string): void {
  const why = pinRefusal(pin, digits);
  if (why) throw new Refused(422, 'weak-pin', why, path);
}
