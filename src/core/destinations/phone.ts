import type { Extension } from '../plan';
import { BUSY, LINK_FULL, UNREACHABLE, type Cause } from '../exchange/cause';
import { linkObstacle } from '../exchange/link';
import type { ReasonCode } from '../exchange/reasons';
import type { Moment } from './offer';

/** What keeps a phone from ringing. */
export interface PhoneObstacle {
  when: 'busy' | 'unreachable' | 'do not disturb';
  code: ReasonCode;
  sentence: string;
  cause: Cause;
}

/** Why the phone of an extension can't ring now, whatever its owner's wishes; null when it can. */
export function phoneObstacle(extension: Extension, moment: Moment): PhoneObstacle | null {
  const { situation } = moment;
  const { id, name } = extension;
  const none = (code: ReasonCode, sentence: string): PhoneObstacle => ({
    when: 'unreachable',
    code,
    sentence,
    cause: UNREACHABLE,
  });
  if (situation.doNotDisturb?.includes(id))
    return {
      when: 'do not disturb',
      code: 'do-not-disturb',
      sentence: `${name} does not want to be disturbed.`,
      cause: BUSY,
    };
  if (extension.kind === 'virtual') return none('no-phone', `${name} is virtual: it has no phone to ring.`);
  if (situation.off?.includes(id)) return none('unreachable', `The phone of ${name} is off or not registered.`);
  if (situation.away?.includes(id)) return none('unreachable', `${name} is away from every phone.`);
  if (situation.busy?.includes(id))
    return { when: 'busy', code: 'busy', sentence: `${name} is on another call.`, cause: BUSY };
  const link = linkObstacle(moment.exchange, situation, moment.fromSite, extension.site);
  return link
    ? { when: 'unreachable', code: 'link-full', sentence: `The call can't reach ${name}: ${link}.`, cause: LINK_FULL }
    : null;
}

/** Whether somebody answers within some seconds: everybody does unless the situation says later. */
export function answersWithin(moment: Moment, id: string, seconds: number): boolean {
  const answer = moment.situation.answers?.find((a) => a.id === id);
  return !answer || answer.afterSeconds <= seconds;
}
