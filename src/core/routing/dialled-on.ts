import type { Ending } from '../exchange/answer';
import { UNALLOCATED } from '../exchange/cause';
import { dialledAll, rulesAt } from '../exchange/context';
import { contextOf } from './dialling';
import { callerOf, type CameIn } from './leave-through';
import { leaveBy } from './outgoing';
import { ending, type Run } from './run';

/**
 * Digits that a caller chose, taken as dialled inside a site: something inside, or the call as it
 * left. Outside digits are transit for an outside caller, and need the right of the own class of an inside one (ENGINE E6 b).
 * With `reach` outside nothing inside is reached by them. Emergency digits can't be reached from outside, whatever else takes them (ENGINE E4).
 */
export function dialledOn(
  run: Run,
  digits: string,
  cameIn: CameIn,
  site: string,
  reach: 'anything' | 'outside' = 'anything',
): { leadsTo: string } | { ended: Ending } {
  const caller = callerOf(cameIn);
  const context = contextOf(run.exchange, caller, { at: run.now, situation: run.situation }, site);
  const state = dialledAll(context, digits);
  const rules = state ? rulesAt(context, state) : [];
  const rule = rules.some((r) => r.type === 'emergency')
    ? undefined
    : rules.find((r) => (r.type === 'destination' && reach === 'anything') || r.type === 'rung');
  // What has digits of its own stands before the ladder, whoever calls.
  if (rule?.type !== 'destination') run.exchange.asksCaller?.();
  if (!rule) {
    run.step('route', 'dialled-nothing', `Nothing here that callers from outside may reach has the digits ${digits}.`, {
      in: digits,
    });
    return { ended: ending({ outcome: 'unroutable', cause: UNALLOCATED }) };
  }
  if (rule.type === 'destination') {
    run.step('route', 'dialled-extension', `${digits} is an extension here.`, { in: digits });
    return { leadsTo: rule.id };
  }
  if (rule.type !== 'rung') return { ended: ending({ outcome: 'unroutable', cause: UNALLOCATED }) };
  const { phone, trunk } = cameIn;
  const asked = phone ? 'the right of the own class is asked' : 'the caller asks for transit';
  run.step('route', 'dialled-outside', `${digits} is an outside number here: ${asked}.`, { in: digits });
  return {
    ended: leaveBy(
      run,
      rule.compiled,
      digits,
      {
        owner: phone,
        caller,
        fromSite: cameIn.site,
        rights: phone ? [{ class: phone.class, who: phone.name, right: 'allow', asksPin: true }] : [],
        diverted: phone === null,
        showsCaller: phone === null,
        original: cameIn.calling,
        entered: trunk,
        transit: trunk !== null,
      },
      site,
    ),
  };
}
