import type { Extension } from '../plan';
import { BUSY, UNREACHABLE } from '../exchange/cause';
import type { Moment } from './offer';
import { phoneObstacle, type PhoneObstacle } from './phone';
import { presenceAct } from './presence';

/**
 * Why a member of a group or an agent of a queue can't be rung: such a phone is only rung, so its forwarding, reach plan and
 * mailbox don't apply, but presence and do not disturb do (ENGINE E11).
 */
export function memberObstacle(member: Extension, moment: Moment): PhoneObstacle | null {
  const presence = presenceAct(member, moment);
  if (presence && presence.act !== 'ring') {
    const busy = presence.act === 'busy';
    return {
      when: busy ? 'busy' : 'unreachable',
      code: 'presence',
      sentence: `${member.name} is “${presence.rule.name}” and is not rung.`,
      cause: busy ? BUSY : UNREACHABLE,
    };
  }
  return phoneObstacle(member, moment);
}
