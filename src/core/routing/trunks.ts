import type { Trunk } from '../plan';
import type { NotTaken } from './answer';
import { NO_CHANNEL, causeOf, movesOn, type Cause } from './cause';
import type { ReasonCode } from './reasons';
import { refTo, type Run } from './run';

/** What the search for a trunk must respect. */
export interface TrunkNeeds {
  /** the trunk a call came in by, when it goes out again */
  cameBy: Trunk | null;
  /** digits were chosen by an outside caller: only a trunk with transit may carry that (ENGINE E6 b) */
  transit: boolean;
  /** emergency calls obey neither kept channels nor transit (ENGINE E4) */
  emergency: boolean;
}

export type Choice = { trunk: Trunk } | { ended: Cause };

/** Seconds without a response after which an emergency call moves on (ENGINE E4). */
const EMERGENCY_ANSWER_SECONDS = 4;

/**
 * Tries trunks in order (ENGINE E7). A trunk is passed over with its reason; a failing one moves the call on or ends it
 * by its cause. Leaves one step that says which trunk carries the call and why those before did not.
 */
export function chooseTrunk(run: Run, trunkIds: readonly string[], needs: TrunkNeeds): Choice {
  const notTaken: NotTaken[] = [];
  for (const id of trunkIds) {
    const trunk = run.exchange.trunks.get(id)!;
    const obstacle = obstacleOf(run, trunk, needs);
    if (obstacle) {
      notTaken.push({ rule: trunk.id, label: trunk.name, ...obstacle });
      continue;
    }
    const failed = failureOf(run, trunk, needs);
    if (!failed) {
      run.step('trunk', 'trunk-taken', `${trunk.name} carries the call.`, { object: refTo('trunk', trunk), notTaken });
      return { trunk };
    }
    if (failed.ends) {
      run.step('trunk', 'trunk-ended-call', `${trunk.name} ${failed.why}; that ends the call.`, {
        object: refTo('trunk', trunk),
        notTaken,
      });
      return { ended: failed.cause };
    }
    notTaken.push({ rule: trunk.id, label: trunk.name, code: failed.code, why: failed.why });
  }
  const code: ReasonCode = trunkIds.length === 0 ? 'no-trunks' : 'trunks-exhausted';
  run.step('trunk', code, trunkIds.length === 0 ? 'No trunk is named here.' : 'No trunk is left to try.', { notTaken });
  return { ended: NO_CHANNEL };
}

function obstacleOf(run: Run, trunk: Trunk, needs: TrunkNeeds): { code: ReasonCode; why: string } | null {
  const state = run.situation.trunks?.find((t) => t.id === trunk.id);
  const inUse = state?.inUse ?? 0;
  if (!trunk.enabled) return { code: 'trunk-disabled', why: 'is disabled' };
  if (state?.up === false) return { code: 'trunk-down', why: 'is down' };
  if (inUse >= trunk.channels) return { code: 'trunk-full', why: `all ${trunk.channels} channels are in use` };
  if (!needs.emergency && inUse >= trunk.channels - trunk.keptForIncoming)
    return {
      code: 'trunk-kept',
      why: `${inUse} of ${trunk.channels} channels are in use and ${trunk.keptForIncoming} are kept for incoming calls`,
    };
  if (needs.cameBy && !needs.cameBy.codecs.some((c) => trunk.codecs.includes(c)))
    return { code: 'trunk-codec', why: `shares no codec with ${needs.cameBy.name}` };
  if (needs.transit && !(trunk.transit && needs.cameBy?.transit))
    return {
      code: 'trunk-no-transit',
      why: 'transit is not granted: an outside caller may not choose where a call goes on',
    };
  return null;
}

interface Failed {
  cause: Cause;
  ends: boolean;
  code: ReasonCode;
  why: string;
}

/** How the far end fails in this situation; null when it does not. Emergency calls move on whatever the cause. */
function failureOf(run: Run, trunk: Trunk, needs: TrunkNeeds): Failed | null {
  const fails = run.situation.trunks?.find((t) => t.id === trunk.id)?.fails;
  if (!fails) return null;
  const cause = causeOf(fails);
  if (fails.noResponse) {
    const seconds = needs.emergency ? EMERGENCY_ANSWER_SECONDS : trunk.answerSeconds;
    run.wait(seconds);
    return { cause, ends: false, code: 'trunk-no-response', why: `does not respond within ${seconds} s` };
  }
  if (fails.authentication)
    return { cause, ends: false, code: 'trunk-authentication', why: 'refuses our sign-in twice and is marked down' };
  const why = `fails with cause ${cause.q850} (SIP ${cause.sip})${fails.afterRinging ? ' after ringing' : ''}`;
  const on = needs.emergency || (!fails.afterRinging && cause.sip < 600 && movesOn(cause.q850));
  return { cause, ends: !on, code: 'trunk-failed-moved-on', why };
}
