import { writeNumber } from '../numbers';
import type { PlanNumber, Rung, Trunk } from '../plan';
import { knownNumber } from '../exchange/exchange';
import { isActive } from '../exchange/number-state';
import type { ReasonCode } from '../exchange/reasons';
import type { Leg } from './leg';
import { refTo, type Run } from './run';

interface Candidate {
  code: ReasonCode;
  e164: string | null;
  text: string | null;
  why: string;
}

/** What the called side is shown, what is vouched for beside it, and who forwarded; all written as the trunk wants it. */
export interface Shown {
  shownNumber: string | null;
  asserted: string | null;
  divertedBy: string | null;
}

/**
 * The number shown to the called side (ENGINE E8) and what stands beside it: the asserted identity (RFC 3325) and the mark
 * of diversion (RFC 5806, RFC 7044). Leaves a step each, and a doubt when the trunk does not own what it shows.
 */
export function shownOn(run: Run, leg: Leg, rung: Rung, trunk: Trunk): Shown {
  const hidden = hiddenBy(run, leg, rung);
  const original = leg.diverted && leg.entered !== null && leg.showsCaller && trunk.showsOriginalCaller;
  const own = candidate(run, leg, rung, trunk);
  const shown: Candidate = original
    ? {
        code: 'shown-original',
        e164: leg.original,
        text: null,
        why: `${trunk.name} may show the original caller`,
      }
    : own;
  const text = (c: Candidate) => c.text ?? (c.e164 ? written(run, c.e164, trunk) : null);
  const shownNumber = hidden ? null : text(shown);
  const said = hidden ?? shown;
  run.step('callerId', said.code, `Shows ${shownNumber ?? 'no number'}: ${said.why}.`, {
    out: shownNumber,
    object: refTo('trunk', trunk),
  });
  const divertedBy = diversion(run, leg, trunk, original, text(own));
  const asserted = assertedBy(run, trunk, text(shown));
  if (!hidden && !original) notOwned(run, shown, trunk);
  return { shownNumber, asserted, divertedBy };
}

function diversion(run: Run, leg: Leg, trunk: Trunk, original: boolean, by: string | null): string | null {
  if (!leg.diverted || !leg.entered || original) return null;
  const who = leg.owner?.name ?? 'the exchange';
  const how = { nothing: '', diversion: ' (Diversion, RFC 5806)', history: ' (History-Info, RFC 7044)' };
  const sentence =
    trunk.diversionMark === 'nothing'
      ? `${trunk.name} does not say that ${who} forwarded the call.`
      : `${trunk.name} marks the call as diverted by ${who}${how[trunk.diversionMark]}.`;
  run.step('callerId', 'shown-diverted', sentence, { object: refTo('trunk', trunk) });
  return trunk.diversionMark === 'nothing' ? null : by;
}

function assertedBy(run: Run, trunk: Trunk, shown: string | null): string | null {
  if (trunk.kind === 'isdn' || trunk.asserts === 'nothing') return null;
  const main = trunk.asserts === 'main number' ? activeNumber(run, trunk.ownNumber) : undefined;
  const asserted = trunk.asserts === 'main number' ? main && written(run, main.e164, trunk) : shown;
  if (!asserted) return null;
  run.step('callerId', 'asserted', `${trunk.name} vouches for ${asserted} beside it (RFC 3325).`, {
    out: asserted,
    object: refTo('trunk', trunk),
  });
  return asserted;
}

function notOwned(run: Run, shown: Candidate, trunk: Trunk): void {
  if (!shown.e164 || run.exchange.numberByE164.get(shown.e164)?.trunk === trunk.id) return;
  const doubt = `${trunk.name} does not own ${shown.e164}: the carrier may replace or refuse it.`;
  run.doubts.push(doubt);
  run.step('callerId', 'shown-not-owned', doubt, { object: refTo('trunk', trunk) });
}

/** A number of the plan while it takes calls: only then it may be shown. */
export function activeNumber(run: Run, id: string | null | undefined): PlanNumber | undefined {
  const number = id ? run.exchange.numbers.get(id) : undefined;
  return number && isActive(number, run.exchange.sites.get(number.site)!, run.call.at) ? number : undefined;
}

/** Why nothing is shown: the caller withholds, on every outside leg, or the rule hides; null where something is. */
function hiddenBy(run: Run, leg: Leg, rung: Rung): Candidate | null {
  const none = (code: ReasonCode, why: string): Candidate => ({ code, e164: null, text: null, why });
  if (withholds(run)) return none('shown-withheld', 'the caller withholds it');
  if (rung.show === 'hidden') return none('shown-hidden', `${rung.name} hides it`);
  if (leg.owner?.withholdNumber && !leg.diverted) return none('shown-withheld', `${leg.owner.name} withholds it`);
  return null;
}

/** Whether the one who calls hides the number: for this call, on every call, or from outside. */
function withholds(run: Run): boolean {
  const { from, withhold } = run.call;
  if (withhold || run.withheld) return true;
  if (from.type === 'extension') return run.exchange.extensions.get(from.id)!.withholdNumber;
  return from.calling === null;
}

/** The first that is set and active, in the order of ENGINE E8 after what hides. */
function candidate(run: Run, leg: Leg, rung: Rung, trunk: Trunk): Candidate {
  const { numberOf, sites } = run.exchange;
  const { owner } = leg;
  const number = (code: ReasonCode, n: PlanNumber, why: string): Candidate => ({ code, e164: n.e164, text: null, why });
  if (rung.show === 'extension' && owner)
    return { code: 'shown-extension', e164: null, text: owner.digits, why: `${rung.name} shows the extension` };
  const fixed = activeNumber(run, rung.show === 'fixed' ? rung.fixedNumber : null);
  if (fixed) return number('shown-fixed', fixed, `${rung.name} shows one fixed number`);
  const outgoing = activeNumber(run, owner?.outgoingNumber);
  if (outgoing) return number('shown-outgoing', outgoing, `the outgoing number of ${owner!.name}`);
  const assigned = owner
    ? numberOf.get(owner.id)?.find((n) => isActive(n, sites.get(n.site)!, run.call.at))
    : undefined;
  if (assigned) return number('shown-assigned', assigned, `the number of ${owner!.name}`);
  const main = activeNumber(run, owner ? sites.get(owner.site)!.mainNumber : null);
  if (main) return number('shown-site', main, `the main number of ${sites.get(owner!.site)!.name}`);
  const own = activeNumber(run, trunk.ownNumber);
  if (own) return number('shown-trunk', own, `the main number of ${trunk.name}`);
  return {
    code: 'shown-none',
    e164: null,
    text: null,
    why: 'none is set for the extension, its site or the trunk',
  };
}

/** An E.164 number in the form the trunk wants, as seen from where the trunk ends. */
export function written(run: Run, e164: string, trunk: Trunk): string {
  const place = run.exchange.places.get(trunk.site)!;
  return writeNumber(knownNumber(run.exchange, e164), trunk.writes, place.country, place.area);
}
