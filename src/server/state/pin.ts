import { pinRefusal } from '@/core/plan';
import { demandFor } from '../access/areas';
import { recordHistory } from '../access/history';
import { Refused, demand, type Actor } from '../access/rights';
import { keepSecret } from '../access/secrets';
import { transaction } from '../db/pool';
import { draftPlan, livePlan } from '../draft/store';

/** Sets a mailbox PIN; it acts at once and is kept as a hash. */
export async function setPin(actor: Actor, mailbox: string, pin: string): Promise<void> {
  demand(actor, 'resetPin');
  const plans = await Promise.all([draftPlan(), livePlan()]);
  const found = plans.flatMap(({ plan }) => {
    const box = plan.mailboxes.find((m) => m.id === mailbox);
    return box ? [{ plan, box }] : [];
  })[0];
  if (!found) throw new Refused(404, 'no-such-object', 'There is no such mailbox.');
  demandFor(actor, 'resetPin', found.plan, 'mailbox', found.box);
  const least = found.plan.organisation.pinLeastDigits;
  for (const extension of plans.flatMap((p) => p.plan.extensions.filter((e) => e.mailbox === mailbox)))
    refuseWeak(pin, extension.digits, 'pin', least);
  refuseWeak(pin, null, 'pin', least);
  await transaction((c) => keepSecret(c, actor, mailbox, 'pin', pin));
  await recordHistory(actor, 'pin-set', mailbox, null);
}

/** Throws 422 with the reason when a PIN is too easy. */
export function refuseWeak(pin: string, digits: string | null, path: string, least: number): void {
  const why = pinRefusal(pin, digits, least);
  if (why) throw new Refused(422, 'weak-pin', why, path);
}
