import type { Trunk } from '../plan';
import type { NotTaken } from '../exchange/answer';
import { LINK_FULL, NO_CHANNEL, causeOf, movesOn, type Cause } from '../exchange/cause';
import type { ReasonCode } from '../exchange/reasons';
import { channelsInUse, freeChannel } from './channel';
import { spoken } from '../exchange/hear';
import { linkObstacle, pairKey, spokenBetween } from '../exchange/link';
import { refTo, type Run } from './run';

/** What the search for a trunk must respect. */
export interface TrunkNeeds {
  /** the trunk a call came in by, when it goes out again */
  cameBy: Trunk | null;
  /** digits were chosen by an outside caller: only a trunk with transit may carry that (ENGINE E6 b) */
  transit: boolean;
  /** the site from which the call comes, for its link; null when that is no site */
  fromSite: string | null;
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
      if (!run.told) return { trunk };
      run.step('trunk', 'trunk-taken', `${trunk.name} carries the call.`, { object: refTo('trunk', trunk), notTaken });
      const strange = trunk.transcoding ? codecObstacle(run, trunk, needs) : null;
      if (strange)
        run.step('trunk', 'trunk-converts', `${trunk.name} converts between codecs: it ${strange}.`, {
          object: refTo('trunk', trunk),
        });
      sayChannel(run, trunk);
      sayRecorded(run, trunk);
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
  // The link alone stood in the way: its own cause (ENGINE E7).
  const onlyLink = notTaken.length > 0 && notTaken.every((n) => n.code === 'trunk-link-full');
  return { ended: onlyLink ? LINK_FULL : NO_CHANNEL };
}

/** On a trunk with channels, which one is taken (ENGINE E7). */
function sayChannel(run: Run, trunk: Trunk): void {
  if (trunk.kind !== 'isdn') return;
  const state = run.situation.trunks?.find((t) => t.id === trunk.id);
  const channel = freeChannel(trunk, state);
  if (channel === null) return;
  run.step('trunk', 'trunk-channel', `Channel ${channel} of ${trunk.name} is taken: ${trunk.channelChoice}.`, {
    object: refTo('trunk', trunk),
    out: String(channel),
  });
}

export function sayRecorded(run: Run, trunk: Trunk): void {
  if (!trunk.recorded) return;
  const consent = spoken(run.exchange, trunk.consent);
  run.step('trunk', 'recorded', `Calls on ${trunk.name} are recorded; ${consent} says so.`, {
    object: refTo('trunk', trunk),
  });
}

function obstacleOf(run: Run, trunk: Trunk, needs: TrunkNeeds): { code: ReasonCode; why: string } | null {
  const state = run.situation.trunks?.find((t) => t.id === trunk.id);
  const inUse = channelsInUse(trunk, state);
  if (!trunk.enabled) return { code: 'trunk-disabled', why: 'is disabled' };
  if (state?.up === false) return { code: 'trunk-down', why: 'is down' };
  if (inUse >= trunk.channels) return { code: 'trunk-full', why: `all ${trunk.channels} channels are in use` };
  if (!needs.emergency && inUse >= trunk.channels - trunk.keptForEmergency)
    return {
      code: 'trunk-kept-emergency',
      why: `${inUse} of ${trunk.channels} channels are in use and ${trunk.keptForEmergency} are kept for emergency calls`,
    };
  if (!needs.emergency && inUse >= trunk.channels - trunk.keptForEmergency - trunk.keptForIncoming)
    return {
      code: 'trunk-kept',
      why: `${inUse} of ${trunk.channels} channels are in use and ${trunk.keptForIncoming} are kept for incoming calls`,
    };
  const codec = trunk.transcoding ? null : codecObstacle(run, trunk, needs);
  if (codec) return { code: 'trunk-codec', why: codec };
  const link = needs.emergency ? null : linkObstacle(run.exchange, run.situation, needs.fromSite, trunk.site);
  if (link) return { code: 'trunk-link-full', why: link };
  if (needs.transit && !(trunk.transit && needs.cameBy?.transit))
    return {
      code: 'trunk-no-transit',
      why: 'transit is not granted: an outside caller may not choose where a call goes on',
    };
  return null;
}

/** Why a trunk shares no codec with the calling side; null when it does. */
function codecObstacle(run: Run, trunk: Trunk, needs: TrunkNeeds): string | null {
  const { fromSite, cameBy } = needs;
  const agreed = fromSite ? spokenBetween(run.exchange, fromSite, trunk.site) : null;
  if (agreed && run.exchange.sitePairs.has(pairKey(fromSite!, trunk.site)) && !trunk.codecs.includes(agreed.codec))
    return `does not speak ${agreed.codec}, which its site and the caller’s agreed on`;
  if (cameBy && !cameBy.codecs.some((c) => trunk.codecs.includes(c))) return `shares no codec with ${cameBy.name}`;
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
