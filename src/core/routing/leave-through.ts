import type { OutsideLeg } from '../destinations';
import type { Extension, OutsideNumber, Trunk } from '../plan';
import type { Call, Ending } from '../exchange/answer';
import { REFUSED, UNALLOCATED } from '../exchange/cause';
import { ruleAt } from '../exchange/context';
import { contextOf } from './dialling';
import { ownerFrom, type Caller, type LegRight } from './leg';
import { leaveBy } from './outgoing';
import type { Exchange } from '../exchange/exchange';
import type { Situation } from '../exchange/situation';
import { ending, refTo, Run } from './run';

/** Where a call that goes from place to place came from. */
export interface CameIn {
  /** the trunk of an outside caller; null for a call from inside */
  trunk: Trunk | null;
  calling: string | null;
  /** the phone of an inside caller; null for a call from outside */
  phone: Extension | null;
  /** the site from which it reaches us */
  site: string;
}

/** Who calls, as lists of rules and the link see it (ENGINE E6, E7). */
export const callerOf = (cameIn: CameIn): Caller => ({ person: cameIn.phone?.person ?? null, site: cameIn.site });

/**
 * An outside number of the plan, dialled as from its site, or digits that a person set, dialled as at their phone. An outside
 * caller needs *forward to outside* of the number's class and of the owner; an inside caller needs the right of their own
 * class (ENGINE E6).
 */
export function leaveThrough(run: Run, leg: OutsideLeg, cameIn: CameIn): Ending {
  const { exchange } = run;
  exchange.asksCaller?.();
  const number = leg.number === null ? null : (exchange.destinations.get(leg.number)!.object as OutsideNumber);
  const owner = leg.owner ? exchange.extensions.get(leg.owner)! : null;
  const site = (number ?? owner!).site;
  const caller = callerOf(cameIn);
  const context = contextOf(exchange, caller, { at: run.now, situation: run.situation }, site);
  const rule = ruleAt(context, leg.dial);
  const object = number ? refTo('outsideNumber', number) : refTo('extension', owner!);
  if (!rule || rule.type !== 'rung') {
    const what =
      rule?.type === 'emergency' ? 'is an emergency number, which nothing leads to' : 'is no outside number there';
    run.step('destination', 'outside-unreadable', `${leg.dial} ${what}.`, { object, in: leg.dial });
    return ending(
      rule?.type === 'emergency'
        ? { outcome: 'refused', cause: REFUSED }
        : { outcome: 'unroutable', cause: UNALLOCATED },
    );
  }
  return leaveBy(
    run,
    rule.compiled,
    leg.dial,
    {
      owner: owner ?? ownerFrom(number!),
      caller,
      fromSite: cameIn.site,
      rights: rightsFor([owner, number], cameIn),
      diverted: true,
      showsCaller: leg.showsCaller,
      original: cameIn.calling,
      entered: cameIn.trunk,
      transit: false,
    },
    site,
  );
}

function rightsFor(by: readonly (Extension | OutsideNumber | null)[], { trunk, phone }: CameIn): LegRight[] {
  if (!trunk) return phone ? [{ class: phone.class, who: phone.name, right: 'allow', asksPin: true }] : [];
  return by.flatMap((o): LegRight[] => (o ? [{ class: o.class, who: o.name, right: 'forward', asksPin: false }] : []));
}

/** How a call from somewhere would leave by an outside number of the plan, or why it would not. */
export function leavingBy(
  exchange: Exchange,
  id: string,
  cameIn: CameIn,
  at: number,
  situation: Situation,
): Pick<Ending, 'lands' | 'cause'> {
  const { dial } = exchange.destinations.get(id)!.object as OutsideNumber;
  const call: Call = { from: { type: 'outside', calling: null }, dial, enBloc: true, at };
  const run = new Run(exchange, call, situation, false);
  return leaveThrough(run, { dial, number: id, owner: null, showsCaller: true }, cameIn);
}
