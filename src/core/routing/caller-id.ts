import { writeNumber } from '../numbers';
import type { Extension, PlanNumber, Rung, Trunk } from '../plan';
import { knownNumber } from '../exchange/exchange';
import { isActive } from '../exchange/number-state';
import type { ReasonCode } from '../exchange/reasons';
import { refTo, type Run } from './run';

/** What a leg needs to know of the extension behind it. */
export type LegOwner = Pick<
  Extension,
  'id' | 'name' | 'digits' | 'site' | 'person' | 'class' | 'outgoingNumber' | 'withholdNumber'
>;

/** On whose behalf a call leaves. */
export interface Leg {
  /** the extension that dials or forwards; null for transit */
  owner: LegOwner | null;
  /** dialled at a phone, forwarded, led outside by the plan for a call from inside, or asked for by an outside caller */
  origin: 'phone' | 'forward' | 'plan' | 'transit';
  /** calling number of the outside caller of a forwarded or transit call; null when withheld or when there is none */
  original: string | null;
  cameBy: Trunk | null;
  /** the trunk by which the whole call came in, whether or not its caller is shown */
  entered?: Trunk | null;
}

interface Candidate {
  code: ReasonCode;
  e164: string | null;
  text: string | null;
  why: string;
}

/**
 * The number shown to the called side (ENGINE E8), written as the trunk wants it; null when none is shown. Leaves a step,
 * and a doubt when the trunk does not own what it shows.
 */
export function shownNumber(run: Run, leg: Leg, rung: Rung, trunk: Trunk): string | null {
  const diverted = leg.origin !== 'phone' && leg.origin !== 'plan';
  if (diverted && leg.cameBy) {
    if (trunk.showsOriginalCaller) {
      const text = leg.original ? written(run, leg.original, trunk) : null;
      run.step(
        'callerId',
        'shown-original',
        `${trunk.name} may show the original caller: ${text ?? 'number withheld'}.`,
        { out: text },
      );
      return text;
    }
  }
  const found = candidate(run, leg, rung, trunk);
  const text = found.text ?? (found.e164 ? written(run, found.e164, trunk) : null);
  run.step('callerId', found.code, `Shows ${text ?? 'no number'}: ${found.why}.`, {
    out: text,
    object: refTo('trunk', trunk),
  });
  if (diverted && leg.cameBy)
    run.step(
      'callerId',
      'shown-diverted',
      `${trunk.name} marks the call as diverted by ${leg.owner?.name ?? 'the exchange'}.`,
    );
  const owner = found.e164 ? run.exchange.numberByE164.get(found.e164) : undefined;
  if (found.e164 && owner?.trunk !== trunk.id) {
    const doubt = `${trunk.name} does not own ${found.e164}: the carrier may replace or refuse it.`;
    run.doubts.push(doubt);
    run.step('callerId', 'shown-not-owned', doubt, { object: refTo('trunk', trunk) });
  }
  return text;
}

/** The first that is set, in the order of ENGINE E8. */
function candidate(run: Run, leg: Leg, rung: Rung, trunk: Trunk): Candidate {
  const { numbers, numberOf, sites } = run.exchange;
  const { owner } = leg;
  const none = (code: ReasonCode, why: string): Candidate => ({ code, e164: null, text: null, why });
  const number = (code: ReasonCode, n: PlanNumber, why: string): Candidate => ({ code, e164: n.e164, text: null, why });
  const at = (id: string | null | undefined) => (id ? numbers.get(id) : undefined);
  if (leg.origin === 'phone' && (run.call.withhold || run.withheld || owner?.withholdNumber))
    return none('shown-withheld', 'the caller withholds it');
  if (rung.show === 'extension' && owner)
    return { code: 'shown-extension', e164: null, text: owner.digits, why: `${rung.name} shows the extension` };
  if (rung.show === 'hidden') return none('shown-hidden', `${rung.name} hides it`);
  const fixed = at(rung.show === 'fixed' ? rung.fixedNumber : null);
  if (fixed) return number('shown-fixed', fixed, `${rung.name} shows one fixed number`);
  const outgoing = at(owner?.outgoingNumber);
  if (outgoing) return number('shown-outgoing', outgoing, `the outgoing number of ${owner!.name}`);
  const assigned = owner
    ? numberOf.get(owner.id)?.find((n) => isActive(n, sites.get(n.site)!, run.call.at))
    : undefined;
  if (assigned) return number('shown-assigned', assigned, `the number of ${owner!.name}`);
  const main = at(owner ? sites.get(owner.site)!.mainNumber : null);
  if (main) return number('shown-site', main, `the main number of ${sites.get(owner!.site)!.name}`);
  const own = at(trunk.ownNumber);
  if (own) return number('shown-trunk', own, `the main number of ${trunk.name}`);
  return none('shown-none', 'none is set for the extension, its site or the trunk');
}

/** An E.164 number in the form the trunk wants, as seen from where the trunk ends. */
export function written(run: Run, e164: string, trunk: Trunk): string {
  const place = run.exchange.places.get(trunk.site)!;
  return writeNumber(knownNumber(run.exchange, e164), trunk.writes, place.country, place.area);
}
